package estimate

import (
	"encoding/json"
	"math"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"wakefield.example/core/plan/plantest"
)

// TestCasesAgree holds the figures of whole plans against what an event-by-event
// play-out of 2,000 weeks put on disk, to 1 % or a tenth of a percentage point.
func TestCasesAgree(t *testing.T) {
	files, _ := filepath.Glob("testdata/*.expected.json")
	if len(files) < 2 {
		t.Fatal("the cases are gone")
	}
	for _, file := range files {
		t.Run(filepath.Base(file), func(t *testing.T) {
			site := Run(plantest.Read(t, strings.Replace(file, ".expected", "", 1)), nil)
			data, err := os.ReadFile(file)
			if err != nil {
				t.Fatal(err)
			}
			var want struct{ Channels, Pools, Messages, Outputs, Monitors, Away, Stills []map[string]any }
			if err := json.Unmarshal(data, &want); err != nil {
				t.Fatal(err)
			}
			compareAll(t, want.Channels, site.Channels)
			if want.Pools != nil {
				compareAll(t, want.Pools, site.Pools)
			}
			if want.Messages != nil {
				compareAll(t, want.Messages, site.Messages)
				compareAll(t, want.Outputs, site.Outputs)
				compareAll(t, want.Monitors, site.Monitors)
				for _, list := range [][]map[string]any{want.Away, want.Stills} {
					for _, one := range list {
						i := slices.IndexFunc(site.Channels, func(c Channel) bool { return c.ID == one["id"] })
						compareAll(t, []map[string]any{one}, site.Channels[i:i+1])
					}
				}
			}
		})
	}
}

func compareAll[T any](t *testing.T, want []map[string]any, got []T) {
	t.Helper()
	if len(want) != len(got) {
		t.Fatalf("%d figures, want %d", len(got), len(want))
	}
	for i := range want {
		data, _ := json.Marshal(got[i])
		var figures map[string]any
		if err := json.Unmarshal(data, &figures); err != nil {
			t.Fatal(err)
		}
		for name, w := range want[i] {
			w, isNumber := w.(float64)
			if !isNumber {
				continue
			}
			g, _ := figures[name].(float64)
			tolerance := 0.01 * math.Abs(w)
			switch {
			case strings.HasSuffix(name, "Percent"):
				tolerance = max(tolerance, 0.1)
			case name == "perDay" || name == "heldBackPerDay":
				tolerance = max(tolerance, 0.05)
			}
			if math.Abs(g-w) > tolerance {
				t.Errorf("%v %s: %.5f, want %.5f", want[i]["id"], name, g, w)
			} else {
				t.Logf("%v %-16s %12.5f, play-out %12.5f (%+.3f %%)", want[i]["id"], name, g, w, 100*(g/w-1))
			}
		}
	}
}
