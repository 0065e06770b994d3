package api

import (
	"context"
	"net/http"

	"wakefield.example/core/check"
	"wakefield.example/core/estimate"
	"wakefield.example/core/measured"
	"wakefield.example/core/plan"
	"wakefield.example/internal/server"
	"wakefield.example/internal/store"

	"github.com/danielgtaylor/huma/v2"
)

// registerOpenings adds sites that begin with the few things known at first.
func registerOpenings(api huma.API, s *service) {
	huma.Register(api, making(op("openSite", http.MethodPost, "/api/openings", "Make a site from the few things known at first")), s.openSite)
	huma.Register(api, op("draftOpening", http.MethodPost, "/api/openings/draft", "The first verdict of a site that is not made yet"),
		s.draftOpening)
}

// OpeningDraft is the first verdict of a site that is not made yet.
type OpeningDraft struct {
	Verdict  estimate.Verdict `json:"verdict"`
	Findings []check.Finding  `json:"findings"`
	Assumed  Assumed          `json:"assumed"`

	Learned []measured.RightTemplate `json:"learned" doc:"Kinds of scene whose first guess is what was found at other sites"`
}

// Assumed is what a first verdict takes each camera to be like.
type Assumed struct {
	IdleKbps       float64 `json:"idleKbps" doc:"While nothing moves"`
	ActiveKbps     float64 `json:"activeKbps"`
	EventsPerDay   float64 `json:"eventsPerDay" doc:"In front of it"`
	WrittenPercent float64 `json:"writtenPercent" doc:"Share of the week in which anything is written"`
}

func assumed(e entry) Assumed {
	c := &e.head.Plan.Channels[0]
	cost := estimate.CurveOf(c.Streams.Main)
	return Assumed{cost.IdleKbps, cost.ActiveKbps, e.head.Plan.Activity(c.Activity).Process().PerDay(), e.site.Channels[0].WrittenPercent}
}

func (s *service) draftOpening(ctx context.Context, in *struct{ Body plan.Opening }) (*body[OpeningDraft], error) {
	learned := []measured.RightTemplate{}
	e, err := server.Heavily(ctx, s.slots.Edits, func(ctx context.Context) (entry, error) {
		p, told, err := s.opened(ctx, &in.Body)
		if err != nil {
			return entry{}, err
		}
		learned = append(learned, told...)
		return s.estimate(ctx, &store.Head{Plan: p}, nil)
	})
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	return &body[OpeningDraft]{OpeningDraft{e.site.Verdict, e.found, assumed(e), learned}}, nil
}

func (s *service) openSite(ctx context.Context, in *struct {
	SentBy
	Body plan.Opening
}) (*body[CreatedSite], error) {
	return s.create(ctx, in.note("Site made"), func(ctx context.Context) (*plan.Plan, []store.With, error) {
		p, _, err := s.opened(ctx, &in.Body)
		return p, nil, err
	})
}

// opened is the plan of an opening. Where the company lets new sites begin with what was found at others, its activities do, but
// for those of which it is said how often they happen.
func (s *service) opened(ctx context.Context, o *plan.Opening) (*plan.Plan, []measured.RightTemplate, error) {
	p, err := o.Plan()
	if err != nil || o.EventsPerDay > 0 {
		return p, nil, err
	}
	learns, err := s.store.Learns(ctx)
	if err != nil || !learns {
		return p, nil, err
	}
	right, err := s.right(ctx)
	if err != nil {
		return nil, nil, err
	}
	return p, right.Learned(p), nil
}
