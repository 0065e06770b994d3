package walktest

import (
	"time"
)

// Record is something that was seen or decided on site. It is never changed; what is not to count is set aside by another one.
type Record struct {
	ID       string    `json:"id" minLength:"1" maxLength:"60" pattern:"^[0-9A-Za-z_-]+$" doc:"Made where it was noted; the same one sent again is kept once"`
	About    string    `json:"about" maxLength:"300" doc:"Id of the channel, of the trial, of the recorder of a clock, of the record that is set aside; empty of a signature"`
	Revision int64     `json:"revision" minimum:"1" doc:"Of the plan that was taken along"`
	By       string    `json:"by,omitempty" maxLength:"60" doc:"Who noted it, as the phone knew"`
	Author   string    `json:"author,omitempty" doc:"Who sent it"`
	At       time.Time `json:"at,omitempty" doc:"When it was noted, by the server's clock"`
	Clock    string    `json:"clock" enum:"monotonic,phone" doc:"How the phone knew how long ago that was: by a clock that nobody sets, or by its own"`
	Said
}

// Said is what a record says. Exactly one member is set.
type Said struct {
	Walk      *WalkSaid  `json:"walk,omitempty" doc:"What was seen of a walk"`
	Trial     *TrialSaid `json:"trial,omitempty" doc:"What was seen of a trial"`
	Error     *ClockSaid `json:"error,omitempty" doc:"How far the clock of a recorder is off"`
	Decision  *Decision  `json:"decision,omitempty" doc:"What becomes of a camera or a trial that shows something else than planned"`
	Photo     *Photo     `json:"photo,omitempty" doc:"A picture that was taken"`
	Signature *Signature `json:"signature,omitempty" doc:"That the walk test is finished"`
	Aside     *Aside     `json:"aside,omitempty" doc:"That a record does not count"`
}

// Kind is what a record says, as a word; empty where it says nothing, or two things.
func (s *Said) Kind() (kind string) {
	n := 0
	for _, k := range []struct {
		is   bool
		kind string
	}{{s.Walk != nil, "walk"}, {s.Trial != nil, "trial"}, {s.Error != nil, "error"}, {s.Decision != nil, "decision"},
		{s.Photo != nil, "photo"},
		{s.Signature != nil, "signature"}, {s.Aside != nil, "aside"}} {
		if k.is {
			kind = k.kind
			n++
		}
	}
	if n != 1 {
		return ""
	}
	return kind
}

// WalkSaid is what was seen of a walk.
type WalkSaid struct {
	Seen
	Key    string `json:"key" maxLength:"40" doc:"Of what was expected"`
	Name   string `json:"name" maxLength:"200" doc:"What the walk was called"`
	Who    string `json:"who,omitempty" maxLength:"200" doc:"Who walked"`
	Remark string `json:"remark,omitempty" maxLength:"2000"`
	// What was expected then, for whoever reads it when the plan is another.
	Planned Shown `json:"planned" minItems:"3" maxItems:"3" doc:"Seconds at which the sign, the first and the last second were expected"`
}

// TrialSaid is what was seen of a trial.
type TrialSaid struct {
	Key    string    `json:"key" maxLength:"40" doc:"Of what was expected"`
	Name   string    `json:"name" maxLength:"300" doc:"What it was called"`
	Lines  []LineSaw `json:"lines" maxItems:"2000"`
	Remark string    `json:"remark,omitempty" maxLength:"2000"`
}

// LineSaw is whether one thing was seen.
type LineSaw struct {
	ID    string `json:"id" maxLength:"40"`
	Words string `json:"words" maxLength:"1000"`
	Right bool   `json:"right"`
}

// ClockSaid is how far the clock of a recorder is off.
type ClockSaid struct {
	Seconds float64 `json:"seconds" minimum:"-400000000" maximum:"400000000" doc:"By which it is ahead of the phone's"`
}

// Decision is what becomes of something that shows something else than planned.
type Decision struct {
	What   string `json:"what" enum:"again,propose,leave,taken,declined" doc:"Mend it and walk again; the plan should say what was found; leave it; and what a planner made of a proposal"`
	Reason string `json:"reason,omitempty" maxLength:"2000"`
	Fault  Fault  `json:"fault,omitempty" maxLength:"40" doc:"What it is thought to be"`
	Words  string `json:"words,omitempty" maxLength:"1000" doc:"The same in words"`
	Of     string `json:"of,omitempty" maxLength:"60" doc:"Id of the proposal that is taken or declined"`
	Found  *Found `json:"found,omitempty" doc:"Of a proposal, what was found"`
}

// Found is a size of a fault, as a [Case] has it.
type Found struct {
	Value float64 `json:"value,omitempty" minimum:"-1000000" maximum:"1000000"`
	Down  float64 `json:"down,omitempty" minimum:"-1000" maximum:"1000"`
	Of    string  `json:"of,omitempty" maxLength:"200"`
}

// Photo is a picture that was taken of a channel.
type Photo struct {
	Picture string `json:"picture" minLength:"1" maxLength:"100" doc:"Id of the stored picture"`
	What    string `json:"what" enum:"monitor,site" doc:"Whether it shows the channel's picture and may become its snapshot, or what somebody should see"`
}

// Signature says that the walk test is finished, and by whom.
type Signature struct {
	Name    string        `json:"name" minLength:"1" maxLength:"200"`
	Strokes [][][]float64 `json:"strokes" minItems:"1" maxItems:"400" doc:"Lines that were drawn, points by shares of a field twice and a half as wide as high"`
	Remark  string        `json:"remark,omitempty" maxLength:"2000"`
}

// Aside says that a record does not count.
type Aside struct {
	Reason string `json:"reason" maxLength:"2000"`
}
