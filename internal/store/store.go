// Package store keeps plans in PostgreSQL.
//
// A plan is one JSON document with a version. Every change is a revision: its
// number is the version it made, and beside who, when and a sentence it holds the
// JSON Patches (RFC 6902) forward from the version before and back to it. Undo,
// redo and history all come from these. A change is made against a version; when
// the plan has moved on, [StaleError] says what changed since, and nothing is
// stored.
package store

import (
	"context"
	"database/sql"
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"log/slog"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgxpool"
	_ "github.com/jackc/pgx/v5/stdlib" // the driver that goose migrates through
	"github.com/pressly/goose/v3"

	"wakefield/core/plan"
)

//go:embed migrations/*.sql
var migrations embed.FS

// ErrNotFound says that there is no plan of that id.
var ErrNotFound = errors.New("no such plan")

// ErrNothing says that there is nothing to undo or redo.
var ErrNothing = errors.New("nothing to take back")

// Store is a database of plans. It is safe for concurrent use, also by several
// processes on one database.
type Store struct {
	pool    *pgxpool.Pool
	closing context.Context // ends when the store is closed
	close   context.CancelFunc
}

// Open connects to a database and brings its tables up to date.
func Open(ctx context.Context, url string) (*Store, error) {
	if err := migrate(ctx, url); err != nil {
		return nil, fmt.Errorf("preparing the database: %w", err)
	}
	config, err := pgxpool.ParseConfig(url)
	if err != nil {
		return nil, err
	}
	config.MaxConns = 16
	config.ConnConfig.ConnectTimeout = 3 * time.Second
	pool, err := pgxpool.NewWithConfig(ctx, config)
	if err != nil {
		return nil, err
	}
	s := &Store{pool: pool}
	s.closing, s.close = context.WithCancel(context.Background())
	return s, nil
}

func migrate(ctx context.Context, url string) error {
	db, err := sql.Open("pgx", url)
	if err != nil {
		return err
	}
	defer db.Close()
	files, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return err
	}
	provider, err := goose.NewProvider(goose.DialectPostgres, db, files, goose.WithSlog(slog.Default()))
	if err != nil {
		return err
	}
	_, err = provider.Up(ctx)
	return err
}

// Close ends all watches and closes the connections.
func (s *Store) Close() {
	s.close()
	s.pool.Close()
}

// Ping asks the database whether it is there.
func (s *Store) Ping(ctx context.Context) error { return s.pool.Ping(ctx) }

// Head is a plan as it stands.
type Head struct {
	ID      string
	Version int64
	Plan    *plan.Plan
	Changed time.Time
	// What undo and redo would do, as sentences; empty where there is nothing to do.
	Undo, Redo string
	UndoBy     string // whose change undo would take back
}

// Revision is one change of a plan.
type Revision struct {
	Number   int64     `json:"number" doc:"Version of the plan that the change made"`
	Kind     string    `json:"kind" enum:"made,edit,undo,redo"`
	At       time.Time `json:"at"`
	Author   string    `json:"author"`
	Sentence string    `json:"sentence"`
}

// StaleError says that a change was made on a version that is no longer the newest.
type StaleError struct {
	Version int64      // the newest version
	Since   []Revision // what changed since the version the change was made on, oldest first
}

func (e *StaleError) Error() string {
	return fmt.Sprintf("the plan has moved on to version %d", e.Version)
}

// Create stores a new plan as version 1.
func (s *Store) Create(ctx context.Context, id, author, sentence string, p *plan.Plan) (*Head, error) {
	err := pgx.BeginFunc(ctx, s.pool, func(tx pgx.Tx) error {
		if _, err := tx.Exec(ctx, `insert into plan (id, version, document) values ($1, 1, $2)`, id, p); err != nil {
			return err
		}
		_, err := tx.Exec(ctx, `insert into revision (plan, number, kind, author, sentence, forward, backward)
			values ($1, 1, 'made', $2, $3, '[]', '[]')`, id, author, sentence)
		return err
	})
	if err != nil {
		return nil, err
	}
	return s.Load(ctx, id)
}

// Load returns a plan as it stands. It fails with ErrNotFound where there is none.
func (s *Store) Load(ctx context.Context, id string) (*Head, error) {
	head := &Head{ID: id}
	var document []byte
	err := s.pool.QueryRow(ctx, `
		select p.version, p.document, p.changed_at, coalesce(u.sentence, ''), coalesce(r.sentence, ''), coalesce(u.author, '')
		from plan p
		left join revision u on u.plan = p.id and u.number = p.undo_next
		left join revision d on d.plan = p.id and d.number = p.redo_next
		left join revision r on r.plan = p.id and r.number = d.target
		where p.id = $1`, id).Scan(&head.Version, &document, &head.Changed, &head.Undo, &head.Redo, &head.UndoBy)
	if errors.Is(err, pgx.ErrNoRows) {
		return nil, ErrNotFound
	}
	if err != nil {
		return nil, err
	}
	if head.Plan, err = plan.Read(document); err != nil {
		return nil, fmt.Errorf("stored plan %s: %w", id, err)
	}
	return head, nil
}

// Version is the newest version of a plan.
func (s *Store) Version(ctx context.Context, id string) (version int64, err error) {
	err = s.pool.QueryRow(ctx, `select version from plan where id = $1`, id).Scan(&version)
	if errors.Is(err, pgx.ErrNoRows) {
		err = ErrNotFound
	}
	return version, err
}

// Summary is a line of the list of plans.
type Summary struct {
	ID       string    `json:"id"`
	Name     string    `json:"name"`
	Variant  string    `json:"variant" doc:"Name of the plan"`
	Customer string    `json:"customer"`
	Channels int       `json:"channels"`
	Version  int64     `json:"version"`
	Changed  time.Time `json:"changed"`
	Archived bool      `json:"archived" doc:"Whether it was put away"`
}

// Archive puts a plan away, or takes it out again. It fails with ErrNotFound where
// there is none.
func (s *Store) Archive(ctx context.Context, id string, away bool) error {
	tag, err := s.pool.Exec(ctx, `update plan set archived_at = case when $2 then coalesce(archived_at, now()) end where id = $1`, id, away)
	if err == nil && tag.RowsAffected() == 0 {
		err = ErrNotFound
	}
	return err
}

// List returns all plans, those changed last first.
func (s *Store) List(ctx context.Context) ([]Summary, error) {
	rows, err := s.pool.Query(ctx, `
		select id, document->'site'->>'name', document->>'name', coalesce(document->'site'->>'customer', ''),
			jsonb_array_length(document->'channels'), version, changed_at, archived_at is not null
		from plan order by changed_at desc, id`)
	if err != nil {
		return nil, err
	}
	list, err := pgx.CollectRows(rows, pgx.RowToStructByPos[Summary])
	if list == nil {
		list = []Summary{}
	}
	return list, err
}
