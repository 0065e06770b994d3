package measured

import (
	"math"

	"wakefield.example/core/doubt"
)

// grouped is the row of how many events come together; nil where the log does not tell, or nothing of the plan could be off.
func (s *seen) grouped(l *latents) *row {
	k, g := s.main(), s.log.Group
	if k < 0 || g == nil || g.Size <= 1.05 || s.joined || s.sharePart(k) < 0.9 {
		return nil
	}
	f := &s.from[k]
	if _, _, uncertain := f.Uncertain(); !uncertain {
		return nil
	}
	return &row{deps: l.all(doubt.SiteGroup, doubt.ActivityGroup(f.ID)), y: math.Log(g.Size - 1), sd: s.groupError(),
		mean: func(z doubt.Latent) float64 { return math.Log(max(0.02, (f.GroupSize(z)-1)*f.notices)) }}
}

// groupError is the standard error of the logarithm of the size of a log's groups beyond 1; a tenth is what groups that are not
// quite like ours may be off.
func (s *seen) groupError() float64 {
	g := s.log.Group
	return math.Hypot(g.Percent/100*g.Size/(g.Size-1), 0.1)
}
