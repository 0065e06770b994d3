package measured

import (
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"testing"

	"wakefield.example/core/edit"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan/plantest"
)

// TestWhatIsSaidOfLostEvents asks several plans for events that are not there, at night and on a Saturday afternoon, short and of
// unknown length, lately and long ago, and holds where they were lost and what would mend it. Every mend is made: the gate that it is
// of is no longer shut.
func TestWhatIsSaidOfLostEvents(t *testing.T) {
	var text strings.Builder
	for _, s := range plantest.Samples(t) {
		est := estimate.Run(s.Plan, nil)
		for i := range s.Plan.Channels[:min(len(s.Plan.Channels), 6)] {
			c := &s.Plan.Channels[i]
			if c.NoCamera {
				continue
			}
			for k, told := range []Told{{Minute: 1440 + 200, AgeDays: 3}, {Minute: 5*1440 + 880, Seconds: 1, AgeDays: 3},
				{Minute: 1440 + 200, Seconds: 30, AgeDays: 100}} {
				told.Channel = c.ID
				if c.Scene != nil && len(c.Scene.Walks) > 0 && k > 0 {
					told.Walk = c.Scene.Walks[0].ID
				}
				list, err := Missed(t.Context(), est, told)
				if err != nil {
					t.Fatal(err)
				}
				fmt.Fprintf(&text, "%s, %s at %d, %v s, %v days ago\n", s.Name, c.Name, told.Minute, told.Seconds, told.AgeDays)
				for _, l := range list {
					fmt.Fprintf(&text, "  %s %.3f: %s\n", l.Gate, l.Chance, l.Words)
					for _, m := range l.Mends {
						edits, err := json.Marshal(m.Edits)
						if err != nil {
							t.Fatal(err)
						}
						fmt.Fprintf(&text, "    %s: %s\n", m.Words, edits)
						press(t, est, told, l, m)
					}
				}
			}
		}
	}
	plantest.Said(t, "lost", text.String())
}

// press makes a mend: what was lost for certain at its gate no longer is.
func press(t *testing.T, est *estimate.Result, told Told, l Loss, m Mend) {
	t.Helper()
	p, err := edit.After(est.Plan(), m.Edits...)
	if err != nil {
		t.Errorf("%s of %s: %v", m.Words, told.Channel, err)
		return
	}
	then, err := Missed(t.Context(), estimate.Run(p, est), told)
	if err != nil {
		t.Fatal(err)
	}
	certain := []string{string(estimate.GateDuty), string(estimate.GateOn), string(estimate.GateHours), string(estimate.GateTied)}
	if slices.Contains(certain, l.Gate) && slices.ContainsFunc(then, func(o Loss) bool { return o.Gate == l.Gate }) {
		t.Errorf("%s of %s at %d: the gate %s is shut as before", m.Words, told.Channel, told.Minute, l.Gate)
	}
}
