package edit

import (
	"fmt"

	"wakefield.example/core/document"
	"wakefield.example/core/plan"
)

// SetDuty adds a duty, or replaces the one with its id.
type SetDuty struct {
	Duty plan.Duty `json:"duty"`
}

func (e *SetDuty) apply(p *plan.Plan) (*plan.Plan, error) {
	next := *p
	next.Duties = put(p.Duties, e.Duty, func(d *plan.Duty) bool { return d.ID == e.Duty.ID })
	return &next, nil
}

func (e *SetDuty) sentence(p *plan.Plan) string {
	if p.Duty(e.Duty.ID) == nil {
		return "Duty added: " + e.Duty.Name
	}
	return "Duty changed: " + e.Duty.Name
}

// RemoveDuty removes a duty. Instead, which may be empty where nothing uses the
// duty, takes its hours in every week.
type RemoveDuty struct {
	Duty    string `json:"duty" minLength:"1" maxLength:"100"`
	Instead string `json:"instead,omitempty" maxLength:"100"`
}

func (e *RemoveDuty) apply(p *plan.Plan) (*plan.Plan, error) {
	if p.Duty(e.Duty) == nil {
		return nil, document.Wrong("duty", "no duty %q", e.Duty)
	}
	if e.Instead == e.Duty {
		return nil, document.Wrong("instead", "a duty cannot replace itself")
	}
	if e.Instead != "" && p.Duty(e.Instead) == nil {
		return nil, document.Wrong("instead", "no duty %q", e.Instead)
	}
	return removal{kind: "duty", gone: is(e.Duty), instead: e.Instead, path: "instead", advice: "name the duty that gets its hours"}.from(p)
}

func (e *RemoveDuty) sentence(p *plan.Plan) string {
	name := func(id string) string {
		if d := p.Duty(id); d != nil {
			return d.Name
		}
		return id
	}
	if e.Instead == "" {
		return "Duty removed: " + name(e.Duty)
	}
	return fmt.Sprintf("Duty removed: %s, %s in its place", name(e.Duty), name(e.Instead))
}
