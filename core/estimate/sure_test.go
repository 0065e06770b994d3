package estimate

import (
	"math"
	"testing"

	"wakefield/core/plan"
	"wakefield/core/plan/plantest"
	"wakefield/core/week"
)

// TestEachStreamHasADoubtOfItsOwn writes two streams of the same bitrate, and a button
// that writes the main one.
func TestEachStreamHasADoubtOfItsOwn(t *testing.T) {
	p := plantest.Read(t, "testdata/plans/rush-hour-hall.json")
	p.Channels = p.Channels[:1]
	c := &p.Channels[0]
	same := func(known string) *plan.Stream {
		return &plan.Stream{Codec: "h264", Width: 640, Height: 360, FPS: 8, GOPSeconds: 2, Rate: plan.Rate{Kind: "constant", Kbps: 1000, Known: known}}
	}
	c.Streams = plan.Streams{Main: same("measured"), Sub: same("guess")}
	c.AudioKbps = 0
	p.Duties = []plan.Duty{{ID: "main", Name: "Main", Base: &plan.Base{Stream: "main"}}, {ID: "sub", Name: "Sub", Base: &plan.Base{Stream: "sub"}}}
	c.Week = plan.WeekRef{Own: &plan.OwnWeek{Otherwise: "main", Blocks: []plan.DutyBlock{{Hours: plan.Hours{Days: []week.Weekday{0, 1}, From: 0, To: 1440}, Duty: "sub"}}}}
	s := Figures(p, nil)
	got := s.inputs[0].byStream(s.played[0].shares)
	if math.Abs(got[0]-1000*5.0/7) > 1e-6 || math.Abs(got[1]-1000*2.0/7) > 1e-6 {
		t.Errorf("%v kbit/s of each stream", got)
	}
	p.CallButtons = []plan.CallButton{{ID: "b", Name: "B", PressesPerWeek: 1000, HoldSeconds: 604800, Records: []string{c.ID}}}
	s = Figures(p, nil)
	if got := s.inputs[0].byStream(s.played[0].shares); math.Abs(got[0]-1000) > 1e-6 || got[1] > 1e-6 {
		t.Errorf("a button that is always pressed writes %v kbit/s of each stream", got)
	}
}

// TestLikelyIsTypical asks that what is stated lies in the middle of what is drawn, where
// there are many channels.
func TestLikelyIsTypical(t *testing.T) {
	for _, n := range []int{32, 96} {
		p := depot(n)
		s := Run(p, nil)
		for _, pool := range s.Pools {
			if pool.Sure == nil {
				continue
			}
			if off := pool.Sure.Likely / *pool.RetentionDays - 1; math.Abs(off) > 0.02 {
				t.Errorf("%d channels: likely %v, typically %v", n, pool.Sure.Likely, *pool.RetentionDays)
			}
		}
	}
}

// TestRequirementsAreHeldAgainstTheWorst requires what is kept typically, and what is
// kept at the worst moment.
func TestRequirementsAreHeldAgainstTheWorst(t *testing.T) {
	p := plantest.Read(t, "testdata/yard-and-gate.json")
	holds := func(required float64) float64 {
		for i := range p.Channels {
			p.Channels[i].Keep.AtLeastDays = 0
		}
		p.Channels[0].Keep = plan.Keep{AtLeastDays: required}
		return Run(p, nil).Verdict.HoldsPercent
	}
	p.Channels[0].Keep = plan.Keep{}
	s := Run(p, nil)
	low := s.Pools[0].Sure.Low
	ordinary := holds(low)
	if ordinary < 80 || ordinary > 90.5 {
		t.Errorf("%v %% keep what nine in ten keep typically", ordinary)
	}
	f := 3.0
	p.Site.SpecialDays = []plan.SpecialDay{{From: date(2027, 6, 1), To: date(2027, 9, 30), Name: "Season", RateFactor: &f}}
	if season := holds(low); season > ordinary-10 {
		t.Errorf("%v %% with a season, %v %% without", season, ordinary)
	}
}
