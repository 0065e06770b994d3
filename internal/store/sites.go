package store

import (
	"context"
	"time"

	"github.com/jackc/pgx/v5"

	"wakefield/core/plan"
)

// Site is a place that plans are made for.
type Site struct {
	ID       string     `json:"id"`
	Adopted  string     `json:"adopted" doc:"Id of the plan that is carried out"`
	Archived bool       `json:"archived" doc:"Whether it is archived"`
	Plans    []PlanLine `json:"plans" doc:"All its plans, the oldest first"`
}

// PlanLine is a plan of a site in one line.
type PlanLine struct {
	ID      string    `json:"id"`
	Name    string    `json:"name"`
	Version int64     `json:"version"`
	Changed time.Time `json:"changed"`
	Removed bool      `json:"removed" doc:"Whether it was taken away"`
	// KeptDays is what was worked out when it was changed last.
	KeptDays *float64 `json:"keptDays" required:"true" doc:"For how many days the channel that is kept shortest is kept; null where nothing takes it away, or nobody worked it out"`
}

// Create stores a new site with its first plan, as version 1; both have the id, and the
// plan is adopted. Where a site was created with the note's key before, it returns that
// one's plan.
func (s *Store) Create(ctx context.Context, id string, note Note, p *plan.Plan, with ...With) (*Head, error) {
	document, err := p.Bytes()
	if err != nil {
		return nil, err
	}
	if err := plan.CheckBytes(document); err != nil {
		return nil, err
	}
	err = s.inTransaction(ctx, func(tx pgx.Tx) error {
		if _, err := tx.Exec(ctx, `insert into site (id, adopted, request) values ($1, $1, $2)`, id, note.request()); err != nil {
			return err
		}
		if _, err := tx.Exec(ctx, `insert into plan (id, site, version, document) values ($1, $1, 1, $2)`, id, document); err != nil {
			return err
		}
		return begin(ctx, tx, id, id, note, with)
	})
	if duplicates(err, "site_request_key") {
		err = s.pool.QueryRow(ctx, `select adopted from site where request = $1`, note.Request).Scan(&id)
	}
	if err != nil {
		return nil, err
	}
	return s.Load(ctx, id)
}

// begin stores the first revision of a plan of a site, and what comes along with it.
func begin(ctx context.Context, tx pgx.Tx, site, id string, note Note, with []With) error {
	_, err := tx.Exec(ctx, `insert into revision (plan, number, kind, author, sentence, forward, backward, kept_days)
		values ($1, 1, 'made', $2, $3, '[]', '[]', $4)`, id, note.Author, note.sentence(), note.KeptDays)
	for _, bring := range with {
		if err == nil {
			err = bring(ctx, tx, site)
		}
	}
	return err
}

// Site returns a site with its plans. It fails with ErrNotFound where there is none.
func (s *Store) Site(ctx context.Context, id string) (*Site, error) {
	rows, err := s.pool.Query(ctx, `
		select s.adopted, s.archived_at is not null, p.id, coalesce(p.document->>'name', ''), p.version, p.changed_at, p.removed_at is not null, r.kept_days
		from site s join plan p on p.site = s.id left join revision r on r.plan = p.id and r.number = p.version where s.id = $1 order by p.created_at, p.id`, id)
	if err != nil {
		return nil, err
	}
	site := &Site{ID: id}
	var line PlanLine
	_, err = pgx.ForEachRow(rows, []any{&site.Adopted, &site.Archived, &line.ID, &line.Name, &line.Version, &line.Changed, &line.Removed, &line.KeptDays}, func() error {
		site.Plans = append(site.Plans, line)
		return nil
	})
	if err == nil && site.Plans == nil {
		err = ErrNotFound
	}
	return site, err
}

// Summary is a line of the list of sites, with its adopted plan.
type Summary struct {
	ID       string    `json:"id"`
	Plan     string    `json:"plan" doc:"Id of the adopted plan"`
	Name     string    `json:"name"`
	Variant  string    `json:"variant" doc:"Name of the plan"`
	Customer string    `json:"customer"`
	Channels int       `json:"channels"`
	Version  int64     `json:"version" doc:"Of the plan"`
	Changed  time.Time `json:"changed"`
	Archived bool      `json:"archived" doc:"Whether it is archived"`
}

// List returns all sites, those changed last first.
func (s *Store) List(ctx context.Context) ([]Summary, error) {
	rows, err := s.pool.Query(ctx, `
		select s.id, p.id, coalesce(document->'site'->>'name', s.id), coalesce(document->>'name', ''), coalesce(document->'site'->>'customer', ''),
			case jsonb_typeof(document->'channels') when 'array' then jsonb_array_length(document->'channels') else 0 end,
			version, changed_at, archived_at is not null
		from site s join plan p on p.id = s.adopted order by changed_at desc, s.id`)
	if err != nil {
		return nil, err
	}
	list, err := pgx.CollectRows(rows, pgx.RowToStructByPos[Summary])
	if list == nil {
		list = []Summary{}
	}
	return list, err
}

// Archive puts a site away, or takes it out again. It fails with ErrNotFound where there
// is none.
func (s *Store) Archive(ctx context.Context, id string, away bool) error {
	tag, err := s.pool.Exec(ctx, `update site set archived_at = case when $2 then coalesce(archived_at, now()) end where id = $1`, id, away)
	if err == nil && tag.RowsAffected() == 0 {
		err = ErrNotFound
	}
	return err
}

// Delete removes an archived site with its plans and their history for good. It fails with
// ErrNotArchived for one that is worked on.
func (s *Store) Delete(ctx context.Context, id string) error {
	tag, err := s.pool.Exec(ctx, `delete from site where id = $1 and archived_at is not null`, id)
	if err != nil || tag.RowsAffected() > 0 {
		return err
	}
	var there bool
	if err := s.pool.QueryRow(ctx, `select exists(select from site where id = $1)`, id).Scan(&there); err != nil {
		return err
	}
	if !there {
		return ErrNotFound
	}
	return ErrNotArchived
}
