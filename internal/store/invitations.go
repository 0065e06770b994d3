package store

import (
	"context"
	"encoding/json"
	"time"

	"github.com/jackc/pgx/v5"
)

// Invitation is what a link is good for, once: to make an account, or to set a password.
type Invitation struct {
	Hash    string    `json:"-"` // of the secret in the link
	Kind    string    `json:"kind" enum:"first,invited,reset" doc:"Make the first planner's account; make one by invitation; set the password of one"`
	Company string    `json:"-"`
	Person  string    `json:"-"` // whose password is set
	Name    string    `json:"name" doc:"Suggested, or whose password it is; may be empty"`
	Planner bool      `json:"planner"`
	Roles   []Role    `json:"roles"`
	MadeBy  string    `json:"madeBy"`
	Expires time.Time `json:"expires"`
}

// Invite keeps an invitation. One for a password takes the place of the one before.
func (s *Store) Invite(ctx context.Context, i Invitation) error {
	roles, err := json.Marshal(append([]Role{}, i.Roles...))
	if err != nil {
		return err
	}
	return s.inTransaction(ctx, Patience, func(ctx context.Context, tx pgx.Tx) error {
		if _, err := tx.Exec(ctx, `delete from invitation where expires_at < now() or kind = $1 and person = $2`, i.Kind, i.Person); err != nil {
			return err
		}
		_, err := tx.Exec(ctx, `insert into invitation (hash, company, kind, person, name, planner, roles, made_by, expires_at)
			values ($1, $2, $3, nullif($4, ''), $5, $6, $7, $8, $9)`,
			i.Hash, i.Company, i.Kind, i.Person, i.Name, i.Planner, roles, i.MadeBy, i.Expires)
		return err
	})
}

// Invited is the invitation of a hash, while it is good. It fails with ErrNoLink.
func (s *Store) Invited(ctx context.Context, hash string) (*Invitation, error) {
	return invited(ctx, s.pool, hash, "")
}

func invited(ctx context.Context, q querier, hash, lock string) (*Invitation, error) {
	i := Invitation{Hash: hash}
	var roles []byte
	err := q.QueryRow(ctx, `select kind, company, coalesce(person, ''), name, planner, roles, made_by, expires_at from invitation
		where hash = $1 and expires_at > now() `+lock, hash).
		Scan(&i.Kind, &i.Company, &i.Person, &i.Name, &i.Planner, &roles, &i.MadeBy, &i.Expires)
	if err == nil {
		err = json.Unmarshal(roles, &i.Roles)
	}
	return &i, orNone(err, ErrNoLink)
}

// Accept makes the account of an invitation, or sets its password, once. It fails with ErrNoLink, and with ErrNameTaken.
func (s *Store) Accept(ctx context.Context, hash string, p Person) (*Person, error) {
	id := p.ID
	err := s.aboutPeople(ctx, func(ctx context.Context, tx pgx.Tx) error {
		i, err := invited(ctx, tx, hash, "for update")
		if err != nil {
			return err
		}
		if i.Kind == "first" {
			var any bool
			if err := tx.QueryRow(ctx, `select exists(select from person where removed_at is null)`).Scan(&any); err != nil {
				return err
			}
			if any {
				return ErrNoLink // somebody was quicker
			}
		}
		if _, err := tx.Exec(ctx, `delete from invitation where hash = $1`, hash); err != nil {
			return err
		}
		if i.Kind == "reset" {
			id = i.Person
			if _, err := tx.Exec(ctx, `update person set password = $2, code = null where id = $1`, id, p.Password); err != nil {
				return err
			}
			for _, sql := range []string{`delete from seat where person = $1`, `delete from recovery where person = $1`} {
				if _, err := tx.Exec(ctx, sql, id); err != nil {
					return err
				}
			}
			return tellPerson(ctx, tx, id)
		}
		if _, err := tx.Exec(ctx, `insert into person (id, company, name, key, planner, password, handle) values ($1, $2, $3, $4, $5, nullif($6, ''), $7)`,
			id, i.Company, p.Name, p.Key, i.Planner, p.Password, p.Handle); err != nil {
			return err
		}
		return setRoles(ctx, tx, id, i.Roles)
	})
	if duplicates(err, "person_key") {
		return nil, ErrNameTaken
	}
	if err != nil {
		return nil, err
	}
	return s.Person(ctx, id)
}

// AddCompany makes a company on this server, whose sites and people nobody of another sees.
func (s *Store) AddCompany(ctx context.Context, id, name string) error {
	_, err := s.pool.Exec(ctx, `insert into company (id, name) values ($1, $2)`, id, name)
	if duplicates(err, "company_pkey") {
		return ErrNameTaken
	}
	return err
}

// AddPerson makes an account as it is, for samples.
func (s *Store) AddPerson(ctx context.Context, p Person) error {
	return s.inTransaction(ctx, Patience, func(ctx context.Context, tx pgx.Tx) error {
		if _, err := tx.Exec(ctx, `insert into company (id, name) values ($1, '') on conflict do nothing`, p.Company); err != nil {
			return err
		}
		tag, err := tx.Exec(ctx, `insert into person (id, company, name, key, planner, password, handle) values ($1, $2, $3, $4, $5, nullif($6, ''), $7)
			on conflict do nothing`, p.ID, p.Company, p.Name, p.Key, p.Planner, p.Password, p.Handle)
		if err != nil || tag.RowsAffected() == 0 {
			return err
		}
		return setRoles(ctx, tx, p.ID, p.Roles)
	})
}
