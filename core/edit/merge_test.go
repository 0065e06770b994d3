package edit

import (
	"reflect"
	"slices"
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
	"wakefield.example/core/week"
)

func hoursOn(day week.Weekday, from, to week.Clock) []plan.Hours {
	return []plan.Hours{{Days: []week.Weekday{day}, From: from * 60, To: to * 60}}
}

func TestMerge(t *testing.T) {
	paint := func(channel string, day week.Weekday, from, to week.Clock, duty string) Edit {
		return Edit{Paint: &Paint{Channels: []string{channel}, Hours: hoursOn(day, from, to), Duty: duty}}
	}
	array := plantest.Whole(t).Recorders[0].Pools[0]
	array.HotSpares = 1
	tests := []struct {
		name         string
		theirs, mine Edit
		ok           bool
	}{
		{"other channels", paint("c1", 0, 8, 12, "off"), paint("c2", 0, 8, 12, "off"), true},
		{"the same block", paint("c1", 0, 8, 12, "off"), paint("c1", 0, 11, 13, "thrift"), false},
		{"the same block, the same duty", paint("c1", 0, 8, 12, "off"), paint("c1", 0, 8, 12, "off"), false},
		{"other hours of a channel", paint("c1", 0, 8, 12, "off"), paint("c1", 0, 12, 13, "thrift"), true},
		{"the week a channel follows, elsewhere", Edit{Paint: &Paint{Channels: []string{"c1"}, Hours: hoursOn(0, 8, 12), Duty: "off",
			Shared: true}}, paint("c1", 2, 8, 12, "guard"), true},
		{"the week a channel follows, there", Edit{Paint: &Paint{Channels: []string{"c1"}, Hours: hoursOn(0, 8, 12), Duty: "off", Shared: true}},
			paint("c1", 0, 8, 12, "guard"), false},
		{"a channel that is gone", Edit{RemoveChannels: &RemoveChannels{[]string{"c2"}}}, paint("c2", 0, 8, 12, "off"), false},
		{"another setting of a channel", Edit{SetAudio: &SetAudio{[]string{"c1"}, 32}}, paint("c1", 0, 8, 12, "off"), true},
		{"the same setting", Edit{SetAudio: &SetAudio{[]string{"c1"}, 32}}, Edit{SetAudio: &SetAudio{[]string{"c1"}, 64}}, false},
		{"a duty that is gone", Edit{RemoveDuty: &RemoveDuty{"off", ""}}, paint("c1", 0, 8, 12, "off"), false},
		{"a recorder written whole over a new setting of it",
			Edit{SetPool: &SetPool{"r1", array}},
			Edit{SetRecorder: &SetRecorder{Recorder: func() plan.Recorder { r := plantest.Whole(t).Recorders[0]; r.Channels = 16; return r }()}},
			false},
		{"an old copy of a channel over a new setting",
			Edit{SetAudio: &SetAudio{[]string{"c1"}, 32}},
			Edit{SetChannel: &SetChannel{Channel: func() plan.Channel { c := *plantest.Whole(t).Channel("c1"); c.PreSeconds = 1; return c }()}},
			false},
		{"two new things", Edit{SetDuty: &SetDuty{plan.Duty{ID: "n1", Name: "New"}}}, Edit{SetDuty: &SetDuty{plan.Duty{ID: "n2", Name: "New"}}},
			true},
		{"one new thing twice", Edit{SetDuty: &SetDuty{plan.Duty{ID: "n1", Name: "New"}}},
			Edit{SetDuty: &SetDuty{plan.Duty{ID: "n1", Name: "Other"}}}, false},
		{"an edit that never was possible", Edit{SetAudio: &SetAudio{[]string{"c1"}, 32}}, Edit{SetAudio: &SetAudio{[]string{"c7"}, 64}}, false},
	}
	for _, test := range tests {
		base := plantest.Whole(t)
		current, err := After(base, test.theirs)
		if err != nil {
			t.Fatal(err)
		}
		merged, ok := Merge(base, current, []Edit{test.mine})
		if ok != test.ok {
			t.Errorf("%s: merged %t", test.name, ok)
		}
		if ok && changes(base, merged.Plan).minutes == nil && changes(base, merged.Plan).settings == nil {
			t.Errorf("%s: nothing changed", test.name)
		}
	}
}

