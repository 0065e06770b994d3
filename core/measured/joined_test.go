package measured

import (
	"slices"
	"testing"

	"wakefield.example/core/week"
)

// TestEachKindOfFindingCountsByItself: what is brought in counts where any kind of it is the newest of its channel.
func TestEachKindOfFindingCountsByItself(t *testing.T) {
	log := func(day int) Log {
		return Log{Channel: "a", Kind: Triggers, Days: 1, From: week.Date{Year: 2026, Month: 11, Day: day}, Counts: make([]int, 24)}
	}
	list := []Data{
		{Oldest: []Oldest{{Channel: "a"}}}, {Oldest: []Oldest{{Channel: "a"}}},
		{Rates: []Rates{{Channel: "a"}}}, {Rates: []Rates{{Channel: "a"}}},
		{Settings: []Setting{{Channel: "a", Column: "pre"}}},
		{Settings: []Setting{{Channel: "a", Column: "post"}, {Channel: "a", Column: "pre"}}},
		{Logs: []Log{log(2)}}, {Logs: []Log{log(3)}}, {Logs: []Log{log(2)}},
	}
	all, counts := Joined(list)
	if want := []bool{false, true, false, true, false, true, false, true, true}; !slices.Equal(counts, want) {
		t.Errorf("%v, want %v", counts, want)
	}
	if len(all.Oldest) != 1 || len(all.Rates) != 1 || len(all.Settings) != 2 || len(all.Logs) != 2 {
		t.Errorf("%+v", all)
	}
}
