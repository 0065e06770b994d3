package estimate

import (
	"math"
	"reflect"
	"testing"

	"wakefield.example/core/document"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

func TestRatesOf(t *testing.T) {
	a := plan.Activity{ID: "a", Name: "A", Known: "guess", MeanSeconds: 10, OtherwisePerHour: 1, Blocks: []plan.RateBlock{
		{Hours: plan.Hours{Days: []week.Weekday{week.Sunday}, From: 22 * 60, To: 60}, PerHour: 9}}}
	got := RatesOf(&a)
	want := []RateStep{{0, 9}, {60, 1}, {6*week.Day + 22*60, 9}}
	if !reflect.DeepEqual(got.Steps, want) || got.MostPerHour != 9 || math.Abs(got.PerDay-(24+3*8.0/7)) > 1e-9 ||
		math.Abs(got.OffBy-2) > 1e-9 || !got.OpenGroups {
		t.Errorf("%+v", got)
	}
	for known, off := range map[string]float64{"surveyed": 1.4, "measured": 1.15} {
		a.Known = known
		if got := RatesOf(&a); math.Abs(got.OffBy-off) > 1e-9 || got.OpenGroups {
			t.Errorf("%s: %+v", known, got)
		}
	}
	a.Known, a.Groups = "guess", &plan.Groups{Size: 1, WithinSeconds: 60}
	if RatesOf(&a).OpenGroups {
		t.Error("who says that events come singly leaves nothing open")
	}
}

// TestARateCanBeSaidInEveryWay asks that each way is a rate, that what is said stays, and
// that the others cost about the same.
func TestARateCanBeSaidInEveryWay(t *testing.T) {
	for _, r := range []plan.Rate{
		{Kind: "constant", Kbps: 3000, Known: "datasheet"},
		{Kind: "variable", IdleKbps: 900, ActiveKbps: 3600, Known: "surveyed"},
		{Kind: "modelled", Quality: 4, Scene: "busy"},
	} {
		s := plan.PlainStream(plan.Main)
		s.Rate = r
		curve := CurveOf(s)
		as := curve.As
		for kind, said := range map[string]plan.Rate{"constant": as.Constant, "variable": as.Variable, "modelled": as.Modelled} {
			if said.Kind != kind || document.Check("", &said) != nil {
				t.Errorf("%s as %s: %+v, %v", r.Kind, kind, said, document.Check("", &said))
			}
			if kind == r.Kind && said != r {
				t.Errorf("%+v became %+v", r, said)
			}
		}
		if math.Abs(as.Constant.Kbps-curve.ActiveKbps) > 1 || math.Abs(as.Variable.ActiveKbps-curve.ActiveKbps) > 1 {
			t.Errorf("%s: %+v of %+v", r.Kind, as, curve)
		}
		if r.Kind == "constant" && as.Variable.IdleKbps != 1000 || r.Kind != "constant" && math.Abs(as.Variable.IdleKbps-curve.IdleKbps) > 1 {
			t.Errorf("%s while nothing moves: %+v of %+v", r.Kind, as.Variable, curve)
		}
	}
}
