package store

import (
	"context"
	"encoding/json"
	"errors"
	"os"
	"reflect"
	"sync"
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/internal/localpg"
	"wakefield.example/internal/localpg/pgtest"
)

var cluster *localpg.Cluster

func TestMain(m *testing.M) {
	os.Exit(pgtest.Run(m, &cluster))
}

func open(t testing.TB) *Store {
	t.Helper()
	url := pgtest.Copy(t, cluster, t.Name(), func(url string) error {
		s, err := Open(context.Background(), url)
		if err == nil {
			s.Close()
		}
		return err
	})
	s, err := Open(context.Background(), url)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(s.Close)
	return s
}

func small() *plan.Plan {
	return &plan.Plan{
		Format: plan.Format, Name: "As surveyed", Site: plan.Site{Name: "Brackenhall", TimeZone: "UTC"},
		Duties: []plan.Duty{{ID: "on", Name: "Round the clock", Base: &plan.Base{Stream: "main"}}, {ID: "off", Name: "Off"}},
		Recorders: []plan.Recorder{{ID: "r", Name: "R", Channels: 4, IngestMbps: 40,
			Pools: []plan.Pool{{ID: "p", Name: "P", Layout: "span", Drives: []plan.DriveGroup{{Count: 1, Terabytes: 2}}}}}},
		Channels: []plan.Channel{{ID: "c", Number: 1, Name: "Press", Recorder: "r", Pool: "p", NoCamera: true,
			Week: plan.WeekRef{Own: &plan.OwnWeek{Otherwise: "on"}}}},
	}
}

// rename returns the head's plan under another name.
func rename(h *Head, name string) *plan.Plan {
	next := *h.Plan
	next.Name = name
	return &next
}

func TestUndoAndRedoWalkTheHistory(t *testing.T) {
	ctx, s := context.Background(), open(t)
	h, err := s.Create(ctx, "b", Note{Author: "Ada", Sentence: "Site made"}, small())
	if err != nil {
		t.Fatal(err)
	}
	step := func(what string, name string) {
		t.Helper()
		var c *Change
		var err error
		switch what {
		case "undo":
			c, err = s.Step(ctx, h, Note{Author: "Ada"}, Undo)
		case "redo":
			c, err = s.Step(ctx, h, Note{Author: "Ada"}, Redo)
		default:
			c, err = s.Save(ctx, h, Note{Author: "Ada", Sentence: "Name: " + what}, rename(h, what))
		}
		if name == "" {
			if !errors.Is(err, ErrNothing) {
				t.Fatalf("%s: %v, want nothing to do", what, err)
			}
			return
		}
		if err != nil {
			t.Fatalf("%s: %v", what, err)
		}
		reloaded, err := s.Load(ctx, "b")
		if err != nil {
			t.Fatal(err)
		}
		if c.Head.Plan.Name != name || reloaded.Plan.Name != name {
			t.Fatalf("after %s the plan is called %s and stored as %s, want %s", what, c.Head.Plan.Name, reloaded.Plan.Name, name)
		}
		if c.Head.Version != h.Version+1 || c.Head.Undo != reloaded.Undo || c.Head.Redo != reloaded.Redo || c.Head.Version != reloaded.Version {
			t.Fatalf("after %s the head is %+v, stored %+v", what, c.Head, reloaded)
		}
		h = reloaded
	}
	step("undo", "")
	step("one", "one")
	step("two", "two")
	step("three", "three")
	step("undo", "two")
	step("undo", "one")
	step("redo", "two")
	step("undo", "one")
	step("redo", "two")
	step("redo", "three")
	step("redo", "")
	step("undo", "two")
	step("undo", "one")
	step("four", "four") // what was undone cannot be redone now
	step("redo", "")
	step("undo", "one")
	step("redo", "four")
	step("undo", "one")
	step("undo", "As surveyed")
	step("undo", "")
	if h.Undo != "" || h.Redo != "Name: one" {
		t.Errorf("undo would be %q, redo %q", h.Undo, h.Redo)
	}
	for number, name := range map[int64]string{1: "As surveyed", 3: "two", 4: "three", 6: "one", 11: "two", h.Version: "As surveyed"} {
		if then, err := s.At(ctx, h, number); err != nil || then.Name != name {
			t.Errorf("at revision %d it was called %v, want %s; %v", number, then, name, err)
		}
	}
	if _, err := s.At(ctx, h, h.Version+1); !errors.Is(err, ErrNoRevision) {
		t.Errorf("a revision to come: %v", err)
	}
	history, err := s.History(ctx, "b", 0, 3, Search{})
	if err != nil || len(history) != 3 || history[0].Number != h.Version || history[0].Kind != "undo" || history[0].Sentence != "Name: one" ||
		history[0].Author != "Ada" {
		t.Errorf("history %+v, %v", history, err)
	}
	if first, err := s.History(ctx, "b", 1, 50, Search{}); err != nil || len(first) != 0 {
		t.Errorf("before the first revision %+v, %v", first, err)
	}
	if first, err := s.History(ctx, "b", 2, 50, Search{}); err != nil || len(first) != 1 || first[0].Number != 1 {
		t.Errorf("before the second revision %+v, %v", first, err)
	}
	for search, want := range map[Search]int{{Author: "aDA"}: int(h.Version), {Author: "bo"}: 0, {Text: "NAME: THREE"}: 4, {Text: "%"}: 0,
		{Author: "Ada", Text: "site made"}: 1} {
		found, err := s.History(ctx, "b", 0, 50, search)
		if err != nil || len(found) != want {
			t.Errorf("%+v: %d revisions, %v", search, len(found), err)
		}
	}
}

