package store

import (
	"context"

	"github.com/alexedwards/scs/pgxstore"
	"github.com/jackc/pgx/v5/pgxpool"
)

// Sessions are what cookies lead to. They have connections of their own, as nobody is known yet when they are asked for.
func (s *Store) Sessions(ctx context.Context) (*pgxstore.PostgresStore, error) {
	config := s.pool.Config()
	config.MaxConns = 3
	config.PrepareConn = nil
	pool, err := pgxpool.NewWithConfig(ctx, config)
	if err != nil {
		return nil, err
	}
	s.sessions = pool
	context.AfterFunc(s.closing, pool.Close)
	return pgxstore.New(pool), nil
}

// Owner is which company a site belongs to, and which site a plan is of. It fails with ErrNotFound where there is none.
func (s *Store) Owner(ctx context.Context, planOrSite string, isPlan bool) (company, site string, err error) {
	sql := `select company, id from site where id = $1`
	if isPlan {
		sql = `select s.company, s.id from plan p join site s on s.id = p.site where p.id = $1`
	}
	err = s.pool.QueryRow(Everything(ctx), sql, planOrSite).Scan(&company, &site)
	return company, site, orNone(err, ErrNotFound)
}
