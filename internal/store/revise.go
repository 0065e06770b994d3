package store

import (
	"cmp"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"time"

	"github.com/jackc/pgx/v5"

	"wakefield.example/core/plan"
)

// Revision is one change of a plan.
type Revision struct {
	Number   int64     `json:"number" doc:"Version of the plan that the change made"`
	Kind     string    `json:"kind" enum:"made,edit,undo,redo"`
	At       time.Time `json:"at"`
	Author   string    `json:"author"`
	Sentence string    `json:"sentence"`
	Name     string    `json:"name" doc:"What somebody named it; empty for nothing"`
	KeptDays *float64  `json:"keptDays" required:"true" doc:"For how many days the channel nearest to what it must keep was kept, as worked out then; null where nothing takes it away, or nobody worked it out"`
}

// Change is what a stored change did.
type Change struct {
	Head     *Head
	Sentence string
	Forward  json.RawMessage // JSON Patch from the version it was made on
}

// revision is a revision with all that its row holds.
type revision struct {
	Revision
	target            *int64
	forward, backward json.RawMessage
	undoNext          *int64
	redoNext          *int64
	request           Request
}

// Prepared is a plan that may come in the place of another, with what takes time of storing it worked out.
type Prepared struct {
	before            *Head
	next              *plan.Plan
	document          []byte
	forward, backward json.RawMessage
	err               error // why it cannot be stored
}

// Prepare works out what storing next in the place of before takes; it asks nothing of the database.
func Prepare(before *Head, next *plan.Plan) *Prepared {
	p := &Prepared{before: before, next: next}
	if p.forward, p.backward, p.err = before.patches(next); p.err == nil {
		p.document, p.err = next.Bytes()
	}
	return p
}

// Save stores next in the place of before. It fails with a [*StaleError] when that is no
// longer the newest, or of a history that is no longer there, with a [*DoneError] when a
// change with the note's key is stored, with ErrOtherUse when the key was used for
// something else, with ErrRemoved for one that was removed, and with a [*document.Error] when the plan has grown too large.
func (s *Store) Save(ctx context.Context, before *Head, note Note, next *plan.Plan) (*Change, error) {
	return s.SavePrepared(ctx, Prepare(before, next), note, func() error { return nil })
}

// SavePrepared is [Store.Save] of what is prepared. Before it is kept it is asked whether all is ready: where that is an error,
// nothing is kept, and that is the error.
func (s *Store) SavePrepared(ctx context.Context, p *Prepared, note Note, ready func() error) (*Change, error) {
	if p.err != nil {
		return nil, p.err
	}
	return s.revise(ctx, p.before, p.next, p.document, edited(p.before, note, p.forward, p.backward), ready)
}

// edited is the revision of an edit.
func edited(before *Head, note Note, forward, backward json.RawMessage) revision {
	number := before.Version + 1
	return revision{
		Revision: Revision{Number: number, Kind: "edit", Author: note.Author, Sentence: note.sentence(), KeptDays: note.KeptDays},
		forward:  forward, backward: backward, undoNext: &number, request: note.Request,
	}
}

// patches compares a head with what is to come in its place.
func (h *Head) patches(next *plan.Plan) (forward, backward json.RawMessage, err error) {
	if h.Plan == nil {
		return documentPatches(h.Document, next)
	}
	return patches(h.Plan, next)
}

// revise stores a revision and the plan it makes, if before is still the newest and all is ready.
func (s *Store) revise(ctx context.Context, before *Head, next *plan.Plan, document []byte, r revision,
	ready func() error) (*Change, error) {
	var change *Change
	var unready error
	err := s.inTransaction(ctx, Patience, func(ctx context.Context, tx pgx.Tx) (err error) {
		if change, err = replace(ctx, tx, before, next, document, r); err != nil {
			return err
		}
		unready = ready()
		return unready
	})
	if unready != nil {
		return nil, unready
	}
	return change, s.doneIf(ctx, err, r.request)
}

