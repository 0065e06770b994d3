package handover

import (
	"fmt"
	"strings"
	"testing"

	"wakefield.example/core/estimate"
	"wakefield.example/core/plan/plantest"
	"wakefield.example/core/week"
)

// TestWhatStepsSay holds every step of several plans to its words.
func TestWhatStepsSay(t *testing.T) {
	var text strings.Builder
	for _, s := range plantest.Samples(t) {
		for _, r := range Sheets(Enter(s.Plan, nil), estimate.Run(s.Plan, nil), week.Date{Year: 2027, Month: 3, Day: 1}).Recorders {
			fmt.Fprintf(&text, "%s, %s: %d entries, %d one by one\n", s.Name, r.Name, r.Entries, r.EntriesOneByOne)
			for _, st := range r.Steps {
				fmt.Fprintf(&text, "%s %s | %s | %s | %d\n", st.ID, st.Words, st.Why, st.RightWhen, st.Entries)
			}
		}
	}
	plantest.Said(t, "steps", text.String())
}
