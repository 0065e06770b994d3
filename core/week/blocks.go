package week

import (
	"cmp"
	"math"
	"slices"
)

// Block is a value over some hours, as written in a plan file. In a list of blocks
// a later one covers an earlier one.
type Block[T any] struct {
	Hours
	Value T
}

// FromBlocks lays blocks over a value that holds otherwise.
func FromBlocks[T comparable](otherwise T, blocks []Block[T]) Steps[T] {
	if len(blocks) <= 8 {
		s := Constant(otherwise)
		for _, b := range blocks {
			for _, span := range b.Spans() {
				s = s.Paint(span, b.Value)
			}
		}
		return s
	}
	if s, ok := inOrder(otherwise, blocks); ok {
		return s
	}
	// Which block is on top at each minute: quicker than painting one after the
	// other where there is one for every hour.
	var top [Length]int16
	if len(blocks) > math.MaxInt16 {
		blocks = blocks[len(blocks)-math.MaxInt16:]
	}
	for i, b := range blocks {
		for _, span := range b.Spans() {
			over := top[span.From:span.To]
			for m := range over {
				over[m] = int16(i + 1)
			}
		}
	}
	value := func(m int) T {
		if top[m] == 0 {
			return otherwise
		}
		return blocks[top[m]-1].Value
	}
	s := Constant(value(0))
	for m := 1; m < len(top); m++ {
		if top[m] != top[m-1] {
			if v := value(m); v != s[len(s)-1].Value {
				s = append(s, Step[T]{Minute(m), v})
			}
		}
	}
	return s
}

// inOrder lays blocks that follow one another and never cover each other, as a week
// written hour by hour does.
func inOrder[T comparable](otherwise T, blocks []Block[T]) (Steps[T], bool) {
	s := make(Steps[T], 0, len(blocks)+2)
	add := func(from Minute, v T) {
		if n := len(s); n == 0 || s[n-1].Value != v {
			s = append(s, Step[T]{from, v})
		}
	}
	until := Minute(0)
	for _, b := range blocks {
		for _, span := range b.Spans() {
			if span.From < until {
				return nil, false
			}
			if span.From > until {
				add(until, otherwise)
			}
			add(span.From, b.Value)
			until = span.To
		}
	}
	if until < Length {
		add(until, otherwise)
	}
	return s, true
}

// Blocks writes the steps as the fewest blocks a person would write: stretches of
// a day, alike days together, a night as one block over midnight. Blocks of the
// result never cover each other, and FromBlocks gives the steps back.
func (s Steps[T]) Blocks(otherwise T) []Block[T] {
	var blocks []Block[T]
	add := func(d Weekday, from, to Clock, v T) {
		i := slices.IndexFunc(blocks, func(b Block[T]) bool { return b.From == from && b.To == to && b.Value == v })
		if i < 0 {
			blocks = append(blocks, Block[T]{Hours{nil, from, to}, v})
			i = len(blocks) - 1
		}
		blocks[i].Days = append(blocks[i].Days, d)
	}
	for _, r := range s.cyclicRuns(otherwise) {
		from, to := r.From, r.To
		if length := to - from; length < Day && from/Day != (to-1)/Day {
			add(from.Weekday(), from.Clock(), (to % Length).Clock(), r.value)
			continue
		}
		for from < to {
			day := (from % Length).Weekday()
			end := min(to, (from/Day+1)*Day)
			add(day, from.Clock(), Clock(end-from/Day*Day), r.value)
			from = end
		}
	}
	for i := range blocks {
		slices.Sort(blocks[i].Days)
	}
	slices.SortStableFunc(blocks, func(a, b Block[T]) int {
		return cmp.Or(cmp.Compare(a.Days[0], b.Days[0]), cmp.Compare(a.From, b.From))
	})
	return blocks
}

type run[T any] struct {
	Span
	value T
}

// cyclicRuns lists the runs that differ from otherwise. A run that ends the week
// and goes on with Monday's first comes as one, its end beyond Length.
func (s Steps[T]) cyclicRuns(otherwise T) []run[T] {
	var all []run[T]
	for span, v := range s.Runs() {
		all = append(all, run[T]{span, v})
	}
	if n := len(all); n > 1 && all[0].value == all[n-1].value && all[0].To+all[n-1].Minutes() < Day {
		all[n-1].To += all[0].To
		all = all[1:]
	}
	return slices.DeleteFunc(all, func(r run[T]) bool { return r.value == otherwise })
}
