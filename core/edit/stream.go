package edit

import (
	"fmt"

	"wakefield.example/core/document"
	"wakefield.example/core/plan"
	"wakefield.example/core/table"
)

// SetRate sets the bitrate of a stream that the channels have.
type SetRate struct {
	Channels []string        `json:"channels" minItems:"1" maxItems:"5000"`
	Stream   plan.StreamName `json:"stream" enum:"main,sub,third"`
	Rate     plan.Rate       `json:"rate"`
}

func (e *SetRate) apply(p *plan.Plan) (*plan.Plan, error) {
	return eachChannel(p, e.Channels, func(c *plan.Channel) error {
		s := c.Streams.Get(e.Stream)
		if s == nil {
			return document.Wrong("stream", "%s has no %s stream", c.Name, e.Stream)
		}
		changed := *s
		changed.Rate = e.Rate
		c.Streams = c.Streams.With(e.Stream, &changed)
		return nil
	})
}

func (e *SetRate) sentence(p *plan.Plan) string {
	return fmt.Sprintf("%s: %s stream %s", names(p, e.Channels), e.Stream, rateInWords(e.Rate))
}

func rateInWords(r plan.Rate) string {
	switch r.Kind {
	case "constant":
		return fmt.Sprintf("%v kbit/s constant (%s)", r.Kbps, r.Known)
	case "variable":
		return fmt.Sprintf("%v to %v kbit/s variable (%s)%s", r.IdleKbps, r.ActiveKbps, r.Known, table.RateExtras(r))
	}
	return fmt.Sprintf("modelled, quality %d, %s scene%s", r.Quality, r.Scene, table.RateExtras(r))
}

// SetStream gives channels a stream, in the place of the one they have. Without
// settings it takes the stream away.
type SetStream struct {
	Channels []string        `json:"channels" minItems:"1" maxItems:"5000"`
	Stream   plan.StreamName `json:"stream" enum:"main,sub,third"`
	Settings *plan.Stream    `json:"settings,omitempty" doc:"Absent takes the stream away"`
}

func (e *SetStream) apply(p *plan.Plan) (*plan.Plan, error) {
	return eachChannel(p, e.Channels, func(c *plan.Channel) error {
		c.Streams = c.Streams.With(e.Stream, e.Settings.Clone())
		return nil
	})
}

func (e *SetStream) sentence(p *plan.Plan) string {
	if e.Settings == nil {
		return fmt.Sprintf("%s: no %s stream", names(p, e.Channels), e.Stream)
	}
	s := e.Settings
	return fmt.Sprintf("%s: %s stream %s %d×%d, %v/s, %s", names(p, e.Channels), e.Stream, plan.Codecs.Name(s.Codec), s.Width, s.Height,
		s.FPS, rateInWords(s.Rate))
}
