package edit

import (
	"wakefield.example/core/plan"
)

// SetMatters says how much channels matter, where footage must be lost to keep some longer; absent for as much as usual.
type SetMatters struct {
	Channels []string `json:"channels" minItems:"1" maxItems:"5000"`
	Matters  float64  `json:"matters,omitempty" minimum:"1" maximum:"3"`
}

func (e *SetMatters) apply(p *plan.Plan) (*plan.Plan, error) {
	return eachChannel(p, e.Channels, func(c *plan.Channel) error {
		c.Matters = e.Matters
		return nil
	})
}

func (e *SetMatters) sentence(p *plan.Plan) string {
	if e.Matters == 0 {
		return names(p, e.Channels) + ": matters as much as usual"
	}
	return plan.Say("%s: matters %v of 3", names(p, e.Channels), e.Matters)
}
