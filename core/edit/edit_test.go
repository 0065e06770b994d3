package edit

import (
	"encoding/json"
	"fmt"
	"math"
	"reflect"
	"slices"
	"strings"
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
	"wakefield.example/core/table"
	"wakefield.example/core/week"
)

func ptr[T any](v T) *T { return &v }

var evenings = []plan.Hours{{Days: []week.Weekday{week.Tuesday, week.Wednesday}, From: 18 * 60, To: 22 * 60}}

func TestEdits(t *testing.T) {
	tests := []struct {
		name     string
		edit     Edit
		sentence string
		holds    func(p *plan.Plan) bool
	}{
		{"paint an own week", Edit{Paint: &Paint{Channels: []string{"c1", "c2"}, Hours: evenings, Duty: "off"}},
			"Yard and Gate, Tue-Wed 18:00-22:00: Off",
			func(p *plan.Plan) bool {
				w := p.Channel("c1").Week.Own
				return w != nil && w.Steps().At(week.Day+20*60) == "off" && w.Steps().At(20*60) == "frames" &&
					len(w.Blocks) == 1 && len(p.Weeks[0].Blocks) == 0
			}},
		{"paint the named week", Edit{Paint: &Paint{Channels: []string{"c1"}, Hours: evenings, Duty: "off", Shared: true}},
			"The week followed by Yard, Tue-Wed 18:00-22:00: Off",
			func(p *plan.Plan) bool { return p.Channel("c1").Week.Named == "yard" && len(p.Weeks[0].Blocks) == 1 }},
		{"copy a day", Edit{CopyDay: &CopyDay{Channels: []string{"c2"}, From: week.Sunday, To: []week.Weekday{week.Monday, week.Tuesday}}},
			"Gate: Sunday copied onto Mon, Tue",
			func(p *plan.Plan) bool {
				steps := p.Channel("c2").Week.Own.Steps()
				return steps.At(12*60) == "sure" && steps.At(week.Day+2*60) == "sure" && steps.At(2*week.Day+2*60) == "guard" &&
					steps.At(2*week.Day+12*60) == "thrift"
			}},
		{"copy a day of another channel", Edit{CopyDay: &CopyDay{Channels: []string{"c1"}, From: week.Sunday,
			To: []week.Weekday{week.Monday}, Of: "c2"}},
			"Yard: Sunday of Gate copied onto Mon",
			func(p *plan.Plan) bool {
				steps := p.Channel("c1").Week.Own.Steps()
				return steps.At(12*60) == "sure" && steps.At(week.Day+12*60) == "frames"
			}},
		{"copy a week", Edit{CopyWeek: &CopyWeek{"c2", []string{"c1"}}},
			"Yard: the week of Gate",
			func(p *plan.Plan) bool { return p.Channel("c1").Week.Named == "gate" }},
		{"follow a week", Edit{FollowWeek: &FollowWeek{[]string{"c1"}, "gate"}},
			`Yard: follow the week "Gate"`,
			func(p *plan.Plan) bool { return p.Channel("c1").Week.Named == "gate" }},
		{"pre and post", Edit{SetTimes: &SetTimes{Channels: []string{"c1", "c2"}, PreSeconds: ptr(3.0), AlarmPostSeconds: ptr(90.0)}},
			"Yard and Gate: 3 s before an event, 90 s after an alarm",
			func(p *plan.Plan) bool {
				c := p.Channel("c2")
				return c.PreSeconds == 3 && c.PostSeconds == 30 && c.AlarmPostEvent() == 90 && c.AlarmPreEvent() == 3
			}},
		{"post alone", Edit{SetTimes: &SetTimes{Channels: []string{"c1"}, PostSeconds: ptr(45.0)}},
			"Yard: 45 s after an event",
			func(p *plan.Plan) bool { return p.Channel("c1").PostSeconds == 45 && p.Channel("c1").PreSeconds == 10 }},
		{"bitrate", Edit{SetRate: &SetRate{[]string{"c2"}, plan.Sub, plan.Rate{Kind: "constant", Kbps: 700, Known: "measured"}}},
			"Gate: sub stream 700 kbit/s constant (measured)",
			func(p *plan.Plan) bool {
				return p.Channel("c2").Streams.Sub.Rate.Kbps == 700 && p.Channel("c2").Streams.Main.Rate.Kbps == 6144
			}},
		{"detection", Edit{SetDetection: &SetDetection{[]string{"c1"}, plan.Detection{On: false}}},
			"Yard: detection off",
			func(p *plan.Plan) bool { return !p.Channel("c1").Detection.On && p.Channel("c2").Detection.On }},
		{"keep", Edit{SetKeep: &SetKeep{[]string{"c1"}, plan.Keep{AtLeastDays: 30, QuotaGB: 500}}},
			"Yard: keep at least 30 days, quota 500 GB",
			func(p *plan.Plan) bool { return p.Channel("c1").Keep.QuotaGB == 500 }},
		{"audio", Edit{SetAudio: &SetAudio{[]string{"c2"}, 0}},
			"Gate: no audio",
			func(p *plan.Plan) bool { return p.Channel("c2").AudioKbps == 0 }},
		{"activity", Edit{SetActivity: &SetActivity{plan.Activity{ID: "trees", Name: "Wind in the hedge", Known: "measured", MeanSeconds: 8,
			OtherwisePerHour: 3}}},
			"Activity Wind in the hedge: 72 events a day of 8 s, measured",
			func(p *plan.Plan) bool { return p.Activity("trees").OtherwisePerHour == 3 && len(p.Activities) == 3 }},
		{"drives",
			Edit{SetPool: &SetPool{"r1", plan.Pool{ID: "p1", Name: "Array", Layout: "raid6", Drives: []plan.DriveGroup{{Count: 5, Terabytes: 4}}}}},
			"Array: 5 × 4 TB, RAID 6, nothing kept free",
			func(p *plan.Plan) bool { return p.Pool("p1").Drives[0].Count == 5 && len(p.Recorders[0].Pools) == 1 }},
		{"new duty", Edit{SetDuty: &SetDuty{plan.Duty{ID: "new", Name: "Half the frames", Base: &plan.Base{Stream: plan.Main, FPS: 7}}}},
			"Duty added: Half the frames",
			func(p *plan.Plan) bool { return p.Duty("new") != nil && len(p.Duties) == 6 }},
		{"remove a duty", Edit{RemoveDuty: &RemoveDuty{"guard", "off"}},
			"Duty removed: Alarm only, Off in its place",
			func(p *plan.Plan) bool { return p.Duty("guard") == nil && p.Weeks[1].Blocks[0].Duty == "off" }},
		{"cause and effect", Edit{AddEffect: &AddEffect{plan.Effect{When: plan.When{Motion: "c2"}, Record: []string{"c1"}}}},
			"Motion on Gate records Yard",
			func(p *plan.Plan) bool { return len(p.Effects) == 7 && p.Effects[6].Record[0] == "c1" }},
		{"a tie beside others of its cause",
			Edit{AddEffect: &AddEffect{plan.Effect{When: plan.When{Alarm: "a1"}, Message: []string{"m1", "m2"}, Monitor: []string{"v1"}}}},
			"Gate contact tells Night phone and Office, shows on Lodge",
			func(p *plan.Plan) bool {
				e := p.Effects[0]
				return len(p.Effects) == 6 && slices.Equal(e.Message, []string{"m1", "m2"}) && len(e.Monitor) == 1 && len(e.Record) == 2
			}},
		{"a tie at other hours",
			Edit{AddEffect: &AddEffect{plan.Effect{When: plan.When{Alarm: "a1"}, Message: []string{"m2"}, Hours: &plan.HourList{Blocks: evenings}}}},
			"Gate contact tells Office, Tue-Wed 18:00-22:00",
			func(p *plan.Plan) bool { return len(p.Effects) == 7 && len(p.Effects[0].Message) == 1 }},
		{"a preset at another dwell, and how often a picture is lost",
			Edit{AddEffect: &AddEffect{plan.Effect{When: plan.When{Lost: "c1", PerMonth: 2},
				Preset: []plan.PresetTie{{Channel: "c2", Preset: "road", DwellSeconds: 10}}}}},
			"Picture lost on Yard sends Gate to Road",
			func(p *plan.Plan) bool {
				e := p.Effects[3]
				return len(p.Effects) == 6 && e.When.PerMonth == 2 && e.Preset[0].DwellSeconds == 10 && len(e.Message) == 1
			}},
		{"untie one of several",
			Edit{RemoveEffect: &RemoveEffect{plan.Effect{When: plan.When{Alarm: "a1"}, Record: []string{"c1"}, Still: []string{"c2"}}}},
			"Gate contact no longer records Yard, takes snapshots on Gate",
			func(p *plan.Plan) bool {
				e := p.Effects[0]
				return slices.Equal(e.Record, []string{"c2"}) && e.Still == nil && len(e.Message) == 1
			}},
		{"untie the last", Edit{RemoveEffect: &RemoveEffect{plan.Effect{When: plan.When{Lost: "c1"}, Message: []string{"m1"}}}},
			"Picture lost on Yard no longer tells Night phone",
			func(p *plan.Plan) bool { return len(p.Effects) == 5 }},
		{"untie at hours, presets too",
			Edit{RemoveEffect: &RemoveEffect{plan.Effect{When: plan.When{Motion: "c2", Area: "lane"}, Message: []string{"m1"},
				Preset: []plan.PresetTie{{Channel: "c2", Preset: "road", DwellSeconds: 1}},
				Hours:  &plan.HourList{Blocks: []plan.Hours{{From: 5 * 60, To: 23 * 60}}}}}},
			"Motion in Lane on Gate no longer tells Night phone, sends Gate to Road, all days 05:00-23:00",
			func(p *plan.Plan) bool { return p.Effects[2].Preset == nil && len(p.Effects[2].Message) == 1 }},
		{"alarm input", Edit{SetAlarmInput: &SetAlarmInput{plan.AlarmInput{ID: "a1", Name: "Gate contact", Recorder: "r1", Activity: "gate",
			Contact: "normallyClosed", Guards: "r2"}}},
			"Gate contact: normally closed, 86.5 alarms a day, guards the housing of Second recorder",
			func(p *plan.Plan) bool { return p.AlarmInput("a1").Guards == "r2" }},
		{"new alarm input", Edit{SetAlarmInput: &SetAlarmInput{plan.AlarmInput{ID: "a2", Name: "Hatch", Recorder: "r1", Activity: "gate"}}},
			"Alarm input added: Hatch",
			func(p *plan.Plan) bool { return len(p.AlarmInputs) == 2 }},
		{"remove an alarm input", Edit{RemoveAlarmInput: &RemoveAlarmInput{"a1"}},
			"Alarm input removed: Gate contact",
			func(p *plan.Plan) bool { return len(p.AlarmInputs) == 0 && len(p.Effects) == 5 }},
		{"call button", Edit{SetCallButton: &SetCallButton{plan.CallButton{ID: "b1", Name: "Duress button", PressesPerWeek: 3, HoldSeconds: 60,
			Records: []string{"c1"}}}},
			"Duress button: pressed 3 times a week, records for 60 s: Yard",
			func(p *plan.Plan) bool { return p.CallButton("b1").PressesPerWeek == 3 }},
		{"remove a call button", Edit{RemoveCallButton: &RemoveCallButton{"b1"}},
			"Call button removed: Duress button",
			func(p *plan.Plan) bool { return len(p.CallButtons) == 0 && len(p.Effects) == 5 }},
		{"message", Edit{SetMessage: &SetMessage{plan.Message{ID: "m1", Name: "Night phone", To: "The porter", AtMostEverySeconds: 600}}},
			"Night phone: at most one every 10 min, always, to The porter, without a snapshot, 30 a day are read",
			func(p *plan.Plan) bool { return p.Message("m1").Hours == nil && len(p.Messages) == 2 }},
		{"new message", Edit{SetMessage: &SetMessage{plan.Message{ID: "m3", Name: "Yard hands", To: "The yard", AtMostEverySeconds: 90,
			Hours: &plan.HourList{}}}},
			"Message added: Yard hands to The yard",
			func(p *plan.Plan) bool { return len(p.Messages) == 3 }},
		{"remove a message", Edit{RemoveMessage: &RemoveMessage{"m1"}},
			"Message removed: Night phone",
			func(p *plan.Plan) bool {
				return p.Message("m1") == nil && len(p.Effects) == 4 && len(p.Effects[0].Message) == 0 && len(p.Effects[2].Message) == 1
			}},
		{"output",
			Edit{SetOutput: &SetOutput{plan.Output{ID: "o1", Name: "Lamp", Recorder: "r1", Kind: "light", HoldSeconds: 5400, Prolonged: true}}},
			"Lamp: light on for 90 min, prolonged by every trigger, always",
			func(p *plan.Plan) bool { return p.Output("o1").HoldSeconds == 5400 }},
		{"new output", Edit{SetOutput: &SetOutput{plan.Output{ID: "o2", Name: "Gong", Recorder: "r1", Kind: "sounder", HoldSeconds: 5}}},
			"Output added: Gong",
			func(p *plan.Plan) bool { return len(p.Outputs) == 2 && p.Output("o2").Loud() && !p.Output("o1").Loud() }},
		{"remove an output", Edit{RemoveOutput: &RemoveOutput{"o1"}},
			"Output removed: Lamp",
			func(p *plan.Plan) bool { return len(p.Outputs) == 0 && len(p.Effects[2].Output) == 0 }},
		{"monitor, shorter", Edit{SetMonitor: &SetMonitor{plan.Monitor{ID: "v1", Name: "Lodge", DwellSeconds: 7200}}},
			"Lodge: each showing 2 h",
			func(p *plan.Plan) bool { return p.Monitor("v1").DwellSeconds == 7200 }},
		{"new monitor", Edit{SetMonitor: &SetMonitor{plan.Monitor{ID: "v2", Name: "Back room", DwellSeconds: 20}}},
			"Monitor added: Back room",
			func(p *plan.Plan) bool { return len(p.Monitors) == 2 }},
		{"remove a monitor", Edit{RemoveMonitor: &RemoveMonitor{"v1"}},
			"Monitor removed: Lodge",
			func(p *plan.Plan) bool { return len(p.Monitors) == 0 && len(p.Effects) == 5 }},
		{"presets",
			Edit{SetMovable: &SetMovable{"c1", &plan.Movable{Home: "yard",
				Presets: []plan.Preset{{ID: "yard", Name: "Yard"}, {ID: "shed", Name: "Shed"}}}}},
			"Yard: rests at Yard, 2 presets",
			func(p *plan.Plan) bool { return p.Channel("c1").Movable.Has("shed") }},
		{"a camera that stands still", Edit{SetMovable: &SetMovable{"c1", nil}},
			"Yard: a fixed camera",
			func(p *plan.Plan) bool { return p.Channel("c1").Movable == nil }},
		{"stills",
			Edit{SetStills: &SetStills{[]string{"c1", "c2"}, &plan.Stills{Mode: "timed", EverySeconds: 60, Width: 640, Height: 480, Kilobytes: 30}}},
			"Yard and Gate: a snapshot every 1 min",
			func(p *plan.Plan) bool { return p.Channel("c1").Stills.Bytes() == 30000 }},
		{"stills on trigger",
			Edit{SetStills: &SetStills{[]string{"c1"}, &plan.Stills{Mode: "trigger", EverySeconds: 86400, Width: 640, Height: 480, Quality: 5}}},
			"Yard: snapshots on trigger, at most one every 24 h",
			func(p *plan.Plan) bool { return math.Abs(p.Channel("c1").Stills.Bytes()-34406.4) < 0.1 }},
		{"no stills", Edit{SetStills: &SetStills{[]string{"c2"}, nil}},
			"Gate: no snapshots",
			func(p *plan.Plan) bool { return p.Channel("c2").Stills == nil }},
		{"copy off site", Edit{SetOffsite: &SetOffsite{&plan.Offsite{UplinkKbps: 8000, Hours: &plan.HourList{}}}},
			"Copy off site over 8000 kbit/s, never, footage as recorded, nobody says how soon the recorder could be taken",
			func(p *plan.Plan) bool { return p.Offsite.UplinkKbps == 8000 }},
		{"no copy off site", Edit{SetOffsite: &SetOffsite{}},
			"No copy off site",
			func(p *plan.Plan) bool { return p.Offsite == nil }},
		{"what matters", Edit{SetMatters: &SetMatters{[]string{"c1", "c2"}, 3}},
			"Yard and Gate: matters 3 of 3",
			func(p *plan.Plan) bool { return p.Channel("c1").Weight() == 3 && p.Channel("c2").Matters == 3 }},
		{"what matters as usual", Edit{SetMatters: &SetMatters{[]string{"c1"}, 0}},
			"Yard: matters as much as usual",
			func(p *plan.Plan) bool { return p.Channel("c1").Weight() == 2 }},
		{"prices", Edit{SetPrices: &SetPrices{&plan.Prices{Currency: "EUR", Drives: []plan.DrivePrice{{Terabytes: 8, Each: 210}}}}},
			"Prices of drives in EUR, 1 size",
			func(p *plan.Plan) bool {
				each, known := p.Prices.Of(8)
				_, other := p.Prices.Of(10)
				return known && each == 210 && !other
			}},
		{"no prices", Edit{SetPrices: &SetPrices{}},
			"No prices",
			func(p *plan.Plan) bool { return p.Prices == nil }},
		{"split a pool", Edit{SplitPool: &SplitPool{"p1", "p1-second", "Second", []string{"c1"}}},
			"Array split: Second",
			func(p *plan.Plan) bool {
				return p.Channel("c1").Pool == "p1-second" && p.Channel("c2").Pool == "p1" && p.Recorders[0].Pools[1].ID == "p1-second" &&
					len(p.Pool("p1-second").Drives) == 1
			}},
		{"keep on a pool", Edit{KeepOn: &KeepOn{[]string{"c1"}, "p1"}},
			"Yard: stored on Array",
			func(p *plan.Plan) bool { return p.Channel("c1").Pool == "p1" }},
		{"remove an area, with its ties", Edit{RemoveArea: &RemoveArea{"c2", "lane"}},
			"Gate: an area removed, with 5 ties",
			func(p *plan.Plan) bool { return len(p.Effects) == 5 }},
		{"new channel", Edit{SetChannel: &SetChannel{plan.Channel{ID: "c3", Number: 3, Name: "Spare", Recorder: "r1", Pool: "p1", NoCamera: true,
			Week: plan.WeekRef{Named: "yard"}}}},
			"Channel 3 added: Spare",
			func(p *plan.Plan) bool { return len(p.Channels) == 3 }},
		{"cells of the table", Edit{SetCells: &SetCells{table.Cells{Columns: []string{"main.known", "main.rate", "main.codec", "recorder"},
			Rows: []table.CellRow{{Channel: "c2", Values: []string{"measured", "900-4200", "hevc", "Recorder"}}}}}},
			"Gate: 4 settings",
			func(p *plan.Plan) bool {
				s := p.Channel("c2").Streams.Main
				return s.Codec == "h265" && s.Rate == plan.Rate{Kind: "variable", IdleKbps: 900, ActiveKbps: 4200, Known: "measured"}
			}},
		{"one cell of many",
			Edit{SetCells: &SetCells{table.Cells{Columns: []string{"post"},
				Rows: []table.CellRow{{Channel: "c1", Values: []string{"45 s"}}, {Channel: "c2", Values: []string{"45 s"}}}}}},
			"Yard and Gate: post-event 45 s",
			func(p *plan.Plan) bool { return p.Channel("c1").PostSeconds == 45 && p.Channel("c2").PostSeconds == 45 }},
		{"a new row", Edit{SetCells: &SetCells{table.Cells{Columns: []string{"name", "main.size", "sub.codec"},
			Rows: []table.CellRow{{Channel: "", Values: []string{"Far gate", "2560 x 1440", ""}}}}}},
			"Channel added",
			func(p *plan.Plan) bool {
				c := p.Channel("far-gate")
				return c != nil && c.Movable == nil && c.Stills == nil && c.Number == 3 && c.Streams.Main.Width == 2560 &&
					c.Streams.Sub == nil && c.Recorder == "r1"
			}},
		{"renumber", Edit{MoveChannels: &MoveChannels{Channels: []string{"c2"}, Recorder: "r1", Before: "c1"}},
			"Gate moved before Yard",
			func(p *plan.Plan) bool { return p.Channel("c2").Number == 1 && p.Channel("c1").Number == 2 }},
		{"remove a channel", Edit{RemoveChannels: &RemoveChannels{[]string{"c2"}}},
			"Removed: Gate",
			func(p *plan.Plan) bool {
				for _, e := range p.Effects {
					if e.When.Motion == "c2" || slices.Contains(e.Record, "c2") {
						return false
					}
				}
				return len(p.Channels) == 1
			}},
		{"new kind", Edit{SetKind: &SetKind{plan.Kind{ID: "dome", Name: "Dome", Streams: plan.Streams{Main: plan.PlainStream(plan.Main)}}}},
			"Camera kind added: Dome",
			func(p *plan.Plan) bool { return p.Kind("dome") != nil }},
		{"a kind changed",
			Edit{SetKind: &SetKind{plan.Kind{ID: "bullet", Name: "Bullet, yard", Streams: plan.Streams{Main: plan.PlainStream(plan.Main)}}}},
			"Camera kind changed: Bullet, yard",
			func(p *plan.Plan) bool {
				// The yard follows in all but the frame rate, in which it departs.
				s := p.Channel("c1").Streams.Main
				return s.Codec == "h265" && s.Width == 1920 && s.FPS == 15 && s.KeyframeKB == 0 && s.Rate.Kind == "modelled"
			}},
		{"remove a kind", Edit{RemoveKind: &RemoveKind{"bullet"}},
			"Camera kind removed: Bullet",
			func(p *plan.Plan) bool { return p.Channel("c1").Kind == "" && len(p.Kinds) == 0 }},
		{"apply a kind", Edit{ApplyKind: &ApplyKind{[]string{"c2"}, "bullet"}},
			"Gate: camera kind Bullet",
			func(p *plan.Plan) bool {
				c := p.Channel("c2")
				return c.Kind == "bullet" && *c.Streams.Main == *p.Kind("bullet").Streams.Main && c.Streams.Sub == nil
			}},
		{"what is said of the site", Edit{SetSite: &SetSite{Address: ptr("Pier road 2"), Contact: ptr("Ada Quill\n0800 1"), Notes: ptr(""),
			Wording: ptr("Dear all,")}},
			"Address: Pier road 2; Contact: Ada Quill 0800 1; Notes removed; Wording of papers: Dear all,",
			func(p *plan.Plan) bool {
				return p.Site.Address == "Pier road 2" && p.Site.Wording == "Dear all," && p.Site.Notes == ""
			}},
		{"site", Edit{SetSite: &SetSite{Name: ptr("North yard"), TimeZone: ptr("UTC")}},
			"Site: North yard, UTC",
			func(p *plan.Plan) bool {
				return p.Site.Name == "North yard" && p.Site.TimeZone == "UTC" && p.Name != ""
			}},
		{"recorder", Edit{SetRecorder: &SetRecorder{plan.Recorder{ID: "r3", Name: "Third", Channels: 8, IngestMbps: 80, Pools: []plan.Pool{}}}},
			"Recorder added: Third",
			func(p *plan.Plan) bool { return p.Recorder("r3") != nil }},
		{"remove a recorder", Edit{RemoveRecorder: &RemoveRecorder{"r2"}},
			"Recorder removed: Second recorder",
			func(p *plan.Plan) bool { return p.Recorder("r2") == nil && len(p.Recorders) == 1 }},
		{"remove a pool", Edit{RemovePool: &RemovePool{"p3"}},
			"Pool removed: Archive",
			func(p *plan.Plan) bool { return p.Pool("p3") == nil && p.Pool("p2") != nil }},
		{"to another recorder", Edit{MoveChannels: &MoveChannels{Channels: []string{"c2"}, Recorder: "r2"}},
			"Gate moved to the end of Second recorder",
			func(p *plan.Plan) bool {
				c := p.Channel("c2")
				return c.Recorder == "r2" && c.Pool == "p2" && c.Number == 1 && p.Channel("c1").Number == 1
			}},
		{"one stream", Edit{SetStream: &SetStream{Channels: []string{"c2"}, Stream: plan.Sub}},
			"Gate: no sub stream",
			func(p *plan.Plan) bool { return p.Channel("c2").Streams.Sub == nil }},
		{"rate of some hours", Edit{PaintRate: &PaintRate{"trees", evenings, 12.3456}},
			"Wind in the hedge, Tue-Wed 18:00-22:00: 12.3 an hour",
			func(p *plan.Plan) bool {
				a := p.Activity("trees")
				return len(a.Blocks) == 1 && a.Blocks[0].PerHour == 12.35 && a.OtherwisePerHour == 6
			}},
		{"remove an activity", Edit{RemoveActivity: &RemoveActivity{Activity: "trees"}},
			"Activity removed: Wind in the hedge",
			func(p *plan.Plan) bool { return p.Activity("trees") == nil && p.Channel("c1").Nuisance == "" }},
		{"a new week", Edit{SetWeek: &SetWeek{plan.Week{ID: "calm", Name: "Calm", OwnWeek: plan.OwnWeek{Otherwise: "off"}}}},
			`Week added: "Calm"`,
			func(p *plan.Plan) bool { return len(p.Weeks) == 3 }},
		{"paint a week", Edit{Paint: &Paint{Weeks: []string{"gate"}, Hours: evenings, Duty: "off"}},
			`The week "Gate", Tue-Wed 18:00-22:00: Off`,
			func(p *plan.Plan) bool { return p.Weeks[1].Steps().At(week.Day+20*60) == "off" }},
		{"remove a week", Edit{RemoveWeek: &RemoveWeek{"yard"}},
			`Week removed: "Yard"`,
			func(p *plan.Plan) bool { return len(p.Weeks) == 1 && p.Channel("c1").Week.Own.Otherwise == "frames" }},
		{"keep a week", Edit{KeepWeek: &KeepWeek{From: "c2", ID: "both", Name: "Both", Channels: []string{"c1"}}},
			`The week of Gate saved as "Both", followed by Yard too`,
			func(p *plan.Plan) bool {
				return p.Channel("c1").Week.Named == "both" && p.Channel("c2").Week.Named == "both" &&
					reflect.DeepEqual(p.Weeks[2].Blocks, p.Weeks[1].Blocks)
			}},
		{"depart", Edit{DepartWeek: &DepartWeek{[]string{"c1"}}},
			"Yard: a week of their own",
			func(p *plan.Plan) bool { return p.Channel("c1").Week.Own.Otherwise == "frames" }},
		{"special days",
			Edit{SetSpecialDays: &SetSpecialDays{[]plan.SpecialDay{{From: week.Date{Year: 2027, Month: 1, Day: 6},
				To: week.Date{Year: 2027, Month: 1, Day: 6}, Name: "Regatta", UseDay: ptr(week.Sunday), Yearly: true}}}},
			"Special day changed: Regatta, 2027-01-06, every year",
			func(p *plan.Plan) bool {
				return len(p.Site.SpecialDays) == 1 && p.Site.SpecialDays[0].Name == "Regatta"
			}},
		{"accept a finding",
			Edit{AcceptFinding: &AcceptFinding{plan.Accepted{Finding: "audio: Gate records audio. (3f09ab)", Reason: "there is a notice"}}},
			"Finding accepted: Gate records audio. (there is a notice)",
			func(p *plan.Plan) bool { return len(p.Accepted) == 2 && p.Accepted[1].Reason == "there is a notice" }},
		{"set the ground", Edit{SetGround: &SetGround{Channel: "c2", VerticalDegrees: ptr(60.0),
			People: &[]plan.ScenePerson{{X: 0.5, FeetY: 0.9, HeadY: 0.5}}}},
			"Gate: how the ground lies",
			func(p *plan.Plan) bool {
				s := p.Channel("c2").Scene
				return s.VerticalDegrees == 60 && len(s.People) == 1 && s.CameraMetres == 4 && len(s.Walks) == 2
			}},
		{"another picture, the first of a channel", Edit{SetGround: &SetGround{Channel: "c1", Picture: ptr("still")}},
			"Yard: another picture",
			func(p *plan.Plan) bool { return p.Channel("c1").Scene.Picture == "still" }},
		{"another walk", Edit{SetWalk: &SetWalk{"c2", plan.Walk{ID: "out", Name: "Out", Object: "child", SharePercent: 30,
			Points: []plan.Point{{0.4, 0.5}, {0.4, 0.95}}}}},
			"Gate: the walk Out, 30 % of the events",
			func(p *plan.Plan) bool {
				w := p.Channel("c2").Scene.Walks
				return len(w) == 2 && w[1].Object == "child" && w[1].SharePercent == 30
			}},
		{"remove a walk", Edit{RemoveWalk: &RemoveWalk{"c2", "in"}}, "Gate: a walk removed",
			func(p *plan.Plan) bool { w := p.Channel("c2").Scene.Walks; return len(w) == 1 && w[0].ID == "out" }},
		{"a patch", Edit{SetPatch: &SetPatch{"c1", plan.Patch{ID: "sea", Name: "Sea", Activity: "trees", BlobPercent: 2,
			Points: []plan.Point{{0, 0}, {1, 0}, {1, 0.2}}}}},
			"Yard: the patch Sea",
			func(p *plan.Plan) bool { return len(p.Channel("c1").Scene.Patches) == 1 }},
		{"remove a patch", Edit{RemovePatch: &RemovePatch{"c2", "twigs"}}, "Gate: a patch removed",
			func(p *plan.Plan) bool { return p.Channel("c2").Scene.Patches == nil }},
		{"watch an area", Edit{SetArea: &SetArea{"c1", plan.Area{ID: "a", Name: "Middle", Points: []plan.Point{{0, 0}, {1, 0}, {1, 1}}}}},
			"Yard: watches Middle",
			func(p *plan.Plan) bool {
				return len(p.Channel("c1").Detection.Areas.List) == 1 && p.Channel("c1").Detection.MinSeconds == 2
			}},
		{"ignore an area", Edit{SetArea: &SetArea{"c2", plan.Area{ID: "pole", Name: "Pole", Ignore: true,
			Points: []plan.Point{{0, 0}, {1, 0}, {1, 1}}}}}, "Gate: ignores Pole",
			func(p *plan.Plan) bool { l := p.Channel("c2").Detection.Areas.List; return len(l) == 3 && l[2].Ignore }},
		{"remove an area", Edit{RemoveArea: &RemoveArea{"c2", "tree"}}, "Gate: an area removed",
			func(p *plan.Plan) bool {
				l := p.Channel("c2").Detection.Areas.List
				return len(l) == 1 && l[0].ID == "lane"
			}},
		{"copy areas", Edit{CopyAreas: &CopyAreas{"c2", []string{"c1"}}}, "Yard: the areas of Gate",
			func(p *plan.Plan) bool {
				return len(p.Channel("c1").Detection.List()) == 2 && p.Channel("c1").Detection.Reliability == nil
			}},
		{"set an object", Edit{SetObject: &SetObject{plan.Object{ID: "cart", Name: "Cart", WidthM: 2, HeightM: 1, MetresPerSecond: 3}}},
			"Cart: 2 × 1 m, 3 m/s",
			func(p *plan.Plan) bool { return len(p.Objects) == 1 && p.Object("cart").WidthM == 2 }},
		{"remove an object", Edit{RemoveObject: &RemoveObject{"cart", "vehicle"}}, "Object removed: Cart",
			func(p *plan.Plan) bool {
				return len(p.Objects) == 0 && p.Channel("c2").Scene.Walks[0].Object == "vehicle"
			}},
		{"two new rows",
			Edit{SetCells: &SetCells{table.Cells{Columns: []string{"name"},
				Rows: []table.CellRow{{Values: []string{"Far"}}, {Values: []string{"Farther"}}}}}},
			"2 channels added",
			func(p *plan.Plan) bool { return len(p.Channels) == 4 }},
		{"an emptied cell",
			Edit{SetCells: &SetCells{table.Cells{Columns: []string{"group"}, Rows: []table.CellRow{{Channel: "c1", Values: []string{""}}}}}},
			"Yard: group nothing",
			func(p *plan.Plan) bool { return p.Channel("c1").Group == "" }},
		{"detection on", Edit{SetDetection: &SetDetection{[]string{"c1"}, plan.Detection{On: true}}},
			"Yard: detection on",
			func(p *plan.Plan) bool { return p.Channel("c1").Detection == plan.Detection{On: true} }},
		{"another activity",
			Edit{SetActivity: &SetActivity{plan.Activity{ID: "tide", Name: "Tide", Known: "guess", MeanSeconds: 9, OtherwisePerHour: 1}}},
			"Activity added: Tide",
			func(p *plan.Plan) bool { return p.Activity("tide") != nil }},
		{"one special date",
			Edit{SetSpecialDays: &SetSpecialDays{[]plan.SpecialDay{{From: week.Date{Year: 2027, Month: 5, Day: 1},
				To: week.Date{Year: 2027, Month: 5, Day: 1}, Name: "Fair", UseDay: ptr(week.Sunday)}}}},
			"Special day changed: Fair, 2027-05-01",
			func(p *plan.Plan) bool { return len(p.Site.SpecialDays) == 1 }},
		{"several special dates",
			Edit{SetSpecialDays: &SetSpecialDays{[]plan.SpecialDay{{From: week.Date{Year: 2027, Month: 5, Day: 1},
				To: week.Date{Year: 2027, Month: 5, Day: 3}, Name: "Fair", UseDay: ptr(week.Sunday)}}}},
			"Special day changed: Fair, 2027-05-01 to 2027-05-03",
			func(p *plan.Plan) bool { return p.Site.SpecialDays[0].To.Day == 3 }},
		{"open a finding again", Edit{ReopenFinding: &ReopenFinding{"audio: Yard records audio."}},
			"Finding open again: Yard records audio.",
			func(p *plan.Plan) bool { return len(p.Accepted) == 0 }},
	}
	covered := make(map[string]bool)
	var text strings.Builder // what each changes, and that it changes nothing else
	var refused strings.Builder
	for _, test := range tests {
		before := plantest.Whole(t)
		name, _, err := test.edit.change()
		if err != nil {
			t.Fatal(err)
		}
		if !covered[name] {
			eachRefused(t, test.edit, &refused)
		}
		covered[name] = true
		done, err := Apply(before, test.edit)
		if err != nil {
			t.Errorf("%s: %v", test.name, err)
			continue
		}
		after := done.Plan
		if !test.holds(after) {
			data, _ := after.Write()
			t.Errorf("%s did not do what it says: %s", test.name, data)
		}
		if !reflect.DeepEqual(before, plantest.Whole(t)) {
			t.Errorf("%s changed the plan it was made on", test.name)
		}
		if got := done.Sentence; got != test.sentence {
			t.Errorf("%s: %q, want %q", test.name, got, test.sentence)
		}
		fmt.Fprintf(&text, "%s\n%s", test.name, plantest.Changed(t, before, after))
		data, _ := json.Marshal(test.edit)
		var again Edit
		if err := json.Unmarshal(data, &again); err != nil || !reflect.DeepEqual(again, test.edit) {
			t.Errorf("%s does not survive JSON: %s", test.name, data)
		}
	}
	plantest.Said(t, "edits", text.String())
	plantest.Said(t, "refused", refused.String())
	for _, f := range reflect.VisibleFields(reflect.TypeFor[Edit]()) {
		if name, _, _ := strings.Cut(f.Tag.Get("json"), ","); !covered[name] {
			t.Errorf("no test for the edit %s", name)
		}
	}
}

