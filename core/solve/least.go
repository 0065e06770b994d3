package solve

import (
	"cmp"
	"math"
	"slices"
)

// Option is one way of several for one thing.
type Option struct {
	Cost float64 // of what there is a budget, ≥ 0
	Loss float64
}

// Least picks one option for each of some things so that all of them cost no more than a budget and the least is lost: a
// multiple-choice knapsack. It is found by branch and bound on the convex hulls of the options; exact tells whether the search
// came to its end within a number of nodes, else it is the best that was found, at least as good as going down the hulls by
// slopes. ok is false where even the cheapest cost more.
func Least(things [][]Option, budget float64, nodes int) (picks []int, exact, ok bool) {
	s := newSearch(things, budget, nodes)
	if s.cheapest[0] > budget+tolerance(budget) {
		return nil, true, false
	}
	s.descend()
	s.improve()
	s.branch(0, 0, 0)
	return s.best, !s.given, true
}

// tolerance is how much of a budget rounding may take.
func tolerance(budget float64) float64 { return 1e-9 * (1 + math.Abs(budget)) }

// search is a search under way.
type search struct {
	budget   float64
	options  [][]kept // of each thing, without those that are no use, least loss first
	order    []int    // things, those whose choice matters most first
	steps    []step   // down the hulls of all things, by slope
	cheapest []float64
	least    []float64 // loss, of things from a place in the order on

	best     []int
	bestLoss float64
	now      []int
	nodes    int
	given    bool // given up
}

// kept is an option that may be of use, with its place in its list.
type kept struct {
	Option
	at int
}

// step goes from one option of a thing to a cheaper one on its hull.
type step struct {
	thing, from, to int // places in options
	saves, loses    float64
}

func newSearch(things [][]Option, budget float64, nodes int) *search {
	s := &search{budget: budget, nodes: nodes, bestLoss: math.Inf(1), now: make([]int, len(things)), best: make([]int, len(things))}
	for i, list := range things {
		s.options = append(s.options, useful(list))
		for _, st := range hull(s.options[i]) {
			st.thing = i
			s.steps = append(s.steps, st)
		}
	}
	slices.SortStableFunc(s.steps, func(a, b step) int { return cmp.Compare(a.loses*b.saves, b.loses*a.saves) })
	s.order = make([]int, len(things))
	for i := range s.order {
		s.order[i] = i
	}
	span := func(i int) float64 { o := s.options[i]; return o[0].Cost - o[len(o)-1].Cost }
	slices.SortStableFunc(s.order, func(a, b int) int { return cmp.Compare(span(b), span(a)) })
	s.cheapest, s.least = make([]float64, len(things)+1), make([]float64, len(things)+1)
	for k := len(things) - 1; k >= 0; k-- {
		o := s.options[s.order[k]]
		s.cheapest[k] = s.cheapest[k+1] + o[len(o)-1].Cost
		s.least[k] = s.least[k+1] + o[0].Loss
	}
	return s
}

// useful are the options of which none is both cheaper and loses less, least loss first.
func useful(list []Option) (out []kept) {
	for i, o := range list {
		out = append(out, kept{o, i})
	}
	slices.SortStableFunc(out, func(a, b kept) int { return cmp.Or(cmp.Compare(a.Loss, b.Loss), cmp.Compare(a.Cost, b.Cost)) })
	n := 0
	for _, o := range out {
		if n == 0 || o.Cost < out[n-1].Cost {
			out[n] = o
			n++
		}
	}
	return out[:n]
}

// hull are the steps down the convex hull of useful options.
func hull(list []kept) (out []step) {
	at := 0
	for at < len(list)-1 {
		best := at + 1
		for j := at + 2; j < len(list); j++ {
			if slope(list[at], list[j]) <= slope(list[at], list[best]) {
				best = j
			}
		}
		out = append(out, step{from: at, to: best, saves: list[at].Cost - list[best].Cost, loses: list[best].Loss - list[at].Loss})
		at = best
	}
	return out
}

func slope(a, b kept) float64 { return (b.Loss - a.Loss) / (a.Cost - b.Cost) }

// descend goes down the hulls by slope until the budget is met.
func (s *search) descend() {
	at, cost, loss := make([]int, len(s.options)), 0.0, 0.0
	for i := range s.options {
		cost += s.options[i][0].Cost
		loss += s.options[i][0].Loss
	}
	for _, st := range s.steps {
		if cost <= s.budget+tolerance(s.budget) {
			break
		}
		at[st.thing] = st.to
		cost -= st.saves
		loss += st.loses
	}
	copy(s.best, at)
	s.bestLoss = loss
	s.settle()
}

// settle writes the best as places in the lists that were given.
func (s *search) settle() {
	for i := range s.best {
		s.best[i] = s.options[i][s.best[i]].at
	}
}

// improve gives single things back what the budget leaves room for.
func (s *search) improve() {
	at := make([]int, len(s.options))
	cost := 0.0
	for i := range at {
		at[i] = slices.IndexFunc(s.options[i], func(o kept) bool { return o.at == s.best[i] })
		cost += s.options[i][at[i]].Cost
	}
	for {
		gain, thing, to := 0.0, -1, 0
		for i, list := range s.options {
			for j := range at[i] {
				if more := list[j].Cost - list[at[i]].Cost; cost+more <= s.budget+tolerance(s.budget) && list[at[i]].Loss-list[j].Loss > gain {
					gain, thing, to = list[at[i]].Loss-list[j].Loss, i, j
				}
			}
		}
		if thing < 0 {
			break
		}
		cost += s.options[thing][to].Cost - s.options[thing][at[thing]].Cost
		s.bestLoss -= gain
		at[thing] = to
	}
	for i := range at {
		s.best[i] = s.options[i][at[i]].at
	}
}

// bound is the least that things from a place in the order on can lose within what is left, were parts of steps possible.
func (s *search) bound(k int, left float64) float64 {
	cost, loss := 0.0, s.least[k]
	in := make([]bool, len(s.options))
	for _, i := range s.order[k:] {
		in[i] = true
		cost += s.options[i][0].Cost
	}
	if cost <= left {
		return loss
	}
	for _, st := range s.steps {
		if !in[st.thing] {
			continue
		}
		if cost-st.saves <= left {
			return loss + st.loses*(cost-left)/st.saves
		}
		cost -= st.saves
		loss += st.loses
	}
	return loss
}

func (s *search) branch(k int, cost, loss float64) {
	if s.given {
		return
	}
	if k == len(s.order) {
		if loss < s.bestLoss-1e-12*(1+math.Abs(s.bestLoss)) {
			s.bestLoss = loss
			for i := range s.now {
				s.best[i] = s.options[i][s.now[i]].at
			}
		}
		return
	}
	if s.nodes--; s.nodes < 0 {
		s.given = true
		return
	}
	if loss+s.bound(k, s.budget-cost) >= s.bestLoss-1e-12*(1+math.Abs(s.bestLoss)) {
		return
	}
	i := s.order[k]
	for j, o := range s.options[i] {
		if cost+o.Cost+s.cheapest[k+1] > s.budget+tolerance(s.budget) {
			continue
		}
		s.now[i] = j
		s.branch(k+1, cost+o.Cost, loss+o.Loss)
	}
}