func TestMergeKeepsBoth(t *testing.T) {
	base := plantest.Whole(t)
	current, err := After(base, Edit{Paint: &Paint{Channels: []string{"c1"}, Hours: hoursOn(0, 8, 12), Duty: "off"}})
	if err != nil {
		t.Fatal(err)
	}
	merged, ok := Merge(base, current, []Edit{{Paint: &Paint{Channels: []string{"c1"}, Hours: hoursOn(1, 8, 12), Duty: "thrift"}}})
	if !ok {
		t.Fatal("different days of a channel did not merge")
	}
	steps := merged.Plan.WeekOf(merged.Plan.Channel("c1")).Steps()
	if steps.At(10*60) != "off" || steps.At(week.Day+10*60) != "thrift" {
		t.Errorf("%v", steps)
	}
}

func TestRepainted(t *testing.T) {
	a := plantest.Whole(t)
	b, err := After(a,
		Edit{Paint: &Paint{Channels: []string{"c1"}, Hours: hoursOn(0, 8, 12), Duty: "off"}},
		Edit{Paint: &Paint{Channels: []string{"c2"}, Hours: hoursOn(1, 8, 9), Duty: "thrift"}}) // which it is already
	if err != nil {
		t.Fatal(err)
	}
	if channels, minutes := Repainted(a, b); channels != 1 || minutes != 240 {
		t.Errorf("%d channels, %d minutes", channels, minutes)
	}
}

// TestMergeNoticesEveryMember changes one value after another: each is seen, and meets
// the same change made by somebody else.
func TestMergeNoticesEveryMember(t *testing.T) {
	p := plantest.Whole(t)
	n := 0
	plantest.EachChange(t, p, func(path string, changed *plan.Plan) {
		if path == ".Format" {
			return
		}
		n++
		mine := changes(p, changed)
		if len(mine.settings) == 0 && len(mine.minutes) == 0 && !weekAsItWas(p, changed) {
			t.Errorf("nobody notices that %s is another", path)
			return
		}
		if !mine.meet(mine) && !weekAsItWas(p, changed) {
			t.Errorf("two changes of %s do not meet", path)
		}
	})
	if n < 200 {
		t.Errorf("only %d values were changed", n)
	}
}

// weekAsItWas tells whether all channels do the same at every minute: a week may be written
// in other ways, and a name that leads nowhere leads to no minute.
func weekAsItWas(a, b *plan.Plan) bool {
	channels, _ := Repainted(a, b)
	same := channels == 0
	for i := range a.Weeks {
		if i >= len(b.Weeks) || b.Weeks[i].ID != a.Weeks[i].ID || differing(a.Weeks[i].Steps(), b.Weeks[i].Steps()) != nil {
			same = false
		}
	}
	other := *b
	other.Channels, other.Weeks = a.Channels, a.Weeks
	return same && reflect.DeepEqual(a, &other)
}

