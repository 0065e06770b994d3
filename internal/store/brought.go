package store

import (
	"context"
	"encoding/json"
	"errors"
	"time"

	"github.com/jackc/pgx/v5"
)

// Brought is what was found at a site, as it was understood. It is never changed.
type Brought struct {
	ID     string
	Kind   string
	Name   string // of the file
	Said   json.RawMessage
	Author string
	At     time.Time
}

// MostBrought are kept of a site.
const MostBrought = 200

// ErrManyBrought says that a site keeps no more of what was found.
var ErrManyBrought = errors.New("the site keeps no more of what was found")

// BroughtOf is what was brought in of a site, oldest first.
func (s *Store) BroughtOf(ctx context.Context, site string) ([]Brought, error) {
	rows, err := s.pool.Query(ctx, `select id, kind, name, said, author, at from brought where site = $1 order by at, id`, site)
	if err != nil {
		return nil, err
	}
	return pgx.CollectRows(rows, pgx.RowToStructByPos[Brought])
}

// Bring keeps what was found. It fails with ErrNotFound where there is no such site, and with ErrManyBrought where it has no room.
func (s *Store) Bring(ctx context.Context, site string, b Brought) error {
	return s.deciding(ctx, site, func(ctx context.Context, tx pgx.Tx) error {
		var many int
		if err := tx.QueryRow(ctx, `select count(*) from brought where site = $1`, site).Scan(&many); err != nil {
			return err
		}
		if many >= MostBrought {
			return ErrManyBrought
		}
		_, err := tx.Exec(ctx, `insert into brought (site, id, kind, name, said, author) values ($1, $2, $3, $4, $5, $6)`,
			site, b.ID, b.Kind, b.Name, b.Said, b.Author)
		if err != nil {
			return err
		}
		return tellSite(ctx, tx, SiteChanged{Site: site, What: "measured"})
	})
}

// TakeAway takes what was found away again. It fails with ErrNotFound where it is not there.
func (s *Store) TakeAway(ctx context.Context, site, id string) error {
	return s.deciding(ctx, site, func(ctx context.Context, tx pgx.Tx) error {
		done, err := tx.Exec(ctx, `delete from brought where site = $1 and id = $2`, site, id)
		if err != nil {
			return err
		}
		if done.RowsAffected() == 0 {
			return ErrNotFound
		}
		if _, err := tx.Exec(ctx, `delete from compared where site = $1 and not exists (select from brought where site = $1)`, site); err != nil {
			return err
		}
		return tellSite(ctx, tx, SiteChanged{Site: site, What: "measured"})
	})
}

// Compared is what a comparison of a site said.
type Compared struct {
	Site string
	Said json.RawMessage
	At   time.Time
}

// SetCompared keeps what a comparison said, in the place of the one before. A site that is gone has none.
func (s *Store) SetCompared(ctx context.Context, site string, said json.RawMessage) error {
	_, err := s.pool.Exec(ctx, `insert into compared (site, said) select id, $2 from site where id = $1
		on conflict (site) do update set said = excluded.said, at = now() where compared.said is distinct from excluded.said`, site, said)
	return err
}

// ComparedOf are the comparisons of all sites of the company.
func (s *Store) ComparedOf(ctx context.Context) ([]Compared, error) {
	rows, err := s.pool.Query(ctx, `select site, said, at from compared order by site`)
	if err != nil {
		return nil, err
	}
	return pgx.CollectRows(rows, pgx.RowToStructByPos[Compared])
}

// Learns tells whether new sites of the company begin with what was found at others.
func (s *Store) Learns(ctx context.Context) (learns bool, err error) {
	err = s.pool.QueryRow(ctx, `select coalesce(bool_or(learns), false) from company where id = `+companyNow).Scan(&learns)
	return learns, err
}

// SetLearns says so.
func (s *Store) SetLearns(ctx context.Context, learns bool) error {
	_, err := s.pool.Exec(ctx, `update company set learns = $1 where id = `+companyNow, learns)
	return err
}
