package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"reflect"
	"slices"
	"strconv"

	jsonpatch "github.com/evanphx/json-patch/v5"
	"github.com/jackc/pgx/v5"
	"github.com/wI2L/jsondiff"

	"wakefield/core/plan"
)

// Change is what a stored change did.
type Change struct {
	Head     *Head
	Sentence string
	Forward  json.RawMessage // JSON Patch from the version it was made on
}

// Save stores next in the place of before, which has the version given. It fails
// with a *StaleError when that is no longer the newest.
func (s *Store) Save(ctx context.Context, before *Head, author, sentence string, next *plan.Plan) (*Change, error) {
	forward, backward, err := patches(before.Plan, next)
	if err != nil {
		return nil, err
	}
	number := before.Version + 1
	err = s.revise(ctx, before.ID, before.Version, next, revision{
		Revision: Revision{Number: number, Kind: "edit", Author: author, Sentence: sentence},
		forward:  forward, backward: backward, undoNext: &number,
	})
	if err != nil {
		return nil, err
	}
	head := *before
	head.Version, head.Plan, head.Undo, head.UndoBy, head.Redo = number, next, sentence, author, ""
	return &Change{&head, sentence, forward}, nil
}

// patches compares two plans in both directions. Only members that differ are looked
// at, and of the channels, where they are the same ones in the same order, only those
// that differ.
func patches(from, to *plan.Plan) (forward, backward json.RawMessage, err error) {
	var there, back []jsondiff.Operation
	compare := func(path string, a, b any) error {
		x, err := generic(a)
		if err != nil {
			return err
		}
		y, err := generic(b)
		if err != nil {
			return err
		}
		for _, way := range []struct {
			into *[]jsondiff.Operation
			a, b any
		}{{&there, x, y}, {&back, y, x}} {
			patch, err := jsondiff.CompareWithoutMarshal(way.a, way.b)
			if err != nil {
				return err
			}
			for _, operation := range patch {
				operation.Path = path + operation.Path
				*way.into = append(*way.into, operation)
			}
		}
		return nil
	}
	a, b := *from, *to
	if sameChannels(from, to) {
		for i := range from.Channels {
			if reflect.DeepEqual(from.Channels[i], to.Channels[i]) {
				continue
			}
			if err := compare("/channels/"+strconv.Itoa(i), from.Channels[i], to.Channels[i]); err != nil {
				return nil, nil, err
			}
		}
		a.Channels, b.Channels = nil, nil
	}
	if !reflect.DeepEqual(a, b) {
		if err := compare("", a, b); err != nil {
			return nil, nil, err
		}
	}
	if forward, err = written(there); err != nil {
		return nil, nil, err
	}
	backward, err = written(back)
	return forward, backward, err
}

func written(operations []jsondiff.Operation) (json.RawMessage, error) {
	if operations == nil {
		return json.RawMessage("[]"), nil
	}
	return json.Marshal(operations)
}

// sameChannels tells whether two plans have the same channels in the same order.
func sameChannels(a, b *plan.Plan) bool {
	return slices.EqualFunc(a.Channels, b.Channels, func(x, y plan.Channel) bool { return x.ID == y.ID })
}

// generic is a value as maps and lists.
func generic(of any) (v any, err error) {
	data, err := json.Marshal(of)
	if err == nil {
		err = json.Unmarshal(data, &v)
	}
	return v, err
}

// revision is a revision with all that its row holds.
type revision struct {
	Revision
	target            *int64
	forward, backward json.RawMessage
	undoNext          *int64
	redoNext          *int64
}

// revise stores a revision and the plan it makes, if version is still the newest.
func (s *Store) revise(ctx context.Context, id string, version int64, next *plan.Plan, r revision) error {
	return pgx.BeginFunc(ctx, s.pool, func(tx pgx.Tx) error {
		tag, err := tx.Exec(ctx, `
			update plan set version = $3, document = $4, undo_next = $5, redo_next = $6, changed_at = now()
			where id = $1 and version = $2`, id, version, r.Number, next, r.undoNext, r.redoNext)
		if err != nil {
			return err
		}
		if tag.RowsAffected() == 0 {
			return s.Stale(ctx, id, version)
		}
		_, err = tx.Exec(ctx, `
			insert into revision (plan, number, kind, target, author, sentence, forward, backward, undo_next, redo_next)
			values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)`,
			id, r.Number, r.Kind, r.target, r.Author, r.Sentence, r.forward, r.backward, r.undoNext, r.redoNext)
		if err != nil {
			return err
		}
		payload, err := notice(id, &r)
		if err != nil {
			return err
		}
		_, err = tx.Exec(ctx, `select pg_notify($1, $2)`, channel, payload)
		return err
	})
}

