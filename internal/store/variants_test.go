package store

import (
	"context"
	"errors"
	"fmt"
	"testing"

	"wakefield.example/core/plan"
)

// TestVariantsOfASite makes as many as a site may have, takes one away for another, and keeps the adopted one.
func TestVariantsOfASite(t *testing.T) {
	ctx, s := context.Background(), open(t)
	if _, err := s.Create(ctx, "b", Note{Author: "Ada", Sentence: "Site made"}, small()); err != nil {
		t.Fatal(err)
	}
	add := func(id, request string) error {
		_, err := s.AddPlan(ctx, "b", id, Note{Author: "Ada", Sentence: "Variant made", Request: Request{Key: request, What: "w"}}, small())
		return err
	}
	for n := 1; n < MostVariants; n++ {
		if err := add(fmt.Sprint("v", n), fmt.Sprint("key", n)); err != nil {
			t.Fatal(err)
		}
	}
	if err := add("more", ""); !errors.Is(err, ErrManyVariants) {
		t.Errorf("one more: %v", err)
	}
	if err := add("again", "key3"); err != nil { // it was made before
		t.Errorf("asked again: %v", err)
	}
	site, err := s.Site(ctx, "b")
	if err != nil || len(site.Plans) != MostVariants || site.Adopted != "b" {
		t.Fatalf("%d plans, %v", len(site.Plans), err)
	}
	for _, step := range []struct {
		what string
		err  error
		want error
	}{
		{"the adopted one away", s.RemovePlan(ctx, "b", "b", true), ErrAdopted},
		{"another away", s.RemovePlan(ctx, "b", "v1", true), nil},
		{"twice", s.RemovePlan(ctx, "b", "v1", true), nil},
		{"adopt what is away", s.Adopt(ctx, "b", "v1"), ErrRemoved},
		{"room again", add("more", ""), nil},
		{"of no site", s.RemovePlan(ctx, "nowhere", "v1", true), ErrNotFound},
		{"no such plan", s.Adopt(ctx, "b", "nothing"), ErrNotFound},
		{"adopt", s.Adopt(ctx, "b", "v2"), nil},
		{"the first one away", s.RemovePlan(ctx, "b", "b", true), nil},
		{"of a site that is none", func() error { _, err := s.AddPlan(ctx, "nowhere", "x", Note{}, small()); return err }(), ErrNotFound},
	} {
		if !errors.Is(step.err, step.want) {
			t.Errorf("%s: %v, want %v", step.what, step.err, step.want)
		}
	}
}

// TestARemovedPlanTakesNoChanges edits, undoes and edits at once with others a plan that was removed.
func TestARemovedPlanTakesNoChanges(t *testing.T) {
	s, ctx := open(t), context.Background()
	if _, err := s.Create(ctx, "a", Note{Author: "Ada", Sentence: "Made"}, small()); err != nil {
		t.Fatal(err)
	}
	head, err := s.AddPlan(ctx, "a", "b", Note{Author: "Ada", Sentence: "Made"}, small())
	if err != nil {
		t.Fatal(err)
	}
	change, err := s.Save(ctx, head, Note{Author: "Ada", Sentence: "Renamed"}, rename(head, "One"))
	if err != nil {
		t.Fatal(err)
	}
	head = change.Head
	if err := s.RemovePlan(ctx, "a", "b", true); err != nil {
		t.Fatal(err)
	}
	next := rename(head, "Two")
	_, save := s.Save(ctx, head, Note{Author: "Ada", Sentence: "Renamed"}, next)
	_, all := s.SaveAll(ctx, head, []Note{{Author: "Ada"}, {Author: "Odile"}}, []*plan.Plan{next, rename(head, "Three")})
	_, step := s.Step(ctx, head, Note{Author: "Ada"}, Undo)
	for i, err := range []error{save, all, step} {
		if !errors.Is(err, ErrRemoved) {
			t.Errorf("way %d: %v", i, err)
		}
	}
	if err := s.RemovePlan(ctx, "a", "b", false); err != nil {
		t.Fatal(err)
	}
	if _, err := s.Save(ctx, head, Note{Author: "Ada", Sentence: "Renamed"}, next); err != nil {
		t.Error(err)
	}
}
