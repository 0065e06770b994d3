package estimate

import (
	"math"
	"testing"

	"wakefield.example/core/footage"
	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
)

// TestFullQualityIsThatOfWhicheverLayerWrites gives one channel one duty after the
// other all week. What the base layer writes as well as the event layer would counts
// the same.
func TestFullQualityIsThatOfWhicheverLayerWrites(t *testing.T) {
	p := plantest.Read(t, "testdata/plans/rush-hour-hall.json")
	p.Channels = p.Channels[:1]
	c := &p.Channels[0]
	c.Streams.Sub = &plan.Stream{Codec: "h264", Width: 640, Height: 360, FPS: 8, GOPSeconds: 2, Rate: plan.Rate{Kind: "constant",
		Kbps: 400, Known: "guess"}}
	c.Streams.Main.FPS, c.Detection.MinSeconds = 20, 12
	motion := []plan.Trigger{plan.Motion}
	share := func(d plan.Duty) footage.Evidence {
		t.Helper()
		d.ID, d.Name = "tried", "Tried"
		p.Duties = []plan.Duty{d}
		c.Week = plan.WeekRef{Own: &plan.OwnWeek{Otherwise: "tried"}}
		return Figures(p, nil).Channels[0].Evidence
	}
	onMotion := share(plan.Duty{Event: &plan.Event{Stream: "main", On: motion}})
	if onMotion.FullPercent < 50 || onMotion.FullPercent > 99 || onMotion.LowPerDay != 0 || onMotion.MissedPerDay == 0 {
		t.Fatalf("on motion only: %+v", onMotion)
	}
	tests := []struct {
		name string
		duty plan.Duty
		full float64 // percent
		low  bool    // whether the rest is kept low
	}{
		{"the main stream round the clock", plan.Duty{Base: &plan.Base{Stream: "main"}}, 100, false},
		{"the same with marks", plan.Duty{Base: &plan.Base{Stream: "main"}, Event: &plan.Event{Stream: "main", On: motion}}, 100, false},
		{"the same with marks of fewer frames", plan.Duty{Base: &plan.Base{Stream: "main"},
			Event: &plan.Event{Stream: "main", On: motion, FPS: 5}}, 100, false},
		{"all frames asked for by their number", plan.Duty{Base: &plan.Base{Stream: "main", FPS: 20}}, 100, false},
		{"fewer frames of the main stream", plan.Duty{Base: &plan.Base{Stream: "main", FPS: 10}}, 0, true},
		{"as few frames as the events have", plan.Duty{Base: &plan.Base{Stream: "main", FPS: 10},
			Event: &plan.Event{Stream: "main", On: motion, FPS: 10}}, 100, false},
		{"keyframes alone", plan.Duty{Base: &plan.Base{Stream: "main", KeyframesOnly: true}}, 0, true},
		{"the sub stream round the clock", plan.Duty{Base: &plan.Base{Stream: "sub"}}, 0, true},
		{"the sub stream, which is all that events get", plan.Duty{Base: &plan.Base{Stream: "sub"},
			Event: &plan.Event{Stream: "sub", On: motion}}, 100, false},
		{"low, then full", plan.Duty{Base: &plan.Base{Stream: "sub"}, Event: &plan.Event{Stream: "main", On: motion}},
			onMotion.FullPercent, true},
		{"keyframes, then full", plan.Duty{Base: &plan.Base{Stream: "main", KeyframesOnly: true}, Event: &plan.Event{Stream: "main", On: motion}},
			onMotion.FullPercent, true},
		{"off", plan.Duty{}, 0, false},
	}
	for _, test := range tests {
		e := share(test.duty)
		if math.Abs(e.FullPercent-test.full) > 1e-6 || test.low != (e.LowPerDay > 0) || test.low == (e.MissedPerDay > 0) && test.full < 100 {
			t.Errorf("%s: %+v, want %.4f %% at full quality", test.name, e, test.full)
		}
	}
}
