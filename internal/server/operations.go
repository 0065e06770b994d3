package server

import (
	"context"
	"crypto/rand"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"net/url"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"wakefield/core/plan"
	"wakefield/internal/store"
)

// service answers the operations of the API.
type service struct {
	store    *store.Store
	cache    *cache
	hub      *hub
	verdicts verdicts
}

type body[T any] struct{ Body T }

// AuthorHeader is who makes a change, percent-encoded UTF-8.
type AuthorHeader struct {
	Author string `header:"Wakefield-Author" maxLength:"300" doc:"Who makes the change, percent-encoded"`
}

// name decodes the author; who gives none is a planner.
func (a AuthorHeader) name() string {
	if name, err := url.PathUnescape(a.Author); err == nil && strings.TrimSpace(name) != "" {
		return name
	}
	return "Planner"
}

// SiteParam names a site in the path.
type SiteParam struct {
	ID string `path:"id" maxLength:"200" doc:"Id of the site"`
}

type changeRequest struct {
	SiteParam
	AuthorHeader
	Body struct {
		Version int64       `json:"version" doc:"Version of the plan that the change is made on"`
		Edits   []plan.Edit `json:"edits" minItems:"1" maxItems:"1000"`
	}
}

type stepRequest struct {
	SiteParam
	AuthorHeader
	Body struct {
		Version int64 `json:"version" doc:"Version of the plan that the step is made on"`
	}
}

// op describes an operation.
func op(id, method, path, summary string) huma.Operation {
	return huma.Operation{OperationID: id, Method: method, Path: path, Summary: summary, MaxBodyBytes: 4 << 20}
}

func register(api huma.API, s *service) {
	importing := op("importSite", http.MethodPost, "/api/sites", "Make a site from a plan file")
	importing.MaxBodyBytes = plan.MaxBytes + 1
	importing.DefaultStatus = http.StatusCreated
	importing.SkipValidateBody = true

	huma.Register(api, op("health", http.MethodGet, "/healthz", "Whether the server and its database answer"), s.health)
	registerSites(api, s)
	registerKit(api, s)
	registerWeeks(api, s)
	huma.Register(api, importing, s.importPlan)
	huma.Register(api, op("getSite", http.MethodGet, "/api/sites/{id}", "A site with its plan and figures"), s.get)
	huma.Register(api, op("exportPlan", http.MethodGet, "/api/sites/{id}/plan", "The plan file of a site"), s.export)
	huma.Register(api, op("edit", http.MethodPost, "/api/sites/{id}/edits", "Change the plan"), s.edit)
	huma.Register(api, op("draft", http.MethodPost, "/api/sites/{id}/draft", "What a change would do, without keeping it"), s.draft)
	huma.Register(api, op("undo", http.MethodPost, "/api/sites/{id}/undo", "Take back the last change"), s.undo)
	huma.Register(api, op("redo", http.MethodPost, "/api/sites/{id}/redo", "Make the change again that was taken back"), s.redo)
	huma.Register(api, op("returnTo", http.MethodPost, "/api/sites/{id}/return", "Return to an earlier revision, as a new one"), s.returnTo)
	registerChanges(api, s)
	huma.Register(api, op("history", http.MethodGet, "/api/sites/{id}/history", "What was changed, newest first"), s.history)
}

// Health is what /healthz says when all is well.
type Health struct {
	Status string `json:"status" enum:"ok"`
}

func (s *service) health(ctx context.Context, _ *struct{}) (*body[Health], error) {
	if err := s.store.Ping(ctx); err != nil {
		return nil, huma.Error503ServiceUnavailable("The database does not answer.")
	}
	return &body[Health]{Health{"ok"}}, nil
}

func (s *service) get(ctx context.Context, in *SiteParam) (*body[*View], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, problem(err)
	}
	return &body[*View]{view(e)}, nil
}

type file struct {
	Type        string `header:"Content-Type"`
	Disposition string `header:"Content-Disposition"`
	Body        []byte
}

func (s *service) export(ctx context.Context, in *SiteParam) (*file, error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, problem(err)
	}
	data, err := e.head.Plan.Write()
	if err != nil {
		return nil, err
	}
	return &file{"application/json", `attachment; filename="` + in.ID + `.json"`, data}, nil
}

// Made is a site that was made.
type Made struct {
	ID      string `json:"id"`
	Version int64  `json:"version"`
}

func (s *service) importPlan(ctx context.Context, in *struct {
	AuthorHeader
	RawBody []byte `contentType:"application/json"`
}) (*body[Made], error) {
	p, err := plan.Read(in.RawBody)
	if err != nil {
		return nil, problem(err)
	}
	return s.make(ctx, in.name(), "Site made from a plan file", p)
}

// newID makes an id for a site from its name and a few letters of chance.
func newID(name string) string {
	return strings.TrimLeft(plan.Slug(name)+"-"+strings.ToLower(rand.Text()[:6]), "-")
}

