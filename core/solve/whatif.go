package solve

import (
	"fmt"
	"slices"

	"wakefield.example/core/edit"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
)

// Scenario is what a pool would do in other circumstances.
type Scenario struct {
	ID           string     `json:"id" enum:"failed,more"`
	Sentence     string     `json:"sentence"`
	Consequence  string     `json:"consequence"`
	UsableGB     float64    `json:"usableGB"`
	LostPercent  float64    `json:"lostPercent" doc:"Share of the pool's footage that is gone at once"`
	PoolDays     *float64   `json:"poolDays" required:"true" doc:"Days the pool then holds, typically"`
	KeptDays     *float64   `json:"keptDays" required:"true" doc:"Days of the channel that the verdict then names"`
	RequiredDays *float64   `json:"requiredDays" required:"true"`
	Holds        bool       `json:"holds" doc:"Whether every channel then typically keeps its days"`
	Edit         *edit.Edit `json:"edit,omitempty" doc:"What would make it so"`
}

// WhatIf tells what the failure of a drive, and one drive more, would do to a pool.
// The list is empty where the plan has no such pool.
func WhatIf(s *estimate.Result, pool string) []Scenario {
	for _, r := range s.Plan().Recorders {
		for i := range r.Pools {
			if r.Pools[i].ID == pool && len(r.Pools[i].Drives) > 0 {
				return []Scenario{failed(s, &r, &r.Pools[i]), oneMore(s, &r, &r.Pools[i])}
			}
		}
	}
	return []Scenario{}
}

func failed(s *estimate.Result, r *plan.Recorder, pool *plan.Pool) Scenario {
	failure := estimate.Array(pool).Fail()
	out := Scenario{ID: "failed", Sentence: "A drive fails", LostPercent: 100 * failure.Lost}
	changed := *pool
	switch {
	case failure.Lost >= 1:
		out.Consequence = "All footage of the pool is gone, and nothing is recorded until the array is made anew."
		return out
	case failure.Spare:
		out.Consequence = "A hot spare replaces it. All footage stays" + andThen(failure.MoreLeft)
	case failure.Lost > 0:
		out.Consequence = fmt.Sprintf("What was on it is gone, %.0f %% of the pool's footage; recording goes on with less room.", out.LostPercent)
		largest := slices.MaxFunc(pool.Drives, func(a, b plan.DriveGroup) int { return int(a.Terabytes*1000 - b.Terabytes*1000) })
		changed.Drives = nil
		taken := false
		for _, g := range pool.Drives {
			if !taken && g == largest {
				taken = true
				g.Count--
			}
			if g.Count > 0 {
				changed.Drives = append(changed.Drives, g)
			}
		}
	default:
		out.Consequence = "All footage stays" + andThen(failure.MoreLeft)
	}
	out.with(s, r, &changed)
	return out
}

func andThen(more int) string {
	switch more {
	case 0:
		return "; until it is replaced, a second failure loses all of it."
	case 1:
		return "; 1 more may fail without loss."
	}
	return fmt.Sprintf("; %d more may fail without loss.", more)
}

func oneMore(s *estimate.Result, r *plan.Recorder, pool *plan.Pool) Scenario {
	changed := *pool
	changed.Drives = slices.Clone(pool.Drives)
	changed.Drives[0].Count++
	out := Scenario{ID: "more", Sentence: fmt.Sprintf("One more drive of %v TB", changed.Drives[0].Terabytes)}
	out.with(s, r, &changed)
	switch now := float64(estimate.Array(pool).Usable() / 1e9); {
	case out.UsableGB <= now:
		out.Consequence = "This layout gains no room by it."
	default:
		out.Consequence = plan.Say("%.3g TB more can be used.", (out.UsableGB-now)/1000)
	}
	out.Edit = &edit.Edit{SetPool: &edit.SetPool{Recorder: r.ID, Pool: changed}}
	return out
}

// with fills in the figures of a scenario in which a pool is another.
func (out *Scenario) with(s *estimate.Result, r *plan.Recorder, pool *plan.Pool) {
	next := *s.Plan()
	next.Recorders = slices.Clone(s.Plan().Recorders)
	for i := range next.Recorders {
		if next.Recorders[i].ID == r.ID {
			pools := slices.Clone(r.Pools)
			for j := range pools {
				if pools[j].ID == pool.ID {
					pools[j] = *pool
				}
			}
			next.Recorders[i].Pools = pools
		}
	}
	then := estimate.Figures(&next, s)
	for _, p := range then.Pools {
		if p.ID == pool.ID {
			out.UsableGB, out.PoolDays = p.UsableGB, p.RetentionDays
		}
	}
	out.KeptDays, out.RequiredDays, out.Holds = then.Verdict.KeptDays, then.Verdict.RequiredDays, then.Verdict.ShortChannels == 0
}
