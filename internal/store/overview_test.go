package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"sync"
	"testing"
	"time"

	"wakefield.example/core/edit"
)

// made is a line that says a number.
func lineOf(d DueLine, method string, days int) Made {
	return Made{DueLine: d, Method: method, Said: json.RawMessage(fmt.Sprint(days)), Found: json.RawMessage(`[]`),
		Words: json.RawMessage(`[]`), Lower: "pier " + d.Site}
}

func always(json.RawMessage) bool { return true }

// TestLinesAreMadeOnce lets three servers make the lines of many sites at once: each is made by one.
func TestLinesAreMadeOnce(t *testing.T) {
	s, ctx := open(t), context.Background()
	for i := range 20 {
		if _, err := s.Create(ctx, fmt.Sprint("site-", i), Note{Author: "Test"}, small()); err != nil {
			t.Fatal(err)
		}
	}
	var mutex sync.Mutex
	var got []string
	var group sync.WaitGroup
	for range 3 {
		group.Go(func() {
			for {
				due, err := s.DueLines(ctx, "m1", Pace{Most: 3, Hold: time.Minute})
				if err != nil {
					t.Error(err)
				}
				if len(due) == 0 {
					return
				}
				for _, d := range due {
					if err := s.MakeLine(ctx, lineOf(d, "m1", 30), always); err != nil {
						t.Error(err)
					}
					mutex.Lock()
					got = append(got, d.Site)
					mutex.Unlock()
				}
			}
		})
	}
	group.Wait()
	slices.Sort(got)
	if len(got) != 20 || len(slices.Compact(got)) != 20 {
		t.Errorf("%d were made: %v", len(got), got)
	}
	if p, err := s.LinesMade(ctx, "m1"); err != nil || p.Done != 20 || p.Total != 20 || len(p.Moved) != 0 {
		t.Errorf("%+v, %v", p, err)
	}
}

// TestALineIsOfAVersionAndAMethod is due again after a change, shown no more until it is made, and remembers what a method moved.
func TestALineIsOfAVersionAndAMethod(t *testing.T) {
	s, ctx := open(t), context.Background()
	if _, err := s.Create(ctx, "site", Note{Author: "Test"}, small()); err != nil {
		t.Fatal(err)
	}
	due := func(method string) DueLine {
		t.Helper()
		list, err := s.DueLines(ctx, method, Pace{Most: 5, Hold: time.Minute})
		if err != nil || len(list) != 1 || list[0].Company != "own" {
			t.Fatalf("%+v, %v", list, err)
		}
		return list[0]
	}
	said := func() string {
		t.Helper()
		list, err := s.List(ctx)
		if err != nil || len(list) != 1 || list[0].Name == "" || list[0].Channels == 0 {
			t.Fatalf("%+v, %v", list, err)
		}
		return string(list[0].Said)
	}
	first := due("m1")
	if again, err := s.DueLines(ctx, "m1", Pace{Most: 5, Hold: time.Minute}); err != nil || len(again) != 0 {
		t.Fatalf("%+v is made twice at once, %v", again, err)
	}
	if err := s.MakeLine(ctx, lineOf(first, "m1", 30), always); err != nil || said() != "30" {
		t.Fatal(said(), err)
	}
	name := "Other"
	head, err := s.Load(ctx, "site")
	if err != nil {
		t.Fatal(err)
	}
	next, err := edit.After(head.Plan, edit.Edit{SetSite: &edit.SetSite{Name: &name}})
	if err != nil {
		t.Fatal(err)
	}
	if _, err := s.Save(ctx, head, Note{Author: "Test"}, next); err != nil {
		t.Fatal(err)
	}
	if list, err := s.List(ctx); err != nil || list[0].SaidVersion != 1 || list[0].Version != 2 {
		t.Errorf("the line of another version is shown as of this one: %+v, %v", list, err)
	}
	if list, err := s.DueLines(ctx, "m1", Pace{Most: 5, Hold: time.Minute, Quiet: time.Hour, Least: time.Hour}); err != nil || len(list) > 0 {
		t.Errorf("%+v is made while it is worked on, %v", list, err)
	}
	if err := s.MakeLine(ctx, lineOf(due("m1"), "m1", 31), always); err != nil || said() != "31" {
		t.Error(said(), err)
	}
	if p, err := s.LinesMade(ctx, "m2"); err != nil || p.Done != 0 || p.Total != 1 || said() != "31" {
		t.Errorf("%+v, %v", p, err)
	}
	if err := s.MakeLine(ctx, lineOf(due("m2"), "m2", 25), always); err != nil {
		t.Error(err)
	}
	p, err := s.LinesMade(ctx, "m2")
	if err != nil || p.Done != 1 || len(p.Moved) != 1 || string(p.Moved[0].Was) != "31" || string(p.Moved[0].Now) != "25" ||
		p.Moved[0].Name != "Other" {
		t.Errorf("%+v, %v", p, err)
	}
	if all, err := s.FoundAtAll(ctx); err != nil || len(all) != 1 || string(all[0].Said) != "25" {
		t.Errorf("%+v, %v", all, err)
	}
	found, err := s.Search(ctx, []string{"pier", "site"})
	if err != nil || len(found) != 1 || found[0].Name != "Other" {
		t.Errorf("%+v, %v", found, err)
	}
	if found, err := s.Search(ctx, []string{"pier", "mill"}); err != nil || len(found) != 0 {
		t.Errorf("%+v, %v", found, err)
	}
}

