package edit

import (
	"fmt"
	"wakefield.example/core/document"
	"wakefield.example/core/plan"
)

// SetAlarmInput adds an alarm input, or replaces the one with its id.
type SetAlarmInput struct {
	AlarmInput plan.AlarmInput `json:"alarmInput"`
}

func (e *SetAlarmInput) apply(p *plan.Plan) (*plan.Plan, error) {
	next := *p
	next.AlarmInputs = put(p.AlarmInputs, e.AlarmInput, func(x *plan.AlarmInput) bool { return x.ID == e.AlarmInput.ID })
	return &next, nil
}

func (e *SetAlarmInput) sentence(p *plan.Plan) string {
	a, was := e.AlarmInput, p.AlarmInput(e.AlarmInput.ID)
	if was == nil {
		return "Alarm input added: " + a.Name
	}
	contact := map[string]string{"": "contact not known", "normallyOpen": "normally open", "normallyClosed": "normally closed"}[a.Contact]
	s := a.Name + ": " + contact
	if happens := p.Activity(a.Activity); happens != nil {
		s = also(plan.Say("%s, %.3g alarms a day", s, happens.Process().PerDay()), part{was.Activity, a.Activity, "by “" + happens.Name + "”"})
	}
	return also(s, part{was.Recorder, a.Recorder, "on " + nameOfRecorder(p, a.Recorder)},
		part{was.Guards, a.Guards, either(a.Guards != "", "guards the housing of "+nameOfRecorder(p, a.Guards), "guards no housing")})
}

// RemoveAlarmInput removes an alarm input, with its ties.
type RemoveAlarmInput struct {
	AlarmInput string `json:"alarmInput" minLength:"1" maxLength:"100"`
}

func (e *RemoveAlarmInput) apply(p *plan.Plan) (*plan.Plan, error) {
	if p.AlarmInput(e.AlarmInput) == nil {
		return nil, document.Wrong("alarmInput", "no alarm input %q", e.AlarmInput)
	}
	return removal{kind: "alarm input", gone: is(e.AlarmInput), path: "alarmInput"}.from(p)
}

func (e *RemoveAlarmInput) sentence(p *plan.Plan) string {
	name := e.AlarmInput
	if x := p.AlarmInput(e.AlarmInput); x != nil {
		name = x.Name
	}
	return "Alarm input removed: " + name
}

// SetCallButton adds a call button, or replaces the one with its id.
type SetCallButton struct {
	CallButton plan.CallButton `json:"callButton"`
}

func (e *SetCallButton) apply(p *plan.Plan) (*plan.Plan, error) {
	next := *p
	next.CallButtons = put(p.CallButtons, e.CallButton, func(x *plan.CallButton) bool { return x.ID == e.CallButton.ID })
	return &next, nil
}

func (e *SetCallButton) sentence(p *plan.Plan) string {
	b, was := e.CallButton, p.CallButton(e.CallButton.ID)
	if was == nil {
		return "Call button added: " + b.Name
	}
	stream := b.Stream
	if stream == "" {
		stream = plan.Main
	}
	return also(plan.Say("%s: pressed %v times a week, records for %v s: %s", b.Name, b.PressesPerWeek, b.HoldSeconds, names(p, b.Records)),
		part{was.Stream, b.Stream, fmt.Sprintf("the %s stream", stream)},
		part{was.FPS, b.FPS, either(b.FPS > 0, plan.Say("%v frames a second", b.FPS), "all its frames")})
}

// RemoveCallButton removes a call button, with its ties.
type RemoveCallButton struct {
	CallButton string `json:"callButton" minLength:"1" maxLength:"100"`
}

func (e *RemoveCallButton) apply(p *plan.Plan) (*plan.Plan, error) {
	if p.CallButton(e.CallButton) == nil {
		return nil, document.Wrong("callButton", "no call button %q", e.CallButton)
	}
	return removal{kind: "call button", gone: is(e.CallButton), path: "callButton"}.from(p)
}

func (e *RemoveCallButton) sentence(p *plan.Plan) string {
	name := e.CallButton
	if x := p.CallButton(e.CallButton); x != nil {
		name = x.Name
	}
	return "Call button removed: " + name
}
