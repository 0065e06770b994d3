package readout

import (
	"slices"
	"strings"

	"wakefield.example/core/plan"
)

// Pair is a channel of a plan and the one of the device that is it; either is nil where the other has none.
type Pair struct {
	Planned *plan.Channel
	Read    *Channel
}

// Target is what a device is in a plan: a recorder, or the camera of a channel.
type Target struct {
	Recorder string `json:"recorder,omitempty" maxLength:"100" doc:"Id"`
	Channel  string `json:"channel,omitempty" maxLength:"100" doc:"Id, of a device that is the camera of one channel"`
}

// In tells whether the plan has what is meant.
func (t Target) In(p *plan.Plan) bool {
	if t.Channel != "" {
		return p.Channel(t.Channel) != nil
	}
	return p.Recorder(t.Recorder) != nil
}

// Match finds which channel of the device is which of the plan: by number; what is left over by address, then by name.
func Match(p *plan.Plan, t Target, d *Device) (out []Pair) {
	if t.Channel != "" {
		c := p.Channel(t.Channel)
		if c == nil || len(d.Channels) == 0 {
			return nil
		}
		return []Pair{{c, &d.Channels[0]}}
	}
	var left []*plan.Channel
	for i := range p.Channels {
		if c := &p.Channels[i]; c.Recorder == t.Recorder {
			left = append(left, c)
		}
	}
	slices.SortStableFunc(left, func(a, b *plan.Channel) int { return a.Number - b.Number })
	found := make([]*plan.Channel, len(d.Channels))
	for _, same := range []func(c *plan.Channel, r *Channel) bool{
		func(c *plan.Channel, r *Channel) bool { return c.Number == r.Number },
		func(c *plan.Channel, r *Channel) bool {
			return c.Address != "" && strings.EqualFold(c.Address, r.Address)
		},
		func(c *plan.Channel, r *Channel) bool { return strings.EqualFold(c.Name, r.Name) },
	} {
		for k := range d.Channels {
			if found[k] != nil {
				continue
			}
			if at := slices.IndexFunc(left, func(c *plan.Channel) bool { return same(c, &d.Channels[k]) }); at >= 0 {
				found[k] = left[at]
				left = slices.Delete(left, at, at+1)
			}
		}
	}
	for k := range d.Channels {
		out = append(out, Pair{found[k], &d.Channels[k]})
	}
	for _, c := range left {
		if !c.NoCamera {
			out = append(out, Pair{c, nil})
		}
	}
	return out
}
