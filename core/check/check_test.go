package check

import (
	"slices"
	"strings"
	"testing"

	"wakefield.example/core/edit"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
	"wakefield.example/core/week"
)

const sound = `{
 "format": "wakefield-plan/1", "name": "Sound", "site": {"name": "Slip", "timeZone": "UTC"},
 "duties": [
  {"id": "clock", "name": "Round the clock", "base": {"stream": "main"}},
  {"id": "motion", "name": "Motion only", "event": {"stream": "main", "on": ["motion"]}},
  {"id": "alarm", "name": "Alarm only", "event": {"stream": "main", "on": ["alarm"]}},
  {"id": "both", "name": "Both", "event": {"stream": "main", "on": ["motion", "alarm"], "match": "all"}},
  {"id": "low", "name": "Low, then full", "base": {"stream": "sub"}, "event": {"stream": "main", "on": ["motion", "alarm"]}},
  {"id": "keys", "name": "Keyframes", "base": {"stream": "main", "keyframesOnly": true}},
  {"id": "fast", "name": "Fast", "base": {"stream": "main", "fps": 30}},
  {"id": "third", "name": "Third", "base": {"stream": "third"}},
  {"id": "off", "name": "Off"}],
 "activities": [{"id": "people", "name": "People", "known": "surveyed", "meanSeconds": 30, "otherwisePerHour": 6}],
 "recorders": [{"id": "r", "name": "Recorder", "channels": 8, "licences": 8, "ingestMbps": 40, "preSecondsLimit": 10, "driveMBps": 20,
  "pools": [{"id": "p", "name": "Array", "drives": [{"count": 3, "terabytes": 2, "yearlyTB": 100}], "layout": "raid5"}]}],
 "alarmInputs": [{"id": "a", "name": "Contact", "recorder": "r", "activity": "people"}],
 "channels": [
  {"id": "c1", "number": 1, "name": "One", "group": "G", "recorder": "r", "pool": "p", "preSeconds": 5, "postSeconds": 15, "activity": "people",
   "streams": {"main": {"codec": "h264", "width": 1920, "height": 1080, "fps": 15, "gopSeconds": 2, "rate": {"kind": "constant", "kbps": 4000, "known": "datasheet"}},
    "sub": {"codec": "h264", "width": 640, "height": 360, "fps": 8, "gopSeconds": 2, "rate": {"kind": "constant", "kbps": 400, "known": "datasheet"}}},
   "detection": {"on": true}, "keep": {"atLeastDays": 30}, "week": {"otherwise": "motion"}}]
}`

func soundPlan(t *testing.T) *plan.Plan {
	t.Helper()
	p, err := plan.Read([]byte(sound))
	if err != nil {
		t.Fatal(err)
	}
	return p
}

func findings(p *plan.Plan) []Finding { return Findings(p, estimate.Run(p, nil)) }

func ptr[T any](v T) *T { return &v }

func own(duty string, blocks ...plan.DutyBlock) plan.WeekRef {
	return plan.WeekRef{Own: &plan.OwnWeek{Otherwise: duty, Blocks: blocks}}
}

// copies adds two channels like the first, on other numbers.
func copies(p *plan.Plan) {
	for i, id := range []string{"c2", "c3"} {
		c := p.Channels[0]
		c.ID, c.Name, c.Number = id, "Copy "+id, i+2
		p.Channels = append(p.Channels, c)
	}
}

var night = plan.DutyBlock{Hours: plan.Hours{From: 1320, To: 300}, Duty: "off"}

func TestSoundPlanHasNoFindings(t *testing.T) {
	if found := findings(soundPlan(t)); len(found) != 0 {
		t.Errorf("%+v", found)
	}
}