func TestStaleChangeIsRefusedWithWhatChanged(t *testing.T) {
	ctx, s := context.Background(), open(t)
	h, err := s.Create(ctx, "b", Note{Author: "Ada", Sentence: "Site made"}, small())
	if err != nil {
		t.Fatal(err)
	}
	if _, err := s.Save(ctx, h, Note{Author: "Bo", Sentence: "Name: first"}, rename(h, "first")); err != nil {
		t.Fatal(err)
	}
	_, err = s.Save(ctx, h, Note{Author: "Ada", Sentence: "Name: second"}, rename(h, "second"))
	var stale *StaleError
	if !errors.As(err, &stale) || stale.Version != 2 || len(stale.Since) != 1 || stale.Since[0].Sentence != "Name: first" ||
		stale.Since[0].Author != "Bo" {
		t.Fatalf("%v, %+v", err, stale)
	}
	if _, err := s.Step(ctx, h, Note{Author: "Ada"}, Undo); !errors.As(err, &stale) {
		t.Errorf("undo on an old version: %v", err)
	}
	now, _ := s.Load(ctx, "b")
	if now.Plan.Name != "first" || now.Version != 2 {
		t.Errorf("the stale change was stored: %+v", now)
	}
}

// TestWhatIsNotReadyIsNotKept: a change whose answer cannot be worked out leaves the plan, its history and its key as they were.
func TestWhatIsNotReadyIsNotKept(t *testing.T) {
	ctx, s := context.Background(), open(t)
	h, err := s.Create(ctx, "b", Note{Author: "Ada", Sentence: "Site made"}, small())
	if err != nil {
		t.Fatal(err)
	}
	note := Note{Author: "Ada", Sentence: "Name: x", Request: Request{Key: "once", What: "edit"}}
	not := errors.New("not ready")
	asked := 0
	if _, err := s.SavePrepared(ctx, Prepare(h, rename(h, "x")), note, func() error { asked++; return not }); err != not || asked != 1 {
		t.Fatalf("%v, asked %d times", err, asked)
	}
	now, err := s.Load(ctx, "b")
	if err != nil || now.Version != 1 || now.Plan.Name == "x" {
		t.Fatalf("%v, %+v", err, now)
	}
	if list, err := s.History(ctx, "b", 0, 10, Search{}); err != nil || len(list) != 1 {
		t.Errorf("%v, %+v", err, list)
	}
	if c, err := s.Save(ctx, now, note, rename(now, "x")); err != nil || c.Head.Version != 2 {
		t.Errorf("later, with the same key: %v", err)
	}
}

