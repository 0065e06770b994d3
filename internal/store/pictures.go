package store

import (
	"context"

	"github.com/jackc/pgx/v5"

	"wakefield.example/internal/stills"
)

// mostPictures is how many a site keeps, those of its history too.
const mostPictures = 10_000

// AddPicture keeps a still beside the plans of the site that a plan belongs to. One that is there stays. It fails with
// ErrNotFound where there is no such plan, and with ErrManyPictures where the site has no room for more.
func (s *Store) AddPicture(ctx context.Context, planID string, still *stills.Still) error {
	var site string
	if err := s.pool.QueryRow(ctx, `select site from plan where id = $1`, planID).Scan(&site); err != nil {
		return orNone(err, ErrNotFound)
	}
	return s.deciding(ctx, site, func(ctx context.Context, tx pgx.Tx) error {
		var many int
		if err := tx.QueryRow(ctx, `select count(*) from picture where site = $1`, site).Scan(&many); err != nil {
			return err
		}
		if many >= mostPictures {
			return ErrManyPictures
		}
		return addPictures(ctx, tx, site, []*stills.Still{still})
	})
}

func addPictures(ctx context.Context, q querier, site string, list []*stills.Still) error {
	for _, p := range list {
		_, err := q.Exec(ctx, `insert into picture (site, id, width, height, jpeg) values ($1, $2, $3, $4, $5) on conflict do nothing`,
			site, p.ID, p.Width, p.Height, p.JPEG)
		if err != nil {
			return err
		}
	}
	return nil
}

// Pictures are those of a list of stills that the site of a plan has. What is not there is left out.
func (s *Store) Pictures(ctx context.Context, planID string, ids []string) ([]*stills.Still, error) {
	rows, err := s.pool.Query(ctx, `select p.id, p.width, p.height, p.jpeg from picture p join plan on plan.site = p.site
		where plan.id = $1 and p.id = any($2) order by p.id`, planID, ids)
	if err != nil {
		return nil, err
	}
	return pgx.CollectRows(rows, pgx.RowToAddrOfStructByPos[stills.Still])
}

// PictureBytes is how many bytes those of a list of stills have that the site of a plan has.
func (s *Store) PictureBytes(ctx context.Context, planID string, ids []string) (n int64, err error) {
	err = s.pool.QueryRow(ctx, `select coalesce(sum(length(p.jpeg)), 0) from picture p join plan on plan.site = p.site
		where plan.id = $1 and p.id = any($2)`, planID, ids).Scan(&n)
	return n, err
}

// CopyPictures gives a site those of a list of stills that another site has and it has not. It fails with ErrManyPictures where it has no
// room for them.
func (s *Store) CopyPictures(ctx context.Context, site, other string, ids []string) error {
	return s.deciding(ctx, site, func(ctx context.Context, tx pgx.Tx) error {
		if _, err := tx.Exec(ctx, `insert into picture (site, id, width, height, jpeg)
			select $1, id, width, height, jpeg from picture where site = $2 and id = any($3) on conflict do nothing`, site, other, ids); err != nil {
			return err
		}
		var many int
		err := tx.QueryRow(ctx, `select count(*) from picture where site = $1`, site).Scan(&many)
		if err == nil && many > mostPictures {
			err = ErrManyPictures
		}
		return err
	})
}

// A With is what comes along with a new site.
type With func(ctx context.Context, tx pgx.Tx, site string) error

// WithPictures brings stills.
func WithPictures(list []*stills.Still) With {
	return func(ctx context.Context, tx pgx.Tx, site string) error { return addPictures(ctx, tx, site, list) }
}

// WithPicturesOf brings those of a list of stills that another site has.
func WithPicturesOf(other string, ids []string) With {
	return func(ctx context.Context, tx pgx.Tx, site string) error {
		_, err := tx.Exec(ctx, `insert into picture (site, id, width, height, jpeg)
			select $1, id, width, height, jpeg from picture where site = $2 and id = any($3)`, site, other, ids)
		return err
	}
}
