package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/core/compare"
	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/internal/server"
	"wakefield.example/internal/store"
)

// registerVariants adds what is done with the plans of a site.
func registerVariants(api huma.API, s *service) {
	huma.Register(api, op("variants", http.MethodGet, "/api/sites/{id}/plans", "The plans of a site: its variants"), s.variants)
	huma.Register(api, making(op("makeVariant", http.MethodPost, "/api/sites/{id}/plans",
		"Make a variant like another plan of the site, with changes or without")), s.makeVariant)
	huma.Register(api, making(fileOp(op("importVariant", http.MethodPost, "/api/sites/{id}/plans/file",
		"Make a variant from a plan file, or from a zip archive of one with its pictures"), server.BundleBody+1)), s.importVariant)
	huma.Register(api, op("removeVariant", http.MethodPost, "/api/sites/{id}/plans/{plan}/removed", "Take a variant away, or out again"),
		s.removeVariant)
	huma.Register(api, op("adopt", http.MethodPut, "/api/sites/{id}/adopted", "Make a variant the one that is carried out"), s.adopt)
	huma.Register(api, op("carry", http.MethodPost, "/api/plans/{id}/carry", "Carry differences over from another plan of the site"), s.carry)
}

func (s *service) variants(ctx context.Context, in *SiteParam) (*body[*store.Site], error) {
	site, err := s.store.Site(ctx, in.ID)
	return &body[*store.Site]{site}, s.problem(ctx, err)
}

// addVariant stores a variant of a site that can be estimated.
func (s *service) addVariant(ctx context.Context, site string, note store.Note, read func(ctx context.Context) (*plan.Plan, []store.With,
	error)) (*body[CreatedSite], error) {
	return s.begin(ctx, note, read, func(head *store.Head, note store.Note, with []store.With) (*store.Head, error) {
		return s.store.AddPlan(ctx, site, head.ID, note, head.Plan, with...)
	})
}

func (s *service) makeVariant(ctx context.Context, in *struct {
	SiteParam
	SentBy
	Body struct {
		Like    string      `json:"like" maxLength:"200" doc:"Id of the plan of the site that it begins as"`
		Version int64       `json:"version,omitempty" doc:"Version of that plan which the edits are made on; absent for the newest"`
		Name    string      `json:"name" minLength:"1" maxLength:"200"`
		Edits   []edit.Edit `json:"edits,omitempty" maxItems:"5000" doc:"What is changed in it at once"`
	}
}) (*body[CreatedSite], error) {
	_, e, err := s.planOf(ctx, in.ID, in.Body.Like)
	if err == nil && in.Body.Version != 0 && e.head.Version != in.Body.Version {
		err = s.store.Stale(ctx, e.head.ID, store.Stamp{Version: in.Body.Version}, store.Request{})
	}
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	return s.addVariant(ctx, in.ID, in.note("Variant made like "+e.head.Plan.Name), func(ctx context.Context) (*plan.Plan, []store.With,
		error) {
		edits := append([]edit.Edit{{SetSite: &edit.SetSite{Plan: &in.Body.Name}}}, in.Body.Edits...)
		p, err := edit.After(e.head.Plan, edits...)
		return p, nil, err
	})
}

func (s *service) importVariant(ctx context.Context, in *struct {
	SiteParam
	SentBy
	RawBody []byte `contentType:"application/json"`
}) (*body[CreatedSite], error) {
	return s.addVariant(ctx, in.ID, in.note("Variant made from a plan file"), func(ctx context.Context) (*plan.Plan, []store.With, error) {
		p, pictures, err := s.readBundle(ctx, in.RawBody)
		return p, []store.With{store.WithPictures(pictures)}, err
	})
}

func (s *service) removeVariant(ctx context.Context, in *struct {
	SiteParam
	Plan string `path:"plan" maxLength:"200" doc:"Id of the plan"`
	Body struct {
		Removed bool `json:"removed"`
	}
}) (*struct{}, error) {
	return nil, s.problem(ctx, s.store.RemovePlan(ctx, in.ID, in.Plan, in.Body.Removed))
}

func (s *service) adopt(ctx context.Context, in *struct {
	SiteParam
	Body struct {
		Plan string `json:"plan" maxLength:"200" doc:"Id of the plan"`
	}
}) (*struct{}, error) {
	return nil, s.problem(ctx, s.store.Adopt(ctx, in.ID, in.Body.Plan))
}

// carry gives a plan what is otherwise in another plan of its site, as one change of it.
func (s *service) carry(ctx context.Context, in *struct {
	PlanParam
	SentBy
	Body struct {
		From  string         `json:"from" maxLength:"200" doc:"Id of the plan that it is in"`
		Parts []compare.Part `json:"parts" minItems:"1" maxItems:"20000"`
	}
}) (*body[*Answer], error) {
	to, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	_, from, err := s.planOf(ctx, to.head.Site, in.Body.From)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	edits, err := compare.Carry(to.head.Plan, from.head.Plan, in.Body.Parts)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	change := &changeRequest{PlanParam: in.PlanParam, SentBy: in.SentBy}
	change.Body.Version, change.Body.Mark, change.Body.Edits = to.head.Version, to.head.Mark, edits
	return s.edit(ctx, change)
}
