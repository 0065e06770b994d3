package edit

import (
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
)

// TestAWordGoesWithItsDuty removes a duty that a recorder has a word for, and one whose hours another takes.
func TestAWordGoesWithItsDuty(t *testing.T) {
	p := plantest.Whole(t)
	word := p.Recorders[0].Words[0].Duty
	instead := ""
	for _, d := range p.Duties {
		if d.ID != word {
			instead = d.ID
		}
	}
	next, err := After(p, Edit{RemoveDuty: &RemoveDuty{Duty: word, Instead: instead}})
	if err != nil {
		t.Fatal(err)
	}
	if len(next.Recorders[0].Words) != 0 {
		t.Errorf("%+v", next.Recorders[0].Words)
	}
	if len(p.Recorders[0].Words) != 1 {
		t.Error("the old plan has changed")
	}
	if err := next.Check(); err != nil {
		t.Error(err)
	}
	var none plan.Words
	if none.Of(word) != "" {
		t.Error("nothing is called something")
	}
}
