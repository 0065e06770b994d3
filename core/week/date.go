package week

import (
	"fmt"
	"time"
)

// Date is a calendar date without a time zone.
type Date struct {
	Year  int
	Month time.Month
	Day   int
}

// String writes "2006-01-02".
func (d Date) String() string { return d.At(0, time.UTC).Format(time.DateOnly) }

// At is the moment of that date at m minutes after midnight on the clocks of loc. A moment that clocks skip is the one at which
// they go on: a date whose midnight is skipped begins at 01:00, and not an hour before, on the date before.
func (d Date) At(m Clock, loc *time.Location) time.Time {
	t := time.Date(d.Year, d.Month, d.Day, int(m)/60, int(m)%60, 0, 0, loc)
	if t.Hour() == int(m)/60%24 && t.Minute() == int(m)%60 {
		return t
	}
	// It is skipped, and time.Date took it for a moment before or after: the clocks change between.
	if begin, end := t.ZoneBounds(); !end.IsZero() && end.Sub(t) <= 24*time.Hour && time.Date(d.Year, d.Month, d.Day, int(m)/60, int(m)%60, 0,
		0, time.UTC).After(wall(t)) {
		return end
	} else if !begin.IsZero() && t.Sub(begin) <= 24*time.Hour {
		return begin
	}
	return t
}

// wall is what clocks show, as if it were UTC.
func wall(t time.Time) time.Time {
	return time.Date(t.Year(), t.Month(), t.Day(), t.Hour(), t.Minute(), t.Second(), t.Nanosecond(), time.UTC)
}

// DaysInYear is how many dates there are from this one until the same one a year later; until the first of March for the last
// of a February that is longer than the next.
func (d Date) DaysInYear() int {
	next := Date{d.Year + 1, d.Month, d.Day} // 29 February becomes 1 March
	return next.number() - d.number()
}

// Weekday is the day of the week of the date.
func (d Date) Weekday() Weekday { return Weekday((d.At(0, time.UTC).Weekday() + 6) % 7) }

// Before tells whether d is earlier than e.
func (d Date) Before(e Date) bool { return d.At(0, time.UTC).Before(e.At(0, time.UTC)) }

// MarshalText writes "2006-01-02".
func (d Date) MarshalText() ([]byte, error) { return []byte(d.String()), nil }

// UnmarshalText reads "2006-01-02", a date that exists.
func (d *Date) UnmarshalText(text []byte) error {
	t, err := time.Parse(time.DateOnly, string(text))
	if err != nil {
		return fmt.Errorf("no date %q; dates are written 2026-12-24", text)
	}
	d.Year, d.Month, d.Day = t.Date()
	return nil
}
