package store

import (
	"context"
	"encoding/json"
	"time"

	"github.com/jackc/pgx/v5"
)

// Link is what a customer sees of a site without an account.
type Link struct {
	ID        string     `json:"id"`
	Site      string     `json:"site" doc:"Id"`
	Plan      string     `json:"plan" doc:"Id of the variant"`
	Name      string     `json:"name" doc:"For whom it is"`
	Shows     []string   `json:"shows" doc:"verdict, weeks, papers, prices"`
	Password  string     `json:"-"` // Argon2id; empty for none
	Protected bool       `json:"protected" doc:"Whether a password is asked"`
	MadeBy    string     `json:"madeBy"`
	Made      time.Time  `json:"made"`
	Expires   time.Time  `json:"expires"`
	Ended     *time.Time `json:"ended" required:"true" doc:"When somebody ended it; null for nobody did"`
	Looked    int        `json:"looked" doc:"How often something was looked at"`
	Last      *time.Time `json:"last" required:"true" doc:"When something was looked at last; null for never"`
	Company   string     `json:"-"`
}

const linkColumns = `l.id, l.site, l.plan, l.name, l.shows, coalesce(l.password, ''), l.made_by, l.made_at, l.expires_at, l.ended_at,
	(select count(*) from viewing v where v.link = l.id), (select max(v.at) from viewing v where v.link = l.id), s.company`

func scanLink(row pgx.CollectableRow) (l Link, err error) {
	var shows []byte
	err = row.Scan(&l.ID, &l.Site, &l.Plan, &l.Name, &shows, &l.Password, &l.MadeBy, &l.Made, &l.Expires, &l.Ended,
		&l.Looked, &l.Last, &l.Company)
	if err == nil {
		err = json.Unmarshal(shows, &l.Shows)
	}
	l.Protected = l.Password != ""
	return l, err
}

// Links are those of a site, the newest first, ended ones too.
func (s *Store) Links(ctx context.Context, site string) ([]Link, error) {
	rows, err := s.pool.Query(ctx, `select `+linkColumns+
		` from link l join site s on s.id = l.site where l.site = $1 order by l.made_at desc limit 500`, site)
	if err != nil {
		return nil, err
	}
	list, err := pgx.CollectRows(rows, scanLink)
	if list == nil {
		list = []Link{}
	}
	return list, err
}

// LinkOf is the link of a hash, while it is good. It fails with ErrNoLink.
func (s *Store) LinkOf(ctx context.Context, hash string) (*Link, error) {
	rows, err := s.pool.Query(ctx, `select `+linkColumns+` from link l join site s on s.id = l.site join plan p on p.id = l.plan
		where l.hash = $1 and l.ended_at is null and l.expires_at > now() and s.archived_at is null and p.removed_at is null`, hash)
	if err != nil {
		return nil, err
	}
	l, err := pgx.CollectExactlyOneRow(rows, scanLink)
	return &l, orNone(err, ErrNoLink)
}

// AddLink keeps one by its hash, of a plan of its site. It fails with ErrNotFound where the site has no such plan.
func (s *Store) AddLink(ctx context.Context, l Link, hash string) error {
	shows, err := json.Marshal(l.Shows)
	if err != nil {
		return err
	}
	tag, err := s.pool.Exec(ctx, `insert into link (id, site, plan, name, hash, shows, password, made_by, expires_at)
		select $1, site, id, $4, $5, $6, nullif($7, ''), $8, $9 from plan where site = $2 and id = $3 and removed_at is null`,
		l.ID, l.Site, l.Plan, l.Name, hash, shows, l.Password, l.MadeBy, l.Expires)
	if err == nil && tag.RowsAffected() == 0 {
		return ErrNotFound
	}
	return err
}

// EndLink ends one of a site.
func (s *Store) EndLink(ctx context.Context, site, id string) error {
	tag, err := s.pool.Exec(ctx, `update link set ended_at = coalesce(ended_at, now()) where site = $1 and id = $2`, site, id)
	if err == nil && tag.RowsAffected() == 0 {
		return ErrNoLink
	}
	return err
}

// Viewing is what was looked at by a link.
type Viewing struct {
	At      time.Time `json:"at"`
	What    string    `json:"what"`
	Address string    `json:"address"`
}

// View keeps that something was looked at by a link; the same by the same address within five minutes is one look.
func (s *Store) View(ctx context.Context, link, what, address string) error {
	_, err := s.pool.Exec(ctx, `insert into viewing (link, what, address) select $1, $2, $3
		where not exists (select from viewing where link = $1 and what = $2 and address = $3 and at > now() - interval '5 minutes')`, link, what, address)
	return err
}

// Viewings are the last 500 of a link, the newest first.
func (s *Store) Viewings(ctx context.Context, site, link string) ([]Viewing, error) {
	rows, err := s.pool.Query(ctx, `select v.at, v.what, v.address from viewing v join link l on l.id = v.link
		where l.site = $1 and l.id = $2 order by v.at desc limit 500`, site, link)
	if err != nil {
		return nil, err
	}
	list, err := pgx.CollectRows(rows, pgx.RowToStructByPos[Viewing])
	if list == nil {
		list = []Viewing{}
	}
	return list, err
}
