package readout

import (
	"fmt"
	"math"
	"os"
	"slices"
	"strings"
	"testing"
	"time"

	"wakefield.example/core/edit"
	"wakefield.example/core/estimate"
	"wakefield.example/core/handover"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// sample is a plan with cameras of many kinds.
func sample(t testing.TB) *plan.Plan {
	t.Helper()
	data, err := os.ReadFile("../estimate/testdata/landing-stage.json")
	if err != nil {
		t.Fatal(err)
	}
	p, err := plan.Read(data)
	if err != nil {
		t.Fatal(err)
	}
	sensitive := 62.0
	p, err = edit.After(p,
		edit.Edit{SetArea: &edit.SetArea{Channel: "ramp", Area: plan.Area{ID: "way", Name: "Way", SensitivityPercent: &sensitive,
			Points: []plan.Point{{0.1, 0.3}, {0.9, 0.3}, {0.9, 0.9}, {0.1, 0.9}}}}})
	if err != nil {
		t.Fatal(err)
	}
	return p
}

func entered(p *plan.Plan) *plan.Plan { return handover.Enter(p, estimate.Figures(p, nil)).Plan }

// asPlanned is a recorder that is set just as a plan has it.
func asPlanned(p *plan.Plan, recorder string) *Device {
	d := &Device{Make: "Test", ByHour: true, Around: true}
	r := p.Recorder(recorder)
	for n := 1; n <= r.Channels; n++ {
		c := Channel{Number: n, Token: fmt.Sprint("V", n), Streams: []Stream{}}
		for i := range p.Channels {
			if of := &p.Channels[i]; of.Recorder == recorder && of.Number == n && !of.NoCamera {
				c.set(p, of)
			}
		}
		d.Channels = append(d.Channels, c)
	}
	for i := range p.AlarmInputs {
		if in := &p.AlarmInputs[i]; in.Recorder == recorder {
			d.Inputs = append(d.Inputs, Input{fmt.Sprint("IN", len(d.Inputs)), in.Name, in.Contact})
		}
	}
	for i := range p.Outputs {
		if o := &p.Outputs[i]; o.Recorder == recorder {
			d.Outputs = append(d.Outputs, Output{fmt.Sprint("OUT", len(d.Outputs)), o.Name, o.HoldSeconds})
		}
	}
	return d
}

func (c *Channel) set(p *plan.Plan, of *plan.Channel) {
	c.Name, c.Recording, c.Address = of.Name, "R"+c.Token, of.Address
	for _, which := range []plan.StreamName{plan.Main, plan.Sub, plan.Third} {
		if s := of.Streams.Get(which); s != nil {
			read := Stream{Name: which, Profile: c.Token + string(which), Encoder: c.Token + string(which), Codec: s.Codec, Width: s.Width,
				Height: s.Height, FPS: s.FPS, GOPSeconds: s.GOPSeconds, LimitKbps: 50_000}
			if s.Rate.Kind == "constant" {
				read.LimitKbps, read.Constant = s.Rate.Kbps, true
			} else if s.Rate.MaxKbps > 0 {
				read.LimitKbps = s.Rate.MaxKbps
			}
			read.Could = []Could{{Codec: s.Codec, Constant: true}}
			c.Streams = append(c.Streams, read)
		}
	}
	never, shortest, middling := of.Keep.AtMostDays, of.Detection.MinSeconds, 50.0
	c.KeepAtMostDays = &never
	c.Layers = LayersOf(p, of, true, week.Date{})
	c.Detection = &Detection{On: of.Detection.On, Drawn: "polygon", MinSeconds: &shortest, SensitivityPercent: &middling}
	if most := sensitivityOf(of.Detection.List()); most != nil {
		c.Detection.SensitivityPercent = most
	}
	for _, a := range of.Detection.List() {
		if !a.Ignore && a.Cells == nil {
			c.Detection.Areas = append(c.Detection.Areas, a)
		}
	}
	if of.Movable != nil {
		for _, preset := range of.Movable.Presets {
			c.Presets = append(c.Presets, preset.Name)
		}
	}
}

func ids(lines []Line) (out []string) {
	for _, l := range lines {
		out = append(out, l.ID)
	}
	return out
}

// TestADeviceThatIsSetAsPlannedDoesNotDiffer says nothing where there is nothing to say.
func TestADeviceThatIsSetAsPlannedDoesNotDiffer(t *testing.T) {
	p := sample(t)
	for i := range p.Recorders {
		to := Target{Recorder: p.Recorders[i].ID}
		h := Hold(p, entered(p), to, asPlanned(entered(p), to.Recorder))
		if len(h.Lines) > 0 {
			t.Errorf("%s: %+v", to.Recorder, h.Lines)
		}
		if h.Same == 0 {
			t.Errorf("%s: no channel is as planned", to.Recorder)
		}
	}
}

// TestEveryDifferenceIsOneLine changes one thing at the device, sees the one line, takes it into the plan and sees it go; and sees that
// the device as it is wanted does not differ either.
func TestEveryDifferenceIsOneLine(t *testing.T) {
	p := sample(t)
	to := Target{Recorder: p.Recorders[0].ID}
	days, sensitive := 9.0, 81.0
	for _, c := range []struct {
		id      string
		missing bool
		change  func(d *Device, c *Channel)
	}{
		{"name", false, func(_ *Device, c *Channel) { c.Name = "Another" }},
		{"address", false, func(_ *Device, c *Channel) { c.Address = "10.0.4.99:8000" }},
		{"main.codec", false, func(_ *Device, c *Channel) { c.Streams[0].Codec = otherCodec(c.Streams[0].Codec) }},
		{"main.size", false, func(_ *Device, c *Channel) { c.Streams[0].Width, c.Streams[0].Height = 1280, 960 }},
		{"main.fps", false, func(_ *Device, c *Channel) { c.Streams[0].FPS = 7 }},
		{"main.gop", false, func(_ *Device, c *Channel) { c.Streams[0].GOPSeconds = 9 }},
		{"main.limit", false, func(_ *Device, c *Channel) { c.Streams[0].LimitKbps, c.Streams[0].Constant = 600, false }},
		{"layers", true, func(_ *Device, c *Channel) { c.Layers = nil }},
		{"keepAtMostDays", true, func(_ *Device, c *Channel) { c.KeepAtMostDays = &days }},
		{"detection", false, func(_ *Device, c *Channel) { c.Detection.On = !c.Detection.On }},
		{"shortest", false, func(_ *Device, c *Channel) { c.Detection.On = true; c.Detection.MinSeconds = &days }},
		{"sensitivity", false, func(_ *Device, c *Channel) { c.Detection.SensitivityPercent = &sensitive }},
		{"areas", true, func(_ *Device, c *Channel) {
			c.Detection.Areas = []plan.Area{{ID: "x", Name: "X", Points: []plan.Point{{0, 0}, {0.1, 0}, {0, 0.1}}}}
		}},
		{"around", true, func(_ *Device, c *Channel) {
			none := 0.0
			for i := range c.Layers {
				if len(c.Layers[i].On) > 0 {
					c.Layers[i].PostSeconds = &none
				}
			}
		}},
	} {
		d, k := asPlanned(entered(p), to.Recorder), 0
		for k = range d.Channels { // the first that has what is changed
			if ch := &d.Channels[k]; suits(p, ch, c.id) {
				break
			}
		}
		c.change(d, &d.Channels[k])
		h := Hold(p, entered(p), to, d)
		if len(h.Lines) != 1 || !strings.Contains(h.Lines[0].ID, "/"+c.id) || h.Lines[0].Missing != c.missing && c.id != "detection" {
			t.Errorf("%s on channel %d: %+v", c.id, k+1, h.Lines)
			continue
		}
		taken, err := edit.After(p, Together(h.Lines)...)
		if err != nil || len(h.Lines[0].Take) == 0 {
			t.Errorf("%s: %v", c.id, err)
			continue
		}
		if left := Hold(taken, entered(taken), to, d).Lines; len(left) > 0 {
			t.Errorf("%s was taken, and differs still: %+v", c.id, left)
		}
		wanted, _ := Wanted(entered(p), to, d)
		if left := Hold(p, entered(p), to, wanted).Lines; len(left) > 0 && c.id != "address" {
			t.Errorf("%s was set, and differs still: %+v", c.id, left)
		}
	}
}

func otherCodec(c string) string {
	if c == "h265" {
		return "h264"
	}
	return "h265"
}

// suits tells whether a channel has what a change is made to, so that it is one.
func suits(p *plan.Plan, c *Channel, id string) bool {
	if len(c.Streams) == 0 {
		return false
	}
	var of *plan.Channel
	for i := range p.Channels {
		if p.Channels[i].Number == c.Number && p.Channels[i].Recorder == p.Recorders[0].ID {
			of = &p.Channels[i]
		}
	}
	switch id {
	case "sensitivity":
		return of.Detection.On && sensitivityOf(of.Detection.List()) != nil
	case "areas":
		return c.Detection.On && len(c.Detection.Areas) > 0 && !slices.ContainsFunc(of.Detection.List(), func(a plan.Area) bool {
			return a.Cells != nil || a.Ignore || slices.ContainsFunc(p.Effects, func(e plan.Effect) bool { return e.When.Area == a.ID })
		})
	case "shortest":
		return c.Detection.On
	case "around":
		return slices.ContainsFunc(c.Layers, func(l Layer) bool { return len(l.On) > 0 })
	case "layers":
		return len(c.Layers) > 0
	}
	return true
}

// TestWiresDiffer holds contacts and relays against the plan.
func TestWiresDiffer(t *testing.T) {
	p := sample(t)
	to := Target{Recorder: p.Recorders[0].ID}
	d := asPlanned(entered(p), to.Recorder)
	if len(d.Inputs) == 0 || len(d.Outputs) == 0 {
		t.Fatal("the sample has neither inputs nor outputs there")
	}
	in := *p.AlarmInput(p.AlarmInputs[0].ID)
	in.Contact = "normallyClosed"
	p, err := edit.After(p, edit.Edit{SetAlarmInput: &edit.SetAlarmInput{AlarmInput: in}})
	if err != nil {
		t.Fatal(err)
	}
	d.Inputs[0].Contact, d.Outputs[0].HoldSeconds = "normallyOpen", 77
	h := Hold(p, entered(p), to, d)
	if len(h.Lines) != 2 {
		t.Fatalf("%+v", h.Lines)
	}
	taken, err := edit.After(p, Together(h.Lines)...)
	if err != nil {
		t.Fatal(err)
	}
	if left := Hold(taken, entered(taken), to, d).Lines; len(left) > 0 {
		t.Errorf("%+v", left)
	}
	d.Outputs = nil
	if h := Hold(taken, entered(taken), to, d); len(h.Lines) != 1 || !h.Lines[0].Missing || h.Lines[0].Take != nil {
		t.Errorf("an output that is not there: %+v", h.Lines)
	}
}

// TestAnEmptySiteIsDescribed takes all that a recorder tells into a site of which nothing is known.
func TestAnEmptySiteIsDescribed(t *testing.T) {
	full, _ := festive(t)
	full.Site.SpecialDays = full.Site.SpecialDays[:1] // the others are of a week that the new plan does not have
	d := followingDevice(entered(full), full.Recorders[0].ID)
	p, err := plan.Opening{Name: "New", TimeZone: "UTC", Recorder: "Recorder", Channels: full.Recorders[0].Channels,
		IngestMbps: 200, Drives: 2,
		Terabytes: 4, Layout: "raid1", Cameras: 1, Codec: "h264", Width: 1280, Height: 720, FPS: 10, Activity: plan.ActivityTemplates()[0].ID,
		Duty: plan.ReadyMade()[0].ID}.Plan()
	if err != nil {
		t.Fatal(err)
	}
	to := Target{Recorder: p.Recorders[0].ID}
	lines := Hold(p, entered(p), to, d).Lines
	done, err := edit.After(p, Together(lines)...)
	if err != nil {
		t.Fatal(err)
	}
	for _, l := range Hold(done, entered(done), to, d).Lines {
		t.Errorf("%s, %s: %s at the device, %s in the plan", l.About, l.What, l.Device, l.Plan)
	}
	for i := range d.Channels {
		c := &d.Channels[i]
		at := slices.IndexFunc(done.Channels, func(p plan.Channel) bool { return p.Number == c.Number })
		if len(c.Streams) == 0 {
			continue
		}
		if at < 0 || done.Channels[at].NoCamera || done.Channels[at].Name != c.Name {
			t.Errorf("channel %d is not described", c.Number)
		}
	}
	if err := done.Check(); err != nil {
		t.Error(err)
	}
}

// TestACameraThatIsNotThere is footage that does not exist.
func TestACameraThatIsNotThere(t *testing.T) {
	p := sample(t)
	to := Target{Recorder: p.Recorders[0].ID}
	d := asPlanned(entered(p), to.Recorder)
	d.Channels = d.Channels[1:] // the first one's picture is not among them, and the others keep their numbers
	h := Hold(p, entered(p), to, d)
	if len(h.Lines) != 1 || !h.Lines[0].Missing || h.Lines[0].What != "camera" {
		t.Fatalf("%v", ids(h.Lines))
	}
	taken, err := edit.After(p, Together(h.Lines)...)
	if err != nil || len(Hold(taken, entered(taken), to, d).Lines) > 0 {
		t.Errorf("%v", err)
	}
}

// TestCellsOfOneColumnAreOneEdit keeps the history short.
func TestCellsOfOneColumnAreOneEdit(t *testing.T) {
	p := sample(t)
	to := Target{Recorder: p.Recorders[0].ID}
	d := asPlanned(entered(p), to.Recorder)
	n := 0
	for i := range d.Channels {
		if len(d.Channels[i].Streams) > 0 {
			d.Channels[i].Streams[0].FPS, n = 3, n+1
		}
	}
	edits := Together(Hold(p, entered(p), to, d).Lines)
	if len(edits) != 1 || len(edits[0].SetCells.Rows) != n || n < 3 {
		t.Errorf("%d edits for %d cameras: %+v", len(edits), n, edits)
	}
}

// TestADeviceWithoutHoursKeepsItsOwn does not ask for what cannot be told, and says so.
func TestADeviceWithoutHoursKeepsItsOwn(t *testing.T) {
	p := sample(t)
	to := Target{Recorder: p.Recorders[0].ID}
	d := asPlanned(entered(p), to.Recorder)
	d.ByHour = false
	for i := range d.Channels {
		d.Channels[i].Layers = []Layer{{Stream: plan.Main}}
	}
	byHour, always := false, false
	h := Hold(p, entered(p), to, d)
	for _, l := range h.Lines {
		always = always || l.member() == "layers"
	}
	for _, w := range h.ByHand {
		byHour = byHour || w.Words == "a week that changes by the hour"
	}
	if !byHour || !always {
		t.Errorf("by the hour is said: %v; weeks that do not change are asked for: %v", byHour, always)
	}
}

// TestTheClockIsNoDifference keeps what changes by itself out of the differences.
func TestTheClockIsNoDifference(t *testing.T) {
	p := sample(t)
	d := asPlanned(entered(p), p.Recorders[0].ID)
	later := *d
	later.ClockOffSeconds = 99
	later.Channels = slices.Clone(d.Channels)
	at := time.Date(2026, 11, 1, 0, 0, 0, 0, time.UTC)
	later.Channels[0].Oldest = &at
	if lines := Lines(&later, d, func(c *Channel) (string, string) { return "", c.Name }); len(lines) > 0 {
		t.Errorf("%+v", lines)
	}
}

// TestWhatIsNotOfferedBecomesTheNext sets what the encoder offers, says it, and does not call that a difference.
func TestWhatIsNotOfferedBecomesTheNext(t *testing.T) {
	p := sample(t)
	to := Target{Recorder: p.Recorders[0].ID}
	d := asPlanned(entered(p), to.Recorder)
	s := &d.Channels[0].Streams[0]
	planned := p.Channels[0].Streams.Main
	s.Could = []Could{{Codec: planned.Codec, Sizes: [][2]int{{320, 240}, {planned.Width * 2, planned.Height * 2},
		{planned.Width + 64, planned.Height + 36}},
		FramesPerSecond: []float64{30, planned.FPS + 1, 1}, LeastFrames: 1, MostFrames: 10, LeastKbps: 32, MostKbps: 60_000}}
	wanted, hand := Wanted(entered(p), to, d)
	got := wanted.Channels[0].Streams[0]
	if got.Width != planned.Width+64 || got.FPS != planned.FPS+1 || math.Abs(got.GOPSeconds*got.FPS-10) > 1e-9 {
		t.Errorf("%+v", got)
	}
	if len(hand) < 3 || !strings.Contains(hand[0].Words, "are not offered") {
		t.Errorf("%+v", hand)
	}
	for i := range d.Channels { // once it is set there is nothing more to say but that
		d.Channels[i].Streams = wanted.Channels[i].Streams
	}
	if h := Hold(p, entered(p), to, d); len(h.Lines) > 0 || len(h.ByHand) < 3 {
		t.Errorf("%+v", h.Lines)
	}
	s = &d.Channels[0].Streams[0]
	s.Codec, s.Could[0].Codec = "mjpeg", "mjpeg"
	s.Width, s.Height = 320, 240
	wanted, hand = Wanted(entered(p), to, d)
	if !strings.Contains(hand[0].Words, "it stays MJPEG") {
		t.Errorf("%+v", hand)
	}
	// What is offered of the codec that stays counts.
	if got := wanted.Channels[0].Streams[0]; got.Codec != "mjpeg" || got.Width != planned.Width+64 || got.FPS != planned.FPS+1 {
		t.Errorf("%+v", got)
	}
}

// TestAreasThatOverlapAreTold has a device watch other areas than planned, which overlap the planned ones: one that is smaller, one that
// is gone, one that is elsewhere by a little, and the same ones in another order.
func TestAreasThatOverlapAreTold(t *testing.T) {
	square := func(left, top, right, bottom float64) plan.Area {
		return plan.Area{ID: "a", Name: "A", Points: []plan.Point{{left, top}, {right, top}, {right, bottom}, {left, bottom}}}
	}
	large, beside := square(0.1, 0.1, 0.6, 0.6), square(0.5, 0.5, 0.9, 0.9) // 0.25 and 0.16, of which 0.01 are in both
	for name, test := range map[string]struct {
		is, wanted       []plan.Area
		device, plan     string
		differs, missing bool
	}{
		"smaller":       {[]plan.Area{square(0.1, 0.1, 0.6, 0.5)}, []plan.Area{large}, "1 area, 20 %", "1 area, 25 %", true, true},
		"larger":        {[]plan.Area{square(0.1, 0.1, 0.6, 0.7)}, []plan.Area{large}, "1 area, 30 %", "1 area, 25 %", true, false},
		"one gone":      {[]plan.Area{large}, []plan.Area{large, beside}, "1 area, 25 %", "2 areas, 40 %", true, true},
		"moved":         {[]plan.Area{square(0.12, 0.1, 0.62, 0.6)}, []plan.Area{large}, "1 area, 25 %", "1 area, 25 %", true, true},
		"all of it":     {nil, []plan.Area{large}, "all of the picture", "1 area, 25 %", true, false},
		"another order": {[]plan.Area{beside, large}, []plan.Area{large, beside}, "", "", false, false},
		"rounded":       {[]plan.Area{square(0.1, 0.1, 0.604, 0.6)}, []plan.Area{large}, "", "", false, false},
	} {
		var d drawing
		d.detectionLines("V1", &Detection{On: true, Areas: test.is}, &Detection{On: true, Areas: test.wanted})
		if len(d.lines) > 1 || (len(d.lines) == 1) != test.differs {
			t.Errorf("%s: %+v", name, d.lines)
			continue
		}
		if test.differs {
			if l := d.lines[0]; !strings.HasPrefix(l.Device, test.device) || !strings.HasPrefix(l.Plan, test.plan) || l.Missing != test.missing {
				t.Errorf("%s: %+v", name, l)
			}
		}
	}
}
