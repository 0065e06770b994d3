package plan

// MostPerDay is how many messages a day one person reads, where a message says nothing of it.
const MostPerDay = 30.0

// Message is what one receiver is told. Wakefield plans it; it sends nothing.
type Message struct {
	ID                 string    `json:"id" minLength:"1" maxLength:"100"`
	Name               string    `json:"name" minLength:"1" maxLength:"100"`
	To                 string    `json:"to" minLength:"1" maxLength:"200" doc:"Who receives it, in words"`
	AtMostEverySeconds float64   `json:"atMostEverySeconds" minimum:"1" maximum:"604800" doc:"Two never go out closer together"`
	Hours              *HourList `json:"hours,omitempty" doc:"When it goes out; absent for always"`
	Still              bool      `json:"still,omitempty" doc:"Whether a snapshot of the channel that it is about goes with it"`
	MostPerDay         float64   `json:"mostPerDay,omitempty" minimum:"0.1" maximum:"100000" doc:"More are not read any more; absent for 30"`
}

// Readable is how many of them a day are read.
func (m *Message) Readable() float64 {
	if m.MostPerDay > 0 {
		return m.MostPerDay
	}
	return MostPerDay
}

// Output is something that a recorder switches on for a while.
type Output struct {
	ID          string    `json:"id" minLength:"1" maxLength:"100"`
	Name        string    `json:"name" minLength:"1" maxLength:"100"`
	Recorder    string    `json:"recorder" ref:"recorder" minLength:"1" maxLength:"100"`
	Kind        string    `json:"kind" enum:"relay,sounder,light,siren"`
	HoldSeconds float64   `json:"holdSeconds" minimum:"0.1" maximum:"86400"`
	Prolonged   bool      `json:"prolonged,omitempty" doc:"Whether every trigger prolongs it; otherwise it is on for the time held, and triggers in it do nothing"`
	Hours       *HourList `json:"hours,omitempty" doc:"When it goes on; absent for always"`
}

// Loud tells whether it wakes people.
func (o *Output) Loud() bool { return o.Kind == "sounder" || o.Kind == "siren" }

// Monitor is a screen that shows the newest cause for a while.
type Monitor struct {
	ID           string  `json:"id" minLength:"1" maxLength:"100"`
	Name         string  `json:"name" minLength:"1" maxLength:"100"`
	DwellSeconds float64 `json:"dwellSeconds" minimum:"1" maximum:"86400" doc:"How long each showing lasts, unless the next cuts it short"`
}

// Offsite is the copy of footage elsewhere.
type Offsite struct {
	UplinkKbps         float64   `json:"uplinkKbps" minimum:"1" maximum:"100000000" doc:"What the uplink carries, for all copies together"`
	Hours              *HourList `json:"hours,omitempty" doc:"When it copies; absent for always"`
	Copy               string    `json:"copy,omitempty" enum:"recorded,sub,stills" doc:"What is copied of an event: its footage as recorded, that of the sub stream, or snapshots; absent for as recorded"`
	Watched            bool      `json:"watched,omitempty" doc:"Whether somebody is told within minutes, by another way than the uplink, when it is cut or fails"`
	TakenWithinSeconds float64   `json:"takenWithinSeconds,omitempty" minimum:"1" maximum:"604800" doc:"How long a person would need to take the recorder away"`
}

// Message finds a message by its id, nil where there is none.
func (p *Plan) Message(id string) *Message {
	return find(p.Messages, func(m *Message) bool { return m.ID == id })
}

// Output finds an output by its id, nil where there is none.
func (p *Plan) Output(id string) *Output {
	return find(p.Outputs, func(o *Output) bool { return o.ID == id })
}

// Monitor finds a monitor by its id, nil where there is none.
func (p *Plan) Monitor(id string) *Monitor {
	return find(p.Monitors, func(m *Monitor) bool { return m.ID == id })
}

// AlarmInput finds an alarm input by its id, nil where there is none.
func (p *Plan) AlarmInput(id string) *AlarmInput {
	return find(p.AlarmInputs, func(a *AlarmInput) bool { return a.ID == id })
}

// CallButton finds a call button by its id, nil where there is none.
func (p *Plan) CallButton(id string) *CallButton {
	return find(p.CallButtons, func(b *CallButton) bool { return b.ID == id })
}
