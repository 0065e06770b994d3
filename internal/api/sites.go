package api

import (
	"context"
	"crypto/rand"
	"encoding/json"
	"net/http"
	"slices"
	"strings"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/internal/server"
	"wakefield.example/internal/store"

	"github.com/danielgtaylor/huma/v2"
)

// registerSites adds what is done with sites as a whole.
func registerSites(api huma.API, s *service) {
	huma.Register(api,
		making(fileOp(op("importSite", http.MethodPost, "/api/sites",
			"Make a site from a plan file, or from a zip archive of one with its pictures"), server.BundleBody+1)), s.importPlan)
	huma.Register(api, answering[SiteView](api, op("getSite", http.MethodGet, "/api/sites/{id}",
		"A site with one of its plans and that one's figures")), s.site)
	huma.Register(api, making(op("duplicateSite", http.MethodPost, "/api/sites/{id}/duplicate", "Make a site like another")), s.duplicate)
	huma.Register(api, op("archiveSite", http.MethodPost, "/api/sites/{id}/archive", "Archive a site, or restore it"), s.archive)
}

// SiteView is a site and one of its plans as the pages show it.
type SiteView struct {
	Site *store.Site `json:"site"`
	Plan *View       `json:"plan"`
}

func (s *service) site(ctx context.Context, in *struct {
	SiteParam
	Plan string `query:"plan" maxLength:"200" doc:"Id of the plan; empty for the adopted one"`
}) (*written, error) {
	site, e, err := s.planOf(ctx, in.ID, in.Plan)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	plan, _, err := e.view(false)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	about, err := json.Marshal(site)
	// Put together from what is written: written anew it would take most of the time of an answer.
	return &written{Type: "application/json", Body: slices.Concat([]byte(`{"site":`), about, []byte(`,"plan":`), plan, []byte("}"))},
		s.problem(ctx, err)
}

// adopted is a site with its adopted plan as it stands.
func (s *service) adopted(ctx context.Context, id string) (*store.Site, entry, error) {
	return s.planOf(ctx, id, "")
}

// planOf is a site with one of its plans as it stands; with none named, the adopted one.
func (s *service) planOf(ctx context.Context, id, planID string) (*store.Site, entry, error) {
	site, err := s.store.Site(ctx, id)
	if err != nil {
		return nil, entry{}, err
	}
	if planID == "" {
		planID = site.Adopted
	}
	if !slices.ContainsFunc(site.Plans, func(l store.PlanLine) bool { return l.ID == planID }) {
		return nil, entry{}, store.ErrNotFound
	}
	e, err := s.current(ctx, planID)
	return site, e, err
}

func (s *service) duplicate(ctx context.Context, in *struct {
	SiteParam
	SentBy
	Body struct {
		Name string `json:"name" minLength:"1" maxLength:"200" doc:"Name of the new site"`
	}
}) (*body[CreatedSite], error) {
	_, e, err := s.adopted(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	return s.create(ctx, in.note("Site made like "+e.head.Plan.Site.Name), func(ctx context.Context) (*plan.Plan, []store.With, error) {
		p, err := edit.After(e.head.Plan, edit.Edit{SetSite: &edit.SetSite{Name: &in.Body.Name}})
		return p, []store.With{store.WithPicturesOf(in.ID, e.head.Plan.Pictures())}, err
	})
}

func (s *service) archive(ctx context.Context, in *struct {
	SiteParam
	Body struct {
		Archived bool `json:"archived"`
	}
}) (*struct{}, error) {
	return nil, s.problem(ctx, s.store.Archive(ctx, in.ID, in.Body.Archived))
}

// CreatedSite is a site that was made.
type CreatedSite struct {
	ID      string `json:"id"`
	Version int64  `json:"version"`
}

func (s *service) importPlan(ctx context.Context, in *struct {
	SentBy
	RawBody []byte `contentType:"application/json"`
}) (*body[CreatedSite], error) {
	return s.create(ctx, in.note("Site made from a plan file"), func(ctx context.Context) (*plan.Plan, []store.With, error) {
		p, pictures, err := s.readBundle(ctx, in.RawBody)
		return p, []store.With{store.WithPictures(pictures)}, err
	})
}

// create makes a site of a plan that can be estimated, and what comes along with it.
func (s *service) create(ctx context.Context, note store.Note, read func(ctx context.Context) (*plan.Plan, []store.With,
	error)) (*body[CreatedSite], error) {
	return s.begin(ctx, note, read, func(head *store.Head, note store.Note, with []store.With) (*store.Head, error) {
		return s.store.Create(ctx, head.ID, note, head.Plan, with...)
	})
}

// begin estimates a plan that is new, and keeps it with what comes along.
func (s *service) begin(ctx context.Context, note store.Note, read func(ctx context.Context) (*plan.Plan, []store.With, error),
	keep func(*store.Head, store.Note, []store.With) (*store.Head, error)) (*body[CreatedSite], error) {
	head, err := server.Heavily(ctx, s.slots.Heavy, func(ctx context.Context) (*store.Head, error) {
		p, with, err := read(ctx)
		if err != nil {
			return nil, err
		}
		head := &store.Head{ID: newID(p.Site.Name), Version: 1, Plan: p}
		made, err := s.estimate(ctx, head, nil)
		if err != nil {
			return nil, err
		}
		note.KeptDays = made.site.Verdict.KeptDays
		return keep(head, note, with)
	})
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	return &body[CreatedSite]{CreatedSite{head.ID, head.Version}}, nil
}

// newID makes an id for a site from its name and a few letters of chance.
func newID(name string) string {
	return strings.TrimLeft(plan.Slug(name)+"-"+strings.ToLower(rand.Text()[:6]), "-")
}
