package store

import (
	"context"
	"time"

	"github.com/jackc/pgx/v5"

	"wakefield.example/core/plan"
)

// Stamp names a version of a plan, of all that ever were: numbers begin again where a
// backup is restored, and the mark is another one then.
type Stamp struct {
	Version int64
	Mark    string
}

// Head is a plan as it stands.
type Head struct {
	ID      string
	Site    string // id of the site that it is a plan of
	Version int64
	Mark    string     // of its history
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
	Request  Request
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
		select p.site, p.version, p.mark, p.changed_at, coalesce(u.sentence, ''), coalesce(r.sentence, ''), coalesce(u.author, ''), ` + more + `
		from plan p
		left join revision u on u.plan = p.id and u.number = p.undo_next
		left join revision d on d.plan = p.id and d.number = p.redo_next
		left join revision r on r.plan = p.id and r.number = d.target
		where p.id = $1`
}

func (h *Head) scan(row pgx.Row, more any) error {
	err := row.Scan(&h.Site, &h.Version, &h.Mark, &h.Changed, &h.Undo, &h.Redo, &h.UndoBy, more)
	return orNone(err, ErrNotFound)
}

// Export returns the document of a plan as it is stored.
func (s *Store) Export(ctx context.Context, id string) (document []byte, err error) {
	err = s.pool.QueryRow(ctx, `select document from plan where id = $1`, id).Scan(&document)
	return document, orNone(err, ErrNotFound)
}

// Version is the newest version of a plan.
func (s *Store) Version(ctx context.Context, id string) (Stamp, error) {
	return version(ctx, s.pool, id)
}

func version(ctx context.Context, q querier, id string) (v Stamp, err error) {
	err = q.QueryRow(ctx, `select version, mark from plan where id = $1`, id).Scan(&v.Version, &v.Mark)
	return v, orNone(err, ErrNotFound)
}

// Stamp names the version that the head is.
func (h *Head) Stamp() Stamp { return Stamp{h.Version, h.Mark} }
