package plan_test

import (
	"encoding/json"
	"fmt"
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
	"wakefield.example/core/quantity"
)

// TestWhatPlansBeginWith holds ready-made duties, activities, the choices of a plan and the units of its numbers to what they were.
func TestWhatPlansBeginWith(t *testing.T) {
	plantest.Said(t, "beginnings", plantest.Figures(t, plan.ReadyMade())+plantest.Figures(t, plan.ActivityTemplates())+
		plantest.Figures(t, plan.Every)+plantest.Figures(t, quantity.Units))
}

// TestWhatSitesOpenWith holds a plan that is made of a few answers, and why others make none.
func TestWhatSitesOpenWith(t *testing.T) {
	o := plan.Opening{Name: "Little pier", Customer: "Harbour office", TimeZone: "Atlantic/Faroe", Recorder: "Shed", Recorders: 2, Channels: 4,
		IngestMbps: 80, Drives: 2, Terabytes: 4, Layout: "raid1", Group: "Halls", Cameras: 3, Codec: "h265", Width: 1920, Height: 1080, FPS: 12,
		Activity: "hall", Duty: "motion", KeepDays: 30, Names: []string{"North steps", " ", "Crane"}, IdleKbps: 800, ActiveKbps: 3000,
		EventsPerDay: 50, Others: []plan.OpeningCameras{{Group: "Yard", Cameras: 2, Width: 2560, Height: 1440, FPS: 8, Activity: "yard"}}}
	p, err := o.Plan()
	if err != nil {
		t.Fatal(err)
	}
	text := plantest.Figures(t, p)
	plantest.EachWrong(t, o, func(path, what string, wrong []byte) {
		var other plan.Opening
		if err := json.Unmarshal(wrong, &other); err != nil {
			text += fmt.Sprintf("%s %s: %v\n", path, what, err)
		} else if _, err := other.Plan(); err != nil {
			text += fmt.Sprintf("%s %s: %v\n", path, what, err)
		}
	})
	plantest.Said(t, "openings", text)
}
