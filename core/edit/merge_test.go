package edit

import (
	"testing"

	"wakefield/core/plan"
	"wakefield/core/week"
)

func hoursOn(day week.Weekday, from, to week.Clock) []plan.Hours {
	return []plan.Hours{{Days: []week.Weekday{day}, From: from * 60, To: to * 60}}
}

func TestMerge(t *testing.T) {
	paint := func(channel string, day week.Weekday, from, to week.Clock, duty string) Edit {
		return Edit{Paint: &Paint{Channels: []string{channel}, Hours: hoursOn(day, from, to), Duty: duty}}
	}
	array := example(t).Recorders[0].Pools[0]
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
		{"the week a channel follows, elsewhere", Edit{Paint: &Paint{Channels: []string{"c1"}, Hours: hoursOn(0, 8, 12), Duty: "off", Shared: true}}, paint("c1", 2, 8, 12, "guard"), true},
		{"the week a channel follows, there", Edit{Paint: &Paint{Channels: []string{"c1"}, Hours: hoursOn(0, 8, 12), Duty: "off", Shared: true}}, paint("c1", 0, 8, 12, "guard"), false},
		{"a channel that is gone", Edit{RemoveChannels: &RemoveChannels{[]string{"c2"}}}, paint("c2", 0, 8, 12, "off"), false},
		{"another setting of a channel", Edit{SetAudio: &SetAudio{[]string{"c1"}, 32}}, paint("c1", 0, 8, 12, "off"), true},
		{"the same setting", Edit{SetAudio: &SetAudio{[]string{"c1"}, 32}}, Edit{SetAudio: &SetAudio{[]string{"c1"}, 64}}, false},
		{"a duty that is gone", Edit{RemoveDuty: &RemoveDuty{"off", ""}}, paint("c1", 0, 8, 12, "off"), false},
		{"a recorder written whole over a new setting of it",
			Edit{SetPool: &SetPool{"r1", array}},
			Edit{SetRecorder: &SetRecorder{Recorder: func() plan.Recorder { r := example(t).Recorders[0]; r.Channels = 16; return r }()}}, false},
		{"an old copy of a channel over a new setting",
			Edit{SetAudio: &SetAudio{[]string{"c1"}, 32}},
			Edit{SetChannel: &SetChannel{Channel: func() plan.Channel { c := *example(t).Channel("c1"); c.PreSeconds = 1; return c }()}}, false},
		{"two new things", Edit{SetDuty: &SetDuty{plan.Duty{ID: "n1", Name: "New"}}}, Edit{SetDuty: &SetDuty{plan.Duty{ID: "n2", Name: "New"}}}, true},
		{"one new thing twice", Edit{SetDuty: &SetDuty{plan.Duty{ID: "n1", Name: "New"}}}, Edit{SetDuty: &SetDuty{plan.Duty{ID: "n1", Name: "Other"}}}, false},
		{"an edit that never was possible", Edit{SetAudio: &SetAudio{[]string{"c1"}, 32}}, Edit{SetAudio: &SetAudio{[]string{"c7"}, 64}}, false},
	}
	for _, test := range tests {
		base := example(t)
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
	base := example(t)
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
	a := example(t)
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
