package rehearse

import (
	"slices"
	"testing"

	"wakefield.example/core/estimate"
)

// TestWhereAnEventWasLost names the gates whose findings would mend the loss of an event.
func TestWhereAnEventWasLost(t *testing.T) {
	for _, c := range []struct {
		of   Event
		want []estimate.GateName
	}{
		{Event{Source: Wanted, Fate: Full}, nil},
		{Event{Source: Nuisance, Gate: Overlooked}, nil},
		{Event{Source: Wanted, Fate: Missed, Gate: Overlooked}, []estimate.GateName{estimate.GateDetector}},
		{Event{Source: Wanted, Fate: Missed, Gate: Off}, []estimate.GateName{estimate.GateOn, estimate.GateDetector}},
		{Event{Source: Wanted, Fate: Missed, Gate: Closed}, []estimate.GateName{estimate.GateHours, estimate.GateDetector}},
		{Event{Source: Wanted, Fate: Missed, Gate: TooShort}, []estimate.GateName{estimate.GateLong, estimate.GateDetector}},
		{Event{Source: Wanted, Fate: Missed, Gate: OutOfSight}, []estimate.GateName{estimate.GateArea, estimate.GateLarge,
			estimate.GateDetector}},
		{Event{Source: Wanted, Fate: Low, Why: NotTied}, []estimate.GateName{estimate.GateTied, estimate.GateDetector}},
		{Event{Source: Wanted, Fate: Missed, Why: TurnedOff}, []estimate.GateName{estimate.GateDuty, estimate.GateDetector}},
	} {
		if got := lostAt(&c.of); !slices.Equal(got, c.want) {
			t.Errorf("%+v is lost at %v, want %v", c.of, got, c.want)
		}
	}
}