// TestOneShortPoolIsOneFinding requires more of three channels than their pool keeps, and
// of one of them more than of the others. Its fix mends all.
func TestOneShortPoolIsOneFinding(t *testing.T) {
	p := soundPlan(t)
	copies(p)
	for i := range p.Channels {
		p.Channels[i].Keep.AtLeastDays = 1500 + 100*float64(i)
	}
	found := findings(p)
	if len(found) != 1 {
		t.Fatalf("%d findings: %+v", len(found), found)
	}
	f := found[0]
	if f.Rule != "below-at-least" || len(f.Channels) != 3 || f.Channel != "c3" || f.Pool != "p" ||
		!strings.Contains(f.Sentence, "and 3 channels need more: Copy c3 1700.") || f.Fix == nil {
		t.Fatalf("%+v", f)
	}
	mended, err := edit.After(p, f.Fix.Edits...)
	if err != nil {
		t.Fatal(err)
	}
	if left := findings(mended); len(left) != 0 {
		t.Errorf("after the fix: %+v", left)
	}
	// A quota is the channel's own.
	p.Channels[0].Keep = plan.Keep{AtLeastDays: 1500, QuotaGB: 10}
	if found := findings(p); len(found) != 2 {
		t.Errorf("%+v", found)
	}
}

// ruleTest spoils a sound plan for a rule to find it.
type ruleTest struct {
	rule     string
	severity Severity
	spoil    func(p *plan.Plan, c *plan.Channel)
	says     string
}

