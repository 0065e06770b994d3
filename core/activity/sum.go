package activity

import "slices"

// Sum is all of some intensities together.
func Sum(list []Intensity) Intensity {
	if len(list) == 1 {
		return list[0]
	}
	// Those of one activity change at the same times, and are added rate by rate.
	type times struct {
		first *float64
		len   int
	}
	at := make(map[times]int)
	var apart []Intensity
	own := make([]bool, 0, 8) // whether the rates may be written to
	for _, in := range list {
		if len(in.edges) == 0 {
			continue
		}
		key := times{&in.edges[0], len(in.edges)}
		k, ok := at[key]
		if !ok {
			at[key] = len(apart)
			apart, own = append(apart, in), append(own, false)
			continue
		}
		if !own[k] {
			apart[k].rates, own[k] = slices.Clone(apart[k].rates), true
		}
		for i, r := range in.rates {
			apart[k].rates[i] += r
		}
	}
	if len(apart) == 1 {
		return apart[0]
	}
	type jump struct{ at, by float64 }
	var jumps []jump
	for _, in := range apart {
		before := 0.0
		for i, at := range in.edges {
			jumps = append(jumps, jump{at, in.rates[i] - before})
			before = in.rates[i]
		}
	}
	slices.SortFunc(jumps, func(a, b jump) int {
		switch {
		case a.at < b.at:
			return -1
		case a.at > b.at:
			return 1
		}
		return 0
	})
	var out Intensity
	highest, rate := 0.0, 0.0
	for i, j := range jumps {
		rate += j.by
		highest = max(highest, rate)
		if i+1 < len(jumps) && jumps[i+1].at == j.at {
			continue
		}
		r := rate
		if r < 1e-12*highest { // what rounding leaves of nothing
			r = 0
		}
		out.edges, out.rates = append(out.edges, j.at), append(out.rates, r)
	}
	return out
}
