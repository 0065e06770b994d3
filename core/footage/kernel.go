package footage

import (
	"math"
	"slices"
	"sync"

	"wakefield.example/core/activity"
)

// A group that began x seconds ago leaves an instant uncovered with the chance
//
//	(1 − c(x)) · exp(−(n−1)·c(x))       c(x) = (1/s)·∫ from x−s to x of φ(y) dy
//
// where φ(y) is the chance that one event that began y seconds ago covers it, or is
// under way, or either: there is one event for certain, and Poisson(n−1) more, each
// anywhere in the s seconds. The bracket 1 − that is the kernel of the source, and Λ(t)
// the sum of its running integral over the edges of λ before t.

// property is what one event brings about at an instant.
type property int

const (
	covering property = iota // the event's footage covers it
	underway                 // the event is going on
	either
)

// eventShape is how one event brings properties about: it lasts an exponential time with
// mean d, becomes a trigger after w seconds with chance caught = c·exp(−w/d), and is kept
// from pre before the trigger to post after its end.
type eventShape struct{ d, w, c, pre, post float64 }

// swept is ∫ from −∞ to y of φ.
func (e eventShape) swept(what property, y float64) float64 {
	switch what {
	case underway:
		if y <= 0 {
			return 0
		}
		return e.d * -math.Expm1(-y/e.d)
	case covering:
		from, flat := e.w-e.pre, e.w+e.post
		chance := e.c * math.Exp(-e.w/e.d)
		switch {
		case y <= from:
			return 0
		case y <= flat:
			return chance * (y - from)
		}
		return chance * (flat - from + e.d*-math.Expm1(-(y-flat)/e.d))
	}
	return e.swept(covering, y) + e.swept(underway, y) - e.both(y)
}

// both is ∫ of the chance that the event is going on and its footage covers the instant:
// c·P(it lasts longer than max(y, w)) from where the footage begins.
func (e eventShape) both(y float64) float64 {
	from := max(0, e.w-e.pre)
	if y <= from {
		return 0
	}
	sum := 0.0
	if from < e.w {
		sum = math.Exp(-e.w/e.d) * (min(y, e.w) - from)
	}
	if begin := max(from, e.w); y > begin {
		sum += e.d * (math.Exp(-begin/e.d) - math.Exp(-y/e.d))
	}
	return e.c * sum
}

// bracket is the chance that a group brings a property about, given that of one of its
// events.
func bracket(n, c float64) float64 { return 1 - (1-c)*math.Exp(-(n-1)*c) }

// curveShape is a function of the seconds since an edge: 0 before it begins, a table in
// between, level afterwards.
type curveShape struct {
	breaks []float64 // where it bends, ascending: from the beginning to the end
	cells  []float64 // width of a cell in each section
	value  [][]cell
	level  float64   // beyond the end
	steps  []float64 // between which a few points are enough to integrate over it
}

// cell is a cubic over one cell, by powers of the share of the cell.
type cell [4]float64

const cellsInSection = 8

// newShape tabulates a function from its values and slopes.
func newShape(steps, breaks []float64, f func(x float64) (value, slope float64)) *curveShape {
	s := &curveShape{breaks: breaks, steps: steps}
	last, _ := f(breaks[0])
	for i := 1; i < len(breaks); i++ {
		from, width := breaks[i-1], (breaks[i]-breaks[i-1])/cellsInSection
		section := make([]cell, cellsInSection)
		// The slope may jump where it bends; that on this side counts.
		_, slope := f(from + 1e-9*max(1, math.Abs(from)))
		for k := range section {
			next, steep := f(from + float64(k+1)*width)
			if k == cellsInSection-1 {
				_, steep = f(breaks[i] - 1e-9*max(1, math.Abs(breaks[i])))
			}
			a, b := slope*width, steep*width
			section[k] = cell{last, a, 3*(next-last) - 2*a - b, 2*(last-next) + a + b}
			last, slope = next, steep
		}
		s.cells = append(s.cells, width)
		s.value = append(s.value, section)
	}
	s.level = last
	return s
}

// at is the value x seconds behind the edge.
func (s *curveShape) at(x float64) float64 {
	if x <= s.breaks[0] {
		return 0
	}
	for i, width := range s.cells {
		if x < s.breaks[i+1] {
			k := min(int((x-s.breaks[i])/width), cellsInSection-1)
			u := (x-s.breaks[i])/width - float64(k)
			c := &s.value[i][k]
			return c[0] + u*(c[1]+u*(c[2]+u*c[3]))
		}
	}
	return s.level
}

func (s *curveShape) begin() float64 { return s.breaks[0] }
func (s *curveShape) end() float64   { return s.breaks[len(s.breaks)-1] }

// kernel is all that groups of one kind bring about on one channel, each as the running
// integral of its bracket since an edge of the rate of groups.
type kernel struct {
	cover   *curveShape // the instant is covered
	active  *curveShape // something is going on
	overlap *curveShape // covered, plus going on, less either: what the two have in common

	straddling func() *straddling // made when it is asked for, as most detection is always on
	alone      func() float64     // the chance that the others of its group leave the beginning of an event uncovered
}

// straddling is what groups bring about that straddle the beginning or the end of
// detection hours, by the seconds since then: all of them together, not a running
// integral.
type straddling struct{ coverOn, coverOff, overlapOn, overlapOff *curveShape }

// kernelOf is a kernel, made once.
type kernelOf struct {
	group activity.Group
	eventShape
}

// mean is the share of the events of a group, which began x seconds ago, that bring a
// property about.
func (k kernelOf) mean(what property, x float64) float64 {
	s := k.group.Seconds
	return (k.swept(what, x) - k.swept(what, x-s)) / s
}

