package year

import (
	"reflect"
	"slices"
	"testing"
	"time"

	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
	"wakefield.example/core/resolve"
	"wakefield.example/core/week"
)

// twoPools is a plan with special days whose first channel is kept on a pool of its own.
func twoPools(t *testing.T) *plan.Plan {
	p := plantest.Read(t, "../estimate/testdata/plans/boats.json")
	second := p.Recorders[0].Pools[0]
	second.ID, second.Name = "second", "Second"
	p.Recorders[0].Pools = append(slices.Clone(p.Recorders[0].Pools), second)
	p.Channels[0].Pool = "second"
	busier := 1.7
	p.Site.SpecialDays = []plan.SpecialDay{{From: week.Date{Year: 2027, Month: 3, Day: 1}, To: week.Date{Year: 2027, Month: 3, Day: 20},
		Name: "Regatta", RateFactor: &busier}}
	return p
}

// after follows a plan once more, with what was found of it before.
func after(t *testing.T, p *plan.Plan, before *Site) (*Site, *Year) {
	t.Helper()
	s := followed(t, p, 0.15)
	s.Site = resolve.Of(p, before.Site)
	for i := range p.Channels {
		if p.Channels[i] == before.Site.Plan.Channels[i] {
			s.Played[i] = before.Played[i]
		}
	}
	y, err := s.After(before).Follow(t.Context(), week.Date{Year: 2027, Month: 1, Day: 1})
	if err != nil {
		t.Fatal(err)
	}
	return s, y
}

// TestPoolsThatDidNotChangeAreTakenFromBefore: a change of one channel follows its own pool anew, and no other; and what is taken
// from before is what would be found anew.
func TestPoolsThatDidNotChangeAreTakenFromBefore(t *testing.T) {
	p := twoPools(t)
	s := followed(t, p, 0.15)
	first, err := s.Follow(t.Context(), week.Date{Year: 2027, Month: 1, Day: 1})
	if err != nil {
		t.Fatal(err)
	}
	if len(first.Pools) != 2 || len(first.Pools[0].Days) != 365 || len(first.Pools[1].Days) != 365 {
		t.Fatalf("%d pools, %d and %d days", len(first.Pools), len(first.Pools[0].Days), len(first.Pools[1].Days))
	}
	sooner := *p
	sooner.Channels = slices.Clone(p.Channels)
	sooner.Channels[0].PostSeconds += 40
	later := *p
	later.Site.SpecialDays = slices.Clone(p.Site.SpecialDays)
	later.Site.SpecialDays[0].To.Day = 28
	renamed := *p
	renamed.Site.SpecialDays = slices.Clone(p.Site.SpecialDays)
	renamed.Site.SpecialDays[0].Name = "Regatta week"
	for _, test := range []struct {
		what string
		plan *plan.Plan
		kept [2]bool // whether the pools are taken from before
	}{{"nothing", p, [2]bool{true, true}}, {"a channel of the second", &sooner, [2]bool{true, false}},
		{"the last of the special days", &later, [2]bool{}}, {"their name", &renamed, [2]bool{}}} {
		_, y := after(t, test.plan, s)
		anew, err := followed(t, test.plan, 0.15).Follow(t.Context(), week.Date{Year: 2027, Month: 1, Day: 1})
		if err != nil {
			t.Fatal(err)
		}
		if !reflect.DeepEqual(y, anew) {
			t.Errorf("%s changed: anew it is another year", test.what)
		}
		for k := range y.Pools {
			if kept := &y.Pools[k].Days[0] == &first.Pools[k].Days[0]; kept != test.kept[k] {
				t.Errorf("%s changed: pool %d taken from before: %v", test.what, k, kept)
			}
		}
	}
	s.Pools[1].Usable /= 2
	if _, y := after(t, p, s); &y.Pools[1].Days[0] != &first.Pools[1].Days[0] {
		t.Error("what a pool takes is asked of the one before, not of this one")
	}
}

// TestOfDatesThatComeToTheSameItIsTheFirst: without special days every week is like the first.
func TestOfDatesThatComeToTheSameItIsTheFirst(t *testing.T) {
	p := twoPools(t)
	p.Site.SpecialDays, p.Site.TimeZone = nil, "UTC"
	y, err := followed(t, p, 0.15).Follow(t.Context(), week.Date{Year: 2027, Month: 1, Day: 1})
	if err != nil {
		t.Fatal(err)
	}
	for _, pool := range y.Pools {
		if d := pool.WorstDate; d == nil || d.Month != time.January || d.Day > 7 {
			t.Errorf("%s: worst on %v", pool.ID, d)
		}
	}
}
