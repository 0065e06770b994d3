package estimate

import (
	"path/filepath"
	"reflect"
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
)

// TestNoMemberLeavesStaleFigures changes one value after another in plans that together
// use every member: an estimate that takes what it can from the plan before has the same
// figures as one made anew. The plan changes in place of the old one as an edit changes it:
// what did not change is shared.
func TestNoMemberLeavesStaleFigures(t *testing.T) {
	files, err := filepath.Glob("testdata/plans/*.json")
	if err != nil || len(files) == 0 {
		t.Fatal(err)
	}
	changed, stale := 0, 0
	for _, file := range files {
		p := plantest.Read(t, file)
		before := Figures(p, nil)
		seen := make(map[string]bool)
		plantest.EachChange(t, p, func(path string, next *plan.Plan) {
			if kind := withoutNumbers(path); seen[kind] || stale > 5 {
				return // once for each member of each plan
			} else {
				seen[kind] = true
			}
			if next.Check() != nil {
				return
			}
			shareWhatIsAlike(p, next)
			changed++
			got, want := Figures(next, before), Figures(next, nil)
			if !reflect.DeepEqual(got.Channels, want.Channels) || !reflect.DeepEqual(got.Pools, want.Pools) ||
				!reflect.DeepEqual(got.Verdict, want.Verdict) {
				t.Errorf("%s: with another %s old figures stay", filepath.Base(file), path)
				stale++
			}
		})
	}
	if changed < 400 {
		t.Errorf("only %d values were changed", changed)
	}
}

// withoutNumbers is a path of a kind of value: all channels in one.
func withoutNumbers(path string) string {
	out := []rune{}
	for _, r := range path {
		if r < '0' || r > '9' {
			out = append(out, r)
		}
	}
	return string(out)
}

// shareWhatIsAlike gives a plan the lists and channels of another where they are alike, as
// edits do.
func shareWhatIsAlike(p, next *plan.Plan) {
	a, b := reflect.ValueOf(p).Elem(), reflect.ValueOf(next).Elem()
	for i := range a.NumField() {
		if reflect.DeepEqual(a.Field(i).Interface(), b.Field(i).Interface()) {
			b.Field(i).Set(a.Field(i))
		}
	}
	if len(p.Channels) != len(next.Channels) {
		return
	}
	for i := range next.Channels {
		if reflect.DeepEqual(p.Channels[i], next.Channels[i]) && &p.Channels[i] != &next.Channels[i] {
			next.Channels[i] = p.Channels[i]
		}
	}
}
