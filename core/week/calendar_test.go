package week

import (
	"reflect"
	"testing"
	"time"
)

func date(year int, month time.Month, day int) Date { return Date{Year: year, Month: month, Day: day} }

func TestWhichRangeHolds(t *testing.T) {
	c := Calendar{
		{From: date(2026, 12, 20), To: date(2027, 1, 5), Yearly: true},
		{From: date(2026, 12, 24), To: date(2026, 12, 26)},
		{From: date(2028, 2, 29), To: date(2028, 3, 1), Yearly: true},
	}
	for _, test := range []struct {
		from Date
		want []int
	}{
		{date(2026, 12, 18), []int{-1, -1, 0, 0, 0, 0, 1, 1, 1, 0}},
		{date(2027, 1, 4), []int{0, 0, -1}},      // over the end of the year it begins with
		{date(2029, 1, 5), []int{0, -1}},         // and of later ones
		{date(2025, 12, 24), []int{-1, -1}},      // not before the year it is written with
		{date(2027, 12, 24), []int{0}},           // the other one was once
		{date(2028, 2, 28), []int{-1, 2, 2, -1}}, // a day that most years do not have
		{date(2029, 2, 28), []int{-1, -1, -1}},
	} {
		if got := c.Holding(test.from, len(test.want)); !reflect.DeepEqual(got, test.want) {
			t.Errorf("from %v: %v, want %v", test.from, got, test.want)
		}
	}
	if got := (Calendar{}).Holding(date(2026, 1, 1), 2); !reflect.DeepEqual(got, []int{-1, -1}) {
		t.Errorf("an empty calendar: %v", got)
	}
}

func TestHiddenRanges(t *testing.T) {
	c := Calendar{
		{From: date(2026, 5, 1), To: date(2026, 5, 3)},
		{From: date(2026, 5, 2), To: date(2026, 5, 4)},
		{From: date(2026, 4, 30), To: date(2026, 5, 1)},
	}
	if got := c.HiddenRanges(); len(got) != 1 || got[0] != (Hidden{Range: 0, By: 2, On: date(2026, 5, 1)}) {
		t.Errorf("%+v", got)
	}
	if got := c[:1].HiddenRanges(); got != nil {
		t.Errorf("one range alone: %+v", got)
	}
}
