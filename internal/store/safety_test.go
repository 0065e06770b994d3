package store

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/jackc/pgx/v5/pgconn"

	"wakefield.example/internal/localpg/pgtest"
)

// made opens a store with one plan in it.
func made(t testing.TB) (context.Context, *Store, *Head) {
	t.Helper()
	ctx, s := context.Background(), open(t)
	h, err := s.Create(ctx, "b", Note{Author: "Ada", Sentence: "Site made"}, small())
	if err != nil {
		t.Fatal(err)
	}
	return ctx, s, h
}

// save makes a change, or ends the test.
func save(t testing.TB, s *Store, h *Head, name string) *Head {
	t.Helper()
	c, err := s.Save(context.Background(), h, Note{Author: "Ada", Sentence: "Name: " + name}, rename(h, name))
	if err != nil {
		t.Fatal(err)
	}
	return c.Head
}

// TestOneRequestOneConnection has many more editors than connections on one old
// version. Any that held one connection while it waited for another would wait for
// ever.
func TestOneRequestOneConnection(t *testing.T) {
	ctx, cancel := context.WithTimeout(context.Background(), time.Minute)
	defer cancel()
	s, err := Open(ctx, pgtest.Database(t, cluster, t.Name())+"&pool_max_conns=1")
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	h, err := s.Create(ctx, "b", Note{Author: "Ada", Sentence: "Site made"}, small())
	if err != nil {
		t.Fatal(err)
	}
	newest := save(t, s, h, "first")
	var group sync.WaitGroup
	for i := range 50 {
		group.Go(func() {
			var stale *StaleError
			if _, err := s.Save(ctx, h, Note{Author: "Bo", Sentence: "late", Request: Request{Key: fmt.Sprint("r", i), What: "w"}},
				rename(h, "late")); !errors.As(err, &stale) {
				t.Errorf("late: %v", err)
			}
			if _, err := s.Step(ctx, h, Note{Author: "Bo"}, Undo); !errors.As(err, &stale) {
				t.Errorf("late undo: %v", err)
			}
			if _, err := s.At(ctx, newest, 1); err != nil {
				t.Error(err)
			}
		})
	}
	group.Wait()
	if _, used, most := s.Connections(); used != 0 || most != 1 {
		t.Errorf("%d of %d connections in use", used, most)
	}
}

func TestAChangeSentTwiceIsStoredOnce(t *testing.T) {
	ctx, s, h := made(t)
	note := Note{Author: "Ada", Sentence: "Name: x", Request: Request{Key: "key-1", What: "w"}}
	first, err := s.Save(ctx, h, note, rename(h, "x"))
	if err != nil {
		t.Fatal(err)
	}
	var done *DoneError
	// Sent again as it was, on the version that it was made on.
	if _, err := s.Save(ctx, h, note, rename(h, "x")); !errors.As(err, &done) || done.Number != 2 {
		t.Errorf("on the old version: %v", err)
	}
	// And on the newest, by a page that has read it anew.
	if _, err := s.Save(ctx, first.Head, note, rename(first.Head, "y")); !errors.As(err, &done) || done.Number != 2 {
		t.Errorf("on the newest version: %v", err)
	}
	if err := s.Stale(ctx, "b", Stamp{Version: 1}, Request{"key-1", "w"}); !errors.As(err, &done) {
		t.Errorf("asked beforehand: %v", err)
	}
	undo := Note{Author: "Ada", Request: Request{Key: "key-2", What: "w"}}
	if _, err := s.Step(ctx, first.Head, undo, Undo); err != nil {
		t.Fatal(err)
	}
	if _, err := s.Step(ctx, first.Head, undo, Undo); !errors.As(err, &done) || done.Number != 3 {
		t.Errorf("an undo sent twice: %v", err)
	}
	now, err := s.Load(ctx, "b")
	if err != nil || now.Version != 3 || now.Plan.Name != "As surveyed" {
		t.Errorf("%+v, %v", now, err)
	}
	site := Note{Author: "Ada", Sentence: "Site made", Request: Request{Key: "key-3", What: "w"}}
	one, err := s.Create(ctx, "one", site, small())
	if err != nil {
		t.Fatal(err)
	}
	if two, err := s.Create(ctx, "two", site, small()); err != nil || two.ID != one.ID {
		t.Errorf("a site sent twice: %+v, %v", two, err)
	}
	if list, _ := s.List(ctx); len(list) != 2 {
		t.Errorf("%d sites", len(list))
	}
}

