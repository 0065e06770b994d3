// Package server is what every request to Wakefield goes through, whatever it asks: who may come by which name, how much
// may come in and be worked on at once and how long it may take, what is written down and counted, how problems are told,
// and what of changes is passed on to the pages that wait for them. What is asked and answered is the business of others.
package server

import (
	"log/slog"
	"net/http"
	"time"

	"github.com/go-chi/chi/v5"
	"github.com/go-chi/chi/v5/middleware"

	"wakefield.example/internal/account"
	"wakefield.example/web"
)

// Settings are how requests are received.
type Settings struct {
	Log      *slog.Logger
	Hosts    []string                 // names that the server goes by beside those of loopback
	Accounts *Accounts                // how people sign in; nil where nobody does
	Keeper   *account.Keeper          // who knows them; nil where nobody signs in
	Lasts    func(*http.Request) bool // whether a request lasts by its nature, such as one for a stream
	Meters   *Meters
}

// NewRouter returns a router with all that every request goes through, the meters and, where nothing else answers, the pages.
// Operations are added to it.
func NewRouter(o Settings) chi.Router {
	r := chi.NewRouter()
	r.Use(identified, o.Meters.measured, logged(o.Log), recovered(o.Log), secured(o.Accounts), hostsAllowed(o.Hosts), door,
		http.NewCrossOriginProtection().Handler, reads(o.Lasts), finished, middleware.Compress(1), limited(o.Lasts), newGate().bodies, bound)
	if o.Keeper != nil {
		r.Use(Visited(o.Accounts.Proxies), signedIn(o.Keeper))
	}
	metrics := o.Meters.handler()
	if o.Accounts != nil {
		metrics = fromHere(o.Accounts.Proxies, metrics)
	}
	r.Method(http.MethodGet, "/metrics", metrics)
	r.NotFound(web.Handler().ServeHTTP)
	return r
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
