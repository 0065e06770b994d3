package api

import (
	"context"
	"fmt"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/core/rehearse"
	"wakefield.example/internal/formats"
	"wakefield.example/internal/server"
)

// Beside is one week under two plans.
type Beside struct {
	Before rehearse.Sums  `json:"before"`
	After  rehearse.Sums  `json:"after"`
	Name   string         `json:"name" doc:"What the other is"`
	Turned []BesideTurned `json:"turned" doc:"Wanted events with another fate, in order"`
	More   int            `json:"more" doc:"How many there are beside those"`
}

// BesideTurned is an event with another fate.
type BesideTurned struct {
	Channel string        `json:"channel"`
	At      float64       `json:"at"`
	Words   string        `json:"words"`
	Before  rehearse.Fate `json:"before" enum:"full,low,missed"`
	After   rehearse.Fate `json:"after" enum:"full,low,missed"`
}

// mostTurned are told.
const mostTurned = 2000

func (s *service) rehearsedBeside(ctx context.Context, in *struct {
	RehearseParam
	Variant  string `query:"variant" maxLength:"200" doc:"Id of another plan of the site"`
	Revision int64  `query:"revision" minimum:"0" doc:"Or a revision of this one"`
}) (*body[Beside], error) {
	e, now, err := s.rehearsed(ctx, &in.RehearseParam)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	ask, _ := in.ask()
	out := Beside{Turned: []BesideTurned{}}
	var other entry
	switch {
	case in.Variant != "":
		if _, other, err = s.planOf(ctx, e.head.Site, in.Variant); err == nil {
			out.Name = other.head.Plan.Name
		}
	case in.Revision > 0:
		other, err = server.Heavily(ctx, s.slots.Heavy, func(ctx context.Context) (entry, error) { return s.revisionOf(ctx, e, in.Revision) })
		out.Name = fmt.Sprintf("Revision %d", in.Revision)
	default:
		return nil, huma.Error422UnprocessableEntity("Another variant or a revision is wanted.")
	}
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	before, err := s.played(ctx, other, ask)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	out.Before, out.After = before.Sums(), now.Sums()
	for _, t := range before.Beside(now) {
		if len(out.Turned) == mostTurned {
			out.More++
			continue
		}
		ev := &before.Events[t.Event]
		out.Turned = append(out.Turned, BesideTurned{other.head.Plan.Channels[ev.Channel].ID, secs(ev.Start), before.Clock(ev.Start) + ", " +
			before.What(t.Event), t.Before, t.After})
	}
	return &body[Beside]{out}, nil
}

func (s *service) rehearsedFile(ctx context.Context, in *struct {
	RehearseParam
	Kind string `query:"kind" enum:"csv,xlsx,ics,json"`
}) (*file, error) {
	_, r, err := s.rehearsed(ctx, &in.RehearseParam)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	types := map[string]string{"csv": "text/csv; charset=utf-8", "xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
		"ics": "text/calendar; charset=utf-8", "json": "application/json"}
	data, err := server.Heavily(ctx, s.slots.Heavy, func(ctx context.Context) ([]byte, error) {
		switch in.Kind {
		case "csv":
			return formats.WriteWeekCSV(ctx, r)
		case "xlsx":
			return formats.WriteWeekXLSX(ctx, r)
		case "ics":
			return formats.WriteWeekCalendar(ctx, r, time.Now().UTC())
		}
		return formats.WriteWeekJSON(ctx, r)
	})
	what := fmt.Sprintf("rehearsal from %s number %d", in.From, in.Seed)
	return &file{types[in.Kind], attached(r.Plan(), what, in.Kind, time.Now()), data}, s.problem(ctx, err)
}
