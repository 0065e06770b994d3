package effect

import (
	"wakefield.example/core/activity"
	"wakefield.example/core/plan"
)

// CopyHours is the copy off site by hour of the week, Monday 00:00 to 01:00 first, and what a lower copy would do.
type CopyHours struct {
	Kbps      activity.HourRates `json:"kbps" doc:"Copied, mean of the hour"`
	BacklogGB activity.HourRates `json:"backlogGB" doc:"What waits in the hour at most, in nine of ten weeks; empty where it grows without end"`
	Channels  []CopyChannel      `json:"channels"`
	Instead   []CopyInstead      `json:"instead" doc:"What is copied, and what could be in its place"`
}

// CopyChannel is the copy of one channel.
type CopyChannel struct {
	Channel           string   `json:"channel"`
	Kbps              float64  `json:"kbps" doc:"Mean of the week"`
	EventMB           float64  `json:"eventMB" doc:"Of one event"`
	SafeSeconds       float64  `json:"safeSeconds" doc:"From the end of an event until its footage is off site, with the uplink open and idle"`
	MeanSafeSeconds   *float64 `json:"meanSafeSeconds" required:"true" doc:"The same on average; null where the uplink never catches up"`
	NinetySafeSeconds *float64 `json:"ninetySafeSeconds" required:"true" doc:"The same, of nine in ten events; null where the uplink never catches up"`
	WorstSafeSeconds  *float64 `json:"worstSafeSeconds" required:"true" doc:"The same, of 99 in 100 events; null where the uplink never catches up"`
	OnlyOnSiteSeconds *float64 `json:"onlyOnSiteSeconds" required:"true" doc:"From the first of an event's footage until all of it is safe, of 99 in 100 events"`
	LatePercent       *float64 `json:"latePercent" required:"true" doc:"Of its events, those that are safe later than a person needs to take the recorder; null where nobody says how long that is, or the uplink never catches up"`
	Late              bool     `json:"late" doc:"Whether that is more than one in a hundred, or never"`
}

// CopyInstead is what copying something else would do.
type CopyInstead struct {
	Copy              string   `json:"copy" enum:"recorded,sub,stills"`
	Chosen            bool     `json:"chosen"`
	GigabytesPerDay   float64  `json:"gigabytesPerDay"`
	UplinkPercent     float64  `json:"uplinkPercent"`
	NinetySafeSeconds *float64 `json:"ninetySafeSeconds" required:"true" doc:"Of the channel that is safe last, within which nine in ten of its events are; null where the uplink never catches up"`
	Without           int      `json:"without" doc:"Channels of which nothing would be copied, as they have no such stream or no snapshots"`
}

// CopyByHour is the copy off site by hour; nil where nothing is copied.
func (e *Effects) CopyByHour() *CopyHours {
	if e.copies == nil {
		return nil
	}
	o := e.site.Plan.Offsite
	out := &CopyHours{Kbps: e.copies.kbps[:], BacklogGB: activity.HourRates{}, Channels: []CopyChannel{}}
	if !e.copies.grows {
		for _, kbit := range e.copies.played.Backlog {
			out.BacklogGB = append(out.BacklogGB, kbit*1000/8/1e9)
		}
	}
	for i, c := range e.copies.channel {
		safe := e.Safe(i)
		if safe == nil {
			continue
		}
		one := CopyChannel{Channel: e.site.Plan.Channels[i].ID, Kbps: c.mean(), EventMB: e.copies.played.Channels[i].Amount * 1000 / 8 / 1e6,
			SafeSeconds:     safe.IdleSeconds,
			MeanSafeSeconds: safe.MeanSeconds, NinetySafeSeconds: safe.NinetySeconds, WorstSafeSeconds: safe.WorstSeconds,
			LatePercent: safe.LatePercent}
		if one.WorstSafeSeconds != nil {
			only := c.whole + *one.WorstSafeSeconds - c.after
			one.OnlyOnSiteSeconds = &only
		}
		one.Late = o.TakenWithinSeconds > 0 && (one.WorstSafeSeconds == nil || isLate(plan.Or(one.LatePercent, 0)))
		out.Channels = append(out.Channels, one)
	}
	for _, what := range []string{CopyRecorded, CopySub, CopyStills} {
		out.Instead = append(out.Instead, e.instead(what))
	}
	return out
}

// mean is the kbit/s copied, mean of the week.
func (c *copied) mean() float64 {
	if c.week != nil {
		mean := c.week.Mean()
		return float64(mean.Total())
	}
	return c.hours.Mean() / 3600
}

func (e *Effects) instead(what string) CopyInstead {
	of := e.copies
	if what != of.what {
		of = e.copiesOf(what, nil)
	}
	figures := of.figures(e.site.Plan.Offsite)
	out := CopyInstead{Copy: what, Chosen: what == e.copies.what, GigabytesPerDay: figures.GigabytesPerDay,
		UplinkPercent: figures.UplinkPercent}
	last := 0.0
	for i, c := range of.channel {
		if c == nil {
			if len(e.site.Causes.Offsite[i]) > 0 {
				out.Without++
			}
			continue
		}
		last = max(last, of.played.Channels[i].Ninety)
	}
	if !of.grows {
		out.NinetySafeSeconds = &last
	}
	return out
}
