package plan

import "fmt"

// SetStream gives channels a stream, in the place of the one they have. Without
// settings it takes the stream away.
type SetStream struct {
	Channels []string `json:"channels" minItems:"1" maxItems:"5000"`
	Stream   Which    `json:"stream" enum:"main,sub,third"`
	Settings *Stream  `json:"settings,omitempty" doc:"Absent takes the stream away"`
}

func (e *SetStream) apply(p *Plan) (*Plan, error) {
	return p.eachChannel(e.Channels, func(c *Channel) error {
		c.Streams = c.Streams.With(e.Stream, copied(e.Settings))
		return nil
	})
}

func (e *SetStream) sentence(p *Plan) string {
	if e.Settings == nil {
		return fmt.Sprintf("%s: no %s stream", p.names(e.Channels), e.Stream)
	}
	s := e.Settings
	return fmt.Sprintf("%s: %s stream %s %d×%d, %v/s, %s", p.names(e.Channels), e.Stream, codecName(s.Codec), s.Width, s.Height, s.FPS, s.Rate.inWords())
}
