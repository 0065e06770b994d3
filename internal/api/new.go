// Package api is what Wakefield answers: the operations of its HTTP API, a file a resource, declared once in Go and
// described by the OpenAPI document that it serves.
//
// It keeps nothing that the database does not: what it remembers of plans and their estimates is a cache, checked
// against the plan's version on every request, so several servers can run on one database.
package api

import (
	"bytes"
	"cmp"
	"context"
	"encoding/json"
	"log/slog"
	"maps"
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humachi"
	"github.com/go-chi/chi/v5"

	"wakefield.example/core/handover"
	"wakefield.example/core/measured"
	"wakefield.example/core/rehearse"
	"wakefield.example/internal/account"
	"wakefield.example/internal/papers"
	"wakefield.example/internal/server"
	"wakefield.example/internal/store"
)

// Version is the version of the API.
const Version = "1"

// Options are how a server is run. The zero value works.
type Options struct {
	Log   *slog.Logger  // where it writes what happens; nil for nowhere
	Hosts []string      // names it is reached by beside those of loopback
	Beat  time.Duration // how often a stream of changes shows that it lives; 0 for 1.5 s

	Accounts *server.Accounts // how people sign in; nil where whoever reaches the server may do everything

	Lines bool          // whether sites are estimated in the background, for the list of sites, search and the company's figures
	Quiet time.Duration // for which a plan has to rest before that is done anew; 0 for 15 s

	Devices Devices // how recorders and cameras are spoken with

	Sample []account.SamplePerson // the sample people of a demonstration, whose passwords everybody may know
}

// New returns the whole application over a store. Until the context ends it follows
// the changes made through other servers.
func New(ctx context.Context, s *store.Store, o Options) http.Handler {
	handler, _ := build(ctx, s, o)
	return handler
}

// build is New with what answers behind it.
func build(ctx context.Context, s *store.Store, o Options) (http.Handler, *service) {
	if o.Log == nil {
		o.Log = slog.New(slog.DiscardHandler)
	}
	if o.Beat <= 0 {
		o.Beat = 1500 * time.Millisecond
	}
	hub := server.NewHub()
	app := newService(ctx, s, hub, server.NewMeters(s, hub), o)
	ears := store.Ears{Changed: hub.Tell, Site: hub.TellSite, Present: hub.TellPresence, Missed: app.missed, Away: hub.Lost}
	if a := o.Accounts; a != nil {
		keeper, err := account.New(ctx, s, o.Log, a.Options)
		if err != nil {
			panic(err) // the settings of a pool that is open already
		}
		app.keeper = keeper
		ears.Person = keeper.Changed
		ears.Missed = func(epoch string) { keeper.Missed(); app.missed(epoch) }
		ears.Away = func() { keeper.Deaf(); hub.Lost() }
	}
	go s.Watch(ctx, o.Log, ears)
	go app.daily(ctx)
	if o.Lines {
		go app.lines(ctx, cmp.Or(o.Quiet, linesQuiet))
	}
	front := server.Settings{Log: o.Log, Hosts: o.Hosts, Accounts: o.Accounts, Keeper: app.keeper, Lasts: lasts, Meters: app.meters}
	r := server.NewRouter(front)
	register(newAPI(r), app)
	return r, app
}

// newService is what answers, with all that it remembers empty.
func newService(ctx context.Context, s *store.Store, hub *server.Hub, meters *server.Meters, o Options) *service {
	return &service{store: s, hub: hub, log: o.Log, meters: meters, beat: o.Beat,
		turns: server.NewTurns(), batches: newBatches(), slots: server.NewSlots(),
		samplePeople: o.Sample, policy: account.Decide, apart: o.Devices, life: ctx, working: make(chan struct{}, mostWork),
		cache:       plansKept(meters),
		prepared:    newPreparations(),
		verdicts:    server.NewCache[string](server.Bounds[verdictAt]{Entries: mostVerdicts}),
		comparisons: server.NewCache[comparisonOf](server.Bounds[*measured.Result]{Entries: mostComparisons}),
		rehearsals: server.NewCache[rehearsalOf](server.Bounds[*rehearse.Rehearsal]{Entries: mostRehearsals, Bytes: mostRemembered,
			Size: (*rehearse.Rehearsal).Bytes, Idle: restAfter}),
		sources: server.NewCache[sourceKey](server.Bounds[*papers.Source]{Entries: mostSources, Idle: restAfter}),
		printed: server.NewCache[printedKey](server.Bounds[handover.Document]{Entries: mostSources, Idle: restAfter}),
	}
}

// lasts tells whether a request is for a stream, which goes on until somebody leaves.
func lasts(r *http.Request) bool {
	return r.URL.Path == changesPath || strings.HasSuffix(r.URL.Path, listenSuffix)
}

// Describe returns the OpenAPI document as JSON, without a server.
func Describe() ([]byte, error) {
	api := newAPI(chi.NewRouter())
	register(api, &service{})
	data, err := api.OpenAPI().MarshalJSON()
	if err != nil {
		return nil, err
	}
	var lines bytes.Buffer
	err = json.Indent(&lines, data, "", " ")
	return lines.Bytes(), err
}

func newAPI(r chi.Router) huma.API {
	config := huma.DefaultConfig("Wakefield", Version)
	config.Info.Description = "Recording plans and how long they last."
	config.DocsPath = "" // its page would fetch scripts from outside
	config.SchemasPath = ""
	config.CreateHooks = nil // no $schema member in answers
	config.OpenAPIPath = "/api/openapi"
	config.Components.Schemas = registry()
	config.Transformers = append(config.Transformers, server.WithRequest)
	config.Formats = maps.Clone(config.Formats) // it is shared by all there are
	json := config.Formats["application/json"]
	json.Unmarshal = server.WithinBounds(json.Unmarshal)
	config.Formats["application/json"], config.Formats["json"] = json, json
	return humachi.New(r, config)
}
