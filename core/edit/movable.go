package edit

import (
	"fmt"

	"wakefield.example/core/document"
	"wakefield.example/core/plan"
)

// cannot go.
type SetMovable struct {
	Channel string        `json:"channel" minLength:"1" maxLength:"100"`
	Movable *plan.Movable `json:"movable,omitempty"`
}

func (e *SetMovable) apply(p *plan.Plan) (*plan.Plan, error) {
	for i := range p.Effects {
		for _, tie := range p.Effects[i].Preset {
			if tie.Channel == e.Channel && !e.Movable.Has(tie.Preset) {
				return nil, document.Wrong("movable", "%s sends it to the preset %s; untie that first", p.CauseInWords(p.Effects[i].When), tie.Preset)
			}
		}
	}
	return eachChannel(p, []string{e.Channel}, func(c *plan.Channel) error {
		c.Movable = e.Movable
		return nil
	})
}

func (e *SetMovable) sentence(p *plan.Plan) string {
	name := names(p, []string{e.Channel})
	if e.Movable == nil {
		return name + ": a fixed camera"
	}
	return fmt.Sprintf("%s: rests at %s, %s", name, e.Movable.Name(e.Movable.Home), plan.Count(len(e.Movable.Presets), "preset"))
}
