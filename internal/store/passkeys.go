package store

import (
	"context"
	"time"

	"github.com/jackc/pgx/v5"
)

// Passkey is one of a person's.
type Passkey struct {
	ID         string     `json:"id"`
	Name       string     `json:"name"`
	Made       time.Time  `json:"made"`
	Used       *time.Time `json:"used" required:"true" doc:"When it was used last; null for never"`
	Credential []byte     `json:"-"` // JSON
}

// Passkeys are those of a person.
func (s *Store) Passkeys(ctx context.Context, person string) ([]Passkey, error) {
	rows, err := s.pool.Query(ctx, `select id, name, made_at, used_at, credential from passkey where person = $1 order by made_at`, person)
	if err != nil {
		return nil, err
	}
	list, err := pgx.CollectRows(rows, pgx.RowToStructByPos[Passkey])
	if list == nil {
		list = []Passkey{}
	}
	return list, err
}

// AddPasskey keeps one of a person.
func (s *Store) AddPasskey(ctx context.Context, person string, k Passkey) error {
	_, err := s.pool.Exec(ctx, `insert into passkey (id, person, name, credential) values ($1, $2, $3, $4)`, k.ID, person, k.Name, k.Credential)
	if err == nil {
		err = tellPerson(ctx, s.pool, person)
	}
	return err
}

// UsedPasskey keeps that one was used, with what is known of it then.
func (s *Store) UsedPasskey(ctx context.Context, id string, credential []byte) error {
	_, err := s.pool.Exec(ctx, `update passkey set used_at = now(), credential = $2 where id = $1`, id, credential)
	return err
}

// RemovePasskey takes one of a person away.
func (s *Store) RemovePasskey(ctx context.Context, person, id string) error {
	tag, err := s.pool.Exec(ctx, `delete from passkey where person = $1 and id = $2`, person, id)
	if err == nil && tag.RowsAffected() == 0 {
		return ErrNoLink
	}
	if err == nil {
		err = tellPerson(ctx, s.pool, person)
	}
	return err
}
