package estimate

import (
	"cmp"
	"math"
	"slices"
	"testing"

	"gonum.org/v1/gonum/stat"

	"wakefield.example/core/effect"
	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
)

// second is what is copied at a second of a channel, kbit/s, and whether it has gone out already.
type second struct {
	active  bool
	brought bool
}

// safeAfter plays the copies of a plan second by second, and returns for each channel how long after its end the footage of
// each event was safe, in weeks after the first.
func (o *playout) safeAfter(hours func(minute int) bool) map[string][]float64 {
	type clip struct {
		channel    string
		over, done float64
		kbit       float64
	}
	var clips []clip
	what := o.plan.Offsite.Copy
	for i := range o.plan.Channels {
		c := &o.plan.Channels[i]
		tied := func(e *plan.Effect) bool { return slices.Contains(e.Offsite, c.ID) }
		type hold struct {
			interval
			over  float64
			alarm bool
		}
		var list []hold
		for _, m := range o.merged(o.effected(func(e *plan.Effect) bool { return tied(e) && e.When.Motion != "" })) {
			list = append(list, hold{interval{m.from - c.PreSeconds, m.to + c.PostSeconds}, m.to, false})
		}
		for _, v := range o.others(tied) {
			list = append(list, hold{interval{v.from - plan.Or(c.AlarmPreSeconds, c.PreSeconds), v.to + plan.Or(c.AlarmPostSeconds, c.PostSeconds)},
				v.to, true})
		}
		slices.SortFunc(list, func(a, b hold) int { return int(math.Copysign(1, a.to-b.to)) })
		seconds := make([]second, int(o.end())+86400)
		for _, h := range o.own[c.ID] {
			for s := int(h.start + 0.5); s < int(h.end+0.5) && s < len(seconds); s++ {
				seconds[s].active = true
			}
		}
		duties := o.duties(c)
		for _, h := range list {
			out := clip{c.ID, h.over, h.to, 0}
			any := false
			for s := max(0, int(h.from+0.5)); s < int(h.to+0.5) && s < len(seconds); s++ {
				d := duties[s/60%10080]
				var stream plan.StreamName
				switch {
				case d.Event != nil && (d.Base != nil || slices.Contains(d.Event.On, plan.Motion) && !h.alarm ||
					slices.Contains(d.Event.On, plan.Alarm) && h.alarm):
					stream = d.Event.Stream
				case d.Base != nil:
					stream = d.Base.Stream
				default:
					continue
				}
				if any = true; seconds[s].brought {
					continue
				}
				if what == effect.CopySub {
					stream = "sub"
				}
				r := c.Streams.Get(stream).Rate
				kbps := r.IdleKbps
				if seconds[s].active {
					kbps = r.ActiveKbps
				}
				seconds[s].brought, out.kbit = true, out.kbit+kbps+c.AudioKbps
			}
			if any {
				clips = append(clips, out)
			}
		}
	}
	slices.SortFunc(clips, func(a, b clip) int { return cmp.Or(cmp.Compare(a.done, b.done), cmp.Compare(a.channel, b.channel)) })
	safe, free := map[string][]float64{}, 0.0
	for _, k := range clips {
		at, left := max(k.done, free), k.kbit/o.plan.Offsite.UplinkKbps
		for left > 1e-9 {
			step := min(left, 60-math.Mod(at, 60))
			if hours(int(at/60) % 10080) {
				left -= step
			}
			at += step
		}
		if free = at; k.done > weekSeconds && k.done < float64(o.weeks+1)*weekSeconds {
			safe[k.channel] = append(safe[k.channel], at-k.over)
		}
	}
	return safe
}