// eachRefused writes down why an edit is refused in which something is another.
func eachRefused(t *testing.T, e Edit, text *strings.Builder) {
	t.Helper()
	p := plantest.Whole(t)
	plantest.EachWrong(t, e, func(path, what string, wrong []byte) {
		var other Edit
		err := json.Unmarshal(wrong, &other)
		if err == nil {
			_, err = Apply(p, other)
		}
		if err != nil {
			fmt.Fprintf(text, "%s %s: %v\n", path, what, err)
		}
	})
	if !reflect.DeepEqual(p, plantest.Whole(t)) {
		t.Errorf("refused, %v changed the plan", e)
	}
}

func TestBadEditsNameThePlaceAndChangeNothing(t *testing.T) {
	good := Edit{SetAudio: &SetAudio{[]string{"c2"}, 0}}
	tests := []struct {
		edit Edit
		want string
	}{
		{Edit{}, "edits[1]: no change in it"},
		{Edit{AddEffect: &AddEffect{plan.Effect{When: plan.When{Motion: "c1"}}}}, "edits[1].addEffect.effect: does nothing"},
		{Edit{AddEffect: &AddEffect{plan.Effect{When: plan.When{Motion: "c1", Alarm: "a1"}, Record: []string{"c1"}}}},
			"edits[1].addEffect.effect.when: wants exactly one of motion, alarm, lost, tampered, button and uplinkLost"},
		{Edit{AddEffect: &AddEffect{plan.Effect{When: plan.When{Motion: "c1"}, Message: []string{"m9"}}}},
			`effects[1].message[0]: no message "m9"`},
		{Edit{AddEffect: &AddEffect{plan.Effect{When: plan.When{Button: "b9"}, Message: []string{"m1"}}}},
			`effects[6].when.button: no call button "b9"`},
		{Edit{AddEffect: &AddEffect{plan.Effect{When: plan.When{Motion: "c2", Area: "tree"}, Message: []string{"m1"}}}},
			"effects[6].when.area: the area Tree of Gate is ignored"},
		{Edit{AddEffect: &AddEffect{plan.Effect{When: plan.When{Motion: "c1", Area: "lane"}, Message: []string{"m1"}}}},
			`effects[6].when.area: no area "lane" on Yard`},
		{Edit{AddEffect: &AddEffect{plan.Effect{When: plan.When{Alarm: "a1", Area: "lane"}, Monitor: []string{"v1"}}}},
			"effects[6].when.area: an area goes with motion"},
		{Edit{AddEffect: &AddEffect{plan.Effect{When: plan.When{Lost: "c2"}, Monitor: []string{"v1"}}}}, "effects[6].when.perMonth: missing"},
		{Edit{AddEffect: &AddEffect{plan.Effect{When: plan.When{Motion: "c2", PerMonth: 3}, Monitor: []string{"v1"}}}},
			"effects[6].when.perMonth: how often goes with lost, tampered and uplinkLost"},
		{Edit{AddEffect: &AddEffect{plan.Effect{When: plan.When{Motion: "c2"},
			Preset: []plan.PresetTie{{Channel: "c1", Preset: "road", DwellSeconds: 20}}}}}, "effects[6].preset[0].channel: Yard cannot move"},
		{Edit{AddEffect: &AddEffect{plan.Effect{When: plan.When{Motion: "c2"},
			Preset: []plan.PresetTie{{Channel: "c2", Preset: "moon", DwellSeconds: 20}}}}}, `effects[6].preset[0].preset: no preset "moon" on Gate`},
		{Edit{AddEffect: &AddEffect{plan.Effect{When: plan.When{Button: "b1"},
			Preset: []plan.PresetTie{{Channel: "c2", Preset: "road", DwellSeconds: 604800}}}}},
			"edits[1].addEffect.effect.preset[0].dwellSeconds: 604800 is above 86400"},
		{Edit{AddEffect: &AddEffect{plan.Effect{When: plan.When{Motion: "c1"}, Message: []string{"m1"},
			Hours: &plan.HourList{Blocks: []plan.Hours{{From: 60, To: 60}}}}}}, "effects[6].hours.blocks[0]: starts and ends"},
		{Edit{RemoveEffect: &RemoveEffect{plan.Effect{When: plan.When{Motion: "c1"}, Message: []string{"m1"}}}},
			"edits[1].removeEffect.effect: Motion on Yard is tied to none of that at these hours"},
		{Edit{SetArea: &SetArea{"c2", plan.Area{ID: "lane", Name: "Lane", Ignore: true, Points: []plan.Point{{0, 0}, {1, 0}, {1, 1}}}}},
			"effects[2].when.area: the area Lane of Gate is ignored"},
		{Edit{SetMessage: &SetMessage{plan.Message{ID: "m1", Name: "a", To: "b", AtMostEverySeconds: 0}}},
			"edits[1].setMessage.message.atMostEverySeconds: 0 is below 1"},
		{Edit{SetMessage: &SetMessage{plan.Message{ID: "m1", Name: "a", To: "b", AtMostEverySeconds: 31557600}}},
			"edits[1].setMessage.message.atMostEverySeconds: 31557600 is above 604800"},
		{Edit{KeepWeek: &KeepWeek{From: "c2", ID: "yard", Name: "Again"}}, `edits[1].keepWeek.id: a second week "yard"`},
		{Edit{RemoveMessage: &RemoveMessage{"m9"}}, `edits[1].removeMessage.message: no message "m9"`},
		{Edit{RemoveOutput: &RemoveOutput{"o9"}}, `edits[1].removeOutput.output: no output "o9"`},
		{Edit{RemoveMonitor: &RemoveMonitor{"v9"}}, `edits[1].removeMonitor.monitor: no monitor "v9"`},
		{Edit{RemoveAlarmInput: &RemoveAlarmInput{"a9"}}, `edits[1].removeAlarmInput.alarmInput: no alarm input "a9"`},
		{Edit{RemoveCallButton: &RemoveCallButton{"b9"}}, `edits[1].removeCallButton.callButton: no call button "b9"`},
		{Edit{RemoveRecorder: &RemoveRecorder{"r1"}}, "edits[1].removeRecorder.recorder: the "},
		{Edit{SetMovable: &SetMovable{"c2", nil}},
			"edits[1].setMovable.movable: Motion in Lane on Gate sends it to the preset road; untie that first"},
		{Edit{SetMovable: &SetMovable{"c1", &plan.Movable{Home: "x", Presets: []plan.Preset{{ID: "y", Name: "Y"}}}}},
			`channels[0].movable.home: no preset "x"`},
		{Edit{SetMovable: &SetMovable{"c1", &plan.Movable{Home: "y", Presets: []plan.Preset{{ID: "y", Name: "Y"}, {ID: "y", Name: "Y"}}}}},
			`channels[0].movable.presets[1].id: a second preset "y"`},
		{Edit{SetStills: &SetStills{[]string{"c1"}, &plan.Stills{Mode: "timed", EverySeconds: 5, Width: 640, Height: 480}}},
			"edits[1].setStills.stills: wants exactly one of quality and kilobytes"},
		{Edit{SplitPool: &SplitPool{"p9", "p2", "Second", nil}}, `edits[1].splitPool.pool: no pool "p9"`},
		{Edit{SplitPool: &SplitPool{"p1", "p1", "Second", nil}}, `edits[1].splitPool.id: a pool "p1" is there already`},
		{Edit{KeepOn: &KeepOn{[]string{"c1"}, "attic"}}, `edits[1].keepOn.pool: no pool "attic"`},
		{Edit{KeepOn: &KeepOn{[]string{"nobody"}, "p1"}}, `edits[1].keepOn.channels[0]: no channel "nobody"`},
		{Edit{SetMatters: &SetMatters{[]string{"c1"}, 4}}, "edits[1].setMatters.matters: 4 is above 3"},
		{Edit{SetPrices: &SetPrices{&plan.Prices{Currency: "EUR", Drives: []plan.DrivePrice{{Terabytes: 0, Each: 1}}}}},
			"edits[1].setPrices.prices.drives[0].terabytes: 0 is below 0.001"},
		{Edit{SetOffsite: &SetOffsite{&plan.Offsite{}}}, "edits[1].setOffsite.offsite.uplinkKbps: 0 is below 1"},
		{Edit{CopyAreas: &CopyAreas{"c2", []string{"c1"}}, SetOffsite: &SetOffsite{}}, "edits[1]: both "},
		{Edit{SetAudio: good.SetAudio, RemoveDuty: &RemoveDuty{Duty: "off"}}, "edits[1]: both setAudio and removeDuty"},
		{Edit{Paint: &Paint{Channels: []string{"c1"}, Hours: evenings, Duty: "nap"}}, `edits[1].paint.duty: no duty "nap"`},
		{Edit{Paint: &Paint{Channels: []string{"c1", "c8"}, Hours: evenings, Duty: "off"}}, `edits[1].paint.channels[1]: no channel "c8"`},
		{Edit{Paint: &Paint{Channels: []string{"c1"}, Hours: []plan.Hours{{From: 60, To: 60}}, Duty: "off"}},
			"edits[1].paint.hours[0]: starts and ends"},
		{Edit{Paint: &Paint{Channels: nil, Hours: evenings, Duty: "off"}}, "edits[1].paint.channels: empty"},
		{Edit{SetTimes: &SetTimes{Channels: []string{"c1"}, PreSeconds: ptr(-1.0)}}, "edits[1].setTimes.preSeconds: -1 is below 0"},
		{Edit{SetRate: &SetRate{[]string{"c1"}, plan.Sub, plan.Rate{Kind: "constant", Kbps: 1, Known: "guess"}}},
			"edits[1].setRate.stream: Yard has no sub stream"},
		{Edit{SetRate: &SetRate{[]string{"c1"}, plan.Main, plan.Rate{Kind: "constant", Known: "guess"}}}, "edits[1].setRate.rate.kbps: missing"},
		{Edit{PaintRate: &PaintRate{Activity: "gulls", Hours: evenings, PerHour: 1}}, `edits[1].paintRate.activity: no activity "gulls"`},
		{Edit{RemoveDuty: &RemoveDuty{Duty: "guard", Instead: "guard"}}, "edits[1].removeDuty.instead: a duty cannot replace itself"},
		{Edit{RemoveDuty: &RemoveDuty{Duty: "guard", Instead: "nap"}}, `edits[1].removeDuty.instead: no duty "nap"`},
		{Edit{RemoveActivity: &RemoveActivity{Activity: "gate", Instead: "gate"}}, `edits[1].removeActivity.instead: no other activity "gate"`},
		{Edit{RemoveActivity: &RemoveActivity{Activity: "gate", Instead: "gulls"}}, `edits[1].removeActivity.instead: no other activity "gulls"`},
		{Edit{RemoveDuty: &RemoveDuty{Duty: "guard"}}, "edits[1].removeDuty.instead: the week Gate names it"},
		{Edit{CopyWeek: &CopyWeek{"c7", []string{"c1"}}}, `edits[1].copyWeek.from: no channel "c7"`},
		{Edit{CopyDay: &CopyDay{Channels: []string{"c1"}, From: week.Monday}}, "edits[1].copyDay.to: empty"},
		{Edit{SetCells: &SetCells{table.Cells{Columns: []string{"post", "main.fps"},
			Rows: []table.CellRow{{Channel: "c1", Values: []string{"20", "fast"}}}}}},
			`edits[1].setCells.rows[0].values[1]: “fast” is not a number`},
		{Edit{SetCells: &SetCells{table.Cells{Columns: []string{"main.fps"}, Rows: []table.CellRow{{Channel: "c1", Values: []string{"900"}}}}}},
			`edits[1].setCells.rows[0].values[0]: 900 is above 240`},
		{Edit{SetCells: &SetCells{table.Cells{Columns: []string{"main.size"}, Rows: []table.CellRow{{Channel: "c1", Values: []string{""}}}}}},
			`edits[1].setCells.rows[0].values[0]: not a picture size: use 1920×1080`},
		{Edit{SetCells: &SetCells{table.Cells{Columns: []string{"colour"}, Rows: []table.CellRow{{Channel: "c1", Values: []string{"red"}}}}}},
			`edits[1].setCells.rows[0].values[0]: no column "colour"`},
		{Edit{SetCells: &SetCells{table.Cells{Columns: []string{"name"}, Rows: []table.CellRow{{Channel: "c1", Values: []string{"a", "b"}}}}}},
			`edits[1].setCells.rows[0]: 2 cells for 1 column`},
		{Edit{SetCells: &SetCells{table.Cells{Columns: []string{"activity"}, Rows: []table.CellRow{{Channel: "c9", Values: []string{"gate"}}}}}},
			`edits[1].setCells.rows[0]: no channel "c9"`},
		{Edit{SetCells: &SetCells{table.Cells{Columns: []string{"atLeast"},
			Rows: []table.CellRow{{Channel: "c2", Values: []string{"90 days"}}}}}},
			`edits[1].setCells.rows[0].values[0]: 90 days at least but 60 at most`},
		{Edit{SetCells: &SetCells{table.Cells{Columns: []string{"audio"}, Rows: []table.CellRow{{Channel: "c2", Values: []string{"1,500"}}}}}},
			`edits[1].setCells.rows[0].values[0]: “1,500” can mean two numbers: write “1500” or “1.500”`},
		{Edit{RemoveRecorder: &RemoveRecorder{"r1"}},
			"edits[1].removeRecorder.recorder: the channel 1, Yard names it; put it on another recorder"},
		{Edit{RemovePool: &RemovePool{"p1"}}, "edits[1].removePool.pool: the channel 1, Yard names it; move it to another pool"},
		{Edit{RemoveActivity: &RemoveActivity{Activity: "gate"}},
			"edits[1].removeActivity.instead: the alarm input Gate contact names it; name another activity for it"},
		{Edit{RemoveWeek: &RemoveWeek{"gate"}},
			"edits[1].removeWeek.week: the special day 2026-12-24 (Winter rest) names it; give that day another week"},
		{Edit{KeepWeek: &KeepWeek{From: "c1", ID: "gate", Name: "Gate"}}, `edits[1].keepWeek.id: a second week "gate"`},
		{Edit{MoveChannels: &MoveChannels{Channels: []string{"c1"}, Recorder: "r1", Before: "c1"}},
			`edits[1].moveChannels.before: "c1" is one of the channels that move`},
		{Edit{SetKind: &SetKind{plan.Kind{ID: "bare", Name: "Bare"}}}, "kinds[1].streams.main: missing"},
		{Edit{SetAudio: &SetAudio{[]string{"c1", "c\xff"}, 32}}, "edits[1].setAudio.channels[1]: is not UTF-8"},
		{Edit{SetWalk: &SetWalk{"c9", plan.Walk{ID: "w", Name: "W", Object: "person", SharePercent: 1, Points: []plan.Point{{0, 1}, {1, 1}}}}},
			`edits[1].setWalk.channels[0]: no channel "c9"`},
		{Edit{SetWalk: &SetWalk{"c2", plan.Walk{ID: "w", Name: "W", Object: "person", SharePercent: 1, Points: []plan.Point{{0, 1}, {1, 1}}}}},
			"channels[1].scene.walks[2].sharePercent: the shares of the walks are 101 % in all"},
		{Edit{SetWalk: &SetWalk{"c2", plan.Walk{ID: "in", Name: "W", Object: "person", SharePercent: 1,
			Points: []plan.Point{{0, 1}, {1, 0.05}}}}}, "channels[1].scene.walks[0].points[1]: is above the horizon"},
		{Edit{SetWalk: &SetWalk{"c2", plan.Walk{ID: "in", Name: "W", Object: "person", MetresPerSecond: 0.01, SharePercent: 1,
			Points: []plan.Point{{0, 1}, {1, 1}}}}}, "channels[1].scene.walks[0].points: takes "},
		{Edit{SetWalk: &SetWalk{"c2", plan.Walk{ID: "in", Name: "W", Object: "ghost", SharePercent: 1, Points: []plan.Point{{0, 1}, {1, 1}}}}},
			`channels[1].scene.walks[0].object: no object "ghost"`},
		{Edit{RemoveWalk: &RemoveWalk{"c2", "up"}}, `edits[1].removeWalk.walk: no walk "up"`},
		{Edit{SetArea: &SetArea{"c1", plan.Area{ID: "a", Name: "A", Points: []plan.Point{{0, 0}, {1, 1}, {1, 0}, {0, 1}}}}},
			"channels[0].detection.areas[0].points: its sides cross each other"},
		{Edit{SetArea: &SetArea{"c1", plan.Area{ID: "a", Name: "A", Points: []plan.Point{{0, 0}, {1, 1.2}, {1, 0}}}}},
			"edits[1].setArea.area.points[1]: [1 1.2] is outside the picture"},
		{Edit{SetArea: &SetArea{"c1", plan.Area{ID: "a", Name: "A"}}}, "edits[1].setArea.area: wants exactly one of points and cells"},
		{Edit{SetArea: &SetArea{"c1", plan.Area{ID: "a", Name: "A", Cells: &plan.AreaCells{Columns: 4, Rows: 4, On: "gA=="}}}},
			"channels[0].detection.areas[0].cells.on: has 1 bytes; 16 cells in 4 rows take 2"},
		{Edit{SetGround: &SetGround{Channel: "c2", People: &[]plan.ScenePerson{{FeetY: 0.9, HeadY: 0.5}, {FeetY: 0.8, HeadY: 0.4}}}},
			"channels[1].scene.people: both people stand equally far away"},
		{Edit{RemoveArea: &RemoveArea{"c1", "a"}}, `edits[1].removeArea.area: no area "a"`},
		{Edit{RemovePatch: &RemovePatch{"c2", "sea"}}, `edits[1].removePatch.patch: no patch "sea"`},
		{Edit{CopyAreas: &CopyAreas{"c1", []string{"c2"}}}, "edits[1].copyAreas.from: Yard has no areas drawn"},
		{Edit{RemoveObject: &RemoveObject{Object: "cart"}}, "edits[1].removeObject.instead: the channel 2, Gate names it; name what walks there"},
		{Edit{RemoveObject: &RemoveObject{"person", "child"}}, `edits[1].removeObject.object: no object "person" of the plan's own`},
		{Edit{RemoveActivity: &RemoveActivity{Activity: "yard"}}, "edits[1].removeActivity.instead: the channel 2, Gate names it"},
		{Edit{SetDetection: &SetDetection{[]string{"c1"}, plan.Detection{On: true,
			Hours: &plan.HourList{Blocks: []plan.Hours{{From: 60, To: 60}}}}}}, "channels[0].detection.hours.blocks[0]: starts and ends"},
		{Edit{SetPool: &SetPool{"r7", plan.Pool{ID: "p1", Name: "A", Layout: "span"}}}, `edits[1].setPool.recorder: no recorder "r7"`},
	}
	for _, test := range tests {
		p := plantest.Whole(t)
		next, err := After(p, good, test.edit)
		if err == nil || !strings.HasPrefix(err.Error(), test.want) {
			t.Errorf("%v, want %s", err, test.want)
		}
		if err == nil && next == nil || !reflect.DeepEqual(p, plantest.Whole(t)) {
			t.Errorf("%s: something was changed", test.want)
		}
	}
	if _, err := After(plantest.Whole(t)); err == nil {
		t.Error("no edits at all passed")
	}
}

