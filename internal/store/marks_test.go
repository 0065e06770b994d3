package store

import (
	"context"
	"errors"
	"log/slog"
	"testing"
	"time"
)

// restored lets the plan be as after a backup of an earlier version was restored.
func restored(t *testing.T, s *Store) {
	t.Helper()
	if err := s.BeginHistory(context.Background()); err != nil {
		t.Fatal(err)
	}
}

// TestAChangeOfALostHistoryIsNotStored makes changes and a step on a head whose number is there, of another history.
func TestAChangeOfALostHistoryIsNotStored(t *testing.T) {
	ctx, s, h := made(t)
	h = save(t, s, h, "one")
	restored(t, s)
	var stale *StaleError
	if _, err := s.Save(ctx, h, Note{Author: "Ada", Sentence: "Name: lost"}, rename(h, "lost")); !errors.As(err, &stale) ||
		!stale.Restored || stale.Version != 2 {
		t.Errorf("saved: %v", err)
	}
	if _, err := s.Step(ctx, h, Note{Author: "Ada"}, Undo); !errors.As(err, &stale) || !stale.Restored {
		t.Errorf("undone: %v", err)
	}
	if err := s.Stale(ctx, h.ID, h.Stamp(), Request{}); !errors.As(err, &stale) || !stale.Restored {
		t.Errorf("asked: %v", err)
	}
	now, err := s.Load(ctx, h.ID)
	if err != nil || now.Version != 2 || now.Plan.Name != "one" || now.Mark == h.Mark {
		t.Fatalf("%+v, %v", now, err)
	}
	save(t, s, now, "two")
}

// TestTheWatchTellsOfARestoredHistory has the same version told again, as it is another one.
func TestTheWatchTellsOfARestoredHistory(t *testing.T) {
	ctx, s, h := made(t)
	heard, epochs, sites := make(chan Changed, 10), make(chan string, 10), make(chan SiteChanged, 10)
	go s.Watch(t.Context(), slog.New(slog.DiscardHandler), Ears{Changed: func(c Changed) { heard <- c },
		Site:   func(c SiteChanged) { sites <- c },
		Missed: func(e string) { epochs <- e }})
	next := func() Changed {
		t.Helper()
		select {
		case c := <-heard:
			return c
		case <-time.After(time.Minute):
			t.Fatal("nothing is told")
		}
		return Changed{}
	}
	first, before := next(), <-epochs
	if first.Mark != h.Mark || first.Site != "b" {
		t.Errorf("%+v", first)
	}
	restored(t, s)
	if _, err := s.pool.Exec(ctx,
		`select pg_terminate_backend(pid) from pg_stat_activity where query like 'select p.site%' and pid <> pg_backend_pid() and datname = current_database()`); err != nil {
		t.Fatal(err)
	}
	if again, epoch := next(), <-epochs; again.Version != 1 || again.Mark == first.Mark || epoch == before {
		t.Errorf("%+v after %+v, of epoch %s after %s", again, first, epoch, before)
	}
	if err := s.Archive(ctx, "b", true); err != nil {
		t.Fatal(err)
	}
	if told := <-sites; told != (SiteChanged{"b", "archived", ""}) {
		t.Errorf("%+v", told)
	}
}

// TestAKeyBelongsToWhatItWasUsedFor sends keys again for other things.
func TestAKeyBelongsToWhatItWasUsedFor(t *testing.T) {
	ctx, s, h := made(t)
	note := func(what string) Note {
		return Note{Author: "Ada", Sentence: "x", Request: Request{"key", what}}
	}
	c, err := s.Save(ctx, h, note("edit b: x"), rename(h, "x"))
	if err != nil {
		t.Fatal(err)
	}
	if _, err := s.Save(ctx, c.Head, note("edit b: y"), rename(c.Head, "y")); !errors.Is(err, ErrOtherUse) {
		t.Errorf("another change: %v", err)
	}
	if err := s.Stale(ctx, "b", h.Stamp(), Request{"key", "edit b: y"}); !errors.Is(err, ErrOtherUse) {
		t.Errorf("another change, asked beforehand: %v", err)
	}
	if _, err := s.Create(ctx, "other", note("import: z"), small()); !errors.Is(err, ErrOtherUse) {
		t.Errorf("a site: %v", err)
	}
	if _, err := s.AddPlan(ctx, "b", "v", note("variant of b: z"), small()); !errors.Is(err, ErrOtherUse) {
		t.Errorf("a variant: %v", err)
	}
	now, err := s.Load(ctx, "b")
	if err != nil || now.Plan.Name != "x" || now.Version != 2 {
		t.Errorf("%+v, %v", now, err)
	}
	if list, _ := s.List(ctx); len(list) != 1 {
		t.Errorf("%d sites", len(list))
	}
}
