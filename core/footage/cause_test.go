package footage

import (
	"math"
	"testing"

	"wakefield.example/core/activity"
	"wakefield.example/core/video"
	"wakefield.example/core/week"
)

// TestWhatIsWrittenHasItsCause writes for motion, for alarms, for either and for both at once.
func TestWhatIsWrittenHasItsCause(t *testing.T) {
	moves, opens := activity.New(week.Constant(30.0), 20), activity.New(week.Constant(10.0), 20)
	happening := Happening{Motion: []Source{{Triggers: moves, Pre: 5, Post: 10}}, Alarm: []Source{{Triggers: opens, Pre: 5, Post: 10}},
		Own: []activity.Process{moves}, Caught: []Source{{Triggers: moves}}, Tied: true, Wanted: moves, Noticed: week.Constant(1.0)}
	for admit, by := range map[Admit][2]bool{Motion: {true, false}, Alarm: {false, true}, Both: {false, true}, Either: {true, true}} {
		regimes := week.Constant(Regime{Admit: admit, Event: video.Cost{Idle: 1000, Active: 4000}})
		b := Price(Play(happening, regimes), regimes)[3]
		if (b.Motion > 0) != by[0] || (b.Alarm > 0) != by[1] || b.Base != 0 || b.Call != 0 {
			t.Errorf("admitting %v: motion %v, alarm %v, base %v", admit, b.Motion, b.Alarm, b.Base)
		}
	}
}

// TestWhatDiffersWhileSomethingMoves tells regimes in which it matters whether something moves.
func TestWhatDiffersWhileSomethingMoves(t *testing.T) {
	same, differs := video.Cost{Idle: 5, Active: 5}, video.Cost{Idle: 5, Active: 9}
	for name, test := range map[string]struct {
		regime Regime
		call   float64
		want   bool
	}{
		"nothing":                       {Regime{Base: differs, Event: differs, Call: differs}, 0, false},
		"a constant base":               {Regime{HasBase: true, Base: same, Event: differs}, 0, false},
		"a variable base":               {Regime{HasBase: true, Base: differs}, 0, true},
		"a constant event layer":        {Regime{Admit: Motion, Event: same, Base: differs}, 0, false},
		"a variable event layer":        {Regime{Admit: Alarm, Event: differs}, 0, true},
		"a button over a variable main": {Regime{Call: differs}, 0.1, true},
		"a button over a constant main": {Regime{Call: same, Event: differs}, 0.1, false},
	} {
		s := Happening{Call: test.call}
		if got := s.Moves(test.regime); got != test.want {
			t.Errorf("%s: %v", name, got)
		}
	}
}

// TestChanceIsThatOfPoisson holds the series for small means against the function.
func TestChanceIsThatOfPoisson(t *testing.T) {
	for mean := 0.0; mean < 0.5; mean += 0.003 {
		if got, want := chance(mean), -math.Expm1(-mean); math.Abs(got-want) > 1e-12 {
			t.Errorf("of %v: %v, want %v", mean, got, want)
		}
	}
}
