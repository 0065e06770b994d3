package edit

import (
	"wakefield.example/core/plan"
)

// SetStills says which stills channels take; absent, none.
type SetStills struct {
	Channels []string     `json:"channels" minItems:"1" maxItems:"5000"`
	Stills   *plan.Stills `json:"stills,omitempty"`
}

func (e *SetStills) apply(p *plan.Plan) (*plan.Plan, error) {
	return eachChannel(p, e.Channels, func(c *plan.Channel) error {
		c.Stills = e.Stills
		return nil
	})
}

func (e *SetStills) sentence(p *plan.Plan) string {
	name := names(p, e.Channels)
	switch {
	case e.Stills == nil:
		return name + ": no snapshots"
	case e.Stills.Mode == "timed":
		return plan.Say("%s: a snapshot every %s", name, plan.SecondsInWords(e.Stills.EverySeconds))
	}
	return plan.Say("%s: snapshots on trigger, at most one every %s", name, plan.SecondsInWords(e.Stills.EverySeconds))
}