func TestTwoPeopleTieDifferentThings(t *testing.T) {
	base := plantest.Whole(t)
	tie := func(cause, records string) Edit {
		return Edit{AddEffect: &AddEffect{Effect: plan.Effect{When: plan.When{Motion: cause}, Record: []string{records}}}}
	}
	current, err := After(base, tie("c2", "c1"))
	if err != nil {
		t.Fatal(err)
	}
	merged, ok := Merge(base, current, []Edit{tie("c2", "c2")})
	if !ok || len(merged.Plan.Effects) != len(base.Effects)+1 ||
		!slices.Equal(merged.Plan.Effects[len(base.Effects)].Record, []string{"c1", "c2"}) {
		t.Errorf("merged %t: %+v", ok, merged)
	}
	// What one cause does already is changed by both.
	tell := Edit{AddEffect: &AddEffect{Effect: plan.Effect{When: plan.When{Alarm: "a1"}, Message: []string{"m2"}}}}
	untie := Edit{RemoveEffect: &RemoveEffect{Effect: plan.Effect{When: plan.When{Alarm: "a1"}, Record: []string{"c1"}}}}
	if current, err = After(base, tell); err != nil {
		t.Fatal(err)
	}
	if merged, ok = Merge(base, current, []Edit{untie}); !ok || !slices.Equal(merged.Plan.Effects[0].Message, []string{"m1", "m2"}) ||
		!slices.Equal(merged.Plan.Effects[0].Record, []string{"c2"}) {
		t.Errorf("merged %t", ok)
	}
	if current, err = After(base, tie("c2", "c1")); err != nil {
		t.Fatal(err)
	}
	if _, ok := Merge(base, current, []Edit{tie("c2", "c1")}); ok {
		t.Error("the same tie made twice is no conflict")
	}
}

// TestTwoPeopleDrawInOnePicture draws areas, walks and patches of one channel side by side.
func TestTwoPeopleDrawInOnePicture(t *testing.T) {
	triangle := func(x float64) []plan.Point { return []plan.Point{{x, 0}, {x + 0.1, 0}, {x, 0.1}} }
	area := func(id string, x float64) Edit {
		return Edit{SetArea: &SetArea{"c2", plan.Area{ID: id, Name: id, Points: triangle(x)}}}
	}
	walk := func(id string, share float64) Edit {
		return Edit{SetWalk: &SetWalk{"c2", plan.Walk{ID: id, Name: id, Object: "person", SharePercent: share,
			Points: []plan.Point{{0.1, 0.9}, {0.5, 0.9}}}}}
	}
	patch := func(id string, x float64) Edit {
		return Edit{SetPatch: &SetPatch{"c2", plan.Patch{ID: id, Name: id, Activity: "trees", BlobPercent: 1, Points: triangle(x)}}}
	}
	degrees := func(v float64) Edit { return Edit{SetGround: &SetGround{Channel: "c2", VerticalDegrees: &v}} }
	for _, test := range []struct {
		theirs, mine Edit
		together     bool
	}{
		{area("lane", 0.2), area("tree", 0.3), true},
		{area("lane", 0.2), area("lane", 0.3), false},
		{area("new", 0.2), area("newer", 0.3), true},
		{area("lane", 0.2), Edit{RemoveArea: &RemoveArea{"c2", "lane"}}, false},
		{walk("in", 10), walk("out", 20), true},
		{walk("in", 10), walk("in", 20), false},
		{patch("twigs", 0.1), patch("sea", 0.2), true},
		{patch("twigs", 0.1), Edit{RemovePatch: &RemovePatch{"c2", "twigs"}}, false},
		{area("lane", 0.2), walk("in", 10), true},
		{degrees(40), walk("in", 10), true},
		{degrees(40), degrees(45), false},
		{area("lane", 0.2), Edit{CopyAreas: &CopyAreas{"c2", []string{"c1"}}}, true}, // as they are by then
	} {
		base := plantest.Whole(t)
		current, err := After(base, test.theirs)
		if err != nil {
			t.Fatal(err)
		}
		merged, ok := Merge(base, current, []Edit{test.mine})
		if ok != test.together {
			t.Errorf("%+v beside %+v: %v", test.mine, test.theirs, ok)
		}
		if !ok {
			continue
		}
		other, err := After(base, test.theirs, test.mine)
		if err != nil || !reflect.DeepEqual(merged.Plan.Channel("c2").Scene, other.Channel("c2").Scene) {
			t.Errorf("%+v beside %+v: something is lost; %v", test.mine, test.theirs, err)
		}
	}
}
