// Package server offers Wakefield over HTTP: the operations of the API, declared
// once in Go and described by the OpenAPI document it serves, and the front end.
//
// The server keeps nothing that the database does not: what it remembers of plans
// and their estimates is a cache, checked against the plan's version on every
// request, so several servers can run on one database.
package server

import (
	"bytes"
	"cmp"
	"context"
	"encoding/json"
	"log/slog"
	"maps"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humachi"
	"github.com/go-chi/chi/v5"
	"github.com/go-chi/chi/v5/middleware"

	"wakefield.example/internal/account"
	"wakefield.example/internal/store"
	"wakefield.example/web"
)

// Version is the version of the API.
const Version = "1"

// Options are how a server is run. The zero value works.
type Options struct {
	Log   *slog.Logger  // where it writes what happens; nil for nowhere
	Hosts []string      // names it is reached by beside those of loopback
	Beat  time.Duration // how often a stream of changes shows that it lives; 0 for 1.5 s

	Accounts *Accounts // how people sign in; nil where whoever reaches the server may do everything

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
	hub := newHub()
	meters := newMeters(s, hub)
	r := chi.NewRouter()
	app := &service{store: s, cache: newCache(meters), hub: hub, log: o.Log, meters: meters, beat: o.Beat, turns: newTurns(),
		batches: newBatches(), heavy: newSlots(), comparisons: newComparisons(), samplePeople: o.Sample,
		policy: account.Decide, apart: o.Devices, life: ctx, working: make(chan struct{}, mostWork)}
	ears := store.Ears{Changed: hub.tell, Site: hub.tellSite, Present: hub.tellPresence, Missed: app.missed, Away: hub.lost}
	r.Use(identified, meters.measured, logged(o.Log), recovered(o.Log), secured(o.Accounts), knownHosts(o.Hosts), door,
		http.NewCrossOriginProtection().Handler, reads(), finished, middleware.Compress(1), limited, newGate().bodies, bound)
	metrics := meters.handler()
	if a := o.Accounts; a != nil {
		keeper, err := account.New(ctx, s, o.Log, a.Options)
		if err != nil {
			panic(err) // the settings of a pool that is open already
		}
		app.keeper = keeper
		ears.Person = keeper.Changed
		ears.Missed = func(epoch string) { keeper.Missed(); app.missed(epoch) }
		ears.Away = func() { keeper.Deaf(); hub.lost() }
		r.Use(visited(a.Proxies), signedIn(keeper))
		metrics = fromHere(a.Proxies, metrics)
	}
	go s.Watch(ctx, o.Log, ears)
	go app.daily(ctx)
	if o.Lines {
		go app.lines(ctx, cmp.Or(o.Quiet, linesQuiet))
	}
	register(newAPI(r), app)
	r.Method(http.MethodGet, "/metrics", metrics)
	r.NotFound(web.Handler().ServeHTTP)
	return r, app
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
	config.Transformers = append(config.Transformers, withRequest)
	config.Formats = maps.Clone(config.Formats) // it is shared by all there are
	json := config.Formats["application/json"]
	json.Unmarshal = withinBounds(json.Unmarshal)
	config.Formats["application/json"], config.Formats["json"] = json, json
	return humachi.New(r, config)
}

// HTTP returns a server with time limits for a handler.
func HTTP(handler http.Handler) *http.Server {
	return &http.Server{
		Handler:           handler,
		ReadHeaderTimeout: 5 * time.Second,
		ReadTimeout:       30 * time.Second,
		WriteTimeout:      60 * time.Second,
		IdleTimeout:       2 * time.Minute,
		MaxHeaderBytes:    64 << 10,
	}
}
