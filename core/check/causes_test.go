package check

import (
	"fmt"
	"strings"
	"testing"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

func tie(p *plan.Plan, e plan.Effect) { p.Effects = append(p.Effects, e) }

// phone adds a message that motion sends, and what keeps the findings about losses away.
func phone(p *plan.Plan, every float64) *plan.Message {
	p.Messages = []plan.Message{{ID: "m", Name: "Phone", To: "The keeper", AtMostEverySeconds: every}}
	tie(p, plan.Effect{When: plan.When{Motion: "c1"}, Message: []string{"m"}})
	return &p.Messages[0]
}

func between(from, to week.Clock) *plan.HourList {
	return &plan.HourList{Blocks: []plan.Hours{{From: from, To: to}}}
}

func sender(p *plan.Plan, c *plan.Channel, dwell float64) {
	c.Movable = &plan.Movable{Home: "gate", Presets: []plan.Preset{{ID: "gate", Name: "Gate"}, {ID: "road", Name: "Road"}}}
	tie(p, plan.Effect{When: plan.When{Alarm: "a"}, Preset: []plan.PresetTie{{Channel: "c1", Preset: "road", DwellSeconds: dwell}}})
}

// causeRules are the rules about what causes do.
func causeRules() []ruleTest {
	return []ruleTest{
		{"tie-never-acts", Error, func(p *plan.Plan, c *plan.Channel) {
			phone(p, 60)
			c.Detection.On = false
		}, "Motion on One is tied to the message Phone, but can never act on it"},
		{"tie-never-acts", Error, func(p *plan.Plan, c *plan.Channel) {
			phone(p, 60)
			p.Monitors = []plan.Monitor{{ID: "v", Name: "Lodge", DwellSeconds: 20}}
			p.Effects[0].Monitor, p.Effects[0].Hours = []string{"v"}, between(60, 120)
			c.Detection.Hours = between(360, 1320)
		}, "Motion on One is tied to the message Phone and 1 more, but"},
		{"too-many-messages", Warning, func(p *plan.Plan, c *plan.Channel) { phone(p, 30) },
			"The keeper is told 137 times a day, more than the 30 a day set as readable"},
		{"too-many-messages", Warning, func(p *plan.Plan, c *plan.Channel) { phone(p, 3600).MostPerDay = 12 },
			"more than the 12 a day set as readable"},
		{"mostly-held-back", Hint, func(p *plan.Plan, c *plan.Channel) { phone(p, 3600) }, "86 % of the messages to The keeper are held back"},
		{"message-quiet", Hint, func(p *plan.Plan, c *plan.Channel) { phone(p, 3600).Hours = between(0, 60) },
			"Phone is quiet for 96 % of what it is tied to: Motion on One"},
		{"sounder-at-night", Hint, func(p *plan.Plan, c *plan.Channel) {
			p.Outputs = []plan.Output{{ID: "o", Name: "Gong", Recorder: "r", Kind: "sounder", HoldSeconds: 20}}
			tie(p, plan.Effect{When: plan.When{Motion: "c1"}, Output: []string{"o"}})
		}, "Gong sounds 46.5 times a night"},
		{"hold-too-short", Hint, func(p *plan.Plan, c *plan.Channel) {
			p.Outputs = []plan.Output{{ID: "o", Name: "Lamp", Recorder: "r", Kind: "light", HoldSeconds: 1}}
		}, "Lamp is on for 1 s only"},
		{"monitor-cut-short", Warning, func(p *plan.Plan, c *plan.Channel) {
			p.Monitors = []plan.Monitor{{ID: "v", Name: "Lodge", DwellSeconds: 600}}
			tie(p, plan.Effect{When: plan.When{Motion: "c1"}, Monitor: []string{"v"}})
			tie(p, plan.Effect{When: plan.When{Alarm: "a"}, Monitor: []string{"v"}})
		}, "On Lodge 63 % of the showings are cut short"},
		{"camera-away", Warning, func(p *plan.Plan, c *plan.Channel) { sender(p, c, 120) },
			"One looks elsewhere during 18 % of the wanted events at Gate"},
		{"stills-incomplete", Warning, func(p *plan.Plan, c *plan.Channel) {
			tie(p, plan.Effect{When: plan.When{Alarm: "a"}, Still: []string{"c1"}})
		}, "One takes no snapshots, but something should send one"},
		{"stills-incomplete", Warning, func(p *plan.Plan, c *plan.Channel) { phone(p, 3600).Still = true },
			"One takes no snapshots, but something should send one"},
		{"stills-incomplete", Warning, func(p *plan.Plan, c *plan.Channel) {
			c.Stills = plainStills(c)
			c.Detection.On = false
		}, "One takes snapshots on trigger, but nothing triggers them"},
		{"stills-incomplete", Warning, func(p *plan.Plan, c *plan.Channel) {
			c.Stills = plainStills(c)
			c.Stills.Hours = &plan.HourList{Blocks: []plan.Hours{}}
		}, "One is to take snapshots, but at no hour of the week"},
		{"copy-never-catches-up", Error, func(p *plan.Plan, c *plan.Channel) { copied(p, 200, 0) },
			"The copy off site never catches up: a week brings 160 %"},
		{"copy-late", Warning, func(p *plan.Plan, c *plan.Channel) { copied(p, 4000, 30) },
			"A thief needs 30 s to take the recorder; footage of 1 channel is copied later than that."},
		{"copy-unwatched", Warning, func(p *plan.Plan, c *plan.Channel) { copied(p, 4000, 0) },
			"Nobody is told when the uplink of the copy is cut"},
		{"loss-untold", Hint, func(p *plan.Plan, c *plan.Channel) {
			phone(p, 3600)
			copies(p)
		}, "Nobody is told when the picture of any of 3 channels is lost"},
		{"no-tamper-contact", Hint, func(p *plan.Plan, c *plan.Channel) { phone(p, 3600) }, "Nobody would notice that Recorder is opened"},
		{"contact-unknown", Hint, func(p *plan.Plan, c *plan.Channel) {
			c.Week = own("low")
			tie(p, plan.Effect{When: plan.When{Alarm: "a"}, Record: []string{"c1"}})
		}, "Contact: contact type not set, normally open or normally closed"},
	}
}

func copied(p *plan.Plan, kbps, taken float64) {
	p.Offsite = &plan.Offsite{UplinkKbps: kbps, TakenWithinSeconds: taken}
	tie(p, plan.Effect{When: plan.When{Motion: "c1"}, Offsite: []string{"c1"}})
}

// TestAWatchedLine has the line watched, or somebody told by a tie.
func TestAWatchedLine(t *testing.T) {
	p := soundPlan(t)
	copied(p, 4000, 0)
	p.Offsite.Watched = true
	if f := find(findings(p), "copy-unwatched"); f != nil {
		t.Errorf("a watched line: %+v", f)
	}
	p.Offsite.Watched = false
	phone(p, 3600)
	tie(p, plan.Effect{When: plan.When{UplinkLost: true, PerMonth: 0.1}, Message: []string{p.Messages[0].ID}})
	if f := find(findings(p), "copy-unwatched"); f != nil {
		t.Errorf("somebody is told: %+v", f)
	}
}

// TestWhyATieNeverActs gives each reason.
func TestWhyATieNeverActs(t *testing.T) {
	for name, test := range map[string]struct {
		spoil  func(p *plan.Plan, c *plan.Channel)
		reason string
	}{
		"quiet": {func(p *plan.Plan, c *plan.Channel) {
			phone(p, 60).Hours = between(0, 60)
			c.Detection.Hours = between(360, 1320)
		}, "It is quiet whenever that happens; it acts all days 00:00-01:00 only."},
		"never":     {func(p *plan.Plan, c *plan.Channel) { phone(p, 60); c.Activity = "" }, "it never happens"},
		"no uplink": {func(p *plan.Plan, c *plan.Channel) { copied(p, 100, 0); p.Offsite = nil }, "There is nothing to do it with"},
		"empty": {func(p *plan.Plan, c *plan.Channel) {
			sender(p, c, 20)
			c.NoCamera = true
		}, "The channel has no camera."},
		"hours": {func(p *plan.Plan, c *plan.Channel) {
			phone(p, 60)
			p.Effects[0].Hours, c.Detection.Hours = between(60, 120), between(360, 1320)
		}, "The tie applies all days 01:00-02:00; it happens at other hours only."},
	} {
		p := soundPlan(t)
		test.spoil(p, &p.Channels[0])
		f := find(findings(p), "tie-never-acts")
		if f == nil || !strings.Contains(f.Reason, test.reason) || f.Path != "effects[0]" {
			t.Errorf("%s: %+v", name, f)
		}
	}
}

// TestListeningDutiesKeepWhatIsWritten mends ties that are not heard, on weeks of several duties.
func TestListeningDutiesKeepWhatIsWritten(t *testing.T) {
	for _, test := range []struct {
		week  plan.WeekRef
		adds  int
		holds string // at Monday noon afterwards
	}{
		{own("motion"), 1, "Motion only, or alarm"},
		{own("clock"), 1, "Round the clock, or alarm"},
		{own("alarm", plan.DutyBlock{Hours: plan.Hours{From: 600, To: 1200}, Duty: "motion"}), 1, "Motion only, or alarm"},
		{own("off", plan.DutyBlock{Hours: plan.Hours{From: 600, To: 1200}, Duty: "keys"}), 1, "Keyframes, or alarm"},
	} {
		p := soundPlan(t)
		tie(p, plan.Effect{When: plan.When{Alarm: "a"}, Record: []string{"c1"}})
		p.AlarmInputs[0].Contact = "normallyOpen"
		p.Channels[0].Week = test.week
		f := find(findings(p), "effect-not-admitted")
		if f == nil || f.Fix == nil {
			t.Fatalf("%+v: %+v", test.week.Own, f)
		}
		mended := after(t, p, f.Fix.Edits)
		if len(mended.Duties) != len(p.Duties)+test.adds {
			t.Errorf("%d duties of %d", len(mended.Duties), len(p.Duties))
		}
		steps := mended.Channels[0].Week.In(mended).Steps()
		if got := mended.Duty(steps.At(12 * 60)).Name; got != test.holds {
			t.Errorf("%s at noon, want %s", got, test.holds)
		}
	}
	p := soundPlan(t)
	tie(p, plan.Effect{When: plan.When{Alarm: "a"}, Record: []string{"c1"}})
	p.Channels[0].Week = own("off")
	if f := find(findings(p), "effect-not-admitted"); f == nil || f.Fix != nil {
		t.Errorf("a channel that is off is painted: %+v", f)
	}
	if got := fmt.Sprint(lower("Motion on One"), lower("Picture lost on One"),
		lower("Fuel store")); got != "motion on Onepicture lost on OneFuel store" {
		t.Error(got)
	}
}

func after(t *testing.T, p *plan.Plan, edits []edit.Edit) *plan.Plan {
	t.Helper()
	next, err := edit.After(p, edits...)
	if err != nil {
		t.Fatal(err)
	}
	return next
}

// TestAMessageThatHearsAllIsNotQuiet has a message whose hours are those of what it is tied to: nothing is said of it.
func TestAMessageThatHearsAllIsNotQuiet(t *testing.T) {
	for _, hours := range []*plan.HourList{nil, between(0, 1440)} {
		p := soundPlan(t)
		phone(p, 60).Hours = hours
		for _, f := range findings(p) {
			if f.Rule == "message-quiet" {
				t.Errorf("%v: %s", hours, f.Sentence)
			}
		}
	}
}
