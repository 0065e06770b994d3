package plan

import (
	"fmt"
	"slices"

	"wakefield.example/core/week"
)

// Effect is cause and effect: what is done when something happens. Beside what stands
// here a channel's own motion records the channel, unless its detection says otherwise,
// and a button what the button names.
type Effect struct {
	When    When        `json:"when"`
	Record  []string    `json:"record,omitempty" ref:"channel" maxItems:"5000" doc:"Ids of the channels that record"`
	Message []string    `json:"message,omitempty" ref:"message" maxItems:"500" doc:"Ids of the messages that go out"`
	Output  []string    `json:"output,omitempty" ref:"output" maxItems:"500" doc:"Ids of the outputs that go on"`
	Monitor []string    `json:"monitor,omitempty" ref:"monitor" maxItems:"100" doc:"Ids of the monitors that show it"`
	Preset  []PresetTie `json:"preset,omitempty" holds:"-" goes:"leaves" maxItems:"500" doc:"Movable cameras that are sent to look"`
	Still   []string    `json:"still,omitempty" ref:"channel" maxItems:"5000" doc:"Ids of the channels that take a snapshot"`
	Offsite []string    `json:"offsite,omitempty" ref:"channel" maxItems:"5000" doc:"Ids of the channels whose footage of it is copied off site"`
	Hours   *HourList   `json:"hours,omitempty" doc:"When the ties hold, by the moment of the trigger; absent for always"`
}

// PresetTie sends a movable camera to a preset and, after a while, back home.
type PresetTie struct {
	Channel      string  `json:"channel" ref:"channel" goes:"leaves" minLength:"1" maxLength:"100"`
	Preset       string  `json:"preset" key:"yes" minLength:"1" maxLength:"100" doc:"Id of one of the channel's presets"`
	DwellSeconds float64 `json:"dwellSeconds" minimum:"1" maximum:"86400" doc:"How long it looks there after each trigger"`
}

// When is the cause of an effect.
type When struct {
	Motion     string  `json:"motion,omitempty" ref:"channel" goes:"leaves" maxLength:"100" doc:"Id of a channel"`
	Area       string  `json:"area,omitempty" key:"yes" maxLength:"100" doc:"Id of one of its watched areas, beside motion; absent for motion in any"`
	Alarm      string  `json:"alarm,omitempty" ref:"alarm input" goes:"leaves" maxLength:"100" doc:"Id of an alarm input"`
	Lost       string  `json:"lost,omitempty" ref:"channel" goes:"leaves" maxLength:"100" doc:"Id of a channel whose picture is lost"`
	Tampered   string  `json:"tampered,omitempty" ref:"channel" goes:"leaves" maxLength:"100" doc:"Id of a channel whose camera is tampered with"`
	Button     string  `json:"button,omitempty" ref:"call button" goes:"leaves" maxLength:"100" doc:"Id of a call button"`
	UplinkLost bool    `json:"uplinkLost,omitempty" doc:"The uplink of the copy off site is cut or fails"`
	PerMonth   float64 `json:"perMonth,omitempty" exclusiveMinimum:"0" maximum:"100000" doc:"How often, beside lost, tampered and uplinkLost; a month is a twelfth of 365.25 days"`
}

// ExactlyOne is the cause.
func (When) ExactlyOne() []string {
	return []string{"motion", "alarm", "lost", "tampered", "button", "uplinkLost"}
}

// Counted tells whether the cause is one of which the plan says how often it happens.
func (w When) Counted() bool { return w.Lost != "" || w.Tampered != "" || w.UplinkLost }

// Same tells whether two are the same cause, however often it happens.
func (w When) Same(v When) bool {
	w.PerMonth, v.PerMonth = 0, 0
	return w == v
}

// SecondsAMonth is a twelfth of 365.25 days.
const SecondsAMonth = 365.25 * 86400 / 12

// Same tells whether two lists of hours are alike; absent is always.
func (h *HourList) Same(o *HourList) bool {
	if h == nil || o == nil {
		return h == o
	}
	return slices.Equal(h.Steps(), o.Steps())
}

// Holding is when hours hold; absent for always.
func (h *HourList) Holding() week.Steps[bool] {
	if h == nil {
		return week.Constant(true)
	}
	return h.Steps()
}

// EffectList is one of the lists of what an effect does, by the ids of what does it.
type EffectList struct {
	Kind string    // record, message, output, monitor, still, offsite
	IDs  *[]string // in the effect
}

// Lists are the lists of ids of an effect; presets stand beside them.
func (e *Effect) Lists() []EffectList {
	return []EffectList{{"record", &e.Record}, {"message", &e.Message}, {"output", &e.Output}, {"monitor", &e.Monitor}, {"still",
		&e.Still}, {"offsite", &e.Offsite}}
}

// Ties is how many pairs of the cause and something that it does there are.
func (e *Effect) Ties() int {
	n := len(e.Preset)
	for _, l := range e.Lists() {
		n += len(*l.IDs)
	}
	return n
}

// Idle tells whether the cause does nothing.
func (e *Effect) Idle() bool { return e.Ties() == 0 }

// Single takes an effect apart: one for each tie.
func (e Effect) Single() (out []Effect) {
	for k, l := range e.Lists() {
		for _, id := range *l.IDs {
			one := Effect{When: e.When, Hours: e.Hours}
			*one.Lists()[k].IDs = []string{id}
			out = append(out, one)
		}
	}
	for _, preset := range e.Preset {
		out = append(out, Effect{When: e.When, Hours: e.Hours, Preset: []PresetTie{preset}})
	}
	return out
}

// UplinkLostName is what people call the cause that the uplink is cut or fails.
const UplinkLostName = "Uplink lost"

// CauseInWords is a cause as people call it, at the beginning of a sentence.
func (p *Plan) CauseInWords(w When) string {
	name := func(id string) string {
		if c := p.Channel(id); c != nil {
			return c.Name
		}
		return id
	}
	switch {
	case w.Area != "":
		area := w.Area
		if c := p.Channel(w.Motion); c != nil {
			if a := c.Detection.Area(w.Area); a != nil {
				area = a.Name
			}
		}
		return fmt.Sprintf("Motion in %s on %s", area, name(w.Motion))
	case w.Motion != "":
		return "Motion on " + name(w.Motion)
	case w.Lost != "":
		return "Picture lost on " + name(w.Lost)
	case w.Tampered != "":
		return "Tampering with " + name(w.Tampered)
	case w.UplinkLost:
		return UplinkLostName
	case w.Button != "":
		if b := p.CallButton(w.Button); b != nil {
			return b.Name
		}
		return w.Button
	}
	if a := p.AlarmInput(w.Alarm); a != nil {
		return a.Name
	}
	return w.Alarm
}

// String is the cause of an effect, by its ids.
func (e Effect) String() string {
	w := e.When
	switch {
	case w.Area != "":
		return "motion in " + w.Area + " on " + w.Motion
	case w.Motion != "":
		return "motion on " + w.Motion
	case w.Lost != "":
		return "picture lost on " + w.Lost
	case w.Tampered != "":
		return "tampering with " + w.Tampered
	case w.UplinkLost:
		return "uplink lost"
	case w.Button != "":
		return "button " + w.Button
	}
	return "alarm " + w.Alarm
}
