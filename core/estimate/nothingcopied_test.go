package estimate

import (
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
)

// TestWhereNothingIsCopiedNothingIsSaidOfIt: an uplink alone copies nothing.
func TestWhereNothingIsCopiedNothingIsSaidOfIt(t *testing.T) {
	p := plantest.Whole(t)
	if s := Figures(p, nil); s.Offsite == nil || s.CopyByHour() == nil || s.Channels[1].SafeSeconds == nil {
		t.Fatal("the plan copies nothing")
	}
	p.Effects = []plan.Effect{{When: plan.When{Motion: p.Channels[0].ID}, Record: []string{p.Channels[0].ID}}}
	s := Figures(p, nil)
	if s.Offsite != nil || s.CopyByHour() != nil {
		t.Errorf("nothing is sent off site, and it is said of it: %+v", s.Offsite)
	}
	for i := range s.Channels {
		if s.Channels[i].SafeSeconds != nil || s.Channels[i].LatePercent != nil {
			t.Errorf("%s is not copied, but safe", s.Channels[i].ID)
		}
	}
}