// TestUndoAnswersItsOwnVersion undoes while others make changes: the answer is the
// version that the undo made, whatever came after.
func TestUndoAnswersItsOwnVersion(t *testing.T) {
	ctx, s, h := made(t)
	for round := range 20 {
		h = save(t, s, h, fmt.Sprint("change ", round))
		done := make(chan bool)
		go func() {
			defer close(done)
			late, err := s.Load(ctx, "b")
			for err == nil && late.Version < h.Version+1 {
				late, err = s.Load(ctx, "b")
			}
			if err == nil {
				_, err = s.Save(ctx, late, Note{Author: "Bo", Sentence: "after"}, rename(late, fmt.Sprint("after ", round)))
			}
			if err != nil {
				t.Error(err)
			}
		}()
		c, err := s.Step(ctx, h, Note{Author: "Ada"}, Undo)
		if err != nil {
			t.Fatal(err)
		}
		if c.Head.Version != h.Version+1 || c.Head.Plan.Name == fmt.Sprint("after ", round) || c.Head.Redo == "" {
			t.Fatalf("undo of %d answered %d, %q, redo %q", h.Version, c.Head.Version, c.Head.Plan.Name, c.Head.Redo)
		}
		<-done
		if h, err = s.Load(ctx, "b"); err != nil {
			t.Fatal(err)
		}
	}
}

func TestStaleTellsTheLastHundred(t *testing.T) {
	ctx, s, old := made(t)
	h := old
	for i := range mostSince + 20 {
		h = save(t, s, h, fmt.Sprint(i))
	}
	var stale *StaleError
	if _, err := s.Save(ctx, old, Note{Author: "Bo"}, rename(old, "x")); !errors.As(err, &stale) {
		t.Fatal(err)
	}
	if n := len(stale.Since); n != mostSince || stale.More != 20 || stale.Since[n-1].Number != h.Version || stale.Since[0].Number != 22 {
		t.Errorf("%d of them, %d more, from %d", n, stale.More, stale.Since[0].Number)
	}
}

func TestLongSentencesAreCut(t *testing.T) {
	ctx, s, h := made(t)
	c, err := s.Save(ctx, h, Note{Author: "Ada", Sentence: strings.Repeat("длинно ", 30_000)}, rename(h, "x"))
	if err != nil {
		t.Fatal(err)
	}
	if n := len([]rune(c.Sentence)); n != longestSentence || !strings.HasSuffix(c.Head.Undo, "…") {
		t.Errorf("%d characters", n)
	}
}

func TestOnlyArchivedPlansAreDeleted(t *testing.T) {
	ctx, s, h := made(t)
	if err := s.Delete(ctx, h.ID); !errors.Is(err, ErrNotArchived) {
		t.Errorf("%v", err)
	}
	if err := s.Archive(ctx, h.ID, true); err != nil {
		t.Fatal(err)
	}
	if err := s.Delete(ctx, h.ID); err != nil {
		t.Error(err)
	}
	if _, err := s.Load(ctx, h.ID); !errors.Is(err, ErrNotFound) {
		t.Errorf("it is still there: %v", err)
	}
	if err := s.Delete(ctx, h.ID); !errors.Is(err, ErrNotFound) {
		t.Errorf("%v", err)
	}
	if _, err := s.History(ctx, h.ID, 0, 10, Search{}); !errors.Is(err, ErrNotFound) {
		t.Errorf("history of nothing: %v", err)
	}
}

// TestNoChangeIsMissedWhileTheWatchIsRenewed ends the listening connection and makes a
// change before there is another.
func TestNoChangeIsMissedWhileTheWatchIsRenewed(t *testing.T) {
	ctx, s, _ := made(t)
	heard := make(chan Changed, 100)
	watching, stop := context.WithCancel(ctx)
	defer stop()
	go s.Watch(watching, slog.New(slog.DiscardHandler), Ears{Changed: func(c Changed) { heard <- c }, Site: func(SiteChanged) {},
		Missed: func(string) {}})
	hear := func(version int64) Changed {
		t.Helper()
		for {
			select {
			case c := <-heard:
				if c.Version == version {
					return c
				}
			case <-time.After(time.Minute):
				t.Fatalf("version %d was never heard of", version)
			}
		}
	}
	if c := hear(1); c.Plan != "b" || c.Sentence != "Site made" {
		t.Errorf("at first %+v", c)
	}
	for range 3 {
		if _, err := s.pool.Exec(ctx,
			`select pg_terminate_backend(pid) from pg_stat_activity where query like 'listen%' or wait_event = 'ClientRead' and pid <> pg_backend_pid() and state = 'idle' and datname = current_database()`); err != nil {
			var database *pgconn.PgError
			if errors.As(err, &database) {
				t.Fatal(err)
			}
		}
		for {
			if _, err := s.Load(ctx, "b"); err == nil {
				break
			}
		}
		h, err := s.Load(ctx, "b")
		if err != nil {
			t.Fatal(err)
		}
		h = save(t, s, h, fmt.Sprint("while deaf ", h.Version))
		if c := hear(h.Version); c.Author != "Ada" {
			t.Errorf("%+v", c)
		}
	}
}
