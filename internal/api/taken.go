package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/core/compare"
	"wakefield.example/core/edit"
	"wakefield.example/internal/store"
)

// registerTaken adds what a plan takes from another site: from one that a company keeps as a template, or any other.
func registerTaken(api huma.API, s *service) {
	huma.Register(api, op("takings", http.MethodGet, "/api/plans/{id}/takings",
		"What a plan could take from another site's: duties, weeks, activities, camera kinds, messages, special days, what recorders take"),
		s.takings)
	huma.Register(api, op("take", http.MethodPost, "/api/plans/{id}/takings", "The edits that take some of it; they are not made"), s.take)
	huma.Register(api, op("copyChannels", http.MethodPost, "/api/plans/{id}/channels/copy",
		"The edits that copy channels of another site here, with all that they name; their stills are copied, the edits are not made"),
		s.copyChannels)
}

// fromSite is the adopted plan of another site that whoever asks may see.
func (s *service) fromSite(ctx context.Context, id, site string) (to, from entry, err error) {
	if to, err = s.current(ctx, id); err != nil {
		return to, from, err
	}
	if !s.maySee(ctx, site) {
		return to, from, store.ErrNotFound
	}
	_, from, err = s.adopted(ctx, site)
	return to, from, err
}

// Takings are what a plan could take from another site's.
type Takings struct {
	Name    string           `json:"name" doc:"Of the other site"`
	Takings []compare.Taking `json:"takings"`
}

func (s *service) takings(ctx context.Context, in *struct {
	PlanParam
	Site string `query:"site" required:"true" maxLength:"200" doc:"Id of the other site; its adopted plan is looked at"`
}) (*body[Takings], error) {
	to, from, err := s.fromSite(ctx, in.ID, in.Site)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	out := Takings{from.head.Plan.Site.Name, compare.Takings(to.head.Plan, from.head.Plan)}
	if out.Takings == nil {
		out.Takings = []compare.Taking{}
	}
	return &body[Takings]{out}, nil
}

// Edits are edits that are not made.
type Edits struct {
	Edits []edit.Edit `json:"edits"`
}

func (s *service) take(ctx context.Context, in *struct {
	PlanParam
	Body struct {
		Site string   `json:"site" maxLength:"200" doc:"Id of the other site"`
		Take []string `json:"take" minItems:"1" maxItems:"2000" doc:"Ids of what is taken"`
	}
}) (*body[Edits], error) {
	to, from, err := s.fromSite(ctx, in.ID, in.Body.Site)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	edits, err := compare.Take(to.head.Plan, from.head.Plan, in.Body.Take)
	return &body[Edits]{Edits{edits}}, s.problem(ctx, err)
}

func (s *service) copyChannels(ctx context.Context, in *struct {
	PlanParam
	Body struct {
		Site     string   `json:"site" maxLength:"200" doc:"Id of the other site"`
		Channels []string `json:"channels" minItems:"1" maxItems:"5000" doc:"Ids there"`
		Recorder string   `json:"recorder" maxLength:"100" doc:"Id here"`
		Pool     string   `json:"pool" maxLength:"100" doc:"Id here"`
	}
}) (*body[*compare.Copied], error) {
	to, from, err := s.fromSite(ctx, in.ID, in.Body.Site)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	copied, err := compare.CopyChannels(to.head.Plan, from.head.Plan, unique(in.Body.Channels), in.Body.Recorder, in.Body.Pool)
	if err == nil && len(copied.Pictures) > 0 {
		err = s.store.CopyPictures(ctx, to.head.Site, from.head.Site, copied.Pictures)
	}
	return &body[*compare.Copied]{copied}, s.problem(ctx, err)
}
