package plan

import (
	"encoding/json"
	"reflect"
	"strings"
	"testing"

	"wakefield/core/week"
)

func example(t testing.TB) *Plan {
	t.Helper()
	p, err := Read(whole(t))
	if err != nil {
		t.Fatal(err)
	}
	return p
}

func ptr[T any](v T) *T { return &v }

var evenings = []Hours{{Days: []week.Weekday{week.Tuesday, week.Wednesday}, From: 18 * 60, To: 22 * 60}}

func TestEdits(t *testing.T) {
	tests := []struct {
		name     string
		edit     Edit
		sentence string
		holds    func(p *Plan) bool
	}{
		{"paint an own week", Edit{Paint: &Paint{Channels: []string{"c1", "c2"}, Hours: evenings, Duty: "off"}},
			"Yard and Gate, Tue-Wed 18:00-22:00: Off",
			func(p *Plan) bool {
				w := p.Channel("c1").Week.Own
				return w != nil && w.Steps().At(week.Day+20*60) == "off" && w.Steps().At(20*60) == "frames" &&
					len(w.Blocks) == 1 && len(p.Weeks[0].Blocks) == 0
			}},
		{"paint the named week", Edit{Paint: &Paint{Channels: []string{"c1"}, Hours: evenings, Duty: "off", Shared: true}},
			"The week followed by Yard, Tue-Wed 18:00-22:00: Off",
			func(p *Plan) bool { return p.Channel("c1").Week.Named == "yard" && len(p.Weeks[0].Blocks) == 1 }},
		{"copy a day", Edit{CopyDay: &CopyDay{[]string{"c2"}, week.Sunday, []week.Weekday{week.Monday, week.Tuesday}}},
			"Gate: Sunday copied onto Mon, Tue",
			func(p *Plan) bool {
				steps := p.Channel("c2").Week.Own.Steps()
				return steps.At(12*60) == "sure" && steps.At(week.Day+2*60) == "sure" && steps.At(2*week.Day+2*60) == "guard" && steps.At(2*week.Day+12*60) == "thrift"
			}},
		{"copy a week", Edit{CopyWeek: &CopyWeek{"c2", []string{"c1"}}},
			"Yard: the week of Gate",
			func(p *Plan) bool { return p.Channel("c1").Week.Named == "gate" }},
		{"follow a week", Edit{FollowWeek: &FollowWeek{[]string{"c1"}, "gate"}},
			`Yard: follow the week "Gate"`,
			func(p *Plan) bool { return p.Channel("c1").Week.Named == "gate" }},
		{"pre and post", Edit{SetTimes: &SetTimes{Channels: []string{"c1", "c2"}, PreSeconds: ptr(3.0), AlarmPostSeconds: ptr(90.0)}},
			"Yard and Gate: 3 s before an event, 90 s after an alarm",
			func(p *Plan) bool {
				c := p.Channel("c2")
				return c.PreSeconds == 3 && c.PostSeconds == 30 && c.AlarmPostEvent() == 90 && c.AlarmPreEvent() == 3
			}},
		{"post alone", Edit{SetTimes: &SetTimes{Channels: []string{"c1"}, PostSeconds: ptr(45.0)}},
			"Yard: 45 s after an event",
			func(p *Plan) bool { return p.Channel("c1").PostSeconds == 45 && p.Channel("c1").PreSeconds == 10 }},
		{"bitrate", Edit{SetRate: &SetRate{[]string{"c2"}, Sub, Rate{Kind: "constant", Kbps: 700, Known: "measured"}}},
			"Gate: sub stream 700 kbit/s constant (measured)",
			func(p *Plan) bool {
				return p.Channel("c2").Streams.Sub.Rate.Kbps == 700 && p.Channel("c2").Streams.Main.Rate.Kbps == 6144
			}},
		{"detection", Edit{SetDetection: &SetDetection{[]string{"c1"}, Detection{On: false}}},
			"Yard: detection off",
			func(p *Plan) bool { return !p.Channel("c1").Detection.On && p.Channel("c2").Detection.On }},
		{"keep", Edit{SetKeep: &SetKeep{[]string{"c1"}, Keep{AtLeastDays: 30, QuotaGB: 500}}},
			"Yard: keep at least 30 days, at most 500 GB",
			func(p *Plan) bool { return p.Channel("c1").Keep.QuotaGB == 500 }},
		{"audio", Edit{SetAudio: &SetAudio{[]string{"c2"}, 0}},
			"Gate: no audio",
			func(p *Plan) bool { return p.Channel("c2").AudioKbps == 0 }},
		{"activity", Edit{SetActivity: &SetActivity{Activity{ID: "trees", Name: "Wind in the hedge", Known: "measured", MeanSeconds: 8, OtherwisePerHour: 3}}},
			"Activity Wind in the hedge: 72 events a day of 8 s, measured",
			func(p *Plan) bool { return p.Activity("trees").OtherwisePerHour == 3 && len(p.Activities) == 3 }},
		{"drives", Edit{SetPool: &SetPool{"r1", Pool{ID: "p1", Name: "Array", Layout: "raid6", Drives: []DriveGroup{{Count: 5, Terabytes: 4}}}}},
			"Array: 5 × 4 TB, RAID 6",
			func(p *Plan) bool { return p.Pool("p1").Drives[0].Count == 5 && len(p.Recorders[0].Pools) == 1 }},
		{"new duty", Edit{SetDuty: &SetDuty{Duty{ID: "new", Name: "Half the frames", Base: &Base{Stream: Main, FPS: 7}}}},
			"Duty added: Half the frames",
			func(p *Plan) bool { return p.Duty("new") != nil && len(p.Duties) == 6 }},
		{"remove a duty", Edit{RemoveDuty: &RemoveDuty{"guard", "off"}},
			"Duty removed: Alarm only, Off in its place",
			func(p *Plan) bool { return p.Duty("guard") == nil && p.Weeks[1].Blocks[0].Duty == "off" }},
		{"cause and effect", Edit{AddEffect: &AddEffect{Effect{When{Motion: "c2"}, []string{"c1"}}}},
			"Motion on Gate records Yard",
			func(p *Plan) bool { return len(p.Effects) == 3 && p.Effects[2].Record[0] == "c1" }},
		{"new channel", Edit{SetChannel: &SetChannel{Channel{ID: "c3", Number: 3, Name: "Spare", Recorder: "r1", Pool: "p1", NoCamera: true, Week: WeekRef{Named: "yard"}}}},
			"Channel 3 added: Spare",
			func(p *Plan) bool { return len(p.Channels) == 3 }},
	}
	covered := make(map[string]bool)
	for _, test := range tests {
		before := example(t)
		name, _, err := test.edit.change()
		if err != nil {
			t.Fatal(err)
		}
		covered[name] = true
		after, err := before.Apply(test.edit)
		if err != nil {
			t.Errorf("%s: %v", test.name, err)
			continue
		}
		if !test.holds(after) {
			data, _ := after.Write()
			t.Errorf("%s did not do what it says: %s", test.name, data)
		}
		if !reflect.DeepEqual(before, example(t)) {
			t.Errorf("%s changed the plan it was made on", test.name)
		}
		if got := before.Sentence(test.edit); got != test.sentence {
			t.Errorf("%s: %q, want %q", test.name, got, test.sentence)
		}
		data, _ := json.Marshal(test.edit)
		var again Edit
		if err := json.Unmarshal(data, &again); err != nil || !reflect.DeepEqual(again, test.edit) {
			t.Errorf("%s does not survive JSON: %s", test.name, data)
		}
	}
	for _, m := range orderedMembers(reflect.TypeFor[Edit]()) {
		if !covered[m.name] {
			t.Errorf("no test for the edit %s", m.name)
		}
	}
}

