package plan

import (
	"math"
	"slices"
	"strings"
	"testing"
)

// TestWhatTheFirstVerdictAssumesCanBeSaid opens a site of which bitrates, events and names
// are known.
func TestWhatTheFirstVerdictAssumesCanBeSaid(t *testing.T) {
	o := Opening{Name: "Little pier", TimeZone: "UTC", Recorder: "R", Channels: 8, IngestMbps: 80, Drives: 2, Terabytes: 4, Layout: "raid1",
		Cameras: 3, Codec: "h265", Width: 1920, Height: 1080, FPS: 12, Activity: "hall", Duty: "motion", KeepDays: 30,
		Names: []string{"North steps", " ", "Crane"}, IdleKbps: 800, ActiveKbps: 3000, EventsPerDay: 50}
	p, err := o.Plan()
	if err != nil {
		t.Fatal(err)
	}
	if a, b, c := p.Channels[0].Name, p.Channels[1].Name, p.Channels[2].Name; a != "North steps" || b != "Camera 2" || c != "Crane" {
		t.Errorf("%q, %q, %q", a, b, c)
	}
	if r := p.Channels[0].Streams.Main.Rate; r != (Rate{Kind: "variable", IdleKbps: 800, ActiveKbps: 3000, Known: "guess"}) {
		t.Errorf("%+v", r)
	}
	if n := p.Activities[0].Process().PerDay(); math.Abs(n-50) > 0.1 {
		t.Errorf("%v events a day", n)
	}
	for want, spoil := range map[string]func(*Opening){
		"names: 3 names of 2 cameras":                         func(o *Opening) { o.Cameras = 2 },
		"activeKbps: a bitrate is wanted while nothing moves": func(o *Opening) { o.ActiveKbps = 0 },
		"eventsPerDay: -1 is below 0":                         func(o *Opening) { o.EventsPerDay = -1 },
	} {
		bad := o
		spoil(&bad)
		if _, err := bad.Plan(); err == nil || !strings.HasPrefix(err.Error(), want) {
			t.Errorf("%v, want %s", err, want)
		}
	}
}

// TestAnOpeningOfSeveralKinds opens a site of two recorders, with eight cameras indoors and four in a yard.
func TestAnOpeningOfSeveralKinds(t *testing.T) {
	o := Opening{Name: "Little pier", TimeZone: "UTC", Recorder: "R", Recorders: 2, Channels: 8, IngestMbps: 80, Drives: 2,
		Terabytes: 4, Layout: "raid1",
		Group: "Indoor", Cameras: 8, Codec: "h265", Width: 1920, Height: 1080, FPS: 12, Activity: "corridor", Duty: "motion",
		KeepDays: 30, EventsPerDay: 50,
		Others: []OpeningCameras{{"Yard", 4, 2560, 1440, 15, "loading"}}, Names: []string{"North steps"}}
	p, err := o.Plan()
	if err != nil {
		t.Fatal(err)
	}
	perRecorder, perGroup := map[string]int{}, map[string]int{}
	for i := range p.Channels {
		c := &p.Channels[i]
		if c.NoCamera {
			continue
		}
		perRecorder[c.Recorder]++
		perGroup[c.Group]++
		if c.Number > 8 || *c.Detection.Reliability != GuessedReliability ||
			(c.Group == "Yard") != (c.Streams.Main.Width == 2560 && c.Activity == "loading" && c.Kind == "camera-2") {
			t.Errorf("%+v", c)
		}
	}
	if len(p.Channels) != 16 || perRecorder["recorder"] != 6 || perRecorder["recorder-2"] != 6 || perGroup["Indoor"] != 8 ||
		perGroup["Yard"] != 4 || p.Recorders[1].Name != "R 2" || p.Channels[0].Name != "North steps" {
		t.Errorf("%v, %v", perRecorder, perGroup)
	}
	for want, spoil := range map[string]func(*Opening){
		"cameras: 17 cameras on 2 recorders of 8 channels": func(o *Opening) { o.Others[0].Cameras = 9 },
		"others[0].activity: no activity template":         func(o *Opening) { o.Others[0].Activity = "moon" },
		"recorders: 100 recorders of 80 channels":          func(o *Opening) { o.Recorders, o.Channels = 100, 80 },
	} {
		bad := o
		bad.Others = []OpeningCameras{o.Others[0]}
		spoil(&bad)
		if _, err := bad.Plan(); err == nil || !strings.HasPrefix(err.Error(), want) {
			t.Errorf("%v, want %s", err, want)
		}
	}
}

// TestScenesAreWhatACameraCanLookAt asks that neither nuisance nor a contact is offered.
func TestScenesAreWhatACameraCanLookAt(t *testing.T) {
	scenes := SceneTemplates()
	for _, a := range ActivityTemplates() {
		beside := strings.Contains(a.Name, "nuisance") || strings.Contains(a.Name, "contact")
		if slices.Contains(scenes, a.ID) == beside {
			t.Errorf("%s among scenes: %v", a.Name, !beside)
		}
	}
}

func TestOpening(t *testing.T) {
	o := Opening{Name: "Little pier", TimeZone: "Atlantic/Faroe", Recorder: "Recorder", Channels: 8, IngestMbps: 80, Drives: 2,
		Terabytes: 4, Layout: "raid1",
		Cameras: 6, Codec: "h265", Width: 2560, Height: 1440, FPS: 12, Activity: "quay", Duty: "low", KeepDays: 30}
	p, err := o.Plan()
	if err != nil {
		t.Fatal(err)
	}
	written, err := p.Write()
	if err != nil {
		t.Fatal(err)
	}
	if _, err := Read(written); err != nil {
		t.Error(err)
	}
	empty := 0
	for i := range p.Channels {
		if p.Channels[i].NoCamera {
			empty++
		}
	}
	if len(p.Channels) != 8 || empty != 2 || len(p.Duties) != 7 || p.Channels[5].Streams.Main.FPS != 12 {
		t.Errorf("%s", written)
	}
	for want, spoil := range map[string]func(*Opening){
		"cameras: 9 cameras on a recorder of 8 channels": func(o *Opening) { o.Cameras = 9 },
		"name: empty":                      func(o *Opening) { o.Name = "" },
		"drives: 0 is below 1":             func(o *Opening) { o.Drives = 0 },
		"site.timeZone: no time zone":      func(o *Opening) { o.TimeZone = "Mars/Olympus" },
		`duty: no ready-made duty "nap"`:   func(o *Opening) { o.Duty = "nap" },
		`activity: no activity template "`: func(o *Opening) { o.Activity = "shop" },
	} {
		bad := o
		spoil(&bad)
		if _, err := bad.Plan(); err == nil || !strings.HasPrefix(err.Error(), want) {
			t.Errorf("%v, want %s", err, want)
		}
	}
}

func TestReadyMadeDutiesAndTemplatesMakeAPlan(t *testing.T) {
	p := example(t)
	for _, d := range ReadyMade() {
		d.ID = "ready-" + d.ID
		p.Duties = append(p.Duties, d)
	}
	p.Activities = append(p.Activities, ActivityTemplates()[0])
	for _, a := range ActivityTemplates()[1:] {
		a.ID = "template-" + a.ID
		p.Activities = append(p.Activities, a)
	}
	if err := p.Check(); err != nil {
		t.Error(err)
	}
	for _, a := range ActivityTemplates() {
		if a.Known != "guess" || a.Process().PerDay() <= 0 {
			t.Errorf("%s is known as %s, %v a day", a.Name, a.Known, a.Process().PerDay())
		}
	}
}
