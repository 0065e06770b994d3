package compare

import (
	"fmt"
	"strings"
	"testing"

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
