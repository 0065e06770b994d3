package alert

import "math"

// A Tie is some streams of triggers, and for how long each trigger holds.
type Tie struct {
	Streams []Stream
	Seconds float64
}

// covered is the exponent of the chance that none of some ties holds at t.
func covered(ties []Tie, t float64) (sum float64) {
	for i := range ties {
		for k := range ties[i].Streams {
			sum += ties[i].Streams[k].expected(t, ties[i].Seconds)
		}
	}
	return sum
}

func bends(ties []Tie) []float64 {
	var all []Stream
	lengths := make(map[float64]bool)
	for i := range ties {
		all = append(all, ties[i].Streams...)
		lengths[ties[i].Seconds] = true
	}
	return cuts(all, func(s *Stream) (out []float64) {
		for l := range lengths {
			out = append(out, l)
			if spread := s.spread(); spread > 0 {
				out = append(out, spread, l+spread)
			}
		}
		return out
	})
}

// Taken is the share of each hour in which any of some ties holds, every trigger holding it for its tie's seconds: p = 1 − exp(−Λ)
// as for footage, with nothing before a trigger and events of no length. And how often it begins to.
func Taken(ties []Tie) (share, begins Hours) {
	bends := bends(ties)
	share = integrate(bends, func(t float64) float64 { return -math.Expm1(-covered(ties, t)) })
	for k := range share {
		share[k] /= 3600
	}
	type stream struct {
		*Stream
		alone float64
	}
	var streams []stream
	for i := range ties {
		for k := range ties[i].Streams {
			s := &ties[i].Streams[k]
			streams = append(streams, stream{s, s.alone(ties[i].Seconds)})
		}
	}
	begins = integrate(bends, func(t float64) (rate float64) {
		for _, s := range streams {
			if r := s.Rate.At(t); r > 0 {
				rate += r * s.alone
			}
		}
		if rate == 0 {
			return 0
		}
		return rate * math.Exp(-covered(ties, t))
	})
	return share, begins
}

// CutShort is how many showings of each hour are cut short: another tie's trigger comes before their tie's seconds are
// over.
func CutShort(ties []Tie) (cut Hours) {
	for i := range ties {
		others := append(append([]Tie{}, ties[:i]...), ties[i+1:]...)
		for k := range others {
			others[k].Seconds = ties[i].Seconds
		}
		bends := cutsBefore(ties, ties[i].Seconds)
		one := integrate(bends, func(t float64) (rate float64) {
			for k := range ties[i].Streams {
				rate += ties[i].Streams[k].Rate.At(t)
			}
			if rate == 0 {
				return 0
			}
			return rate * -math.Expm1(-covered(others, wrap(t+ties[i].Seconds)))
		})
		for k := range cut {
			cut[k] += one[k]
		}
	}
	return cut
}

// cutsBefore are the bends of what is asked a length ahead.
func cutsBefore(ties []Tie, length float64) []float64 {
	var all []Stream
	for i := range ties {
		all = append(all, ties[i].Streams...)
	}
	return cuts(all, func(s *Stream) []float64 {
		out := []float64{-length}
		if spread := s.spread(); spread > 0 {
			out = append(out, spread, spread-length)
		}
		return out
	})
}
