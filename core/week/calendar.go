package week

import "time"

// DateRange is a run of dates of a calendar, both ends inclusive. A yearly one comes every
// year from the one it is written with, on the same day of the month; where it runs over
// the end of the year it goes on in the next.
type DateRange struct {
	From, To Date
	Yearly   bool
}

// Calendar is date ranges, of which several may be of one date: then the last one holds.
type Calendar []DateRange

// Holding finds, for each of some dates that follow each other, the range that holds; -1
// where it is of none.
func (c Calendar) Holding(from Date, days int) []int {
	out := make([]int, days)
	for i := range out {
		out[i] = -1
	}
	c.each(from, days, func(date, i int) { out[date] = i })
	return out
}

// Hidden is a range that holds on none of its dates, as others that come later in the
// calendar do.
type Hidden struct {
	Range, By int // in the calendar: itself, and one that holds in its place
	On        Date
}

// HiddenRanges finds ranges that hold on none of the dates that they have within two years
// from the first of all.
func (c Calendar) HiddenRanges() []Hidden {
	if len(c) < 2 {
		return nil
	}
	first := c[0].From
	for _, r := range c {
		if r.From.Before(first) {
			first = r.From
		}
	}
	const days = 731
	of := make([][]int, days)
	c.each(first, days, func(date, i int) { of[date] = append(of[date], i) })
	holds := make([]bool, len(c))
	by := make([]*Hidden, len(c))
	for date, on := range of {
		for _, i := range on {
			if last := on[len(on)-1]; last == i {
				holds[i] = true
			} else if by[i] == nil {
				by[i] = &Hidden{Range: i, By: last, On: first.Add(date)}
			}
		}
	}
	var out []Hidden
	for i := range c {
		if !holds[i] && by[i] != nil {
			out = append(out, *by[i])
		}
	}
	return out
}

// each calls f with every date, counted from the first of some that follow each other, that
// a range of the calendar is of, later ranges last.
func (c Calendar) each(from Date, days int, f func(date, i int)) {
	first := from.number()
	mark := func(i int, from, to Date) {
		for n := max(from.number(), first); n <= min(to.number(), first+days-1); n++ {
			f(n-first, i)
		}
	}
	last := from.Add(days)
	for i, r := range c {
		if !r.Yearly {
			mark(i, r.From, r.To)
			continue
		}
		length := r.To.number() - r.From.number()
		for year := max(r.From.Year, from.Year-1-length/365); year <= last.Year; year++ {
			begins := Date{Year: year, Month: r.From.Month, Day: r.From.Day}
			if begins.At(0, time.UTC).Day() != r.From.Day {
				continue // 29 February
			}
			mark(i, begins, begins.Add(length))
		}
	}
}

// number counts days from 1 January 1970.
func (d Date) number() int { return int(d.At(0, time.UTC).Unix() / 86400) }

// Since is how many days d is after e; negative where it is before.
func (d Date) Since(e Date) int { return d.number() - e.number() }

// Add is the date so many days later.
func (d Date) Add(days int) Date {
	var out Date
	out.Year, out.Month, out.Day = d.At(0, time.UTC).AddDate(0, 0, days).Date()
	return out
}
