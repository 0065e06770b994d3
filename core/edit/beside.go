package edit

import (
	"fmt"

	"wakefield/core/document"
	"wakefield/core/plan"
)

// SetMovable says where a channel's camera can look; absent, it stands still. A preset that something sends the camera to
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
