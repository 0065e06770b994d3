package store

import (
	"context"
	"encoding/json"
	"time"

	"github.com/jackc/pgx/v5"
)

// Token is a key of a program.
type Token struct {
	ID      string     `json:"id"`
	Name    string     `json:"name"`
	Writes  bool       `json:"writes" doc:"Whether it may change what its maker may; else it reads"`
	Sites   []string   `json:"sites" doc:"Ids of the sites that it is for; empty for all that its maker may see"`
	Made    time.Time  `json:"made"`
	Used    *time.Time `json:"used" required:"true" doc:"When it was used last, to a minute; null for never"`
	Expires time.Time  `json:"expires"`
	Person  string     `json:"-"`
	Maker   string     `json:"maker" doc:"Name of who made it"`
}

const tokenColumns = `t.id, t.name, t.writes, t.sites, t.made_at, t.used_at, t.expires_at, t.person, p.name`

func scanToken(row pgx.CollectableRow) (t Token, err error) {
	var sites []byte
	err = row.Scan(&t.ID, &t.Name, &t.Writes, &sites, &t.Made, &t.Used, &t.Expires, &t.Person, &t.Maker)
	if err == nil {
		err = json.Unmarshal(sites, &t.Sites)
	}
	return t, err
}

// Tokens are those of the company, or of one person where one is named.
func (s *Store) Tokens(ctx context.Context, person string) ([]Token, error) {
	rows, err := s.pool.Query(ctx, `select `+tokenColumns+` from token t join person p on p.id = t.person where $1 = '' or t.person = $1 order by t.made_at desc`, person)
	if err != nil {
		return nil, err
	}
	list, err := pgx.CollectRows(rows, scanToken)
	if list == nil {
		list = []Token{}
	}
	return list, err
}

// TokenOf is the token of a hash, while it is good. It fails with ErrNoLink.
func (s *Store) TokenOf(ctx context.Context, hash string) (*Token, error) {
	rows, err := s.pool.Query(ctx, `select `+tokenColumns+` from token t join person p on p.id = t.person where t.hash = $1 and t.expires_at > now()`, hash)
	if err != nil {
		return nil, err
	}
	t, err := pgx.CollectExactlyOneRow(rows, scanToken)
	return &t, orNone(err, ErrNoLink)
}

// AddToken keeps one by its hash.
func (s *Store) AddToken(ctx context.Context, t Token, hash string) error {
	sites, err := json.Marshal(append([]string{}, t.Sites...))
	if err != nil {
		return err
	}
	_, err = s.pool.Exec(ctx, `insert into token (id, company, person, name, hash, writes, sites, expires_at) values ($1, `+companyNow+`, $2, $3, $4, $5, $6, $7)`,
		t.ID, t.Person, t.Name, hash, t.Writes, sites, t.Expires)
	return err
}

// UsedToken keeps that a token was used.
func (s *Store) UsedToken(ctx context.Context, id string) error {
	_, err := s.pool.Exec(ctx, `update token set used_at = now() where id = $1`, id)
	return err
}

// EndToken ends one, of a person where one is named.
func (s *Store) EndToken(ctx context.Context, person, id string) error {
	return s.inTransaction(ctx, Patience, func(ctx context.Context, tx pgx.Tx) error {
		var of string
		if err := tx.QueryRow(ctx, `delete from token where id = $2 and ($1 = '' or person = $1) returning person`, person, id).Scan(&of); err != nil {
			return orNone(err, ErrNoLink)
		}
		return tellPerson(ctx, tx, of)
	})
}
