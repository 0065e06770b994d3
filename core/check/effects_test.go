package check

import (
	"context"
	"math"
	"testing"

	"wakefield.example/core/edit"
	"wakefield.example/core/estimate"
)

// TestFixesSayWhatTheyDo holds the effects told against the plan with the fix made.
func TestFixesSayWhatTheyDo(t *testing.T) {
	p := soundPlan(t)
	p.Channels[0].Detection.Catch = ptr(0.7)
	p.Channels[0].AudioKbps = 64
	p.Recorders[0].Pools[0].Drives[0].Terabytes = 0.01
	s := estimate.Run(p, nil)
	found := Findings(p, s)
	effects, err := Effects(context.Background(), p, s, found)
	if err != nil || len(effects) < 3 {
		t.Fatalf("%+v, %v", effects, err)
	}
	told := 0
	for _, f := range found {
		for _, e := range effects {
			if e.ID != f.ID {
				continue
			}
			told++
			mended, err := edit.After(p, f.Fix.Edits...)
			if err != nil {
				t.Fatal(err)
			}
			after := estimate.Figures(mended, nil)
			if off := *after.Channels[0].RetentionDays - *s.Channels[0].RetentionDays - e.MoreDays; math.Abs(off) > 1e-9 {
				t.Errorf("%s: %v days more are told, %v off", f.Rule, e.MoreDays, off)
			}
			if off := after.Verdict.Evidence.MissedPerDay - s.Verdict.Evidence.MissedPerDay - e.MissedPerDay; math.Abs(off) > 1e-9 {
				t.Errorf("%s: %v events a day are told, %v off", f.Rule, e.MissedPerDay, off)
			}
			switch f.Rule {
			case "below-at-least":
				if e.MoreDays <= 0 {
					t.Errorf("drives keep %v days more", e.MoreDays)
				}
			case "audio":
				if e.GigabytesPerDay >= 0 {
					t.Errorf("without audio %v GB a day more", e.GigabytesPerDay)
				}
			case "likely-misses":
				if e.MissedPerDay >= 0 || e.GigabytesPerDay <= 0 {
					t.Errorf("a base layer: %+v", e)
				}
			}
		}
	}
	if told != len(effects) {
		t.Errorf("%d effects, %d of findings", len(effects), told)
	}
	gone, cancel := context.WithCancel(context.Background())
	cancel()
	if _, err := Effects(gone, p, s, found); err != context.Canceled {
		t.Error(err)
	}
}
