package store

import (
	"context"
	"encoding/json"
	"fmt"

	"github.com/jackc/pgx/v5"

	"wakefield/core/plan"
)

// At returns the plan as it stood after a revision: the patches back are applied to
// the head, newest first. It fails with ErrNotFound for a revision that the head does
// not have.
func (s *Store) At(ctx context.Context, head *Head, number int64) (*plan.Plan, error) {
	if number < 1 || number > head.Version {
		return nil, ErrNotFound
	}
	rows, err := s.pool.Query(ctx, `select backward from revision where plan = $1 and number > $2 and number <= $3 order by number desc`,
		head.ID, number, head.Version)
	if err != nil {
		return nil, err
	}
	patches, err := pgx.CollectRows(rows, pgx.RowTo[json.RawMessage])
	if err != nil {
		return nil, err
	}
	p := head.Plan
	for i, patch := range patches {
		if p, err = patched(p, patch); err != nil {
			return nil, fmt.Errorf("back from revision %d: %w", head.Version-int64(i), err)
		}
	}
	return p, nil
}
