package plan

import (
	"reflect"
	"slices"
	"testing"

	"wakefield.example/core/document"
)

// TestCauses has every cause that there is, as people call it and by its ids.
func TestCauses(t *testing.T) {
	p := example(t)
	for _, test := range []struct {
		when        When
		words, text string
	}{
		{When{Motion: "c1"}, "Motion on Yard", "motion on c1"},
		{When{Motion: "c2", Area: "lane"}, "Motion in Lane on Gate", "motion in lane on c2"},
		{When{Motion: "c2", Area: "gone"}, "Motion in gone on Gate", "motion in gone on c2"},
		{When{Alarm: "a1"}, "Gate contact", "alarm a1"},
		{When{Alarm: "gone"}, "gone", "alarm gone"},
		{When{Lost: "c1", PerMonth: 0.5}, "Picture lost on Yard", "picture lost on c1"},
		{When{Tampered: "c2", PerMonth: 0.1}, "Tampering with Gate", "tampering with c2"},
		{When{Button: "b1"}, "Duress button", "button b1"},
		{When{Button: "gone"}, "gone", "button gone"},
		{When{UplinkLost: true, PerMonth: 1}, "Uplink lost", "uplink lost"},
		{When{Motion: "gone"}, "Motion on gone", "motion on gone"},
	} {
		if got := p.CauseInWords(test.when); got != test.words {
			t.Errorf("%+v is called %q, want %q", test.when, got, test.words)
		}
		if got := (Effect{When: test.when}).String(); got != test.text {
			t.Errorf("%+v is written %q, want %q", test.when, got, test.text)
		}
		if counted := test.when.PerMonth > 0; test.when.Counted() != counted {
			t.Errorf("%s: counted is %v", test.words, !counted)
		}
		often := test.when
		often.PerMonth += 3
		if !often.Same(test.when) {
			t.Errorf("%s more often is another cause", test.words)
		}
	}
	if (When{Motion: "c2", Area: "lane"}).Same(When{Motion: "c2"}) {
		t.Error("motion in one area is motion in any")
	}
}

// TestEffectsTakenApart puts the ties of every effect together again.
func TestEffectsTakenApart(t *testing.T) {
	for _, e := range example(t).Effects {
		single := e.Single()
		if len(single) != e.Ties() || e.Idle() != (len(single) == 0) {
			t.Errorf("%v: %d ties taken apart into %d", e, e.Ties(), len(single))
		}
		whole := Effect{When: e.When, Hours: e.Hours}
		for _, one := range single {
			if one.Ties() != 1 || !one.When.Same(e.When) || !one.Hours.Same(e.Hours) {
				t.Errorf("%v: %+v is not one tie of it", e, one)
			}
			for k, l := range one.Lists() {
				*whole.Lists()[k].IDs = append(*whole.Lists()[k].IDs, *l.IDs...)
			}
			whole.Preset = append(whole.Preset, one.Preset...)
		}
		if !reflect.DeepEqual(whole, e) {
			t.Errorf("%+v becomes %+v", e, whole)
		}
	}
}

func TestHoursOfEffects(t *testing.T) {
	night := &HourList{Blocks: []Hours{{From: 20 * 60, To: 6 * 60}}}
	halves := &HourList{Blocks: []Hours{{From: 0, To: 6 * 60}, {From: 20 * 60, To: 24 * 60}}}
	always := (*HourList)(nil)
	if !night.Same(halves) || night.Same(always) || !always.Same(nil) || night.Same(&HourList{}) {
		t.Error("hours are compared by how they are written")
	}
	for h, want := range map[*HourList]float64{always: 1, night: 10.0 / 24, {}: 0} {
		if got := h.Holding().Share(func(on bool) bool { return on }); got != want {
			t.Errorf("%+v holds %v of the week, want %v", h, got, want)
		}
	}
}

// TestNoListOfAnEffectIsLeftOut asks that no list of ids of an effect is forgotten where effects are taken apart.
func TestNoListOfAnEffectIsLeftOut(t *testing.T) {
	var kinds []string
	for _, l := range new(Effect).Lists() {
		kinds = append(kinds, l.Kind)
	}
	for _, m := range document.Members(reflect.TypeFor[Effect]()) {
		if m.Type == reflect.TypeFor[[]string]() && !slices.Contains(kinds, m.Name) {
			t.Errorf("%s is a list of ids that Lists leaves out", m.Name)
		}
	}
}
