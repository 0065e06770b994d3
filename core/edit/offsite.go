package edit

import (
	"cmp"

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

func (e *SetOffsite) sentence(p *plan.Plan) string {
	if e.Offsite == nil {
		return "No copy off site"
	}
	o, was := e.Offsite, p.Offsite
	s := plan.Say("Copy off site over %.4g kbit/s, %s", o.UplinkKbps, holding(o.Hours))
	if was == nil {
		return s
	}
	what := func(o *plan.Offsite) string { return plan.Copies.Name(cmp.Or(o.Copy, "recorded")) }
	return also(s, part{what(was), what(o), what(o)},
		part{was.Watched, o.Watched, either(o.Watched, "somebody is told when it fails", "nobody is told when it fails")},
		part{was.TakenWithinSeconds, o.TakenWithinSeconds, either(o.TakenWithinSeconds > 0,
			"the recorder could be taken within "+plan.SecondsInWords(o.TakenWithinSeconds), "nobody says how soon the recorder could be taken")})
}
