package papers

import (
	"context"
	"fmt"
	"slices"

	"wakefield.example/core/plan"
)

// method is how the figures come about, in ten lines.
var method = []string{
	"Of every channel it is worked out, minute by minute of a week, which share of time is written: what a duty records whatever happens, and round every event the seconds before and after it. Footage of several events that overlap is counted once.",
	"Events come by chance, as often as the activities below say, singly or in groups. Detection notices some of them; motion that nobody wants is noticed too.",
	"What is written costs what the streams below send while something moves, and while nothing does.",
	"Drives are one ring: the oldest footage of any channel goes first. A pool holds as many days as its usable bytes take in at that rate, at the worst hour of the week and, where dates are special, on the worst date of the year.",
	"No figure is known exactly. 2,000 sites are drawn, in which every activity and bitrate is off as far as its source allows; the likely range is where four of five of them lie.",
	"An event is kept in full where the recorder writes it as its event layer does, low where it writes less, and missed where it writes nothing.",
}

// evidence writes what the figures rest on.
func (s *Source) evidence(sh *sheet) {
	s.letterhead(sh, "What the figures rest on")
	f := s.As
	sh.par(s.verdict(), text)
	v := f.Verdict
	sh.par(plan.Say("%.3g GB a day, %.3g Mbit/s on average, on %.4g TB that footage may fill. %.3g %% chance that every channel keeps its days.", v.GigabytesPerDay, v.AverageMbps, v.UsableGB/1000, v.HoldsPercent), text)
	if n := len(s.Entered.Departures); n > 0 {
		sh.par(fmt.Sprintf("Figures are of the plan as its recorders take it, which is otherwise than planned in %s; the sheets list them.",
			plan.Count(n, "place")), text)
	}
	s.activities(sh)
	s.streams(sh)
	s.pools(sh)
	if unknown, err := f.Knowing(context.Background()); err == nil && len(unknown) > 0 {
		sh.head("What would make the range narrower", 1, 12)
		var list []string
		for _, u := range unknown[:min(5, len(unknown))] {
			list = append(list, fmt.Sprintf("%s: by %.1f days", whatIsUnknown(u.Kind, u.Name), u.NarrowerDays))
		}
		sh.bullets(list)
	}
	sh.head("How it is worked out", 1, 14)
	sh.bullets(method)
	s.accepted(sh, "Findings that were accepted")
	s.open(sh)
}

// whatIsUnknown is what would be measured.
func whatIsUnknown(kind, name string) string {
	switch kind {
	case "activity":
		return "How often “" + name + "” happens"
	case "groups":
		return "Whether events of “" + name + "” come together"
	case "bitrate":
		return "Bitrates of " + name
	case "night":
		return "The bitrate of " + name + " at night"
	case "noticing":
		return "How reliably cameras notice what is in sight"
	}
	return name
}

func streamInWords(which plan.StreamName, st *plan.Stream) string {
	words := plan.Say("%s %s, %d × %d, %v frames a second: ", upper(plan.StreamChoices.Name(string(which))), plan.Codecs.Name(st.Codec),
		st.Width, st.Height, st.FPS)
	switch st.Rate.Kind {
	case "constant":
		return words + plan.Say("%v kbit/s", st.Rate.Kbps)
	case "variable":
		return words + plan.Say("%v to %v kbit/s", st.Rate.IdleKbps, st.Rate.ActiveKbps)
	}
	return words + plan.Say("quality %d of 5, %s scene", st.Rate.Quality, plan.Scenes.Name(st.Rate.Scene))
}

// cameras are the channels of a recorder that have a camera, in the order of their numbers; places in the plan.
func (s *Source) cameras(recorder string) (out []int) {
	for i := range s.Entered.Plan.Channels {
		if c := &s.Entered.Plan.Channels[i]; c.Recorder == recorder && !c.NoCamera {
			out = append(out, i)
		}
	}
	slices.SortStableFunc(out, func(a, b int) int { return s.Entered.Plan.Channels[a].Number - s.Entered.Plan.Channels[b].Number })
	return out
}