// SaveAll stores several changes that were made one on the other, each a revision of its own, or none of them: the notes,
// and the plans that they make. It fails as [Store.Save] does. The change that it returns is that of all of them.
func (s *Store) SaveAll(ctx context.Context, before *Head, notes []Note, plans []*plan.Plan) (*Change, error) {
	var change *Change
	err := s.inTransaction(ctx, Patience, func(ctx context.Context, tx pgx.Tx) error {
		// The plan's row is held first, as whoever stores a single change does.
		if err := tx.QueryRow(ctx, `select id from plan where id = $1 and version = $2 and mark = $3 for update`, before.ID, before.Version,
			before.Mark).Scan(new(string)); err != nil {
			return orNone(err, &StaleError{On: before.Version})
		}
		at := before
		var last revision
		for i, next := range plans {
			forward, backward, err := at.patches(next)
			if err != nil {
				return err
			}
			r := edited(at, notes[i], forward, backward)
			if i == len(plans)-1 {
				last = r
				break
			}
			// In between only what is different is stored: the document is that of the last.
			if err := insertRevision(ctx, tx, before.ID, r); err != nil {
				return err
			}
			at = &Head{ID: before.ID, Site: before.Site, Version: r.Number, Mark: before.Mark, Plan: next}
		}
		whole := Prepare(before, plans[len(plans)-1])
		if whole.err != nil {
			return whole.err
		}
		var err error
		if change, err = replace(ctx, tx, before, whole.next, whole.document, last); err != nil {
			return err
		}
		change.Forward = whole.forward
		return nil
	})
	return change, err
}

// replace stores a plan, which is written as a document, in the place of one from before, with the last revision that led there.
func replace(ctx context.Context, tx pgx.Tx, before *Head, next *plan.Plan, document []byte, r revision) (*Change, error) {
	if err := mayGrow(before, document); err != nil {
		return nil, err
	}
	tag, err := tx.Exec(ctx, `
		update plan set version = $3, document = $4, undo_next = $5, redo_next = $6, changed_at = now(),
			site_name = $8, customer = $9, variant = $10, channels = $11
		where id = $1 and version = $2 and mark = $7 and removed_at is null`, before.ID, before.Version, r.Number, document, r.undoNext, r.redoNext,
		before.Mark, next.Site.Name, next.Site.Customer, next.Name, len(next.Channels))
	if err != nil {
		return nil, err
	}
	if tag.RowsAffected() == 0 {
		return nil, stale(ctx, tx, before.ID, before.Stamp(), r.request)
	}
	if err := insertRevision(ctx, tx, before.ID, r); err != nil {
		return nil, err
	}
	if r.Number/snapshotEvery > before.Version/snapshotEvery {
		if _, err := tx.Exec(ctx, `insert into snapshot (plan, number, document) select id, version, document from plan where id = $1
			on conflict do nothing`, before.ID); err != nil {
			return nil, err
		}
	}
	payload, err := notice(before, &r)
	if err != nil {
		return nil, err
	}
	head := &Head{ID: before.ID, Plan: next}
	if err := head.scan(tx.QueryRow(ctx, headQuery("pg_notify($2, $3)::text"), before.ID, plansTold, payload), new(string)); err != nil {
		return nil, err
	}
	return &Change{head, r.Sentence, r.forward}, nil
}

// insertRevision stores a revision, and what it was asked with: in one statement, as each costs every stroke a way to the
// database and back.
func insertRevision(ctx context.Context, tx pgx.Tx, id string, r revision) error {
	_, err := tx.Exec(ctx, `
		with asked as (insert into request (key, what, plan, number) select $12::text, $13::text, $1::text, $2::bigint where $12::text is not null)
		insert into revision (plan, number, kind, target, author, sentence, forward, backward, undo_next, redo_next, kept_days)
		values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11)`,
		id, r.Number, r.Kind, r.target, r.Author, r.Sentence, r.forward, r.backward, r.undoNext, r.redoNext, r.KeptDays,
		r.request.key(), r.request.What)
	return err
}

