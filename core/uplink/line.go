// Package uplink says when what is copied off site is safe there.
//
// Copies leave one behind the other, in the order in which they are written: a clip is sent when its last second has been
// recorded, and brings of its event's footage what no clip before it has brought. Waiting is that of a queue of clips, which is
// there long before a week brings more than the uplink carries; so happenings are played over many weeks, always the same ones.
package uplink

import (
	"sort"

	"wakefield.example/core/week"
)

// Kbit is an amount of data, 1,000 bits.
type Kbit = float64

// Line carries so many kbit/s while it is open. Times are seconds since the begin of a week; weeks repeat.
type Line struct {
	kbps float64
	open []float64 // seconds open from the begin of the week to each minute, and to its end; nil where it always is
}

// instant, in seconds, is what takes no time: less than a moment of several weeks can be told apart by.
const instant = 1e-9

// NewLine is a line of so many kbit/s, > 0, in some hours.
func NewLine(kbps float64, open week.Steps[bool]) *Line {
	l := &Line{kbps: kbps}
	if len(open) == 1 && open[0].Value {
		return l
	}
	l.open = make([]float64, week.Length+1)
	for m := range week.Length {
		l.open[m+1] = l.open[m]
		if open.At(m) {
			l.open[m+1] += 60
		}
	}
	return l
}

// Carries is what can leave in a week.
func (l *Line) Carries() Kbit {
	if l.open == nil {
		return l.kbps * week.Seconds
	}
	return l.kbps * l.open[week.Length]
}

// After is when an amount that begins to be sent at a moment has left; the moment itself where it is nothing. The line must be
// open at some time.
func (l *Line) After(at float64, amount Kbit) float64 {
	if amount <= instant*l.kbps {
		return at
	}
	if l.open == nil {
		return at + amount/l.kbps
	}
	whole := l.open[week.Length]
	want := l.until(at) + amount/l.kbps
	weeks := float64(int(want / whole))
	if want -= weeks * whole; want == 0 {
		weeks--
		want = whole
	}
	m := sort.Search(int(week.Length), func(m int) bool { return l.open[m+1] >= want })
	return max(at, weeks*week.Seconds+60*float64(m)+want-l.open[m])
}

// Between is what can leave from one moment to a later one.
func (l *Line) Between(from, to float64) Kbit {
	if to <= from {
		return 0
	}
	return l.kbps * (l.until(to) - l.until(from))
}

// until is for how long the line has been open since the begin of the first week.
func (l *Line) until(at float64) float64 {
	if l.open == nil {
		return at
	}
	weeks := float64(int(at / week.Seconds))
	in := at - weeks*week.Seconds
	m := min(int(in/60), int(week.Length)-1)
	seconds := l.open[m]
	if l.open[m+1] > seconds {
		seconds += in - 60*float64(m)
	}
	return weeks*l.open[week.Length] + seconds
}
