package api

import (
	"archive/zip"
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"strings"
	"unicode/utf8"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/core/overview"
	"wakefield.example/core/plan"
	"wakefield.example/internal/account"
	"wakefield.example/internal/store"
)

// registerSiteMarks adds what is done with several sites at once, and searches that somebody keeps.
func registerSiteMarks(api huma.API, s *service) {
	huma.Register(api, op("markSites", http.MethodPost, "/api/sites/mark",
		"Say how far several sites have come, where they are, tag or archive them: all or none"), s.markSites)
	huma.Register(api, op("exportSites", http.MethodPost, "/api/sites/export", "The plan files of several sites, as a zip archive"),
		s.exportSites)
	huma.Register(api, op("sitesFindings", http.MethodPost, "/api/sites/findings", "What is found at several sites"), s.sitesFindings)
	huma.Register(api, op("searches", http.MethodGet, "/api/searches", "Searches of sites that one keeps"), s.searches)
	huma.Register(api, op("keepSearch", http.MethodPut, "/api/searches", "Keep a search, in the place of one of that name"), s.keepSearch)
	huma.Register(api, op("forgetSearch", http.MethodDelete, "/api/searches/{name}", "Forget a search that one keeps"), s.forgetSearch)
}

// SiteList names sites.
type SiteList struct {
	Sites []string `json:"sites" minItems:"1" maxItems:"2000" doc:"Ids"`
}

func (s *service) markSites(ctx context.Context, in *struct {
	Body struct {
		SiteList
		Stage    *store.Stage `json:"stage,omitempty" enum:"planned,handed,measure,template"`
		Place    *string      `json:"place,omitempty" maxLength:"200"`
		Tag      []string     `json:"tag,omitempty" maxItems:"30" doc:"To add; at most 40 characters each"`
		Untag    []string     `json:"untag,omitempty" maxItems:"30" doc:"To take away"`
		Archived *bool        `json:"archived,omitempty"`
	}
}) (*struct{}, error) {
	b := &in.Body
	for _, id := range b.Sites {
		switch {
		case !s.maySee(ctx, id):
			return nil, s.problem(ctx, store.ErrNotFound)
		case !s.mayPlan(ctx, id):
			return nil, huma.Error403Forbidden("Only who plans a site marks it, and you do not plan " + s.nameOf(ctx, id) + ". Nothing was changed.")
		}
	}
	m := store.Marks{Stage: b.Stage, Archived: b.Archived, Untag: b.Untag}
	if b.Place != nil {
		place := strings.TrimSpace(*b.Place)
		m.Place = &place
	}
	for i, tag := range b.Tag {
		tag = strings.TrimSpace(tag)
		if tag == "" || utf8.RuneCountInString(tag) > 40 || strings.ContainsAny(tag, ",\n\x00") {
			return nil, huma.Error422UnprocessableEntity("A tag has 1 to 40 characters and no comma.",
				&huma.ErrorDetail{Location: fmt.Sprintf("body.tag[%d]", i), Message: "is no tag", Value: tag})
		}
		m.Tag = append(m.Tag, tag)
	}
	return nil, s.problem(ctx, s.store.Mark(ctx, unique(b.Sites), m))
}

// unique are ids without those that come again.
func unique(ids []string) (out []string) {
	seen := make(map[string]bool)
	for _, id := range ids {
		if !seen[id] {
			seen[id] = true
			out = append(out, id)
		}
	}
	return out
}

// mayPlan tells whether whoever asks plans a site.
func (s *service) mayPlan(ctx context.Context, site string) bool {
	if s.keeper == nil {
		return true
	}
	who := account.From(ctx)
	return who != nil && !who.ReadOnly && who.RoleAt(site) == "planner"
}

// nameOf is what a site is called, to name it in a sentence.
func (s *service) nameOf(ctx context.Context, site string) string {
	if at, err := s.store.Site(ctx, site); err == nil {
		if e, err := s.current(ctx, at.Adopted); err == nil {
			return e.head.Plan.Site.Name
		}
	}
	return site
}

// mostPlanFiles is how many bytes of plan files an archive has at most.
const mostPlanFiles = 400 << 20

