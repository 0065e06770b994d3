package handover

import (
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
	"wakefield.example/core/week"
)

// TestTheLastStepOfAChannelLeavesItsWeek follows the weeks through the steps.
func TestTheLastStepOfAChannelLeavesItsWeek(t *testing.T) {
	followed := 0
	examples(t, func(name string, p *plan.Plan, _ *rand.Rand) {
		e := Enter(p, nil)
		for i := range e.Plan.Recorders {
			sheet := SheetOf(e, i, nil, week.Date{Year: 2027, Month: 1, Day: 1})
			last := make(map[string]week.Steps[string])
			for k, a := range After(&sheet) {
				if a != nil {
					last[a.Channel] = a.Week
				}
				if c := sheet.Steps[k].Do.Copy; c != nil && c.Section == "week" {
					for _, to := range c.To {
						last[to] = a.Week
					}
				}
			}
			w := &writer{Entered: e, plan: e.Plan}
			for id, steps := range last {
				followed++
				want := e.Plan.WeekOf(e.Plan.Channel(id)).Steps()
				same := week.Map(week.Both(steps, want), func(at week.Pair[string, string]) bool {
					return at.A == at.B || (at.A == "" || w.isClock(at.A)) && w.isClock(at.B)
				})
				if !slices.Equal(same, week.Constant(true)) {
					t.Fatalf("%s: %s stands as %v, want %v", name, id, steps, want)
				}
			}
		}
	})
	if followed < 50 {
		t.Errorf("only %d weeks were followed", followed)
	}
}

// TestAMessageWithASnapshotSaysSo enters a message with and without.
func TestAMessageWithASnapshotSaysSo(t *testing.T) {
	p := plantest.Whole(t)
	if len(p.Messages) == 0 {
		t.Fatal("no message")
	}
	for _, still := range []bool{false, true} {
		p.Messages[0].Still = still
		found := 0
		for _, r := range Sheets(Enter(p, nil), nil, week.Date{Year: 2027, Month: 3, Day: 1}).Recorders {
			for _, st := range r.Steps {
				if strings.Contains(st.Words, "Message “"+p.Messages[0].Name+"”") {
					if found++; strings.Contains(st.Words, ", with a snapshot") != still {
						t.Errorf("with a snapshot is %t: %s", still, st.Words)
					}
				}
			}
		}
		if found == 0 {
			t.Error("no step makes the message")
		}
	}
}
