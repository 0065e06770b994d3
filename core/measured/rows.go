package measured

import (
	"cmp"
	"math"
	"slices"

	"wakefield.example/core/doubt"
)

// row is one thing that was found, with what is expected of it.
type row struct {
	deps []int                        // latents that it depends on
	mean func(z doubt.Latent) float64 // logarithm of what is expected
	n    float64                      // of a count: how many there were
	over float64                      // its variance over its mean; 0 of what is no count
	y    float64                      // else: logarithm of what was found
	sd   float64                      // and how far that may be off
}

// likelihood is the logarithm of how likely it is, but for a constant, where the logarithm of what is expected is m.
func (r *row) likelihood(m float64) float64 {
	if r.over > 0 {
		return (r.n*m - math.Exp(m)) / r.over
	}
	return -(r.y - m) * (r.y - m) / (2 * r.sd * r.sd)
}

// score is the slope of that, and information how much it bends.
func (r *row) score(m float64) (score, information float64) {
	if r.over > 0 {
		return (r.n - math.Exp(m)) / r.over, math.Exp(m) / r.over
	}
	return (r.y - m) / (r.sd * r.sd), 1 / (r.sd * r.sd)
}

// part is some of the hours of a log, in which its activities have similar shares.
type part struct {
	found    float64
	expected []float64 // by activity
}

// mostParts is into how many parts a log of several activities is divided at most, to tell them apart.
const mostParts = 6

// parts divides a log by how much of what is expected is of its main activity.
func (s *seen) parts() []part {
	main := s.main()
	if main < 0 {
		return nil
	}
	var hours []int
	share := make([]float64, len(s.hours))
	for h := range s.hours {
		if all := s.all(h); s.hours[h] > 0 && all > 0 {
			share[h] = s.expected(main, h) / all
			hours = append(hours, h)
		}
	}
	slices.SortStableFunc(hours, func(a, b int) int { return cmp.Compare(share[a], share[b]) })
	n := mostParts
	if len(s.from) == 1 || s.joined { // of joined lines as many are lost as there is to join, which differs by the hour
		n = 1
	}
	var out []part
	total := 0.0
	for _, h := range hours {
		total += s.all(h)
	}
	sum := 0.0
	for i, h := range hours {
		if len(out) == 0 || len(out) < n && sum >= total*float64(len(out))/float64(n) && share[h] > share[hours[i-1]]+0.02 {
			out = append(out, part{expected: make([]float64, len(s.from))})
		}
		p := &out[len(out)-1]
		p.found += float64(s.log.Counts[h])
		for k := range s.from {
			p.expected[k] += s.expected(k, h)
		}
		sum += s.all(h)
	}
	return out
}

// depends are the latents that decide how many events of an activity a log has.
func (s *seen) depends(l *latents, f *from) (deps []int) {
	rate, length, size := f.Uncertain()
	if rate {
		deps = append(deps, l.all(doubt.SiteRate, doubt.ActivityRate(f.ID))...)
		if f.Season {
			deps = append(deps, l.of(doubt.Season))
		}
	}
	if length && (s.joined || f.least > 0) {
		deps = append(deps, l.all(doubt.SiteLength, doubt.ActivityLength(f.ID))...)
	}
	if size && s.joined {
		deps = append(deps, l.all(doubt.SiteGroup, doubt.ActivityGroup(f.ID))...)
	}
	if s.guessed && f.own {
		deps = append(deps, l.of(doubt.Noticing))
	}
	return append(deps, l.of(period))
}

// times is by what the events of activity k that a log has are more than the plan expects.
func (s *seen) times(k int, spread, thick float64, z doubt.Latent) float64 {
	f := &s.from[k]
	rate, length := f.RateFactor(z), f.LengthFactor(z)
	out := rate * math.Exp(spread*z(period)-spread*spread/2)
	if f.least > 0 {
		out *= math.Pow(length, f.least/f.mean) // e^(−w/d), to first order in ln d: counts stay a line in the latents
	}
	if s.guessed && f.own {
		out *= doubt.NoticedFactor(z)
	}
	if s.joined {
		out *= kept(f, rate, length, f.GroupSize(z), s.clip, thick)
	}
	return out
}

// counts are the rows of how many events there are. spread is by how much the time that was looked at differs, by activity.
func (s *seen) counts(l *latents, spread map[string]float64) (out []row) {
	var deps []int
	thick := make([]float64, len(s.from))
	apiece := make([]float64, len(s.from))
	for k := range s.from {
		deps = append(deps, s.depends(l, &s.from[k])...)
		if s.joined {
			thick[k] = s.thick(k)
		}
		apiece[k] = spread[s.from[k].ID] / math.Sqrt(max(1, s.days()))
	}
	slices.Sort(deps)
	deps = slices.Compact(deps)
	over := s.dispersed()
	if s.joined {
		over = 1 + (over-1)/2 // a group is few lines
	}
	for _, p := range s.parts() {
		out = append(out, row{deps: deps, n: p.found, over: over, mean: func(z doubt.Latent) float64 {
			sum := 0.0
			for k, expected := range p.expected {
				if expected > 0 {
					sum += expected * s.times(k, apiece[k], thick[k], z)
				}
			}
			return math.Log(max(sum, 1e-9))
		}})
	}
	return out
}

