package handover

import (
	"fmt"
	"slices"
	"strings"

	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// delivered is the day on which a recorder records round the clock, as most are delivered.
const delivered = "delivered"

// weeks writes what channels record, day by day, and the times before and after events.
func (w *writer) weeks() {
	w.begin(Weeks)
	w.meanings()
	days := make(map[string][]period)
	text := func(i int) []string {
		out := make([]string, 7)
		for d, day := range daysOf(w.plan.WeekOf(w.channels[i]).Steps()) {
			out[d] = key(day)
			if len(day) == 1 && w.isClock(day[0].duty) {
				out[d] = delivered
			}
			days[out[d]] = day
		}
		return out
	}
	s, members := gather(len(w.channels), text)
	s.root = []string{delivered, delivered, delivered, delivered, delivered, delivered, delivered}
	s.between = mixtures
	s.copies = w.recorder.Takes.CanCopy(plan.CopiesWeek)
	known := make(map[[2][7]string]int)
	s.entries = func(from, to []string) int {
		at := [2][7]string{[7]string(from), [7]string(to)}
		cost, ok := known[at]
		if !ok {
			_, cost = w.movesOf(days, from, to)
			known[at] = cost
		}
		return cost
	}
	for i := range w.channels {
		for _, k := range text(i) {
			if k != delivered {
				w.sheet.EntriesOneByOne += len(days[k])
			}
		}
	}
	w.typeAndCopy(s, members, w.channels, func(i int, from, to []string) { w.typeWeek(w.channels[i], days, from, to) },
		func(i int, to []*plan.Channel) { w.copyStep(plan.CopiesWeek, "week", w.channels[i], to) })
	list := w.having(func(*plan.Channel) bool { return true })
	w.copied(plan.CopiesTimes, "times", timesOf, list)
	if len(w.channels) > 0 {
		first, last := w.channels[0], w.channels[len(w.channels)-1]
		w.save(fmt.Sprintf("%s on Thursday and %s on Sunday as above", called(first), called(last)))
	}
}

// isClock tells whether a duty is what recorders are delivered with: the main stream with all its frames, whatever happens.
func (w *writer) isClock(id string) bool {
	d := w.plan.Duty(id)
	return d != nil && d.Event == nil && d.Base != nil && *d.Base == plan.Base{Stream: plan.Main}
}

// movesOf is how a week is typed where another stands.
func (w *writer) movesOf(days map[string][]period, from, to []string) ([]move, int) {
	return moves([7]string(from), [7]string(to), func(d int) int {
		if to[d] == delivered {
			return 1
		}
		return len(days[to[d]])
	}, w.recorder.Takes.CanCopy(plan.CopiesDays))
}

func (w *writer) typeWeek(c *plan.Channel, days map[string][]period, from, to []string) {
	now := slices.Clone(from)
	list, _ := w.movesOf(days, from, to)
	for _, m := range list {
		if len(m.to) > 0 {
			var on []week.Weekday
			for _, d := range m.to {
				on = append(on, week.Weekday(d))
				now[d] = now[m.day]
			}
			w.step(Step{Words: fmt.Sprintf("%s: copy its %s onto %s", capital(called(c)), dayNames([]int{m.day}), otherDays(m.to)),
				RightWhen: "they look like " + dayNames([]int{m.day}), Entries: 1,
				Do: Do{CopyDay: &CopyDay{c.ID, week.Weekday(m.day), on}}}, 0)
			continue
		}
		day := week.Weekday(m.day)
		set := Set{Channel: c.ID, Section: "week", Day: &day}
		for _, p := range days[to[m.day]] {
			set.Periods = append(set.Periods, Period{week.Clock(p.from), week.Clock(p.to), p.duty})
		}
		now[m.day] = to[m.day]
		step := Step{Words: fmt.Sprintf("%s, %s: %s", capital(called(c)), dayNames([]int{m.day}),
			w.periods(days[to[m.day]])), Entries: len(set.Periods), Do: Do{Set: &set}}
		step.RightWhen = "the day is one stripe"
		if n := len(set.Periods); n > 1 {
			step.RightWhen = fmt.Sprintf("the day has %d stripes, the first until %v", n, set.Periods[0].To)
		}
		if c.NoCamera {
			step.Why, step.RightWhen = "No camera: what it records is of nothing.", fmt.Sprintf("no sign of recording on %d", c.Number)
		}
		w.step(step, 0)
	}
}

// periods are the periods of a day as they are typed.
func (w *writer) periods(day []period) string {
	if len(day) == 1 {
		return "whole day " + w.duty(day[0].duty)
	}
	var parts []string
	for _, p := range day {
		parts = append(parts, fmt.Sprintf("%v–%v %s", week.Clock(p.from), week.Clock(p.to), w.duty(p.duty)))
	}
	return strings.Join(parts, ", ")
}

// meanings says once what each duty is, where its name is not one that recorders have.
func (w *writer) meanings() {
	var told []string
	for _, c := range w.channels {
		for _, s := range w.plan.WeekOf(c).Steps() {
			if slices.Contains(told, s.Value) {
				continue
			}
			told = append(told, s.Value)
			if d := w.plan.Duty(s.Value); d != nil && (d.Base != nil || d.Event != nil) {
				name := w.duty(d.ID)
				if name != d.Name {
					name += " (planned as " + d.Name + ")"
				}
				w.look("duty "+d.ID+": "+name+", "+DutyInWords(d), "“"+name+"” is: "+DutyInWords(d), "", "", "")
			}
		}
	}
}

// DutyInWords is what a duty writes.
func DutyInWords(d *plan.Duty) string {
	layer := func(s plan.StreamName, keyframes bool, fps float64, set plan.Settings) string {
		text := "the " + plan.StreamChoices.Name(string(s))
		if keyframes {
			text = "keyframes of " + text
		}
		if fps > 0 {
			text += plan.Say(" at %v frames a second", fps)
		}
		if set.Quality != 0 {
			text += plan.Say(", quality %+d", set.Quality)
		}
		if set.Percent > 0 {
			text += plan.Say(", %v %% of its bitrate", set.Percent)
		}
		return text
	}
	on := func(e *plan.Event) string {
		var names []string
		for _, t := range e.On {
			names = append(names, string(t))
		}
		if e.Match == "all" && len(names) == 2 {
			return "motion and alarm at once"
		}
		return strings.Join(names, " or ")
	}
	switch {
	case d.Base == nil && d.Event == nil:
		return "nothing is recorded"
	case d.Event == nil:
		return layer(d.Base.Stream, d.Base.KeyframesOnly, d.Base.FPS, d.Base.Settings) + ", whatever happens"
	case d.Base == nil:
		return layer(d.Event.Stream, false, d.Event.FPS, d.Event.Settings) + " on " + on(d.Event)
	}
	return layer(d.Base.Stream, d.Base.KeyframesOnly, d.Base.FPS, d.Base.Settings) + ", whatever happens; " +
		layer(d.Event.Stream, false, d.Event.FPS, d.Event.Settings) + " on " + on(d.Event)
}

// specialDays writes the dates on which other duties hold.
func (w *writer) specialDays() {
	w.begin(Special)
	for _, d := range w.plan.Site.SpecialDays {
		if d.Week == "" && d.UseDay == nil {
			continue
		}
		when := longDate(d.From)
		if d.To != d.From {
			when += " to " + longDate(d.To)
		}
		set := Set{Date: d.From.String(), Section: string(Special), Values: map[string]any{"from": d.From.String(), "to": d.To.String()}}
		words := d.Name + ", " + when
		if d.Yearly {
			words += ", every year"
			set.Values["yearly"] = true
		}
		switch {
		case d.UseDay != nil:
			set.Values["useDay"] = d.UseDay.String()
			words += ": all channels as on a " + dayNames([]int{int(*d.UseDay)})
		default:
			set.Values["week"] = d.Week
			words += ": all channels " + w.specialWeek(d.Week)
		}
		w.set(set, words, "", "the recorder’s calendar shows these dates as special")
	}
	w.save("the dates as above")
}

// specialWeek is what is typed on special days that have a week of their own.
func (w *writer) specialWeek(id string) string {
	days, ok := w.Entered.weeks[w.recorder.ID][id]
	if !ok {
		if named := w.plan.Week(id); named != nil {
			days = daysOf(named.Steps())
		}
	}
	var parts []string
	var done []string
	for d := range days {
		k := key(days[d])
		if slices.Contains(done, k) {
			continue
		}
		done = append(done, k)
		var same []int
		for o := range days {
			if key(days[o]) == k {
				same = append(same, o)
			}
		}
		text := w.periods(days[d])
		if len(same) < 7 {
			text = dayNames(same) + " " + text
		}
		parts = append(parts, text)
	}
	return strings.Join(parts, "; ")
}
