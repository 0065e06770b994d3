package store

import (
	"context"
	"encoding/json"
	"errors"
	"slices"
	"time"

	"github.com/jackc/pgx/v5"
)

// Role is what a person may do at a site.
type Role struct {
	Site string `json:"site" doc:"Id"`
	Role string `json:"role" enum:"planner,fitter,reader" doc:"A planner changes the plan; a fitter reads it and ticks what was done; a reader reads"`
}

// Person is who may sign in.
type Person struct {
	ID      string    `json:"id"`
	Name    string    `json:"name"`
	Planner bool      `json:"planner" doc:"Whether a planner of all sites of the company, who also decides who may do what"`
	Roles   []Role    `json:"roles" doc:"At single sites"`
	Made    time.Time `json:"made"`

	Company string `json:"-"`
	Secrets `json:"-"`
}

// Secrets are what a person shows to be who they are.
type Secrets struct {
	Key      string // the name as it is compared
	Password string // Argon2id; empty for none
	Code     string // secret of one-time codes; empty for none
	CodeStep int64  // the last one used
	Handle   []byte // under which passkeys know the person
	Passkeys int
	AsksTwo  bool // whether the company asks for a passkey, or a code beside the password
}

const personColumns = `p.id, p.name, p.planner, p.made_at, p.company, coalesce(p.key, ''), coalesce(p.password, ''), coalesce(p.code, ''), p.code_step, p.handle,
	(select count(*) from passkey k where k.person = p.id), (select asks_two from company c where c.id = p.company),
	coalesce((select jsonb_agg(jsonb_build_object('site', r.site, 'role', r.role) order by r.site) from site_role r where r.person = p.id), '[]')`

func scanPerson(row pgx.CollectableRow) (p Person, err error) {
	var roles []byte
	err = row.Scan(&p.ID, &p.Name, &p.Planner, &p.Made, &p.Company, &p.Key, &p.Password, &p.Code, &p.CodeStep, &p.Handle, &p.Passkeys,
		&p.AsksTwo, &roles)
	if err == nil {
		err = json.Unmarshal(roles, &p.Roles)
	}
	return p, err
}

func (s *Store) person(ctx context.Context, q querier, where string, args ...any) (*Person, error) {
	rows, err := q.Query(ctx, `select `+personColumns+` from person p where p.removed_at is null and `+where, args...)
	if err != nil {
		return nil, err
	}
	p, err := pgx.CollectExactlyOneRow(rows, scanPerson)
	if err != nil {
		return nil, orNone(err, ErrNoPerson)
	}
	return &p, nil
}

// Person is one by id. It fails with ErrNoPerson where there is none any more.
func (s *Store) Person(ctx context.Context, id string) (*Person, error) {
	return s.person(ctx, s.pool, `p.id = $1`, id)
}

// PersonNamed is the one whose name compares like a key.
func (s *Store) PersonNamed(ctx context.Context, key string) (*Person, error) {
	return s.person(ctx, s.pool, `p.key = $1`, key)
}

// PersonOfHandle is the one whom passkeys know under a handle.
func (s *Store) PersonOfHandle(ctx context.Context, handle []byte) (*Person, error) {
	return s.person(ctx, s.pool, `p.handle = $1`, handle)
}

// People are those of the company, by name.
func (s *Store) People(ctx context.Context) ([]Person, error) {
	rows, err := s.pool.Query(ctx, `select `+personColumns+` from person p where p.removed_at is null order by p.name, p.id`)
	if err != nil {
		return nil, err
	}
	list, err := pgx.CollectRows(rows, scanPerson)
	return slices.Concat([]Person{}, list), err
}

// AnyPerson tells whether anybody has an account on this server.
func (s *Store) AnyPerson(ctx context.Context) (any bool, err error) {
	err = s.pool.QueryRow(Everything(ctx), `select exists(select from person where removed_at is null)`).Scan(&any)
	return any, err
}

// tellPerson tells all servers that what is known of a person, or of a link, is to be asked for again.
func tellPerson(ctx context.Context, q querier, id string) error {
	_, err := q.Exec(ctx, `select pg_notify($1, $2)`, peopleTold, id)
	return err
}

// mostRoles a person may have.
const mostRoles = 5000

// setRoles gives a person roles at sites, and no others.
func setRoles(ctx context.Context, tx pgx.Tx, person string, roles []Role) error {
	if len(roles) > mostRoles {
		return ErrManyRoles
	}
	if _, err := tx.Exec(ctx, `delete from site_role where person = $1`, person); err != nil {
		return err
	}
	for _, r := range roles {
		// A site of another company is none that is seen.
		tag, err := tx.Exec(ctx, `insert into site_role (person, site, role) select $1, id, $3 from site where id = $2 on conflict do nothing`,
			person, r.Site, r.Role)
		if err != nil {
			return err
		}
		if tag.RowsAffected() == 0 {
			return ErrNotFound
		}
	}
	return nil
}

// SetRoles says what a person may do. It fails with ErrLastPlanner where nobody would be left to decide about people.
func (s *Store) SetRoles(ctx context.Context, id string, planner bool, roles []Role) error {
	return s.aboutPeople(ctx, func(ctx context.Context, tx pgx.Tx) error {
		if _, err := s.person(ctx, tx, `p.id = $1`, id); err != nil {
			return err
		}
		if _, err := tx.Exec(ctx, `update person set planner = $2 where id = $1`, id, planner); err != nil {
			return err
		}
		if err := setRoles(ctx, tx, id, roles); err != nil {
			return err
		}
		return onePlannerStays(ctx, tx, id)
	})
}

