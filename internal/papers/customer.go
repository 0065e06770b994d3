package papers

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"wakefield.example/core/footage"
	"wakefield.example/core/plan"
	"wakefield.example/core/video"
	"wakefield.example/core/week"
)

// group is cameras that are told together.
type group struct {
	name     string
	channels []int // places in the plan
}

// groups are the cameras of a plan by their groups, in the order of the plan; those of none last.
func groups(p *plan.Plan) (out []group) {
	var rest group
	for i := range p.Channels {
		c := &p.Channels[i]
		switch {
		case c.NoCamera:
		case c.Group == "":
			rest.channels = append(rest.channels, i)
		default:
			k := slices.IndexFunc(out, func(g group) bool { return g.name == c.Group })
			if k < 0 {
				k = len(out)
				out = append(out, group{name: c.Group})
			}
			out[k].channels = append(out[k].channels, i)
		}
	}
	if len(rest.channels) > 0 {
		rest.name = "Other cameras"
		if len(out) == 0 {
			rest.name = "All cameras"
		}
		out = append(out, rest)
	}
	return out
}

// upper begins a name with an upper case letter.
func upper(s string) string {
	r := []rune(s)
	if len(r) == 0 {
		return s
	}
	return strings.ToUpper(string(r[:1])) + string(r[1:])
}

// customer writes what is kept, how long, and what is not.
func (s *Source) customer(sh *sheet) {
	s.letterhead(sh, "What is recorded, and for how long")
	p := s.Entered.Plan
	if p.Site.Wording != "" {
		sh.par(p.Site.Wording, text)
		sh.space(2)
	}
	list := groups(p)
	if len(list) == 0 {
		sh.par("No camera is planned yet.", text)
		return
	}
	sh.head("How long footage is kept", 1, 24)
	sh.par(s.verdict(), text)
	sh.space(1.5)
	var rows [][]string
	for _, g := range list {
		rows = append(rows, s.keptRow(g))
	}
	sh.table([]column{{title: "Cameras", share: 3}, {title: "of them", width: 16, right: true},
		{title: "Agreed, days", width: 23, right: true}, {title: "Kept, days", width: 21, right: true},
		{title: "Likely between", width: 29, right: true}, {title: "Deleted after", width: 24, right: true}}, rows, style{points: 9})
	sh.space(1)
	sh.par("Likely between: four times out of five. What is not measured yet makes the difference.", small)
	s.when(sh, list)
	s.missing(sh)
	s.told(sh)
	s.takingOff(sh)
	s.accepted(sh, "What was accepted on purpose")
	sh.head("Agreed", 1, 34)
	half := (sh.width - 10) / 2
	for i, who := range []string{"For " + orElse(p.Site.Customer, "the customer"), "For " + orElse(s.Company.Name, "the installer")} {
		x := sh.left + float64(i)*(half+10)
		sh.put(x, sh.y+text.points*mm, sh.letters.clean(who), text, half, false)
		for k, what := range []string{"Place and date", "Name and signature"} {
			y := sh.y + 14 + float64(k)*12
			sh.pdf.SetDrawColor(ink[0], ink[1], ink[2])
			sh.pdf.SetLineWidth(0.2)
			sh.pdf.Line(x, y, x+half, y)
			sh.put(x, y+3.2, what, small, half, false)
		}
	}
	sh.y += 30
}

func orElse(text, otherwise string) string {
	if text == "" {
		return otherwise
	}
	return text
}

