package api

import (
	"context"
	"errors"
	"net/http"
	"slices"
	"time"

	"wakefield.example/core/plan"
	"wakefield.example/core/week"
	"wakefield.example/internal/formats"
	"wakefield.example/internal/server"

	"github.com/danielgtaylor/huma/v2"
)

// registerWeeks adds hours as people write them, and named weeks as calendars.
func registerWeeks(api huma.API, s *service) {
	huma.Register(api, op("readHours", http.MethodPost, "/api/hours", "Hours as people write them"), s.readHours)
	huma.Register(api, op("exportWeek", http.MethodGet, "/api/plans/{id}/weeks/{week}/calendar", "A named week as iCalendar"), s.exportWeek)
	huma.Register(api, fileOp(op("readWeek", http.MethodPost, "/api/plans/{id}/weeks/read",
		"What a calendar says of a week, before anything is changed"), server.UsualBody), s.readWeek)
}

// WrittenHours are hours, and how a person writes them.
type WrittenHours struct {
	Text   string       `json:"text"`
	Blocks []plan.Hours `json:"blocks"`
	Spans  []HourSpan   `json:"spans" doc:"The stretches of the week that they cover"`
	Always bool         `json:"always" doc:"Whether they cover all of it"`
}

// HoursStroke adds hours to others, or takes them out.
type HoursStroke struct {
	Hours []plan.Hours `json:"hours" minItems:"1" maxItems:"100"`
	On    bool         `json:"on"`
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
		Stroke *HoursStroke `json:"stroke,omitempty" doc:"Painted over the blocks; with no blocks, over the whole week"`
	}
}) (*body[WrittenHours], error) {
	out := WrittenHours{Blocks: in.Body.Blocks}
	if in.Body.Text != "" {
		var err error
		if out.Blocks, err = plan.ReadHours(in.Body.Text); err != nil {
			return nil, huma.Error422UnprocessableEntity(err.Error())
		}
	}
	if in.Body.Stroke != nil {
		var err error
		if out.Blocks, err = painted(out.Blocks, *in.Body.Stroke); err != nil {
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
	out.Always = plan.HourList{Blocks: out.Blocks}.Steps().Share(func(on bool) bool { return on }) == 1
	return &body[WrittenHours]{out}, nil
}

// painted are hours with a stroke over them.
func painted(blocks []plan.Hours, stroke HoursStroke) ([]plan.Hours, error) {
	steps := week.Constant(true)
	if len(blocks) > 0 {
		steps = plan.HourList{Blocks: blocks}.Steps()
	}
	spans, err := plan.SpansOf(stroke.Hours)
	if err != nil {
		return nil, err
	}
	for _, span := range spans {
		steps = steps.Paint(span, stroke.On)
	}
	if out := plan.HoursWhere(steps); len(out) > 0 {
		return out, nil
	}
	return nil, errors.New("no hour would be left")
}

func calendarFile(p *plan.Plan, what string, data []byte) *file {
	return &file{"text/calendar; charset=utf-8", attached(p, what, "ics", time.Now()), data}
}

func (s *service) exportWeek(ctx context.Context, in *struct {
	PlanParam
	Week string `path:"week" maxLength:"300" doc:"Id of the week"`
}) (*file, error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	p := e.head.Plan
	i := slices.IndexFunc(p.Weeks, func(w plan.Week) bool { return w.ID == in.Week })
	if i < 0 {
		return nil, huma.Error404NotFound("There is no such week.")
	}
	var from week.Date
	from.Year, from.Month, from.Day = e.head.Changed.Date()
	data, err := formats.WriteWeek(p, &p.Weeks[i], in.ID, from, e.head.Changed)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	return calendarFile(p, "week "+p.Weeks[i].Name, data), nil
}

func (s *service) readWeek(ctx context.Context, in *struct {
	PlanParam
	Of      string `query:"of" format:"date" doc:"A date of the week to read; absent for the present one, or where that is empty the one of the last event"`
	RawBody []byte `contentType:"application/octet-stream"`
}) (*body[*formats.CalendarWeek], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	var of *week.Date
	if in.Of != "" {
		of = new(week.Date)
		if err := of.UnmarshalText([]byte(in.Of)); err != nil {
			return nil, huma.Error422UnprocessableEntity(err.Error())
		}
	}
	var today week.Date
	today.Year, today.Month, today.Day = time.Now().Date()
	read, err := reading(ctx, s, func(ctx context.Context) (*formats.CalendarWeek, error) {
		return formats.ReadWeek(ctx, in.RawBody, e.head.Plan, of, today)
	})
	if err != nil {
		return nil, err
	}
	return &body[*formats.CalendarWeek]{read}, nil
}
