package check

import (
	"math"
	"strings"
	"testing"

	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
)

// TestGuessesTellWhatGroupsWouldDo holds the days that a finding speaks of against an
// estimate of the plan with such groups.
func TestGuessesTellWhatGroupsWouldDo(t *testing.T) {
	p := soundPlan(t)
	p.Activities[0].Known = "guess"
	p.Channels[0].Week = own("motion")
	var said *Finding
	s := estimate.Run(p, nil)
	for _, f := range Findings(p, s) {
		if f.Rule == "guessed-activities" {
			said = &f
		}
	}
	if said == nil {
		t.Fatal("no finding")
	}
	q := *p
	q.Activities = []plan.Activity{p.Activities[0]}
	q.Activities[0].Groups = &plan.Groups{Size: estimate.GroupedSize, WithinSeconds: estimate.GroupedSeconds}
	grouped := estimate.Figures(&q, nil).Verdict.KeptDays
	if g := s.Grouped(); len(g) != 1 || math.Abs(g[0].Days / *grouped - 1) > 0.002 || g[0].More < 1 {
		t.Errorf("%+v, estimated %v", g, *grouped)
	}
	if want := plan.Say("%.3g days are kept rather than %.3g", *grouped, *s.Verdict.KeptDays); !strings.Contains(said.Reason, want) {
		t.Errorf("%q does not say %q", said.Reason, want)
	}
	p.Activities[0].Groups = &plan.Groups{Size: 1, WithinSeconds: 60}
	if g := estimate.Run(p, nil).Grouped(); len(g) != 0 {
		t.Errorf("events known to come singly: %+v", g)
	}
}

func TestListed(t *testing.T) {
	for want, names := range map[string][]string{"a and b": {"a", "b"}, "a, b, c and d": {"a", "b", "c", "d"},
		"a, b, c, d and 2 more": {"a", "b", "c", "d", "e", "f"}} {
		if got := listed(names); got != want {
			t.Errorf("%q, want %q", got, want)
		}
	}
}