// RemovePerson ends an account: nobody signs in with it again, and who is signed in is not any more.
func (s *Store) RemovePerson(ctx context.Context, id string) error {
	return s.aboutPeople(ctx, func(ctx context.Context, tx pgx.Tx) error {
		tag, err := tx.Exec(ctx, `update person set removed_at = now(), key = null, password = null, code = null, planner = false
			where id = $1 and removed_at is null`, id)
		switch {
		case err != nil:
			return err
		case tag.RowsAffected() == 0:
			return ErrNoPerson
		}
		for _, sql := range []string{
			`delete from site_role where person = $1`, `delete from passkey where person = $1`, `delete from recovery where person = $1`,
			`delete from seat where person = $1`, `delete from token where person = $1`, `delete from invitation where person = $1`,
			`delete from kept_search where person = $1`,
		} {
			if _, err := tx.Exec(ctx, sql, id); err != nil {
				return err
			}
		}
		return onePlannerStays(ctx, tx, id)
	})
}

// aboutPeople decides about who may do what, one decision at a time.
func (s *Store) aboutPeople(ctx context.Context, do func(ctx context.Context, tx pgx.Tx) error) error {
	return s.inTransaction(ctx, Patience, func(ctx context.Context, tx pgx.Tx) error {
		if _, err := tx.Exec(ctx, `select pg_advisory_xact_lock(hashtext('wakefield people'))`); err != nil {
			return err
		}
		return do(ctx, tx)
	})
}

// onePlannerStays refuses what would leave a company without anybody who decides about people, and tells of the person.
func onePlannerStays(ctx context.Context, tx pgx.Tx, id string) error {
	var left bool
	err := tx.QueryRow(ctx, `select exists(select from person p join person q on p.company = q.company
		where q.id = $1 and p.planner and p.removed_at is null)`, id).Scan(&left)
	switch {
	case err != nil:
		return err
	case !left:
		return ErrLastPlanner
	}
	return tellPerson(ctx, tx, id)
}

// SetPassword sets the password of a person, none where its hash is empty, and ends all their sessions but one.
func (s *Store) SetPassword(ctx context.Context, id, hash, butSeat string) error {
	return s.inTransaction(ctx, Patience, func(ctx context.Context, tx pgx.Tx) error {
		tag, err := tx.Exec(ctx, `update person set password = nullif($2, '') where id = $1 and removed_at is null`, id, hash)
		switch {
		case err != nil:
			return err
		case tag.RowsAffected() == 0:
			return ErrNoPerson
		}
		if _, err := tx.Exec(ctx, `delete from seat where person = $1 and id <> $2`, id, butSeat); err != nil {
			return err
		}
		return tellPerson(ctx, tx, id)
	})
}

// SetCode sets the secret of a person's one-time codes, with the hashes of the codes for when they are lost; an empty one
// takes both away.
func (s *Store) SetCode(ctx context.Context, id, secret string, recovery []string) error {
	return s.inTransaction(ctx, Patience, func(ctx context.Context, tx pgx.Tx) error {
		if _, err := tx.Exec(ctx, `update person set code = nullif($2, ''), code_step = 0 where id = $1`, id, secret); err != nil {
			return err
		}
		if _, err := tx.Exec(ctx, `delete from recovery where person = $1`, id); err != nil {
			return err
		}
		for _, hash := range recovery {
			if _, err := tx.Exec(ctx, `insert into recovery (person, hash) values ($1, $2)`, id, hash); err != nil {
				return err
			}
		}
		return tellPerson(ctx, tx, id)
	})
}

// UseCode takes a one-time code by its time step. It is false for one that was used, or is older than one that was.
func (s *Store) UseCode(ctx context.Context, id string, step int64) (bool, error) {
	tag, err := s.pool.Exec(ctx, `update person set code_step = $2 where id = $1 and code_step < $2`, id, step)
	return tag.RowsAffected() == 1, err
}

// UseRecovery takes a code for when the device is lost, by its hash. It is false for one that is none, or was used.
func (s *Store) UseRecovery(ctx context.Context, id, hash string) (bool, error) {
	tag, err := s.pool.Exec(ctx, `delete from recovery where person = $1 and hash = $2`, id, hash)
	return tag.RowsAffected() == 1, err
}

// RecoveryLeft is how many of those codes a person has left.
func (s *Store) RecoveryLeft(ctx context.Context, id string) (n int, err error) {
	err = s.pool.QueryRow(ctx, `select count(*) from recovery where person = $1`, id).Scan(&n)
	return n, err
}

// AskTwo says whether everybody of the company has to show a passkey, or a code beside the password.
func (s *Store) AskTwo(ctx context.Context, yes bool) error {
	return s.inTransaction(ctx, Patience, func(ctx context.Context, tx pgx.Tx) error {
		if _, err := tx.Exec(ctx, `update company set asks_two = $1 where id = `+companyNow, yes); err != nil {
			return err
		}
		rows, err := tx.Query(ctx, `select id from person where removed_at is null`)
		if err != nil {
			return err
		}
		ids, err := pgx.CollectRows(rows, pgx.RowTo[string])
		for _, id := range ids {
			if err == nil {
				err = tellPerson(ctx, tx, id)
			}
		}
		return err
	})
}

// Errors about people.
var (
	ErrNoPerson    = errors.New("no such person")
	ErrNameTaken   = errors.New("the name is taken")
	ErrLastPlanner = errors.New("the last planner")
	ErrManyRoles   = errors.New("too many roles")
	ErrNoLink      = errors.New("the link is not valid")
)
