package api

import (
	"cmp"
	"context"
	"errors"
	"log/slog"
	"net/http"
	"net/url"
	"reflect"
	"strings"
	"sync"
	"time"
	"unicode"
	"unicode/utf8"

	"golang.org/x/sync/singleflight"

	"wakefield.example/core/document"
	"wakefield.example/core/handover"
	"wakefield.example/core/measured"
	"wakefield.example/core/rehearse"
	"wakefield.example/internal/account"
	"wakefield.example/internal/papers"
	"wakefield.example/internal/server"
	"wakefield.example/internal/store"

	"github.com/danielgtaylor/huma/v2"
)

// reading reads a foreign file. What is wrong with it is the client's to know.
func reading[T any](ctx context.Context, s *service, read func(context.Context) (T, error)) (T, error) {
	var wrong error
	v, err := server.Heavily(ctx, s.slots.Heavy, func(ctx context.Context) (v T, err error) {
		v, wrong = read(ctx)
		return v, nil
	})
	if err != nil {
		return v, s.problem(ctx, err)
	}
	if wrong != nil && (ctx.Err() != nil || errors.Is(wrong, server.ErrBusy)) {
		return v, s.problem(ctx, cmp.Or(ctx.Err(), wrong)) // it was stopped, which says nothing of the file
	}
	if wrong != nil {
		return v, huma.Error422UnprocessableEntity(wrong.Error())
	}
	return v, nil
}

type file struct {
	Type        string `header:"Content-Type"`
	Disposition string `header:"Content-Disposition"`
	Body        []byte
}

// written is an answer that is JSON already.
type written struct {
	Type     string `header:"Content-Type"`
	Encoding string `header:"Content-Encoding"`
	Vary     string `header:"Vary"`
	Body     []byte
}

// answering describes an operation whose answer is a [written] one of a type.
func answering[T any](api huma.API, op huma.Operation) huma.Operation {
	schema := api.OpenAPI().Components.Schemas.Schema(reflect.TypeFor[T](), true, "")
	op.Responses = map[string]*huma.Response{"200": {Description: "OK",
		Content: map[string]*huma.MediaType{"application/json": {Schema: schema}}}}
	return op
}

// service answers the operations of the API.
type service struct {
	store        *store.Store
	cache        *server.Cache[string, entry]
	loading      singleflight.Group // of plans
	hub          *server.Hub
	log          *slog.Logger
	meters       *server.Meters
	turns        *server.Turns
	batches      *batches
	slots        *server.Slots
	keeper       *account.Keeper // of accounts; nil where there are none
	policy       func(operation string, who *account.Who, company, site string) account.Decision
	samplePeople []account.SamplePerson // names of the sample people of a demonstration
	beat         time.Duration
	epoch        string // of the database; only the watch sees it
	verdicts     *server.Cache[string, verdictAt]
	prepared     preparations
	comparisons  *server.Cache[comparisonOf, *measured.Result]
	apart        Devices         // how devices are spoken with
	life         context.Context // ends with the server
	works        sync.WaitGroup  // what is being done with devices
	working      chan struct{}   // has one for each

	rehearsals *server.Cache[rehearsalOf, *rehearse.Rehearsal]
	sources    *server.Cache[sourceKey, *papers.Source]     // plans made ready for paper
	printed    *server.Cache[printedKey, handover.Document] // sheets as they were printed
}

// problem turns an error into what the client is told, and writes the cause of what is
// not the client's doing into the log.
func (s *service) problem(ctx context.Context, err error) error {
	if errors.Is(err, context.Canceled) && s.life != nil && s.life.Err() != nil { // nobody gave it up
		return huma.ErrorWithHeaders(huma.Error503ServiceUnavailable("The server is being stopped. Send it again in a moment."),
			http.Header{"Retry-After": {"1"}})
	}
	told := server.ProblemOf(err)
	var status huma.StatusError
	if errors.As(told, &status) && status.GetStatus() >= 500 {
		s.log.ErrorContext(ctx, "problem", "id", server.RequestID(ctx), "status", status.GetStatus(), "cause", err)
	}
	return told
}

type body[T any] struct{ Body T }

// checked is a body that is a part of a plan, held against the rules of plans before
// anybody works with it: the description of the API says less than they do.
type checked[T any] struct{ Body T }

// Resolve refuses what no plan could have there.
func (c *checked[T]) Resolve(huma.Context) []error { return asPlan("body", &c.Body) }

// asPlan is what the rules of plans say of a part of one; nothing where it keeps them.
func asPlan(at string, part any) []error {
	var wrong *document.Error
	if err := document.Check(at, part); errors.As(err, &wrong) {
		return []error{&huma.ErrorDetail{Location: wrong.Path, Message: wrong.Reason}}
	}
	return nil
}

// SentBy is who sends a change, and the key under which it is kept once.
type SentBy struct {
	Author string `header:"Wakefield-Author" maxLength:"1000" doc:"Who makes the change, percent-encoded UTF-8; at most 60 characters"`
	Key    string `header:"Idempotency-Key" maxLength:"100" pattern:"^[0-9A-Za-z_-]*$" doc:"Sent again with the same key, the change is made once; a key belongs to its operation, place and body, and is refused for others"`
	what   string
}

func (b *SentBy) request() store.Request { return store.Request{Key: b.Key, What: b.what} }

// longestAuthor is in characters, however many bytes they take.
const longestAuthor = 60

// Resolve refuses names that could be neither kept nor shown.
func (b *SentBy) Resolve(ctx huma.Context) []error {
	b.what = server.WhatIsAsked(ctx.Context())
	if who := account.From(ctx.Context()); who != nil {
		b.Author = url.PathEscape(who.Name) // whoever signed in is who they are, whatever a header says
	}
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
	return store.Note{Author: author, Sentence: sentence, Request: b.request()}
}

// SiteParam names a site in the path.
type SiteParam struct {
	ID string `path:"id" maxLength:"200" doc:"Id of the site"`
}

// PlanParam names a plan in the path.
type PlanParam struct {
	ID string `path:"id" maxLength:"200" doc:"Id of the plan"`
}

// op describes an operation.
func op(id, method, path, summary string) huma.Operation {
	return huma.Operation{OperationID: id, Method: method, Path: path, Summary: summary, MaxBodyBytes: server.UsualBody}
}

// fileOp is an operation whose body is a file of at most so many bytes.
func fileOp(op huma.Operation, largest int64) huma.Operation {
	op.MaxBodyBytes, op.SkipValidateBody = largest, true
	return op
}

// making is an operation that makes something.
func making(op huma.Operation) huma.Operation {
	op.DefaultStatus = http.StatusCreated
	return op
}

// register adds every operation; each file has those of one resource.
func register(api huma.API, s *service) {
	api.UseMiddleware(s.guarded(api))
	for _, resource := range []func(huma.API, *service){
		registerHealth, registerFormat, registerSites, registerSiteList, registerSiteMarks, registerCompanyFigures,
		registerTaken, registerOpenings,
		registerPlans, registerEdits, registerRevisions, registerFindings,
		registerTable, registerActivities, registerStreams, registerPools, registerTriggers, registerCauses, registerTarget, registerTakeOff,
		registerRehearse, registerVariants, registerCompared, registerPictures, registerWeeks, registerSpecialDays, registerTide,
		registerHandover, registerWalkTest, registerPresence,
		registerMeasured, registerMissed, registerHowRight, registerDevices,
		registerPapers, registerChanges, registerSignIn, registerMe, registerPeople, registerLinks, registerShared,
		registerAudit,
	} {
		resource(api, s)
	}
}
