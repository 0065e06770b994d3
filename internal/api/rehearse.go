package api

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/core/rehearse"
	"wakefield.example/core/week"
	"wakefield.example/internal/server"
	"wakefield.example/internal/store"
)

// registerRehearse adds weeks that are played out.
func registerRehearse(api huma.API, s *service) {
	huma.Register(api, op("rehearse", http.MethodGet, "/api/plans/{id}/rehearse", "A week played out on real dates"), s.rehearse)
	huma.Register(api, op("rehearsedEvent", http.MethodGet, "/api/plans/{id}/rehearse/event", "What became of one event, gate by gate"),
		s.rehearsedEvent)
	huma.Register(api, op("rehearsedFootage", http.MethodGet, "/api/plans/{id}/rehearse/have",
		"Whether there would be footage of a channel at a moment, why, and until when"), s.rehearsedHave)
	huma.Register(api, op("rehearsedOdds", http.MethodGet, "/api/plans/{id}/rehearse/odds", "In how many of 200 rehearsals there would be"),
		s.rehearsedOdds)
	huma.Register(api, op("rehearsedWorst", http.MethodGet, "/api/plans/{id}/rehearse/worst",
		"The longest stretches without a picture, the hour with most missed, the slowest copies"), s.rehearsedWorst)
	huma.Register(api, op("rehearsedBeside", http.MethodGet, "/api/plans/{id}/rehearse/beside",
		"The same happenings under another plan of the site, or an earlier revision"), s.rehearsedBeside)
	huma.Register(api, op("rehearsedFile", http.MethodGet, "/api/plans/{id}/rehearse/file", "What happened as a file"), s.rehearsedFile)
}

// RehearseParam names a rehearsal.
type RehearseParam struct {
	PlanParam
	From string `query:"from" maxLength:"10" doc:"First date, such as 2026-12-07"`
	Days int    `query:"days" minimum:"1" maximum:"14" default:"7"`
	Seed uint64 `query:"number" maximum:"4294967295" default:"1" doc:"Which of all weeks: the same number is the same week"`
}

func (p *RehearseParam) ask() (rehearse.Ask, error) {
	var d week.Date
	if err := d.UnmarshalText([]byte(p.From)); err != nil {
		return rehearse.Ask{}, huma.Error422UnprocessableEntity("No such date: "+p.From,
			&huma.ErrorDetail{Location: "query.from", Message: "is a date, such as 2026-12-07"})
	}
	return rehearse.Ask{From: d, Days: p.Days, Seed: p.Seed}, nil
}

// restAfter is when rehearsals are dropped that nobody asks about: they are large, and played again in a moment.
const restAfter = time.Minute

type rehearsalOf struct {
	plan string
	at   store.Stamp
	ask  rehearse.Ask
}

// mostRehearsals are remembered, of mostRemembered bytes together.
const (
	mostRehearsals = 20
	mostRemembered = 192 << 20
)

// played is a rehearsal of a plan as it stands.
func (s *service) played(ctx context.Context, e entry, ask rehearse.Ask) (*rehearse.Rehearsal, error) {
	of := rehearsalOf{e.head.ID, e.head.Stamp(), ask}
	if r, ok := s.rehearsals.Get(of); ok {
		return r, nil
	}
	r, err := server.Heavily(ctx, s.slots.Heavy, func(ctx context.Context) (*rehearse.Rehearsal, error) {
		return rehearse.Play(ctx, e.site, ask)
	})
	if err != nil {
		return nil, err
	}
	s.rehearsals.Put(of, r)
	return r, nil
}

func (s *service) rehearsed(ctx context.Context, in *RehearseParam) (entry, *rehearse.Rehearsal, error) {
	ask, err := in.ask()
	if err != nil {
		return entry{}, nil, err
	}
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return entry{}, nil, err
	}
	r, err := s.played(ctx, e, ask)
	return e, r, err
}

func (s *service) rehearsedEvent(ctx context.Context, in *struct {
	RehearseParam
	Event int `query:"event" minimum:"0"`
}) (*body[rehearse.Story], error) {
	_, r, err := s.rehearsed(ctx, &in.RehearseParam)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	if in.Event >= len(r.Events) {
		return nil, huma.Error404NotFound("There is no such event.")
	}
	return &body[rehearse.Story]{r.Tell(in.Event)}, nil
}
