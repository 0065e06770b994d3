package estimate

import (
	"encoding/json"
	"math"
	"path/filepath"
	"slices"
	"testing"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
	"wakefield.example/core/week"
)

// eachPlan runs a property over all plans in testdata/plans. f gets a plan of its
// own to change.
func eachPlan(t *testing.T, f func(t *testing.T, p *plan.Plan)) {
	files, _ := filepath.Glob("testdata/plans/*.json")
	if len(files) == 0 {
		t.Fatal("no plans")
	}
	for _, file := range files {
		t.Run(filepath.Base(file), func(t *testing.T) { f(t, plantest.Read(t, file)) })
	}
}

// notLess asks that a figure of every channel is at least what it was. What is
// equal in exact numbers may differ by the numerical error. It counts the figures that grew.
func notLess(t *testing.T, what string, before, after *Result) (grew int) {
	t.Helper()
	for i := range before.Channels {
		a, b := before.Channels[i], after.Channels[i]
		for name, pair := range map[string][2]float64{
			"written": {a.WrittenPercent, b.WrittenPercent}, "events": {a.EventPercent, b.EventPercent},
		} {
			if pair[1] < pair[0]*(1-1e-4)-1e-9 {
				t.Errorf("%s: %s of %s fell from %v to %v", what, name, a.ID, pair[0], pair[1])
			}
			if pair[1] > pair[0]*1.01 {
				grew++
			}
		}
	}
	return grew
}

func nearly(t *testing.T, what string, a, b float64) {
	t.Helper()
	if math.Abs(a-b) > 2e-4*math.Abs(a)+1e-9 {
		t.Errorf("%s: %v became %v", what, a, b)
	}
}

func TestMorePreOrPostNeverWritesLess(t *testing.T) {
	morePre, morePost := 0, 0
	eachPlan(t, func(t *testing.T, p *plan.Plan) {
		before := Figures(p, nil)
		for i := range p.Channels {
			p.Channels[i].PreSeconds += 7
		}
		pre := Figures(p, nil)
		morePre += notLess(t, "more pre", before, pre)
		for i := range p.Channels {
			p.Channels[i].PostSeconds += 20
		}
		morePost += notLess(t, "more post", pre, Figures(p, nil))
	})
	if morePre < 20 || morePost < 20 {
		t.Errorf("more seconds before made %d figures grow, more after %d", morePre, morePost)
	}
}

func TestAnotherSourceNeverWritesLess(t *testing.T) {
	grew := 0
	eachPlan(t, func(t *testing.T, p *plan.Plan) {
		before := Figures(p, nil)
		p.AlarmInputs = append(p.AlarmInputs, plan.AlarmInput{ID: "new", Name: "New", Recorder: p.Recorders[0].ID, Activity: p.Activities[0].ID})
		effect := plan.Effect{When: plan.When{Alarm: "new"}}
		for _, c := range p.Channels {
			effect.Record = append(effect.Record, c.ID)
		}
		p.Effects = append(p.Effects, effect)
		grew += notLess(t, "another source", before, Figures(p, nil))
	})
	if grew < 10 {
		t.Errorf("another source made %d figures grow", grew)
	}
}

func TestMergingEqualDutiesChangesNothing(t *testing.T) {
	eachPlan(t, func(t *testing.T, p *plan.Plan) {
		// Every Wednesday becomes a copy of the duty that holds, under another name.
		before := Figures(p, nil)
		copies := slices.Clone(p.Duties)
		for _, d := range copies {
			d.ID += "-again"
			p.Duties = append(p.Duties, d)
		}
		for i := range p.Channels {
			c := &p.Channels[i]
			steps := p.WeekOf(c).Steps()
			for span, duty := range steps.Runs() {
				from, to := max(span.From, 2*week.Day), min(span.To, 3*week.Day)
				if from < to {
					steps = steps.Paint(week.Span{From: from, To: to}, duty+"-again")
				}
			}
			c.Week = plan.WeekRef{Own: plan.WeekOf(steps)}
		}
		after := Figures(p, nil)
		for i := range before.Channels {
			nearly(t, before.Channels[i].ID, before.Channels[i].AverageKbps, after.Channels[i].AverageKbps)
			nearly(t, before.Channels[i].ID, before.Channels[i].WrittenPercent, after.Channels[i].WrittenPercent)
		}
	})
}

