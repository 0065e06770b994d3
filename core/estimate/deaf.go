package estimate

import (
	"wakefield/core/week"
)

// Deaf is when the duty of channel i waits for motion that no detection reports: neither its own nor that of another channel
// whose motion records it.
func (s *Result) Deaf(i int) week.Steps[bool] {
	out := s.resolver.listensToMotion(i)
	for _, of := range byChannel(s.resolver.causes.Records[i]) {
		reports := reporting(&s.plan.Channels[of.at])
		if counts := s.resolver.motionOf(of.at, of.ties); counts.part { // only what ties let count
			reports = counts.noticing.hours()
		}
		out = week.Map(week.Both(out, reports), func(p week.Pair[bool, bool]) bool { return p.A && !p.B })
	}
	return out
}
