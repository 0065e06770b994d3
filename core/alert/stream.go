// Package alert works out what triggers do beside recording: how often messages go out that are sent at most so often,
// how long outputs are on, monitors taken and movable cameras away, all by hour of the week.
//
// Times are seconds. A stream of triggers repeats every week; triggers come independently of each other, or in groups as
// [activity.Group] says. An effect knows nothing of how long the events last: only when triggers begin.
package alert

import (
	"math"
	"slices"

	"wakefield.example/core/activity"
	"wakefield.example/core/week"
)

// Stream is a stream of triggers.
type Stream struct {
	Rate   activity.Intensity // triggers a second
	Group  activity.Group     // how the events come that they are made of
	Chance float64            // that an event of a group becomes a trigger, > 0 to 1
}

// Equal tells whether two streams are the same.
func (s Stream) Equal(o Stream) bool {
	return s.Group == o.Group && s.Chance == o.Chance && s.Rate.Equal(o.Rate)
}

func (s *Stream) grouped() bool { return s.Group.Grouped() && s.Chance > 0 }

// spread is over how long the triggers of a group are spread; 0 for single ones.
func (s *Stream) spread() float64 {
	if s.grouped() {
		return s.Group.Seconds
	}
	return 0
}

// Hours is an amount for each hour of the week, Monday 00:00 to 01:00 first.
type Hours [168]float64

// PerDay is the mean of a day.
func (h *Hours) PerDay() (n float64) {
	for _, v := range h {
		n += v / 7
	}
	return n
}

// Mean is the mean over the week.
func (h *Hours) Mean() float64 { return h.PerDay() / 24 }

// Triggers is how many triggers some streams have in each hour.
func Triggers(streams []Stream) (h Hours) {
	list := flows(streams)
	for i := range list {
		for k := range h {
			h[k] += list[i].since(3600*float64(k+1)) - list[i].since(3600*float64(k))
		}
	}
	return h
}

// cuts are the seconds of the week at which something about streams may bend: where a rate changes, and some lengths after
// that; and the hours.
func cuts(streams []Stream, after func(s *Stream) []float64) []float64 {
	out := changes(streams, after)
	for k := range 168 {
		out = append(out, 3600*float64(k))
	}
	slices.Sort(out)
	return append(slices.Compact(out), week.Seconds)
}

// changes are those without the hours, in no order.
func changes(streams []Stream, after func(s *Stream) []float64) (out []float64) {
	for i := range streams {
		s := &streams[i]
		for p := range s.Rate.Len() {
			from, _ := s.Rate.Piece(p)
			out = append(out, from)
			for _, length := range after(s) {
				out = append(out, wrap(from+length))
			}
		}
	}
	return out
}

func wrap(t float64) float64 {
	if t = math.Mod(t, week.Seconds); t < 0 {
		t += week.Seconds
	}
	return t
}

// Nodes and weights of Gauss and Legendre on 0 to 1, exact for polynomials of degree 9.
var gauss = [5][2]float64{{0.046910077030668, 0.118463442528095}, {0.230765344947158, 0.239314335249683}, {0.5, 0.284444444444444},
	{0.769234655052842, 0.239314335249683}, {0.953089922969332, 0.118463442528095}}

// Those of degree 5, for what is cut wherever it bends.
var short = [3][2]float64{{0.112701665379258, 0.277777777777778}, {0.5, 0.444444444444444}, {0.887298334620742, 0.277777777777778}}

// integrate adds the integral of f over every hour, between cuts.
func integrate(cuts []float64, f func(t float64) float64) Hours {
	return integrate2(cuts, func(t float64) (a, b float64) { return f(t), 0 })[0]
}

// integrate2 does the same of two functions that are found together.
func integrate2(cuts []float64, f func(t float64) (a, b float64)) (h [2]Hours) {
	for i := 1; i < len(cuts); i++ {
		from, length := cuts[i-1], cuts[i]-cuts[i-1]
		hour := min(167, int(from/3600))
		for _, g := range short {
			a, b := f(from + g[0]*length)
			h[0][hour] += g[1] * a * length
			h[1][hour] += g[1] * b * length
		}
	}
	return h
}
