package week

import (
	"iter"
	"slices"
	"sort"
)

// Step says that a value holds from a minute on.
type Step[T any] struct {
	From  Minute
	Value T
}

// Steps is a value for every minute of the week: sorted, the first step at minute
// 0, neighbours different. The zero Steps holds the zero value all week. Steps are
// values: no method changes its receiver.
type Steps[T comparable] []Step[T]

// Constant holds one value all week.
func Constant[T comparable](v T) Steps[T] { return Steps[T]{{0, v}} }

// At returns the value that holds at m.
func (s Steps[T]) At(m Minute) T {
	i := sort.Search(len(s), func(i int) bool { return s[i].From > m })
	if i == 0 {
		var zero T
		return zero
	}
	return s[i-1].Value
}

// Runs yields each stretch over which the value stays the same, in order.
func (s Steps[T]) Runs() iter.Seq2[Span, T] {
	return func(yield func(Span, T) bool) {
		if len(s) == 0 {
			var zero T
			yield(Whole, zero)
			return
		}
		for i, step := range s {
			to := Length
			if i+1 < len(s) {
				to = s[i+1].From
			}
			if !yield(Span{step.From, to}, step.Value) {
				return
			}
		}
	}
}

// Paint returns the steps with v over the span. A span outside the week changes
// nothing beyond its part inside.
func (s Steps[T]) Paint(over Span, v T) Steps[T] {
	over = Span{max(over.From, 0), min(over.To, Length)}
	if over.From >= over.To {
		return s
	}
	out := make(Steps[T], 0, len(s)+2)
	for run, value := range s.Runs() {
		if run.From < over.From {
			out = append(out, Step[T]{run.From, value})
		}
	}
	out = append(out, Step[T]{over.From, v})
	for run, value := range s.Runs() {
		if run.To > over.To {
			out = append(out, Step[T]{max(run.From, over.To), value})
		}
	}
	return slices.CompactFunc(out, func(a, b Step[T]) bool { return a.Value == b.Value })
}

// Map returns the steps of f(value); neighbours that become equal are joined.
func Map[T, U comparable](s Steps[T], f func(T) U) Steps[U] {
	out := make(Steps[U], 0, len(s))
	for run, v := range s.Runs() {
		if u := f(v); len(out) == 0 || out[len(out)-1].Value != u {
			out = append(out, Step[U]{run.From, u})
		}
	}
	return out
}

// Pair is two values that hold at the same time.
type Pair[A, B comparable] struct {
	A A
	B B
}

// Both is what two steps hold, minute by minute.
func Both[A, B comparable](a Steps[A], b Steps[B]) Steps[Pair[A, B]] {
	out := make(Steps[Pair[A, B]], 0, len(a)+len(b))
	i, j := 0, 0
	for at := Minute(0); at < Length; {
		next, pair := Length, Pair[A, B]{}
		for i+1 < len(a) && a[i+1].From <= at {
			i++
		}
		for j+1 < len(b) && b[j+1].From <= at {
			j++
		}
		if len(a) > 0 {
			pair.A = a[i].Value
		}
		if len(b) > 0 {
			pair.B = b[j].Value
		}
		if i+1 < len(a) {
			next = min(next, a[i+1].From)
		}
		if j+1 < len(b) {
			next = min(next, b[j+1].From)
		}
		out = append(out, Step[Pair[A, B]]{at, pair})
		at = next
	}
	return out
}

// And is when both hold. Where one of them holds always or never it may share the other's steps.
func And(a, b Steps[bool]) Steps[bool] {
	if len(b) == 1 {
		a, b = b, a
	}
	if len(a) == 1 && len(b) > 0 {
		if a[0].Value {
			return b
		}
		return a
	}
	return Map(Both(a, b), func(p Pair[bool, bool]) bool { return p.A && p.B })
}

// Or is when either holds, or both.
func Or(a, b Steps[bool]) Steps[bool] {
	return Map(Both(a, b), func(p Pair[bool, bool]) bool { return p.A || p.B })
}

// Share is the part of the week, 0 to 1, for which the value satisfies f.
func (s Steps[T]) Share(f func(T) bool) float64 {
	var n Minute
	for run, v := range s.Runs() {
		if f(v) {
			n += run.Minutes()
		}
	}
	return float64(n) / float64(Length)
}

// Repeated is a week all of whose days are like one.
func Repeated[T comparable](s Steps[T], day Weekday) Steps[T] {
	out := s
	for run, v := range s.Runs() {
		from, to := max(run.From, Minute(day)*Day), min(run.To, Minute(day+1)*Day)
		for d := Minute(0); from < to && d < 7; d++ {
			shift := (d - Minute(day)) * Day
			out = out.Paint(Span{From: from + shift, To: to + shift}, v)
		}
	}
	return out
}
