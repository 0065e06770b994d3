package readout

import (
	"math/rand/v2"
	"slices"
	"testing"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// TestWeeksGoToTheDeviceAndBack makes layers of random weeks and weeks of those layers: what is planned stays as it is, and what is
// taken records the same.
func TestWeeksGoToTheDeviceAndBack(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 7))
	p := sample(t)
	to := Target{Recorder: p.Recorders[0].ID}
	random := func() week.Steps[string] {
		steps := week.Constant(p.Duties[r.IntN(len(p.Duties))].ID)
		for range r.IntN(6) {
			from := week.Minute(r.IntN(int(week.Length) - 60))
			steps = steps.Paint(week.Span{From: from, To: min(from+week.Minute(1+r.IntN(3000)), week.Length)}, p.Duties[r.IntN(len(p.Duties))].ID)
		}
		return steps
	}
	for range 200 {
		c := p.Channels[0]
		c.Week = plan.WeekRef{Own: plan.WeekOf(random())}
		layers := LayersOf(p, &c, true, week.Date{})
		if back, made := weekOf(p, &c, layers, true); len(made) > 0 || !slices.Equal(back, c.Week.Own.Steps()) {
			t.Fatalf("a week of %d steps comes back with %d, and %d new duties", len(c.Week.Own.Steps()), len(back), len(made))
		}
		d := asPlanned(p, to.Recorder)
		d.Channels[c.Number-1].Layers = layers
		lines := Hold(p, entered(p), to, d).Lines
		taken, err := edit.After(p, Together(lines)...)
		if err != nil {
			t.Fatal(err)
		}
		if got := LayersOf(taken, taken.Channel(c.ID), true, week.Date{}); inWords(got) != inWords(layers) || !sameHours(got, layers) {
			t.Fatalf("%s was taken, and is %s", inWords(layers), inWords(got))
		}
	}
}

// TestADutyIsMadeWhereThePlanHasNone names it after what it records, and once for all channels.
func TestADutyIsMadeWhereThePlanHasNone(t *testing.T) {
	p := sample(t)
	to := Target{Recorder: p.Recorders[0].ID}
	d := asPlanned(entered(p), to.Recorder)
	pre, post := 4.0, 9.0
	for i := range d.Channels {
		if len(d.Channels[i].Streams) > 0 {
			d.Channels[i].Layers = []Layer{{Stream: plan.Main, On: []plan.Trigger{plan.Motion, plan.Alarm}, PreSeconds: &pre, PostSeconds: &post,
				Hours: []plan.Hours{{From: 60, To: 120}}}}
		}
	}
	taken, err := edit.After(p, Together(Hold(p, entered(p), to, d).Lines)...)
	if err != nil {
		t.Fatal(err)
	}
	if left := Hold(taken, entered(taken), to, d).Lines; len(left) > 0 {
		t.Errorf("%+v", left)
	}
	if err := taken.Check(); err != nil {
		t.Error(err)
	}
	if n := len(taken.Duties) - len(p.Duties); n > 2 {
		t.Errorf("%d duties were made for two kinds of hours", n)
	}
}

// TestGridsAreOne puts areas on the device's grid: what is watched less what is ignored.
func TestGridsAreOne(t *testing.T) {
	cells := func(on string) *plan.AreaCells { return &plan.AreaCells{Columns: 4, Rows: 2, On: on} }
	list := []plan.Area{{ID: "a", Cells: cells("8A==")}, {ID: "b", Cells: cells("DA==")}, {ID: "c", Cells: cells("gA=="), Ignore: true}}
	if got := gridOf(list, 4, 2); got == nil || got.On != "fA==" {
		t.Errorf("%+v", got)
	}
	if got := gridOf(list, 5, 2); got != nil {
		t.Errorf("cells of another grid became %+v", got)
	}
}

