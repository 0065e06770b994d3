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
