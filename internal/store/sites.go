package store

import (
	"context"
	"encoding/json"
	"errors"
	"time"

	"github.com/jackc/pgx/v5"

	"wakefield.example/core/plan"
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
	Mark    string    `json:"mark" doc:"Which history of the plan it is a version of; another one after a backup was restored"`
	Changed time.Time `json:"changed"`
	Removed bool      `json:"removed" doc:"Whether it was removed"`
	// KeptDays is what was worked out when it was changed last.
	KeptDays *float64 `json:"keptDays" required:"true" doc:"For how many days the channel nearest to what it must keep is kept; null where nothing takes it away, or nobody worked it out"`
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
	if again := done(ctx, s.pool, note.Request); again != nil {
		return s.made(ctx, id, again)
	}
	err = s.inTransaction(ctx, Patience, func(ctx context.Context, tx pgx.Tx) error {
		if _, err := tx.Exec(ctx, `insert into site (id, adopted, company) values ($1, $1, `+companyNow+`)`, id); err != nil {
			return err
		}
		if err := insertPlan(ctx, tx, id, id, p, document); err != nil {
			return err
		}
		if err := begin(ctx, tx, id, id, note, with); err != nil {
			return err
		}
		return tellSite(ctx, tx, SiteChanged{Site: id, What: "made", Plan: id})
	})
	return s.made(ctx, id, s.doneIf(ctx, err, note.Request))
}

// made is a plan that was just made, or the one that was made with its key before.
func (s *Store) made(ctx context.Context, id string, err error) (*Head, error) {
	if before := new(DoneError); errors.As(err, &before) {
		id, err = before.Plan, nil
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
	if err == nil {
		err = keepRequest(ctx, tx, note.Request, id, 1)
	}
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
		select s.adopted, s.archived_at is not null, p.id, coalesce(p.variant, ''), p.version, p.mark, p.changed_at, p.removed_at is not null, r.kept_days
		from site s join plan p on p.site = s.id left join revision r on r.plan = p.id and r.number = p.version where s.id = $1 order by p.created_at, p.id`, id)
	if err != nil {
		return nil, err
	}
	site := &Site{ID: id}
	var line PlanLine
	_, err = pgx.ForEachRow(rows, []any{&site.Adopted, &site.Archived, &line.ID, &line.Name, &line.Version, &line.Mark, &line.Changed,
		&line.Removed, &line.KeptDays}, func() error {
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
	Mark     string    `json:"-"`
	Changed  time.Time `json:"changed"`
	Archived bool      `json:"archived" doc:"Whether it is archived"`
	Stage    Stage     `json:"stage" enum:"planned,handed,measure,template" doc:"How far it has come: being planned, handed over, to be measured; or that it is a template, from which others take"`
	Place    string    `json:"place"`
	Tags     []string  `json:"tags"`
	// Said is the line of its adopted plan, of a version up to the one that it has; nil where none was made yet, or the plan cannot be
	// read.
	Said        json.RawMessage `json:"-"`
	SaidVersion int64           `json:"-"`
}

// List returns all sites, those changed last first.
func (s *Store) List(ctx context.Context) ([]Summary, error) {
	rows, err := s.pool.Query(ctx, `
		select s.id, p.id, coalesce(p.site_name, s.id), coalesce(p.variant, ''), coalesce(p.customer, ''), p.channels,
			p.version, p.mark, p.changed_at, s.archived_at is not null, s.stage, s.place, s.tags,
			case when l.plan = p.id and l.mark = p.mark then l.said end, coalesce(l.version, 0)
		from site s join plan p on p.id = s.adopted left join site_line l on l.site = s.id order by p.changed_at desc, s.id`)
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
	return s.deciding(ctx, id, func(ctx context.Context, tx pgx.Tx) error {
		what := SiteChanged{Site: id, What: "unarchived"}
		if away {
			what.What = "archived"
		}
		if _, err := tx.Exec(ctx, `update site set archived_at = case when $2 then coalesce(archived_at, now()) end where id = $1`,
			id, away); err != nil {
			return err
		}
		return tellSite(ctx, tx, what)
	})
}

// deciding does something that depends on which plans a site has, or decides about that,
// while nobody else does: the site's row is held. It fails with ErrNotFound where there is
// no such site.
func (s *Store) deciding(ctx context.Context, site string, do func(ctx context.Context, tx pgx.Tx) error) error {
	return s.decidingFor(ctx, Patience, site, do)
}

func (s *Store) decidingFor(ctx context.Context, patience time.Duration, site string, do func(ctx context.Context, tx pgx.Tx) error) error {
	return s.inTransaction(ctx, patience, func(ctx context.Context, tx pgx.Tx) error {
		if err := tx.QueryRow(ctx, `select id from site where id = $1 for update`, site).Scan(new(string)); err != nil {
			return orNone(err, ErrNotFound)
		}
		return do(ctx, tx)
	})
}

// Delete removes an archived site with its plans and their history for good. It fails with
// ErrNotArchived for one that is worked on.
func (s *Store) Delete(ctx context.Context, id string) error {
	// What goes along may be much.
	return s.decidingFor(ctx, 100*Patience, id, func(ctx context.Context, tx pgx.Tx) error {
		tag, err := tx.Exec(ctx, `delete from site where id = $1 and archived_at is not null`, id)
		if err == nil && tag.RowsAffected() == 0 {
			err = ErrNotArchived
		}
		return err
	})
}

// insertPlan stores a plan of a site as version 1, beside its document what lists show of it: they need not take that apart.
func insertPlan(ctx context.Context, tx pgx.Tx, site, id string, p *plan.Plan, document []byte) error {
	_, err := tx.Exec(ctx, `insert into plan (id, site, version, document, site_name, customer, variant, channels) values ($1, $2, 1, $3, $4, $5, $6, $7)`,
		id, site, document, p.Site.Name, p.Site.Customer, p.Name, len(p.Channels))
	return err
}