// TestWhatRecordsAChannelIsHeld sees a contact that was left out, and one that records what it should not; takes each, and sees it go.
func TestWhatRecordsAChannelIsHeld(t *testing.T) {
	p := sample(t)
	to := Target{Recorder: p.Recorders[0].ID}
	p, err := edit.After(p,
		edit.Edit{AddEffect: &edit.AddEffect{Effect: plan.Effect{When: plan.When{Alarm: "hatch"}, Record: []string{"ramp"}}}})
	if err != nil {
		t.Fatal(err)
	}
	d := asPlanned(entered(p), to.Recorder)
	wanted, _ := Wanted(entered(p), to, d)
	if h := Hold(p, entered(p), to, wanted); len(h.Lines) > 0 {
		t.Fatalf("%+v", h.Lines)
	}
	for _, of := range []struct {
		channel int
		missing bool
		by      func(l *Layer)
	}{
		{2, true, func(l *Layer) {
			l.By = slices.DeleteFunc(slices.Clone(l.By), func(b string) bool { return b == "alarm IN0" })
		}},
		{2, false, func(l *Layer) { l.By = append(slices.Clone(l.By), "motion V3") }},
	} {
		is := *wanted
		is.Channels = slices.Clone(wanted.Channels)
		c := &is.Channels[of.channel-1]
		c.Layers = slices.Clone(c.Layers)
		changed := 0
		for i := range c.Layers {
			on := plan.Motion
			if of.missing {
				on = plan.Alarm
			}
			if slices.Contains(c.Layers[i].On, on) {
				if changed++; of.missing { // the contact is told of one kind of event alone, as another contact is
					c.Layers[i].By = append(slices.Clone(c.Layers[i].By), "alarm OTHER")
				}
				of.by(&c.Layers[i])
			}
		}
		h := Hold(p, entered(p), to, &is)
		if changed == 0 || len(h.Lines) != 1 || h.Lines[0].What != "what records it" || h.Lines[0].Missing != of.missing ||
			len(h.Lines[0].Take) != 1 {
			t.Errorf("%+v", h.Lines)
			continue
		}
		taken, err := edit.After(p, Together(h.Lines)...)
		if err != nil {
			t.Fatal(err)
		}
		for _, l := range Hold(taken, entered(taken), to, &is).Lines {
			if !of.missing {
				t.Errorf("%s was taken, and differs still: %+v", l.What, l)
			}
		}
	}
}

// TestDutiesOfLayersHaveNames names a duty for every way in which layers can be.
func TestDutiesOfLayersHaveNames(t *testing.T) {
	always, motion := Layer{Stream: plan.Main}, Layer{Stream: plan.Sub, On: []plan.Trigger{plan.Motion}}
	alarm := Layer{Stream: plan.Sub, On: []plan.Trigger{plan.Alarm}}
	for want, list := range map[string][]Layer{
		"Off": nil, "Round the clock, main": {always}, "On motion, sub": {motion}, "On motion or alarm, sub": {motion, alarm},
		"Main, sub on motion": {always, motion}, "Main, sub on motion or alarm": {motion, alarm, always},
	} {
		if d := dutyOf(list); d.Name != want {
			t.Errorf("%q, want %q", d.Name, want)
		}
	}
}

// TestAlarmsWithSecondsOfTheirOwnAreALayer gives a duty that hears motion and alarm to a recorder that has seconds by layer.
func TestAlarmsWithSecondsOfTheirOwnAreALayer(t *testing.T) {
	both := &plan.Duty{Event: &plan.Event{Stream: plan.Main, On: []plan.Trigger{plan.Motion, plan.Alarm}}}
	seconds := 40.0
	for _, test := range []struct {
		alarm  *float64
		around bool
		posts  []float64 // of its layers, -1 for one that has none
	}{
		{nil, true, []float64{20}}, {&seconds, true, []float64{20, 40}}, {nil, false, []float64{-1}}, {&seconds, false, []float64{-1}},
	} {
		c := &plan.Channel{PreSeconds: 5, PostSeconds: 20, AlarmPostSeconds: test.alarm}
		var posts []float64
		for _, l := range duties(c, both, test.around) {
			posts = append(posts, plan.Or(l.PostSeconds, -1))
		}
		if !slices.Equal(posts, test.posts) {
			t.Errorf("%+v: %v", test, posts)
		}
	}
}
