package edit

import (
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
)

// TestEveryKindOfSceneFits begins a picture with each kind of scene: the plan is sound, and how the ground lies is known.
func TestEveryKindOfSceneFits(t *testing.T) {
	for _, k := range plan.SceneKinds() {
		p := plantest.Read(t, "../../internal/demo/pennywhistle-quay.json")
		id := p.Channels[0].ID
		bare := p.Channels[0]
		bare.Scene, bare.Detection.Areas = nil, nil
		p.Channels[0] = bare
		edits := []Edit{{SetGround: &SetGround{Channel: id, VerticalDegrees: &k.VerticalDegrees, CameraMetres: &k.CameraMetres,
			TiltDegrees: &k.TiltDegrees}}, {SetArea: &SetArea{Channel: id, Area: k.Area}}}
		for _, w := range k.Walks {
			edits = append(edits, Edit{SetWalk: &SetWalk{Channel: id, Walk: w}})
		}
		after, err := After(p, edits...)
		if err != nil {
			t.Errorf("%s: %v", k.Name, err)
			continue
		}
		if _, known, err := after.Channels[0].Ground(); !known || err != nil {
			t.Errorf("%s: the ground is not known: %v", k.Name, err)
		}
	}
}
