package store

import (
	"context"
	"errors"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgconn"

	"wakefield/core/plan"
)

// Head is a plan as it stands.
type Head struct {
	ID      string
	Version int64
	Plan    *plan.Plan // nil where the document cannot be read
	Changed time.Time
	// What undo and redo would do, as sentences; empty where there is nothing to do.
	Undo, Redo string
	UndoBy     string // whose change undo would take back

	// Unreadable says why the document cannot be read, and Document is the document
	// then.
	Unreadable *UnreadableError
	Document   []byte
}

// Note is what is written down about a change, beside what it changes.
type Note struct {
	Author   string
	Sentence string // what it does; at most 300 characters are kept
	Request  string // key under which it is stored once however often it is sent; empty for none
	// KeptDays is for how many days the plan keeps footage with the change; nil where
	// nobody worked it out.
	KeptDays *float64
}

const longestSentence = 300

func (n Note) sentence() string {
	text := []rune(n.Sentence)
	if len(text) > longestSentence {
		return string(text[:longestSentence-1]) + "…"
	}
	return n.Sentence
}

func (n Note) request() *string {
	if n.Request == "" {
		return nil
	}
	return &n.Request
}

// Create stores a new plan as version 1. Where a plan was created with the note's key
// before, it returns that one.
func (s *Store) Create(ctx context.Context, id string, note Note, p *plan.Plan) (*Head, error) {
	document, err := p.Bytes()
	if err != nil {
		return nil, err
	}
	if err := plan.CheckBytes(document); err != nil {
		return nil, err
	}
	err = s.inTransaction(ctx, func(tx pgx.Tx) error {
		_, err := tx.Exec(ctx, `insert into plan (id, version, document, request) values ($1, 1, $2, $3)`, id, document, note.request())
		if err != nil {
			return err
		}
		_, err = tx.Exec(ctx, `insert into revision (plan, number, kind, author, sentence, forward, backward, kept_days)
			values ($1, 1, 'made', $2, $3, '[]', '[]', $4)`, id, note.Author, note.sentence(), note.KeptDays)
		return err
	})
	if duplicates(err, "plan_request_key") {
		err = s.pool.QueryRow(ctx, `select id from plan where request = $1`, note.Request).Scan(&id)
	}
	if err != nil {
		return nil, err
	}
	return s.Load(ctx, id)
}

// duplicates tells whether an error says that a key is there already.
func duplicates(err error, index string) bool {
	var database *pgconn.PgError
	return errors.As(err, &database) && database.Code == "23505" && database.ConstraintName == index
}

// Load returns a plan as it stands. It fails with ErrNotFound where there is none. A
// document that cannot be read is no failure: the head says so.
func (s *Store) Load(ctx context.Context, id string) (*Head, error) { return load(ctx, s.pool, id) }

func load(ctx context.Context, q querier, id string) (*Head, error) {
	head, document := &Head{ID: id}, []byte(nil)
	if err := head.scan(q.QueryRow(ctx, headQuery("p.document"), id), &document); err != nil {
		return nil, err
	}
	var err error
	if head.Plan, err = plan.Restore(document); err != nil {
		head.Unreadable, head.Document = &UnreadableError{err}, document
	}
	return head, nil
}

// headQuery asks for a head, and one thing more.
func headQuery(more string) string {
	return `
		select p.version, p.changed_at, coalesce(u.sentence, ''), coalesce(r.sentence, ''), coalesce(u.author, ''), ` + more + `
		from plan p
		left join revision u on u.plan = p.id and u.number = p.undo_next
		left join revision d on d.plan = p.id and d.number = p.redo_next
		left join revision r on r.plan = p.id and r.number = d.target
		where p.id = $1`
}

func (h *Head) scan(row pgx.Row, more any) error {
	err := row.Scan(&h.Version, &h.Changed, &h.Undo, &h.Redo, &h.UndoBy, more)
	if errors.Is(err, pgx.ErrNoRows) {
		return ErrNotFound
	}
	return err
}

// Export returns the document of a plan as it is stored.
func (s *Store) Export(ctx context.Context, id string) (document []byte, err error) {
	err = s.pool.QueryRow(ctx, `select document from plan where id = $1`, id).Scan(&document)
	if errors.Is(err, pgx.ErrNoRows) {
		err = ErrNotFound
	}
	return document, err
}

// Version is the newest version of a plan.
func (s *Store) Version(ctx context.Context, id string) (int64, error) {
	return version(ctx, s.pool, id)
}

func version(ctx context.Context, q querier, id string) (version int64, err error) {
	err = q.QueryRow(ctx, `select version from plan where id = $1`, id).Scan(&version)
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
	Archived bool      `json:"archived" doc:"Whether it is archived"`
}

// List returns all plans, those changed last first.
func (s *Store) List(ctx context.Context) ([]Summary, error) {
	rows, err := s.pool.Query(ctx, `
		select id, coalesce(document->'site'->>'name', id), coalesce(document->>'name', ''), coalesce(document->'site'->>'customer', ''),
			case jsonb_typeof(document->'channels') when 'array' then jsonb_array_length(document->'channels') else 0 end,
			version, changed_at, archived_at is not null
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

// Archive puts a plan away, or takes it out again. It fails with ErrNotFound where
// there is none.
func (s *Store) Archive(ctx context.Context, id string, away bool) error {
	tag, err := s.pool.Exec(ctx, `update plan set archived_at = case when $2 then coalesce(archived_at, now()) end where id = $1`, id, away)
	if err == nil && tag.RowsAffected() == 0 {
		err = ErrNotFound
	}
	return err
}

// Delete removes an archived plan with its history for good. It fails with
// ErrNotArchived for one that is worked on.
func (s *Store) Delete(ctx context.Context, id string) error {
	tag, err := s.pool.Exec(ctx, `delete from plan where id = $1 and archived_at is not null`, id)
	if err != nil || tag.RowsAffected() > 0 {
		return err
	}
	if _, err := s.Version(ctx, id); err != nil {
		return err
	}
	return ErrNotArchived
}
