package backup

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"strings"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgconn"

	"wakefield.example/internal/store"
)

// Found is what a restore is about to do.
type Found struct {
	There int      // sites that are in the database now
	Sites int      // sites of the backup
	Bad   []string // plans of it that this program cannot read, each with why
}

// Unreadable says that a backup has plans in it that this program cannot read.
type Unreadable struct{ Plans []string }

func (e *Unreadable) Error() string {
	return fmt.Sprintf("%d plans of the backup cannot be read by this program: %s", len(e.Plans), strings.Join(e.Plans[:min(len(e.Plans), 3)],
		"; "))
}

// Names of the databases beside the one that is in use.
const (
	restoring = "_restoring" // what is being restored, until it is exchanged
	before    = "_before"    // what was there before the last restore
	leaving   = "_leaving"   // one of the two, for a moment
)

// Restore brings a database back from a file. confirm is asked before anything is replaced; its error ends it. Where the
// backup is not Wakefield's, of a newer one, or damaged, the error says so and everything is as it was. Plans that cannot
// be read are an [*Unreadable], unless they are wanted all the same.
func Restore(ctx context.Context, database, file string, unreadable bool, confirm func(Found) error) (Found, error) {
	known, err := store.Tables()
	if err != nil {
		return Found{}, err
	}
	dir, err := os.MkdirTemp("", "wakefield-restore-")
	if err != nil {
		return Found{}, err
	}
	defer os.RemoveAll(dir)
	list, err := check(ctx, file, known)
	if err != nil {
		return Found{}, fmt.Errorf("%s: %w", file, err)
	}
	wanted := filepath.Join(dir, "contents")
	if err := os.WriteFile(wanted, []byte(list), 0o600); err != nil {
		return Found{}, err
	}
	s, err := newServer(ctx, database)
	if err != nil {
		return Found{}, err
	}
	defer s.close()
	beside, err := s.create(ctx, s.live+restoring)
	if err != nil {
		return Found{}, err
	}
	defer s.drop(context.WithoutCancel(ctx), s.live+restoring) // nothing is there any more after an exchange
	if err := run(ctx, "pg_restore", beside, nil, io.Discard, "--no-owner", "--no-privileges", "--single-transaction",
		"--exit-on-error", "--use-list="+wanted, file); err != nil {
		return Found{}, fmt.Errorf("the backup cannot be restored, and nothing was replaced: %w", err)
	}
	found, err := s.lookAt(ctx, beside)
	if err != nil {
		return found, fmt.Errorf("the backup cannot be used, and nothing was replaced: %w", err)
	}
	if len(found.Bad) > 0 && !unreadable {
		return found, &Unreadable{found.Bad}
	}
	if err := confirm(found); err != nil {
		return found, err
	}
	return found, s.exchange(ctx, s.live+restoring)
}

// Back brings back the database that was there before the last restore; the one that is there is kept in its place.
func Back(ctx context.Context, database string, confirm func(Found) error) (Found, error) {
	s, err := newServer(ctx, database)
	if err != nil {
		return Found{}, err
	}
	defer s.close()
	there, err := s.has(ctx, s.live+before)
	if err != nil {
		return Found{}, err
	}
	if !there {
		return Found{}, errors.New("nothing was restored yet, so that there is nothing from before")
	}
	beside, err := at(database, s.live+before)
	if err != nil {
		return Found{}, err
	}
	found, err := s.lookAt(ctx, beside)
	if err != nil {
		return found, err
	}
	if err := confirm(found); err != nil {
		return found, err
	}
	return found, s.exchange(ctx, s.live+before)
}

// server is a PostgreSQL on which databases are made and exchanged.
type server struct {
	database string // URL of the one in use
	live     string // and its name
	conn     *pgx.Conn
}

func newServer(ctx context.Context, database string) (*server, error) {
	config, err := pgx.ParseConfig(database)
	if err != nil {
		return nil, err
	}
	s := &server{database: database, live: config.Database}
	if n := 63 - len(restoring); len(s.live) > n {
		return nil, fmt.Errorf("the name of the database %s is too long for others beside it: %d bytes at most", s.live, n)
	}
	config.Database = "postgres"
	if s.conn, err = pgx.ConnectConfig(ctx, config); err != nil {
		return nil, fmt.Errorf("the database postgres of the server is needed to make another beside %s: %w", s.live, err)
	}
	return s, nil
}

func (s *server) close() { _ = s.conn.Close(context.Background()) }

func name(database string) string { return pgx.Identifier{database}.Sanitize() }

