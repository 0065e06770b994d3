package plan

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

// Clone is a copy of a stream, nil of none.
func (s *Stream) Clone() *Stream {
	if s == nil {
		return nil
	}
	c := *s
	return &c
}

// Onto gives a channel all settings of the kind. An empty channel gets a camera.
func (k *Kind) Onto(c *Channel) {
	c.Kind, c.NoCamera, c.AudioKbps = k.ID, false, k.AudioKbps
	c.Streams = Streams{k.Streams.Main.Clone(), k.Streams.Sub.Clone(), k.Streams.Third.Clone()}
}