func TestRules(t *testing.T) {
	tests := []ruleTest{
		{"detection-off", Error, func(p *plan.Plan, c *plan.Channel) { c.Detection.On = false }, "records on motion, but its detection is off"},
		{"detection-off", Warning, func(p *plan.Plan, c *plan.Channel) { c.Detection.On, c.Week = false, own("low") },
			"records on motion, but its detection is off"},
		{"blind-hours", Error, func(p *plan.Plan, c *plan.Channel) {
			c.Detection.Hours = &plan.HourList{Blocks: []plan.Hours{{From: 360, To: 1320}}}
		}, "for 56 hours a week in which its detection is off"},
		{"no-area", Error, func(p *plan.Plan, c *plan.Channel) { c.Detection.Areas = &plan.Areas{Count: ptr(0)} }, "no detection area"},
		{"untied", Error, func(p *plan.Plan, c *plan.Channel) { c.Detection.RecordsSelf = ptr(false) }, "tied to no recording"},
		{"effect-not-admitted", Error, func(p *plan.Plan, c *plan.Channel) {
			p.Effects = []plan.Effect{{When: plan.When{Alarm: "a"}, Record: []string{"c1"}}}
		}, "none of its duties listens to alarms"},
		{"effect-not-admitted", Hint, func(p *plan.Plan, c *plan.Channel) {
			p.Effects = []plan.Effect{{When: plan.When{Alarm: "a"}, Record: []string{"c1"}}}
			c.Week = own("low", plan.DutyBlock{Hours: plan.Hours{From: 0, To: 360}, Duty: "motion"})
		}, "but for 42 hours a week its duty does not listen to alarms"},
		{"alarm-without-input", Error, func(p *plan.Plan, c *plan.Channel) { c.Week = own("alarm") }, "no alarm input records it"},
		{"alarm-without-input", Error, func(p *plan.Plan, c *plan.Channel) { c.Week = own("both") }, "no alarm input records it"},
		{"missing-stream", Error, func(p *plan.Plan, c *plan.Channel) { c.Week = own("third") }, "does not have"},
		{"empty-records", Warning, func(p *plan.Plan, c *plan.Channel) { c.NoCamera = true }, "has no camera, but is set to record"},
		{"nothing-recorded", Error, func(p *plan.Plan, c *plan.Channel) { c.Week = own("motion", night) }, "records nothing for 49 hours a week"},
		{"nothing-recorded", Warning, func(p *plan.Plan, c *plan.Channel) {
			c.Week, c.Activity = own("motion", night), ""
		}, "records nothing for 49 hours a week"},
		{"below-at-least", Error, func(p *plan.Plan, c *plan.Channel) { c.Keep.AtLeastDays = 3000 }, "of the 3000 required"},
		{"worst-below-at-least", Warning, func(p *plan.Plan, c *plan.Channel) {
			c.Week = own("off", plan.DutyBlock{Hours: plan.Hours{Days: []week.Weekday{0, 1, 2}, From: 0, To: 1440}, Duty: "clock"})
			c.Keep.AtLeastDays = 215
		}, "at the worst hour of the week"},
		{"above-at-most", Warning, func(p *plan.Plan, c *plan.Channel) { c.Keep.AtMostDays = 31 }, "only the recorder's age limit enforces that"},
		{"intake", Error, func(p *plan.Plan, c *plan.Channel) { p.Recorders[0].IngestMbps = 3 },
			"The intake of Recorder is too small for its cameras"},
		{"throughput", Error, func(p *plan.Plan, c *plan.Channel) { p.Recorders[0].DriveMBps = 0.01 }, "too slow for its busiest hour"},
		{"licences", Error, func(p *plan.Plan, c *plan.Channel) { p.Recorders[0].Licences = 2; copies(p) }, "3 cameras and 2 licences"},
		{"channels", Error, func(p *plan.Plan, c *plan.Channel) { c.Number = 9 }, "no channel 9"},
		{"channels", Error, func(p *plan.Plan, c *plan.Channel) { copies(p); p.Channels[2].Number = 1 }, "are both channel 1"},
		{"too-few-drives", Error, func(p *plan.Plan, c *plan.Channel) { p.Recorders[0].Pools[0].HotSpares = 1 }, "too few drives for its layout"},
		{"workload", Warning, func(p *plan.Plan, c *plan.Channel) { p.Recorders[0].Pools[0].Drives[0].YearlyTB = 0.5 },
			"more than they are rated for"},
		{"pre-beyond-buffer", Warning, func(p *plan.Plan, c *plan.Channel) { c.PreSeconds = 15 }, "is to record 15 s before an event"},
		{"post-too-short", Hint, func(p *plan.Plan, c *plan.Channel) { c.PostSeconds = 3 }, "one visit becomes several clips"},
		{"keyframe-gap", Warning, func(p *plan.Plan, c *plan.Channel) {
			c.Week = own("keys")
			s := *c.Streams.Main
			s.GOPSeconds = 6
			c.Streams.Main = &s
		}, "between keyframes a person can cross"},
		{"camera-decides", Warning, func(p *plan.Plan, c *plan.Channel) {
			p.Duties = append(p.Duties, plan.Duty{ID: "slow", Name: "Slow", Base: &plan.Base{Stream: plan.Main, FPS: 5}})
			c.Week, c.StreamsBy = own("slow"), "camera"
		}, "asks for 5 frames a second, but the camera decides and sends"},
		{"camera-decides", Warning, func(p *plan.Plan, c *plan.Channel) {
			p.Duties = append(p.Duties, plan.Duty{ID: "slow", Name: "Slow", Event: &plan.Event{Stream: plan.Main, FPS: 5,
				On: []plan.Trigger{plan.Motion}}})
			c.Week, c.StreamsBy = own("slow"), "camera"
		}, "asks for 5 frames a second, but the camera decides and sends"},
		{"frames-beyond-camera", Hint, func(p *plan.Plan, c *plan.Channel) { c.Week = own("fast") },
			"more frames a second than the camera sends"},
		{"audio", Warning, func(p *plan.Plan, c *plan.Channel) { c.AudioKbps = 64 }, "records audio"},
		{"short-on-dates", Warning, func(p *plan.Plan, c *plan.Channel) {
			copies(p)
			p.Recorders[0].Pools[0].Drives[0].Terabytes = 0.3
			p.Site.SpecialDays = []plan.SpecialDay{{From: week.Date{Year: 2027, Month: 6, Day: 1}, To: week.Date{Year: 2027, Month: 8,
				Day: 20}, Name: "Regatta", RateFactor: ptr(6.0)}}
		}, "2027 (Regatta); 3 channels need up to 30."},
		{"special-day-hidden", Warning, func(p *plan.Plan, c *plan.Channel) {
			may := week.Date{Year: 2027, Month: 5, Day: 1}
			p.Site.SpecialDays = []plan.SpecialDay{
				{From: may, To: may, Name: "Fair", RateFactor: ptr(3.0)},
				{From: week.Date{Year: 2026, Month: 4, Day: 20}, To: week.Date{Year: 2026, Month: 5, Day: 4}, Yearly: true, Name: "Works",
					RateFactor: ptr(0.5)},
			}
		}, "“Fair” has no effect: on 1 May 2027 “Works” is lower in the list."},
		{"night-unsaid", Hint, func(p *plan.Plan, c *plan.Channel) {
			c.Week = own("clock")
			s := *c.Streams.Main
			s.Rate = plan.Rate{Kind: "modelled", Quality: 3, Scene: "moderate"}
			c.Streams.Main = &s
		}, "One records at night by a bitrate of the day."},
		{"guessed-activities", Hint, func(p *plan.Plan, c *plan.Channel) { p.Activities[0].Known = "guess" },
			"How often “People” happens is a guess."},
		{"guessed-activities", Hint, func(p *plan.Plan, c *plan.Channel) {
			p.Activities[0].Known = "guess"
			more := p.Activities[0]
			more.ID, more.Name, more.Groups = "more", "More", &plan.Groups{Size: 2, WithinSeconds: 30}
			p.Activities = append(p.Activities, more)
			c.Nuisance = "more"
		}, "2 activities are guesses: “People” and “More”."},
		{"odd-one-out", Hint, func(p *plan.Plan, c *plan.Channel) { copies(p); p.Channels[1].PostSeconds = 25 },
			"differs from the other 2 of G in one respect"},
		{"odd-one-out", Hint, func(p *plan.Plan, c *plan.Channel) { copies(p); p.Channels[2].Week = own("low") }, "one respect: its week"},
		{"areas-but-off", Hint, func(p *plan.Plan, c *plan.Channel) {
			c.Detection, c.Week = plan.Detection{Areas: &plan.Areas{List: []plan.Area{square("all", 0, 0, 1, 1)}}}, own("low")
			p.Duties[slices.IndexFunc(p.Duties, func(d plan.Duty) bool { return d.ID == "low" })].Event = nil
		}, "has areas drawn, but its detection is off"},
		{"area-hidden", Error, func(p *plan.Plan, c *plan.Channel) {
			mask := square("mask", 0, 0, 1, 1)
			mask.Ignore = true
			c.Detection.Areas = &plan.Areas{List: []plan.Area{square("gate", 0.2, 0.2, 0.4, 0.4), mask}}
		}, "nothing is left of the watched area gate"},
		{"area-too-small", Error, func(p *plan.Plan, c *plan.Channel) {
			small := square("gate", 0.2, 0.2, 0.3, 0.3)
			small.Smallest = &plan.Smallest{Percent: 2, Of: "picture"}
			c.Detection.Areas = &plan.Areas{List: []plan.Area{small}}
		}, "is smaller than the smallest object that it notices"},
		{"walk-unnoticed", Warning, func(p *plan.Plan, c *plan.Channel) {
			drawn(c, 3, plan.Walk{ID: "w", Name: "Far side", Object: "person", SharePercent: 100, Points: []plan.Point{{0.1, 0.5}, {0.9, 0.5}}})
		}, "nobody is noticed on the walk Far side, the way of 100 % of the events"},
		{"first-seconds-lost", Hint, func(p *plan.Plan, c *plan.Channel) {
			c.PreSeconds, c.Detection.MinSeconds, p.Recorders[0].PreSecondsLimit = 1, 3, 0
			drawn(c, 0, plan.Walk{ID: "w", Name: "In", Object: "person", SharePercent: 100, Points: []plan.Point{{0.1, 0.9}, {0.9, 0.5}}})
		}, "the first 2 s of the walk In are not recorded"},
		{"reach-short", Hint, func(p *plan.Plan, c *plan.Channel) {
			c.PreSeconds, p.Recorders[0].PreSecondsLimit = 1, 0
			drawn(c, 2, plan.Walk{ID: "w", Name: "From afar", Object: "person", SharePercent: 100, Points: []plan.Point{{0.5, 0.42}, {0.5, 0.9}}})
		}, "the walk From afar comes from beyond where it is large enough"},
		{"patch-passes", Warning, func(p *plan.Plan, c *plan.Channel) {
			drawn(c, 0)
			p.Activities = append(p.Activities, plan.Activity{ID: "reeds", Name: "Reeds", Known: "measured", MeanSeconds: 5, OtherwisePerHour: 2})
			c.Scene.Patches = []plan.Patch{{ID: "r", Name: "Reeds", Activity: "reeds", BlobPercent: 0.01, Points: square("", 0.5,
				0.2, 0.7, 0.4).Points}}
		}, "Reeds starts "},
		{"set-at-camera", Hint, func(p *plan.Plan, c *plan.Channel) { c.Events, c.Detection.By = "out", "" }, "must be set on the camera itself"},
		{"no-events", Error, func(p *plan.Plan, c *plan.Channel) { c.Events, c.Detection.By = "none", "camera" },
			"its camera tells the recorder of none"},
		{"worse-in-events", Warning, func(p *plan.Plan, c *plan.Channel) {
			p.Duties[4].Base.Stream, p.Duties[4].Event.Stream = plan.Main, plan.Sub
			c.Week = own("low")
		}, "“Low, then full” records an event on One worse than what is between events: 640 × 360 in place of 1920 × 1080."},
		{"worse-in-events", Warning, func(p *plan.Plan, c *plan.Channel) {
			p.Duties[4].Base.Stream, p.Duties[4].Event.FPS = plan.Main, 5
			copies(p)
			p.Channels[0].Week, p.Channels[2].Week = own("low"), own("low", night)
		}, "“Low, then full” records events on 2 channels worse than what is between them."},
		{"likely-misses", Warning, func(p *plan.Plan, c *plan.Channel) { c.Detection.Catch = ptr(0.7) },
			"wanted events a day, with no continuous recording as a fallback"},
	}
	var text strings.Builder
	tested := make(map[string]bool)
	for _, test := range slices.Concat(tests, causeRules(), enteredRules()) {
		tested[test.rule] = true
		p := soundPlan(t)
		test.spoil(p, &p.Channels[0])
		if err := p.Check(); err != nil {
			t.Fatalf("%s: the spoilt plan is no plan: %v", test.rule, err)
		}
		f := find(findings(p), test.rule)
		if f == nil {
			t.Errorf("%s was not found", test.rule)
			continue
		}
		if f.Severity != test.severity || !strings.Contains(f.Sentence, test.says) || f.Reason == "" || f.Path == "" {
			t.Errorf("%s: %+v", test.rule, f)
		}
		row, known := rules[test.rule]
		if !known || f.Gate != row.gate {
			t.Errorf("%s: known %v, the gate is %q", test.rule, known, f.Gate)
		}
		mends(t, p, f)
		text.WriteString(said(t, f))
	}
	plantest.Said(t, "rules", text.String())
	for rule := range rules {
		if !tested[rule] {
			t.Errorf("no test for %s", rule)
		}
	}
}

