package rehearse

import (
	"cmp"
	"container/heap"
	"context"
)

// order is the order of events in a rehearsal.
func order(a, b Event) int {
	return cmp.Or(cmp.Compare(a.Start, b.Start), cmp.Compare(a.Channel, b.Channel), cmp.Compare(a.Source, b.Source), cmp.Compare(a.At,
		b.At), cmp.Compare(a.End, b.End))
}

// inOrder puts lists together, each of which is in order; of events that are alike those of the earlier list come first. It
// ends early with the context.
func inOrder(ctx context.Context, lists [][]Event) []Event {
	var fronts front
	n := 0
	for k, list := range lists {
		if len(list) > 0 {
			fronts = append(fronts, rest{list, k})
			n += len(list)
		}
	}
	heap.Init(&fronts)
	out := make([]Event, 0, n)
	for len(fronts) > 0 && !stopped(ctx, len(out)) {
		first := &fronts[0]
		out = append(out, first.events[0])
		if first.events = first.events[1:]; len(first.events) == 0 {
			heap.Pop(&fronts)
		} else {
			heap.Fix(&fronts, 0)
		}
	}
	return out
}

// rest is what is left of a list.
type rest struct {
	events []Event
	list   int
}

// front is a heap of lists by their first events.
type front []rest

func (f front) Len() int { return len(f) }
func (f front) Less(i, j int) bool {
	a, b := &f[i], &f[j]
	if a.events[0].Start != b.events[0].Start {
		return a.events[0].Start < b.events[0].Start
	}
	return cmp.Or(order(a.events[0], b.events[0]), cmp.Compare(a.list, b.list)) < 0
}
func (f front) Swap(i, j int) { f[i], f[j] = f[j], f[i] }
func (f *front) Push(x any)   { *f = append(*f, x.(rest)) }
func (f *front) Pop() any {
	old := *f
	last := old[len(old)-1]
	*f = old[:len(old)-1]
	return last
}
