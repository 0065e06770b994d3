package server

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
	"wakefield.example/internal/store"
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
	app := newService(ctx, s, hub, newMeters(s, hub), o)
	front := Settings{Log: o.Log, Hosts: o.Hosts, Accounts: o.Accounts, Lasts: lasts, Meters: app.meters}
	r := NewRouter(front)
	ears := store.Ears{Changed: hub.tell, Site: hub.tellSite, Present: hub.tellPresence, Missed: app.missed, Away: hub.lost}
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
	}
	go s.Watch(ctx, o.Log, ears)
	go app.daily(ctx)
	if o.Lines {
		go app.lines(ctx, cmp.Or(o.Quiet, linesQuiet))
	}
	register(newAPI(r), app)
	AddFrontEnd(r, front)
	return r, app
}

// newService is what answers, with all that it remembers empty.
func newService(ctx context.Context, s *store.Store, hub *hub, meters *meters, o Options) *service {
	return &service{store: s, hub: hub, log: o.Log, meters: meters, beat: o.Beat, turns: newTurns(), batches: newBatches(), heavy: newSlots(),
		samplePeople: o.Sample, policy: account.Decide, apart: o.Devices, life: ctx, working: make(chan struct{}, mostWork),
		cache:       plansKept(meters),
		prepared:    newPreparations(),
		verdicts:    NewCache[string](Bounds[knownVerdict]{Entries: mostVerdicts}),
		comparisons: NewCache[comparisonOf](Bounds[*measured.Result]{Entries: mostComparisons}),
		rehearsals: NewCache[rehearsalOf](Bounds[*rehearse.Rehearsal]{Entries: mostRehearsals, Bytes: mostRemembered,
			Size: (*rehearse.Rehearsal).Bytes, Idle: restAfter}),
		sources: NewCache[sourceKey](Bounds[*papers.Source]{Entries: mostSources, Idle: restAfter}),
		printed: NewCache[printedKey](Bounds[handover.Document]{Entries: mostSources, Idle: restAfter}),
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
	config.Transformers = append(config.Transformers, withRequest)
	config.Formats = maps.Clone(config.Formats) // it is shared by all there are
	json := config.Formats["application/json"]
	json.Unmarshal = withinBounds(json.Unmarshal)
	config.Formats["application/json"], config.Formats["json"] = json, json
	return humachi.New(r, config)
}
