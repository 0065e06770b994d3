package solve

import (
	"context"
	"math"
	"slices"

	"gonum.org/v1/gonum/stat/distuv"

	"wakefield.example/core/edit"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// Measure is what days that are asked for are held against.
type Measure string

// Measures.
const (
	Ordinary  Measure = ""       // what pools typically keep
	WorstHour Measure = "hour"   // the worst hour of the ordinary week
	WorstDate Measure = "date"   // that, and the worst date of the year
	Chance    Measure = "chance" // a stated part of all draws, at the worst hour and date
)

// Kept is for how long the pools in question keep footage, however one asks. Days are infinite where nothing is overwritten.
type Kept struct {
	Typical, Hour, Date float64    // days of the pool that keeps least
	On                  *week.Date // the worst date; nil where no date is worse than the worst hour
	Percent             float64    // of draws in which all of them keep the days asked, at the worst hour and date
	spread              float64    // standard deviation of the logarithm of the days of the pool that keeps least
}

// by is what a plan comes to by a measure, and what is wanted of it.
func (k *Kept) by(ask *Ask) (have, want float64) {
	switch ask.By {
	case WorstHour:
		return k.Hour, ask.Days
	case WorstDate:
		return k.Date, ask.Days
	case Chance:
		return k.Percent, ask.Percent
	}
	return k.Typical, ask.Days
}

// LeftOut are the channels of the pools in question that no disk keeps for so many days, as their own age limit or quota takes
// their footage before that; ids.
func (p *Prepared) LeftOut(days float64) (out []string) {
	for _, of := range p.pools() {
		for _, i := range of.channels {
			if r := p.rate(i, 0); float64(r.Limit) < days*(1-1e-9) {
				out = append(out, p.plan.Channels[i].ID)
			}
		}
	}
	return out
}

// Kept estimates the plan with edits made. It is given up with the error of the context when that ends.
func (p *Prepared) Kept(ctx context.Context, ask *Ask, edits []edit.Edit) (Kept, error) {
	next := p.plan
	if len(edits) > 0 {
		var err error
		if next, err = edit.After(p.plan, edits...); err != nil {
			return Kept{}, err
		}
	}
	// What is asked takes the place of what is required, so that the draws tell of that.
	asked := *next
	asked.Channels = slices.Clone(next.Channels)
	in, out := make(map[string]bool), p.LeftOut(ask.Days)
	for _, of := range p.pools() {
		in[of.id] = true
	}
	for i := range asked.Channels {
		c := &asked.Channels[i]
		keep := plan.Keep{AtMostDays: c.Keep.AtMostDays, QuotaGB: c.Keep.QuotaGB}
		if in[c.Pool] && !c.NoCamera && !slices.Contains(out, c.ID) && (keep.AtMostDays == 0 || keep.AtMostDays >= ask.Days) {
			keep.AtLeastDays = ask.Days
		}
		c.Keep = keep
	}
	site, err := estimate.RunContext(ctx, &asked, p.site)
	if err != nil {
		return Kept{}, err
	}
	return leastOf(site, in), ctx.Err()
}

// leastOf is what the pools that are asked about keep, each figure that of the one that keeps least.
func leastOf(site *estimate.Result, in map[string]bool) Kept {
	kept := Kept{Typical: math.Inf(1), Hour: math.Inf(1), Date: math.Inf(1), Percent: site.Verdict.HoldsPercent}
	for _, pool := range site.Pools {
		if !in[pool.ID] || pool.RetentionDays == nil {
			continue
		}
		if *pool.RetentionDays < kept.Typical {
			kept.Typical = *pool.RetentionDays
			if r := pool.LikelyDays; r != nil && r.Low > 0 {
				kept.spread = math.Log(r.Likely/r.Low) / tenth
			}
		}
		kept.Hour = min(kept.Hour, plan.Or(pool.WorstDays, math.Inf(1)))
	}
	kept.Date = kept.Hour
	if year := site.SpecialYear(); year != nil {
		for _, pool := range year.Pools {
			if in[pool.ID] && pool.WorstDays != nil && *pool.WorstDays < kept.Date {
				kept.Date, kept.On = *pool.WorstDays, pool.WorstDate
			}
		}
	}
	return kept
}

// tenth is how many standard deviations the tenth percentile lies below the median.
const tenth = 1.2815515655446004

// mostTries is how often the days are raised until a plan comes to what is asked by its measure.
const mostTries = 8

// WhatItTakes is the answer by the measure of the ask, and what the plan keeps with it. By another measure than the ordinary one,
// pools have to keep longer typically: how long is tried, each time by what was missing the time before, so that the answer
// is not told to be exact. It is given up with the error of the context when that ends.
func (p *Prepared) WhatItTakes(ctx context.Context, ask *Ask) (Answer, Kept, error) {
	next := *ask
	for try := 1; ; try++ {
		answer, err := p.Answer(ctx, &next)
		if err != nil {
			return answer, Kept{}, err
		}
		kept, err := p.Kept(ctx, ask, answer.Edits)
		if err != nil {
			return answer, kept, err
		}
		have, want := kept.by(ask)
		answer.Exact = answer.Exact && (try == 1 || ask.By == Ordinary)
		if have >= want*(1-1e-9) || ask.By == Ordinary {
			return answer, kept, nil
		}
		if !answer.Reached || try == mostTries || !answer.Bounded {
			answer.Reached = false
			return answer, kept, nil
		}
		by := want / max(have, want/4)
		if ask.By == Chance {
			normal := distuv.UnitNormal
			by = math.Exp(max(kept.spread, 0.01) * (normal.Quantile(clamp(want/100)) - normal.Quantile(clamp(have/100))))
		}
		next.Days = max(next.Days, answer.Days) * min(4, max(1.002, by))
	}
}

// clamp keeps a chance off what no normal distribution has.
func clamp(chance float64) float64 { return min(max(chance, 0.002), 0.9995) }
