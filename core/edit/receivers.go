package edit

import (
	"wakefield.example/core/document"
	"wakefield.example/core/plan"
)

// SetMessage adds a message, or replaces the one with its id.
type SetMessage struct {
	Message plan.Message `json:"message"`
}

func (e *SetMessage) apply(p *plan.Plan) (*plan.Plan, error) {
	next := *p
	next.Messages = put(p.Messages, e.Message, func(x *plan.Message) bool { return x.ID == e.Message.ID })
	return &next, nil
}

func (e *SetMessage) sentence(p *plan.Plan) string {
	m, was := e.Message, p.Message(e.Message.ID)
	if was == nil {
		return "Message added: " + m.Name + " to " + m.To
	}
	return also(plan.Say("%s: at most one every %s, %s", m.Name, plan.SecondsInWords(m.AtMostEverySeconds), holding(m.Hours)),
		part{was.To, m.To, "to " + m.To}, part{was.Still, m.Still, either(m.Still, "with a snapshot", "without a snapshot")},
		part{was.Readable(), m.Readable(), plan.Say("%v a day are read", m.Readable())})
}

// RemoveMessage removes a message, with its ties.
type RemoveMessage struct {
	Message string `json:"message" minLength:"1" maxLength:"100"`
}

func (e *RemoveMessage) apply(p *plan.Plan) (*plan.Plan, error) {
	if p.Message(e.Message) == nil {
		return nil, document.Wrong("message", "no message %q", e.Message)
	}
	return removal{kind: "message", gone: is(e.Message), path: "message"}.from(p)
}

func (e *RemoveMessage) sentence(p *plan.Plan) string {
	name := e.Message
	if x := p.Message(e.Message); x != nil {
		name = x.Name
	}
	return "Message removed: " + name
}

// SetOutput adds an output, or replaces the one with its id.
type SetOutput struct {
	Output plan.Output `json:"output"`
}

func (e *SetOutput) apply(p *plan.Plan) (*plan.Plan, error) {
	next := *p
	next.Outputs = put(p.Outputs, e.Output, func(x *plan.Output) bool { return x.ID == e.Output.ID })
	return &next, nil
}

func (e *SetOutput) sentence(p *plan.Plan) string {
	o, was := e.Output, p.Output(e.Output.ID)
	if was == nil {
		return "Output added: " + o.Name
	}
	s := plan.Say("%s: %s on for %s", o.Name, o.Kind, plan.SecondsInWords(o.HoldSeconds))
	if o.Prolonged {
		s += ", prolonged by every trigger"
	}
	return also(s+", "+holding(o.Hours), part{was.Recorder, o.Recorder, "on " + nameOfRecorder(p, o.Recorder)})
}

// RemoveOutput removes an output, with its ties.
type RemoveOutput struct {
	Output string `json:"output" minLength:"1" maxLength:"100"`
}

func (e *RemoveOutput) apply(p *plan.Plan) (*plan.Plan, error) {
	if p.Output(e.Output) == nil {
		return nil, document.Wrong("output", "no output %q", e.Output)
	}
	return removal{kind: "output", gone: is(e.Output), path: "output"}.from(p)
}

func (e *RemoveOutput) sentence(p *plan.Plan) string {
	name := e.Output
	if x := p.Output(e.Output); x != nil {
		name = x.Name
	}
	return "Output removed: " + name
}

// SetMonitor adds a monitor, or replaces the one with its id.
type SetMonitor struct {
	Monitor plan.Monitor `json:"monitor"`
}

func (e *SetMonitor) apply(p *plan.Plan) (*plan.Plan, error) {
	next := *p
	next.Monitors = put(p.Monitors, e.Monitor, func(x *plan.Monitor) bool { return x.ID == e.Monitor.ID })
	return &next, nil
}

func (e *SetMonitor) sentence(p *plan.Plan) string {
	m := e.Monitor
	if p.Monitor(m.ID) == nil {
		return "Monitor added: " + m.Name
	}
	return plan.Say("%s: each showing %s", m.Name, plan.SecondsInWords(m.DwellSeconds))
}

// RemoveMonitor removes a monitor, with its ties.
type RemoveMonitor struct {
	Monitor string `json:"monitor" minLength:"1" maxLength:"100"`
}

func (e *RemoveMonitor) apply(p *plan.Plan) (*plan.Plan, error) {
	if p.Monitor(e.Monitor) == nil {
		return nil, document.Wrong("monitor", "no monitor %q", e.Monitor)
	}
	return removal{kind: "monitor", gone: is(e.Monitor), path: "monitor"}.from(p)
}

func (e *RemoveMonitor) sentence(p *plan.Plan) string {
	name := e.Monitor
	if x := p.Monitor(e.Monitor); x != nil {
		name = x.Name
	}
	return "Monitor removed: " + name
}

// holding is when something holds, in words.
func holding(h *plan.HourList) string {
	switch {
	case h == nil:
		return "always"
	case len(h.Blocks) == 0:
		return "never"
	}
	return plan.HoursInWords(h.Blocks)
}
