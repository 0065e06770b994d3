package api

import (
	"context"
	"net/http"
	"time"

	"wakefield.example/core/week"
	"wakefield.example/core/year"
	"wakefield.example/internal/formats"
	"wakefield.example/internal/server"

	"github.com/danielgtaylor/huma/v2"
)

// registerSpecialDays adds special days and the year.
func registerSpecialDays(api huma.API, s *service) {
	huma.Register(api, op("exportSpecialDays", http.MethodGet, "/api/plans/{id}/special-days", "The special days as iCalendar"),
		s.exportSpecialDays)
	huma.Register(api, fileOp(op("readSpecialDays", http.MethodPost, "/api/plans/{id}/special-days/read",
		"What a calendar says of special days, before anything is changed"), server.UsualBody), s.readSpecialDays)
	huma.Register(api, op("specialDates", http.MethodGet, "/api/plans/{id}/special-days/dates",
		"Which special day applies on each date of a year"), s.specialDates)
	huma.Register(api, op("year", http.MethodGet, "/api/plans/{id}/year", "Days kept at every date of a year"), s.year)
}

// SpecialDates says which special day holds on each date of a year.
type SpecialDates struct {
	Year    int   `json:"year"`
	Holding []int `json:"holding" doc:"For each date from 1 January where its special day stands in the list; -1 for none"`
}

func (s *service) specialDates(ctx context.Context, in *struct {
	PlanParam
	Year int `query:"year" minimum:"1970" maximum:"2200" required:"true"`
}) (*body[SpecialDates], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	first := week.Date{Year: in.Year, Month: time.January, Day: 1}
	return &body[SpecialDates]{SpecialDates{in.Year, e.head.Plan.Site.Calendar().Holding(first, first.DaysInYear())}}, nil
}

func (s *service) exportSpecialDays(ctx context.Context, in *PlanParam) (*file, error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	return calendarFile(e.head.Plan, "special days", formats.WriteSpecialDays(e.head.Plan, in.ID, time.Now())), nil
}

func (s *service) readSpecialDays(ctx context.Context, in *struct {
	PlanParam
	UseDay  string `query:"useDay" enum:"mon,tue,wed,thu,fri,sat,sun" default:"sun" doc:"Day of the week that counts where the calendar does not say"`
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
	dates, err := reading(ctx, s, func(ctx context.Context) (*formats.Dates, error) {
		return formats.ReadSpecialDays(ctx, in.RawBody, e.head.Plan, day)
	})
	if err != nil {
		return nil, err
	}
	return &body[*formats.Dates]{dates}, nil
}

func (s *service) year(ctx context.Context, in *struct {
	PlanParam
	Year int `query:"year" minimum:"1970" maximum:"2200" doc:"The year; the present one where absent"`
}) (*body[*year.Year], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	if in.Year == 0 {
		in.Year = time.Now().Year()
	}
	found, err := server.Heavily(ctx, s.slots.Heavy, func(ctx context.Context) (*year.Year, error) {
		return e.site.Year(ctx, week.Date{Year: in.Year, Month: time.January, Day: 1})
	})
	return &body[*year.Year]{found}, s.problem(ctx, err)
}
