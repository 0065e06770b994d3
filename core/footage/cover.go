package footage

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/integrate/quad"

	"wakefield/core/week"
)

// Cover plays the scene through the regimes of a week and returns what is written,
// bin by bin. Its numerical error is below 0.1 % of the covered share.
func Cover(scene Scene, regimes week.Steps[Regime]) Week {
	w := newSweep(scene)
	bins := cut(regimes, scene.Hours)
	clock := 0.0
	for i := range bins {
		bin := &bins[i]
		regime := regimes.At(bin.Span.From)
		end := float64(bin.Span.To) * 60
		sums := sums{scene: &scene, regime: regime, noticed: scene.noticedAt(bin.Span.From)}
		for clock < end {
			next := min(end, w.nextEdge())
			if next > clock {
				w.segment(next-clock, &sums)
			}
			w.pass(next)
			clock = next
		}
		sums.into(bin)
	}
	return bins
}

// noticedAt is the chance that a wanted event at m becomes a trigger.
func (s *Scene) noticedAt(m week.Minute) float64 {
	if s.Hours.At(m) {
		return s.Noticed
	}
	return 0
}

// cut divides the week into bins: every Grain, and where regime or detection
// changes.
func cut(regimes week.Steps[Regime], hours week.Steps[bool]) Week {
	cuts := make([]week.Minute, 0, int(week.Length/Grain)+len(regimes)+len(hours)+1)
	for m := week.Minute(0); m <= week.Length; m += Grain {
		cuts = append(cuts, m)
	}
	for _, r := range regimes {
		cuts = append(cuts, r.From)
	}
	for _, h := range hours {
		cuts = append(cuts, h.From)
	}
	slices.Sort(cuts)
	cuts = slices.Compact(cuts)
	bins := make(Week, len(cuts)-1)
	for i := range bins {
		bins[i].Span = week.Span{From: cuts[i], To: cuts[i+1]}
	}
	return bins
}

// role is what a term adds up to.
type role int

const (
	motionCover role = iota // Λ of the motion sources
	alarmCover              // Λ of the alarm sources
	sceneActive             // A: everything that moves
	sceneCaught             // A_c: what detection has noticed, or is about to, of it
	roles
)

// curve is a role between two edges: c + slope·s + Σ gamma[k]·exp(−s/mean[k]), s
// seconds behind the edge.
type curve struct {
	c, slope float64
	gamma    []float64
}

func (c *curve) at(s float64, decay []float64) float64 {
	v := c.c + c.slope*s
	for k, g := range c.gamma {
		v += g * decay[k]
	}
	return max(v, 0)
}

// sweep walks the week from edge to edge.
type sweep struct {
	terms  []term
	means  []float64 // the distinct mean lengths
	decay  []float64 // exp(−s/mean) at the point looked at
	end    []float64 // the same at the end of a segment
	curves [roles]curve
	wanted wanted
}

func newSweep(scene Scene) *sweep {
	w := &sweep{terms: make([]term, 0, len(scene.Motion)+len(scene.Alarm)+len(scene.Own)+len(scene.Caught))}
	add := func(role role, sources ...Source) {
		for _, src := range sources {
			if src.Triggers.Never() {
				continue
			}
			k := slices.Index(w.means, src.Triggers.Mean)
			if k < 0 {
				k = len(w.means)
				w.means = append(w.means, src.Triggers.Mean)
			}
			w.terms = append(w.terms, newTerm(role, k, src))
		}
	}
	add(motionCover, scene.Motion...)
	add(alarmCover, scene.Alarm...)
	for _, p := range scene.Own {
		add(sceneActive, Source{Triggers: p})
	}
	add(sceneCaught, scene.Caught...)
	w.decay = make([]float64, len(w.means))
	w.end = make([]float64, len(w.means))
	for r := range w.curves {
		w.curves[r].gamma = make([]float64, len(w.means))
	}
	w.wanted = newWanted(scene.Wanted)
	return w
}

// nextEdge is the second of the week at which a term bends next.
func (w *sweep) nextEdge() float64 {
	at := w.wanted.next
	for i := range w.terms {
		at = min(at, w.terms[i].nextHead, w.terms[i].nextTail)
	}
	return at
}

// pass moves every term over the edges at second t.
func (w *sweep) pass(t float64) {
	for i := range w.terms {
		w.terms[i].pass(t)
	}
	w.wanted.pass(t)
}

// Panels behind an edge begin as wide as the shortest mean length and double; what
// is left of an exponential below faint is taken as nothing.
const faint = 2e-6

// segment integrates the next length seconds, in which no term bends, and moves
// the terms to its end.
func (w *sweep) segment(length float64, to *sums) {
	for r := range w.curves {
		c := &w.curves[r]
		c.c, c.slope = 0, 0
		clear(c.gamma)
	}
	for i := range w.terms {
		w.terms[i].addTo(&w.curves[w.terms[i].role])
	}
	for k, d := range w.means {
		w.end[k] = math.Exp(-length / d)
	}
	to.wantedRate = w.wanted.rate
	if to.constant(w) {
		to.add(w, 0, length)
	} else {
		w.panels(length, to)
	}
	for i := range w.terms {
		t := &w.terms[i]
		t.move(length, w.end[t.mean])
	}
}

// panels divides a segment so that four points a panel are enough.
func (w *sweep) panels(length float64, to *sums) {
	reach, width, sloped := 0.0, math.Inf(1), false
	for r := range w.curves {
		c := &w.curves[r]
		sloped = sloped || math.Abs(c.slope)*length > 1e-6
		for k, g := range c.gamma {
			if g = math.Abs(g); g > faint {
				width = min(width, w.means[k])
				reach = max(reach, w.means[k]*math.Log(g/faint))
			}
		}
	}
	from := 0.0
	for from < min(reach, length) {
		to.panel(w, from, min(from+width, length), 0)
		from, width = min(from+width, length), 2*width
	}
	switch {
	case from >= length:
	case sloped:
		to.panel(w, from, length, 0)
	default:
		to.point(w, (from+length)/2, length-from)
	}
}

// gauss holds the points and weights of four-point Gauss–Legendre quadrature on
// [0, 1].
var gauss = func() (g struct{ x, w [4]float64 }) {
	quad.Legendre{}.FixedLocations(g.x[:], g.w[:], 0, 1)
	return g
}()
