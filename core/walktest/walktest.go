// Package walktest says what a walk in front of a camera should show, and what is wrong when it shows something else.
//
// Somebody walks, somebody watches the recorder: the sign of motion comes at a time or not at all, and later the first and the
// last second of the footage are read off. [Of] makes of a plan the cameras with their walks, and what each should show. For
// every [Fault] that an installation may have, with a prior chance, the same geometry (package picture) says what it would
// show instead: sizes and seconds that nobody knows are integrated over a grid of [Case]s.
//
// With Gaussian errors of a tap (0.7 s) and of footage that is read (0.5 s), and one slip in fifty, Bayes' rule gives the
// chance of each fault ([Camera.Judge]); the walk that tells most next is the one after which the expected entropy of the
// faults is least ([Camera.Next]).
package walktest

import (
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// Errors of what is seen, in seconds, standard deviations.
const (
	TapSeconds  = 0.7 // of a tap when the sign comes
	ReadSeconds = 0.5 // of a second that is read off the footage
	Slip        = 0.02
	// FreeSeconds is how far the sign is from what can be said of it where the ground in the picture is not known.
	FreeSeconds = 2
)

// Told is the chance above which a fault is told.
const Told = 0.05

// Fault is what may be wrong with a camera at its recorder.
type Fault string

// Faults.
const (
	AsPlanned Fault = "asPlanned"
	Off       Fault = "off"      // detection is off
	Untied    Fault = "untied"   // its motion does not record it
	Deaf      Fault = "deaf"     // the duty does not listen to motion
	Hours     Fault = "hours"    // detection is on in other hours
	Size      Fault = "size"     // another smallest size
	Wait      Fault = "wait"     // another shortest motion
	NoAreas   Fault = "noAreas"  // the whole picture is watched
	Strange   Fault = "strange"  // it has the areas of another channel
	Turned    Fault = "turned"   // the picture is shifted
	Mirrored  Fault = "mirrored" // left is right
	Pre       Fault = "pre"      // another pre-event time
	Post      Fault = "post"     // another post-event time
	Clock     Fault = "clock"    // the recorder's clock is off by more than is said
	Else      Fault = "else"     // nothing of these
)

// Prior is how likely a fault is before anybody walks, and how it is called.
type Prior struct {
	Fault  Fault
	Chance float64 // of a camera; those that cannot be at a camera leave theirs to the others
	Name   string
}

// Priors are the faults with their chances; the one place where they stand.
var Priors = []Prior{
	{AsPlanned, 0.58, "As planned"},
	{Off, 0.05, "Detection is off"},
	{Untied, 0.04, "Motion is not tied to recording"},
	{Deaf, 0.04, "The duty ignores motion at this hour"},
	{Hours, 0.03, "Detection has other hours"},
	{Size, 0.06, "Another smallest size"},
	{Wait, 0.04, "Another shortest motion"},
	{NoAreas, 0.03, "No areas: the whole picture is watched"},
	{Strange, 0.015, "Areas of another channel"},
	{Turned, 0.025, "The camera is turned"},
	{Mirrored, 0.01, "The picture is mirrored"},
	{Pre, 0.03, "Another pre-event time"},
	{Post, 0.03, "Another post-event time"},
	{Clock, 0.01, "The recorder’s clock is off"},
	{Else, 0.01, "Something else"},
}

// Name is what a fault is called.
func (f Fault) Name() string {
	for _, p := range Priors {
		if p.Fault == f {
			return p.Name
		}
	}
	return string(f)
}

// Case is a fault with one size of it.
type Case struct {
	Fault  Fault   `json:"fault" enum:"asPlanned,off,untied,deaf,hours,size,wait,noAreas,strange,turned,mirrored,pre,post,clock,else"`
	Value  float64 `json:"value,omitempty" doc:"Of a size its share of the picture in %, of a shortest motion, pre- or post-event time its seconds, of a clock how many seconds it is ahead, of a turned picture how far it moved to the right, % of its width"`
	Down   float64 `json:"down,omitempty" doc:"Of a turned picture how far it moved down, % of its height"`
	Of     string  `json:"of,omitempty" doc:"Of areas of another channel, its id"`
	Weight float64 `json:"weight" doc:"Chance before anybody walks"`
	Words  string  `json:"words" doc:"What is wrong, in a sentence"`
}

// Shown is what a walk shows: the seconds after its start at which the sign comes and at which the footage, or the mark in it,
// begins and ends. Each is nil where there is none.
type Shown [3]*float64

// Members of what is shown.
const (
	Sign = iota
	First
	Last
)

// Expectation is what a walk should show at some hours of the week.
type Expectation struct {
	Words      string   `json:"words,omitempty" doc:"Why no sign or no footage is to be expected; empty where both are"`
	Shown      Shown    `json:"shown" minItems:"3" maxItems:"3" doc:"Seconds at which the sign comes, the footage begins and ends"`
	AwayMetres *float64 `json:"awayMetres,omitempty" doc:"How far away the walker is then"`
	Always     string   `json:"always,omitempty" enum:"low,full" doc:"Whether footage is written all the time, of which quality: then the first and last second are those of the mark"`
	Records    []string `json:"records,omitempty" doc:"Other channels that record too, as a fitter calls them"`
	Does       []string `json:"does,omitempty" doc:"What else it causes, a sentence each"`
	Key        string   `json:"key" doc:"The same as long as the same is expected"`
}

// TrackPoint is where a walker is at a moment.
type TrackPoint struct {
	Seconds float64 `json:"seconds"`
	X       float64 `json:"x" doc:"Feet, share of the width"`
	Y       float64 `json:"y" doc:"Feet, share of the height"`
	Metres  float64 `json:"metres" doc:"How far away"`
	Percent float64 `json:"percent" doc:"How much of the picture the walker covers"`
}

// Walk is a walk before a camera.
type Walk struct {
	ID       string        `json:"id" doc:"Of the walk in the plan, or ~near, ~middle, ~far for one across the picture"`
	Name     string        `json:"name"`
	Do       string        `json:"do" doc:"Who walks where, in a sentence"`
	Optional bool          `json:"optional,omitempty" doc:"Whether it is there to tell faults apart, and not to be walked by all"`
	Free     bool          `json:"free,omitempty" doc:"Whether the ground is not known: then the first second is told from the sign, the last one from when the walker is out of view"`
	Seconds  float64       `json:"seconds" doc:"How long it takes; 0 where that is not known"`
	Track    []TrackPoint  `json:"track" doc:"Where the walker is; empty where the ground is not known"`
	Noticed  *TrackPoint   `json:"noticed,omitempty" doc:"Where the sign should come"`
	Expected []Expectation `json:"expected" doc:"By situation"`
	Shows    [][]Shown     `json:"shows" doc:"By situation and case, in the order of the camera's cases"`
}

// Since is from when on a situation holds, until the next.
type Since struct {
	From      week.Minute `json:"from" doc:"Minutes since Monday 00:00"`
	Situation int         `json:"situation"`
}

// Camera is a camera that is walked before.
type Camera struct {
	Channel  string  `json:"channel" doc:"Id"`
	Number   int     `json:"number"`
	Name     string  `json:"name"`
	Group    string  `json:"group,omitempty"`
	Recorder string  `json:"recorder" doc:"Id"`
	Picture  string  `json:"picture,omitempty" doc:"Id of its snapshot"`
	Aspect   float64 `json:"aspect" doc:"Width of its picture over its height"`
	None     string  `json:"none,omitempty" doc:"Why there is nothing to walk; empty where there is"`
	Misses   float64 `json:"misses" doc:"Chance that detection misses what is in sight"`
	Cases    []Case  `json:"cases"`
	Week     []Since `json:"week" doc:"Which situation holds when"`
	Walks    []Walk  `json:"walks"`
	Areas    []Area  `json:"areas" doc:"For drawing"`

	PreSeconds  float64 `json:"preSeconds"`
	PostSeconds float64 `json:"postSeconds"`
}

// Area is a watched or ignored area, for drawing.
type Area struct {
	Ignore bool         `json:"ignore,omitempty"`
	Points []plan.Point `json:"points"`
}

// Walk finds a walk of the camera; nil where there is none of that id.
func (c *Camera) Walk(id string) *Walk {
	for k := range c.Walks {
		if c.Walks[k].ID == id {
			return &c.Walks[k]
		}
	}
	return nil
}

// At is the situation at a minute of the week.
func (c *Camera) At(m week.Minute) int {
	at := 0
	for _, s := range c.Week {
		if s.From <= m {
			at = s.Situation
		}
	}
	return at
}