// square is a watched area.
func square(id string, left, top, right, bottom float64) plan.Area {
	return plan.Area{ID: id, Name: id, Points: []plan.Point{{left, top}, {right, top}, {right, bottom}, {left, bottom}}}
}

// drawn gives a channel a ground, an area over all of its picture with a smallest size in percent, and walks.
func drawn(c *plan.Channel, smallest float64, walks ...plan.Walk) {
	all := square("all", 0, 0, 1, 1)
	all.Smallest = &plan.Smallest{Percent: smallest, Of: "picture"}
	c.Detection.Areas = &plan.Areas{List: []plan.Area{all}}
	c.Scene = &plan.Scene{VerticalDegrees: 50, People: []plan.ScenePerson{{X: 0.5, FeetY: 0.85, HeadY: 0.5},
		{X: 0.5, FeetY: 0.5, HeadY: 0.34}}, Walks: walks}
}

func find(found []Finding, rule string) *Finding {
	for i := range found {
		if found[i].Rule == rule {
			return &found[i]
		}
	}
	return nil
}

// mends asks that a finding's fix, where there should be one, makes it go away.
func mends(t *testing.T, p *plan.Plan, f *Finding) {
	t.Helper()
	if rules[f.Rule].mends != (f.Fix != nil) {
		t.Errorf("%s comes with fix %+v", f.Rule, f.Fix)
	}
	if f.Fix == nil {
		return
	}
	for _, way := range append([]Fix{*f.Fix}, f.Choices...) {
		mended, err := edit.After(p, way.Edits...)
		if err != nil {
			t.Errorf("%s: %q fails: %v", f.Rule, way.Label, err)
			continue
		}
		if again := find(findings(mended), f.Rule); again != nil && again.Channel == f.Channel {
			t.Errorf("%s: after %q it is found again: %+v", f.Rule, way.Label, again)
		}
	}
}

