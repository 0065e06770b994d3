package activity

import (
	"cmp"
	"math/rand/v2"
	"slices"
)

// Drawn is an event of a sample: seconds from its beginning, and how long it lasts.
type Drawn struct {
	Start   float64 `json:"start"`
	Seconds float64 `json:"seconds"`
}

// BusiestHour is the second of the week at which the hour with most events begins, of the
// full hours of the week.
func (p Process) BusiestHour() float64 {
	best, most := 0.0, -1.0
	for h := range 168 {
		from := float64(h) * 3600
		if n := p.Intensity.Count(from, from+3600); n > most {
			best, most = from, n
		}
	}
	return best
}

// Sample draws what may happen in the hour that begins at a second of the week; the same
// seed gives the same. Groups that began before may reach into it.
func (p Process) Sample(from float64, seed uint64) []Drawn {
	rng := rand.New(rand.NewPCG(seed, 0x5a))
	out := []Drawn{}
	size, spread := 1.0, 0.0
	if p.Group.Grouped() {
		size, spread = p.Group.Size, p.Group.Seconds
	}
	for at := -spread; ; {
		// The rate of the hour holds for what began just before it too.
		rate := p.Intensity.Count(from, from+3600) / 3600 / size
		if rate <= 0 {
			return out
		}
		if at += rng.ExpFloat64() / rate; at >= 3600 {
			break
		}
		events := 1
		for more := rng.ExpFloat64(); more < size-1; more += rng.ExpFloat64() {
			events++
		}
		for range events {
			start := at + spread*rng.Float64()
			if start >= 0 && start < 3600 && len(out) < 5000 {
				out = append(out, Drawn{start, rng.ExpFloat64() * p.Mean})
			}
		}
	}
	slices.SortFunc(out, func(a, b Drawn) int { return cmp.Compare(a.Start, b.Start) })
	return out
}
