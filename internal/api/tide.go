package api

import (
	"context"
	"math"
	"net/http"

	"wakefield.example/core/week"

	"github.com/danielgtaylor/huma/v2"
)

// registerTide adds what channels write together.
func registerTide(api huma.API, s *service) {
	huma.Register(api, op("tideOf", http.MethodPost, "/api/plans/{id}/tide", "What some channels write together"), s.tideOf)
}

func (s *service) tideOf(ctx context.Context, in *struct {
	PlanParam
	Body struct {
		Channels []string    `json:"channels,omitempty" maxItems:"5000" doc:"Ids; absent for all"`
		From     week.Minute `json:"from,omitempty" minimum:"0" maximum:"10080" doc:"The mean and the busiest half hour are those of the time from here"`
		To       week.Minute `json:"to,omitempty" minimum:"0" maximum:"10080" doc:"to here, in the next week where it lies before; absent for the end of the week"`
	}
}) (*body[Tide], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	from, to := in.Body.From, in.Body.To
	if to == 0 {
		to = week.Length
	}
	within := []week.Span{{From: from, To: to}}
	if from == to {
		return nil, huma.Error422UnprocessableEntity("The time ends as it begins.")
	}
	if to < from {
		within = []week.Span{{From: from, To: week.Length}, {From: 0, To: to}}
	}
	return &body[Tide]{tide(e, within, in.Body.Channels...)}, nil
}

// Tide is what the whole site writes in each half hour of the week, in Mbit/s.
type Tide struct {
	Base      []float64   `json:"base"`
	Motion    []float64   `json:"motion"`
	Alarm     []float64   `json:"alarm"`
	Mean      float64     `json:"mean"`
	Busiest   float64     `json:"busiest"`
	BusiestAt week.Minute `json:"busiestAt" doc:"Minutes since Monday 00:00"`
	Intake    float64     `json:"intake" doc:"What the recorders can take in together"`
}

// tide is what channels write together, all where none are named; its mean and its
// busiest half hour are those within spans.
func tide(e entry, within []week.Span, channels ...string) Tide {
	t := e.site.Tide(channels...)
	out := Tide{}
	sum, minutes := 0.0, week.Minute(0)
	milli := func(f float64) float64 { return math.Round(f*1000) / 1000 }
	for i, b := range t {
		out.Base = append(out.Base, milli(b.Base.Mbps()))
		out.Motion = append(out.Motion, milli(b.Motion.Mbps()))
		out.Alarm = append(out.Alarm, milli(b.Alarm.Mbps()))
		total := b.Total().Mbps()
		var part week.Minute
		for _, w := range within {
			part += max(0, min(b.Span.To, w.To)-max(b.Span.From, w.From))
		}
		minutes += part
		sum += total * float64(part)
		if part > 0 && total > out.Busiest {
			out.Busiest, out.BusiestAt = total, t[i].Span.From
		}
	}
	out.Mean = sum / float64(minutes)
	for _, r := range e.head.Plan.Recorders {
		out.Intake += r.IngestMbps
	}
	return out
}
