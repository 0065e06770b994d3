package estimate

import (
	"wakefield/core/alert"
	"wakefield/core/cause"
	"wakefield/core/parallel"
	"wakefield/core/plan"
	"wakefield/core/resolve"
	"wakefield/core/week"
)

// away is when a movable camera looks elsewhere than home.
type away struct {
	share   alert.Hours // of each hour
	missed  float64     // wanted events a day at home that would be on disk if it were there
	percent float64     // of the wanted events at home, during which it is away
}

// awayOf is when what it is tied to sends the camera of channel i away; nil where nothing does.
func awayOf(r *resolve.Site, i int) *away {
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
	a := new(away)
	a.share, _ = alert.Taken(ties)
	return a
}

// move finds when movable cameras are away, and takes from the evidence what they miss at home for it.
func (s *Result) move(p *plan.Plan, earlier *Result) {
	s.away = make([]*away, len(p.Channels))
	before := earlier.byID()
	parallel.Do(len(p.Channels), func(i int) {
		c := &s.Channels[i]
		var a *away
		if j, ok := before[c.ID]; ok && s.site.HearsAsBefore(earlier.site) && earlier.plan.Channels[j].Movable == p.Channels[i].Movable {
			a = earlier.away[j]
		} else {
			a = awayOf(s.site, i)
		}
		if a == nil {
			return
		}
		gone := *a
		s.away[i] = &gone
		percent := 100 * gone.share.Mean()
		c.AwayPercent = &percent
		for _, b := range s.played[i].Week {
			gone.percent += min(1, gone.share[b.Span.From/week.Hour]) * (b.Full + b.Low + b.Missed)
		}
		left := gone.missing(s.played[i])
		if left.EventsPerDay > 0 {
			gone.percent *= 100 / (7 * left.EventsPerDay)
		}
		gone.missed = left.MissedPerDay - c.Evidence.MissedPerDay
		c.Evidence = left
	})
}

// missing is the evidence of a week of footage, with what happens at home while the camera is away counted as missed.
func (a *away) missing(p *resolve.Played) Evidence {
	full, low, missed := 0.0, 0.0, 0.0
	for _, b := range p.Week {
		share := min(1, a.share[b.Span.From/week.Hour])
		full += b.Full * (1 - share)
		low += b.Low * (1 - share)
		missed += b.Missed + (b.Full+b.Low)*share
	}
	return newEvidence(full/7, low/7, missed/7)
}

// Away is how much a movable camera misses at home.
type Away struct {
	Channel string
	Percent float64 // of the wanted events at home, during which it is away
	Missed  float64 // wanted events a day at home that would be on disk if it were there
}

// SentAway are the movable cameras that something sends.
func (s *Result) SentAway() (out []Away) {
	for i, a := range s.away {
		if a != nil {
			out = append(out, Away{s.Channels[i].ID, a.percent, a.missed})
		}
	}
	return out
}