func (s *service) exportSites(ctx context.Context, in *struct{ Body SiteList }) (*written, error) {
	var out bytes.Buffer
	z := zip.NewWriter(&out)
	total := 0
	for _, id := range unique(in.Body.Sites) {
		if !s.maySee(ctx, id) {
			return nil, s.problem(ctx, store.ErrNotFound)
		}
		site, err := s.store.Site(ctx, id)
		if err != nil {
			return nil, s.problem(ctx, err)
		}
		document, err := s.store.Export(ctx, site.Adopted)
		if err != nil {
			return nil, s.problem(ctx, err)
		}
		if total += len(document); total > mostPlanFiles {
			return nil, huma.Error422UnprocessableEntity(plan.Say("These are more than %d MB of plan files; choose fewer sites.", mostPlanFiles>>20))
		}
		w, err := z.Create(id + ".json")
		if err == nil {
			_, err = w.Write(document)
		}
		if err != nil {
			return nil, err
		}
	}
	if err := z.Close(); err != nil {
		return nil, err
	}
	return &written{Type: "application/zip", Body: out.Bytes()}, nil
}

// FoundHere is a finding of one of several sites.
type FoundHere struct {
	Site     string `json:"site" doc:"Id"`
	Name     string `json:"name" doc:"Of the site"`
	ID       string `json:"id"`
	Severity string `json:"severity" enum:"error,warning,hint"`
	Sentence string `json:"sentence"`
}

// FoundAtSites are the findings of several sites.
type FoundAtSites struct {
	Found []FoundHere `json:"found" doc:"That nobody accepted; by site in the order in which they were named, most severe first, 100 of each at most"`
	Left  []string    `json:"left" doc:"Names of sites that are not estimated as they are yet"`
}

func (s *service) sitesFindings(ctx context.Context, in *struct{ Body SiteList }) (*body[FoundAtSites], error) {
	known, err := s.store.WordsOf(ctx, in.Body.Sites)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	out := FoundAtSites{Found: []FoundHere{}, Left: []string{}}
	for _, id := range unique(in.Body.Sites) {
		if !s.maySee(ctx, id) {
			return nil, s.problem(ctx, store.ErrNotFound)
		}
		of, estimated := known[id]
		if !estimated {
			out.Left = append(out.Left, s.nameOf(ctx, id))
			continue
		}
		var words []overview.Word
		if err := json.Unmarshal(of.Words, &words); err != nil {
			return nil, s.problem(ctx, err)
		}
		for _, w := range words {
			if w.Kind == "finding" {
				out.Found = append(out.Found, FoundHere{id, of.Name, w.ID, string(w.Severity), w.Text})
			}
		}
	}
	return &body[FoundAtSites]{out}, nil
}

// SiteSearch is what the list of sites shows, and how.
type SiteSearch struct {
	Text     string   `json:"text,omitempty" maxLength:"200"`
	Customer string   `json:"customer,omitempty" maxLength:"200"`
	Place    string   `json:"place,omitempty" maxLength:"200"`
	Tags     []string `json:"tags,omitempty" maxItems:"30"`
	Stage    string   `json:"stage,omitempty" enum:"planned,handed,measure,template,away"`
	Only     string   `json:"only,omitempty" enum:"short,errors" doc:"Only sites in trouble"`
	Sort     string   `json:"sort,omitempty" enum:"trouble,changed,name"`
}

// KeptSearch is a search that one keeps.
type KeptSearch struct {
	Name   string     `json:"name" minLength:"1" maxLength:"60"`
	Search SiteSearch `json:"search"`
}

// person is who keeps searches; nobody where nobody signs in.
func person(ctx context.Context) string {
	if who := account.From(ctx); who != nil {
		return who.ID
	}
	return ""
}

func (s *service) searches(ctx context.Context, _ *struct{}) (*body[[]KeptSearch], error) {
	list, err := s.store.Searches(ctx, person(ctx))
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	out := []KeptSearch{}
	for _, k := range list {
		of := KeptSearch{Name: k.Name}
		if err := json.Unmarshal(k.Said, &of.Search); err == nil {
			out = append(out, of)
		}
	}
	return &body[[]KeptSearch]{out}, nil
}

func (s *service) keepSearch(ctx context.Context, in *struct{ Body KeptSearch }) (*struct{}, error) {
	name := strings.TrimSpace(in.Body.Name)
	if name == "" {
		return nil, huma.Error422UnprocessableEntity("A search is kept by a name.")
	}
	said, err := json.Marshal(in.Body.Search)
	if err != nil {
		return nil, err
	}
	err = s.store.KeepSearch(ctx, person(ctx), store.KeptSearch{Name: name, Said: said})
	if errors.Is(err, store.ErrSearches) {
		return nil, huma.Error422UnprocessableEntity(plan.Say("At most %d searches are kept; forget one first.", store.MostSearches))
	}
	return nil, s.problem(ctx, err)
}

func (s *service) forgetSearch(ctx context.Context, in *struct {
	Name string `path:"name" maxLength:"200"`
}) (*struct{}, error) {
	return nil, s.problem(ctx, s.store.ForgetSearch(ctx, person(ctx), in.Name))
}
