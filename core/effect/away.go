package effect

import (
	"wakefield.example/core/alert"
	"wakefield.example/core/cause"
	"wakefield.example/core/footage"
	"wakefield.example/core/parallel"
	"wakefield.example/core/resolve"
	"wakefield.example/core/week"
)

// Absence is when a movable camera looks elsewhere than home.
type Absence struct {
	Share   alert.Hours // of each hour
	missed  float64     // wanted events a day at home that would be on disk if it were there
	percent float64     // of the wanted events at home, during which it is away
}

// awayOf is when what it is tied to sends the camera of channel i away; nil where nothing does.
func awayOf(r *resolve.Site, i int) *Absence {
	m := r.Plan.Channels[i].Movable
	if m == nil || r.Plan.Channels[i].NoCamera {
		return nil
	}
	var ties []alert.Tie
	for _, sent := range r.Causes.Sends[i] {
		if sent.Preset != m.Home {
			ties = append(ties, alert.Tie{Streams: resolve.StreamsOf(r.Heard([]cause.Tie{sent.Tie}), week.Constant(true)), Seconds: sent.Seconds})
		}
	}
	if len(ties) == 0 {
		return nil
	}
	a := new(Absence)
	a.Share, _ = alert.Taken(ties)
	return a
}

// findAbsences finds when movable cameras are away, and what they miss at home for it.
func (e *Effects) findAbsences(earlier *Effects) {
	channels := e.site.Plan.Channels
	e.Away = make([]*Absence, len(channels))
	parallel.Do(len(channels), func(i int) {
		var a *Absence
		if j, ok := e.before(earlier, channels[i].ID); ok && earlier.site.Plan.Channels[j].Movable == channels[i].Movable {
			a = earlier.Away[j]
		} else {
			a = awayOf(e.site, i)
		}
		if a == nil {
			return
		}
		gone := Absence{Share: a.Share}
		e.Away[i] = &gone
		for _, b := range e.played[i].Week {
			gone.percent += min(1, gone.Share[b.Span.From/week.Hour]) * (b.Full + b.Low + b.Missed)
		}
		left := gone.Missing(e.played[i])
		if left.EventsPerDay > 0 {
			gone.percent *= 100 / (7 * left.EventsPerDay)
		}
		gone.missed = left.MissedPerDay - e.played[i].Evidence().MissedPerDay
	})
}

// Missing is the evidence of a week of footage, with what happens at home while the camera is away counted as missed.
func (a *Absence) Missing(p *resolve.Played) footage.Evidence {
	full, low, missed := 0.0, 0.0, 0.0
	for _, b := range p.Week {
		share := min(1, a.Share[b.Span.From/week.Hour])
		full += b.Full * (1 - share)
		low += b.Low * (1 - share)
		missed += b.Missed + (b.Full+b.Low)*share
	}
	return footage.EvidenceOf(full/7, low/7, missed/7)
}

// Away is how much a movable camera misses at home.
type Away struct {
	Channel string
	Percent float64 // of the wanted events at home, during which it is away
	Missed  float64 // wanted events a day at home that would be on disk if it were there
}

// Sent are the movable cameras that something sends.
func (e *Effects) Sent() (out []Away) {
	for i, a := range e.Away {
		if a != nil {
			out = append(out, Away{e.site.Plan.Channels[i].ID, a.percent, a.missed})
		}
	}
	return out
}
