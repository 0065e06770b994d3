package api

import (
	"context"
	"net/http"
	"strings"

	"wakefield.example/internal/server"
	"wakefield.example/internal/store"

	"github.com/danielgtaylor/huma/v2"
)

// registerRevisions adds what was, and what is told of it.
func registerRevisions(api huma.API, s *service) {
	huma.Register(api, op("history", http.MethodGet, "/api/plans/{id}/revisions", "What was changed, newest first"), s.history)
	huma.Register(api, op("revision", http.MethodGet, "/api/plans/{id}/revisions/{number}", "The plan as it stood after a revision"),
		s.revision)
	huma.Register(api, op("nameRevision", http.MethodPut, "/api/plans/{id}/revisions/{number}/name",
		"Name a revision, so that it can be found again"), s.nameRevision)
}

func (s *service) history(ctx context.Context, in *struct {
	PlanParam
	Before int64 `query:"before" minimum:"0" doc:"Only revisions before this one; 0 for the newest"`
	Limit  int   `query:"limit" minimum:"1" maximum:"200" default:"50"`

	Author string `query:"author" maxLength:"60" doc:"Only changes of those whose name has this in it"`
	Text   string `query:"text" maxLength:"200" doc:"Only changes that say this or are named so, such as the name of a channel"`
}) (*body[[]store.Revision], error) {
	list, err := s.store.History(ctx, in.ID, in.Before, in.Limit, store.Search{Author: in.Author, Text: in.Text})
	return &body[[]store.Revision]{list}, s.problem(ctx, err)
}

func (s *service) revision(ctx context.Context, in *struct {
	PlanParam
	Number int64 `path:"number" minimum:"1"`
}) (*body[*View], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	then, err := server.Heavily(ctx, s.slots.Heavy, func(ctx context.Context) (entry, error) { return s.revisionOf(ctx, e, in.Number) })
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	return &body[*View]{view(then)}, nil
}

// revisionOf is a plan as it stood after a revision.
func (s *service) revisionOf(ctx context.Context, e entry, number int64) (entry, error) {
	then, err := s.store.At(ctx, e.head, number)
	if err != nil {
		return entry{}, err
	}
	return s.estimate(ctx, &store.Head{ID: e.head.ID, Site: e.head.Site, Version: number, Mark: e.head.Mark, Plan: then}, e.site)
}

func (s *service) nameRevision(ctx context.Context, in *struct {
	PlanParam
	Number int64 `path:"number" minimum:"1"`
	Body   struct {
		Name string `json:"name" maxLength:"60" doc:"Empty to remove its name"`
	}
}) (*struct{}, error) {
	return nil, s.problem(ctx, s.store.NameRevision(ctx, in.ID, in.Number, strings.TrimSpace(in.Body.Name)))
}

// SiteVersion is the newest version of a site's plan.
type SiteVersion struct {
	Version int64  `json:"version"`
	Mark    string `json:"mark" doc:"Which history of the plan it is a version of; another one after a backup was restored"`
}

func (s *service) version(ctx context.Context, in *PlanParam) (*body[SiteVersion], error) {
	now, err := s.store.Version(ctx, in.ID)
	return &body[SiteVersion]{SiteVersion{now.Version, now.Mark}}, s.problem(ctx, err)
}
