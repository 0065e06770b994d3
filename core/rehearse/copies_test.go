package rehearse

import (
	"context"
	"math"
	"slices"
	"testing"

	"gonum.org/v1/gonum/stat"

	"wakefield.example/core/effect"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
	"wakefield.example/core/week"
)

// copyingPlan copies by motion that overlaps, for two channels at once, and by an alarm with seconds of its own.
func copyingPlan(t *testing.T) *plan.Plan {
	p := plantest.Read(t, "../estimate/testdata/plans/rush-hour-hall.json")
	first := p.Channels[0]
	p.Duties = []plan.Duty{{ID: "both", Name: "Both", Event: &plan.Event{Stream: "main", On: []plan.Trigger{plan.Motion, plan.Alarm}}},
		{ID: "base", Name: "Base", Base: &plan.Base{Stream: "sub"}, Event: &plan.Event{Stream: "main", On: []plan.Trigger{plan.Alarm}}}}
	p.Weeks, p.Channels, p.Messages, p.Outputs, p.Monitors, p.CallButtons, p.Site.SpecialDays = nil, nil, nil, nil, nil, nil, nil
	p.Activities = []plan.Activity{
		{ID: "often", Name: "Often", Known: "measured", MeanSeconds: 20, OtherwisePerHour: 1,
			Blocks: []plan.RateBlock{{Hours: plan.Hours{From: 7 * 60, To: 10 * 60}, PerHour: 12}}},
		{ID: "door", Name: "Door", Known: "measured", MeanSeconds: 5, OtherwisePerHour: 0.2},
	}
	for k, id := range []string{"a", "b", "c"} {
		c := first
		pre, post := 10.0, 60.0
		c.ID, c.Name, c.Number, c.Activity, c.Nuisance, c.Scene = id, id, k+1, []string{"often", "often", "door"}[k], "", nil
		c.PreSeconds, c.PostSeconds, c.AlarmPreSeconds, c.AlarmPostSeconds = 5, 20, &pre, &post
		c.Detection = plan.Detection{On: true, MinSeconds: 2}
		c.Streams.Main = &plan.Stream{Codec: "h265", Width: 1920, Height: 1080, FPS: 15, GOPSeconds: 2, Rate: plan.Rate{Kind: "variable",
			IdleKbps: 1500, ActiveKbps: 4000, Known: "measured"}}
		c.Streams.Sub = &plan.Stream{Codec: "h265", Width: 640, Height: 360, FPS: 10, GOPSeconds: 2, Rate: plan.Rate{Kind: "variable",
			IdleKbps: 200, ActiveKbps: 400, Known: "measured"}}
		c.AudioKbps, c.Movable, c.Stills = 0, nil, nil
		c.Week = plan.WeekRef{Own: &plan.OwnWeek{Otherwise: "both",
			Blocks: []plan.DutyBlock{{Hours: plan.Hours{From: 0, To: 6 * 60}, Duty: "base"}}}}
		p.Channels = append(p.Channels, c)
	}
	p.AlarmInputs = []plan.AlarmInput{{ID: "contact", Name: "Contact", Recorder: p.Recorders[0].ID, Activity: "door", Contact: "normallyOpen"}}
	p.Effects = []plan.Effect{{When: plan.When{Motion: "a"}, Offsite: []string{"a", "b"}}, {When: plan.When{Motion: "b"},
		Offsite: []string{"b"}}, {When: plan.When{Alarm: "contact"}, Offsite: []string{"a", "c"}}}
	p.Offsite = &plan.Offsite{UplinkKbps: 1e6}
	return p
}

// TestCopiesAreSafeWhenTheEstimateSays plays 200 weeks on dates, and holds what is safe when against the estimate's queue.
func TestCopiesAreSafeWhenTheEstimateSays(t *testing.T) {
	base := copyingPlan(t)
	for _, c := range []struct {
		name, copies string
		load         float64
		hours        *plan.HourList
	}{
		{"a third of the uplink", "", 0.33, nil}, {"sub streams", effect.CopySub, 0.6, nil},
		{"by night", "", 0.15, &plan.HourList{Blocks: []plan.Hours{{From: 0, To: 6 * 60}}}},
	} {
		t.Run(c.name, func(t *testing.T) {
			t.Parallel()
			p := plantest.Copy(t, base)
			p.Offsite.Copy = c.copies
			p.Offsite.UplinkKbps = estimate.Figures(p, nil).Offsite.GigabytesPerDay * 8e6 / 86400 / c.load
			p.Offsite.Hours = c.hours
			site := estimate.Figures(p, nil)
			played := make([][]float64, len(p.Channels))
			for seed := range uint64(200) {
				r, err := Play(context.Background(), site, Ask{From: week.Date{Year: 2026, Month: 5, Day: 4}, Days: 7, Seed: seed})
				if err != nil {
					t.Fatal(err)
				}
				list, err := r.Copies(context.Background())
				if err != nil {
					t.Fatal(err)
				}
				for _, s := range list {
					played[s.Channel] = append(played[s.Channel], float64(s.Waits)/float64(Second))
				}
			}
			for i := range played {
				f := &site.Channels[i]
				slices.Sort(played[i])
				for _, x := range []struct {
					what      string
					got, want float64
				}{{"mean", *f.MeanSafeSeconds, stat.Mean(played[i], nil)},
					{"of nine in ten", *f.NinetySafeSeconds, stat.Quantile(0.9, stat.Empirical, played[i], nil)}} {
					t.Logf("%s, %s: %.0f s, rehearsed %.0f s of %d", f.ID, x.what, x.got, x.want, len(played[i]))
					if math.Abs(x.got-x.want) > 0.1*x.want {
						t.Errorf("%s, %s: %.0f s, rehearsed %.0f s", f.ID, x.what, x.got, x.want)
					}
				}
			}
		})
	}
}

// TestSlowestCopies finds what waits longest, and sends what several events share once, of what is copied.
func TestSlowestCopies(t *testing.T) {
	p := copyingPlan(t)
	p.Offsite.UplinkKbps = 100
	site := estimate.Figures(p, nil)
	r, err := Play(context.Background(), site, Ask{From: week.Date{Year: 2026, Month: 5, Day: 4}, Days: 2, Seed: 1})
	if err != nil {
		t.Fatal(err)
	}
	all, err := r.Copies(context.Background())
	if err != nil || len(all) < 20 {
		t.Fatal(len(all), err)
	}
	slow, err := r.SlowestToSafety(context.Background(), 10)
	if err != nil || len(slow) != 10 || slow[0].Waits < slow[9].Waits {
		t.Fatalf("%v %v", slow, err)
	}
	for _, s := range all {
		if s.Waits > slow[0].Waits || s.Waits < 20*Second {
			t.Fatalf("%+v waits longer than the longest, or less than it records after", s)
		}
	}
	if o := newUplinkCarrier(r, 100); o.After(0, 1000) != 10 || o.After(1e7, 0) != 1e7 || math.Abs(o.After(1e7, 1000)-1e7-10) > 1e-6 {
		t.Error("the way after what is played")
	}
}