// Locked makes a change while nobody else can make one: for those who were late too
// often. do is given the plan as it stands and tells what becomes of it; it must not
// ask the store for anything, as this call holds a connection.
func (s *Store) Locked(ctx context.Context, id string, request Request, do func(head *Head) (Note, *plan.Plan, error)) (*Change, error) {
	var change *Change
	err := s.inTransaction(ctx, 4*Patience, func(ctx context.Context, tx pgx.Tx) error {
		if _, err := tx.Exec(ctx, `select from plan where id = $1 for update`, id); err != nil {
			return err
		}
		head, err := load(ctx, tx, id)
		if err != nil {
			return err
		}
		note, next, err := do(head)
		if err != nil {
			return err
		}
		p := Prepare(head, next)
		if p.err != nil {
			return p.err
		}
		change, err = replace(ctx, tx, head, next, p.document, edited(head, note, p.forward, p.backward))
		return err
	})
	return change, s.doneIf(ctx, err, request)
}

// mayGrow refuses a plan that is too large, unless it becomes smaller.
func mayGrow(before *Head, document []byte) error {
	err := plan.CheckBytes(document)
	if err == nil {
		return nil
	}
	was := before.Document
	if before.Plan != nil {
		was, _ = before.Plan.Bytes()
	}
	if len(document) <= len(was) {
		return nil
	}
	return err
}

// Stale is the error for a change made on an old version: what [Store.Done] says of a key
// that was used, else a [*StaleError] that tells what changed since, unless the database
// cannot tell. Of a version without a mark nobody asks which history it was of.
func (s *Store) Stale(ctx context.Context, id string, on Stamp, request Request) error {
	return stale(ctx, s.pool, id, on, request)
}

func stale(ctx context.Context, q querier, id string, on Stamp, request Request) error {
	if err := done(ctx, q, request); err != nil {
		return err
	}
	now, err := version(ctx, q, id)
	if err != nil {
		return err
	}
	var removed bool
	if err := q.QueryRow(ctx, `select removed_at is not null from plan where id = $1`, id).Scan(&removed); err != nil || removed {
		return cmp.Or(err, ErrRemoved)
	}
	since, newest := on.Version, now.Version
	if on.Mark != "" && on.Mark != now.Mark || since > newest {
		return &StaleError{On: since, Version: newest, Since: []Revision{}, Restored: true}
	}
	last, err := revisions(ctx, q, `plan = $1 and number > $2 order by number desc limit $3`, id, since, mostSince)
	if err != nil {
		return err
	}
	slices.Reverse(last)
	return &StaleError{On: since, Version: newest, Since: last, More: max(0, newest-since-int64(len(last)))}
}

// Search narrows a history. Both are parts of a text, without regard to small and capital
// letters; an empty one is all.
type Search struct {
	Author string
	Text   string // of what a revision says or is named: the name of a channel, say
}

// History lists the newest revisions before a number that a search is after, newest first;
// 0 for all. It fails with ErrNotFound where there is no such plan.
func (s *Store) History(ctx context.Context, id string, before int64, limit int, search Search) ([]Revision, error) {
	if before <= 0 {
		before = 1 << 62
	}
	list, err := revisions(ctx, s.pool, `plan = $1 and number < $2 and position(lower($4) in lower(author)) > 0 and position(lower($5) in lower(name || ' ' || sentence)) > 0
		order by number desc limit $3`, id, before, limit, search.Author, search.Text)
	if err == nil && len(list) == 0 {
		_, err = s.Version(ctx, id)
	}
	return list, err
}

func revisions(ctx context.Context, q querier, where string, args ...any) ([]Revision, error) {
	rows, err := q.Query(ctx, `select number, kind, at, author, sentence, name, kept_days from revision where `+where, args...)
	if err != nil {
		return nil, err
	}
	list, err := pgx.CollectRows(rows, pgx.RowToStructByPos[Revision])
	if list == nil {
		list = []Revision{}
	}
	return list, err
}

