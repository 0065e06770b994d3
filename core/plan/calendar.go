package plan

import (
	"time"

	"wakefield/core/week"
)

// SpecialDays finds what is special about each of some dates that follow each other, nil
// for an ordinary one. Of several for one date the last in the list holds; a yearly one
// that runs over the end of the year goes on in the next, and begins with the year it is
// written with.
func (p *Plan) SpecialDays(from week.Date, days int) []*SpecialDay {
	out := make([]*SpecialDay, days)
	p.eachSpecialDate(from, days, func(date, i int) { out[date] = &p.Site.SpecialDays[i] })
	return out
}

// Hidden is a special day that holds on none of its dates, as others that come later in
// the list do.
type Hidden struct {
	Day, By int // in the list: itself, and one that holds in its place
	On      week.Date
}

// HiddenDays finds special days that hold on none of the dates that they have within two
// years from the first of all.
func (p *Plan) HiddenDays() []Hidden {
	list := p.Site.SpecialDays
	if len(list) < 2 {
		return nil
	}
	first := list[0].From
	for _, s := range list {
		if s.From.Before(first) {
			first = s.From
		}
	}
	const days = 731
	of := make([][]int, days)
	p.eachSpecialDate(first, days, func(date, i int) { of[date] = append(of[date], i) })
	holds := make([]bool, len(list))
	by := make([]*Hidden, len(list))
	for date, on := range of {
		for _, i := range on {
			if last := on[len(on)-1]; last == i {
				holds[i] = true
			} else if by[i] == nil {
				by[i] = &Hidden{Day: i, By: last}
				by[i].On.Year, by[i].On.Month, by[i].On.Day = first.At(0, time.UTC).AddDate(0, 0, date).Date()
			}
		}
	}
	var out []Hidden
	for i := range list {
		if !holds[i] && by[i] != nil {
			out = append(out, *by[i])
		}
	}
	return out
}

// eachSpecialDate calls f with every date, counted from the first of some that follow each
// other, on which a special day of the list is, those later in the list last.
func (p *Plan) eachSpecialDate(from week.Date, days int, f func(date, i int)) {
	number := func(d week.Date) int { return int(d.At(0, time.UTC).Unix() / 86400) }
	first := number(from)
	mark := func(i int, from, to week.Date) {
		for n := max(number(from), first); n <= min(number(to), first+days-1); n++ {
			f(n-first, i)
		}
	}
	last := from.At(0, time.UTC).AddDate(0, 0, days)
	for i := range p.Site.SpecialDays {
		s := &p.Site.SpecialDays[i]
		if !s.Yearly {
			mark(i, s.From, s.To)
			continue
		}
		length := number(s.To) - number(s.From)
		for year := max(s.From.Year, from.Year-1-length/365); year <= last.Year(); year++ {
			begins := week.Date{Year: year, Month: s.From.Month, Day: s.From.Day}
			t := begins.At(0, time.UTC)
			if t.Day() != s.From.Day {
				continue // 29 February
			}
			var ends week.Date
			ends.Year, ends.Month, ends.Day = t.AddDate(0, 0, length).Date()
			mark(i, begins, ends)
		}
	}
}
