package measured

import (
	"testing"
	"time"

	"wakefield.example/core/week"
)

// TestHowFarDataReach has logs, bitrates and the oldest footage of several channels over dates of their own.
func TestHowFarDataReach(t *testing.T) {
	day := func(d int) week.Date { return october.Add(d) }
	d := Data{
		Logs:   []Log{{Channel: "a", From: day(5), Days: 3}, {Channel: "b", From: day(2), Days: 4}},
		Rates:  []Rates{{Channel: "a", From: day(1), To: day(6)}},
		Oldest: []Oldest{{Channel: "c", Oldest: day(-9).At(720, time.UTC), On: day(9).At(60, time.UTC)}},
	}
	for n, want := range map[int][3]int{1: {2, 2, 7}, 2: {2, 1, 7}, 3: {3, -9, 9}} {
		part := Data{Logs: d.Logs}
		if n > 1 {
			part.Rates = d.Rates
		}
		if n > 2 {
			part.Oldest = d.Oldest
		}
		channels, from, to := part.Extent()
		if channels != want[0] || from == nil || to == nil || *from != day(want[1]) || *to != day(want[2]) {
			t.Errorf("%d: %d channels from %v to %v, want %v", n, channels, from, to, want)
		}
	}
	if channels, from, to := (&Data{}).Extent(); channels != 0 || from != nil || to != nil {
		t.Errorf("nothing is of %d channels from %v to %v", channels, from, to)
	}
}
