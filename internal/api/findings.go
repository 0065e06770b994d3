package api

import (
	"context"
	"net/http"

	"wakefield.example/core/check"
	"wakefield.example/core/estimate"
	"wakefield.example/internal/server"

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
	list, err := server.Heavily(ctx, s.slots.Heavy, func(ctx context.Context) ([]estimate.Unknown, error) { return e.site.Knowing(ctx) })
	return &body[[]estimate.Unknown]{list}, s.problem(ctx, err)
}

// FixesInput says which fixes are tried.
type FixesInput struct {
	PlanParam
	Finding []string `query:"finding,explode" maxItems:"60" doc:"Ids of the findings; the first 60 where none is named"`
}

func (s *service) fixes(ctx context.Context, in *FixesInput) (*body[[]check.FixEffect], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	list, err := server.Heavily(ctx, s.slots.Heavy, func(ctx context.Context) ([]check.FixEffect, error) {
		return check.Effects(ctx, e.head.Plan, e.site, e.found, in.Finding...)
	})
	return &body[[]check.FixEffect]{list}, s.problem(ctx, err)
}

// FindingRun is part of a list of findings after a change: a run of those from before,
// or one that is new.
type FindingRun struct {
	From    int            `json:"from,omitempty" doc:"Index of the first of the run in the list from before"`
	Count   int            `json:"count,omitempty" doc:"How many of the list from before stand here unchanged; 0 for a new one"`
	Finding *check.Finding `json:"finding,omitempty" doc:"The new one"`
}

// findingRuns tells what findings became in terms of those from before: most stay as they
// were, and all of them together are most of an answer.
func findingRuns(before, after []check.Finding) []FindingRun {
	was := make(map[string]int, len(before))
	for i := range before {
		was[before[i].ID] = i
	}
	runs := []FindingRun{}
	for i := range after {
		k, ok := was[after[i].ID]
		if !ok || !after[i].Equal(&before[k]) {
			runs = append(runs, FindingRun{Finding: &after[i]})
			continue
		}
		if n := len(runs); n > 0 && runs[n-1].Finding == nil && runs[n-1].From+runs[n-1].Count == k {
			runs[n-1].Count++
			continue
		}
		runs = append(runs, FindingRun{From: k, Count: 1})
	}
	return runs
}
