package store

import (
	"context"
	"encoding/json"
	"errors"
	"slices"
	"sync"
	"testing"
	"time"
)

// TestWhatWasNotedOnSiteIsKeptOnce sends the same from many sides at once, and something else under an id that is taken.
func TestWhatWasNotedOnSiteIsKeptOnce(t *testing.T) {
	ctx, s := context.Background(), open(t)
	if _, err := s.Create(ctx, "b", Note{Author: "Ada", Sentence: "Site made"}, small()); err != nil {
		t.Fatal(err)
	}
	at := time.Date(2026, 11, 29, 9, 30, 0, 0, time.UTC)
	note := func(id, said string) Walked {
		return Walked{ID: id, Kind: "walk", About: "c1", Said: json.RawMessage(said), Revision: 1, NotedBy: "Fitz", Author: "Fitz",
			At: at, Clock: "monotonic"}
	}
	var wait sync.WaitGroup
	for range 4 {
		wait.Go(func() {
			others, err := s.KeepWalked(ctx, "b", "b", []Walked{note("one", `{"sign": 4.2, "walk": "off"}`), note("two", `{"walk":"off"}`)})
			if err != nil || len(others) > 0 {
				t.Error(others, err)
			}
		})
	}
	wait.Wait()
	if others, err := s.KeepWalked(ctx, "b", "b", []Walked{note("one", `{"walk":"off","sign":4.2}`)}); err != nil || len(others) > 0 {
		t.Errorf("the same in another order: %v %v", others, err)
	}
	others, err := s.KeepWalked(ctx, "b", "b", []Walked{note("one", `{"walk":"off","sign":9}`), note("three", `{}`)})
	if err != nil || !slices.Equal(others, []string{"one"}) {
		t.Errorf("%v %v", others, err)
	}
	list, err := s.WalkedOf(ctx, "b")
	if err != nil || len(list) != 3 || !list[0].At.Equal(at) || list[0].Arrived.IsZero() {
		t.Fatalf("%+v %v", list, err)
	}
	if !sameJSON(list[0].Said, json.RawMessage(`{"walk":"off","sign":4.2}`)) {
		t.Errorf("what was there was changed: %s", list[0].Said)
	}
	if _, err := s.KeepWalked(ctx, "nowhere", "b", []Walked{note("x", `{}`)}); !errors.Is(err, ErrNotFound) {
		t.Error(err)
	}
}
