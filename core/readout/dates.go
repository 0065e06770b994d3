package readout

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// OnDates is when a layer is recorded on some dates, in place of what its week says.
type OnDates struct {
	Name  string      `json:"name"`
	Dates []week.Date `json:"dates" doc:"In their order, each once"`
	Hours []Between   `json:"hours" doc:"Of each of these dates; none for not at all"`
}

// Between is a stretch of a day, its end not included.
type Between struct {
	From week.Clock `json:"from"`
	To   week.Clock `json:"to" doc:"At most 24:00"`
}

// Dates are looked ahead for this long: those of two years are told to a device, and those of the first are held against each
// other, so that what is set today differs in a year at the earliest.
const (
	DatesTold = 731
	DatesHeld = 366
)

// ofDay are the stretches of a day of a week.
func ofDay(when week.Steps[bool], day week.Weekday) (out []Between) {
	from := week.Minute(day) * week.Day
	for span, on := range when.Runs() {
		a, b := max(span.From, from), min(span.To, from+week.Day)
		if on && a < b {
			out = append(out, Between{week.Clock(a - from), week.Clock(b - from)})
		}
	}
	return out
}

// onDate are the stretches of a date.
func (l *Layer) onDate(date week.Date) []Between {
	for i := range l.OnDates {
		if slices.Contains(l.OnDates[i].Dates, date) {
			return l.OnDates[i].Hours
		}
	}
	return ofDay(l.steps(), date.Weekday())
}

// together are stretches that lie in any of some.
func together(lists ...[]Between) []Between {
	when := week.Constant(false)
	for _, list := range lists {
		for _, b := range list {
			when = when.Paint(week.Span{From: week.Minute(b.From), To: week.Minute(b.To)}, true)
		}
	}
	return ofDay(when, 0)
}

// departures are the dates on which layers together are recorded otherwise than their week says: by name and hours, by date.
func departures(list []*Layer, when week.Steps[bool]) (out []OnDates) {
	names := make(map[week.Date]string)
	for _, l := range list {
		for _, o := range l.OnDates {
			for _, date := range o.Dates {
				if names[date] == "" {
					names[date] = o.Name
				}
			}
		}
	}
	for _, date := range sorted(names) {
		var hours [][]Between
		for _, l := range list {
			hours = append(hours, l.onDate(date))
		}
		all := together(hours...)
		if !slices.Equal(all, ofDay(when, date.Weekday())) {
			out = withDate(out, names[date], date, all)
		}
	}
	return out
}

// sorted are the dates of a map in their order.
func sorted[T any](m map[week.Date]T) []week.Date {
	dates := make([]week.Date, 0, len(m))
	for d := range m {
		dates = append(dates, d)
	}
	slices.SortFunc(dates, func(a, b week.Date) int { return a.Since(b) })
	return dates
}

// withDate adds a date to those of its name and hours.
func withDate(list []OnDates, name string, date week.Date, hours []Between) []OnDates {
	for i := range list {
		if list[i].Name == name && slices.Equal(list[i].Hours, hours) {
			list[i].Dates = append(list[i].Dates, date)
			return list
		}
	}
	return append(list, OnDates{name, []week.Date{date}, hours})
}

// special is a date on which other duties hold.
type special struct {
	date  week.Date
	name  string
	hours week.Steps[string] // the week whose day holds
	day   week.Weekday       // of it
}

// specialDates are the dates from one on, for as long as devices are told, on which a channel has other duties than on others of
// their day of the week.
func specialDates(p *plan.Plan, own week.Steps[string], from week.Date) (out []special) {
	if from == (week.Date{}) || len(p.Site.SpecialDays) == 0 {
		return nil
	}
	weeks := make(map[string]week.Steps[string])
	for k, s := range p.Site.SpecialDaysFrom(from, DatesTold) {
		if s == nil || s.Week == "" && s.UseDay == nil {
			continue
		}
		date := from.Add(k)
		d := special{date: date, name: s.Name, hours: own, day: date.Weekday()}
		if s.UseDay != nil {
			d.day = *s.UseDay
		} else {
			if weeks[s.Week] == nil {
				weeks[s.Week] = p.WeekOf(&plan.Channel{Week: plan.WeekRef{Named: s.Week}}).Steps()
			}
			d.hours = weeks[s.Week]
		}
		out = append(out, d)
	}
	return out
}

// onSpecial are the dates on which a duty holds otherwise than its week says, not put in normal order.
func onSpecial(list []special, duty string) (out []OnDates) {
	for _, s := range list {
		holds := week.Map(s.hours, func(id string) bool { return id == duty })
		out = withDate(out, s.name, s.date, ofDay(holds, s.day))
	}
	return out
}