func TestOneOfManyAtOnceWins(t *testing.T) {
	ctx, s := context.Background(), open(t)
	h, err := s.Create(ctx, "b", Note{Author: "Ada", Sentence: "Site made"}, small())
	if err != nil {
		t.Fatal(err)
	}
	var won, stale int
	var mutex sync.Mutex
	var group sync.WaitGroup
	for range 8 {
		group.Go(func() {
			_, err := s.Save(ctx, h, Note{Author: "Ada", Sentence: "Name"}, rename(h, "x"))
			mutex.Lock()
			defer mutex.Unlock()
			var e *StaleError
			switch {
			case err == nil:
				won++
			case errors.As(err, &e):
				stale++
			default:
				t.Error(err)
			}
		})
	}
	group.Wait()
	if won != 1 || stale != 7 {
		t.Errorf("%d won and %d were stale", won, stale)
	}
}

func TestPatchesLeadThereAndBack(t *testing.T) {
	a, b := small(), small()
	b.Channels[0].Week = plan.WeekRef{Own: &plan.OwnWeek{Otherwise: "off"}}
	b.Channels = append(b.Channels, plan.Channel{ID: "d", Number: 2, Name: "Cellar", Recorder: "r", Pool: "p", NoCamera: true,
		Week: plan.WeekRef{Own: &plan.OwnWeek{Otherwise: "on"}}})
	forward, backward, err := patches(a, b)
	if err != nil {
		t.Fatal(err)
	}
	there, err := patched(a, forward)
	if err != nil || !same(there, b) {
		t.Errorf("forward: %v", err)
	}
	back, err := patched(b, backward)
	if err != nil || !same(back, a) {
		t.Errorf("back: %v", err)
	}
	if same(a, b) {
		t.Error("the plans do not differ")
	}
}

func same(a, b *plan.Plan) bool {
	x, _ := json.Marshal(a)
	y, _ := json.Marshal(b)
	return reflect.DeepEqual(x, y)
}

func TestList(t *testing.T) {
	ctx, s := context.Background(), open(t)
	if list, err := s.List(ctx); err != nil || len(list) != 0 {
		t.Fatalf("%v, %v", list, err)
	}
	if _, err := s.Create(ctx, "b", Note{Author: "Ada", Sentence: "Site made"}, small()); err != nil {
		t.Fatal(err)
	}
	if _, err := s.Create(ctx, "b", Note{Author: "Ada", Sentence: "Site made"}, small()); err == nil {
		t.Error("two plans of one id")
	}
	list, err := s.List(ctx)
	if err != nil || len(list) != 1 || list[0].Name != "Brackenhall" || list[0].Channels != 1 {
		t.Fatalf("%+v, %v", list, err)
	}
	if _, err := s.Load(ctx, "nowhere"); !errors.Is(err, ErrNotFound) {
		t.Errorf("%v", err)
	}
}

// TestWorkGoesOnAfterTheDatabaseWasAway stops the server under an open store.
func TestWorkGoesOnAfterTheDatabaseWasAway(t *testing.T) {
	ctx, s := context.Background(), open(t)
	h, err := s.Create(ctx, "b", Note{Author: "Ada", Sentence: "Site made"}, small())
	if err != nil {
		t.Fatal(err)
	}
	cluster.Stop()
	if err := s.Ping(ctx); err == nil {
		t.Error("a stopped database answers")
	}
	_, err = s.Save(ctx, h, Note{Author: "Ada", Sentence: "Name: x"}, rename(h, "x"))
	var stale *StaleError
	if err == nil || errors.As(err, &stale) {
		t.Errorf("saving without a database: %v", err)
	}
	if err := cluster.Start(ctx); err != nil {
		t.Fatal(err)
	}
	if _, err := s.Save(ctx, h, Note{Author: "Ada", Sentence: "Name: x"}, rename(h, "x")); err != nil {
		t.Errorf("the database is back: %v", err)
	}
}