func TestPaintWritesWhatAPersonWould(t *testing.T) {
	p := plantest.Whole(t)
	weekdays := []week.Weekday{0, 1, 2, 3, 4}
	p, err := After(p,
		Edit{Paint: &Paint{Channels: []string{"c1"}, Hours: []plan.Hours{{Days: weekdays, From: 360, To: 1320}}, Duty: "thrift"}},
		Edit{Paint: &Paint{Channels: []string{"c1"}, Hours: []plan.Hours{{From: 1320, To: 300}}, Duty: "off"}},
	)
	if err != nil {
		t.Fatal(err)
	}
	want := &plan.OwnWeek{Otherwise: "thrift", Blocks: []plan.DutyBlock{
		{Hours: plan.Hours{Days: weekdays, From: 300, To: 360}, Duty: "frames"},
		{Hours: plan.Hours{Days: nil, From: 1320, To: 300}, Duty: "off"},
		{Hours: plan.Hours{Days: []week.Weekday{5, 6}, From: 300, To: 1320}, Duty: "frames"},
	}}
	got := p.Channel("c1").Week.Own
	if !reflect.DeepEqual(got, want) {
		t.Errorf("%+v, want %+v", got, want)
	}
}

// TestAStrokeOfItsOwnConcernsNobodyElse paints the own week of a channel, and the named week that others follow: of the first
// estimates must know that nothing which others hear of has changed.
func TestAStrokeOfItsOwnConcernsNobodyElse(t *testing.T) {
	p := plantest.Whole(t)
	hours := []plan.Hours{{From: 60, To: 120}}
	own, err := After(p, Edit{Paint: &Paint{Channels: []string{p.Channels[0].ID}, Duty: p.Duties[0].ID, Hours: hours}})
	if err != nil || !own.SharesWhatChannelsHear(p) {
		t.Errorf("a stroke of its own is heard of by others, %v", err)
	}
	named := slices.IndexFunc(p.Channels, func(c plan.Channel) bool { return !c.Week.IsOwn() })
	shared, err := After(p, Edit{Paint: &Paint{Channels: []string{p.Channels[named].ID}, Duty: p.Duties[0].ID, Hours: hours, Shared: true}})
	if err != nil || shared.SharesWhatChannelsHear(p) {
		t.Errorf("a stroke on a named week is heard of by nobody else, %v", err)
	}
}
