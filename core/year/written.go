package year

import (
	"errors"
	"time"

	"wakefield.example/core/storage"
	"wakefield.example/core/week"
)

// LongestStretch is the longest stretch of footage that is added up at once.
const LongestStretch = 400 * 24 * time.Hour

// Written is how much footage some channels, given by their places in the plan, are expected to have written from one moment
// to another, hour by hour, each by itself: with the special days and the clocks of the dates. Of events only, it is what their
// duties write for events. A part of an hour counts as that part of it. It fails where the stretch is longer than
// [LongestStretch], or not in years from 1970 to 2200.
func (s *Site) Written(channels []int, from, to time.Time, eventsOnly bool) ([]storage.Bytes, error) {
	zone, err := time.LoadLocation(s.Site.Plan.Site.TimeZone)
	if err != nil {
		return nil, err
	}
	if !to.After(from) || to.Sub(from) > LongestStretch || from.Year() < 1970 || to.Year() > 2200 {
		return nil, errors.New("a stretch of 400 days at most is wanted, in years from 1970 to 2200")
	}
	begin, end := from.In(zone), to.In(zone)
	var first week.Date
	first.Year, first.Month, first.Day = begin.Date()
	days := int(end.Sub(first.At(0, zone)).Hours()/24) + 2
	d := newDates(s.Site.Plan, first, 0, days, zone)
	d.layOut()
	written := newProfiles(s, d)
	if eventsOnly {
		written = written.ofEvents(channels)
	}
	out := make([]storage.Bytes, len(channels))
	for c, i := range channels {
		for k, hour := range d.hours {
			at := first.At(0, zone).Add(time.Duration(k) * time.Hour)
			part := min(end.Sub(at), time.Hour) - max(begin.Sub(at), 0)
			if part > 0 {
				out[c] += written.of(i, d.kinds[hour.date])[hour.hour] * storage.Bytes(part.Hours())
			}
		}
	}
	return out, nil
}
