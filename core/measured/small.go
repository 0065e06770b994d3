package measured

import (
	"math"
	"slices"

	"wakefield.example/core/activity"
)

// round rounds to whole steps.
func round(v, step float64) float64 { return math.Round(v/step) * step }

// expTail is the chance that something exponential is more than so many of its means.
func expTail(x float64) float64 { return math.Exp(-max(0, x)) }

// digits rounds to three digits.
func digits(v float64) float64 {
	if v == 0 || math.IsInf(v, 0) || math.IsNaN(v) {
		return v
	}
	step := math.Pow(10, 2-math.Floor(math.Log10(math.Abs(v))))
	return math.Round(v*step) / step
}

// sum adds up.
func sum(list []float64) (total float64) {
	for _, v := range list {
		total += v
	}
	return total
}

// sortEvents puts events into the order in which they begin.
func sortEvents(list []activity.Event) {
	slices.SortStableFunc(list, func(a, b activity.Event) int { return a.Start.Compare(b.Start) })
}
