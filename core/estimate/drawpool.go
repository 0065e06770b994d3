package estimate

import (
	"slices"

	"wakefield/core/parallel"
	"wakefield/core/plan"
	"wakefield/core/storage"
)

// poolDraw is one pool over all draws, with what it was drawn from.
type poolDraw struct {
	usable  float64
	atWorst float64 // days kept at the worst moment, of those typically kept
	from    []drawnFrom
	sure    *Range
	members []memberDraw
	holds   []bool // whether all members keep their days, by draw
}

// drawnFrom is what the draws of a pool take of a member. Bitrates that were not
// drawn anew are the very same ones.
type drawnFrom struct {
	kbps   *float32
	stills storage.Bytes // a day
	keep   plan.Keep
}

// memberDraw is what the draws tell of a member.
type memberDraw struct {
	sure  *Range
	holds float64
}

// drawPool finds the days a pool and its channels keep in every draw, unless they
// were found before for the same channels on the same drives.
func (s *Result) drawPool(p *plan.Plan, pool *Pool, members []int, holds []bool, earlier *Result) {
	d := &poolDraw{usable: pool.UsableGB, atWorst: s.worstShare(pool)}
	for _, m := range members {
		d.from = append(d.from, drawnFrom{&s.doubts[m].kbps[0], s.stillBytes(m), p.Channels[m].Keep})
	}
	if earlier != nil {
		if before := earlier.pooled[pool.ID]; before != nil && before.usable == d.usable && before.atWorst == d.atWorst && slices.Equal(before.from, d.from) {
			d = before
		}
	}
	if d.holds == nil {
		d.draw(s, p, members)
	}
	s.pooled[pool.ID] = d
	pool.Sure = d.sure
	for k, m := range members {
		s.Channels[m].Sure = d.members[k].sure
		if s.Channels[m].Required != nil {
			s.Channels[m].HoldsShare = d.members[k].holds
		}
	}
	for i := range holds {
		holds[i] = holds[i] && d.holds[i]
	}
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
			if p.ID == pool.ID && p.Days != nil {
				worst = min(worst, *p.Days)
			}
		}
	}
	return min(1, worst / *pool.RetentionDays)
}

func (d *poolDraw) draw(s *Result, p *plan.Plan, members []int) {
	usable := storage.Bytes(d.usable) * storage.GB
	kept := make([]float64, Draws)
	// What has no limit of its own is kept as long as the pool holds.
	each := make([][]float64, len(members))
	var limited []int
	for k, m := range members {
		each[k] = kept
		if keep := &p.Channels[m].Keep; keep.AtMostDays > 0 || keep.QuotaGB > 0 {
			each[k] = make([]float64, Draws)
			limited = append(limited, k)
		}
	}
	d.holds = make([]bool, Draws)
	const chunk = 125
	held := make([][]int, Draws/chunk) // draws in which each member keeps its days, by part
	parallel.Do(Draws/chunk, func(part int) {
		rates := make([]storage.Rate, len(members))
		limits := make([]storage.Days, len(members))
		held[part] = make([]int, len(members))
		for i := part * chunk; i < (part+1)*chunk; i++ {
			for k, m := range members {
				keep := &p.Channels[m].Keep
				day := storage.Bytes(float64(s.doubts[m].kbps[i])*1000/8*86400) + d.from[k].stills
				limits[k] = storage.Limit(day, storage.Days(keep.AtMostDays), storage.Bytes(keep.QuotaGB)*storage.GB)
				rates[k] = storage.Rate{Daily: day, Limit: limits[k]}
			}
			h := storage.Typical(usable, rates)
			kept[i] = float64(h)
			for _, k := range limited {
				each[k][i] = float64(min(h, limits[k]))
			}
			d.holds[i] = true
			for k, m := range members {
				required := s.Channels[m].Required
				if required == nil {
					continue
				}
				if float64(min(h*storage.Days(d.atWorst), limits[k])) >= *required {
					held[part][k]++
				} else {
					d.holds[i] = false
				}
			}
		}
	})
	d.sure = rangeOf(kept)
	d.members = make([]memberDraw, len(members))
	parallel.Do(len(members), func(k int) {
		for _, part := range held {
			d.members[k].holds += 100 * float64(part[k]) / Draws
		}
		d.members[k].sure = d.sure // with no limit of its own it is kept as long as the pool holds
		if keep := &p.Channels[members[k]].Keep; keep.AtMostDays > 0 || keep.QuotaGB > 0 {
			d.members[k].sure = rangeOf(each[k])
		}
	})
}
