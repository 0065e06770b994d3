package uplink

import (
	"wakefield.example/core/activity"
	"wakefield.example/core/footage"
	"wakefield.example/core/week"
)

// Demand is all that is copied off site, and what makes it so.
type Demand struct {
	Sources  []Source
	Channels []Channel
	Line     *Line
	Grows    bool // whether a week brings more than the line carries, so that it never catches up

	part float64 // of what happens, that is played
}

// Source is something that happens by itself. Its name is its luck: under the same name the same happens, whatever else does.
type Source struct {
	Name string
	activity.Process
}

// Channel is what is copied of one channel.
type Channel struct {
	Weekly Kbit  // that is copied in a week
	Own    []int // sources that move before it
	Heard  []Heard

	// Footage around an event is copied from Pre seconds before its trigger to Post seconds after its end.
	Pre, Post, AlarmPre, AlarmPost float64
	// Copied is what is copied where the duty admits the event: Admit and Event of each.
	Copied week.Steps[footage.Regime]
	// Stills go in the place of footage where there are any.
	Stills *Stills
}

// Heard is a source whose events are copied, as far as they become triggers.
type Heard struct {
	Source int
	By     []activity.Detection // of which no two have an hour in common
	Alarm  bool                 // whether it counts as an alarm
}

// Stills are taken every so many seconds at least, while a trigger lasts.
type Stills struct {
	EverySeconds float64
	Amount       Kbit // of one
	Hours        week.Steps[bool]
}
