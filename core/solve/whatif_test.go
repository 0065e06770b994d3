package solve

import (
	"testing"

	"wakefield.example/core/edit"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
)

func TestWhatIf(t *testing.T) {
	p := plantest.Read(t, "../estimate/testdata/plans/two-pools.json")
	for i := range p.Recorders {
		for j := range p.Recorders[i].Pools {
			pool := &p.Recorders[i].Pools[j]
			for _, layout := range []string{"span", "raid0", "raid5"} {
				pool.Layout, pool.HotSpares, pool.Drives = layout, 0, []plan.DriveGroup{{Count: 2, Terabytes: 2}, {Count: 2, Terabytes: 4}}
				s := estimate.Figures(p, nil)
				now := s.Pools[0]
				for _, q := range s.Pools {
					if q.ID == pool.ID {
						now = q
					}
				}
				scenarios := WhatIf(s, pool.ID)
				if len(scenarios) != 2 {
					t.Fatalf("%d scenarios", len(scenarios))
				}
				failed, more := scenarios[0], scenarios[1]
				if more.UsableGB <= now.UsableGB || now.RetentionDays != nil && more.PoolDays != nil && *more.PoolDays <= *now.RetentionDays {
					t.Errorf("%s: one more drive: %+v, now %+v", layout, more, now)
				}
				if want := plan.Say("%.3g TB more can be used.", (more.UsableGB-now.UsableGB)/1000); more.Consequence != want {
					t.Errorf("%s: %q, want %q", layout, more.Consequence, want)
				}
				if next, err := edit.After(p, *more.Edit); err != nil || estimate.Figures(next, nil).Verdict.UsableGB <= s.Verdict.UsableGB {
					t.Errorf("%s: the edit gives no room: %v", layout, err)
				}
				switch layout {
				case "span":
					if failed.UsableGB >= now.UsableGB || failed.LostPercent < 30 || failed.LostPercent > 36 {
						t.Errorf("span: %+v", failed)
					}
				case "raid0":
					if failed.LostPercent != 100 || failed.PoolDays != nil || failed.Holds {
						t.Errorf("RAID 0: %+v", failed)
					}
				case "raid5":
					if failed.LostPercent != 0 || failed.UsableGB != now.UsableGB {
						t.Errorf("RAID 5: %+v", failed)
					}
				}
			}
		}
	}
	if got := WhatIf(estimate.Figures(p, nil), "nowhere"); len(got) != 0 {
		t.Errorf("%+v", got)
	}
}
