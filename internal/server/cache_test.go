package server

import (
	"context"
	"fmt"
	"log/slog"
	"testing"

	"wakefield.example/internal/demo"
	"wakefield.example/internal/store"
)

// TestTheCacheCountsBytes puts more into it than it may hold.
func TestTheCacheCountsBytes(t *testing.T) {
	_, s := serving(t, nil, "", Options{})
	svc := &service{log: slog.New(slog.DiscardHandler), meters: newMeters(s, newHub())}
	svc.cache = newCache(svc.meters)
	p := demo.SaltmarshTramDepot()
	first, err := svc.estimate(t.Context(), &store.Head{ID: "0", Version: 1, Plan: p}, nil)
	if err != nil {
		t.Fatal(err)
	}
	if first.size() < 192*8000 {
		t.Errorf("192 channels are said to take %d bytes", first.size())
	}
	most := mostCached/first.size() + 20
	for i := range most {
		e := first
		e.head = &store.Head{ID: fmt.Sprint(i), Version: 1, Plan: p}
		svc.cache.put(e)
		svc.cache.put(e) // the same again is not counted twice
	}
	if svc.cache.bytes > mostCached || svc.cache.bytes < mostCached/2 || svc.cache.entries.Len() >= most {
		t.Errorf("%d bytes in %d entries of %d", svc.cache.bytes, svc.cache.entries.Len(), most)
	}
	if _, ok := svc.cache.get("0"); ok {
		t.Error("the oldest is still there")
	}
}

func TestWorkStopsWhenItsClientHasGone(t *testing.T) {
	_, s := serving(t, nil, "", Options{})
	svc := &service{log: slog.New(slog.DiscardHandler), meters: newMeters(s, newHub())}
	gone, cancel := context.WithCancel(t.Context())
	cancel()
	if _, err := svc.estimate(gone, &store.Head{Plan: demo.SaltmarshTramDepot()}, nil); err != context.Canceled {
		t.Errorf("%v", err)
	}
}
