package estimate

import (
	"math"
	"slices"
	"time"

	"wakefield/core/footage"
	"wakefield/core/resolve"

	"wakefield/core/storage"
	"wakefield/core/video"
	"wakefield/core/week"
)

// LongestTakeOff is the longest stretch of footage that is taken off at once.
const LongestTakeOff = 400 * 24 * time.Hour

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
// for events: none of the base layer. Stills are not among it. A part of an hour counts as that part of it. The stretch is one of [LongestTakeOff] at
// most, in years from 1970 to 2200, else ok is false.
func (s *Result) TakeOff(channels []int, from, to time.Time, eventsOnly bool) (t Taken, ok bool) {
	zone, err := time.LoadLocation(s.plan.Site.TimeZone)
	if err != nil || !to.After(from) || to.Sub(from) > LongestTakeOff || from.Year() < 1970 || to.Year() > 2200 {
		return t, false
	}
	begin, end := from.In(zone), to.In(zone)
	var first week.Date
	first.Year, first.Month, first.Day = begin.Date()
	days := int(end.Sub(first.At(0, zone)).Hours()/24) + 2
	d := newDates(s.plan, first, 0, days, zone)
	written := newProfiles(s, d)
	if eventsOnly {
		written = written.ofEvents(channels)
	}
	t.Hours = to.Sub(from).Hours()
	for _, i := range channels {
		sum := storage.Bytes(0)
		for k, hour := range d.hours {
			at := first.At(0, zone).Add(time.Duration(k) * time.Hour)
			part := min(end.Sub(at), time.Hour) - max(begin.Sub(at), 0)
			if part > 0 {
				sum += written.of(i, d.kinds[hour.date])[hour.hour] * storage.Bytes(part.Hours())
			}
		}
		t.Channels = append(t.Channels, TakenChannel{s.Channels[i].ID, float64(sum / storage.GB)})
		t.Gigabytes += float64(sum / storage.GB)
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

// ofEvents are the same of some channels with nothing written when nothing happens.
func (p *profiles) ofEvents(channels []int) *profiles {
	out := *p
	out.events, out.inputs, out.played = true, slices.Clone(p.inputs), slices.Clone(p.played)
	for _, i := range channels {
		if in := &out.inputs[i]; !in.Empty {
			in.Regimes = eventsOnly(in.Regimes)
			out.played[i] = resolve.NewPlayed(in, footage.Play(in.Scene, in.Regimes))
		}
	}
	return &out
}

func eventsOnly(regimes week.Steps[footage.Regime]) week.Steps[footage.Regime] {
	return week.Map(regimes, func(r footage.Regime) footage.Regime {
		r.HasBase, r.Whole, r.Base = false, false, video.Cost{}
		return r
	})
}