// Stale is the error for a change made on an old version: a *StaleError that tells
// what changed since, unless the database cannot tell.
func (s *Store) Stale(ctx context.Context, id string, version int64) error {
	newest, err := s.Version(ctx, id)
	if err != nil {
		return err
	}
	since, err := s.revisions(ctx, `plan = $1 and number > $2 order by number`, id, version)
	if err != nil {
		return err
	}
	return &StaleError{newest, since}
}

// History lists the newest revisions before a number, newest first; 0 for all.
func (s *Store) History(ctx context.Context, id string, before int64, limit int) ([]Revision, error) {
	if before <= 0 {
		before = 1 << 62
	}
	return s.revisions(ctx, `plan = $1 and number < $2 order by number desc limit $3`, id, before, limit)
}

func (s *Store) revisions(ctx context.Context, where string, args ...any) ([]Revision, error) {
	rows, err := s.pool.Query(ctx, `select number, kind, at, author, sentence from revision where `+where, args...)
	if err != nil {
		return nil, err
	}
	list, err := pgx.CollectRows(rows, pgx.RowToStructByPos[Revision])
	if list == nil {
		list = []Revision{}
	}
	return list, err
}

// Undo takes back the change that Head.Undo names, as a new revision.
func (s *Store) Undo(ctx context.Context, before *Head, author string) (*Change, error) {
	return s.step(ctx, before, author, "undo")
}

// Redo makes the change again that was undone last, as a new revision.
func (s *Store) Redo(ctx context.Context, before *Head, author string) (*Change, error) {
	return s.step(ctx, before, author, "redo")
}

// step undoes or redoes. Revisions remember where undo and redo led when they were
// made, so the two form lists that run through the table: before a revision x was
// made, undo led to what the revision before x remembers.
func (s *Store) step(ctx context.Context, before *Head, author, kind string) (*Change, error) {
	var undoNext, redoNext *int64
	err := s.pool.QueryRow(ctx, `select undo_next, redo_next from revision where plan = $1 and number = $2`,
		before.ID, before.Version).Scan(&undoNext, &redoNext)
	if errors.Is(err, pgx.ErrNoRows) {
		return nil, ErrNotFound
	}
	if err != nil {
		return nil, err
	}
	made := revision{Revision: Revision{Number: before.Version + 1, Kind: kind, Author: author}}
	var patch json.RawMessage
	if kind == "undo" {
		if undoNext == nil {
			return nil, ErrNothing
		}
		x, err := s.revision(ctx, before.ID, *undoNext)
		if err != nil {
			return nil, err
		}
		earlier, err := s.revision(ctx, before.ID, x.Number-1)
		if err != nil {
			return nil, err
		}
		made.target, made.undoNext, made.redoNext = &x.Number, earlier.undoNext, &made.Number
		made.Sentence, patch = x.Sentence, x.backward
		made.forward, made.backward = x.backward, x.forward
	} else {
		if redoNext == nil {
			return nil, ErrNothing
		}
		u, err := s.revision(ctx, before.ID, *redoNext)
		if err != nil {
			return nil, err
		}
		earlier, err := s.revision(ctx, before.ID, u.Number-1)
		if err != nil {
			return nil, err
		}
		made.target, made.undoNext, made.redoNext = u.target, u.target, earlier.redoNext
		made.Sentence, patch = u.Sentence, u.backward
		made.forward, made.backward = u.backward, u.forward
	}
	next, err := patched(before.Plan, patch)
	if err != nil {
		return nil, fmt.Errorf("%s of revision %d: %w", kind, *made.target, err)
	}
	if err := s.revise(ctx, before.ID, before.Version, next, made); err != nil {
		return nil, err
	}
	head, err := s.Load(ctx, before.ID)
	if err != nil {
		return nil, err
	}
	return &Change{head, made.Sentence, patch}, nil
}

func (s *Store) revision(ctx context.Context, id string, number int64) (*revision, error) {
	var r revision
	err := s.pool.QueryRow(ctx, `
		select number, kind, at, author, sentence, target, forward, backward, undo_next, redo_next
		from revision where plan = $1 and number = $2`, id, number).Scan(&r.Number, &r.Kind, &r.At, &r.Author,
		&r.Sentence, &r.target, &r.forward, &r.backward, &r.undoNext, &r.redoNext)
	return &r, err
}

// patched applies a JSON Patch to a plan.
func patched(p *plan.Plan, patch json.RawMessage) (*plan.Plan, error) {
	document, err := json.Marshal(p)
	if err != nil {
		return nil, err
	}
	steps, err := jsonpatch.DecodePatch(patch)
	if err != nil {
		return nil, err
	}
	if document, err = steps.Apply(document); err != nil {
		return nil, err
	}
	return plan.Read(document)
}
