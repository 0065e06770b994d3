// Package server offers Wakefield over HTTP: the operations of the API, declared
// once in Go and described by the OpenAPI document it serves, and the front end.
//
// The server keeps nothing that the database does not: what it remembers of plans
// and their estimates is a cache, checked against the plan's version on every
// request, so several servers can run on one database.
package server

import (
	"context"
	"log/slog"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humachi"
	"github.com/go-chi/chi/v5"
	"github.com/go-chi/chi/v5/middleware"

	"wakefield/internal/store"
	"wakefield/web"
)

// Version is the version of the API.
const Version = "1"

// New returns the whole application over a store. Until the context ends it follows
// the changes made through other servers.
func New(ctx context.Context, s *store.Store, log *slog.Logger) http.Handler {
	r := chi.NewRouter()
	r.Use(middleware.RequestID, logged(log), recovered(log), secured, http.NewCrossOriginProtection().Handler,
		middleware.Compress(5), unhurried(middleware.Timeout(30*time.Second)))
	hub := newHub()
	go s.Watch(ctx, hub.tell, hub.hangUp)
	register(newAPI(r), &service{store: s, cache: newCache(), hub: hub})
	r.NotFound(web.Handler().ServeHTTP)
	return r
}

// Describe returns the OpenAPI document as JSON, without a server.
func Describe() ([]byte, error) {
	api := newAPI(chi.NewRouter())
	register(api, &service{})
	return api.OpenAPI().MarshalJSON()
}

func newAPI(r chi.Router) huma.API {
	config := huma.DefaultConfig("Wakefield", Version)
	config.Info.Description = "Recording plans and how long they last."
	config.DocsPath = "" // its page would fetch scripts from outside
	config.SchemasPath = ""
	config.CreateHooks = nil // no $schema member in answers
	config.OpenAPIPath = "/api/openapi"
	config.Components.Schemas = registry()
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
