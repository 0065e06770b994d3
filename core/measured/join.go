package measured

import (
	"math"

	"wakefield.example/core/activity"
)

// apart is the share of events of a group, each of which goes on for some seconds, that begin while no other of the group goes on;
// 1 where events come singly. Of n = 1 + Poisson(ν) events spread over s, another one began before and goes on with the chance
//
//	q = D/s − (D/s)²(1 − e^(−s/D))
//
// and none of the others of an event's group, who are m with probability n·P(n)/E n, n = m + 1, does with that of
// e^(−νq)(1 + ν(1 − q))/(1 + ν).
func apart(g activity.Group, seconds float64) float64 {
	if !g.Grouped() || seconds <= 0 {
		return 1
	}
	nu, x := g.Size-1, seconds/g.Seconds
	q := x - x*x*(-math.Expm1(-1/x))
	return math.Exp(-nu*q) * (1 + nu*(1-q)) / (1 + nu)
}

// union is the share of the seconds of a group's events that is left where those that overlap count once, each of which goes on for
// clip seconds and an exponential time with a mean beyond; 1 where events come singly. A moment t after the group began is covered
// by one event with the chance p(t), and by none of 1 + Poisson(ν) with (1 − p)·e^(−νp).
func union(g activity.Group, clip, mean float64) float64 {
	if !g.Grouped() || clip+mean <= 0 {
		return 1
	}
	nu := g.Size - 1
	lasting := func(x float64) float64 { // ∫ of the chance that an event goes on for more than x, from 0 on
		if x <= 0 {
			return 0
		}
		return min(x, clip) + mean*-math.Expm1(-max(0, x-clip)/max(mean, 1e-9))
	}
	covered := func(t float64) float64 {
		p := (lasting(t) - lasting(t-g.Seconds)) / g.Seconds
		return 1 - (1-p)*math.Exp(-nu*p)
	}
	// The middle of even steps: over the time in which events begin, and over that in which the last of them end.
	sum := 0.0
	const steps = 16
	for k := range steps {
		at := (float64(k) + 0.5) / steps
		sum += g.Seconds / steps * covered(at*g.Seconds)
		sum += (clip + 6*mean) / steps * covered(g.Seconds+at*(clip+6*mean))
	}
	return min(1, sum/(g.Size*(clip+mean)))
}

// dispersion is the variance of how many events there are over their mean, where they come in groups of which a share is noticed:
// E n²/E n of n = 1 + Poisson(ν), thinned.
func dispersion(g activity.Group, share float64) float64 {
	if !g.Grouped() {
		return 1
	}
	nu := g.Size - 1
	others := (nu*nu + 2*nu) / (1 + nu) // of its group that an event has
	return 1 + share*others
}
