package compare

import (
	"fmt"
	"strings"
	"testing"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
)

// TestWhatDifferencesSay changes every value of a plan that has all, one at a time, and holds what is said of it to its words.
func TestWhatDifferencesSay(t *testing.T) {
	p := plantest.Copy(t, plantest.Whole(t))
	var text strings.Builder
	plantest.EachChange(t, p, func(path string, changed *plan.Plan) {
		if changed.Check() == nil {
			fmt.Fprintf(&text, "%s: %v\n", path, Plans(p, changed))
		}
	})
	plantest.Said(t, "differences", text.String())
}

// TestWhatIsOfferedToTake has each of several plans take from the next, and holds what is offered and what becomes of it.
func TestWhatIsOfferedToTake(t *testing.T) {
	var text strings.Builder
	samples := plantest.Samples(t)
	for n, s := range samples {
		from := samples[(n+1)%len(samples)]
		twice := plantest.Copy(t, from.Plan) // of two recorders that both say what they take neither is meant, but by its id
		twice.Recorders = append(twice.Recorders, plan.Recorder{ID: "other", Name: "Other", Takes: &plan.Takes{PeriodsPerDay: 6}})
		for _, other := range []*plan.Plan{from.Plan, twice} {
			var ids []string
			for _, o := range Takings(s.Plan, other) {
				ids = append(ids, o.ID)
				if other == twice && o.Kind != "recorder" {
					continue
				}
				fmt.Fprintf(&text, "%s from %s: %s %s: %s, new %t\n", s.Name, from.Name, o.Kind, o.Who, o.Words, o.New)
			}
			edits, err := Take(s.Plan, other, ids)
			if err != nil {
				t.Fatal(err)
			}
			next, err := edit.After(s.Plan, edits...)
			if err != nil {
				t.Fatal(err)
			}
			if other == from.Plan {
				text.WriteString(plantest.Changed(t, s.Plan, next))
			}
		}
	}
	plantest.Said(t, "taken", text.String())
}
