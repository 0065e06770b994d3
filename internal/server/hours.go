package server

import (
	"context"
	"math"

	"github.com/danielgtaylor/huma/v2"

	"wakefield/core/estimate"
	"wakefield/core/plan"
	"wakefield/core/video"
	"wakefield/core/week"
)

// WrittenHours are hours, and how a person writes them.
type WrittenHours struct {
	Text   string       `json:"text"`
	Blocks []plan.Hours `json:"blocks"`
	Spans  []HourSpan   `json:"spans" doc:"The stretches of the week that they cover"`
}

// HourSpan is a part of the week, in minutes since Monday 00:00.
type HourSpan struct {
	From week.Minute `json:"from"`
	To   week.Minute `json:"to"`
}

// readHours reads hours from a text, or writes those that it is given.
func (s *service) readHours(_ context.Context, in *struct {
	Body struct {
		Text   string       `json:"text,omitempty" maxLength:"500" doc:"Such as Mon-Fri 07:45-16:10"`
		Blocks []plan.Hours `json:"blocks,omitempty" maxItems:"500" doc:"Taken where there is no text"`
	}
}) (*body[WrittenHours], error) {
	out := WrittenHours{Blocks: in.Body.Blocks}
	if in.Body.Text != "" {
		var err error
		if out.Blocks, err = plan.ReadHours(in.Body.Text); err != nil {
			return nil, huma.Error422UnprocessableEntity(err.Error())
		}
	}
	if len(out.Blocks) == 0 {
		return nil, huma.Error422UnprocessableEntity("no hours; write them like Mon-Fri 07:45-16:10")
	}
	out.Text = plan.HoursText(out.Blocks)
	spans, err := plan.SpansOf(out.Blocks)
	if err != nil {
		return nil, huma.Error422UnprocessableEntity(err.Error())
	}
	out.Spans = make([]HourSpan, len(spans))
	for i, s := range spans {
		out.Spans[i] = HourSpan(s)
	}
	return &body[WrittenHours]{out}, nil
}

// NightClip is what a clip taken at night tells.
type NightClip struct {
	Factor float64 `json:"factor" doc:"What darkness multiplies the bitrate by, to two digits"`
}

// measureNight holds a clip taken at night against what the stream costs by day.
func (s *service) measureNight(_ context.Context, in *struct {
	Body struct {
		Stream     plan.Stream `json:"stream"`
		IdleKbps   float64     `json:"idleKbps" minimum:"0" doc:"Of the clip"`
		ActiveKbps float64     `json:"activeKbps" minimum:"0"`
		Differ     bool        `json:"differ"`
	}
}) (*body[NightClip], error) {
	stream := in.Body.Stream
	stream.Rate.MaxKbps = 0
	day := estimate.CurveOf(&stream)
	f := video.NightFactor(video.Cost{Idle: video.Kbps(day.IdleKbps), Active: video.Kbps(day.ActiveKbps)},
		&video.Measured{IdleKbps: in.Body.IdleKbps, ActiveKbps: in.Body.ActiveKbps, Differ: in.Body.Differ})
	f = math.Round(f*100) / 100
	if f < 0.1 || f > 100 {
		return nil, huma.Error422UnprocessableEntity("At night the clip is not between a tenth and a hundred times what the stream costs by day: it is hardly of this stream.")
	}
	return &body[NightClip]{NightClip{f}}, nil
}