// verdict is the days of the whole site in two sentences.
func (s *Source) verdict() string {
	v := s.As.Verdict
	if v.KeptDays == nil {
		return "Nothing is overwritten: footage stays until it is deleted by hand."
	}
	words := fmt.Sprintf("The camera that comes off worst is kept %.1f days", *v.KeptDays)
	if c := s.Plan.Channel(v.Channel); c != nil {
		words = fmt.Sprintf("%s comes off worst and is kept %.1f days", c.Name, *v.KeptDays)
	}
	if v.RequiredDays != nil {
		words += plan.Say(" of the %v agreed", *v.RequiredDays)
	}
	if v.LikelyDays != nil {
		words += fmt.Sprintf("; likely between %.1f and %.1f", v.LikelyDays.Low, v.LikelyDays.High)
	}
	words += "."
	if y := s.As.SpecialYear(); y != nil && y.WorstDays != nil && y.WorstDate != nil {
		words += fmt.Sprintf(" On the worst date of the year, %s", longDate(*y.WorstDate))
		if y.Name != "" {
			words += " (" + y.Name + ")"
		}
		words += fmt.Sprintf(", it is %.1f days.", *y.WorstDays)
	}
	return words
}

// keptRow is a row of what a group keeps: the least of its cameras.
func (s *Source) keptRow(g group) []string {
	agreed, most := 0.0, 0.0
	var kept, low, high *float64
	for _, i := range g.channels {
		c, f := &s.Entered.Plan.Channels[i], &s.As.Channels[i]
		agreed = max(agreed, c.Keep.AtLeastDays)
		if c.Keep.AtMostDays > 0 && (most == 0 || c.Keep.AtMostDays < most) {
			most = c.Keep.AtMostDays
		}
		if f.RetentionDays != nil && (kept == nil || *f.RetentionDays < *kept) {
			kept = f.RetentionDays
			low, high = nil, nil
			if f.LikelyDays != nil {
				low, high = &f.LikelyDays.Low, &f.LikelyDays.High
			}
		}
	}
	row := []string{upper(g.name), fmt.Sprint(len(g.channels)), "–", "no limit", "–", "–"}
	if agreed > 0 {
		row[2] = plan.Say("%v", agreed)
	}
	if kept != nil {
		row[3] = fmt.Sprintf("%.1f", *kept)
	}
	if low != nil {
		row[4] = fmt.Sprintf("%.1f and %.1f", *low, *high)
	}
	if most > 0 {
		row[5] = plan.Say("%v days", most)
	}
	return row
}

// when draws the week of every group.
func (s *Source) when(sh *sheet, list []group) {
	sh.head("From when to when", 1, 26)
	sh.par("Grey band: recorded whatever happens. Upright lines: recorded when something moves, as high as it is likely. Slanting lines: on an alarm. Each strip is one week; its height is what a camera writes, alike for all.", small)
	sh.space(1)
	name := 34.0
	sh.room(9)
	sh.days(sh.left+name, sh.y+2.6, sh.width-name)
	sh.y += 3.6
	weeks, most := make([]footage.Week, len(list)), 0.0
	for i, g := range list {
		weeks[i] = s.together(g)
		for _, b := range weeks[i] {
			most = max(most, float64(b.Total()))
		}
	}
	for i, g := range list {
		words := sh.wrapped(s.hoursOf(g), style{points: 7.5, soft: true}, sh.width-name)
		label := sh.wrapped(upper(g.name), strong, name-3)
		high := max(9+float64(len(words))*small.line(), float64(len(label))*strong.line()) + 1.5
		sh.room(high)
		sh.column(sh.left, sh.y, label, strong)
		sh.ribbon(sh.left+name, sh.y, sh.width-name, 7.5, weeks[i], 1.05*most)
		sh.column(sh.left+name, sh.y+8, words, style{points: 7.5, soft: true})
		sh.y += high
	}
}

// together is the mean week of a group's cameras.
func (s *Source) together(g group) footage.Week {
	const bin = 30
	out := make(footage.Week, int(week.Length)/bin)
	for k := range out {
		out[k].Span = week.Span{From: week.Minute(k * bin), To: week.Minute((k + 1) * bin)}
	}
	n := video.Kbps(len(g.channels))
	for _, i := range g.channels {
		for _, b := range s.As.Week(i) {
			k := int(b.Span.From) / bin
			part := video.Kbps(b.Span.Minutes()) / bin / n
			out[k].Base += b.Base * part
			out[k].Motion += b.Motion * part
			out[k].Alarm += b.Alarm * part
		}
	}
	return out
}

