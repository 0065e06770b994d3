package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/core/edit"
	"wakefield.example/core/effect"
	"wakefield.example/core/estimate"
	"wakefield.example/internal/server"
)

// registerCauses adds what is asked of what causes what.
func registerCauses(api huma.API, s *service) {
	huma.Register(api, op("ties", http.MethodGet, "/api/plans/{id}/ties",
		"All that can happen, what it is tied to, and how often each tie acts"), s.ties)
	huma.Register(api, op("alerts", http.MethodPost, "/api/plans/{id}/alerts",
		"Messages, outputs, monitors, movable cameras, snapshots and the copy off site by hour"), s.alerts)
	huma.Register(api, op("wrongWay", http.MethodGet, "/api/plans/{id}/inputs/{input}/wrong",
		"What an alarm input does whose contact is set the wrong way round"), s.wrongWay)
}

// TiesBody is all that can happen, and what it is tied to.
type TiesBody struct {
	Version int64                 `json:"version" doc:"Of the plan"`
	Causes  []estimate.CauseLine  `json:"causes"`
	Ties    []estimate.TieFigures `json:"ties"`
}

// TieChange is what became of the list of ties by a change: some of it was put in the place of what was there.
type TieChange struct {
	From  int                   `json:"from" doc:"Place in the list"`
	Gone  int                   `json:"gone" doc:"How many there are no longer from there on"`
	Put   []estimate.TieFigures `json:"put" doc:"What is there now"`
	Shift int                   `json:"shift" doc:"What is added to the place among the plan's effects of those behind it"`
}

// mostPut are told with a change; of more, whoever wants to know asks for all.
const mostPut = 100

// tieChange is what became of the ties; nil where nothing did, or too much.
func tieChange(before, after []estimate.TieFigures) *TieChange {
	from := 0
	for from < len(before) && from < len(after) && before[from] == after[from] {
		from++
	}
	shift, same := 0, 0
	if n, m := len(before), len(after); n > 0 && m > 0 {
		shift = after[m-1].Effect - before[n-1].Effect
	}
	for same < len(before)-from && same < len(after)-from {
		was := before[len(before)-1-same]
		was.Effect += shift
		if was != after[len(after)-1-same] {
			break
		}
		same++
	}
	put := after[from : len(after)-same]
	if gone := len(before) - same - from; gone > 0 || len(put) > 0 {
		if len(put) <= mostPut {
			return &TieChange{from, gone, append([]estimate.TieFigures{}, put...), shift}
		}
	}
	return nil
}

func (s *service) ties(ctx context.Context, in *PlanParam) (*body[TiesBody], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	out, err := server.Heavily(ctx, s.slots.Edits, func(ctx context.Context) (TiesBody, error) {
		return TiesBody{e.head.Version, e.site.CauseLines(), e.site.Ties()}, nil
	})
	return &body[TiesBody]{out}, s.problem(ctx, err)
}

// AlertsBody is what causes do beside recording, with figures by hour of the week.
type AlertsBody struct {
	Version  int64             `json:"version" doc:"Of the plan"`
	Messages []effect.Told     `json:"messages"`
	Outputs  []effect.Switched `json:"outputs"`
	Monitors []effect.Shown    `json:"monitors"`
	Offsite  *effect.Copied    `json:"offsite,omitempty"`
	Hours    effect.AlertHours `json:"hours"`
	Copy     *effect.CopyHours `json:"copy,omitempty" doc:"Absent where nothing is copied"`
}

func (s *service) alerts(ctx context.Context, in *struct {
	PlanParam
	Body struct {
		Edits []edit.Edit `json:"edits" maxItems:"20" doc:"What is being tried, and not saved yet"`
	}
}) (*body[AlertsBody], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	out, err := server.Heavily(ctx, s.slots.Edits, func(ctx context.Context) (AlertsBody, error) { return alertsOf(ctx, e, in.Body.Edits) })
	return &body[AlertsBody]{out}, s.problem(ctx, err)
}

func alertsOf(ctx context.Context, e entry, edits []edit.Edit) (out AlertsBody, err error) {
	result := e.site
	if len(edits) > 0 {
		next, err := edit.After(e.head.Plan, edits...)
		if err != nil {
			return out, err
		}
		if result, err = estimate.FiguresContext(ctx, next, e.site); err != nil {
			return out, err
		}
	}
	return AlertsBody{e.head.Version, result.Messages, result.Outputs, result.Monitors, result.Offsite, result.AlertHours(),
		result.CopyByHour()}, nil
}

func (s *service) wrongWay(ctx context.Context, in *struct {
	PlanParam
	Input string `path:"input" maxLength:"300" doc:"Id of the alarm input"`
}) (*body[estimate.WrongWay], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	if e.head.Plan.AlarmInput(in.Input) == nil {
		return nil, huma.Error404NotFound("There is no alarm input " + in.Input + ".")
	}
	out, err := server.Heavily(ctx, s.slots.Edits, func(ctx context.Context) (estimate.WrongWay, error) {
		return e.site.WrongWayOf(in.Input), nil
	})
	return &body[estimate.WrongWay]{out}, s.problem(ctx, err)
}