// TestSitesAreMarkedTogether tags, places and archives several, all or none.
func TestSitesAreMarkedTogether(t *testing.T) {
	s, ctx := two(t), Of(context.Background(), "own")
	if _, err := s.Create(ctx, "more", Note{Author: "Test"}, small()); err != nil {
		t.Fatal(err)
	}
	place, handed, yes := "Pier 4", Handed, true
	if err := s.Mark(ctx, []string{"site-own", "more"}, Marks{Stage: &handed, Place: &place,
		Tag: []string{"north", "2027", "north"}}); err != nil {
		t.Fatal(err)
	}
	if err := s.Mark(ctx, []string{"more"}, Marks{Untag: []string{"2027"}, Archived: &yes}); err != nil {
		t.Fatal(err)
	}
	if err := s.Mark(ctx, []string{"more", "site-other"}, Marks{Tag: []string{"x"}}); !errors.Is(err, ErrNotFound) {
		t.Errorf("%v", err)
	}
	list, err := s.List(ctx)
	if err != nil || len(list) != 2 {
		t.Fatalf("%+v, %v", list, err)
	}
	for _, l := range list {
		want := []string{"2027", "north"}
		if l.ID == "more" {
			want = want[1:]
		}
		if l.Stage != Handed || l.Place != place || !slices.Equal(l.Tags, want) || l.Archived != (l.ID == "more") {
			t.Errorf("%+v", l)
		}
	}
	var many []string
	for i := range MostTags + 1 {
		many = append(many, fmt.Sprint(i))
	}
	if err := s.Mark(ctx, []string{"more"}, Marks{Tag: many}); !errors.Is(err, ErrTags) {
		t.Errorf("%v", err)
	}
}

// TestSearchesAreSomebodys are kept by name, for one person, and not without end.
func TestSearchesAreSomebodys(t *testing.T) {
	s, ctx := two(t), Of(context.Background(), "own")
	for _, said := range []string{`{"a": 1}`, `{"a": 2}`} {
		if err := s.KeepSearch(ctx, "person-own", KeptSearch{"North", json.RawMessage(said)}); err != nil {
			t.Fatal(err)
		}
	}
	list, err := s.Searches(ctx, "person-own")
	if err != nil || len(list) != 1 || string(list[0].Said) != `{"a": 2}` {
		t.Errorf("%+v, %v", list, err)
	}
	if list, err := s.Searches(Of(ctx, "other"), "person-own"); err != nil || len(list) != 0 {
		t.Errorf("%+v, %v", list, err)
	}
	for i := range MostSearches {
		err = s.KeepSearch(ctx, "person-own", KeptSearch{fmt.Sprint(i), json.RawMessage(`{}`)})
	}
	if !errors.Is(err, ErrSearches) {
		t.Errorf("%v", err)
	}
	for range 2 {
		if err := s.ForgetSearch(ctx, "person-own", "North"); err != nil {
			t.Error(err)
		}
	}
	if list, err := s.Searches(ctx, "person-own"); err != nil ||
		slices.ContainsFunc(list, func(k KeptSearch) bool { return k.Name == "North" }) {
		t.Errorf("%+v, %v", list, err)
	}
}
