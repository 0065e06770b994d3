package edit

import (
	"slices"

	"wakefield/core/plan"
)

// AddEffect adds a cause and what records because of it.
type AddEffect struct {
	Effect plan.Effect `json:"effect"`
}

func (e *AddEffect) apply(p *plan.Plan) (*plan.Plan, error) {
	next := *p
	next.Effects = append(slices.Clone(p.Effects), e.Effect)
	return &next, nil
}

func (e *AddEffect) sentence(p *plan.Plan) string {
	cause := "Alarm " + e.Effect.When.Alarm
	if i := slices.IndexFunc(p.AlarmInputs, func(a plan.AlarmInput) bool { return a.ID == e.Effect.When.Alarm }); i >= 0 {
		cause = p.AlarmInputs[i].Name
	}
	if c := p.Channel(e.Effect.When.Motion); c != nil {
		cause = "Motion on " + c.Name
	}
	return cause + " records " + names(p, e.Effect.Record)
}
