package check

import (
	"context"
	"testing"

	"wakefield.example/core/edit"
	"wakefield.example/core/estimate"
)

// TestWhatBecomesOfAFinding tells a finding that goes from one that is lessened and one that stays.
func TestWhatBecomesOfAFinding(t *testing.T) {
	many := Finding{Rule: "r", Channels: []string{"a", "b"}, Cost: 2}
	one := Finding{Rule: "r", Channel: "a", Cost: 0.5}
	site := Finding{Rule: "s", Path: "offsite"}
	for name, c := range map[string]struct {
		of    Finding
		after []Finding
		want  Mending
	}{
		"nothing is left":   {many, nil, Gone},
		"of other rules":    {many, []Finding{{Rule: "q", Channel: "a"}}, Gone},
		"of other channels": {many, []Finding{{Rule: "r", Channel: "c"}}, Gone},
		"one of two places": {many, []Finding{{Rule: "r", Channel: "b", Cost: 2}}, Less},
		"both, but by less": {many, []Finding{{Rule: "r", Channels: []string{"a", "b"}, Cost: 1}}, Less},
		"as it was":         {one, []Finding{{Rule: "r", Channel: "a", Cost: 0.5}}, Same},
		"of another patch": {Finding{Rule: "r", Channel: "a", Path: "patches[0]"}, []Finding{{Rule: "r", Channel: "a", Path: "patches[1]"}},
			Gone},
		"happens less often":   {Finding{Rule: "r", Channel: "a", worse: 110}, []Finding{{Rule: "r", Channel: "a", worse: 46}}, Less},
		"of the site, gone":    {site, []Finding{{Rule: "s", Path: "elsewhere"}}, Gone},
		"of the site, as was":  {site, []Finding{{Rule: "s", Path: "offsite"}}, Same},
		"of another pool, two": {Finding{Rule: "r", Pool: "p"}, []Finding{{Rule: "r", Pool: "q"}}, Gone},
	} {
		if got, _, _ := mending(&c.of, c.after); got != c.want {
			t.Errorf("%s: %s, want %s", name, got, c.want)
		}
	}
}

// TestAFixThatDoesNotMendIsTold paints hours in which nothing is missed.
func TestAFixThatDoesNotMendIsTold(t *testing.T) {
	p := soundPlan(t)
	p.Channels[0].Detection.Catch = ptr(0.5)
	s := estimate.Run(p, nil)
	f := find(Findings(p, s), "likely-misses")
	if f == nil || f.Fix == nil {
		t.Fatalf("%+v", f)
	}
	told := func(edits []edit.Edit) Mending {
		of := *f
		of.Fix = &Fix{"Try", edits}
		e, err := Effects(context.Background(), p, s, []Finding{of})
		if err != nil || len(e) != 1 {
			t.Fatalf("%v %v", e, err)
		}
		return e[0].Mends
	}
	if got := told(f.Fix.Edits); got != Gone {
		t.Errorf("its own fix: %s", got)
	}
	if got := told([]edit.Edit{{SetMatters: &edit.SetMatters{Channels: []string{p.Channels[0].ID}, Matters: 3}}}); got != Same {
		t.Errorf("what does nothing: %s", got)
	}
}
