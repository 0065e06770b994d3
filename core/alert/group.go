package alert

import "math"

// again is how many times more a group goes out that has gone out once and comes by itself; and the hazard of that for each
// second that is left of the group: it falls evenly to the group's end.
func (s *Stream) again(interval float64) (times, hazard float64) {
	left := s.spread() - interval
	if left <= 0 {
		return 0, 0
	}
	times = max(0, s.isolated(interval)/s.any(1)-1)
	return times, math.Log1p(times) / (left * left / 2)
}

// isolated is how many times a group goes out that comes by itself. With m the mean number of triggers beside its first
// event, E(m) how many of Poisson(m) triggers go out, and q the chance of the first event: E(m) + q·E′(m).
func (s *Stream) isolated(interval float64) float64 {
	if !s.grouped() {
		return 1
	}
	q := s.Chance
	m := (s.Group.Size - 1) * q
	if interval >= s.Group.Seconds {
		return s.any(1)
	}
	const small = 1e-3
	slope := (ofGroup(m*(1+small), s.Group.Seconds, interval) - ofGroup(m*(1-small), s.Group.Seconds, interval)) / (2 * small * m)
	return ofGroup(m, s.Group.Seconds, interval) + q*slope
}

// ofGroup is how many of m triggers spread evenly over a length go out, at most one in an interval.
func ofGroup(m, length, interval float64) float64 {
	rate := m / length
	if length > 500*interval {
		return m / (1 + rate*interval)
	}
	const parts = 32
	cell, total, free := interval/parts, 0.0, 1.0
	var sent [parts]float64
	for k := 0; float64(k)*cell < length; k++ {
		a := rate * min(cell, length-float64(k)*cell)
		stay, kept := math.Exp(-a), 1.0
		if a > 1e-9 {
			kept = (1 - stay) / a
		}
		freed := sent[k%parts]
		out := free*(1-stay) + freed*(1-kept)
		free += freed - out
		sent[k%parts] = out
		total += out
	}
	return total
}
