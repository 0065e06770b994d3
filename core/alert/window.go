package alert

import "math"

// expected is the exponent of the chance that no trigger of a stream falls into a window of some length that ends at t.
// Single triggers: their number. Groups: that of groups of which at least one trigger falls into it,
//
//	∫ b(u)·P(overlap of the window and the group that begins at u) du,  P(x) = 1 − (1 − q·x)·exp(−(n−1)·q·x)
//
// with groups that begin at rate b, n events spread over s seconds, the chance q, and x the share of s in the window.
func (s *flow) expected(t, length float64) float64 {
	if !s.grouped() {
		return s.since(t) - s.since(t-length)
	}
	spread, total := s.Group.Seconds, 0.0
	reach := length + spread
	begin := 1 / (s.Group.Size * s.Chance) // groups that begin for each trigger
	to := t
	for to > t-reach+1e-9 { // piece by piece, backward
		at := wrap(to - 1e-9)
		start, rate := s.Rate.Piece(s.Rate.Index(at))
		from := max(t-reach, to-1e-9-(at-start))
		if rate > 0 {
			total += rate * begin * (s.kernel(t-from, length) - s.kernel(t-to, length))
		}
		to = min(from, to-1e-6)
	}
	return total
}

// kernel is the integral of P over groups that began from v seconds before the window's end until that.
func (s *Stream) kernel(v, length float64) float64 {
	spread := s.Group.Seconds
	low, high := min(spread, length), max(spread, length)
	v = min(v, low+high)
	total := s.ramp(min(v, low))
	if v > low {
		total += (min(v, high) - low) * s.any(low/spread)
	}
	if v > high {
		total += s.ramp(low) - s.ramp(low+high-v)
	}
	return total
}

// any is the chance that a group has a trigger in a share x of its length.
func (s *Stream) any(x float64) float64 {
	q := s.Chance
	return 1 - (1-q*x)*math.Exp(-(s.Group.Size-1)*q*x)
}

// ramp is the integral of any over an overlap that grows from 0 to y seconds.
func (s *Stream) ramp(y float64) float64 {
	c := s.Chance / s.Group.Seconds
	m := (s.Group.Size - 1) * c
	if m*y < 1e-4 { // 1 − (1 − c·y)·exp(−m·y) is nearly straight
		return y * y / 2 * (c + m)
	}
	e := math.Exp(-m * y)
	return y - (1-e)/m + c*(1-e*(1+m*y))/(m*m)
}

// alone is the chance that, of the group that a trigger belongs to, no other falls into a window of some length before it.
func (s *Stream) alone(length float64) float64 {
	if !s.grouped() {
		return 1
	}
	n, q := s.Group.Size, s.Chance
	none := func(x float64) float64 { // in a share x: by the rest of the group, the trigger being any of it
		return math.Exp(-(n-1)*q*x) * (1/n + (1-1/n)*(1-q*x))
	}
	x := min(1, length/s.Group.Seconds)
	total := (1 - x) * none(x) // those late enough for the window to lie within the group
	for _, g := range gauss {
		total += x * g[1] * none(x*g[0])
	}
	return total
}
