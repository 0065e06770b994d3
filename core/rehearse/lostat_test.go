package rehearse

import (
	"slices"
	"testing"

	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
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

// TestWhatAnEventIs says it in words, with the way that somebody walked where it is known.
func TestWhatAnEventIs(t *testing.T) {
	p := plantest.Whole(t)
	at := slices.IndexFunc(p.Channels, func(c plan.Channel) bool { return c.Scene != nil && len(c.Scene.Walks) > 0 && c.Activity != "" })
	if at < 0 {
		t.Fatal("nobody walks")
	}
	c := &p.Channels[at]
	r := &Rehearsal{plan: p, Events: []Event{{Source: Wanted, Channel: at, Walk: 0}, {Source: Wanted, Channel: at, Walk: -1},
		{Source: Tampered, Channel: at, Walk: -1}}}
	plain := c.Name + ", " + p.Activity(c.Activity).Name
	for n, want := range []string{plain + ", the way “" + c.Scene.Walks[0].Name + "”", plain, "Tampering with " + c.Name} {
		if got := r.What(n); got != want {
			t.Errorf("%q, want %q", got, want)
		}
	}
}
