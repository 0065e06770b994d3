package server

import (
	"context"
	"net/http"
	"sync"

	"github.com/danielgtaylor/huma/v2"

	"wakefield/core/check"
	"wakefield/core/edit"
	"wakefield/core/estimate"
	"wakefield/core/plan"
	"wakefield/internal/store"
)

// registerSites adds what is done with sites as a whole.
func registerSites(api huma.API, s *service) {
	huma.Register(api, op("listSites", http.MethodGet, "/api/sites", "List all sites"), s.list)
	huma.Register(api, op("siteVerdict", http.MethodGet, "/api/sites/{id}/verdict", "Whether a site's plan holds"), s.siteVerdict)
	opening := op("openSite", http.MethodPost, "/api/openings", "Make a site from the few things known at first")
	opening.DefaultStatus = http.StatusCreated
	huma.Register(api, opening, s.openSite)
	huma.Register(api, op("draftOpening", http.MethodPost, "/api/openings/draft", "The first verdict of a site that is not made yet"), s.draftOpening)
	duplicate := op("duplicateSite", http.MethodPost, "/api/sites/{id}/duplicate", "Make a site like another")
	duplicate.DefaultStatus = http.StatusCreated
	huma.Register(api, duplicate, s.duplicate)
	huma.Register(api, op("archiveSite", http.MethodPost, "/api/sites/{id}/archive", "Put a site away, or take it out again"), s.archive)
}

// SiteVerdict is a site's verdict in small.
type SiteVerdict struct {
	Version  int64            `json:"version"`
	Verdict  estimate.Verdict `json:"verdict"`
	Errors   int              `json:"errors"`
	Warnings int              `json:"warnings"`
	Hints    int              `json:"hints"`
}

// SiteLine is a line of the list of sites.
type SiteLine struct {
	store.Summary
	State *SiteVerdict `json:"state,omitempty" doc:"Absent where it is not known at once; ask for it"`
}

// verdicts remembers the verdict of every site asked for, at its version.
type verdicts struct {
	mutex sync.Mutex
	known map[string]SiteVerdict
}

func (v *verdicts) get(id string, version int64) *SiteVerdict {
	v.mutex.Lock()
	defer v.mutex.Unlock()
	if s, ok := v.known[id]; ok && s.Version == version {
		return &s
	}
	return nil
}

func (v *verdicts) put(id string, s SiteVerdict) {
	v.mutex.Lock()
	defer v.mutex.Unlock()
	if v.known == nil || len(v.known) > 10000 {
		v.known = make(map[string]SiteVerdict)
	}
	v.known[id] = s
}

func siteVerdict(e entry) SiteVerdict {
	n := check.Count(e.found)
	return SiteVerdict{e.head.Version, e.site.Verdict, n[check.Error], n[check.Warning], n[check.Hint]}
}

func (s *service) list(ctx context.Context, _ *struct{}) (*body[[]SiteLine], error) {
	list, err := s.store.List(ctx)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	out := make([]SiteLine, len(list))
	for i, summary := range list {
		out[i] = SiteLine{summary, s.verdicts.get(summary.ID, summary.Version)}
	}
	return &body[[]SiteLine]{out}, nil
}

func (s *service) siteVerdict(ctx context.Context, in *SiteParam) (*body[SiteVerdict], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	v := siteVerdict(e)
	s.verdicts.put(in.ID, v)
	return &body[SiteVerdict]{v}, nil
}

// OpeningDraft is the first verdict of a site that is not made yet.
type OpeningDraft struct {
	Verdict  estimate.Verdict `json:"verdict"`
	Findings []check.Finding  `json:"findings"`
	Assumed  Assumed          `json:"assumed"`
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
	e, err := heavily(ctx, s.heavy.edits, func() (entry, error) {
		p, err := in.Body.Plan()
		if err != nil {
			return entry{}, err
		}
		return s.estimate(ctx, &store.Head{Plan: p}, nil)
	})
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	return &body[OpeningDraft]{OpeningDraft{e.site.Verdict, e.found, assumed(e)}}, nil
}

func (s *service) openSite(ctx context.Context, in *struct {
	SentBy
	Body plan.Opening
}) (*body[CreatedSite], error) {
	return s.create(ctx, in.note("Site made"), in.Body.Plan)
}

func (s *service) duplicate(ctx context.Context, in *struct {
	SiteParam
	SentBy
	Body struct {
		Name string `json:"name" minLength:"1" maxLength:"200" doc:"Name of the new site"`
	}
}) (*body[CreatedSite], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	return s.create(ctx, in.note("Site made like "+e.head.Plan.Site.Name), func() (*plan.Plan, error) {
		return edit.After(e.head.Plan, edit.Edit{SetSite: &edit.SetSite{Name: &in.Body.Name}})
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
