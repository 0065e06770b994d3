package estimate

import (
	"context"

	"wakefield.example/core/doubt"
	"wakefield.example/core/parallel"
	"wakefield.example/core/plan"
)

// drawRanges fills in how sure the figures are.
func (s *Result) drawRanges(ctx context.Context, p *plan.Plan, earlier *Result) error {
	var err error
	// The year is needed for the worst moment of pools, and knows nothing of draws.
	parallel.Both(func() { err = doubt.Draw(ctx, s.site, s.played, s.doubts) }, func() { s.SpecialYear() })
	if err != nil {
		return err
	}
	members := make(map[string][]int)
	for i, c := range p.Channels {
		members[c.Pool] = append(members[c.Pool], i)
	}
	hold := 0 // draws in which every channel keeps its days
	s.pooled = make(map[string]*doubt.Pool, len(s.Pools))
	for k := range s.Pools {
		s.drawPool(p, &s.Pools[k], members[s.Pools[k].ID], earlier)
		if ctx.Err() != nil {
			return ctx.Err()
		}
	}
draws:
	for i := range doubt.Draws {
		for _, pool := range s.pooled {
			if !pool.Holds[i] {
				continue draws
			}
		}
		hold++
	}
	s.Verdict.HoldsPercent = 100 * float64(hold) / doubt.Draws
	return nil
}

// drawPool finds the days a pool and its channels keep in every draw.
func (s *Result) drawPool(p *plan.Plan, pool *Pool, members []int, earlier *Result) {
	list := make([]doubt.Member, len(members))
	for k, i := range members {
		list[k] = s.member(i, &s.doubts[i])
	}
	var before *doubt.Pool
	if earlier != nil {
		before = earlier.pooled[pool.ID]
	}
	d := doubt.DrawPool(pool.UsableGB, s.worstShare(pool), list, before)
	s.pooled[pool.ID] = d
	pool.LikelyDays = d.Likely
	for k, i := range members {
		s.Channels[i].LikelyDays = d.Members[k].Likely
		if s.Channels[i].RequiredDays != nil {
			s.Channels[i].HoldsPercent = d.Members[k].HoldsPercent
		}
	}
}

// member is channel i, as far as the draws of its pool go by it.
func (s *Result) member(i int, drawn *doubt.Drawn) doubt.Member {
	return doubt.Member{Drawn: drawn, Stills: s.stillBytes(i), Keep: s.plan.Channels[i].Keep, Required: s.Channels[i].RequiredDays}
}

// worstShare is the least that a pool keeps, at the worst hour of the week and on the
// worst date of the year, as a share of what it keeps typically. What is required must be
// kept then too.
func (s *Result) worstShare(pool *Pool) float64 {
	if pool.RetentionDays == nil || pool.WorstDays == nil || *pool.RetentionDays <= 0 {
		return 1
	}
	worst := *pool.WorstDays
	if year := s.SpecialYear(); year != nil {
		for _, p := range year.Pools {
			if p.ID == pool.ID && p.WorstDays != nil {
				worst = min(worst, *p.WorstDays)
			}
		}
	}
	return min(1, worst / *pool.RetentionDays)
}
