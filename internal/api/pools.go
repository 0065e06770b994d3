package api

import (
	"context"
	"net/http"
	"net/url"

	"wakefield.example/core/estimate"
	"wakefield.example/core/solve"

	"github.com/danielgtaylor/huma/v2"
)

// registerPools adds what is asked of pools of drives.
func registerPools(api huma.API, s *service) {
	huma.Register(api, op("disk", http.MethodGet, "/api/plans/{id}/disk", "Where the disk goes, by duty and by hour of the day"), s.disk)
	huma.Register(api, op("whatIf", http.MethodGet, "/api/plans/{id}/pools/{pool}/whatif", "What a failed drive, or one more, would do"),
		s.whatIf)
}

func (s *service) disk(ctx context.Context, in *PlanParam) (*body[estimate.DiskUse], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	return &body[estimate.DiskUse]{e.site.DiskUse()}, nil
}

func (s *service) whatIf(ctx context.Context, in *struct {
	PlanParam
	Pool string `path:"pool" maxLength:"300" doc:"Id of the pool"`
}) (*body[[]solve.Scenario], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	pool, err := url.PathUnescape(in.Pool)
	if err != nil {
		pool = in.Pool
	}
	return &body[[]solve.Scenario]{solve.WhatIf(e.site, pool)}, nil
}
