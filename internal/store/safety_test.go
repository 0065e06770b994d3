package store

import (
	"context"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgconn"

	"wakefield/core/plan"
	"wakefield/internal/localpg/pgtest"
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
			if _, err := s.Save(ctx, h, Note{Author: "Bo", Sentence: "late", Request: fmt.Sprint("r", i)}, rename(h, "late")); !errors.As(err, &stale) {
				t.Errorf("late: %v", err)
			}
			if _, err := s.Undo(ctx, h, Note{Author: "Bo"}); !errors.As(err, &stale) {
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
	note := Note{Author: "Ada", Sentence: "Name: x", Request: "key-1"}
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
	if err := s.Stale(ctx, "b", 1, "key-1"); !errors.As(err, &done) {
		t.Errorf("asked beforehand: %v", err)
	}
	undo := Note{Author: "Ada", Request: "key-2"}
	if _, err := s.Undo(ctx, first.Head, undo); err != nil {
		t.Fatal(err)
	}
	if _, err := s.Undo(ctx, first.Head, undo); !errors.As(err, &done) || done.Number != 3 {
		t.Errorf("an undo sent twice: %v", err)
	}
	now, err := s.Load(ctx, "b")
	if err != nil || now.Version != 3 || now.Plan.Name != "As surveyed" {
		t.Errorf("%+v, %v", now, err)
	}
	site := Note{Author: "Ada", Sentence: "Site made", Request: "key-3"}
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
		c, err := s.Undo(ctx, h, Note{Author: "Ada"})
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

func TestLooksBackOverManyRevisions(t *testing.T) {
	ctx, s, h := made(t)
	for i := int64(2); i <= 4*snapshotEvery; i++ {
		h = save(t, s, h, fmt.Sprint("rev ", i))
	}
	check := func() {
		t.Helper()
		for _, number := range []int64{1, 2, 63, 64, 65, 96, 97, 130, h.Version - 1, h.Version} {
			want := fmt.Sprint("rev ", number)
			if number == 1 {
				want = "As surveyed"
			}
			if p, err := s.At(ctx, h, number); err != nil || p.Name != want {
				t.Errorf("revision %d: %v, %v", number, p, err)
			}
		}
	}
	check()
	var n int
	count := func(table string) int {
		if err := s.pool.QueryRow(ctx, `select count(*) from `+table+` where plan = 'b'`).Scan(&n); err != nil {
			t.Fatal(err)
		}
		return n
	}
	if count("snapshot") != 4 {
		t.Errorf("%d snapshots", n)
	}
	// A history from before there were snapshots leaves one where it was long to look back.
	if _, err := s.pool.Exec(ctx, `delete from snapshot`); err != nil {
		t.Fatal(err)
	}
	check()
	if count("snapshot") == 0 {
		t.Error("a long look back left no snapshot")
	}

	removed, err := s.Thin(ctx, "b", 10)
	if err != nil || removed != h.Version-10 || count("revision") != 10 {
		t.Fatalf("thinned out %d, %d are left, %v", removed, n, err)
	}
	first := h.Version - 9
	if p, err := s.At(ctx, h, first); err != nil || p.Name != fmt.Sprint("rev ", first) {
		t.Errorf("the oldest that stayed: %v, %v", p, err)
	}
	if _, err := s.At(ctx, h, first-1); !errors.Is(err, ErrNoRevision) {
		t.Errorf("one that went: %v", err)
	}
	for undone := 0; ; undone++ {
		c, err := s.Undo(ctx, h, Note{Author: "Ada"})
		if errors.Is(err, ErrNothing) {
			if undone != 9 || h.Plan.Name != fmt.Sprint("rev ", first) || h.Undo != "" {
				t.Errorf("after %d undone it is %q, undo %q", undone, h.Plan.Name, h.Undo)
			}
			break
		}
		if err != nil {
			t.Fatal(err)
		}
		h = c.Head
	}
	if _, err := s.Thin(ctx, "nowhere", 10); !errors.Is(err, ErrNotFound) {
		t.Errorf("%v", err)
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
	if _, err := s.History(ctx, h.ID, 0, 10); !errors.Is(err, ErrNotFound) {
		t.Errorf("history of nothing: %v", err)
	}
}

// TestAPlanThatCannotBeReadIsNotLost stores what no program reads, and gets out of it.
func TestAPlanThatCannotBeReadIsNotLost(t *testing.T) {
	ctx, s, h := made(t)
	save(t, s, h, "good")
	if _, err := s.pool.Exec(ctx, `update plan set document = document || '{"colour": "red"}'`); err != nil {
		t.Fatal(err)
	}
	broken, err := s.Load(ctx, "b")
	if err != nil || broken.Plan != nil || broken.Unreadable == nil || broken.Version != 2 || broken.Undo != "Name: good" {
		t.Fatalf("%+v, %v", broken, err)
	}
	if data, err := s.Export(ctx, "b"); err != nil || !strings.Contains(string(data), "colour") {
		t.Errorf("%s, %v", data, err)
	}
	if list, err := s.List(ctx); err != nil || len(list) != 1 || list[0].Name != "Brackenhall" {
		t.Errorf("%+v, %v", list, err)
	}
	var unreadable *UnreadableError
	if _, err := s.At(ctx, broken, 1); !errors.As(err, &unreadable) {
		t.Errorf("by way of the broken head: %v", err)
	}
	// With a snapshot there is a way back.
	good, _ := small().Bytes()
	if _, err := s.pool.Exec(ctx, `insert into snapshot values ('b', 1, $1)`, good); err != nil {
		t.Fatal(err)
	}
	then, err := s.At(ctx, broken, 1)
	if err != nil {
		t.Fatal(err)
	}
	c, err := s.Save(ctx, broken, Note{Author: "Ada", Sentence: "Back to revision 1"}, then)
	if err != nil {
		t.Fatal(err)
	}
	if now, err := s.Load(ctx, "b"); err != nil || now.Unreadable != nil || now.Plan.Name != "As surveyed" || now.Version != c.Head.Version {
		t.Errorf("%+v, %v", now, err)
	}
}

func TestGrowingBeyondTheLimitIsRefused(t *testing.T) {
	ctx, s, h := made(t)
	large := *h.Plan
	for range 60_000 {
		large.Site.SpecialDays = append(large.Site.SpecialDays, plan.SpecialDay{Name: strings.Repeat("x", 200), Week: "none"})
	}
	var wrong *plan.Error
	if _, err := s.Save(ctx, h, Note{Author: "Ada"}, &large); err != nil {
		t.Errorf("below the limit: %v", err)
	}
	large.Site.SpecialDays = append(large.Site.SpecialDays, large.Site.SpecialDays...)
	h, err := s.Load(ctx, "b")
	if err != nil {
		t.Fatal(err)
	}
	if _, err := s.Save(ctx, h, Note{Author: "Ada"}, &large); !errors.As(err, &wrong) || !strings.Contains(err.Error(), "larger than 16 MiB") {
		t.Errorf("%v", err)
	}
	// One that was too large already may become smaller.
	document, _ := large.Bytes()
	if _, err := s.pool.Exec(ctx, `update plan set document = $1`, document); err != nil {
		t.Fatal(err)
	}
	if h, err = s.Load(ctx, "b"); err != nil {
		t.Fatal(err)
	}
	large.Site.SpecialDays = large.Site.SpecialDays[:100_000]
	if _, err := s.Save(ctx, h, Note{Author: "Ada"}, &large); err != nil {
		t.Errorf("becoming smaller: %v", err)
	}
}

func TestANewerDatabaseIsRefused(t *testing.T) {
	ctx, s, _ := made(t)
	if _, err := s.pool.Exec(ctx, `insert into goose_db_version (version_id, is_applied) values (99, true)`); err != nil {
		t.Fatal(err)
	}
	if again, err := Open(ctx, s.pool.Config().ConnString()); err == nil || !strings.Contains(err.Error(), "newer Wakefield") {
		t.Errorf("%v", err)
		again.Close()
	}
}

func TestManyFirstStartsAtOnce(t *testing.T) {
	url := pgtest.Database(t, cluster, t.Name())
	var group sync.WaitGroup
	for range 6 {
		group.Go(func() {
			s, err := Open(context.Background(), url)
			if err != nil {
				t.Error(err)
				return
			}
			s.Close()
		})
	}
	group.Wait()
}

// TestNoChangeIsMissedWhileTheWatchIsRenewed ends the listening connection and makes a
// change before there is another.
func TestNoChangeIsMissedWhileTheWatchIsRenewed(t *testing.T) {
	ctx, s, _ := made(t)
	heard := make(chan Changed, 100)
	watching, stop := context.WithCancel(ctx)
	defer stop()
	go s.Watch(watching, slog.New(slog.DiscardHandler), func(c Changed) { heard <- c })
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
		if _, err := s.pool.Exec(ctx, `select pg_terminate_backend(pid) from pg_stat_activity where query like 'listen%' or wait_event = 'ClientRead' and pid <> pg_backend_pid() and state = 'idle' and datname = current_database()`); err != nil {
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

func TestTroubleOf(t *testing.T) {
	pg := func(code string) error { return fmt.Errorf("saving: %w", &pgconn.PgError{Code: code}) }
	for _, test := range []struct {
		err  error
		want Trouble
	}{
		{nil, None}, {errors.New("no plan"), None}, {ErrNotFound, None}, {context.Canceled, None},
		{pg("53100"), Full}, {pg("53300"), Away}, {pg("57P01"), Away}, {pg("08006"), Away}, {pg("58030"), Away},
		{pg("25006"), ReadOnly}, {pg("22021"), Refused}, {pg("23505"), Refused},
		{fmt.Errorf("reading: %w", io.ErrUnexpectedEOF), Away}, {&UnsureError{io.EOF}, Away},
	} {
		if got := TroubleOf(test.err); got != test.want {
			t.Errorf("%v: %v, want %v", test.err, got, test.want)
		}
	}
	_, err := pgx.Connect(context.Background(), "postgres://nobody@127.0.0.1:1/none?connect_timeout=2")
	if TroubleOf(err) != Away {
		t.Errorf("no server: %v", err)
	}
}

func TestProbeTellsWhetherItCanWrite(t *testing.T) {
	ctx, s, _ := made(t)
	if err := s.Probe(ctx); err != nil {
		t.Fatal(err)
	}
	name := s.pool.Config().ConnConfig.Database
	if _, err := s.pool.Exec(ctx, "alter database "+pgx.Identifier{name}.Sanitize()+" set default_transaction_read_only = on"); err != nil {
		t.Fatal(err)
	}
	s.pool.Reset()
	if err := s.Probe(ctx); TroubleOf(err) != ReadOnly {
		t.Errorf("%v", err)
	}
	if err := s.Ping(ctx); err != nil {
		t.Errorf("it can still be read: %v", err)
	}
}
