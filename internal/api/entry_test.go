package api

import (
	"context"
	"log/slog"
	"testing"

	"wakefield.example/internal/demo"
	"wakefield.example/internal/server"
	"wakefield.example/internal/store"
)

func TestWhatAnEntryTakesIsAboutKnown(t *testing.T) {
	_, s := serving(t, nil, "", Options{})
	hub := server.NewHub()
	app := newService(t.Context(), s, hub, server.NewMeters(s, hub), Options{Log: slog.New(slog.DiscardHandler)})
	first, err := app.estimate(t.Context(), &store.Head{ID: "0", Version: 2, Plan: demo.SaltmarshTramDepot()}, nil)
	if err != nil {
		t.Fatal(err)
	}
	if first.size() < 192*8000 {
		t.Errorf("192 channels are said to take %d bytes", first.size())
	}
	app.keep(first)
	before := first
	before.head = &store.Head{ID: "0", Version: 1, Plan: first.head.Plan}
	app.keep(before)
	if e, ok := app.cache.Get("0"); !ok || e.head.Version != 2 {
		t.Error("an earlier version came in place of a later one")
	}
}

func TestWorkStopsWhenItsClientHasGone(t *testing.T) {
	_, s := serving(t, nil, "", Options{})
	hub := server.NewHub()
	app := newService(t.Context(), s, hub, server.NewMeters(s, hub), Options{Log: slog.New(slog.DiscardHandler)})
	gone, cancel := context.WithCancel(t.Context())
	cancel()
	if _, err := app.estimate(gone, &store.Head{Plan: demo.SaltmarshTramDepot()}, nil); err != context.Canceled {
		t.Errorf("%v", err)
	}
}