func TestFindingsAreToldApart(t *testing.T) {
	p := soundPlan(t)
	copies(p)
	for i := range p.Channels {
		p.Channels[i].Number, p.Channels[i].AudioKbps, p.Channels[i].PreSeconds, p.Channels[i].PostSeconds = 8, 64, 60, 2
	}
	p.Activities[0].Known = "guess"
	p.Recorders[0].IngestMbps, p.Recorders[0].Licences, p.Recorders[0].DriveMBps = 1, 1, 0.1
	seen := make(map[string]bool)
	for _, f := range findings(p) {
		if seen[f.ID] || f.ID == "" {
			t.Errorf("a second finding %q", f.ID)
		}
		seen[f.ID] = true
	}
	if len(seen) < 9 {
		t.Errorf("only %d findings", len(seen))
	}
}

// TestOneCauseIsOneFinding gives three channels the same faults.
func TestOneCauseIsOneFinding(t *testing.T) {
	p := soundPlan(t)
	copies(p)
	for i := range p.Channels {
		p.Channels[i].AudioKbps, p.Channels[i].PostSeconds = 64, 3
		p.Channels[i].Week = own("low", plan.DutyBlock{Hours: plan.Hours{Days: []week.Weekday{week.Saturday, week.Sunday}, To: 1440},
			Duty: "off"})
	}
	p.Channels[2].Week = own("low", plan.DutyBlock{Hours: plan.Hours{Days: []week.Weekday{week.Monday}, To: 1440}, Duty: "off"})
	found := findings(p)
	sound := find(found, "audio")
	if sound == nil || len(sound.Channels) != 3 || sound.Sentence != "3 channels record audio." || len(sound.Places) != 3 ||
		sound.Places[1].Sentence != "Copy c2 records audio." {
		t.Fatalf("%+v", sound)
	}
	mended, err := edit.After(p, sound.Fix.Edits...)
	if err != nil || find(findings(mended), "audio") != nil {
		t.Errorf("its fix leaves %+v, %v", find(findings(mended), "audio"), err)
	}
	// Gaps of other hours are other gaps: each is accepted by itself. What costs more comes first.
	var gaps []Finding
	for _, f := range found {
		if f.Rule == "nothing-recorded" {
			gaps = append(gaps, f)
		}
	}
	if len(gaps) != 2 || gaps[0].Sentence != "2 channels record nothing on Sat-Sun, though their footage must be kept." ||
		len(gaps[0].Channels) != 2 || gaps[0].Cost <= gaps[1].Cost {
		t.Fatalf("%+v", gaps)
	}
	accepted, err := edit.After(p,
		edit.Edit{AcceptFinding: &edit.AcceptFinding{Accepted: plan.Accepted{Finding: gaps[0].Key, Reason: "closed at weekends", By: "Ann"}}})
	if err != nil {
		t.Fatal(err)
	}
	after := findings(accepted)
	last := after[len(after)-1]
	if last.Key != gaps[0].Key || last.Accepted == nil || last.Accepted.Reason != "closed at weekends" ||
		Count(after)[Error] != Count(found)[Error]-1 {
		t.Errorf("%+v", last)
	}
	// It comes back when it is about something else.
	accepted.Channels[1].Week = own("motion")
	if f := find(findings(accepted), "nothing-recorded"); f == nil || f.Accepted != nil {
		t.Errorf("%+v", f)
	}
	// So does one that says the same of as many others.
	audio, err := edit.After(p,
		edit.Edit{AcceptFinding: &edit.AcceptFinding{Accepted: plan.Accepted{Finding: sound.Key, Reason: "there are notices"}}})
	if err != nil || find(findings(audio), "audio").Accepted == nil {
		t.Fatal(err)
	}
	other := audio.Channels[2]
	other.ID, other.Name, other.Number = "c4", "Copy c4", 4
	audio.Channels = append(slices.Clone(audio.Channels), other)
	audio.Channels[0].AudioKbps = 0
	if f := find(findings(audio), "audio"); f.Sentence != sound.Sentence || f.Accepted != nil {
		t.Errorf("%+v", f)
	}
}

