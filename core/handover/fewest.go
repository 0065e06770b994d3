package handover

import (
	"math"
	"slices"
)

// section is one thing that several channels are to have, each its own of it: their weeks, their streams.
type section struct {
	targets [][]string                                         // what is wanted, each once, place by place: days, or values
	alike   []int                                              // how many channels want each
	root    []string                                           // what recorders are delivered with
	entries func(from, to []string) int                        // to type one where another stands
	between func(targets [][]string, root []string) [][]string // nil, or states that may stand on the way to several
	copies  bool                                               // whether the recorder copies it from channel to channel
}

// node is a state that some channel has for a while or for good, and what it is made from.
type node struct {
	state  []string
	target int // index of the target; -1 for a state that only stands on the way to others
	parent int // index of the node that it is made from; -1 for the state in which recorders are delivered
	copied bool
}

// exactly is up to how many states the order is searched exactly.
const exactly = 12

// fewest finds how the targets are made with the fewest entries: which from which, typing what differs. All copies of one state
// are made at one time and are one entry. It is a least arborescence with a price of one entry for every state that is copied
// from: exact up to twelve states, by bounds over which of them are copied from; beyond that improved from one that is good.
// States between three others can stand on the way. It returns the nodes and how many entries they take.
func (s *section) fewest() (nodes []node, entries int) {
	for i, t := range s.targets {
		nodes = append(nodes, node{state: t, target: i, parent: -1})
	}
	if !s.copies {
		for i, t := range s.targets {
			entries += s.alike[i] * s.entries(s.root, t)
		}
		return nodes, entries
	}
	states := slices.Clone(s.targets)
	t := newTree(s, states, nil)
	copied := t.search()
	if s.between != nil && len(s.targets) > 1 && len(s.targets) < exactly {
		states, t, copied = s.onTheWay(states, t, copied)
	}
	parents, cost := t.arborescence(copied)
	nodes = nil
	index := make([]int, len(states))
	for i := range states {
		index[i] = -1
		if i < len(s.targets) || copied[i] {
			index[i] = len(nodes)
			n := node{state: states[i], target: -1, copied: copied[i]}
			if i < len(s.targets) {
				n.target = i
			}
			nodes = append(nodes, n)
		}
	}
	for i, p := range parents {
		if index[i] >= 0 {
			nodes[index[i]].parent = -1
			if p >= 0 {
				nodes[index[i]].parent = index[p]
			}
		}
	}
	for i := range states {
		if copied[i] {
			cost++
		}
	}
	return nodes, cost
}

// onTheWay adds states that stand on the way to several, one after the other, as long as one saves entries.
func (s *section) onTheWay(states [][]string, t *tree, copied []bool) ([][]string, *tree, []bool) {
	pool := s.between(s.targets, s.root)
	for len(states) < exactly {
		var better []string
		base := t
		for _, m := range pool {
			if slices.ContainsFunc(states, func(o []string) bool { return slices.Equal(o, m) }) {
				continue
			}
			with := append(states[:len(states):len(states)], m)
			next := newTree(s, with, base)
			if c := next.search(); next.best < t.best {
				better, t, copied = m, next, c
			}
		}
		if better == nil {
			break
		}
		states = append(states[:len(states):len(states)], better)
	}
	return states, t, copied
}

// middles are, place by place, what two of three states have: the targets and the one of delivery.
func middles(targets [][]string, root []string) (out [][]string) {
	all := append(slices.Clone(targets), root)
	for c := range all {
		for b := range c {
			for a := range b {
				out = append(out, majority(all[a], all[b], all[c]))
			}
		}
	}
	return out
}

// mostMixtures of weeks are tried on the way to others.
const mostMixtures = 300

