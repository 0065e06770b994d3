package server

import (
	"context"
	"net/http"
	"wakefield/core/check"
	"wakefield/core/estimate"

	"github.com/danielgtaylor/huma/v2"
)

// registerFindings adds what is told of findings, and of what is not known.
func registerFindings(api huma.API, s *service) {
	huma.Register(api, op("fixes", http.MethodGet, "/api/plans/{id}/fixes", "What the fixes of findings would do"), s.fixes)
	huma.Register(api, op("knowing", http.MethodGet, "/api/plans/{id}/knowing", "What would be worth measuring"), s.knowing)
}

func (s *service) knowing(ctx context.Context, in *PlanParam) (*body[[]estimate.Unknown], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	list, err := heavily(ctx, s.heavy.heavy, func() ([]estimate.Unknown, error) { return e.site.Knowing(ctx) })
	return &body[[]estimate.Unknown]{list}, s.problem(ctx, err)
}

func (s *service) fixes(ctx context.Context, in *PlanParam) (*body[[]check.FixEffect], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	list, err := heavily(ctx, s.heavy.heavy, func() ([]check.FixEffect, error) { return check.Effects(ctx, e.head.Plan, e.site, e.found) })
	return &body[[]check.FixEffect]{list}, s.problem(ctx, err)
}
