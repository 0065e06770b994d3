package store

import (
	"context"
	"fmt"

	"github.com/jackc/pgx/v5"

	"wakefield/core/plan"
)

// MostVariants is how many plans a site may have, those that were removed not counted.
const MostVariants = 50

// AddPlan stores a further plan of a site, as version 1. Where one was made with the note's
// key before, it returns that one. It fails with ErrNotFound where there is no such site,
// and with ErrManyVariants where it has as many as it may.
func (s *Store) AddPlan(ctx context.Context, site, id string, note Note, p *plan.Plan, with ...With) (*Head, error) {
	document, err := p.Bytes()
	if err != nil {
		return nil, err
	}
	if err := plan.CheckBytes(document); err != nil {
		return nil, err
	}
	err = s.inTransaction(ctx, func(tx pgx.Tx) error {
		// The site's row is held, so that two who add at once do not pass the limit together.
		if err := tx.QueryRow(ctx, `select id from site where id = $1 for update`, site).Scan(new(string)); err != nil {
			return orNone(err, ErrNotFound)
		}
		var many int
		if err := tx.QueryRow(ctx, `select count(*) from plan where site = $1 and removed_at is null and (request is null or request is distinct from $2)`, site, note.request()).Scan(&many); err != nil {
			return err
		}
		if many >= MostVariants {
			return ErrManyVariants
		}
		if _, err := tx.Exec(ctx, `insert into plan (id, site, version, document, request) values ($1, $2, 1, $3, $4)`, id, site, document, note.request()); err != nil {
			return err
		}
		return begin(ctx, tx, site, id, note, with)
	})
	if duplicates(err, "plan_request_key") {
		err = s.pool.QueryRow(ctx, `select id from plan where request = $1`, note.Request).Scan(&id)
	}
	if err != nil {
		return nil, err
	}
	return s.Load(ctx, id)
}

// RemovePlan takes a plan of a site away, or out again. Nothing is deleted. It fails with
// ErrAdopted for the one that is carried out.
func (s *Store) RemovePlan(ctx context.Context, site, id string, away bool) error {
	tag, err := s.pool.Exec(ctx, `update plan set removed_at = case when $3 then coalesce(removed_at, now()) end
		where id = $2 and site = $1 and not ($3 and exists (select from site where adopted = $2))`, site, id, away)
	if err != nil || tag.RowsAffected() > 0 {
		return err
	}
	return s.whyNot(ctx, site, id)
}

// Adopt makes a plan of a site the one that is carried out. It fails with ErrRemoved for
// one that was taken away.
func (s *Store) Adopt(ctx context.Context, site, id string) error {
	tag, err := s.pool.Exec(ctx, `update site set adopted = $2 where id = $1
		and exists (select from plan where id = $2 and site = $1 and removed_at is null)`, site, id)
	if err != nil || tag.RowsAffected() > 0 {
		return err
	}
	return s.whyNot(ctx, site, id)
}

// whyNot says why a plan of a site could be neither removed nor adopted.
func (s *Store) whyNot(ctx context.Context, site, id string) error {
	var removed bool
	err := s.pool.QueryRow(ctx, `select removed_at is not null from plan where id = $2 and site = $1`, site, id).Scan(&removed)
	switch {
	case err != nil:
		return orNone(err, ErrNotFound)
	case removed:
		return ErrRemoved
	}
	return fmt.Errorf("%w: %s", ErrAdopted, id)
}