func (k kernelOf) compute() *kernel {
	n := k.group.Size
	breaks := k.breaks()
	steps := k.steps(breaks)
	running := func(bracketAt func(x float64) float64) *curveShape {
		sum, at := 0.0, breaks[0]
		return newShape(steps, breaks, func(x float64) (float64, float64) {
			if x > at {
				sum += integral(bracketAt, at, x, 1)
				at = x
			}
			return sum, bracketAt(x)
		})
	}
	of := func(what property) func(float64) float64 {
		return func(x float64) float64 { return bracket(n, k.mean(what, x)) }
	}
	common := func(x float64) float64 { return of(covering)(x) + of(underway)(x) - of(either)(x) }
	return &kernel{
		cover: running(of(covering)), active: running(of(underway)), overlap: running(common),
		straddling: sync.OnceValue(k.straddling), alone: sync.OnceValue(k.alone),
	}
}

// alone is the chance that the others of its group leave the beginning of an event
// uncovered. They are m with chance (m+1)/n of Poisson(n−1): a group is met as often as
// it has events.
func (k kernelOf) alone() float64 {
	n, s := k.group.Size, k.group.Seconds
	return integral(func(o float64) float64 {
		c := k.mean(covering, o)
		return math.Exp(-(n-1)*c) * (1 + (n-1)*(1-c)) / n
	}, 0, s, 16) / s
}

// straddling makes the shapes of groups at the edges of detection hours. Of a group that
// began v before detection did, counted from start + w, only the events from then on
// become triggers; of one that began v before it ended, those until then. The rest is
// merely under way.
func (k kernelOf) straddling() *straddling {
	n, s := k.group.Size, k.group.Seconds
	edges := k.straddlingBreaks()
	shape := func(of func(x, v float64) float64) *curveShape {
		value := func(x float64) float64 {
			return integral(func(v float64) float64 { return of(x, v) }, 0, s, 4)
		}
		return newShape(k.steps(edges), edges, func(x float64) (float64, float64) {
			h := 1e-4 * s
			return value(x), (value(x+h) - value(x-h)) / (2 * h)
		})
	}
	part := func(what property, x, from, to float64) float64 { // of events at offsets between two
		return (k.swept(what, x-from) - k.swept(what, x-to)) / s
	}
	// x counts from the edge E, a group begins at E − w − v, so an event of offset o
	// began x + w + v − o ago.
	late := func(what property, x, v float64) float64 { return part(what, x+k.w+v, v, s) }
	early := func(what property, x, v float64) float64 { return part(what, x+k.w+v, 0, v) }
	inCommon := func(triggered, other func(property, float64, float64) float64) func(x, v float64) float64 {
		return func(x, v float64) float64 {
			all := triggered(underway, x, v) + other(underway, x, v)
			return bracket(n, triggered(covering, x, v)) + bracket(n, all) - bracket(n, triggered(either, x, v)+other(underway, x, v))
		}
	}
	return &straddling{
		coverOn:    shape(func(x, v float64) float64 { return bracket(n, late(covering, x, v)) }),
		coverOff:   shape(func(x, v float64) float64 { return bracket(n, early(covering, x, v)) }),
		overlapOn:  shape(inCommon(late, early)),
		overlapOff: shape(inCommon(early, late)),
	}
}

// breaks are where the kernels bend: an event's footage begins and ends, one end of the
// spread of a group and the other, and as the lengths fade.
func (k kernelOf) breaks() []float64 {
	s, n := k.group.Seconds, k.group.Size
	begin, flat := min(0, k.w-k.pre), k.w+k.post
	end := max(flat, 0) + s + 16*k.d
	// Most of a large group shows in a small part of its spread.
	at := []float64{begin, end}
	for _, x := range []float64{0, k.w - k.pre, k.w, flat} {
		at = append(at, x, x+s, x+min(s, 2*s/n))
	}
	for _, x := range []float64{1, 3, 7} {
		at = append(at, flat+s+x*k.d)
	}
	return ascending(at, begin, end)
}

// steps are few points of the breaks: the running integral is smoother than what it is
// of. They reach from the first to the last.
func (k kernelOf) steps(breaks []float64) []float64 {
	begin, end, spread := breaks[0], breaks[len(breaks)-1], max(0, k.w+k.post)+k.group.Seconds
	at := []float64{begin, (begin + spread) / 2, spread, spread + 2*k.d, spread + 6*k.d, end}
	return ascending(at, begin, end)
}

// straddlingBreaks are where what straddles an edge of detection bends.
func (k kernelOf) straddlingBreaks() []float64 {
	s := k.group.Seconds
	begin, end := min(0, k.w-k.pre)-k.w-s, max(0, k.post)+s+16*k.d
	at := []float64{begin, end}
	for _, x := range []float64{-k.w, -k.pre, 0, k.post} {
		at = append(at, x-s, x, x+s)
	}
	for _, x := range []float64{1, 3, 7} {
		at = append(at, k.post+s+x*k.d)
	}
	return ascending(at, begin, end)
}

// ascending sorts points, leaves out those that are next to others, and those outside.
func ascending(at []float64, begin, end float64) []float64 {
	out := []float64{begin}
	slices.Sort(at)
	for _, x := range at {
		if x-out[len(out)-1] > 1e-6*(end-begin) && x <= end {
			out = append(out, x)
		}
	}
	out[len(out)-1] = end
	return out
}

// integral integrates a function by four Gauss–Legendre points in each of some parts.
func integral(f func(float64) float64, from, to float64, parts int) float64 {
	sum, width := 0.0, (to-from)/float64(parts)
	for p := range parts {
		for i, x := range gauss[4].x {
			sum += gauss[4].weight[i] * width * f(from+(float64(p)+x)*width)
		}
	}
	return sum
}