// hoursOf says what a group does, by how many of its cameras do it at which hours.
func (s *Source) hoursOf(g group) string {
	at := make(map[string]map[string]int) // by duty, then by hours
	var order []string
	for _, i := range g.channels {
		steps := s.As.Duties(i)
		var seen []string
		for _, st := range steps {
			if slices.Contains(seen, st.Value) {
				continue
			}
			seen = append(seen, st.Value)
			where := week.Map(steps, func(d string) bool { return d == st.Value })
			hours := plan.HoursInWords(plan.HoursWhere(where))
			if len(steps) == 1 {
				hours = "all week"
			}
			if at[st.Value] == nil {
				at[st.Value] = make(map[string]int)
				order = append(order, st.Value)
			}
			at[st.Value][hours]++
		}
	}
	var parts []string
	for _, duty := range order {
		name := duty
		if d := s.Entered.Plan.Duty(duty); d != nil {
			name = d.Name
		}
		if len(at[duty]) == 1 {
			for hours, n := range at[duty] {
				if n == len(g.channels) {
					parts = append(parts, name+" "+hours)
				} else {
					parts = append(parts, fmt.Sprintf("%s %s on %d of %d", name, hours, n, len(g.channels)))
				}
			}
			continue
		}
		n := 0
		for _, k := range at[duty] {
			n += k
		}
		parts = append(parts, fmt.Sprintf("%s on %d of %d, at different hours", name, n, len(g.channels)))
	}
	return strings.Join(parts, "; ")
}

// bullets sets a list.
func (sh *sheet) bullets(list []string) {
	for _, words := range list {
		lines := sh.wrapped(words, text, sh.width-5)
		for i, line := range lines {
			sh.room(text.line())
			if i == 0 {
				sh.put(sh.left+0.8, sh.y+text.points*mm, "•", text, 4, true)
			}
			sh.column(sh.left+5, sh.y, []string{line}, text)
			sh.y += text.line()
		}
		sh.y += 0.6
	}
}

// missing says what is not recorded, and why, and whether there is sound.
func (s *Source) missing(sh *sheet) {
	sh.head("What is not recorded, and why", 1, 14)
	var list []string
	p, f := s.Entered.Plan, s.As
	for i := range p.Channels {
		c := &p.Channels[i]
		if c.NoCamera {
			continue
		}
		none := week.Map(f.Duties(i), func(id string) bool {
			d := p.Duty(id)
			return d == nil || d.Base == nil && d.Event == nil
		})
		if share := none.Share(func(on bool) bool { return on }); share > 0 {
			list = append(list, fmt.Sprintf("%s records nothing %s.", c.Name, plan.HoursInWords(plan.HoursWhere(none))))
		}
	}
	if list = shortened(list, 6); f.Verdict.Evidence.MissedPerDay >= 0.05 {
		list = append(list, plan.Say("Of about %.3g events a day, %.2g are not noticed in hours in which only what is noticed is recorded.",
			f.Verdict.Evidence.EventsPerDay, f.Verdict.Evidence.MissedPerDay))
	}
	var ignored, sound []string
	for i := range p.Channels {
		c := &p.Channels[i]
		if c.NoCamera {
			continue
		}
		if c.Detection.Areas != nil && slices.ContainsFunc(c.Detection.Areas.List, func(a plan.Area) bool { return a.Ignore }) {
			ignored = append(ignored, c.Name)
		}
		if c.AudioKbps > 0 {
			sound = append(sound, c.Name)
		}
	}
	if len(ignored) > 0 {
		list = append(list, "Motion in parts of the picture is ignored, as nobody walks there: "+shortList(ignored)+".")
	}
	if len(sound) == 0 {
		list = append(list, "Sound is not recorded.")
	} else {
		list = append(list, "Sound is recorded by "+shortList(sound)+". That it may be is for the customer to know.")
	}
	sh.bullets(list)
}

