// Package week knows the recording week: seven days of 1,440 minutes from
// Monday 00:00 local time, repeating for ever.
//
// A [Minute] is a moment of that week, a [Span] a half-open stretch of it, and
// [Steps] a value that holds from one moment to the next: a schedule of duties,
// of detection hours, of event rates. People write schedules as [Hours] ("Monday
// to Friday, 22:00 to 05:00"); [Hours.Spans] and [Steps.Blocks] translate in both
// directions.
package week

import "fmt"

// Minute counts minutes since Monday 00:00, 0 ≤ Minute ≤ Length; Length is used
// as an end only.
type Minute int

const (
	Hour   Minute = 60
	Day    Minute = 24 * Hour
	Length Minute = 7 * Day

	// Seconds is the length of the week in seconds.
	Seconds = 7 * 86400
)

// Weekday returns the day a minute lies in; Length lies in Sunday.
func (m Minute) Weekday() Weekday {
	if m >= Length {
		return Sunday
	}
	return Weekday(m / Day)
}

// Clock returns the time of day, 00:00 to 23:59.
func (m Minute) Clock() Clock { return Clock(m % Day) }

// String writes a minute as "tue 06:30".
func (m Minute) String() string { return m.Weekday().String() + " " + m.Clock().String() }

// Span is the half-open stretch [From, To) of one week, 0 ≤ From < To ≤ Length.
type Span struct{ From, To Minute }

// Whole is the span of the entire week.
var Whole = Span{0, Length}

// Minutes is the length of the span.
func (s Span) Minutes() Minute { return s.To - s.From }

// Contains tells whether the span holds m.
func (s Span) Contains(m Minute) bool { return s.From <= m && m < s.To }

// Valid tells whether the span is non-empty and inside the week.
func (s Span) Valid() bool { return 0 <= s.From && s.From < s.To && s.To <= Length }

// String writes a span as "mon 06:00-22:00", or with both days where they differ.
func (s Span) String() string {
	end := Clock(s.To - Minute((s.To-1).Weekday())*Day)
	if s.From.Weekday() == (s.To - 1).Weekday() {
		return fmt.Sprintf("%v-%v", s.From, end)
	}
	return fmt.Sprintf("%v-%v %v", s.From, (s.To - 1).Weekday(), end)
}