// TestEveryErrorIsSomebodys asks that an error comes with a fix, or says whose decision it
// is.
func TestEveryErrorIsSomebodys(t *testing.T) {
	for name, rule := range rules {
		if rule.decision == "" && !rule.mends {
			t.Errorf("%s comes with neither", name)
		}
	}
	p := soundPlan(t)
	copies(p)
	p.Channels[0].Streams.Sub = nil
	p.Channels[0].Week, p.Channels[1].Week = own("third"), own("alarm")
	p.Channels[1].Number, p.Channels[2].Number = 9, 9
	p.Channels[2].Keep.QuotaGB = 1
	p.Channels[2].Detection.Areas = &plan.Areas{Count: ptr(0)}
	p.Recorders[0].IngestMbps, p.Recorders[0].Licences, p.Recorders[0].DriveMBps = 1, 1, 0.1
	p.Recorders[0].Pools[0].Drives[0].Count = 1
	errors := 0
	for _, f := range findings(p) {
		if f.Severity == Error {
			errors++
		}
		if f.Severity == Error && f.Fix == nil && f.Decision == "" {
			t.Errorf("%+v", f)
		}
	}
	if errors < 7 {
		t.Errorf("only %d errors", errors)
	}
}

func TestSevereComeFirst(t *testing.T) {
	p := soundPlan(t)
	p.Channels[0].AudioKbps = 64
	p.Channels[0].PostSeconds = 3
	p.Recorders[0].IngestMbps = 1
	found := findings(p)
	for i := 1; i < len(found); i++ {
		if found[i-1].Severity.Rank() > found[i].Severity.Rank() {
			t.Errorf("%s before %s", found[i-1].Severity, found[i].Severity)
		}
	}
	n := Count(found)
	if n[Error] != 1 || n[Warning] != 1 || n[Hint] != 1 {
		t.Errorf("%v in %+v", n, found)
	}
}

