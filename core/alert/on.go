package alert

import (
	"math"
	"slices"
)

// A Tie is some streams of triggers, and for how long each trigger holds.
type Tie struct {
	Streams []Stream
	Seconds float64
}

// holding is a tie with its streams put together.
type holding struct {
	flows   []flow
	seconds float64
}

// held puts ties together that hold equally long.
func held(ties []Tie) (out []holding) {
	at := make(map[float64]int)
	var all [][]Stream
	for i := range ties {
		k, ok := at[ties[i].Seconds]
		if !ok {
			k = len(out)
			at[ties[i].Seconds] = k
			out, all = append(out, holding{seconds: ties[i].Seconds}), append(all, nil)
		}
		all[k] = append(all[k], ties[i].Streams...)
	}
	for k := range out {
		out[k].flows = flows(all[k])
	}
	return out
}

// covered is the exponent of the chance that none of what holds does at t.
func covered(list []holding, t float64) (sum float64) {
	for i := range list {
		sum += list[i].covered(t)
	}
	return sum
}

func (h *holding) covered(t float64) (sum float64) {
	for k := range h.flows {
		sum += h.flows[k].expected(t, h.seconds)
	}
	return sum
}

func bends(list []holding) []float64 {
	var all []Stream
	for i := range list {
		all = append(all, streamsOf(list[i].flows)...)
	}
	return cuts(all, func(s *Stream) (out []float64) {
		for i := range list {
			out = append(out, list[i].seconds)
			if spread := s.spread(); spread > 0 {
				out = append(out, spread, list[i].seconds+spread)
			}
		}
		return out
	})
}

// Taken is the share of each hour in which any of some ties holds, every trigger holding it for its tie's seconds: p = 1 − exp(−Λ)
// as for footage, with nothing before a trigger and events of no length. And how often it begins to.
func Taken(ties []Tie) (share, begins Hours) {
	list := held(ties)
	type one struct {
		*flow
		alone float64
	}
	var all []one
	for i := range list {
		for k := range list[i].flows {
			f := &list[i].flows[k]
			all = append(all, one{f, f.alone(list[i].seconds)})
		}
	}
	both := integrate2(bends(list), func(t float64) (share, begins float64) {
		free := math.Exp(-covered(list, t))
		rate := 0.0
		for _, s := range all {
			rate += s.Rate.At(t) * s.alone
		}
		return 1 - free, rate * free
	})
	for k := range both[0] {
		both[0][k] /= 3600
	}
	return both[0], both[1]
}

// CutShort is how many showings of each hour are cut short, each lasting some seconds: a trigger of another tie comes before
// they are over.
func CutShort(ties [][]Stream, seconds float64) (cut Hours) {
	var all []Stream
	var own []alike
	for i := range ties {
		all = append(all, ties[i]...)
		own = count(own, ties[i], seconds)
	}
	every := holding{flows(all), seconds}
	bends := cuts(streamsOf(every.flows), func(s *Stream) []float64 {
		out := []float64{-seconds}
		if spread := s.spread(); spread > 0 {
			out = append(out, spread, spread-seconds)
		}
		return out
	})
	return integrate(bends, func(t float64) (rate float64) {
		after := wrap(t + seconds)
		others := every.covered(after)
		for i := range own {
			r := 0.0
			for k := range own[i].flows {
				r += own[i].flows[k].Rate.At(t)
			}
			if r > 0 {
				rate += own[i].times * r * -math.Expm1(-max(0, others-own[i].covered(after)))
			}
		}
		return rate
	})
}

// alike are ties that are alike, such as channels of one activity.
type alike struct {
	holding
	streams []Stream
	times   float64
}

// count adds a tie to those that it is like.
func count(list []alike, tie []Stream, seconds float64) []alike {
	for i := range list {
		if slices.EqualFunc(list[i].streams, tie, Stream.Equal) {
			list[i].times++
			return list
		}
	}
	return append(list, alike{holding{flows(tie), seconds}, tie, 1})
}
