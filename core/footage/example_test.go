package footage_test

import (
	"fmt"

	"wakefield.example/core/activity"
	"wakefield.example/core/footage"
	"wakefield.example/core/video"
	"wakefield.example/core/week"
)

// A door that opens twelve times an hour for 20 s each, kept from 5 s before to 30 s after, is not written for
// 12 × 55 s of every hour, 18.3 %: overlaps merge.
func ExamplePlay() {
	visits := activity.New(week.Constant(12.0), 20)
	caught := activity.Always.Triggers(visits)
	happening := footage.Happening{
		Motion: []footage.Source{{Triggers: caught, Pre: 5, Post: 30, Events: visits, Detection: activity.Always}},
		Own:    []activity.Process{visits},
		Caught: []footage.Source{{Triggers: caught, Events: visits, Detection: activity.Always}},
		Tied:   true,
		Wanted: visits, Noticed: week.Constant(1.0),
	}
	motionOnly := footage.Regime{Admit: footage.Motion, Event: video.Cost{Idle: 1200, Active: 4000}}
	costs := footage.Price(footage.Play(happening, week.Constant(motionOnly)), week.Constant(motionOnly))
	monday := costs[0]
	fmt.Printf("%s: %.1f %% written, %.0f kbit/s\n", monday.Span, 100*monday.Written, float64(monday.Total()))
	// Output:
	// mon 00:00-00:30: 16.8 % written, 382 kbit/s
}
