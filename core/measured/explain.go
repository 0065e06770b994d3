package measured

import (
	"math"
	"slices"
)

// enoughGain is how much likelihood, as a logarithm, a factor must gain to explain anything.
const enoughGain = 4

// explained is a part of a log with what is expected of each activity.
type explained struct {
	of       []int // activities
	expected []float64
	found    float64
	over     float64 // how far counts vary, over their mean: by groups, and by what days differ
}

// explainer finds which activities explain best what was found.
type explainer struct {
	ids    []string
	lines  []explained
	lineOf [][]int   // lines by activity
	factor []float64 // found so far; 1 where none is
	gain   []float64 // of one more, and which
	next   []float64
}

// explain finds which activities explain best what was found: the one whose factor gains most likelihood over all logs, then the
// next, as long as one gains enough. A channel that differs from others that hear of the same is explained by nothing they share.
func explain(list []*bunch, spread map[string]float64) map[string]float64 {
	e := newExplainer(list, spread)
	for k := range e.ids {
		e.try(k)
	}
	done := make([]bool, len(e.ids))
	out := make(map[string]float64)
	for range e.ids {
		best, at := float64(enoughGain), -1
		for k, gain := range e.gain {
			if !done[k] && gain > best {
				best, at = gain, k
			}
		}
		if at < 0 {
			break
		}
		done[at] = true
		e.factor[at] = e.next[at]
		out[e.ids[at]] = e.next[at]
		for k := range e.ids { // what shares a log with it gains otherwise now
			if !done[k] && e.meet(k, at) {
				e.try(k)
			}
		}
	}
	return out
}

func newExplainer(list []*bunch, spread map[string]float64) *explainer {
	e := new(explainer)
	at := make(map[string]int)
	for _, b := range list {
		if b.alone {
			continue
		}
		for _, s := range b.list {
			of := make([]int, len(s.from))
			for k := range s.from {
				id := s.from[k].ID
				if _, ok := at[id]; !ok {
					at[id] = len(e.ids)
					e.ids = append(e.ids, id)
				}
				of[k] = at[id]
			}
			e.add(s, of, spread)
		}
	}
	e.lineOf = make([][]int, len(e.ids))
	for n, l := range e.lines {
		for _, k := range l.of {
			e.lineOf[k] = append(e.lineOf[k], n)
		}
	}
	e.factor, e.gain, e.next = make([]float64, len(e.ids)), make([]float64, len(e.ids)), make([]float64, len(e.ids))
	for k := range e.factor {
		e.factor[k] = 1
	}
	return e
}

// add adds the parts of a log.
func (e *explainer) add(s *seen, of []int, spread map[string]float64) {
	_, by := s.lines()
	stated := s.stated()
	wide := spread[s.from[max(0, s.main())].ID] / math.Sqrt(max(1, s.days()))
	for _, p := range s.parts() {
		expected := slices.Clone(p.expected)
		for k := range expected {
			if stated[k] > 0 {
				expected[k] *= by[k] / stated[k] // where lines are joined
			}
		}
		e.lines = append(e.lines, explained{of, expected, p.found, s.dispersed() + p.found*wide*wide})
	}
}

// meet tells whether two activities are of one log.
func (e *explainer) meet(a, b int) bool {
	return slices.ContainsFunc(e.lineOf[a], func(n int) bool { return slices.Contains(e.lines[n].of, b) })
}

// likelihood is the logarithm of how likely the logs of an activity are with a factor of it.
func (e *explainer) likelihood(id int, by float64) (sum float64) {
	for _, n := range e.lineOf[id] {
		l := &e.lines[n]
		mean := 1e-9
		for k, of := range l.of {
			f := e.factor[of]
			if of == id {
				f = by
			}
			mean += l.expected[k] * f
		}
		sum += (l.found*math.Log(mean) - mean) / l.over
	}
	return sum
}

// try finds the factor of an activity under which its logs are likeliest, by golden section over the logarithm, and what it gains.
func (e *explainer) try(id int) {
	const golden = 0.6180339887498949
	a, b := math.Log(0.01), math.Log(100.0)
	at := func(x float64) float64 { return e.likelihood(id, math.Exp(x)) }
	c, d := b-golden*(b-a), a+golden*(b-a)
	fc, fd := at(c), at(d)
	for b-a > 1e-4 {
		if fc > fd {
			b, d, fd = d, c, fc
			c = b - golden*(b-a)
			fc = at(c)
		} else {
			a, c, fc = c, d, fd
			d = a + golden*(b-a)
			fd = at(d)
		}
	}
	e.next[id] = math.Exp((a + b) / 2)
	e.gain[id] = e.likelihood(id, e.next[id]) - e.likelihood(id, 1)
}
