package overview

import (
	"fmt"
	"strings"
	"testing"

	"wakefield.example/core/check"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan/plantest"
)

// TestWhatIsSaidOfSites holds the line of each of several sites, the words by which it is found, and what all come to.
func TestWhatIsSaidOfSites(t *testing.T) {
	var text strings.Builder
	var all []OfCustomer
	for n, s := range plantest.Samples(t) {
		est := estimate.Run(s.Plan, nil)
		found := check.Findings(s.Plan, est)
		line := Of(s.Plan, est, found)
		all = append(all, OfCustomer{fmt.Sprint("Customer ", n%3), &line, FoundOf(found)})
		fmt.Fprintf(&text, "%s\n%s%s%s", s.Name, plantest.Figures(t, line), plantest.Figures(t, FoundOf(found)),
			plantest.Figures(t, Words(s.Plan, found)))
	}
	fmt.Fprintf(&text, "all\n%s", plantest.Figures(t, Add(all)))
	plantest.Said(t, "sites", text.String())
}
