package readout

import (
	"testing"

	"wakefield.example/core/plan"
)

// TestWhatCanBeEnteredAtADevice reads what a recorder takes off a device: its periods, and its grid where all of its cameras have one.
func TestWhatCanBeEnteredAtADevice(t *testing.T) {
	grid := func(drawn string, columns, rows int) Channel {
		return Channel{Detection: &Detection{Drawn: drawn, Columns: columns, Rows: rows}}
	}
	same := []Channel{grid("grid", 22, 18), {}, grid("grid", 22, 18)}
	for name, test := range map[string]struct {
		was  *plan.Takes
		d    Device
		want string
	}{
		"a grid":             {nil, Device{Channels: same}, "grid 22 18 0"},
		"two grids":          {nil, Device{Channels: append(same, grid("grid", 22, 15))}, ""},
		"wider":              {nil, Device{Channels: []Channel{grid("grid", 22, 18), grid("grid", 44, 18)}}, ""},
		"a grid and corners": {nil, Device{Channels: append([]Channel{grid("polygon", 0, 0)}, same...)}, ""},
		"too fine":           {nil, Device{Channels: []Channel{grid("grid", 129, 18)}}, ""},
		"periods":            {nil, Device{Periods: 6}, " 0 0 6"},
		"no limit":           {nil, Device{Periods: manyPeriods}, ""},
		"beside the plan's":  {&plan.Takes{PeriodsPerDay: 4}, Device{Channels: same}, "grid 22 18 4"},
	} {
		got := ""
		if takes := TakesOf(test.was, &test.d); takes != nil {
			got = plan.Say("%s %d %d %d", takes.Areas, takes.GridColumns, takes.GridRows, takes.PeriodsPerDay)
		}
		if got != test.want {
			t.Errorf("%s: %q, want %q", name, got, test.want)
		}
	}
}
