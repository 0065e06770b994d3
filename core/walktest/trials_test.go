package walktest

import (
	"slices"
	"strings"
	"testing"

	"wakefield.example/core/plan"
)

// whole is a plan with everything that is tried.
func whole() *plan.Plan {
	night := &plan.HourList{Blocks: []plan.Hours{{From: 20 * 60, To: 6 * 60}}}
	return &plan.Plan{
		Channels: []plan.Channel{{ID: "a", Number: 1, Name: "Yard", Recorder: "r"}, {ID: "b", Number: 2, Name: "Gate", Recorder: "r",
			Movable: &plan.Movable{Home: "h", Presets: []plan.Preset{{ID: "h", Name: "Home"}, {ID: "g", Name: "The gate"}}}},
			{ID: "c", Number: 3, NoCamera: true}},
		AlarmInputs: []plan.AlarmInput{{ID: "door", Name: "Store door", Recorder: "r", Contact: "normallyClosed"}},
		CallButtons: []plan.CallButton{{ID: "now", Name: "Record now", HoldSeconds: 60, Records: []string{"a"}}},
		Outputs: []plan.Output{{ID: "horn", Name: "Horn", Recorder: "r", Kind: "sounder", HoldSeconds: 30},
			{ID: "idle", Name: "Never", Recorder: "r"}},
		Monitors: []plan.Monitor{{ID: "m", Name: "Guard", DwellSeconds: 20}},
		Messages: []plan.Message{{ID: "mail", Name: "Night watch", To: "the warden", AtMostEverySeconds: 600}},
		Effects: []plan.Effect{
			{When: plan.When{Alarm: "door"}, Record: []string{"a", "b"}, Output: []string{"horn"}, Monitor: []string{"m"}, Hours: night,
				Preset: []plan.PresetTie{{Channel: "b", Preset: "g", DwellSeconds: 15}}, Offsite: []string{"a"}, Still: []string{"a"}},
			{When: plan.When{Lost: "a", PerMonth: 1}, Message: []string{"mail"}},
			{When: plan.When{Tampered: "b", PerMonth: 1}, Message: []string{"mail"}},
			{When: plan.When{UplinkLost: true, PerMonth: 1}, Message: []string{"mail"}},
		},
	}
}

// TestEverythingIsTriedOnce lists trials, with what should be seen.
func TestEverythingIsTriedOnce(t *testing.T) {
	list := Trials(whole())
	var ids []string
	for _, tr := range list {
		ids = append(ids, tr.ID)
		if tr.Do == "" || len(tr.Lines) == 0 || tr.Key == "" || tr.Name == "" {
			t.Errorf("%+v", tr)
		}
	}
	want := []string{"picture:a", "picture:b", "input:door", "button:now", "lost:a", "tampered:b", "uplink:", "output:horn", "monitor:m",
		"preset:b:g", "message:mail"}
	if !slices.Equal(ids, want) {
		t.Errorf("%v", ids)
	}
	door := list[2]
	var words []string
	for _, l := range door.Lines {
		words = append(words, l.Words)
	}
	text := strings.Join(words, "\n")
	for _, say := range []string{"No alarm while it is at rest.", "1 Yard records, all days 20:00", "“Horn” goes on for 30 s, all days",
		"“Guard” shows it for 20 s",
		"2 Gate looks at The gate for 15 s", "1 Yard takes a snapshot", "The footage of 1 Yard is copied off site",
		"A wire that is pulled off is an alarm."} {
		if !strings.Contains(text, say) {
			t.Errorf("%q is not in\n%s", say, text)
		}
	}
	changed := whole()
	changed.Outputs[0].HoldSeconds = 40
	if again := Trials(changed); again[2].Key == door.Key || again[0].Key != list[0].Key {
		t.Error("what changed is not told from what did not")
	}
}

// TestATrialIsRightWhenEveryLineIs follows a contact.
func TestATrialIsRightWhenEveryLineIs(t *testing.T) {
	p := whole()
	trials := Trials(p)[2:3]
	note := func(key string, right bool) Record {
		return Record{ID: "x", About: "input:door", Said: Said{Trial: &TrialSaid{Key: key, Lines: []LineSaw{{ID: "1", Right: right}}}}}
	}
	decide := func(what string) Record {
		return Record{ID: "y", About: "input:door", Said: Said{Decision: &Decision{What: what}}}
	}
	key := trials[0].Key
	for _, test := range []struct {
		records []Record
		want    Status
	}{
		{nil, Open},
		{[]Record{note(key, true)}, Right},
		{[]Record{note(key, false)}, Differs},
		{[]Record{note(key, false), decide("leave")}, Left},
		{[]Record{note(key, false), decide("again")}, Again},
		{[]Record{note(key, false), decide("again"), note(key, true)}, Right},
		{[]Record{note("before the plan changed", true)}, Again},
		{[]Record{note(key, true), {ID: "z", About: "x", Said: Said{Aside: &Aside{}}}}, Open},
	} {
		if r := Reported(p, nil, trials, test.records, 0); r.Trials[0].Status != test.want {
			t.Errorf("%+v: %s, want %s", test.records, r.Trials[0].Status, test.want)
		}
	}
}