// activities tells how often things happen.
func (s *Source) activities(sh *sheet) {
	p := s.Entered.Plan
	sh.head("How often things happen", 1, 16)
	var rows [][]string
	for i := range p.Activities {
		a := &p.Activities[i]
		perDay := 0.0
		for run, rate := range a.Rates().Runs() {
			perDay += rate * float64(run.Minutes()) / 60 / 7
		}
		come := "singly"
		if a.Groups != nil && a.Groups.Size > 1 {
			come = plan.Say("%v together", a.Groups.Size)
		}
		rows = append(rows, []string{a.Name, plan.Say("%.3g", perDay), plan.Say("%v s", a.MeanSeconds), come, plan.ActivitiesKnown.Name(a.Known)})
	}
	sh.table([]column{{title: "Activity", share: 3}, {title: "Events a day", width: 24, right: true},
		{title: "Length", width: 18, right: true}, {title: "They come", width: 30}, {title: "Known from", share: 2}}, rows, style{points: 8.5})
}

// streams tells what streams send, those that are alike together.
func (s *Source) streams(sh *sheet) {
	p := s.Entered.Plan
	sh.head("What streams send", 1, 16)
	var rows [][]string
	type like struct {
		words, known string
	}
	var order []like
	channels := make(map[like][]string)
	for i := range p.Channels {
		c := &p.Channels[i]
		if c.NoCamera {
			continue
		}
		for _, which := range []plan.StreamName{plan.Main, plan.Sub, plan.Third} {
			st := c.Streams.Get(which)
			if st == nil {
				continue
			}
			known := plan.RatesKnown.Name(st.Rate.Known)
			if st.Rate.Kind == "modelled" {
				known = "a model"
			}
			k := like{streamInWords(which, st), known}
			if channels[k] == nil {
				order = append(order, k)
			}
			channels[k] = append(channels[k], c.Name)
		}
	}
	for _, k := range order {
		rows = append(rows, []string{k.words, shortList(channels[k]), k.known})
	}
	sh.table([]column{{title: "Stream", share: 3}, {title: "Of", share: 3}, {title: "Known from", width: 26}}, rows, style{points: 8.5})
}

// pools tells how many days each keeps.
func (s *Source) pools(sh *sheet) {
	p, f := s.Entered.Plan, s.As
	sh.head("How many days", 1, 16)
	var rows [][]string
	for i := range f.Pools {
		pool := &f.Pools[i]
		row := []string{p.Pool(pool.ID).Name, plan.Say("%.4g", pool.UsableGB/1000), plan.Say("%.3g", pool.GigabytesPerDay), "no limit", "–", "–"}
		if pool.RetentionDays != nil {
			row[3] = fmt.Sprintf("%.1f", *pool.RetentionDays)
		}
		if pool.WorstDays != nil {
			row[4] = fmt.Sprintf("%.1f", *pool.WorstDays)
		}
		if pool.LikelyDays != nil {
			row[5] = fmt.Sprintf("%.1f to %.1f", pool.LikelyDays.Low, pool.LikelyDays.High)
		}
		rows = append(rows, row)
	}
	sh.table([]column{{title: "Pool", share: 3}, {title: "For footage, TB", width: 28, right: true},
		{title: "GB a day", width: 20, right: true}, {title: "Days", width: 20, right: true}, {title: "Worst hour", width: 22, right: true},
		{title: "Four in five", width: 28, right: true}}, rows, style{points: 8.5})
}

// open lists the findings that nobody accepted.
func (s *Source) open(sh *sheet) {
	var open []string
	for i := range s.Findings {
		if fd := &s.Findings[i]; fd.Accepted == nil {
			open = append(open, upper(string(fd.Severity))+": "+fd.Sentence)
		}
	}
	if len(open) > 0 {
		sh.head("Findings that are open", 1, 10)
		more := len(open) - 40
		sh.bullets(open[:min(40, len(open))])
		if more > 0 {
			sh.par(fmt.Sprintf("And %d more.", more), small)
		}
	}
}