// within leaves of layers the dates of a stretch of days.
func within(list []Layer, from week.Date, days int) []Layer {
	out := slices.Clone(list)
	for i := range out {
		var kept []OnDates
		for _, o := range out[i].OnDates {
			o.Dates = slices.DeleteFunc(slices.Clone(o.Dates), func(d week.Date) bool { n := d.Since(from); return n < 0 || n >= days })
			if len(o.Dates) > 0 {
				kept = append(kept, o)
			}
		}
		out[i].OnDates = kept
	}
	return out
}

// datesOf are the dates on which any of the layers departs from its week, with what they are called.
func datesOf(lists ...[]Layer) map[week.Date]string {
	out := make(map[week.Date]string)
	for _, list := range lists {
		for i := range list {
			for _, o := range list[i].OnDates {
				for _, d := range o.Dates {
					if out[d] == "" {
						out[d] = o.Name
					}
				}
			}
		}
	}
	return out
}

// wholeDay is round the clock.
var wholeDay = []Between{{0, week.Clock(week.Day)}}

// wordsOn says what is recorded on a date.
func wordsOn(list []Layer, date week.Date) string {
	var parts []string
	for i := range list {
		hours := list[i].onDate(date)
		if len(hours) == 0 {
			continue
		}
		text := list[i].what()
		if slices.Equal(hours, wholeDay) {
			text += list[i].always()
		} else {
			for k, b := range hours {
				text += []string{" ", ", "}[min(k, 1)] + b.From.String() + "-" + b.To.String()
			}
		}
		parts = append(parts, text)
	}
	if len(parts) == 0 {
		return "nothing is recorded"
	}
	return strings.Join(parts, "; ")
}

// heldDates are the days over which special days of two devices are held against each other: those of which both were read.
func heldDates(a, b *Device) (from week.Date, days int) {
	first, last := a.Today, b.Today
	if last.Before(first) {
		first, last = last, first
	}
	return last, min(DatesHeld, first.Add(DatesTold).Since(last))
}

// datesInWords says some dates that follow each other: 24-26 Dec 2026.
func datesInWords(from, to week.Date) string {
	end := to.At(0, time.UTC).Format("2 Jan 2006")
	switch {
	case from == to:
		return end
	case from.Year != to.Year:
		return from.At(0, time.UTC).Format("2 Jan 2006") + " - " + end
	case from.Month != to.Month:
		return from.At(0, time.UTC).Format("2 Jan") + " - " + end
	}
	return fmt.Sprintf("%d-%s", from.Day, end)
}

// mostDatesSaid is how many runs of dates a sentence names.
const mostDatesSaid = 2

// dateLine is what differs of what is recorded on special days.
func (d *drawing) dateLine(is, w *Channel, from week.Date, days int) {
	a, b := within(bare(is.Layers), from, days), within(bare(asItMatters(w.Layers, is.Layers)), from, days)
	type run struct {
		name, device, plan string
		from, to           week.Date
	}
	var runs []run
	missing := false
	names := datesOf(a, b)
	for _, date := range sorted(names) {
		r := run{names[date], wordsOn(a, date), wordsOn(b, date), date, date}
		if r.device == r.plan {
			continue
		}
		missing = missing || lessOn(a, b, date)
		if k := len(runs) - 1; k >= 0 && runs[k].to == date.Add(-1) && runs[k].name == r.name && runs[k].device == r.device &&
			runs[k].plan == r.plan {
			runs[k].to = date
			continue
		}
		runs = append(runs, r)
	}
	if len(runs) == 0 {
		return
	}
	var device, planned []string
	for _, r := range runs[:min(len(runs), mostDatesSaid)] {
		when := datesInWords(r.from, r.to)
		if r.name != "" {
			when = r.name + ", " + when
		}
		device, planned = append(device, when+": "+r.device), append(planned, when+": "+r.plan)
	}
	if more := len(runs) - mostDatesSaid; more > 0 {
		device, planned = append(device, fmt.Sprintf("%d more", more)), append(planned, fmt.Sprintf("%d more", more))
	}
	l := d.add("dates", "on special days", strings.Join(device, " · "), strings.Join(planned, " · "), "layers:"+is.Recording)
	l.Missing = missing
}

// lessOn tells whether layers record nothing at some time of a date at which others record something.
func lessOn(a, b []Layer, date week.Date) bool {
	all := func(list []Layer) []Between {
		var hours [][]Between
		for i := range list {
			hours = append(hours, list[i].onDate(date))
		}
		return together(hours...)
	}
	has := all(a)
	return !slices.Equal(together(has, all(b)), has)
}

// Ordered puts what devices tell of dates in order: each date once, with the hours of all that name it.
func Ordered(list []OnDates) (out []OnDates) {
	hours := make(map[week.Date][][]Between)
	for _, o := range list {
		for _, d := range o.Dates {
			hours[d] = append(hours[d], o.Hours)
		}
	}
	names := datesOf([]Layer{{OnDates: list}})
	for _, d := range sorted(names) {
		out = withDate(out, names[d], d, together(hours[d]...))
	}
	return out
}
