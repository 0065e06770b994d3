package check

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"wakefield.example/core/plan/plantest"
)

// TestWhatFindingsSay holds every finding of several plans to its words, and its fix and choices to what they say that they do.
func TestWhatFindingsSay(t *testing.T) {
	var text strings.Builder
	for _, s := range plantest.Samples(t) {
		for _, f := range findings(s.Plan) {
			fmt.Fprintf(&text, "%s: %s", s.Name, said(t, &f))
		}
	}
	plantest.Said(t, "findings", text.String())
}

// said is all that a finding says, and what its mends would do.
func said(t *testing.T, f *Finding) string {
	t.Helper()
	var text strings.Builder
	fmt.Fprintf(&text, "%s %s at %s of %v%v: %s | %s | %s | %.4g\n", f.Severity, f.Rule, f.Path, f.Channel, f.Channels, f.Sentence, f.Reason,
		f.Decision, f.Cost)
	for _, p := range f.Places {
		fmt.Fprintf(&text, "  place %+v\n", p)
	}
	mends := f.Choices
	if f.Fix != nil {
		mends = append(mends, *f.Fix)
	}
	for _, fix := range mends {
		edits, err := json.Marshal(fix.Edits)
		if err != nil {
			t.Fatal(err)
		}
		fmt.Fprintf(&text, "  mend %s %s\n", fix.Label, edits)
	}
	return text.String()
}
