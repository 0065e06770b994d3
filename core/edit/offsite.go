package edit

import (
	"wakefield.example/core/plan"
)

// SetOffsite says what carries the copy of footage elsewhere; absent, there is none, and no tie may be to one.
type SetOffsite struct {
	Offsite *plan.Offsite `json:"offsite,omitempty"`
}

func (e *SetOffsite) apply(p *plan.Plan) (*plan.Plan, error) {
	next := *p
	next.Offsite = e.Offsite
	return &next, nil
}

func (e *SetOffsite) sentence(*plan.Plan) string {
	if e.Offsite == nil {
		return "No copy off site"
	}
	return plan.Say("Copy off site over %.4g kbit/s, %s", e.Offsite.UplinkKbps, holding(e.Offsite.Hours))
}