// enough is how many lengths there must be for a mean length to be told.
const enough = 10

// length is the row of how long the events last, of a log that does not join them; nil where nothing tells.
func (s *seen) length(l *latents) *row {
	k := s.main()
	if k < 0 || s.log.Lengths < enough || s.log.Seconds <= 0 || s.sharePart(k) < 0.9 {
		return nil
	}
	if _, uncertain, _ := s.from[k].Uncertain(); !uncertain {
		return nil
	}
	var deps []int
	for j := range s.from {
		if _, uncertain, _ := s.from[j].Uncertain(); uncertain {
			deps = append(deps, l.all(doubt.SiteLength, doubt.ActivityLength(s.from[j].ID))...)
		}
		if s.joined || len(s.from) > 1 {
			deps = append(deps, s.depends(l, &s.from[j])...)
		}
	}
	slices.Sort(deps)
	expected := s.stated()
	thick := s.thick(k)
	return &row{deps: slices.Compact(deps), y: math.Log(s.log.Seconds / float64(s.log.Lengths)), sd: s.lengthError(),
		mean: func(z doubt.Latent) float64 { return math.Log(s.lasts(expected, thick, s.factors(z))) }}
}

// offBy is by what the figures of an activity are off.
type offBy struct{ rate, length, size float64 }

// factors are those of all activities of a log at some values of the latents; asStated where nothing is off.
func (s *seen) factors(z doubt.Latent) []offBy {
	out := make([]offBy, len(s.from))
	for k := range s.from {
		f := &s.from[k]
		out[k] = offBy{f.RateFactor(z), f.LengthFactor(z), f.GroupSize(z)}
	}
	return out
}

func (s *seen) asStated() []offBy {
	out := make([]offBy, len(s.from))
	for k := range s.from {
		out[k] = offBy{1, 1, max(1, s.from[k].Group.Size)}
	}
	return out
}

// asExplained is as stated, but for how often activities happen that explain what was found.
func (s *seen) asExplained(factors map[string]float64) []offBy {
	out := s.asStated()
	for k := range s.from {
		if f := factors[s.from[k].ID]; f > 0 {
			out[k].rate = f
		}
	}
	return out
}

// stated is how many events of each activity the plan has in the hours that count.
func (s *seen) stated() []float64 {
	out := make([]float64, len(s.from))
	for k := range s.from {
		for h := range s.hours {
			out[k] += s.expected(k, h)
		}
	}
	return out
}

// lasts is how long a line of a log is expected to be, s: the mean of its events, or where they are joined that of all that
// overlap. Of M/G/∞ with groups that begin at rate λ/n, each of which covers U seconds in o·n lines of its own, such a stretch is
// (1 − e^(−λU/n)) / (λ·o·e^(−λU/n)).
func (s *seen) lasts(expected []float64, thick float64, off []offBy) float64 {
	seconds, all, own, left, stated := 0.0, 0.0, 0.0, 0.0, 0.0
	for k := range s.from {
		f, n := &s.from[k], expected[k]*off[k].rate
		g, mean := f.group(off[k].size), f.mean*off[k].length
		seconds += n * (s.clip + mean)
		all += n
		stated += expected[k]
		if s.joined {
			own += n * apart(g, s.clip+mean)
			left += n * (s.clip + mean) * union(g, s.clip, mean)
		}
	}
	if all == 0 {
		return 1
	}
	if !s.joined {
		return seconds / all
	}
	busy := max(1e-6, thick*all/stated*left/seconds)
	return left / own * math.Expm1(busy) / busy
}

// lengthError is the standard error of the logarithm of the mean length; rounding of times to a second, and that lengths are not
// quite exponential, is two percent more.
func (s *seen) lengthError() float64 {
	n := float64(s.log.Lengths)
	mean := s.log.Seconds / n
	cv := math.Sqrt(max(0.04, s.log.Squares/n/(mean*mean)-1))
	return math.Hypot(cv*math.Sqrt(s.dispersed()/n), 0.02)
}

// sharePart is the part of what is expected that is of one activity.
func (s *seen) sharePart(k int) float64 {
	own, all := 0.0, 0.0
	for h := range s.hours {
		own += s.expected(k, h)
		all += s.all(h)
	}
	return own / max(all, 1e-9)
}