func TestBadEditsNameThePlaceAndChangeNothing(t *testing.T) {
	good := Edit{SetAudio: &SetAudio{[]string{"c2"}, 0}}
	tests := []struct {
		edit Edit
		want string
	}{
		{Edit{}, "edits[1]: no change in it"},
		{Edit{SetAudio: good.SetAudio, RemoveDuty: &RemoveDuty{Duty: "off"}}, "edits[1]: both setAudio and removeDuty"},
		{Edit{Paint: &Paint{Channels: []string{"c1"}, Hours: evenings, Duty: "nap"}}, `edits[1].paint.duty: no duty "nap"`},
		{Edit{Paint: &Paint{Channels: []string{"c1", "c8"}, Hours: evenings, Duty: "off"}}, `edits[1].paint.channels[1]: no channel "c8"`},
		{Edit{Paint: &Paint{Channels: []string{"c1"}, Hours: []Hours{{From: 60, To: 60}}, Duty: "off"}}, "edits[1].paint.hours[0]: starts and ends"},
		{Edit{Paint: &Paint{Channels: nil, Hours: evenings, Duty: "off"}}, "edits[1].paint.channels: empty"},
		{Edit{SetTimes: &SetTimes{Channels: []string{"c1"}, PreSeconds: ptr(-1.0)}}, "edits[1].setTimes.preSeconds: -1 is below 0"},
		{Edit{SetRate: &SetRate{[]string{"c1"}, Sub, Rate{Kind: "constant", Kbps: 1, Known: "guess"}}}, "edits[1].setRate.stream: Yard has no sub stream"},
		{Edit{SetRate: &SetRate{[]string{"c1"}, Main, Rate{Kind: "constant", Known: "guess"}}}, "edits[1].setRate.rate.kbps: missing"},
		{Edit{RemoveDuty: &RemoveDuty{Duty: "guard"}}, `weeks[1].blocks[0].duty: no duty "guard"`},
		{Edit{CopyWeek: &CopyWeek{"c7", []string{"c1"}}}, `edits[1].copyWeek.from: no channel "c7"`},
		{Edit{CopyDay: &CopyDay{[]string{"c1"}, week.Monday, nil}}, "edits[1].copyDay.to: empty"},
		{Edit{SetPool: &SetPool{"r7", Pool{ID: "p1", Name: "A", Layout: "span"}}}, `edits[1].setPool.recorder: no recorder "r7"`},
	}
	for _, test := range tests {
		p := example(t)
		next, err := p.Apply(good, test.edit)
		if err == nil || !strings.HasPrefix(err.Error(), test.want) {
			t.Errorf("%v, want %s", err, test.want)
		}
		if err == nil && next == nil || !reflect.DeepEqual(p, example(t)) {
			t.Errorf("%s: something was changed", test.want)
		}
	}
	if _, err := example(t).Apply(); err == nil {
		t.Error("no edits at all passed")
	}
}

func TestPaintWritesWhatAPersonWould(t *testing.T) {
	p := example(t)
	weekdays := []week.Weekday{0, 1, 2, 3, 4}
	p, err := p.Apply(
		Edit{Paint: &Paint{Channels: []string{"c1"}, Hours: []Hours{{Days: weekdays, From: 360, To: 1320}}, Duty: "thrift"}},
		Edit{Paint: &Paint{Channels: []string{"c1"}, Hours: []Hours{{From: 1320, To: 300}}, Duty: "off"}},
	)
	if err != nil {
		t.Fatal(err)
	}
	want := &OwnWeek{Otherwise: "thrift", Blocks: []DutyBlock{
		{Hours{weekdays, 300, 360}, "frames"},
		{Hours{nil, 1320, 300}, "off"},
		{Hours{[]week.Weekday{5, 6}, 300, 1320}, "frames"},
	}}
	got := p.Channel("c1").Week.Own
	if !reflect.DeepEqual(got, want) {
		t.Errorf("%+v, want %+v", got, want)
	}
}