// TestAtLeastMayBeAtMost keeps footage for exactly the days that are required and permitted.
func TestAtLeastMayBeAtMost(t *testing.T) {
	p := soundPlan(t)
	p.Channels[0].Keep = plan.Keep{AtLeastDays: 30, AtMostDays: 30}
	if err := p.Check(); err != nil {
		t.Fatal(err)
	}
	for _, f := range findings(p) {
		if f.Rule != "above-at-most" {
			t.Errorf("%+v", f)
		}
	}
}

// TestLimitsHoldToTheLast goes just below a limit, and just beyond it.
func TestLimitsHoldToTheLast(t *testing.T) {
	result := estimate.Figures(soundPlan(t), nil)
	busiest, intake := result.Recorders[0].BusiestMbps/8, result.Recorders[0].IntakeMbps
	for rule, set := range map[string]func(r *plan.Recorder, f float64){
		"throughput": func(r *plan.Recorder, f float64) { r.DriveMBps = busiest * f },
		"intake":     func(r *plan.Recorder, f float64) { r.IngestMbps = intake * f },
	} {
		for factor, found := range map[float64]bool{1: false, 1.001: false, 0.999: true} {
			p := soundPlan(t)
			set(&p.Recorders[0], factor)
			if f := find(findings(p), rule); (f != nil) != found {
				t.Errorf("%s at %v of what is needed: %+v", rule, factor, f)
			} else if found && (f.Cost < 0.0005 || f.Cost > 0.0015) {
				t.Errorf("%s: a thousandth too little costs %v channels", rule, f.Cost)
			}
		}
	}
	for licences, found := range map[int]bool{2: true, 3: false} {
		p := soundPlan(t)
		copies(p)
		p.Recorders[0].Licences = licences
		if f := find(findings(p), "licences"); (f != nil) != found {
			t.Errorf("%d licences for 3 cameras: %+v", licences, f)
		}
	}
	p := soundPlan(t)
	p.Channels[0].PreSeconds = p.Recorders[0].PreSecondsLimit
	if f := find(findings(p), "pre-beyond-buffer"); f != nil {
		t.Errorf("%+v", f)
	}
}

