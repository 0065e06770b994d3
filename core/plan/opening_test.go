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
