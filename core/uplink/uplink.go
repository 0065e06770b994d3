// Package uplink says how long what is copied off site waits for the uplink.
//
// Copies arrive as a fluid, so many kbit/s each minute of the week, and leave at the uplink's kbit/s in the hours in which it
// copies; what has not left is the backlog Q. The week repeats: Q is taken to the fixed point at which a week ends as it
// began. Where a week brings more than it can carry away there is none, and the backlog grows without end.
package uplink

import (
	"math"

	"wakefield/core/week"
)

// Kbits is an amount of data, 1,000 bits.
type Kbits = float64

// Queue is the backlog of a week.
type Queue struct {
	carries []float64     // kbit that can leave from the week's begin to each minute, and to its end
	backlog []Kbits       // at the begin of each minute
	turns   []week.Minute // where the wait can be longest: the backlog is at its height, or the uplink opens or closes
	Grows   bool          // without end
}

// New is the backlog of arrivals, kbit/s in each minute of the week, at an uplink of so many kbit/s, > 0, while it is open.
func New(arrives []float64, kbps float64, open week.Steps[bool]) *Queue {
	q := &Queue{carries: make([]float64, week.Length+1), backlog: make([]Kbits, week.Length)}
	for m := range week.Length {
		rate := 0.0
		if open.At(m) {
			rate = kbps
		}
		q.carries[m+1] = q.carries[m] + 60*rate
	}
	total := 0.0
	for _, a := range arrives {
		total += 60 * a
	}
	if q.Grows = total > q.carries[week.Length]*(1+1e-12); q.Grows {
		return q
	}
	now := 0.0
	for range 2 { // begun empty it is periodic from the second week on, as it is never less than it would be
		for m := range q.backlog {
			q.backlog[m] = now
			now = max(0, now+60*arrives[m]-(q.carries[m+1]-q.carries[m]))
		}
	}
	q.turns = []week.Minute{0}
	for m := range week.Length {
		before, after := (m+week.Length-1)%week.Length, (m+1)%week.Length
		height := q.backlog[m] > 0 && q.backlog[m] >= q.backlog[before] && q.backlog[m] > q.backlog[after]
		if height || open.At(m) != open.At(before) {
			q.turns = append(q.turns, m, after)
		}
	}
	return q
}

// Carries is what can leave in a week.
func (q *Queue) Carries() Kbits { return q.carries[week.Length] }

// Wait is the seconds until an amount that arrives at the begin of a minute has left, after all that is before it; infinite
// where it never does.
func (q *Queue) Wait(m week.Minute, size Kbits) float64 {
	if q.Grows {
		return math.Inf(1)
	}
	return q.leaves(m, q.backlog[m]+size)
}

// Idle is the seconds that an amount takes at so many kbit/s where nothing waits: the shortest that Wait can be.
func Idle(size Kbits, kbps float64) float64 { return size / kbps }

// leaves is the seconds from a minute on until an amount is carried away.
func (q *Queue) leaves(from week.Minute, amount Kbits) float64 {
	if amount <= 0 {
		return 0
	}
	whole := q.carries[week.Length]
	if whole == 0 {
		return math.Inf(1)
	}
	want := q.carries[from] + amount
	weeks := math.Floor(want / whole)
	if weeks > 0 && want == weeks*whole {
		weeks--
	}
	want -= weeks * whole
	low, high := 0, int(week.Length) // the first minute at whose end so much has left
	for low < high {
		if mid := (low + high) / 2; q.carries[mid+1] >= want-1e-9 {
			high = mid
		} else {
			low = mid + 1
		}
	}
	part := 0.0
	if rate := q.carries[low+1] - q.carries[low]; rate > 0 {
		part = max(0, want-q.carries[low]) / rate
	}
	return weeks*week.Seconds + 60*(float64(low)+part-float64(from))
}

// Worst is the longest that Wait is at any minute of the week.
func (q *Queue) Worst(size Kbits) (seconds float64, at week.Minute) {
	if q.Grows {
		return math.Inf(1), 0
	}
	for _, m := range q.turns {
		if w := q.Wait(m, size); w > seconds {
			seconds, at = w, m
		}
	}
	return seconds, at
}

// ByHour is the largest backlog of each hour of the week.
func (q *Queue) ByHour() (out [168]Kbits) {
	for m, b := range q.backlog {
		h := m / 60
		out[h] = max(out[h], b)
		if m%60 == 0 {
			last := (h + 167) % 168
			out[last] = max(out[last], b)
		}
	}
	return out
}