// shortened is the beginning of a long list, and how much more there is.
func shortened(list []string, most int) []string {
	if len(list) > most {
		return append(list[:most:most], fmt.Sprintf("And %d more cameras at some hours.", len(list)-most))
	}
	return list
}

// shortList are names, the first eight of many.
func shortList(names []string) string {
	if len(names) > 8 {
		return strings.Join(names[:8], ", ") + fmt.Sprintf(" and %d more", len(names)-8)
	}
	return plan.InList(names)
}

// told says who is told of what, and how often.
func (s *Source) told(sh *sheet) {
	p := s.Entered.Plan
	if len(p.Messages) == 0 {
		return
	}
	sh.head("Who is told", 1, 16)
	var rows [][]string
	for i := range p.Messages {
		m := &p.Messages[i]
		var causes []string
		for k := range p.Effects {
			if slices.Contains(p.Effects[k].Message, m.ID) {
				causes = append(causes, p.CauseInWords(p.Effects[k].When))
			}
		}
		hours := "always"
		if m.Hours != nil {
			hours = plan.HoursInWords(m.Hours.Blocks)
		}
		rows = append(rows, []string{m.To, shortList(causes), hours, plan.Say("%.2g", s.As.Messages[i].PerDay),
			plan.SecondsInWords(m.AtMostEverySeconds)})
	}
	sh.table([]column{{title: "Who", share: 2}, {title: "Of what", share: 4}, {title: "When", share: 2},
		{title: "A day, about", width: 22, right: true}, {title: "At most every", width: 24, right: true}}, rows, style{points: 9})
}

// What copies are written to, where nobody said: an ordinary USB drive, and half of a gigabit.
const (
	usbMBps     = 40.0
	networkMBps = 60.0
)

// takingOff says how long it takes to copy footage.
func (s *Source) takingOff(sh *sheet) {
	p := s.Entered.Plan
	zone, err := time.LoadLocation(p.Site.TimeZone)
	if err != nil {
		return
	}
	var all []int
	most := -1
	for i := range p.Channels {
		if p.Channels[i].NoCamera {
			continue
		}
		all = append(all, i)
		if most < 0 || s.As.Channels[i].AverageKbps > s.As.Channels[most].AverageKbps {
			most = i
		}
	}
	// The last whole Monday before the papers: an ordinary day, unless it is a special one.
	day := s.On.Add(-7)
	for day.Weekday() != week.Monday {
		day = day.Add(-1)
	}
	from, to := day.At(0, zone), day.Add(1).At(0, zone)
	sh.head("How long it takes to hand footage over", 1, 14)
	say := func(what string, channels []int) string {
		t, ok := s.As.TakeOff(channels, from, to, false)
		if !ok {
			return ""
		}
		words := fmt.Sprintf("%s, one day: %s", what, plan.Say("%.3g GB", t.Gigabytes))
		usb, net := t.Minutes(usbMBps), t.Minutes(networkMBps)
		if usb == nil || net == nil {
			return words + "; the drives have nothing to spare for copying while they record."
		}
		return words + fmt.Sprintf(", about %s to a USB drive and %s over the network.", plan.About(*usb*60), plan.About(*net*60))
	}
	sh.bullets([]string{
		say("All cameras", all),
		say("The one that writes most, "+p.Channels[most].Name, []int{most}),
	})
	sh.par(plan.Say("With a USB drive of %v MB a second and a network that carries %v; what is older than it is kept cannot be handed over any more.", usbMBps, networkMBps), small)
}

// accepted lists findings that were taken on purpose.
func (s *Source) accepted(sh *sheet, head string) {
	var list []string
	for i := range s.Findings {
		if a := s.Findings[i].Accepted; a != nil {
			words := strings.TrimSuffix(s.Findings[i].Sentence, ".") + ": " + a.Reason
			if a.By != "" {
				words += " (" + a.By
				if a.On != nil {
					words += ", " + longDate(*a.On)
				}
				words += ")"
			}
			list = append(list, words)
		}
	}
	if len(list) == 0 {
		return
	}
	sh.head(head, 1, 10)
	sh.bullets(list)
}
