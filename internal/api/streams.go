package api

import (
	"context"
	"math"
	"net/http"

	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/core/video"
	"wakefield.example/internal/server"

	"github.com/danielgtaylor/huma/v2"
)

// registerStreams adds what is asked of streams.
func registerStreams(api huma.API, s *service) {
	huma.Register(api, op("curve", http.MethodPost, "/api/streams/curve", "What a stream costs, and what its settings do to that"), s.curve)
	measure := op("measureClip", http.MethodPost, "/api/streams/clip", "What the frames of a clip tell about a stream")
	measure.MaxBodyBytes = server.ClipBody
	huma.Register(api, measure, s.measureClip)
	huma.Register(api, op("measureNight", http.MethodPost, "/api/streams/night", "What darkness does to a stream, by a clip taken at night"),
		s.measureNight)
}

// Frames are the frames of a clip, in the order written. Nothing of the picture
// leaves the browser.
type Frames struct {
	Seconds   []float64 `json:"seconds" maxItems:"500000" doc:"When each is shown"`
	Bytes     []float64 `json:"bytes" maxItems:"500000" doc:"Size of each"`
	Keyframes []int     `json:"keyframes" maxItems:"500000" doc:"Which of them are keyframes, counted from 0"`
}

func (s *service) measureClip(ctx context.Context, in *struct{ Body Frames }) (*body[*video.Measured], error) {
	f := in.Body
	if len(f.Seconds) != len(f.Bytes) {
		return nil, huma.Error422UnprocessableEntity("Every frame has a time and a size.")
	}
	packets := make([]video.Packet, len(f.Seconds))
	for i := range packets {
		packets[i] = video.Packet{Seconds: f.Seconds[i], Bytes: f.Bytes[i]}
	}
	for _, k := range f.Keyframes {
		if k < 0 || k >= len(packets) {
			return nil, huma.Error422UnprocessableEntity("A keyframe that is none of the frames.")
		}
		packets[k].Keyframe = true
	}
	m, err := reading(ctx, s, func(context.Context) (*video.Measured, error) { return video.Measure(packets) })
	if err != nil {
		return nil, err
	}
	return &body[*video.Measured]{m}, nil
}

func (s *service) curve(_ context.Context, in *checked[plan.Stream]) (*body[estimate.Curve], error) {
	return &body[estimate.Curve]{estimate.CurveOf(&in.Body)}, nil
}

// NightClip is what a clip taken at night tells.
type NightClip struct {
	Factor float64 `json:"factor" doc:"What darkness multiplies the bitrate by, to two digits"`
}

// ClipByNight is what a clip taken at night cost, and the stream that it is of.
type ClipByNight struct {
	Stream     plan.Stream `json:"stream"`
	IdleKbps   float64     `json:"idleKbps" minimum:"0" maximum:"1000000" doc:"Of the clip"`
	ActiveKbps float64     `json:"activeKbps" minimum:"0" maximum:"1000000"`
	Differ     bool        `json:"differ"`
}

// measureNight holds a clip taken at night against what the stream costs by day.
func (s *service) measureNight(_ context.Context, in *checked[ClipByNight]) (*body[NightClip], error) {
	stream := in.Body.Stream
	stream.Rate.MaxKbps = 0
	day := estimate.CurveOf(&stream)
	f := video.NightFactor(video.Cost{Idle: video.Kbps(day.IdleKbps), Active: video.Kbps(day.ActiveKbps)},
		&video.Measured{IdleKbps: in.Body.IdleKbps, ActiveKbps: in.Body.ActiveKbps, Differ: in.Body.Differ})
	f = math.Round(f*100) / 100
	if f < 0.1 || f > 100 {
		return nil,
			huma.Error422UnprocessableEntity("At night the clip is not between a tenth and a hundred times what the stream costs by day: it is hardly of this stream.")
	}
	return &body[NightClip]{NightClip{f}}, nil
}
