package check

import (
	"testing"

	"wakefield.example/core/edit"
	"wakefield.example/core/estimate"
)

// TestWhatIsBeyondTheRecorderIsInNoFigure: a recorder of two channels and a third camera. Given a free number, it records.
func TestWhatIsBeyondTheRecorderIsInNoFigure(t *testing.T) {
	p := soundPlan(t)
	copies(p)
	all := estimate.Figures(p, nil)
	p.Recorders[0].Channels = 2
	p.Channels[2].Number = 4
	p.Channels[1].Number = 3 // number 2 is free for one of them
	s := estimate.Figures(p, nil)
	if s.Channels[0].WrittenPercent == 0 || s.Channels[1].WrittenPercent > 0 || s.Channels[2].GigabytesPerDay > 0 ||
		s.Recorders[0].Channels != 1 {
		t.Errorf("%+v", s.Channels)
	}
	var fixes []edit.Edit
	without := 0
	for _, f := range findings(p) {
		if f.Rule == "channels" && f.Fix != nil {
			fixes = append(fixes, f.Fix.Edits...)
		} else if f.Rule == "channels" {
			without++
			if f.Decision == "" {
				t.Errorf("%+v", f)
			}
		}
	}
	if len(fixes) != 1 || without != 1 {
		t.Fatalf("%d fixes, %d findings without one", len(fixes), without)
	}
	mended, err := edit.After(p, fixes...)
	if err != nil {
		t.Fatal(err)
	}
	if s := estimate.Figures(mended, s); s.Channels[1].GigabytesPerDay != all.Channels[1].GigabytesPerDay {
		t.Errorf("with a number it writes %v GB a day, want %v", s.Channels[1].GigabytesPerDay, all.Channels[1].GigabytesPerDay)
	}
}
