package estimate

import (
	"wakefield.example/core/resolve"
	"wakefield.example/core/week"
)

// Deaf is when the duty of channel i waits for motion that no detection reports: neither its own nor that of another channel
// whose motion records it.
func (s *Result) Deaf(i int) week.Steps[bool] {
	out := s.site.ListensToMotion(i)
	for _, of := range resolve.ByChannel(s.site.Causes.Records[i]) {
		reports := resolve.Reporting(&s.plan.Channels[of.At])
		if counts := s.site.MotionOf(of.At, of.Ties); counts.Part { // only what ties let count
			reports = counts.Noticing.Hours()
		}
		out = week.Map(week.Both(out, reports), func(p week.Pair[bool, bool]) bool { return p.A && !p.B })
	}
	return out
}
