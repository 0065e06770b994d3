package activity

import "slices"

// Sum is all of some intensities together.
func Sum(list []Intensity) Intensity {
	if len(list) == 1 {
		return list[0]
	}
	type jump struct{ at, by float64 }
	var jumps []jump
	for _, in := range list {
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
