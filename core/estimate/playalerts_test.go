package estimate

import (
	"math"
	"path/filepath"
	"slices"
	"testing"

	"gonum.org/v1/gonum/stat"

	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
)

// moment is a trigger as effects know it, and what it comes from: motion of a channel, or another cause.
type moment struct {
	interval
	cause string
}

// effected are the triggers of some effects, each once, in order.
func (o *playout) effected(of func(*plan.Effect) bool) (out []moment) {
	for i := range o.plan.Channels {
		from := o.plan.Channels[i].ID
		for k := range o.own[from] {
			h := &o.own[from][k]
			// What several ties of one channel let through is one trigger; a monitor tells areas apart.
			causes := map[string]bool{}
			for e := range o.plan.Effects {
				if f := &o.plan.Effects[e]; of(f) && o.causes(f, from, h) {
					causes[f.When.Area] = true
				}
			}
			for area := range causes {
				out = append(out, moment{interval{h.trigger, h.end}, from + "/" + area})
			}
		}
	}
	for i := range o.plan.Effects {
		e := &o.plan.Effects[i]
		if of(e) && e.When.Motion == "" {
			for _, v := range o.others(func(f *plan.Effect) bool { return f == e }) {
				out = append(out, moment{v, e.String()})
			}
		}
	}
	slices.SortFunc(out, func(a, b moment) int { return int(math.Copysign(1, a.from-b.from)) })
	return out
}

func during(h *plan.HourList, list []moment) (out []moment) {
	for _, m := range list {
		in := h == nil
		if h != nil {
			for _, b := range h.Blocks {
				in = in || covers(b, int(m.from/60)%10080)
			}
		}
		if in {
			out = append(out, m)
		}
	}
	return out
}

// spaced are the moments that go out, two never closer together than an interval.
func spaced(list []moment, interval float64) (out []moment) {
	last := math.Inf(-1)
	for _, m := range list {
		if m.from-last >= interval {
			last = m.from
			out = append(out, m)
		}
	}
	return out
}

// byWeek counts in each week, after the first.
func (o *playout) byWeek(list []moment) []float64 {
	out := make([]float64, o.weeks)
	for _, m := range list {
		if w := int(m.from/weekSeconds) - 1; m.from >= weekSeconds && w < o.weeks {
			out[w]++
		}
	}
	return out
}

// share is the part of each week that intervals cover.
func (o *playout) share(list []interval) []float64 {
	out := make([]float64, o.weeks)
	for _, v := range union(list) {
		for w := range out {
			from, to := max(v.from, float64(w+1)*weekSeconds), min(v.to, float64(w+2)*weekSeconds)
			out[w] += max(0, to-from) / weekSeconds
		}
	}
	return out
}

// stillsOf are the stills that a channel takes.
func (o *playout) stillsOf(c *plan.Channel) (out []moment) {
	s := c.Stills
	if s.Mode == "timed" {
		for at := 0.0; at < o.end(); at += s.EverySeconds {
			out = append(out, moment{interval{at, at}, ""})
		}
		return during(s.Hours, out)
	}
	var active []moment
	for k := range o.own[c.ID] {
		if h := &o.own[c.ID][k]; !math.IsNaN(h.trigger) {
			active = append(active, moment{interval{h.trigger, h.end}, ""})
		}
	}
	active = append(active, o.effected(func(e *plan.Effect) bool { return slices.Contains(e.Still, c.ID) })...)
	var list []interval
	for _, m := range during(s.Hours, active) {
		list = append(list, interval{m.from, m.to + 1e-6})
	}
	last := math.Inf(-1)
	for _, v := range union(list) {
		for at := max(v.from, last+s.EverySeconds); at < v.to; at += s.EverySeconds {
			last = at
			out = append(out, moment{interval{at, at}, ""})
		}
	}
	return out
}

func hasMessage(id string) func(*plan.Effect) bool {
	return func(e *plan.Effect) bool { return slices.Contains(e.Message, id) }
}

