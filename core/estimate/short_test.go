package estimate

import (
	"math"
	"testing"

	"wakefield/core/plan"
	"wakefield/core/plan/plantest"
)

// TestWhatIsShortWouldDo adds what a pool is short of, and nothing is short any more; a gigabyte less, and it is.
func TestWhatIsShortWouldDo(t *testing.T) {
	p := plantest.Read(t, "testdata/landing-stage.json")
	for i := range p.Channels {
		p.Channels[i].Keep = plan.Keep{AtLeastDays: 2000}
	}
	p.Channels[0].Keep = plan.Keep{AtLeastDays: 5000, AtMostDays: 10} // no drive helps this one
	before := Figures(p, nil).Pools[0]
	if before.ShortGB <= 1 {
		t.Fatalf("%.1f GB short", before.ShortGB)
	}
	pool := &p.Recorders[0].Pools[0]
	for _, test := range []struct{ more, short float64 }{{0, 0}, {-1, 1}, {5, 0}} {
		pool.Layout, pool.HotSpares, pool.ReservePercent = "span", 0, 0
		pool.Drives = []plan.DriveGroup{{Count: 1, Terabytes: (before.UsableGB + before.ShortGB + test.more) / 1000}}
		after := Figures(p, nil)
		if got := after.Pools[0].ShortGB; math.Abs(got-test.short) > 0.001 {
			t.Errorf("with %v GB more than is short, %.4f GB are short, want %v", test.more, got, test.short)
		}
		if days := *after.Channels[1].RetentionDays; test.more == 0 && math.Abs(days-2000) > 0.01 {
			t.Errorf("%.3f days are kept", days)
		}
	}
}
