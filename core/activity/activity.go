// Package activity says how often something happens, and which of it becomes a
// trigger.
//
// An activity is a Poisson process: its intensity λ(t) is constant within blocks
// of the week, and each event lasts an exponential time with a mean. Detection
// thins and delays it (see [Detection.Triggers]); the exponential having no memory,
// what is left is a process of the same kind.
package activity

import (
	"math"
	"sort"

	"wakefield.example/core/week"
)

// PerHour is a rate of events, in events an hour.
type PerHour = float64

// Process is a weekly repeating stream of events. The zero Process never happens.
type Process struct {
	Intensity Intensity
	Mean      float64 // seconds an event lasts on average, > 0
	Group     Group   // whether events come together
}

// New makes a process from a rate for every minute of the week.
func New(rate week.Steps[PerHour], meanSeconds float64) Process {
	in := Intensity{}
	for run, perHour := range rate.Runs() {
		in.edges = append(in.edges, float64(run.From)*60)
		in.rates = append(in.rates, perHour/3600)
	}
	return Process{Intensity: in, Mean: meanSeconds}
}

// Never tells whether the process has no events at all.
func (p Process) Never() bool {
	for _, r := range p.Intensity.rates {
		if r > 0 {
			return false
		}
	}
	return true
}

// PerDay is the mean number of events a day.
func (p Process) PerDay() float64 { return p.Intensity.Total() / 7 }

// Scale multiplies how often the events happen; what they last stays.
func (p Process) Scale(f float64) Process {
	rates := make([]float64, len(p.Intensity.rates))
	for i, r := range p.Intensity.rates {
		rates[i] = r * f
	}
	return Process{Intensity{p.Intensity.edges, rates}, p.Mean, p.Group}
}

// Equal tells whether two processes are the same.
func (p Process) Equal(q Process) bool {
	return p.Mean == q.Mean && p.Group == q.Group && p.Intensity.Equal(q.Intensity)
}

// Intensity is a rate in events a second, constant between edges, that repeats
// every week. Edges are seconds since Monday 00:00, ascending, the first at 0.
type Intensity struct{ edges, rates []float64 }

// Len is the number of constant pieces.
func (in Intensity) Len() int { return len(in.edges) }

// Piece returns where piece i starts, in seconds of the week, and its rate in
// events a second.
func (in Intensity) Piece(i int) (start, rate float64) { return in.edges[i], in.rates[i] }

// Index is the piece that holds second t of the week, 0 ≤ t < week.Seconds.
func (in Intensity) Index(t float64) int {
	return sort.Search(len(in.edges), func(i int) bool { return in.edges[i] > t }) - 1
}

// End is where piece i ends, in seconds of the week.
func (in Intensity) End(i int) float64 {
	if i+1 < len(in.edges) {
		return in.edges[i+1]
	}
	return week.Seconds
}

// At is the rate at second t of the week.
func (in Intensity) At(t float64) float64 {
	if len(in.edges) == 0 {
		return 0
	}
	return in.rates[in.Index(t)]
}

// Total is the expected number of events in a week.
func (in Intensity) Total() float64 { return in.upTo(week.Seconds) }

// Count is the expected number of events between seconds a and b, a ≤ b; both may
// lie outside the week, which repeats.
func (in Intensity) Count(a, b float64) float64 {
	return in.since(b) - in.since(a)
}

// since is the count from second 0 to t for any t, below 0 negative.
func (in Intensity) since(t float64) float64 {
	weeks := math.Floor(t / week.Seconds)
	return weeks*in.Total() + in.upTo(t-weeks*week.Seconds)
}

func (in Intensity) upTo(t float64) float64 {
	n := 0.0
	for i, from := range in.edges {
		if from >= t {
			break
		}
		n += in.rates[i] * (min(in.End(i), t) - from)
	}
	return n
}

// Equal tells whether two intensities are the same.
func (in Intensity) Equal(other Intensity) bool {
	if len(in.edges) != len(other.edges) {
		return false
	}
	for i := range in.edges {
		if in.edges[i] != other.edges[i] || in.rates[i] != other.rates[i] {
			return false
		}
	}
	return true
}
