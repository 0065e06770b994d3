package store

import (
	"context"
	"encoding/json"
	"fmt"

	"github.com/jackc/pgx/v5"

	"wakefield.example/core/plan"
)

// snapshotEvery is after how many revisions the whole plan is kept beside the patches.
const snapshotEvery = 64

// anchor is a version whose document is kept whole.
type anchor struct {
	number   int64
	document []byte // nil where it is not read yet
}

// At returns the plan as it stood after a revision. From the nearest version that is
// kept whole, the head or a snapshot, the patches are applied in one go. It fails with
// ErrNoRevision for one that the head does not have, or whose history was thinned out,
// and with an [*UnreadableError] where this program cannot read it.
func (s *Store) At(ctx context.Context, head *Head, number int64) (*plan.Plan, error) {
	if number == head.Version && head.Plan != nil {
		return head.Plan, nil
	}
	if number < 1 || number > head.Version {
		return nil, ErrNoRevision
	}
	var there bool
	err := s.pool.QueryRow(ctx, `select exists(select from revision where plan = $1 and number = $2)`, head.ID, number).Scan(&there)
	if err != nil {
		return nil, err
	}
	if !there {
		return nil, ErrNoRevision // it was thinned out
	}
	from, err := s.nearest(ctx, head, number)
	if err != nil {
		return nil, err
	}
	// Forward patches are applied in their order, backward ones against it.
	what, low, high, order := "forward", from.number, number, "asc"
	if from.number > number {
		what, low, high, order = "backward", number, from.number, "desc"
	}
	rows, err := s.pool.Query(ctx, `select `+what+` from revision where plan = $1 and number > $2 and number <= $3 order by number `+
		order, head.ID, low, high)
	if err != nil {
		return nil, err
	}
	patches, err := pgx.CollectRows(rows, pgx.RowTo[json.RawMessage])
	if err != nil {
		return nil, err
	}
	if int64(len(patches)) != high-low {
		return nil, fmt.Errorf("%d of %d revisions are missing", high-low-int64(len(patches)), high-low)
	}
	document, err := apply(from.document, patches)
	if err != nil {
		return nil, fmt.Errorf("from revision %d to %d: %w", from.number, number, err)
	}
	p, err := plan.Restore(document)
	if err != nil {
		return nil, &UnreadableError{err}
	}
	if len(patches) > 2*snapshotEvery {
		// The history is older than snapshots are; the next look back is shorter.
		_, err = s.pool.Exec(ctx, `insert into snapshot (plan, number, document) values ($1, $2, $3) on conflict do nothing`,
			head.ID, number, document)
	}
	return p, err
}

// nearest finds the version kept whole that is least far from a revision, with its
// document.
func (s *Store) nearest(ctx context.Context, head *Head, number int64) (anchor, error) {
	best := anchor{number: head.Version}
	rows, err := s.pool.Query(ctx, `
		(select number from snapshot where plan = $1 and number >= $2 order by number limit 1) union all
		(select number from snapshot where plan = $1 and number < $2 order by number desc limit 1)`, head.ID, number)
	if err != nil {
		return best, err
	}
	kept, err := pgx.CollectRows(rows, pgx.RowTo[int64])
	if err != nil {
		return best, err
	}
	far := func(n int64) int64 { return max(n-number, number-n) }
	for _, n := range kept {
		if far(n) < far(best.number) {
			best.number = n
		}
	}
	switch {
	case best.number != head.Version:
		err = s.pool.QueryRow(ctx, `select document from snapshot where plan = $1 and number = $2`, head.ID, best.number).Scan(&best.document)
	case head.Plan != nil:
		best.document, err = head.Plan.Bytes()
	default:
		best.document = head.Document
	}
	return best, err
}

// Thin removes the history of every plan of a site, those that were removed too, but for
// its newest revisions. What undo would take back beyond them cannot be undone any more.
// It returns how many went. It fails with ErrNotFound where there is no such site.
func (s *Store) Thin(ctx context.Context, site string, keep int64) (removed int64, err error) {
	rows, err := s.pool.Query(ctx, `select id from plan where site = $1 order by id`, site)
	if err != nil {
		return 0, err
	}
	plans, err := pgx.CollectRows(rows, pgx.RowTo[string])
	if err == nil && len(plans) == 0 {
		err = ErrNotFound
	}
	for _, id := range plans {
		if err == nil {
			var n int64
			n, err = s.thin(ctx, id, keep)
			removed += n
		}
	}
	return removed, err
}

func (s *Store) thin(ctx context.Context, id string, keep int64) (removed int64, err error) {
	// However long a history is, it is thinned in one go.
	err = s.inTransaction(ctx, 100*Patience, func(ctx context.Context, tx pgx.Tx) error {
		var newest int64
		err := tx.QueryRow(ctx, `select version from plan where id = $1 for update`, id).Scan(&newest)
		if err != nil {
			return orNone(err, ErrNotFound)
		}
		first := newest - max(keep, 1) + 1 // the oldest that stays; where it came from is forgotten
		tag, err := tx.Exec(ctx, `delete from revision where plan = $1 and number < $2`, id, first)
		if err != nil || tag.RowsAffected() == 0 {
			return err
		}
		removed = tag.RowsAffected()
		for _, sql := range []string{
			`update revision set forward = '[]', backward = '[]', kind = 'made', target = null where plan = $1 and number = $2`,
			`update revision set undo_next = null where plan = $1 and undo_next <= $2`,
			`update revision set redo_next = null where plan = $1 and redo_next <= $2`,
			`update plan set undo_next = null where id = $1 and undo_next <= $2`,
			`update plan set redo_next = null where id = $1 and redo_next <= $2`,
			`delete from snapshot where plan = $1 and number < $2`,
		} {
			if _, err := tx.Exec(ctx, sql, id, first); err != nil {
				return err
			}
		}
		return nil
	})
	return removed, err
}
