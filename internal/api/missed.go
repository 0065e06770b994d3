package api

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/core/edit"
	"wakefield.example/core/estimate"
	"wakefield.example/core/measured"
	"wakefield.example/core/rehearse"
	"wakefield.example/core/week"
	"wakefield.example/internal/server"
)

// registerMissed adds events that somebody tells of.
func registerMissed(api huma.API, s *service) {
	huma.Register(api, op("missed", http.MethodPost, "/api/plans/{id}/measured/missed",
		"Where an event was lost that somebody tells of, or what footage came of that should not be there"), s.toldOf)
}

// ToldOf is an event that somebody tells of.
type ToldOf struct {
	Channel  string     `json:"channel" maxLength:"100" doc:"Id"`
	Date     week.Date  `json:"date"`
	Clock    week.Clock `json:"clock" doc:"By the clocks there"`
	Seconds  float64    `json:"seconds" minimum:"0" maximum:"86400" doc:"How long it lasted; 0 where nobody knows"`
	Walk     string     `json:"walk,omitempty" maxLength:"100" doc:"Id of the walk that it took; absent where nobody knows"`
	Unwanted bool       `json:"unwanted,omitempty" doc:"Whether there is footage that should not be there"`
	Found    bool       `json:"found,omitempty" doc:"Whether the plan is taken as it is after what was found; else as it stands"`
}

// Lost is where an event was lost.
type Lost struct {
	Gates []measured.Loss `json:"gates" doc:"Most likely first"`
	Odds  *Odds           `json:"odds,omitempty" doc:"How often such a moment is on disk; absent of what should not be"`
	When  string          `json:"when" doc:"The moment, as it was understood"`
}

func (s *service) toldOf(ctx context.Context, in *struct {
	PlanParam
	Body ToldOf
}) (*body[Lost], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	b := &in.Body
	if b.Clock == week.Clock(week.Day) { // the midnight at which the next date begins
		b.Date, b.Clock = b.Date.Add(1), 0
	}
	i, err := channelIn(e.head.Plan, b.Channel)
	if err != nil {
		return nil, err
	}
	zone, err := time.LoadLocation(e.head.Plan.Site.TimeZone)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	at := b.Date.At(b.Clock, zone)
	told := measured.Told{Channel: b.Channel, Minute: b.Date.Weekday().Start() + week.Minute(b.Clock), Seconds: b.Seconds, Walk: b.Walk,
		AgeDays: time.Since(at).Hours() / 24}
	if told.AgeDays < 0 {
		return nil, huma.Error422UnprocessableEntity("That is in the future.",
			&huma.ErrorDetail{Location: "body.date", Message: "is a date that has been"})
	}
	site, err := s.siteFound(ctx, e, b.Found)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	out := Lost{When: at.Format("Monday 2 Jan 2006 15:04")}
	if b.Unwanted {
		out.Gates = append([]measured.Loss{}, measured.Unwanted(site, told)...)
		return &body[Lost]{out}, nil
	}
	err = s.lost(ctx, site, told, b, i, &out)
	return &body[Lost]{out}, s.problem(ctx, err)
}

func (s *service) lost(ctx context.Context, site *estimate.Result, told measured.Told, b *ToldOf, i int, out *Lost) error {
	_, err := server.Heavily(ctx, s.slots.Heavy, func(ctx context.Context) (_ struct{}, err error) {
		gates, err := measured.Missed(ctx, site, told)
		if err != nil {
			return struct{}{}, err
		}
		out.Gates = append([]measured.Loss{}, gates...)
		from := rehearse.Ms(b.Clock) * rehearse.Minute
		to := from + max(1, rehearse.Ms(b.Seconds*1000))
		days := int((to-1)/(rehearse.Ms(week.Day)*rehearse.Minute)) + 1 // one that begins late ends on the next
		o, err := rehearse.OddsOf(ctx, site, rehearse.Ask{From: b.Date, Days: days, Seed: 1}, i, from, to)
		if err == nil {
			out.Odds = &Odds{o.Rehearsals, o.Full, o.Low, o.Gone}
		}
		return struct{}{}, ctx.Err()
	})
	return err
}

// siteFound is the site as its plan stands, or as it is after all that was found was written into it.
func (s *service) siteFound(ctx context.Context, e entry, found bool) (*estimate.Result, error) {
	if !found {
		return e.site, nil
	}
	r, err := s.found(ctx, e)
	if err != nil || len(r.Corrections) == 0 {
		return e.site, err
	}
	p, err := edit.After(e.head.Plan, r.Corrections...)
	if err != nil {
		return nil, err
	}
	return estimate.RunContext(ctx, p, e.site)
}
