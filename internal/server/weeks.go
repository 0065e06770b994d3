package server

import (
	"context"
	"net/http"
	"slices"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"wakefield/core/estimate"
	"wakefield/core/plan"
	"wakefield/core/week"
	"wakefield/internal/formats"
)

// registerWeeks adds calendars, the tide of some channels, and revisions as they
// stood.
func registerWeeks(api huma.API, s *service) {
	huma.Register(api, op("exportWeek", http.MethodGet, "/api/sites/{id}/weeks/{week}/calendar", "A named week as iCalendar"), s.exportWeek)
	huma.Register(api, op("exportSpecialDays", http.MethodGet, "/api/sites/{id}/special-days", "The special days as iCalendar"), s.exportSpecialDays)
	reading := op("readSpecialDays", http.MethodPost, "/api/sites/{id}/special-days/read", "What a calendar says of special days, before anything is changed")
	reading.SkipValidateBody = true
	huma.Register(api, reading, s.readSpecialDays)
	readingWeek := op("readWeek", http.MethodPost, "/api/sites/{id}/weeks/read", "What a calendar says of a week, before anything is changed")
	readingWeek.SkipValidateBody = true
	huma.Register(api, readingWeek, s.readWeek)
	huma.Register(api, op("year", http.MethodGet, "/api/sites/{id}/year", "Days kept at every date of a year"), s.year)
	huma.Register(api, op("tideOf", http.MethodPost, "/api/sites/{id}/tide", "What some channels write together"), s.tideOf)
}

func calendarFile(name string, data []byte) *file {
	return &file{"text/calendar; charset=utf-8", `attachment; filename="` + name + `.ics"`, data}
}

func (s *service) exportWeek(ctx context.Context, in *struct {
	SiteParam
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
	return calendarFile(in.ID+"-"+plan.Slug(p.Weeks[i].Name), data), nil
}

func (s *service) exportSpecialDays(ctx context.Context, in *SiteParam) (*file, error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	return calendarFile(in.ID+"-special-days", formats.WriteSpecialDays(e.head.Plan, in.ID, time.Now())), nil
}

func (s *service) readSpecialDays(ctx context.Context, in *struct {
	SiteParam
	UseDay  string `query:"useDay" enum:"mon,tue,wed,thu,fri,sat,sun" default:"sun" doc:"Day of the week that holds where the calendar does not say"`
	RawBody []byte `contentType:"application/octet-stream"`
}) (*body[*formats.Dates], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	day := week.Sunday
	if err := day.UnmarshalText([]byte(in.UseDay)); err != nil {
		return nil, huma.Error422UnprocessableEntity(err.Error())
	}
	dates, err := reading(ctx, s, func() (*formats.Dates, error) { return formats.ReadSpecialDays(in.RawBody, e.head.Plan, day) })
	if err != nil {
		return nil, err
	}
	return &body[*formats.Dates]{dates}, nil
}

func (s *service) readWeek(ctx context.Context, in *struct {
	SiteParam
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
	read, err := reading(ctx, s, func() (*formats.CalendarWeek, error) { return formats.ReadWeek(in.RawBody, e.head.Plan, of, today) })
	if err != nil {
		return nil, err
	}
	return &body[*formats.CalendarWeek]{read}, nil
}

func (s *service) year(ctx context.Context, in *struct {
	SiteParam
	Year int `query:"year" minimum:"1970" maximum:"2200" doc:"The year; the present one where absent"`
}) (*body[*estimate.Year], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	if in.Year == 0 {
		in.Year = time.Now().Year()
	}
	year, err := heavily(ctx, s.heavy.heavy, func() (*estimate.Year, error) {
		return e.site.Year(ctx, week.Date{Year: in.Year, Month: time.January, Day: 1})
	})
	return &body[*estimate.Year]{year}, s.problem(ctx, err)
}

func (s *service) tideOf(ctx context.Context, in *struct {
	SiteParam
	Body struct {
		Channels []string    `json:"channels,omitempty" maxItems:"5000" doc:"Ids; absent for all"`
		From     week.Minute `json:"from,omitempty" minimum:"0" maximum:"10080" doc:"The mean and the busiest half hour are those of the time from here"`
		To       week.Minute `json:"to,omitempty" minimum:"0" maximum:"10080" doc:"to here; absent for the end of the week"`
	}
}) (*body[Tide], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	within := week.Span{From: in.Body.From, To: in.Body.To}
	if within.To == 0 {
		within.To = week.Length
	}
	if !within.Valid() {
		return nil, huma.Error422UnprocessableEntity("The time ends before it begins.")
	}
	return &body[Tide]{tide(e, within, in.Body.Channels...)}, nil
}
