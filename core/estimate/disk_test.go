package estimate

import (
	"math"
	"testing"

	"wakefield.example/core/plan/plantest"
)

// TestDiskUse holds what goes by duty and by hour against what all channels write.
func TestDiskUse(t *testing.T) {
	for _, file := range []string{"../../internal/demo/pennywhistle-quay.json", "testdata/plans/ties-of-every-kind.json"} {
		s := Figures(plantest.Read(t, file), nil)
		use := s.DiskUse()
		byDuty, byHour, hours := 0.0, 0.0, 0.0
		for k, d := range use.Duties {
			byDuty += d.GigabytesPerDay
			hours += d.HoursPerWeek
			if k > 0 && d.GigabytesPerDay > use.Duties[k-1].GigabytesPerDay {
				t.Error("most is not first")
			}
		}
		for _, gb := range use.Hours {
			byHour += gb
		}
		cameras := 0.0
		for i := range s.plan.Channels {
			if !s.plan.Channels[i].NoCamera {
				cameras++
			}
		}
		all := s.Verdict.GigabytesPerDay - use.StillsGigabytesPerDay
		if math.Abs(byDuty-all) > 1e-9*all || math.Abs(byHour-all) > 1e-9*all || math.Abs(hours-168*cameras) > 1e-6 {
			t.Errorf("%s: %v by duty, %v by hour, %v in all; %v h of %v", file, byDuty, byHour, all, hours, 168*cameras)
		}
	}
}