// TestPlayedAlertsAgree plays out what causes do beside recording.
func TestPlayedAlertsAgree(t *testing.T) {
	const weeks = 80
	files, _ := filepath.Glob("testdata/plans/*.json")
	held := 0
	for _, file := range files {
		p := plantest.Read(t, file)
		if len(p.Messages)+len(p.Outputs)+len(p.Monitors) == 0 {
			continue
		}
		held++
		t.Run(filepath.Base(file), func(t *testing.T) {
			t.Parallel()
			site := Figures(p, nil)
			o := draw(p, weeks, 3, nil)
			near := func(id, what string, got float64, values []float64, of float64) {
				t.Helper()
				mean, deviation := stat.MeanStdDev(values, nil)
				mean, deviation = mean*of, deviation*of
				sampling := max(deviation/math.Sqrt(weeks), math.Sqrt(math.Abs(got)*of/weeks)/3)
				if off := math.Abs(got - mean); off > 4*sampling+0.02*mean {
					t.Errorf("%s %s: %.4f, played %.4f ± %.4f", id, what, got, mean, sampling)
				}
			}
			for k, m := range p.Messages {
				all := o.merged(o.effected(hasMessage(m.ID)))
				in := during(m.Hours, all)
				out := o.byWeek(spaced(in, m.AtMostEverySeconds))
				back, quiet := o.byWeek(in), o.byWeek(all)
				for w := range out {
					quiet[w] -= back[w]
					back[w] -= out[w]
				}
				near(m.ID, "a day", site.Messages[k].PerDay, out, 1.0/7)
				near(m.ID, "held back", site.Messages[k].HeldBackPerDay, back, 1.0/7)
				near(m.ID, "quiet", site.Messages[k].QuietPerDay, quiet, 1.0/7)
			}
			for k, out := range p.Outputs {
				in := during(out.Hours, o.merged(o.effected(func(e *plan.Effect) bool { return slices.Contains(e.Output, out.ID) })))
				if !out.Prolonged {
					in = spaced(in, out.HoldSeconds)
				}
				var on []interval
				for _, m := range in {
					on = append(on, interval{m.from, m.from + out.HoldSeconds})
				}
				var begins []moment
				for _, v := range union(on) {
					begins = append(begins, moment{v, ""})
				}
				near(out.ID, "times", site.Outputs[k].PerDay, o.byWeek(begins), 1.0/7)
				near(out.ID, "share on", site.Outputs[k].OnPercent, o.share(on), 100)
			}
			for k, v := range p.Monitors {
				in := o.effected(func(e *plan.Effect) bool { return slices.Contains(e.Monitor, v.ID) })
				var on []interval
				var cut []moment
				for i, m := range in {
					on = append(on, interval{m.from, m.from + v.DwellSeconds})
					for _, next := range in[i+1:] {
						if next.from > m.from+v.DwellSeconds {
							break
						}
						if next.cause != m.cause {
							cut = append(cut, m)
							break
						}
					}
				}
				near(v.ID, "showings", site.Monitors[k].PerDay, o.byWeek(in), 1.0/7)
				near(v.ID, "share on", site.Monitors[k].OnPercent, o.share(on), 100)
				near(v.ID, "cut short", site.Monitors[k].CutShortPercent*site.Monitors[k].PerDay/100, o.byWeek(cut), 1.0/7)
			}
			for i := range p.Channels {
				c := &p.Channels[i]
				if c.Stills != nil {
					near(c.ID, "stills", *site.Channels[i].StillsPerDay, o.byWeek(o.stillsOf(c)), 1.0/7)
				}
				if c.Movable != nil {
					near(c.ID, "away", *site.Channels[i].AwayPercent, o.share(o.away(c)), 100)
				}
			}
			if p.Offsite != nil {
				near("offsite", "GB a day", site.Offsite.GigabytesPerDay, o.copied(), 1000.0/8/1e9/7)
			}
		})
	}
	if held < 2 {
		t.Error("hardly any plan causes anything but recording")
	}
}

// away is when a movable camera looks elsewhere than home.
func (o *playout) away(c *plan.Channel) (out []interval) {
	if c.Movable == nil {
		return nil
	}
	for e := range o.plan.Effects {
		for _, sent := range o.plan.Effects[e].Preset {
			if sent.Channel == c.ID && sent.Preset != c.Movable.Home {
				for _, m := range o.effected(func(f *plan.Effect) bool { return f == &o.plan.Effects[e] }) {
					out = append(out, interval{m.from, m.from + sent.DwellSeconds})
				}
			}
		}
	}
	return out
}

// merged counts a trigger once that comes by several ties of one channel.
func (o *playout) merged(list []moment) (out []moment) {
	seen := map[interval]bool{}
	for _, m := range list {
		if !seen[m.interval] {
			seen[m.interval] = true
			out = append(out, m)
		}
	}
	return out
}

// copied is what goes off site in each week, kbit: the footage around what is tied to the copy, as the duty writes it.
func (o *playout) copied() []float64 {
	sum := make([]float64, o.weeks)
	for i := range o.plan.Channels {
		c := &o.plan.Channels[i]
		tied := func(e *plan.Effect) bool { return slices.Contains(e.Offsite, c.ID) }
		var motion, alarm, active []interval
		for _, m := range o.effected(func(e *plan.Effect) bool { return tied(e) && e.When.Motion != "" }) {
			motion = append(motion, interval{m.from - c.PreSeconds, m.to + c.PostSeconds})
		}
		for _, v := range o.others(tied) {
			alarm = append(alarm, interval{v.from - plan.Or(c.AlarmPreSeconds, c.PreSeconds), v.to + plan.Or(c.AlarmPostSeconds, c.PostSeconds)})
		}
		for _, h := range o.own[c.ID] {
			active = append(active, interval{h.start, h.end})
		}
		duties := o.duties(c)
		for m, d := range duties {
			changed := plan.Duty{Event: d.Event}
			if d.Base != nil {
				changed.Event = &plan.Event{Stream: d.Base.Stream, FPS: d.Base.FPS, On: []plan.Trigger{plan.Motion, plan.Alarm}}
				if d.Event != nil {
					changed.Event.Stream, changed.Event.FPS = d.Event.Stream, d.Event.FPS
				}
			}
			duties[m] = &changed
		}
		out := make([]tally, o.weeks)
		o.lay(c, [4][]interval{union(motion), union(alarm), nil, union(active)}, duties, out)
		for w := range out {
			sum[w] += out[w].kbit
		}
	}
	return sum
}
