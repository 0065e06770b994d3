package store

import (
	"context"
	"errors"
	"sync"
	"testing"
)

// TestTicksAreKeptOnce ticks a step from two sides at once, and takes it back; they go with the plan.
func TestTicksAreKeptOnce(t *testing.T) {
	ctx, s := context.Background(), open(t)
	if _, err := s.Create(ctx, "b", Note{Author: "Ada", Sentence: "Site made"}, small()); err != nil {
		t.Fatal(err)
	}
	tick := Tick{Recorder: "r", Key: "k", Subject: "s", Step: "6.3", Words: "w", Revision: 1, Author: "Ada"}
	var wait sync.WaitGroup
	for _, author := range []string{"Ada", "Bo", "Cy"} {
		wait.Go(func() {
			mine := tick
			mine.Author = author
			if err := s.SetTicks(ctx, "b", "b", []Tick{mine}, nil); err != nil {
				t.Error(err)
			}
		})
	}
	wait.Wait()
	list, err := s.Ticks(ctx, "b")
	if err != nil || len(list) != 1 || list[0].Key != "k" || list[0].At.IsZero() {
		t.Fatalf("%+v %v", list, err)
	}
	if err := s.Print(ctx, "b", "b", []string{"r", "q"}, 3, "Ada"); err != nil {
		t.Fatal(err)
	}
	if err := s.Print(ctx, "b", "b", []string{"r"}, 4, "Bo"); err != nil {
		t.Fatal(err)
	}
	printed, err := s.PrintedOf(ctx, "b")
	if err != nil || len(printed) != 2 || printed["r"].Revision != 4 || printed["r"].Author != "Bo" || printed["q"].Revision != 3 {
		t.Errorf("%+v %v", printed, err)
	}
	if err := s.SetTicks(ctx, "b", "b", nil, []Tick{tick}); err != nil {
		t.Fatal(err)
	}
	if list, err = s.Ticks(ctx, "b"); err != nil || len(list) != 0 {
		t.Errorf("%+v %v", list, err)
	}
	if err := s.SetTicks(ctx, "nowhere", "b", []Tick{tick}, nil); !errors.Is(err, ErrNotFound) {
		t.Errorf("%v", err)
	}
}

// TestOneCompany keeps its name and logo apart.
func TestOneCompany(t *testing.T) {
	ctx, s := context.Background(), open(t)
	for _, step := range []error{s.NameCompany(ctx, "Lantern"), s.SetLogo(ctx, []byte{1, 2}), s.NameCompany(ctx, "Lantern & Sons")} {
		if step != nil {
			t.Fatal(step)
		}
	}
	if c, err := s.Company(ctx); err != nil || c.Name != "Lantern & Sons" || len(c.Logo) != 2 {
		t.Errorf("%+v %v", c, err)
	}
	if err := s.SetLogo(ctx, nil); err != nil {
		t.Fatal(err)
	}
	if c, err := s.Company(ctx); err != nil || c.Logo != nil || c.Name != "Lantern & Sons" {
		t.Errorf("%+v %v", c, err)
	}
}
