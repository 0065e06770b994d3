package check

import (
	"testing"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// enteredRules are plans of which something cannot be entered as planned.
func enteredRules() []ruleTest {
	takes := func(t plan.Takes, spoil func(c *plan.Channel)) func(*plan.Plan, *plan.Channel) {
		return func(p *plan.Plan, c *plan.Channel) {
			p.Recorders[0].Takes = &t
			spoil(c)
		}
	}
	nothing := func(*plan.Channel) {}
	drawnArea := func(c *plan.Channel) {
		a := square("gate", 0.21, 0.22, 0.7, 0.8)
		a.SensitivityPercent, a.MinSeconds = ptr(44.0), ptr(1.0)
		c.Detection.Areas = &plan.Areas{List: []plan.Area{a}}
	}
	days := func(blocks ...plan.DutyBlock) func(c *plan.Channel) {
		return func(c *plan.Channel) { c.Week = own("motion", blocks...) }
	}
	block := func(from, to int, duty string) plan.DutyBlock {
		return plan.DutyBlock{Hours: plan.Hours{From: clockOf(from), To: clockOf(to)}, Duty: duty}
	}
	return []ruleTest{
		{"entered-times", Hint, takes(plan.Takes{StepMinutes: 30}, days(block(465, 970, "clock"))),
			"changes at times that Recorder does not take"},
		{"entered-periods", Hint, takes(plan.Takes{PeriodsPerDay: 3},
			days(block(360, 480, "clock"), block(600, 720, "clock"), block(900, 960, "clock"))), "changes more often a day than Recorder takes"},
		{"entered-layers", Hint, takes(plan.Takes{Layers: "one"}, func(c *plan.Channel) { c.Week = own("low") }),
			"has a base and an event layer at once, and Recorder takes one"},
		{"entered-seconds", Hint, takes(plan.Takes{PreSeconds: []float64{0, 10}}, nothing),
			"pre- or post-event times that Recorder does not offer"},
		{"entered-frames", Hint, takes(plan.Takes{FramesPerSecond: []float64{8, 12, 25}}, nothing), "frame rates that Recorder does not offer"},
		{"entered-sensitivity", Hint, takes(plan.Takes{SensitivitySteps: 10}, drawnArea), "a sensitivity that Recorder does not offer"},
		{"entered-outlines", Hint, takes(plan.Takes{Areas: "grid", GridColumns: 22, GridRows: 18}, drawnArea),
			"cannot be entered at Recorder as they are drawn"},
		{"entered-areaHours", Hint, takes(plan.Takes{Areas: "grid"}, drawnArea),
			"have hours or durations of their own, which Recorder does not take"},
	}
}

func clockOf(minutes int) week.Clock { return week.Clock(minutes) }

// TestEveryChoiceMends makes every other way to mend what cannot be entered: its finding goes.
func TestEveryChoiceMends(t *testing.T) {
	choices := 0
	for _, test := range enteredRules() {
		p := soundPlan(t)
		test.spoil(p, &p.Channels[0])
		f := find(findings(p), test.rule)
		if f == nil {
			t.Fatalf("%s was not found", test.rule)
		}
		for _, choice := range f.Choices {
			choices++
			mended, err := edit.After(p, choice.Edits...)
			if err != nil {
				t.Errorf("%s: %q fails: %v", test.rule, choice.Label, err)
				continue
			}
			if again := find(findings(mended), test.rule); again != nil {
				t.Errorf("%s: after %q it is found again: %+v", test.rule, choice.Label, again)
			}
		}
	}
	if choices < 8 {
		t.Errorf("only %d choices", choices)
	}
}

// TestWhatIsEnteredAlikeIsPlannedInTheNamedWeek mends channels that follow one named week by changing that.
func TestWhatIsEnteredAlikeIsPlannedInTheNamedWeek(t *testing.T) {
	p := soundPlan(t)
	copies(p)
	p.Recorders[0].Takes = &plan.Takes{StepMinutes: 30}
	p.Weeks = []plan.Week{{ID: "w", Name: "All", OwnWeek: *own("motion",
		plan.DutyBlock{Hours: plan.Hours{From: 465, To: 970}, Duty: "clock"}).Own}}
	for i := range p.Channels {
		p.Channels[i].Week = plan.WeekRef{Named: "w"}
	}
	f := find(findings(p), "entered-times")
	if f == nil || len(f.Places) != 3 {
		t.Fatalf("%+v", f)
	}
	mended, err := edit.After(p, f.Fix.Edits...)
	if err != nil {
		t.Fatal(err)
	}
	for i := range mended.Channels {
		if !mended.Channels[i].Week.Follows("w") {
			t.Errorf("%s follows the week no more", mended.Channels[i].ID)
		}
	}
	if again := find(findings(mended), "entered-times"); again != nil {
		t.Errorf("%+v", again)
	}
}
