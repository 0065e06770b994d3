package edit

import (
	"reflect"
	"testing"

	"wakefield.example/core/week"
)

// TestWhereWeeksDiffer lists just the stretches in which two weeks have other duties, none of them empty.
func TestWhereWeeksDiffer(t *testing.T) {
	a := week.Constant("off").Paint(week.Span{From: 60, To: 120}, "clock").Paint(week.Span{From: 120, To: 180}, "motion")
	b := week.Constant("off").Paint(week.Span{From: 90, To: 120}, "motion").Paint(week.Span{From: 120, To: 200}, "motion")
	want := []week.Span{{From: 60, To: 90}, {From: 90, To: 120}, {From: 180, To: 200}}
	if got := differing(a, b); !reflect.DeepEqual(got, want) {
		t.Errorf("they differ over %v, want %v", got, want)
	}
	if got := differing(a, a); len(got) != 0 {
		t.Errorf("a week differs from itself over %v", got)
	}
}