// copyingPlan is a plan of which much is copied: by motion of the channel itself and of others, by an alarm with other seconds
// than motion has, through a duty that listens to both, to one or has a base layer.
func copyingPlan(t *testing.T) *plan.Plan {
	p := plantest.Read(t, "testdata/plans/rush-hour-hall.json")
	p.Offsite = &plan.Offsite{UplinkKbps: 1000}
	p.Duties = []plan.Duty{
		{ID: "both", Name: "Both", Event: &plan.Event{Stream: "main", On: []plan.Trigger{plan.Motion, plan.Alarm}}},
		{ID: "base", Name: "Base", Base: &plan.Base{Stream: "sub"}, Event: &plan.Event{Stream: "main", On: []plan.Trigger{plan.Alarm}}},
		{ID: "alarm", Name: "Alarm", Event: &plan.Event{Stream: "main", On: []plan.Trigger{plan.Alarm}}},
	}
	p.Weeks, p.Effects, p.Messages, p.Outputs, p.Monitors, p.CallButtons, p.Accepted, p.Site.SpecialDays = nil, nil, nil,
		nil, nil, nil, nil, nil
	p.Activities = []plan.Activity{
		{ID: "often", Name: "Often", Known: "measured", MeanSeconds: 20, OtherwisePerHour: 1,
			Blocks: []plan.RateBlock{{Hours: plan.Hours{From: 7 * 60, To: 10 * 60}, PerHour: 12}}},
		{ID: "door", Name: "Door", Known: "measured", MeanSeconds: 5, OtherwisePerHour: 0.2},
		{ID: "families", Name: "Families", Known: "measured", MeanSeconds: 15, OtherwisePerHour: 2,
			Groups: &plan.Groups{Size: 3, WithinSeconds: 60}},
	}
	first := p.Channels[0]
	p.Channels = nil
	for k, id := range []string{"a", "b", "c", "d"} {
		c := first
		c.ID, c.Name, c.Number = id, id, k+1
		c.Activity, c.Nuisance, c.Scene = []string{"often", "families", "often", "door"}[k], "", nil
		c.PreSeconds, c.PostSeconds = 5, 20
		pre, post := 10.0, 60.0
		c.AlarmPreSeconds, c.AlarmPostSeconds = &pre, &post
		c.Detection = plan.Detection{On: true, MinSeconds: 2}
		c.Streams.Main = &plan.Stream{Codec: "h265", Width: 1920, Height: 1080, FPS: 15, GOPSeconds: 2, Rate: plan.Rate{Kind: "variable",
			IdleKbps: 1500, ActiveKbps: 4000, Known: "measured"}}
		c.Streams.Sub = &plan.Stream{Codec: "h265", Width: 640, Height: 360, FPS: 10, GOPSeconds: 2, Rate: plan.Rate{Kind: "variable",
			IdleKbps: 200, ActiveKbps: 400, Known: "measured"}}
		c.AudioKbps, c.Movable, c.Stills = 0, nil, nil
		c.Week = plan.WeekRef{Own: &plan.OwnWeek{Otherwise: "both", Blocks: []plan.DutyBlock{
			{Hours: plan.Hours{From: 0, To: 6 * 60}, Duty: "base"}, {Hours: plan.Hours{From: 12 * 60, To: 14 * 60}, Duty: "alarm"}}}}
		p.Channels = append(p.Channels, c)
	}
	p.AlarmInputs = []plan.AlarmInput{{ID: "contact", Name: "Contact", Recorder: p.Recorders[0].ID, Activity: "door", Contact: "normallyOpen"}}
	p.Effects = []plan.Effect{
		{When: plan.When{Motion: "a"}, Offsite: []string{"a", "b"}}, {When: plan.When{Motion: "b"}, Offsite: []string{"b"}},
		{When: plan.When{Motion: "c"}, Offsite: []string{"c"}}, {When: plan.When{Alarm: "contact"}, Offsite: []string{"a", "d"}},
	}
	return p
}

// TestPlayedCopiesAgree plays the queue of the copies with other luck, at uplinks that they fill more and less, and by night.
func TestPlayedCopiesAgree(t *testing.T) {
	const weeks = 150
	base := copyingPlan(t)
	base.Offsite.UplinkKbps = 1e6
	perWeek := Figures(base, nil).Offsite.GigabytesPerDay * 7 * 8e6
	sub := plantest.Copy(t, base)
	sub.Offsite.Copy = effect.CopySub
	perWeekSub := Figures(sub, nil).Offsite.GigabytesPerDay * 7 * 8e6
	nights := func(minute int) bool { return minute%1440 < 6*60 }
	always := func(int) bool { return true }
	for _, c := range []struct {
		name  string
		plan  *plan.Plan
		kbps  float64
		hours func(int) bool
	}{
		{"7 %", base, perWeek / 604800 / 0.07, always}, {"30 %", base, perWeek / 604800 / 0.3, always},
		{"60 %", base, perWeek / 604800 / 0.6, always},
		{"85 %", base, perWeek / 604800 / 0.85, always}, {"sub streams", sub, perWeekSub / 604800 / 0.6, always},
		{"by night", base, perWeek / (7 * 6 * 3600) / 0.4, nights},
	} {
		t.Run(c.name, func(t *testing.T) {
			p := plantest.Copy(t, c.plan)
			p.Offsite.UplinkKbps = c.kbps
			if c.name == "by night" {
				p.Offsite.Hours = &plan.HourList{Blocks: []plan.Hours{{From: 0, To: 6 * 60}}}
			}
			site := Figures(p, nil)
			played := draw(p, weeks, 13, nil).safeAfter(c.hours)
			for i := range p.Channels {
				f := &site.Channels[i]
				list := played[f.ID]
				slices.Sort(list)
				for _, x := range []struct {
					what      string
					got, want float64
				}{{"mean", *f.MeanSafeSeconds, stat.Mean(list, nil)}, {"of nine in ten", *f.NinetySafeSeconds,
					stat.Quantile(0.9, stat.Empirical, list, nil)},
					{"of 99 in 100", *f.WorstSafeSeconds, stat.Quantile(0.99, stat.Empirical, list, nil)}} {
					t.Logf("%s %s: %.0f s, played %.0f s of %d", f.ID, x.what, x.got, x.want, len(list))
					if math.Abs(x.got-x.want) > 0.1*x.want {
						t.Errorf("%s %s: %.0f s, played %.0f s", f.ID, x.what, x.got, x.want)
					}
				}
			}
		})
	}
	p := plantest.Copy(t, base)
	p.Offsite.UplinkKbps = perWeek / 604800 / 1.05
	site := Figures(p, nil)
	if f := site.Channels[0]; f.SafeSeconds == nil || f.MeanSafeSeconds != nil || f.WorstSafeSeconds != nil ||
		site.Offsite.WorstWaitSeconds != nil {
		t.Error("an uplink that never catches up has a longest wait")
	}
}