// at returns the site as it stands if it has the version asked for.
func (s *service) at(ctx context.Context, id string, version int64) (entry, error) {
	e, err := s.current(ctx, id)
	if err != nil {
		return entry{}, err
	}
	if e.head.Version != version {
		return entry{}, s.store.Stale(ctx, id, version)
	}
	return e, nil
}

// proposed returns the plan that a change is made on, and as it would be after.
func (s *service) proposed(ctx context.Context, in *changeRequest) (before entry, next *plan.Plan, err error) {
	if before, err = s.at(ctx, in.ID, in.Body.Version); err != nil {
		return entry{}, nil, err
	}
	next, err = before.head.Plan.Apply(in.Body.Edits...)
	return before, next, err
}

// merged makes a change that was made on an old version on the newest one, where the
// two do not concern the same things; else it fails as stale did.
func (s *service) merged(ctx context.Context, in *changeRequest, stale error) (before entry, next *plan.Plan, err error) {
	if before, err = s.current(ctx, in.ID); err != nil {
		return entry{}, nil, err
	}
	base, err := s.store.At(ctx, before.head, in.Body.Version)
	if err != nil {
		return entry{}, nil, stale
	}
	next, ok := plan.Merge(base, before.head.Plan, in.Body.Edits)
	if !ok {
		return entry{}, nil, stale
	}
	return before, next, nil
}

func (s *service) edit(ctx context.Context, in *changeRequest) (*body[*Answer], error) {
	before, next, err := s.proposed(ctx, in)
	if stale := new(store.StaleError); errors.As(err, &stale) {
		before, next, err = s.merged(ctx, in, err)
	}
	if err != nil {
		return nil, problem(err)
	}
	sentence := before.head.Plan.Sentence(in.Body.Edits...)
	change, err := s.store.Save(ctx, before.head, in.name(), sentence, next)
	return s.answer(before, change, err)
}

// answer remembers a change and tells what it changed.
func (s *service) answer(before entry, change *store.Change, err error) (*body[*Answer], error) {
	if err != nil {
		return nil, problem(err)
	}
	after := newEntry(change.Head, before.site)
	s.cache.put(after)
	a := answer(before, after)
	a.Sentence = change.Sentence
	if err := json.Unmarshal(change.Forward, &a.Patch); err != nil {
		return nil, err
	}
	return &body[*Answer]{a}, nil
}

func (s *service) draft(ctx context.Context, in *changeRequest) (*body[*Draft], error) {
	before, next, err := s.proposed(ctx, in)
	if err != nil {
		return nil, problem(err)
	}
	return &body[*Draft]{draft(before, next, before.head.Plan.Sentence(in.Body.Edits...))}, nil
}

func (s *service) undo(ctx context.Context, in *stepRequest) (*body[*Answer], error) {
	return s.step(ctx, in, s.store.Undo)
}

func (s *service) redo(ctx context.Context, in *stepRequest) (*body[*Answer], error) {
	return s.step(ctx, in, s.store.Redo)
}

func (s *service) step(ctx context.Context, in *stepRequest, take func(context.Context, *store.Head, string) (*store.Change, error)) (*body[*Answer], error) {
	before, err := s.at(ctx, in.ID, in.Body.Version)
	if err != nil {
		return nil, problem(err)
	}
	change, err := take(ctx, before.head, in.name())
	return s.answer(before, change, err)
}

func (s *service) returnTo(ctx context.Context, in *struct {
	SiteParam
	AuthorHeader
	Body struct {
		Version  int64 `json:"version" doc:"Version of the plan that the return is made on"`
		Revision int64 `json:"revision" minimum:"1" doc:"The revision to return to"`
	}
}) (*body[*Answer], error) {
	before, err := s.at(ctx, in.ID, in.Body.Version)
	if err != nil {
		return nil, problem(err)
	}
	then, err := s.store.At(ctx, before.head, in.Body.Revision)
	if errors.Is(err, store.ErrNotFound) {
		return nil, huma.Error422UnprocessableEntity(fmt.Sprintf("There is no revision %d to return to.", in.Body.Revision))
	}
	if err != nil {
		return nil, problem(err)
	}
	change, err := s.store.Save(ctx, before.head, in.name(), fmt.Sprintf("Back to revision %d", in.Body.Revision), then)
	return s.answer(before, change, err)
}

func (s *service) history(ctx context.Context, in *struct {
	SiteParam
	Before int64 `query:"before" minimum:"0" doc:"Only revisions before this one; 0 for the newest"`
	Limit  int   `query:"limit" minimum:"1" maximum:"200" default:"50"`
}) (*body[[]store.Revision], error) {
	list, err := s.store.History(ctx, in.ID, in.Before, in.Limit)
	return &body[[]store.Revision]{list}, problem(err)
}
