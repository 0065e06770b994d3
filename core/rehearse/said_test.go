package rehearse

import (
	"fmt"
	"strings"
	"testing"

	"wakefield.example/core/estimate"
	"wakefield.example/core/plan/plantest"
)

// TestWhatStoriesSay plays a day of several plans out and holds the stories of its events to their words: of each kind of event and
// each way in which they go, the first.
func TestWhatStoriesSay(t *testing.T) {
	var text strings.Builder
	for _, s := range plantest.Samples(t) {
		r, err := Play(t.Context(), estimate.Figures(s.Plan, nil), Ask{From: june, Days: 1, Seed: 5})
		if err != nil {
			fmt.Fprintf(&text, "%s: %v\n", s.Name, err)
			continue
		}
		known := make(map[string]bool)
		for n := range r.Events {
			e, story := &r.Events[n], r.Tell(n)
			if e.Start < 0 || e.Start >= r.Length {
				continue // of the days around it, whose footage is not played
			}
			kind := fmt.Sprint(e.Source, e.Fate, e.Why)
			for _, st := range story.Steps {
				kind += fmt.Sprint(st.Gate, st.Passed)
			}
			if known[kind] {
				continue
			}
			known[kind] = true
			fmt.Fprintf(&text, "%s: %s | %s %s %v %v\n", s.Name, story.Sentence, story.Answer, story.Fate, story.Channels, story.LostAt)
			for _, st := range story.Steps {
				fmt.Fprintf(&text, "  %s %t: %s\n", st.Gate, st.Passed, st.Words)
			}
		}
	}
	plantest.Said(t, "stories", text.String())
}