// mixtures are weeks of the days that several have, days alike that are alike in all of them; middles where that is too many.
func mixtures(targets [][]string, root []string) (out [][]string) {
	all := append(slices.Clone(targets), root)
	var kinds []string
	var columns [][]int
	for k := range root {
		same := slices.IndexFunc(columns, func(c []int) bool {
			return !slices.ContainsFunc(all, func(w []string) bool { return w[c[0]] != w[k] })
		})
		if same >= 0 {
			columns[same] = append(columns[same], k)
		} else {
			columns = append(columns, []int{k})
		}
		for _, w := range all {
			if !slices.Contains(kinds, w[k]) {
				kinds = append(kinds, w[k])
			}
		}
	}
	many := 1
	for range columns {
		if many *= len(kinds); many > mostMixtures {
			return middles(targets, root)
		}
	}
	for n := range many {
		w := slices.Clone(root)
		for _, column := range columns {
			for _, k := range column {
				w[k] = kinds[n%len(kinds)]
			}
			n /= len(kinds)
		}
		out = append(out, w)
	}
	return out
}

// tree searches which states are copied from.
type tree struct {
	targets int
	root    []int   // entries from the state of delivery
	cost    [][]int // entries from one to another
	forced  []bool  // copied to channels that are alike, whatever else
	best    int
	copied  []bool
}

// newTree prices the states; those that an earlier tree has come first, and are priced there.
func newTree(s *section, states [][]string, earlier *tree) *tree {
	n, known := len(states), 0
	t := &tree{targets: len(s.targets), root: make([]int, n), cost: make([][]int, n), forced: make([]bool, n)}
	if earlier != nil {
		known = len(earlier.root)
	}
	for i := range states {
		t.cost[i] = make([]int, n)
		if i < known {
			t.root[i] = earlier.root[i]
			copy(t.cost[i], earlier.cost[i])
		} else {
			t.root[i] = s.entries(s.root, states[i])
		}
		for j := range states {
			if i != j && (i >= known || j >= known) {
				t.cost[i][j] = s.entries(states[i], states[j])
			}
		}
		t.forced[i] = i < t.targets && s.alike[i] > 1 && t.root[i] > 0
	}
	return t
}

// search finds which states are copied from.
func (t *tree) search() []bool {
	t.best = math.MaxInt
	t.improve()
	if len(t.root) <= exactly {
		may := make([]bool, len(t.root))
		for i := range may {
			may[i] = true
		}
		t.branch(0, slices.Clone(t.forced), may)
	}
	return t.copied
}

// total is what it takes where these are copied from.
func (t *tree) total(copied []bool) int {
	_, cost := t.arborescence(copied)
	for _, c := range copied {
		if c {
			cost++
		}
	}
	return cost
}

func (t *tree) take(copied []bool) bool {
	if c := t.total(copied); c < t.best {
		t.best, t.copied = c, slices.Clone(copied)
		return true
	}
	return false
}

// improve begins with the states that are copied anyway, and lets others join or leave while that saves entries.
func (t *tree) improve() {
	copied := slices.Clone(t.forced)
	t.take(copied)
	for better := true; better; {
		better = false
		for i := range copied {
			if t.forced[i] {
				continue
			}
			copied[i] = !copied[i]
			if t.bound(copied, copied) < t.best && t.take(copied) {
				better = true
			} else {
				copied[i] = !copied[i]
			}
		}
	}
}

// branch decides state by state whether it is copied from, where that can still be better than the best.
func (t *tree) branch(k int, copied, may []bool) {
	if t.bound(copied, may) >= t.best {
		return
	}
	if k == len(copied) {
		t.take(copied)
		return
	}
	if copied[k] {
		t.branch(k+1, copied, may)
		return
	}
	copied[k] = true
	t.branch(k+1, copied, may)
	copied[k], may[k] = false, false
	t.branch(k+1, copied, may)
	may[k] = true
}

// bound is the least that it can take: every state that must be made is made from the nearest that may be copied from.
func (t *tree) bound(copied, may []bool) (sum int) {
	for v := range t.root {
		if copied[v] {
			sum++
		}
		if v >= t.targets && !copied[v] {
			continue
		}
		least := t.root[v]
		for u := range t.root {
			if u != v && may[u] {
				least = min(least, t.cost[u][v])
			}
		}
		sum += least
	}
	return sum
}