// later moves hours by a day.
func later(h plan.Hours) plan.Hours {
	days := h.Days
	if len(days) == 0 {
		return h
	}
	h.Days = nil
	for _, d := range days {
		h.Days = append(h.Days, d.Next())
	}
	return h
}

func TestShiftingTheWeekShiftsTheResult(t *testing.T) {
	eachPlan(t, func(t *testing.T, p *plan.Plan) {
		before := Figures(p, nil)
		for i := range p.Activities {
			for k := range p.Activities[i].Blocks {
				b := &p.Activities[i].Blocks[k]
				b.Hours = later(b.Hours)
			}
		}
		shift := func(w *plan.OwnWeek) {
			for k := range w.Blocks {
				w.Blocks[k].Hours = later(w.Blocks[k].Hours)
			}
		}
		for i := range p.Weeks {
			shift(&p.Weeks[i].OwnWeek)
		}
		for i := range p.Channels {
			if own := p.Channels[i].Week.Own; own != nil {
				shift(own)
			}
			if h := p.Channels[i].Detection.Hours; h != nil {
				for k := range h.Blocks {
					h.Blocks[k] = later(h.Blocks[k])
				}
			}
			areas := p.Channels[i].Detection.List()
			for k := range areas {
				if h := areas[k].Hours; h != nil {
					for l := range h.Blocks {
						h.Blocks[l] = later(h.Blocks[l])
					}
				}
			}
			for _, s := range []*plan.Stream{p.Channels[i].Streams.Main, p.Channels[i].Streams.Sub} {
				if s != nil && s.Rate.Night != nil {
					for k := range s.Rate.Night.Hours.Blocks {
						s.Rate.Night.Hours.Blocks[k] = later(s.Rate.Night.Hours.Blocks[k])
					}
				}
			}
		}
		after := Figures(p, nil)
		for i := range before.Channels {
			a, b := before.Channels[i], after.Channels[i]
			nearly(t, a.ID, a.AverageKbps, b.AverageKbps)
			nearly(t, a.ID, a.Evidence.FullPerDay, b.Evidence.FullPerDay)
			if a.WorstDays != nil {
				nearly(t, a.ID+" at worst", *a.WorstDays, *b.WorstDays)
			}
			for m := week.Minute(15); m < week.Length; m += 97 {
				x, y := before.Week(i).At(m), after.Week(i).At((m+week.Day)%week.Length)
				if math.Abs(float64(x.Total()-y.Total())) > 1+0.001*float64(x.Total()) {
					t.Fatalf("%s at %v: %v, a day later %v", a.ID, m, x.Total(), y.Total())
				}
			}
		}
	})
}

func TestTwiceTheDiskIsTwiceTheRetention(t *testing.T) {
	compared := 0
	eachPlan(t, func(t *testing.T, p *plan.Plan) {
		for i := range p.Channels {
			p.Channels[i].Keep = plan.Keep{}
		}
		before := Figures(p, nil)
		for i := range p.Recorders {
			for j := range p.Recorders[i].Pools {
				for k := range p.Recorders[i].Pools[j].Drives {
					p.Recorders[i].Pools[j].Drives[k].Terabytes *= 2
				}
			}
		}
		after := Figures(p, nil)
		for i := range before.Pools {
			if a, b := before.Pools[i].RetentionDays, after.Pools[i].RetentionDays; a != nil {
				nearly(t, before.Pools[i].ID, 2**a, *b)
				compared++
			}
		}
	})
	if compared < 10 {
		t.Errorf("%d pools compared", compared)
	}
}

