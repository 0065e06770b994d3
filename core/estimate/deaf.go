package estimate

import (
	"wakefield/core/footage"
	"wakefield/core/plan"
	"wakefield/core/week"
)

// Deaf is when the duty of channel i waits for motion that no detection reports: neither its own nor that of another channel
// whose motion records it.
func (s *Result) Deaf(i int) week.Steps[bool] {
	out := s.resolver.listensToMotion(s, i)
	for _, of := range byChannel(s.resolver.causes.Records[i]) {
		reports := reporting(&s.plan.Channels[of.at])
		if counts := s.resolver.motionOf(of.at, of.ties); counts.part { // only what ties let count
			reports = counts.noticing.hours()
		}
		out = week.Map(week.Both(out, reports), func(p week.Pair[bool, bool]) bool { return p.A && !p.B })
	}
	return out
}

// reporting is when the detection of a channel could report anything.
func reporting(c *plan.Channel) week.Steps[bool] {
	if c.NoCamera || !c.Detection.On {
		return week.Constant(false)
	}
	if !c.Detection.Drawn() {
		return c.Detection.Steps()
	}
	return week.Map(watched(c).open, func(open openAt) bool { return open != 0 })
}

// listensToMotion is when a duty of channel i records on motion alone.
func (r *resolver) listensToMotion(s *Result, i int) week.Steps[bool] {
	return week.Map(s.Duties(i), func(id string) bool {
		d := r.duties[id]
		if d == nil || d.Event == nil {
			return false
		}
		by := admits(d.Event)
		return by == footage.Motion || by == footage.Either
	})
}
