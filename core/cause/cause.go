// Package cause knows what causes what in a plan: the one place that estimate, checks and pages ask.
//
// A cause is motion on a channel or in one of its areas, an alarm input, a lost picture, tampering, a lost uplink or a button; a [Tie] is a
// cause with the hours in which it counts. Beside the plan's effects there are ties that need no saying: own motion records
// a channel and takes its stills on trigger, and a button records what it names. A cause that is tied to the same thing
// twice counts once, at all hours of either.
package cause

import (
	"fmt"

	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// Kind is a kind of cause.
type Kind string

const (
	Motion   Kind = "motion"
	Alarm    Kind = "alarm"
	Lost     Kind = "lost"
	Tampered Kind = "tampered"
	Button   Kind = "button"

	UplinkLost Kind = "uplinkLost" // the uplink of the copy off site is cut or fails
)

// Cause is one thing that can happen.
type Cause struct {
	Kind     Kind
	At       int     // index of the channel, of the alarm input or of the button; 0 of the uplink
	Area     string  // id of an area of the channel, of motion in one; empty for motion in any
	PerMonth float64 // of a lost picture, of tampering and of a lost uplink
}

// Key tells causes apart, as text.
func (c Cause) Key() string { return fmt.Sprintf("%s %d %s", c.Kind, c.At, c.Area) }

// Tie is a cause of something, when it counts, and which effect of the plan says so.
type Tie struct {
	Cause  Cause
	Hours  week.Steps[bool]
	Effect int // index of the first effect that says so; see Unsaid
}

// Unsaid stands for the effect of ties that no effect has to say.
const Unsaid = -1

// Always tells whether a tie counts at all hours.
func (t *Tie) Always() bool { return len(t.Hours) == 1 && t.Hours[0].Value }

// Sending is a tie that sends a movable camera.
type Sending struct {
	Tie
	Preset  string  // id of one of the channel's presets
	Seconds float64 // how long it looks there
}

// Causes are what causes what, by the place of what is caused in the plan.
type Causes struct {
	Records  [][]Tie     // by channel
	Held     [][]Tie     // by channel: buttons that make it write its main stream, whatever its duty
	Messages [][]Tie     // by message
	Outputs  [][]Tie     // by output
	Monitors [][]Tie     // by monitor
	Sends    [][]Sending // by channel
	Stills   [][]Tie     // by channel
	Offsite  [][]Tie     // by channel

	finder *finder
}

// Of finds what causes what in a plan that keeps its rules.
func Of(p *plan.Plan) *Causes {
	c := &Causes{
		Records: make([][]Tie, len(p.Channels)), Held: make([][]Tie, len(p.Channels)), Sends: make([][]Sending, len(p.Channels)),
		Stills: make([][]Tie, len(p.Channels)), Offsite: make([][]Tie, len(p.Channels)),
		Messages: make([][]Tie, len(p.Messages)), Outputs: make([][]Tie, len(p.Outputs)), Monitors: make([][]Tie, len(p.Monitors)),
	}
	f := newFinder(p)
	c.finder = f
	always := week.Constant(true)
	for i := range p.Channels {
		ch := &p.Channels[i]
		if ch.NoCamera || !ch.Detection.On {
			continue
		}
		own := Tie{Cause{Kind: Motion, At: i}, always, Unsaid}
		if ch.Detection.TiedToSelf() {
			f.add(&c.Records[i], own)
		}
		if ch.Stills != nil && ch.Stills.Mode == "trigger" {
			f.add(&c.Stills[i], own)
		}
	}
	for i := range p.CallButtons {
		for _, id := range p.CallButtons[i].Records {
			f.add(&c.Held[f.channels[id]], Tie{Cause{Kind: Button, At: i}, always, Unsaid})
		}
	}
	for i := range p.Effects {
		e := &p.Effects[i]
		tie := Tie{f.cause(&e.When), e.Hours.Holding(), i}
		for _, id := range e.Record {
			if k := f.channels[id]; tie.Cause.Kind == Button {
				f.add(&c.Held[k], tie)
			} else {
				f.add(&c.Records[k], tie)
			}
		}
		f.each(c.Messages, f.messages, e.Message, tie)
		f.each(c.Outputs, f.outputs, e.Output, tie)
		f.each(c.Monitors, f.monitors, e.Monitor, tie)
		f.each(c.Stills, f.channels, e.Still, tie)
		f.each(c.Offsite, f.channels, e.Offsite, tie)
		for _, sent := range e.Preset {
			f.send(&c.Sends[f.channels[sent.Channel]], Sending{tie, sent.Preset, sent.DwellSeconds})
		}
	}
	f.known = nil
	return c
}

// finder finds things by their id, and ties that are there already.
type finder struct {
	channels, inputs, buttons, messages, outputs, monitors map[string]int

	known map[place]int // while they are sought
}

// place is a list of ties and what tells a tie apart in it.
type place struct {
	list  any // pointer to the list
	cause Cause
	more  string
}

func newFinder(p *plan.Plan) *finder {
	f := &finder{known: make(map[place]int)}
	f.channels = index(p.Channels, func(x *plan.Channel) string { return x.ID })
	f.inputs = index(p.AlarmInputs, func(x *plan.AlarmInput) string { return x.ID })
	f.buttons = index(p.CallButtons, func(x *plan.CallButton) string { return x.ID })
	f.messages = index(p.Messages, func(x *plan.Message) string { return x.ID })
	f.outputs = index(p.Outputs, func(x *plan.Output) string { return x.ID })
	f.monitors = index(p.Monitors, func(x *plan.Monitor) string { return x.ID })
	return f
}

func index[T any](list []T, id func(*T) string) map[string]int {
	out := make(map[string]int, len(list))
	for i := range list {
		out[id(&list[i])] = i
	}
	return out
}

func (f *finder) cause(w *plan.When) Cause {
	switch {
	case w.Motion != "":
		return Cause{Kind: Motion, At: f.channels[w.Motion], Area: w.Area}
	case w.Alarm != "":
		return Cause{Kind: Alarm, At: f.inputs[w.Alarm]}
	case w.Lost != "":
		return Cause{Kind: Lost, At: f.channels[w.Lost], PerMonth: w.PerMonth}
	case w.Tampered != "":
		return Cause{Kind: Tampered, At: f.channels[w.Tampered], PerMonth: w.PerMonth}
	}
	if w.UplinkLost {
		return Cause{Kind: UplinkLost, PerMonth: w.PerMonth}
	}
	return Cause{Kind: Button, At: f.buttons[w.Button]}
}

func (f *finder) each(lists [][]Tie, at map[string]int, ids []string, tie Tie) {
	for _, id := range ids {
		f.add(&lists[at[id]], tie)
	}
}

// few ties are gone through; of more it is remembered where they are.
const few = 12

// add puts a tie into a list; one of the same cause that is there counts at its hours too.
func (f *finder) add(list *[]Tie, tie Tie) {
	if len(*list) < few {
		for k := range *list {
			if (*list)[k].Cause == tie.Cause {
				(*list)[k].Hours = week.Or((*list)[k].Hours, tie.Hours)
				return
			}
		}
		*list = append(*list, tie)
		return
	}
	if len(*list) == few {
		for k := range *list {
			f.known[place{list, (*list)[k].Cause, ""}] = k
		}
	}
	at := place{list, tie.Cause, ""}
	if k, ok := f.known[at]; ok {
		(*list)[k].Hours = week.Or((*list)[k].Hours, tie.Hours)
		return
	}
	f.known[at] = len(*list)
	*list = append(*list, tie)
}

func (f *finder) send(list *[]Sending, s Sending) {
	at := place{list, s.Cause, fmt.Sprintf("%s %v", s.Preset, s.Seconds)}
	if k, ok := f.known[at]; ok {
		(*list)[k].Hours = week.Or((*list)[k].Hours, s.Hours)
		return
	}
	f.known[at] = len(*list)
	*list = append(*list, s)
}

// CauseOf is the cause that a plan names.
func (c *Causes) CauseOf(w *plan.When) Cause { return c.finder.cause(w) }

// Caused is how many things the causes of a kind at a place do, motion in any area.
func (c *Causes) Caused(kind Kind, at int) (ties int) {
	count := func(t *Tie) {
		if t.Cause.Kind == kind && t.Cause.At == at {
			ties++
		}
	}
	for _, lists := range [][][]Tie{c.Records, c.Held, c.Messages, c.Outputs, c.Monitors, c.Stills, c.Offsite} {
		for _, list := range lists {
			for k := range list {
				count(&list[k])
			}
		}
	}
	for _, list := range c.Sends {
		for k := range list {
			count(&list[k].Tie)
		}
	}
	return ties
}