// create makes an empty database like the one in use, in the place of what an interrupted restore left, and returns its URL.
func (s *server) create(ctx context.Context, called string) (string, error) {
	if err := s.drop(ctx, called); err != nil {
		return "", err
	}
	if _, err := s.conn.Exec(ctx, "create database "+name(called)+" template template0 encoding 'UTF8'"); err != nil {
		if denied := new(pgconn.PgError); errors.As(err, &denied) && denied.Code == "42501" {
			return "",
				fmt.Errorf("a backup is restored into a database beside the one in use, and this role may not make one; its administrator can allow it: alter role %s createdb", name(s.conn.Config().User))
		}
		return "", err
	}
	return at(s.database, called)
}

func (s *server) drop(ctx context.Context, called string) error {
	_, err := s.conn.Exec(ctx, "drop database if exists "+name(called)+" with (force)")
	return err
}

func (s *server) has(ctx context.Context, called string) (there bool, err error) {
	err = s.conn.QueryRow(ctx, "select exists(select from pg_database where datname = $1)", called).Scan(&there)
	return there, err
}

// lookAt brings a database up to date that is to be the one in use, begins another history in it, and tells what it is.
func (s *server) lookAt(ctx context.Context, beside string) (found Found, err error) {
	now, err := store.Open(ctx, beside)
	if err != nil {
		return found, err
	}
	defer now.Close()
	if found.Bad, err = now.Unreadables(ctx); err != nil {
		return found, err
	}
	list, err := now.List(ctx)
	if err != nil {
		return found, err
	}
	found.Sites = len(list)
	if err := now.BeginHistory(ctx); err != nil {
		return found, err
	}
	found.There, err = s.sites(ctx)
	return found, err
}

// sites counts those of the database in use, which may be empty or of an older Wakefield.
func (s *server) sites(ctx context.Context) (n int, err error) {
	conn, err := pgx.Connect(ctx, s.database)
	if err != nil {
		return 0, err
	}
	defer conn.Close(ctx)
	if _, err := conn.Exec(ctx, `select set_config('wakefield.company', '*', false)`); err != nil {
		return 0, err
	}
	for _, table := range []string{"site", "plan"} { // before there were variants, each plan was a site
		var there bool
		if err := conn.QueryRow(ctx, `select to_regclass('public.' || $1) is not null`, table).Scan(&there); err != nil {
			return 0, err
		}
		if there {
			return n, conn.QueryRow(ctx, `select count(*) from `+table).Scan(&n)
		}
	}
	return 0, nil
}

// exchange puts another database in the place of the one in use, which is kept as the one from before, in one step. Those
// who are connected are sent away, and find the other one when they come back.
func (s *server) exchange(ctx context.Context, other string) error {
	kept := s.live + before
	if err := s.drop(ctx, s.live+leaving); err != nil {
		return err
	}
	was, err := s.has(ctx, kept)
	if err != nil {
		return err
	}
	var steps []string
	rename := func(from, to string) { steps = append(steps, "alter database "+name(from)+" rename to "+name(to)) }
	if was {
		rename(kept, s.live+leaving)
	}
	rename(s.live, kept)
	if other == kept { // the one from before comes back
		other = s.live + leaving
	}
	rename(other, s.live)
	stop, err := s.sendAway(ctx, s.live, kept, other)
	if err != nil {
		return fmt.Errorf("nothing was replaced: %w", err)
	}
	err = pgx.BeginFunc(ctx, s.conn, func(tx pgx.Tx) error {
		for _, step := range steps {
			if _, err := tx.Exec(ctx, step); err != nil {
				return err
			}
		}
		return nil
	})
	stop()
	if busy := new(pgconn.PgError); errors.As(err, &busy) && busy.Code == "55006" {
		return fmt.Errorf("nothing was replaced: others stay connected to the database, which this role may not end (%s)", busy.Message)
	}
	if err != nil {
		return fmt.Errorf("nothing was replaced: %w", err)
	}
	if was && other != s.live+leaving {
		return s.drop(ctx, s.live+leaving)
	}
	return nil
}

// sendAway ends connections to databases, again and again until stop is called: who comes back at once would keep the
// database from being renamed. After stop has returned, nobody is sent away any more; what is under way is waited for, as a
// statement that is given up may still end who has just come back.
func (s *server) sendAway(ctx context.Context, databases ...string) (stop func(), err error) {
	ctx = context.WithoutCancel(ctx)
	conn, err := pgx.ConnectConfig(ctx, s.conn.Config())
	if err != nil {
		return nil, err
	}
	enough, ended := make(chan struct{}), make(chan struct{})
	go func() {
		defer close(ended)
		defer conn.Close(ctx)
		for {
			_, _ = conn.Exec(ctx, `select pg_terminate_backend(pid) from pg_stat_activity where datname = any($1) and usename = current_user`,
				databases) // whoever stays connected will be told of
			select {
			case <-enough:
				return
			case <-time.After(50 * time.Millisecond):
			}
		}
	}()
	return func() { close(enough); <-ended }, nil
}
