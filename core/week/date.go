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

// At is the moment of that date at m minutes after midnight on the clocks of loc.
func (d Date) At(m Clock, loc *time.Location) time.Time {
	return time.Date(d.Year, d.Month, d.Day, int(m)/60, int(m)%60, 0, 0, loc)
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
