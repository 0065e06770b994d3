package resolve

import (
	"slices"
	"testing"

	"wakefield.example/core/activity"
	"wakefield.example/core/footage"
	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
	"wakefield.example/core/week"
)

func read(t *testing.T, name string) *plan.Plan {
	t.Helper()
	return plantest.Read(t, "../estimate/testdata/plans/"+name+".json")
}

// with is a plan with a change to one channel, sharing the rest as edits do.
func with(p *plan.Plan, change func(*plan.Channel)) *plan.Plan {
	next := *p
	next.Channels = slices.Clone(p.Channels)
	change(&next.Channels[0])
	return &next
}

// TestWhatDidNotChangeIsTakenFromBefore changes what nobody else hears of, what is told, and what all hear of.
func TestWhatDidNotChangeIsTakenFromBefore(t *testing.T) {
	p := read(t, "boats")
	before := Of(p, nil)
	own := Of(with(p, func(c *plan.Channel) { c.PreSeconds++ }), before)
	if !own.HearsAsBefore(before) || !own.SameAsBefore(before) {
		t.Error("seconds of one channel are heard by others")
	}
	for i := 1; i < len(p.Channels); i++ {
		if !p.Channels[i].NoCamera && !own.Inputs[i].same(&before.Inputs[i]) {
			t.Errorf("channel %d was resolved anew", i)
		}
	}
	if own.Inputs[0].Equal(&before.Inputs[0]) {
		t.Error("the channel itself is as it was")
	}
	told := *p
	told.Messages = append(slices.Clone(p.Messages), plan.Message{ID: "one-more", Name: "One more", To: "Somebody", AtMostEverySeconds: 60})
	if now := Of(&told, before); !now.HearsAsBefore(before) || now.SameAsBefore(before) {
		t.Error("a message more: others hear of it, or nobody does")
	}
	busier := *p
	busier.Activities = slices.Clone(p.Activities)
	busier.Activities[0].OtherwisePerHour++
	if Of(&busier, before).HearsAsBefore(before) {
		t.Error("an activity that happens more often is heard by nobody")
	}
	if (*Site)(nil).HearsAsBefore(nil) || before.HearsAsBefore(nil) || before.SameAsBefore(nil) {
		t.Error("there was nothing before")
	}
}

// TestWhereProcessesComeFrom asks what is known of activities and bitrates.
func TestWhereProcessesComeFrom(t *testing.T) {
	single, pairs := &plan.Groups{Size: 1, WithinSeconds: 60}, &plan.Groups{Size: 2, WithinSeconds: 60}
	for _, c := range []struct {
		a    plan.Activity
		want Origin
	}{
		{plan.Activity{ID: "a", MeanSeconds: 10}, Origin{ID: "a", Known: "guess", OpenGroups: true}},
		{plan.Activity{ID: "a", MeanSeconds: 10, Known: "guess", Groups: single}, Origin{ID: "a", Known: "guess"}},
		{plan.Activity{ID: "a", MeanSeconds: 10, Known: "surveyed"}, Origin{ID: "a", Known: "surveyed"}},
		{plan.Activity{ID: "a", MeanSeconds: 1e9}, Origin{ID: "a", Known: "guess"}},
		{plan.Activity{ID: "a", MeanSeconds: 10, Known: "measured", Groups: pairs},
			Origin{ID: "a", Known: "measured", Group: activity.Group{Size: 2, Seconds: 60}}},
	} {
		if got := OriginOf(&c.a, false); got.ID != c.want.ID || got.Known != c.want.Known || got.OpenGroups != c.want.OpenGroups ||
			got.Group.Grouped() != c.want.Group.Grouped() {
			t.Errorf("%+v: %+v, want %+v", c.a, got, c.want)
		}
	}
	for _, c := range []struct {
		rate plan.Rate
		want RateKnown
	}{
		{plan.Rate{Kind: "constant"}, RateKnown{Known: "guess"}},
		{plan.Rate{Kind: "variable", Known: "datasheet"}, RateKnown{Known: "datasheet", NightUnsaid: true}},
		{plan.Rate{Kind: "variable", Known: "datasheet", Night: &plan.Night{Factor: 1.3}}, RateKnown{Known: "datasheet"}},
		{plan.Rate{Kind: "variable", Known: "measured"}, RateKnown{Known: "measured"}},
		{plan.Rate{Kind: "modelled"}, RateKnown{Known: "guess", Modelled: true, NightUnsaid: true}},
	} {
		if got := RateKnownOf(&plan.Stream{Rate: c.rate}); got != c.want {
			t.Errorf("%+v: %+v, want %+v", c.rate, got, c.want)
		}
	}
	in := Input{Rates: [3]RateKnown{{Known: "guess", Modelled: true, NightUnsaid: true}}}
	in.Assure()
	if want := [3]RateKnown{{Known: "measured", NightUnsaid: true}}; in.Rates != want {
		t.Errorf("assured: %+v", in.Rates)
	}
	if in.AssureNight(); in.Rates[0].NightUnsaid {
		t.Errorf("the night is assured: %+v", in.Rates)
	}
}

// TestWhatADutyMeans reads duties on a camera that has no third stream.
func TestWhatADutyMeans(t *testing.T) {
	p := read(t, "boats")
	i := slices.IndexFunc(p.Channels, func(c plan.Channel) bool { return !c.NoCamera && c.Streams.Third == nil })
	motion := &plan.Event{On: []plan.Trigger{plan.Motion}, Stream: plan.Main}
	for _, c := range []struct {
		duty        plan.Duty
		admit       footage.Admit
		base, whole bool
	}{
		{plan.Duty{ID: "new-1"}, footage.Nothing, false, false},
		{plan.Duty{ID: "new-2", Event: motion}, footage.Motion, false, false},
		{plan.Duty{ID: "new-3", Base: &plan.Base{Stream: plan.Main}, Event: motion}, footage.Motion, true, true},
		{plan.Duty{ID: "new-4", Base: &plan.Base{Stream: plan.Main, KeyframesOnly: true}, Event: motion}, footage.Motion, true, false},
		{plan.Duty{ID: "new-5", Base: &plan.Base{Stream: plan.Third}}, footage.Nothing, false, false},
		{plan.Duty{ID: "new-6", Event: &plan.Event{On: []plan.Trigger{plan.Motion, plan.Alarm}, Match: "all", Stream: plan.Main}},
			footage.Both, false, false},
	} {
		r := Of(p, nil).With([]plan.Duty{c.duty})
		steps := r.Regimes(&p.Channels[i], week.Constant(c.duty.ID))
		for _, step := range steps {
			if g := step.Value; g.Admit != c.admit || g.HasBase != c.base || g.Whole != c.whole {
				t.Errorf("%s from %v: %+v", c.duty.ID, step.From, g)
			}
		}
	}
}