func TestOrderOfChannelsChangesNothing(t *testing.T) {
	eachPlan(t, func(t *testing.T, p *plan.Plan) {
		before := Run(p, nil)
		slices.Reverse(p.Channels)
		after := Run(p, nil)
		slices.Reverse(after.Channels)
		for i := range before.Channels {
			a, b := before.Channels[i], after.Channels[i]
			nearly(t, a.ID, a.AverageKbps, b.AverageKbps)
			if (a.LikelyDays == nil) != (b.LikelyDays == nil) || a.LikelyDays != nil &&
				math.Abs(a.LikelyDays.Low-b.LikelyDays.Low) > 1e-9*a.LikelyDays.Low {
				t.Errorf("%s: range %+v became %+v", a.ID, a.LikelyDays, b.LikelyDays)
			}
		}
	})
}

func TestAStrokeGivesWhatAWholeEstimateGives(t *testing.T) {
	eachPlan(t, func(t *testing.T, p *plan.Plan) {
		before := Run(p, nil)
		hours := []plan.Hours{{Days: []week.Weekday{1, 2}, From: 361, To: 1321}}
		changed, err := edit.After(p, edit.Edit{Paint: &edit.Paint{Channels: []string{p.Channels[0].ID}, Hours: hours, Duty: p.Duties[0].ID}},
			edit.Edit{SetAudio: &edit.SetAudio{Channels: []string{p.Channels[0].ID}, AudioKbps: 100}},
		)
		if err != nil {
			t.Fatal(err)
		}
		was, _ := json.Marshal(before)
		a, _ := json.Marshal(Run(changed, before))
		if string(a) == string(was) {
			t.Error("the stroke changed nothing")
		}
		b, _ := json.Marshal(Run(changed, nil))
		if string(a) != string(b) {
			t.Errorf("in steps %s\nat once %s", a, b)
		}
		for i, d := range Run(changed, before).Changed(before) {
			if i > 0 && d.Week {
				t.Errorf("%s was computed anew", changed.Channels[i].ID)
			}
		}
	})
}

func TestSharesOfEvidenceAddUp(t *testing.T) {
	eachPlan(t, func(t *testing.T, p *plan.Plan) {
		site := Figures(p, nil)
		sum := 0.0
		for _, c := range site.Channels {
			e := c.Evidence
			sum += e.MissedPerDay
			if e.EventsPerDay > 0 {
				nearly(t, c.ID, 100, e.FullPercent+e.LowPercent+e.MissedPercent)
				nearly(t, c.ID, e.FullPerDay, e.EventsPerDay*e.FullPercent/100)
			}
		}
		nearly(t, "missed at the site", sum, site.Verdict.Evidence.MissedPerDay)
	})
}

func TestDrawsAreTheSameEveryTime(t *testing.T) {
	p := plantest.Read(t, "testdata/yard-and-gate.json")
	a, _ := json.Marshal(Run(p, nil))
	b, _ := json.Marshal(Run(p, nil))
	if string(a) != string(b) {
		t.Error("two runs differ")
	}
}

// TestRangeIsThatOfItsSpread holds the range of a channel that nothing but its
// datasheet bitrate makes uncertain: ×/÷ 1.2 four times out of five.
func TestRangeIsThatOfItsSpread(t *testing.T) {
	p := depot(1)
	p.Channels[0].Week = plan.WeekRef{Own: &plan.OwnWeek{Otherwise: "full"}}
	p.Channels[0].Streams.Main.Rate = plan.Rate{Kind: "constant", Kbps: 4000, Known: "datasheet"}
	site := Run(p, nil)
	typical, sure := *site.Pools[0].RetentionDays, site.Pools[0].LikelyDays
	for what, ratio := range map[string]float64{"likely": sure.Likely / typical, "low": sure.Low * 1.2 / typical,
		"high": sure.High / 1.2 / typical} {
		if math.Abs(ratio-1) > 0.02 {
			t.Errorf("%s end is off by %v: %+v about %v", what, ratio, sure, typical)
		}
	}
}
