package edit

import (
	"fmt"
	"slices"

	"wakefield/core/plan"
)

// RemoveChannels removes channels, with what they cause and every mention of them.
type RemoveChannels struct {
	Channels []string `json:"channels" minItems:"1" maxItems:"5000"`
}

func (e *RemoveChannels) apply(p *plan.Plan) (*plan.Plan, error) {
	gone := make(map[string]bool)
	for i, id := range e.Channels {
		if p.Channel(id) == nil {
			return nil, plan.Wrong(fmt.Sprintf("channels[%d]", i), "no channel %q", id)
		}
		gone[id] = true
	}
	without := func(ids []string) []string {
		kept := []string{}
		for _, id := range ids {
			if !gone[id] {
				kept = append(kept, id)
			}
		}
		return kept
	}
	next := *p
	next.Channels = slices.DeleteFunc(slices.Clone(p.Channels), func(c plan.Channel) bool { return gone[c.ID] })
	next.CallButtons = slices.Clone(p.CallButtons)
	for i := range next.CallButtons {
		next.CallButtons[i].Records = without(next.CallButtons[i].Records)
	}
	next.Effects = nil
	for _, effect := range p.Effects {
		if gone[effect.When.Motion] {
			continue
		}
		if kept := without(effect.Record); len(kept) > 0 {
			next.Effects = append(next.Effects, plan.Effect{When: effect.When, Record: kept})
		}
	}
	return &next, nil
}

func (e *RemoveChannels) sentence(p *plan.Plan) string { return "Removed: " + names(p, e.Channels) }
