package api

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/core/estimate"
	"wakefield.example/internal/server"
)

// registerTakeOff adds how much footage there is to take off a recorder.
func registerTakeOff(api huma.API, s *service) {
	huma.Register(api, op("takeOff", http.MethodPost, "/api/plans/{id}/takeoff", "How much footage channels write over a stretch of time"),
		s.takeOff)
}

// localTime is how a moment is written on the clocks of a site.
const localTime = "2006-01-02T15:04"

// TakenOff is footage that is taken off, and how long that takes.
type TakenOff struct {
	estimate.Taken
	USBMinutes     *float64 `json:"usbMinutes" required:"true" doc:"To a USB drive; null where the drives have nothing to spare"`
	NetworkMinutes *float64 `json:"networkMinutes" required:"true" doc:"Over the network; null where the drives have nothing to spare"`
}

func (s *service) takeOff(ctx context.Context, in *struct {
	PlanParam
	Body struct {
		Channels    []string `json:"channels" minItems:"1" maxItems:"5000" doc:"Ids"`
		From        string   `json:"from" maxLength:"16" doc:"On the clocks of the site, such as 2026-12-07T08:00"`
		To          string   `json:"to" maxLength:"16"`
		EventsOnly  bool     `json:"eventsOnly,omitempty" doc:"Only what is written for events"`
		USBMBps     float64  `json:"usbMBps" minimum:"0.01" maximum:"100000" doc:"What a USB drive takes, MB a second"`
		NetworkMbps float64  `json:"networkMbps" minimum:"0.01" maximum:"1000000" doc:"What the network takes"`
	}
}) (*body[TakenOff], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	zone, err := time.LoadLocation(e.head.Plan.Site.TimeZone)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	moment := func(name, text string) (time.Time, error) {
		t, err := time.ParseInLocation(localTime, text, zone)
		if err != nil {
			return t, huma.Error422UnprocessableEntity("No such moment: "+text,
				&huma.ErrorDetail{Location: "body." + name, Message: "is a date and a time, such as 2026-12-07T08:00"})
		}
		return t, nil
	}
	from, err := moment("from", in.Body.From)
	if err != nil {
		return nil, err
	}
	to, err := moment("to", in.Body.To)
	if err != nil {
		return nil, err
	}
	var channels []int
	for _, id := range in.Body.Channels {
		i, err := channelIn(e.head.Plan, id)
		if err != nil {
			return nil, err
		}
		channels = append(channels, i)
	}
	if !to.After(from) {
		return nil, huma.Error422UnprocessableEntity("The stretch ends before it begins.")
	}
	out, err := server.Heavily(ctx, s.slots.Heavy, func(ctx context.Context) (TakenOff, error) {
		t, ok := e.site.TakeOff(channels, from, to, in.Body.EventsOnly)
		if !ok {
			return TakenOff{}, huma.Error422UnprocessableEntity("A stretch of 400 days at most can be taken off, in years from 1970 to 2200.")
		}
		return TakenOff{t, t.Minutes(in.Body.USBMBps), t.Minutes(in.Body.NetworkMbps / 8)}, nil
	})
	return &body[TakenOff]{out}, s.problem(ctx, err)
}
