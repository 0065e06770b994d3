package store

import (
	"context"
	"fmt"

	"github.com/jackc/pgx/v5"

	"wakefield.example/core/plan"
)

// MostVariants is how many plans a site may have, those that were removed not counted; with
// them it may have MostPlans.
const (
	MostVariants = 50
	MostPlans    = 500
)

// AddPlan stores a further plan of a site, as version 1. Where one was made with the note's
// key before, it returns that one. It fails with ErrNotFound where there is no such site,
// with ErrManyVariants where it has as many as it may, and with ErrManyPlans where it has
// with those that were removed.
func (s *Store) AddPlan(ctx context.Context, site, id string, note Note, p *plan.Plan, with ...With) (*Head, error) {
	document, err := p.Bytes()
	if err != nil {
		return nil, err
	}
	if err := plan.CheckBytes(document); err != nil {
		return nil, err
	}
	if again := done(ctx, s.pool, note.Request); again != nil {
		return s.made(ctx, id, again)
	}
	err = s.deciding(ctx, site, func(ctx context.Context, tx pgx.Tx) error {
		if err := roomForOne(ctx, tx, site); err != nil {
			return err
		}
		if err := insertPlan(ctx, tx, site, id, p, document); err != nil {
			return err
		}
		if err := begin(ctx, tx, site, id, note, with); err != nil {
			return err
		}
		return tellSite(ctx, tx, SiteChanged{Site: site, What: "variant", Plan: id})
	})
	return s.made(ctx, id, s.doneIf(ctx, err, note.Request))
}

// roomForOne tells whether a site may have one variant more.
func roomForOne(ctx context.Context, tx pgx.Tx, site string) error {
	var there, all int
	if err := tx.QueryRow(ctx, `select count(*) filter (where removed_at is null), count(*) from plan where site = $1`,
		site).Scan(&there, &all); err != nil {
		return err
	}
	switch {
	case there >= MostVariants:
		return ErrManyVariants
	case all >= MostPlans:
		return ErrManyPlans
	}
	return nil
}

// RemovePlan takes a plan of a site away, or out again. Nothing is deleted. It fails with
// ErrAdopted for the one that is carried out, and with ErrManyVariants where there is no
// room for one that is to come back.
func (s *Store) RemovePlan(ctx context.Context, site, id string, away bool) error {
	return s.deciding(ctx, site, func(ctx context.Context, tx pgx.Tx) error {
		var removed, adopted bool
		err := tx.QueryRow(ctx,
			`select p.removed_at is not null, s.adopted = p.id from plan p join site s on s.id = p.site where p.id = $2 and p.site = $1`, site,
			id).Scan(&removed, &adopted)
		switch {
		case err != nil:
			return orNone(err, ErrNotFound)
		case removed == away:
			return nil
		case adopted && away:
			return fmt.Errorf("%w: %s", ErrAdopted, id)
		}
		what := "removed"
		if !away {
			what = "back"
			if err := roomForOne(ctx, tx, site); err != nil && err != ErrManyPlans { // it is counted among all already
				return err
			}
		}
		if _, err := tx.Exec(ctx, `update plan set removed_at = case when $2 then now() end where id = $1`, id, away); err != nil {
			return err
		}
		return tellSite(ctx, tx, SiteChanged{Site: site, What: what, Plan: id})
	})
}

// Adopt makes a plan of a site the one that is carried out. It fails with ErrRemoved for
// one that was removed.
func (s *Store) Adopt(ctx context.Context, site, id string) error {
	return s.deciding(ctx, site, func(ctx context.Context, tx pgx.Tx) error {
		var removed bool
		err := tx.QueryRow(ctx, `select removed_at is not null from plan where id = $2 and site = $1`, site, id).Scan(&removed)
		switch {
		case err != nil:
			return orNone(err, ErrNotFound)
		case removed:
			return ErrRemoved
		}
		if _, err := tx.Exec(ctx, `update site set adopted = $2 where id = $1`, site, id); err != nil {
			return err
		}
		return tellSite(ctx, tx, SiteChanged{Site: site, What: "adopted", Plan: id})
	})
}
