package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"testing"
)

// TestWhatWasFoundIsKeptAndTakenAway keeps as much as a site may, and no more.
func TestWhatWasFoundIsKeptAndTakenAway(t *testing.T) {
	ctx, s := context.Background(), open(t)
	if _, err := s.Create(ctx, "b", Note{Author: "Ada", Sentence: "Site made"}, small()); err != nil {
		t.Fatal(err)
	}
	one := func(id string) Brought {
		return Brought{ID: id, Kind: "rates", Name: "a.csv", Said: json.RawMessage(`{"rates": []}`), Author: "Ada"}
	}
	for k := range MostBrought {
		if err := s.Bring(ctx, "b", one(fmt.Sprint(k))); err != nil {
			t.Fatal(err)
		}
	}
	if err := s.Bring(ctx, "b", one("more")); !errors.Is(err, ErrManyBrought) {
		t.Error(err)
	}
	if err := s.Bring(ctx, "nowhere", one("x")); !errors.Is(err, ErrNotFound) {
		t.Error(err)
	}
	if err := s.SetCompared(ctx, "b", json.RawMessage(`{"figures": []}`)); err != nil {
		t.Fatal(err)
	}
	for k := range MostBrought {
		if err := s.TakeAway(ctx, "b", fmt.Sprint(k)); err != nil {
			t.Fatal(err)
		}
	}
	if err := s.TakeAway(ctx, "b", "0"); !errors.Is(err, ErrNotFound) {
		t.Error(err)
	}
	if list, err := s.ComparedOf(ctx); err != nil || len(list) != 0 {
		t.Errorf("a comparison of nothing stays: %v %v", list, err)
	}
	if err := s.SetCompared(ctx, "gone", json.RawMessage(`{}`)); err != nil {
		t.Error(err)
	}
	for _, learns := range []bool{true, false} {
		if err := s.SetLearns(ctx, learns); err != nil {
			t.Fatal(err)
		}
		if is, err := s.Learns(ctx); err != nil || is != learns {
			t.Errorf("%v, %v", is, err)
		}
	}
}
