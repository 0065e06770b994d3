package edit

import (
	"fmt"
	"slices"

	"wakefield/core/plan"
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
		return nil, plan.Wrong("duty", "no duty %q", e.Duty)
	}
	if e.Instead == e.Duty {
		return nil, plan.Wrong("instead", "the duty cannot take its own place")
	}
	next := *p
	next.Duties = slices.DeleteFunc(slices.Clone(p.Duties), func(d plan.Duty) bool { return d.ID == e.Duty })
	if e.Instead == "" {
		return &next, nil // Check refuses a plan in which something still uses it
	}
	next.Weeks = slices.Clone(p.Weeks)
	for i := range next.Weeks {
		next.Weeks[i].OwnWeek = *swapDuty(&next.Weeks[i].OwnWeek, e.Duty, e.Instead)
	}
	next.Channels = slices.Clone(p.Channels)
	for i := range next.Channels {
		if own := next.Channels[i].Week.Own; own != nil {
			next.Channels[i].Week.Own = swapDuty(own, e.Duty, e.Instead)
		}
	}
	return &next, nil
}

// swap puts one duty in the place of another.
func swapDuty(w *plan.OwnWeek, duty, instead string) *plan.OwnWeek {
	out := *w
	if out.Otherwise == duty {
		out.Otherwise = instead
	}
	out.Blocks = slices.Clone(w.Blocks)
	for i := range out.Blocks {
		if out.Blocks[i].Duty == duty {
			out.Blocks[i].Duty = instead
		}
	}
	return &out
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
