package api

import (
	"context"
	"encoding/json"
	"net/http"
	"time"

	"wakefield.example/core/activity"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
	"wakefield.example/internal/formats"
	"wakefield.example/internal/server"

	"github.com/danielgtaylor/huma/v2"
)

// registerActivities adds what is asked of activities.
func registerActivities(api huma.API, s *service) {
	huma.Register(api, fileOp(op("readLog", http.MethodPost, "/api/plans/{id}/log/read", "What an event log says of an activity"),
		server.LargestBody), s.readLog)
	huma.Register(api, op("sample", http.MethodPost, "/api/activities/sample", "What may happen in the busiest hour of an activity"), s.sample)
	huma.Register(api, op("rates", http.MethodPost, "/api/activities/rates", "How often an activity happens, and how far that may be off"),
		s.rates)
}

func (s *service) rates(_ context.Context, in *checked[plan.Activity]) (*body[estimate.Rates], error) {
	return &body[estimate.Rates]{estimate.RatesOf(&in.Body)}, nil
}

func (s *service) readLog(ctx context.Context, in *struct {
	PlanParam
	Start   int    `query:"start" default:"-1" minimum:"-1" maximum:"1000" doc:"Column of the starts; -1 to recognise it"`
	End     int    `query:"end" default:"-1" minimum:"-1" maximum:"1000" doc:"Column of ends or lengths; -1 for none"`
	Channel int    `query:"channel" default:"-2" minimum:"-2" maximum:"1000" doc:"Column that tells whose event it is; -1 for none, -2 to recognise it"`
	Kind    int    `query:"kind" default:"-2" minimum:"-2" maximum:"1000" doc:"Column that tells what a line means; -1 for none, -2 to recognise it"`
	Pick    string `query:"pick" maxLength:"300" doc:"Whose events are wanted, of several channels"`
	As      string `query:"as" maxLength:"20000" doc:"What kinds of lines mean, as a JSON object of start, stop, event and other"`
	Zone    string `query:"zone" maxLength:"100" doc:"Time zone of times that name none; the site's where absent"`
	From    string `query:"from" doc:"First date on which the log was written; that of the first event where absent"`
	To      string `query:"to" doc:"Last date on which it was written"`
	RawBody []byte `contentType:"application/octet-stream"`
}) (*body[*formats.Log], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	name := in.Zone
	if name == "" {
		name = e.head.Plan.Site.TimeZone
	}
	zone, err := time.LoadLocation(name)
	if err != nil || name == "Local" {
		return nil, huma.Error422UnprocessableEntity("There is no time zone " + name + ".")
	}
	which := &formats.LogColumns{Start: in.Start, End: in.End, Channel: in.Channel, Kind: in.Kind, Pick: in.Pick}
	if in.As != "" {
		if err := json.Unmarshal([]byte(in.As), &which.As); err != nil {
			return nil, huma.Error422UnprocessableEntity("What kinds of lines mean is no JSON object of texts.")
		}
	}
	var kept formats.LogPeriod
	for _, date := range []struct {
		text string
		into *week.Date
	}{{in.From, &kept.From}, {in.To, &kept.To}} {
		if date.text == "" {
			continue
		}
		if err := date.into.UnmarshalText([]byte(date.text)); err != nil {
			return nil, huma.Error422UnprocessableEntity(err.Error())
		}
	}
	l, err := reading(ctx, s, func(ctx context.Context) (*formats.Log, error) {
		return formats.ReadLog(ctx, in.RawBody, zone, which, kept)
	})
	if err != nil {
		return nil, err
	}
	return &body[*formats.Log]{l}, nil
}

// Sample is an hour as it may be.
type Sample struct {
	From   week.Minute      `json:"from" doc:"When the hour begins, in minutes since Monday 00:00"`
	Events []activity.Drawn `json:"events" doc:"In seconds from then"`
}

func (s *service) sample(_ context.Context, in *struct {
	Seed uint64 `query:"seed" doc:"Another gives another hour"`
	checked[plan.Activity]
}) (*body[Sample], error) {
	p := in.Body.Process()
	from := p.BusiestHour()
	return &body[Sample]{Sample{week.Minute(from / 60), p.Sample(from, in.Seed)}}, nil
}
