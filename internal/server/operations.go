package server

import (
	"context"
	"log/slog"
	"net/http"
	"net/url"
	"strings"
	"time"
	"unicode"
	"unicode/utf8"

	"github.com/danielgtaylor/huma/v2"

	"wakefield/internal/store"
)

// service answers the operations of the API.
type service struct {
	store    *store.Store
	cache    *cache
	hub      *hub
	log      *slog.Logger
	meters   *meters
	turns    *turns
	heavy    *slots
	beat     time.Duration
	verdicts verdicts
}

type body[T any] struct{ Body T }

// SentBy is who sends a change, and the key under which it is kept once.
type SentBy struct {
	Author string `header:"Wakefield-Author" maxLength:"1000" doc:"Who makes the change, percent-encoded UTF-8; at most 60 characters"`
	Key    string `header:"Idempotency-Key" maxLength:"100" pattern:"^[0-9A-Za-z_-]*$" doc:"Sent again with the same key, the change is made once"`
}

// longestAuthor is in characters, however many bytes they take.
const longestAuthor = 60

// Resolve refuses names that could be neither kept nor shown.
func (b *SentBy) Resolve(huma.Context) []error {
	name, err := url.PathUnescape(b.Author)
	switch {
	case err != nil:
		return refusedHeader("is not percent-encoded")
	case !utf8.ValidString(name):
		return refusedHeader("is not UTF-8")
	case strings.ContainsFunc(name, unicode.IsControl):
		return refusedHeader("has a control character in it")
	case utf8.RuneCountInString(name) > longestAuthor:
		return refusedHeader("has more than 60 characters")
	}
	return nil
}

func refusedHeader(why string) []error {
	return []error{&huma.ErrorDetail{Location: "header.Wakefield-Author", Message: why}}
}

// note is what is written down of a change; who gives no name is a planner.
func (b *SentBy) note(sentence string) store.Note {
	author := "Planner"
	if name, err := url.PathUnescape(b.Author); err == nil && strings.TrimSpace(name) != "" {
		author = strings.TrimSpace(name)
	}
	return store.Note{Author: author, Sentence: sentence, Request: b.Key}
}

// SiteParam names a site in the path.
type SiteParam struct {
	ID string `path:"id" maxLength:"200" doc:"Id of the site"`
}

// Resolve answers for ids that no site can have.
func (p *SiteParam) Resolve(huma.Context) []error {
	if !utf8.ValidString(p.ID) || strings.ContainsFunc(p.ID, unicode.IsControl) {
		return []error{huma.Error404NotFound("There is no such site.")}
	}
	return nil
}

// Sizes of requests, in bytes.
const (
	usualBody   = 4 << 20
	tableBody   = 16 << 20
	clipBody    = 24 << 20
	largestBody = 32 << 20 // plan files and event logs
)

// op describes an operation.
func op(id, method, path, summary string) huma.Operation {
	return huma.Operation{OperationID: id, Method: method, Path: path, Summary: summary, MaxBodyBytes: usualBody}
}

func register(api huma.API, s *service) {
	registerHealth(api, s)
	registerSites(api, s)
	registerFiles(api, s)
	registerKit(api, s)
	registerWeeks(api, s)
	registerEdits(api, s)
	registerChanges(api, s)
	registerHistory(api, s)
}

// registerFiles adds plan files.
func registerFiles(api huma.API, s *service) {
	importing := op("importSite", http.MethodPost, "/api/sites", "Make a site from a plan file")
	importing.MaxBodyBytes = largestBody + 1
	importing.DefaultStatus = http.StatusCreated
	importing.SkipValidateBody = true
	huma.Register(api, importing, s.importPlan)
	huma.Register(api, op("getSite", http.MethodGet, "/api/sites/{id}", "A site with its plan and figures"), s.get)
	huma.Register(api, op("exportPlan", http.MethodGet, "/api/sites/{id}/plan", "The plan file of a site"), s.export)
}

func (s *service) get(ctx context.Context, in *SiteParam) (*body[*View], error) {
	e, err := s.current(ctx, in.ID)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	return &body[*View]{view(e)}, nil
}
