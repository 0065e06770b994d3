package plan

import "slices"

// Beyond tells whether channel i has a number that its recorder does not have, so that nothing is connected there.
func (p *Plan) Beyond(i int) bool {
	c := &p.Channels[i]
	r := p.Recorder(c.Recorder)
	return r != nil && c.Number > r.Channels
}

// Connected is the plan as its recorders can record it: channels beyond the number that their recorder has record nothing, like
// those without a camera. It is the plan itself where there are none.
func (p *Plan) Connected() *Plan {
	out := p
	for i := range p.Channels {
		if !p.Beyond(i) || p.Channels[i].NoCamera {
			continue
		}
		if out == p {
			next := *p
			next.Channels = slices.Clone(p.Channels)
			out = &next
		}
		out.Channels[i].NoCamera = true
	}
	return out
}
