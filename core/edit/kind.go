package edit

import (
	"slices"

	"wakefield.example/core/document"
	"wakefield.example/core/plan"
)

// SetKind adds a camera kind, or replaces the one with its id. Channels of the kind
// follow it in every setting in which they did not depart from it.
type SetKind struct {
	Kind plan.Kind `json:"kind"`
}

func (e *SetKind) apply(p *plan.Plan) (*plan.Plan, error) {
	next := *p
	next.Kinds = put(p.Kinds, e.Kind, func(k *plan.Kind) bool { return k.ID == e.Kind.ID })
	old := p.Kind(e.Kind.ID)
	if old == nil {
		return &next, nil
	}
	next.Channels = slices.Clone(p.Channels)
	for i := range next.Channels {
		if c := &next.Channels[i]; c.Kind == old.ID {
			for _, which := range []plan.StreamName{plan.Main, plan.Sub, plan.Third} {
				c.Streams = c.Streams.With(which, followed(c.Streams.Get(which), old.Streams.Get(which), e.Kind.Streams.Get(which)))
			}
			if c.AudioKbps == old.AudioKbps {
				c.AudioKbps = e.Kind.AudioKbps
			}
		}
	}
	return &next, nil
}

// followed is the stream of a channel after its kind went from one stream to
// another: what was as in the kind follows it.
func followed(mine, from, to *plan.Stream) *plan.Stream {
	switch {
	case mine == nil && from == nil:
		return to.Clone()
	case mine == nil || from == nil:
		return mine
	case to == nil:
		if *mine == *from {
			return nil
		}
		return mine
	}
	out := *mine
	follow(&out.Codec, from.Codec, to.Codec)
	follow(&out.Width, from.Width, to.Width)
	follow(&out.Height, from.Height, to.Height)
	follow(&out.FPS, from.FPS, to.FPS)
	follow(&out.GOPSeconds, from.GOPSeconds, to.GOPSeconds)
	follow(&out.KeyframeKB, from.KeyframeKB, to.KeyframeKB)
	follow(&out.Rate, from.Rate, to.Rate)
	return &out
}

func follow[T comparable](mine *T, from, to T) {
	if *mine == from {
		*mine = to
	}
}

func (e *SetKind) sentence(p *plan.Plan) string {
	if p.Kind(e.Kind.ID) == nil {
		return "Camera kind added: " + e.Kind.Name
	}
	return "Camera kind changed: " + e.Kind.Name
}

// RemoveKind removes a camera kind. The settings of its channels stay.
type RemoveKind struct {
	Kind string `json:"kind" minLength:"1" maxLength:"100"`
}

func (e *RemoveKind) apply(p *plan.Plan) (*plan.Plan, error) {
	if p.Kind(e.Kind) == nil {
		return nil, document.Wrong("kind", "no camera kind %q", e.Kind)
	}
	return removal{kind: "camera kind", gone: is(e.Kind), path: "kind"}.from(p)
}

func (e *RemoveKind) sentence(p *plan.Plan) string {
	if k := p.Kind(e.Kind); k != nil {
		return "Camera kind removed: " + k.Name
	}
	return "Camera kind removed"
}

// ApplyKind gives channels the settings of a camera kind, and makes them of it.
type ApplyKind struct {
	Channels []string `json:"channels" minItems:"1" maxItems:"5000"`
	Kind     string   `json:"kind" minLength:"1" maxLength:"100"`
}

func (e *ApplyKind) apply(p *plan.Plan) (*plan.Plan, error) {
	kind := p.Kind(e.Kind)
	if kind == nil {
		return nil, document.Wrong("kind", "no camera kind %q", e.Kind)
	}
	return eachChannel(p, e.Channels, func(c *plan.Channel) error {
		kind.Onto(c)
		return nil
	})
}

func (e *ApplyKind) sentence(p *plan.Plan) string {
	name := e.Kind
	if k := p.Kind(e.Kind); k != nil {
		name = k.Name
	}
	return names(p, e.Channels) + ": camera kind " + name
}
