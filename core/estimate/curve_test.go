package estimate

import (
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
)

func TestCurveOf(t *testing.T) {
	s := plan.PlainStream(plan.Main)
	c := CurveOf(s)
	for i := range c.ByFPS {
		if p := c.ByFPS[i]; p.At == s.FPS && (p.ActiveKbps != c.ActiveKbps || p.IdleKbps != c.IdleKbps) {
			t.Errorf("the curve at the stream's own frame rate is %+v, the stream %+v", p, c)
		}
		if i > 0 && c.ByFPS[i].ActiveKbps <= c.ByFPS[i-1].ActiveKbps {
			t.Errorf("more frames cost less at %v", c.ByFPS[i].At)
		}
	}
	for i := range c.ByGOP[1:] {
		if c.ByGOP[i+1].ActiveKbps >= c.ByGOP[i].ActiveKbps {
			t.Errorf("fewer keyframes cost more at %v", c.ByGOP[i+1].At)
		}
	}
	s.Rate = plan.Rate{Kind: "constant", Kbps: 900, Known: "guess"}
	if c := CurveOf(s); c.ActiveKbps != 900 || len(c.ByFPS) != 0 {
		t.Errorf("%+v", c)
	}
}

func TestTideOfSomeChannels(t *testing.T) {
	s := Figures(plantest.Read(t, "testdata/plans/two-pools.json"), nil)
	whole, parts := s.Tide(), 0.0
	for _, c := range s.Channels {
		parts += float64(s.Tide(c.ID)[20].Total())
	}
	if got := float64(whole[20].Total()); got <= 0 || parts < got*0.999999 || parts > got*1.000001 {
		t.Errorf("the channels add up to %v of %v", parts, got)
	}
}
