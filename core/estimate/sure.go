package estimate

import (
	"context"
	"math"
	"slices"

	"gonum.org/v1/gonum/stat"

	"wakefield/core/footage"
	"wakefield/core/parallel"
	"wakefield/core/plan"
	"wakefield/core/resolve"
)

// Draws is how many sites are drawn to tell how sure a figure is.
const Draws = 2000

// seed makes the draws the same every time.
const seed = 0x57616b65

// spread is the standard deviation of the logarithm of a figure whose 80 % range is
// ×/÷ factor: ln(factor) over the 90th percentile of the normal distribution.
func spread(factor float64) float64 { return math.Log(factor) / 1.2815515655446004 }

// factorOf is the factor that a standard deviation of logarithms is the spread of.
func factorOf(spread float64) float64 { return math.Exp(spread * 1.2815515655446004) }

// rateSpread tells how far a bitrate may be off. A figure typed as a guess is
// trusted more than the model, which knows nothing of the scene, one read off a camera
// on site a little less than a measured one.
func rateSpread(r resolve.RateKnown) float64 {
	switch {
	case r.Known == "":
		return 0 // there is no such stream
	case r.Modelled:
		return spread(1.8)
	case r.Known == "measured":
		return measuredSpread
	case r.Known == "surveyed":
		return spread(1.1)
	case r.Known == "datasheet":
		return spread(1.2)
	}
	return spread(1.5)
}

var measuredSpread = spread(1.05)

// draw fills in how sure the figures are.
func (s *Result) draw(ctx context.Context, p *plan.Plan, earlier *Result) error {
	// Channels that play alike are played once at every knot.
	at := make(map[*footage.Shares]int)
	var alike [][]int
	for i := range s.doubts {
		if s.doubts[i].kbps != nil {
			continue
		}
		if s.inputs[i].Empty {
			s.doubts[i] = doubt{kbps: make([]float32, Draws)}
			continue
		}
		first := &s.played[i].Shares[0]
		k, ok := at[first]
		if !ok {
			k = len(alike)
			at[first] = k
			alike = append(alike, nil)
		}
		alike[k] = append(alike[k], i)
	}
	parallel.Do(len(alike), func(k int) {
		if ctx.Err() != nil {
			return
		}
		in := make([]*resolve.Input, len(alike[k]))
		for j, i := range alike[k] {
			in[j] = &s.inputs[i]
		}
		for j, d := range drawAlike(in, s.played[alike[k][0]].Shares, func(j int) string { return s.Channels[alike[k][j]].ID }) {
			s.doubts[alike[k][j]] = d
		}
	})
	if ctx.Err() != nil {
		return ctx.Err()
	}
	holds := make([]bool, Draws)
	for i := range holds {
		holds[i] = true
	}
	members := make(map[string][]int)
	for i, c := range p.Channels {
		members[c.Pool] = append(members[c.Pool], i)
	}
	s.pooled = make(map[string]*poolDraw, len(s.Pools))
	for k := range s.Pools {
		s.drawPool(p, &s.Pools[k], members[s.Pools[k].ID], holds, earlier)
		if ctx.Err() != nil {
			return ctx.Err()
		}
	}
	s.Verdict.HoldsPercent = 100 * share(holds)
	return nil
}

// rangeOf is the median and the 80 % range of values, one a draw; nil where the upper end
// is not bounded.
func rangeOf(values []float64) *Range {
	sorted := slices.Clone(values)
	slices.Sort(sorted)
	at := func(share float64) float64 { return sorted[int(share*float64(len(sorted)-1)+0.5)] }
	r := Range{Likely: at(0.5), Low: at(0.1), High: at(0.9)}
	if math.IsInf(r.High, 1) {
		return nil
	}
	r.CommonPercent = 100 * commonPart(values)
	return &r
}

// commonPart is the part of the variance of the logarithms that what the site shares
// explains: its columns being independent, the sum of their squared correlations. Draws
// that are not bounded are left out.
func commonPart(values []float64) float64 {
	site, season, unsaid := common(), seasons(), commonUnsaid()
	var logs []float64
	columns := make([][]float64, commonColumns+1+unsaidColumns)
	for i, v := range values {
		if v <= 0 || math.IsInf(v, 1) {
			continue
		}
		logs = append(logs, math.Log(v))
		row := slices.Concat(site[i*commonColumns:(i+1)*commonColumns], season[i:i+1], unsaid[i*unsaidColumns:(i+1)*unsaidColumns])
		for k := range columns {
			columns[k] = append(columns[k], row[k])
		}
	}
	if len(logs) < 2 || stat.Variance(logs, nil) < 1e-18 {
		return 0
	}
	sum := 0.0
	for _, column := range columns {
		r := stat.Correlation(logs, column, nil)
		sum += r * r
	}
	return min(sum, 1)
}

func share(list []bool) float64 {
	n := 0
	for _, b := range list {
		if b {
			n++
		}
	}
	return float64(n) / float64(len(list))
}
