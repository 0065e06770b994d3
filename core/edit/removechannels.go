package edit

import (
	"fmt"

	"wakefield.example/core/document"
	"wakefield.example/core/plan"
)

// RemoveChannels removes channels, with what they cause and every mention of them.
type RemoveChannels struct {
	Channels []string `json:"channels" minItems:"1" maxItems:"5000"`
}

func (e *RemoveChannels) apply(p *plan.Plan) (*plan.Plan, error) {
	gone := make(map[string]bool)
	for i, id := range e.Channels {
		if p.Channel(id) == nil {
			return nil, document.Wrong(fmt.Sprintf("channels[%d]", i), "no channel %q", id)
		}
		gone[id] = true
	}
	return removal{kind: "channel", gone: func(id string) bool { return gone[id] }, path: "channels"}.from(p)
}

func (e *RemoveChannels) sentence(p *plan.Plan) string { return "Removed: " + names(p, e.Channels) }
