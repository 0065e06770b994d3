package footage

import (
	"testing"

	"wakefield/core/activity"
	"wakefield/core/video"
	"wakefield/core/week"
)

// TestWhatIsWrittenHasItsCause writes for motion, for alarms, for either and for both at once.
func TestWhatIsWrittenHasItsCause(t *testing.T) {
	moves, opens := activity.New(week.Constant(30.0), 20), activity.New(week.Constant(10.0), 20)
	scene := Scene{Motion: []Source{{Triggers: moves, Pre: 5, Post: 10}}, Alarm: []Source{{Triggers: opens, Pre: 5, Post: 10}},
		Own: []activity.Process{moves}, Caught: []Source{{Triggers: moves}}, Tied: true, Wanted: moves, Noticed: week.Constant(1.0)}
	for admit, by := range map[Admit][2]bool{Motion: {true, false}, Alarm: {false, true}, Both: {false, true}, Either: {true, true}} {
		regimes := week.Constant(Regime{Admit: admit, Event: video.Cost{Idle: 1000, Active: 4000}})
		b := Price(Play(scene, regimes), regimes)[3]
		if (b.Motion > 0) != by[0] || (b.Alarm > 0) != by[1] || b.Base != 0 || b.Call != 0 {
			t.Errorf("admitting %v: motion %v, alarm %v, base %v", admit, b.Motion, b.Alarm, b.Base)
		}
	}
}
