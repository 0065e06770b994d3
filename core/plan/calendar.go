package plan

import "wakefield.example/core/week"

// Calendar is the special days as ranges of dates, in their order.
func (s *Site) Calendar() week.Calendar {
	c := make(week.Calendar, len(s.SpecialDays))
	for i, d := range s.SpecialDays {
		c[i] = week.DateRange{From: d.From, To: d.To, Yearly: d.Yearly}
	}
	return c
}

// SpecialDaysFrom finds what is special about each of some dates that follow each other,
// nil for an ordinary one; see [week.Calendar].
func (s *Site) SpecialDaysFrom(from week.Date, days int) []*SpecialDay {
	out := make([]*SpecialDay, days)
	for date, i := range s.Calendar().Holding(from, days) {
		if i >= 0 {
			out[date] = &s.SpecialDays[i]
		}
	}
	return out
}