// arborescence is the least one over the targets and the states that are copied from (Chu and Liu, Edmonds), in which only those
// have any made from them.
func (t *tree) arborescence(copied []bool) (parents []int, cost int) {
	parents = make([]int, len(t.root))
	var in []int
	for v := range t.root {
		parents[v] = -1
		if v < t.targets || copied[v] {
			in = append(in, v)
		}
	}
	var edges []arc
	for k, v := range in {
		edges = append(edges, arc{from: 0, to: k + 1, cost: t.root[v]})
		for j, u := range in {
			if u != v && copied[u] && t.cost[u][v] < t.root[v] {
				edges = append(edges, arc{from: j + 1, to: k + 1, cost: t.cost[u][v]})
			}
		}
	}
	for i := range edges {
		edges[i].id = i
	}
	for _, id := range leastArborescence(len(in)+1, edges) {
		cost += edges[id].cost
		if from := edges[id].from; from > 0 {
			parents[in[edges[id].to-1]] = in[from-1]
		}
	}
	return parents, cost
}

type arc struct{ from, to, cost, id int }

// leastArborescence picks, of arcs between n places, those of the least sum by which every place is reached from place 0; their
// ids. Circles of cheapest arcs are drawn together until there are none.
func leastArborescence(n int, arcs []arc) []int {
	into := cheapestInto(n, arcs)
	group, inCircle, groups := circlesOf(into, arcs)
	if groups == 0 {
		out := make([]int, 0, n)
		for v := 1; v < n; v++ {
			out = append(out, arcs[into[v]].id)
		}
		return out
	}
	groups = drawnTogether(group, groups)
	var next []arc
	var back []int // index of the arc that each came from
	for i, a := range arcs {
		if group[a.from] == group[a.to] || a.to == 0 {
			continue
		}
		cost := a.cost
		if inCircle[a.to] {
			cost -= arcs[into[a.to]].cost
		}
		next = append(next, arc{group[a.from], group[a.to], cost, len(back)})
		back = append(back, i)
	}
	taken := make([]bool, n)
	var out []int
	for _, k := range leastArborescence(groups, next) {
		i := back[k]
		out = append(out, arcs[i].id)
		taken[arcs[i].to] = true
	}
	for v := 1; v < n; v++ {
		if inCircle[v] && !taken[v] {
			out = append(out, arcs[into[v]].id)
		}
	}
	return out
}

// cheapestInto is, for every place but 0, the index of the cheapest arc that leads to it.
func cheapestInto(n int, arcs []arc) []int {
	into := make([]int, n)
	for v := range into {
		into[v] = -1
	}
	for i, a := range arcs {
		if a.to != 0 && a.from != a.to && (into[a.to] < 0 || a.cost < arcs[into[a.to]].cost) {
			into[a.to] = i
		}
	}
	return into
}

// circlesOf numbers the circles that the cheapest arcs make, and tells which of them each place is in; −1 for none.
func circlesOf(into []int, arcs []arc) (group []int, inCircle []bool, circles int) {
	n := len(into)
	group, inCircle = make([]int, n), make([]bool, n)
	seen := make([]int, n) // on the way from which place
	for v := range group {
		group[v], seen[v] = -1, -1
	}
	for v := 1; v < n; v++ {
		u := v
		for u != 0 && seen[u] < 0 {
			seen[u] = v
			u = arcs[into[u]].from
		}
		if u == 0 || seen[u] != v || group[u] >= 0 {
			continue
		}
		for w := u; ; {
			group[w], inCircle[w] = circles, true
			if w = arcs[into[w]].from; w == u {
				break
			}
		}
		circles++
	}
	return group, inCircle, circles
}

// drawnTogether gives every place outside of circles a number of its own after theirs, and place 0 the number 0. It returns
// how many numbers there are.
func drawnTogether(group []int, circles int) (groups int) {
	groups = circles
	for v := range group {
		if group[v] < 0 {
			group[v] = groups
			groups++
		}
	}
	if zero := group[0]; zero != 0 {
		for v := range group {
			switch group[v] {
			case zero:
				group[v] = 0
			case 0:
				group[v] = zero
			}
		}
	}
	return groups
}