// Revision returns one revision, with its patch from the version before.
func (s *Store) Revision(ctx context.Context, id string, number int64) (*Revision, json.RawMessage, error) {
	r, err := s.revision(ctx, id, number)
	if err != nil {
		return nil, nil, err
	}
	return &r.Revision, r.forward, nil
}

func (s *Store) revision(ctx context.Context, id string, number int64) (*revision, error) {
	var r revision
	err := s.pool.QueryRow(ctx, `
		select number, kind, at, author, sentence, name, kept_days, target, forward, backward, undo_next, redo_next
		from revision where plan = $1 and number = $2`, id, number).Scan(&r.Number, &r.Kind, &r.At, &r.Author,
		&r.Sentence, &r.Name, &r.KeptDays, &r.target, &r.forward, &r.backward, &r.undoNext, &r.redoNext)
	return &r, orNone(err, ErrNoRevision)
}

// NameRevision names a revision; the empty name takes its name away. It fails with
// ErrNoRevision where there is none.
func (s *Store) NameRevision(ctx context.Context, id string, number int64, name string) error {
	return s.inTransaction(ctx, Patience, func(ctx context.Context, tx pgx.Tx) error {
		var site string
		err := tx.QueryRow(ctx,
			`update revision r set name = $3 from plan p where p.id = r.plan and r.plan = $1 and r.number = $2 returning p.site`, id,
			number, name).Scan(&site)
		if err != nil {
			return orNone(err, ErrNoRevision)
		}
		return tellSite(ctx, tx, SiteChanged{Site: site, What: "named", Plan: id})
	})
}

// Direction is where a step leads along the history: [Undo] or [Redo].
type Direction struct {
	kind string
	// from picks of a revision the one that the step acts on.
	from func(*revision) *int64
	// link fills in what the new revision remembers, given the one acted on and the one
	// before that.
	link func(made, acted, earlier *revision)
}

// Revisions remember where undo and redo led when they were made, so the two form
// lists that run through the table: before a revision x was made, undo led to what the
// revision before x remembers.
var (
	// Undo takes back the change that Head.Undo names.
	Undo = Direction{"undo", func(r *revision) *int64 { return r.undoNext }, func(made, acted, earlier *revision) {
		made.target, made.undoNext, made.redoNext = &acted.Number, earlier.undoNext, &made.Number
	}}
	// Redo makes the change again that was undone last.
	Redo = Direction{"redo", func(r *revision) *int64 { return r.redoNext }, func(made, acted, earlier *revision) {
		made.target, made.undoNext, made.redoNext = acted.target, acted.target, earlier.redoNext
	}}
)

// Step goes one step along the history, as a new revision. It fails with ErrNothing where
// there is none that way.
func (s *Store) Step(ctx context.Context, before *Head, note Note, to Direction) (*Change, error) {
	now, err := s.revision(ctx, before.ID, before.Version)
	if err != nil {
		return nil, err
	}
	number := to.from(now)
	if number == nil {
		// Another may have taken it back meanwhile; the version tells.
		if newest, err := s.Version(ctx, before.ID); err != nil || newest != before.Stamp() {
			return nil, errors.Join(err, s.Stale(ctx, before.ID, before.Stamp(), note.Request))
		}
		return nil, ErrNothing
	}
	acted, err := s.revision(ctx, before.ID, *number)
	if err != nil {
		return nil, err
	}
	earlier, err := s.revision(ctx, before.ID, acted.Number-1)
	if err != nil {
		return nil, err
	}
	made := revision{
		Revision: Revision{Number: before.Version + 1, Kind: to.kind, Author: note.Author, Sentence: acted.Sentence, KeptDays: earlier.KeptDays},
		forward:  acted.backward, backward: acted.forward, request: note.Request,
	}
	to.link(&made, acted, earlier)
	next, err := patched(before.Plan, acted.backward)
	if err != nil {
		return nil, fmt.Errorf("%s of revision %d: %w", to.kind, acted.Number, err)
	}
	document, err := next.Bytes()
	if err != nil {
		return nil, err
	}
	return s.revise(ctx, before, next, document, made, func() error { return nil })
}
