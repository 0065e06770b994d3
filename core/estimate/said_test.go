package estimate

import (
	"fmt"
	"strings"
	"testing"

	"wakefield.example/core/plan/plantest"
)

// TestWhatFiguresAre holds every figure of the estimates of several plans to four digits.
func TestWhatFiguresAre(t *testing.T) {
	var text strings.Builder
	for _, s := range plantest.Samples(t) {
		fmt.Fprintf(&text, "%s\n%s", s.Name, plantest.Figures(t, Run(s.Plan, nil)))
	}
	plantest.Said(t, "figures", text.String())
}
