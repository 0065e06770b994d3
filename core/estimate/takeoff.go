package estimate

import (
	"context"
	"math"
	"time"

	"wakefield.example/core/storage"
	"wakefield.example/core/week"
	"wakefield.example/core/year"
)

// Taken is footage that is taken off a recorder.
type Taken struct {
	Gigabytes float64        `json:"gigabytes" doc:"Expected, of all channels"`
	Hours     float64        `json:"hours" doc:"Of the stretch; clocks that change are in it"`
	Channels  []TakenChannel `json:"channels"`
	KeptDays  *float64       `json:"keptDays" required:"true" doc:"For how many days the channel that is kept shortest is: by then it has to be taken off; null where nothing takes it away"`
	SpareMBps *float64       `json:"spareMBps" required:"true" doc:"MB a second that the drives of the recorders have to spare while they record in their busiest hour; null where nobody says what they manage"`
}

// Minutes is how long it takes at so many MB a second, or at what the drives have to spare where that is less; nil where they
// have nothing to spare.
func (t *Taken) Minutes(mbps float64) *float64 {
	if t.SpareMBps != nil {
		mbps = min(mbps, *t.SpareMBps)
	}
	if mbps <= 0 {
		return nil
	}
	minutes := t.Gigabytes * 1000 / mbps / 60
	return &minutes
}

// TakenChannel is the part of one channel.
type TakenChannel struct {
	ID        string  `json:"id"`
	Gigabytes float64 `json:"gigabytes"`
}

// TakeOff is how much footage some channels, given by their places in the plan, are expected to have written from one moment
// to another: hour by hour, with the special days and the clocks of the dates. Of events only, it is what their duties write
// for events: none of the base layer. Stills are not among it. A part of an hour counts as that part of it. The stretch
// is one of [LongestStretch] at most, in years from 1970 to 2200, else ok is false.
func (s *Result) TakeOff(channels []int, from, to time.Time, eventsOnly bool) (t Taken, ok bool) {
	written, err := s.calendar.Written(channels, from, to, eventsOnly)
	if err != nil {
		return t, false
	}
	t.Hours = to.Sub(from).Hours()
	for k, i := range channels {
		gigabytes := float64(written[k] / storage.GB)
		t.Channels = append(t.Channels, TakenChannel{s.Channels[i].ID, gigabytes})
		t.Gigabytes += gigabytes
		if kept := s.Channels[i].RetentionDays; kept != nil && (t.KeptDays == nil || *kept < *t.KeptDays) {
			t.KeptDays = kept
		}
	}
	t.SpareMBps = s.spare(channels)
	return t, true
}

// spare is what the drives of the recorders of some channels have to spare, MB a second, of the one that has least.
func (s *Result) spare(channels []int) *float64 {
	least := math.Inf(1)
	for _, i := range channels {
		for k := range s.plan.Recorders {
			if r := &s.plan.Recorders[k]; r.ID == s.plan.Channels[i].Recorder && r.DriveMBps > 0 {
				least = min(least, max(0, r.DriveMBps-s.Recorders[k].BusiestMbps/8))
			}
		}
	}
	if math.IsInf(least, 1) {
		return nil
	}
	return &least
}

// newCalendar is the site as it is followed date by date.
func (s *Result) newCalendar(earlier *Result) *year.Site {
	var before *year.Site
	if earlier != nil {
		before = earlier.calendar
	}
	pools := make([]year.Pool, len(s.Pools))
	for k := range s.Pools {
		pools[k] = year.Pool{Usable: storage.Bytes(s.Pools[k].UsableGB) * storage.GB, Days: storage.Forever}
		if d := s.Pools[k].RetentionDays; d != nil {
			pools[k].Days = storage.Days(*d)
		}
	}
	site := &year.Site{Site: s.site, Played: s.played, Stills: s.effects.Stills, Pools: pools}
	return site.After(before)
}

// Year follows every pool through a year that begins at a date. It fails for years before 1970 and after 2200.
func (s *Result) Year(ctx context.Context, from week.Date) (*year.Year, error) {
	return s.calendar.Follow(ctx, from)
}

// SpecialYear is the year in which the first special day lies, nil where there is none.
// It is found once.
func (s *Result) SpecialYear() *year.Year {
	s.special.Do(func() {
		if list := s.plan.Site.SpecialDays; len(list) > 0 {
			// The years that special days may lie in can all be followed.
			s.year, _ = s.Year(context.Background(), week.Date{Year: list[0].From.Year, Month: time.January, Day: 1})
		}
	})
	return s.year
}
