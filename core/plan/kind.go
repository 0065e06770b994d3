package plan

import "slices"

// Kind is a camera kind: a named set of stream settings that many channels share.
// A channel of a kind may depart from it in any setting.
type Kind struct {
	ID        string  `json:"id" minLength:"1" maxLength:"100"`
	Name      string  `json:"name" minLength:"1" maxLength:"100"`
	Streams   Streams `json:"streams"`
	AudioKbps float64 `json:"audioKbps,omitempty" minimum:"0" maximum:"10000"`
}

// Kind finds a camera kind by its id, nil where there is none.
func (p *Plan) Kind(id string) *Kind {
	return find(p.Kinds, func(k *Kind) bool { return k.ID == id })
}

// SetKind adds a camera kind, or replaces the one with its id. Channels of the kind
// follow it in every setting in which they did not depart from it.
type SetKind struct {
	Kind Kind `json:"kind"`
}

func (e *SetKind) apply(p *Plan) (*Plan, error) {
	next := *p
	next.Kinds = put(p.Kinds, e.Kind, func(k *Kind) bool { return k.ID == e.Kind.ID })
	old := p.Kind(e.Kind.ID)
	if old == nil {
		return &next, nil
	}
	next.Channels = slices.Clone(p.Channels)
	for i := range next.Channels {
		if c := &next.Channels[i]; c.Kind == old.ID {
			for _, which := range []Which{Main, Sub, Third} {
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
func followed(mine, from, to *Stream) *Stream {
	switch {
	case mine == nil && from == nil:
		return copied(to)
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

func copied(s *Stream) *Stream {
	if s == nil {
		return nil
	}
	c := *s
	return &c
}

func (e *SetKind) sentence(p *Plan) string {
	if p.Kind(e.Kind.ID) == nil {
		return "Camera kind added: " + e.Kind.Name
	}
	return "Camera kind changed: " + e.Kind.Name
}

// RemoveKind removes a camera kind. Its channels keep their settings.
type RemoveKind struct {
	Kind string `json:"kind" minLength:"1" maxLength:"100"`
}

func (e *RemoveKind) apply(p *Plan) (*Plan, error) {
	if p.Kind(e.Kind) == nil {
		return nil, wrong("kind", "no camera kind %q", e.Kind)
	}
	next := *p
	next.Kinds = slices.DeleteFunc(slices.Clone(p.Kinds), func(k Kind) bool { return k.ID == e.Kind })
	next.Channels = slices.Clone(p.Channels)
	for i := range next.Channels {
		if next.Channels[i].Kind == e.Kind {
			next.Channels[i].Kind = ""
		}
	}
	return &next, nil
}

func (e *RemoveKind) sentence(p *Plan) string {
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

func (e *ApplyKind) apply(p *Plan) (*Plan, error) {
	kind := p.Kind(e.Kind)
	if kind == nil {
		return nil, wrong("kind", "no camera kind %q", e.Kind)
	}
	return p.eachChannel(e.Channels, func(c *Channel) error {
		kind.onto(c)
		return nil
	})
}

// onto gives a channel all settings of the kind. An empty channel gets a camera.
func (k *Kind) onto(c *Channel) {
	c.Kind, c.NoCamera, c.AudioKbps = k.ID, false, k.AudioKbps
	c.Streams = Streams{copied(k.Streams.Main), copied(k.Streams.Sub), copied(k.Streams.Third)}
}

func (e *ApplyKind) sentence(p *Plan) string {
	name := e.Kind
	if k := p.Kind(e.Kind); k != nil {
		name = k.Name
	}
	return p.names(e.Channels) + ": camera kind " + name
}
