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
	number := func(d week.Date) int { return int(d.At(0, time.UTC).Unix() / 86400) }
	first := number(from)
	mark := func(s *SpecialDay, from, to week.Date) {
		for n := max(number(from), first); n <= min(number(to), first+days-1); n++ {
			out[n-first] = s
		}
	}
	last := from.At(0, time.UTC).AddDate(0, 0, days)
	for i := range p.Site.SpecialDays {
		s := &p.Site.SpecialDays[i]
		if !s.Yearly {
			mark(s, s.From, s.To)
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
			mark(s, begins, ends)
		}
	}
	return out
}