// TestAQuotaIsTheReason asks that a channel that its own quota makes short is told so, and one that the pool does not.
func TestAQuotaIsTheReason(t *testing.T) {
	p := soundPlan(t)
	p.Channels[0].Keep = plan.Keep{AtLeastDays: 3000, QuotaGB: 10}
	daily := estimate.Figures(p, nil).Channels[0].GigabytesPerDay
	f := find(findings(p), "below-at-least")
	if f == nil || f.Reason != plan.Say("Its quota of 10 GB is full after %.3g days at %.3g GB a day.", 10/daily, daily) {
		t.Errorf("%+v", f)
	}
	p.Channels[0].Keep.QuotaGB = 1e9
	if f := find(findings(p), "below-at-least"); f == nil || !strings.HasPrefix(f.Reason, "The pool has room for ") {
		t.Errorf("%+v", f)
	}
}

// TestWhatIsLostIsCounted asks what findings cost, in channels of which all would be lost.
func TestWhatIsLostIsCounted(t *testing.T) {
	for rule, test := range map[string]struct {
		spoil func(p *plan.Plan, c *plan.Channel)
		cost  float64
	}{
		"nothing-recorded": {func(p *plan.Plan, c *plan.Channel) { c.Week = own("motion", night) }, 49.0 / 168},
		"blind-hours": {func(p *plan.Plan, c *plan.Channel) {
			c.Detection.Hours = &plan.HourList{Blocks: []plan.Hours{{From: 360, To: 1320}}}
		}, 56.0 / 168},
		"licences": {func(p *plan.Plan, c *plan.Channel) { p.Recorders[0].Licences = 2; copies(p) }, 1},
		"no-area":  {func(p *plan.Plan, c *plan.Channel) { c.Detection.Areas = &plan.Areas{Count: ptr(0)} }, 1},
	} {
		p := soundPlan(t)
		test.spoil(p, &p.Channels[0])
		if f := find(findings(p), rule); f == nil || f.Cost < test.cost-1e-9 || f.Cost > test.cost+1e-9 {
			t.Errorf("%s costs %+v, want %v", rule, f, test.cost)
		}
	}
}

// TestAWorkloadIsThatOfOneDrive writes a known amount to two drives in a mirror, and to three of other sizes in a span.
func TestAWorkloadIsThatOfOneDrive(t *testing.T) {
	p := soundPlan(t)
	pool := &p.Recorders[0].Pools[0]
	pool.ReservePercent = 0
	for layout, drives := range map[string][]plan.DriveGroup{
		"raid1": {{Count: 2, Terabytes: 4, YearlyTB: 0.001}},
		"span":  {{Count: 1, Terabytes: 2, YearlyTB: 0.001}, {Count: 2, Terabytes: 1}},
		"raid5": {{Count: 5, Terabytes: 1, YearlyTB: 0.001}},
	} {
		pool.Layout, pool.Drives = layout, drives
		yearly := estimate.Figures(p, nil).Pools[0].YearlyTB
		want := yearly * map[string]float64{"raid1": 1, "span": 0.5, "raid5": 0.25}[layout]
		if f := find(findings(p), "workload"); f == nil || f.Reason != plan.Say("Each writes %.3g TB a year; it is rated for 0.001.", want) {
			t.Errorf("%s: %+v, want %.3g", layout, f, want)
		}
	}
}

// TestABaseThatIsOfferedIsCheap has duties over a full main stream and over a cheap one.
func TestABaseThatIsOfferedIsCheap(t *testing.T) {
	for name, test := range map[string]struct {
		base plan.Base
		want bool
	}{
		"the main stream in full": {plan.Base{Stream: "main"}, false}, "its keyframes": {plan.Base{Stream: "main", KeyframesOnly: true}, true},
		"two frames of it": {plan.Base{Stream: "main", FPS: 2}, true}, "the sub stream": {plan.Base{Stream: "sub"}, true},
	} {
		if cheap(&test.base) != test.want {
			t.Errorf("%s: %v", name, !test.want)
		}
	}
}
