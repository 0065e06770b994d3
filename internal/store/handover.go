package store

import (
	"context"
	"time"

	"github.com/jackc/pgx/v5"
)

// Tick says that a step of a recorder's sheet was done.
type Tick struct {
	Recorder string    `json:"recorder" doc:"Id"`
	Key      string    `json:"key" doc:"What the step does; the same for steps that do the same"`
	Subject  string    `json:"subject" doc:"What the step is about"`
	Step     string    `json:"step" doc:"Its number at the time, such as 6.3"`
	Words    string    `json:"words" doc:"Its words at the time"`
	Revision int64     `json:"revision" doc:"Of the plan, on which it was done"`
	Author   string    `json:"author"`
	At       time.Time `json:"at"`
}

// Printed says that the sheet of a recorder was printed or taken along, the last time.
type Printed struct {
	Recorder string    `json:"recorder" doc:"Id"`
	Revision int64     `json:"revision" doc:"Of the plan, as it was then"`
	Author   string    `json:"author"`
	At       time.Time `json:"at"`
}

// MostTicks of a plan are kept: more than all sheets of the largest site have steps.
const MostTicks = 200_000

// Ticks are those of a plan, in the order in which they were made.
func (s *Store) Ticks(ctx context.Context, planID string) ([]Tick, error) {
	rows, err := s.pool.Query(ctx,
		`select recorder, key, subject, step, words, revision, author, at from tick where plan = $1 order by at, recorder, key`, planID)
	if err != nil {
		return nil, err
	}
	return pgx.CollectRows(rows, pgx.RowToStructByPos[Tick])
}

// SetTicks keeps that steps of a plan were done, or that they were not after all. What is said twice is kept once, with who said
// it first. It fails with ErrNotFound where there is no such plan.
func (s *Store) SetTicks(ctx context.Context, site, planID string, done []Tick, undone []Tick) error {
	return s.deciding(ctx, site, func(ctx context.Context, tx pgx.Tx) error {
		var many int
		if err := tx.QueryRow(ctx, `select count(*) from tick where plan = $1`, planID).Scan(&many); err != nil {
			return err
		}
		if many+len(done) > MostTicks {
			return ErrManyTicks
		}
		for _, t := range done {
			_, err := tx.Exec(ctx,
				`insert into tick (plan, recorder, key, subject, step, words, revision, author) values ($1, $2, $3, $4, $5, $6, $7, $8) on conflict do nothing`,
				planID, t.Recorder, t.Key, t.Subject, t.Step, t.Words, t.Revision, t.Author)
			if err != nil {
				return err
			}
		}
		for _, t := range undone {
			if _, err := tx.Exec(ctx, `delete from tick where plan = $1 and recorder = $2 and key = $3`, planID, t.Recorder, t.Key); err != nil {
				return err
			}
		}
		return tellSite(ctx, tx, SiteChanged{Site: site, What: "handover", Plan: planID})
	})
}

// PrintedOf says which sheets of a plan were printed, by recorder.
func (s *Store) PrintedOf(ctx context.Context, planID string) (map[string]Printed, error) {
	rows, err := s.pool.Query(ctx, `select recorder, revision, author, at from printed where plan = $1`, planID)
	if err != nil {
		return nil, err
	}
	list, err := pgx.CollectRows(rows, pgx.RowToStructByPos[Printed])
	out := make(map[string]Printed, len(list))
	for _, p := range list {
		out[p.Recorder] = p
	}
	return out, err
}

// Print keeps that sheets of a plan were printed at a revision.
func (s *Store) Print(ctx context.Context, site, planID string, recorders []string, revision int64, author string) error {
	return s.deciding(ctx, site, func(ctx context.Context, tx pgx.Tx) error {
		for _, r := range recorders {
			_, err := tx.Exec(ctx, `insert into printed (plan, recorder, revision, author) values ($1, $2, $3, $4)
				on conflict (plan, recorder) do update set revision = excluded.revision, author = excluded.author, at = now()`, planID, r, revision, author)
			if err != nil {
				return err
			}
		}
		return tellSite(ctx, tx, SiteChanged{Site: site, What: "handover", Plan: planID})
	})
}

// Company is the installer's company.
type Company struct {
	Name string
	Logo []byte // JPEG; nil for none

	AsksTwo bool // whether signing in takes a passkey, or a code beside the password
}

// Company is the installer's company, as it stands at the head of papers.
func (s *Store) Company(ctx context.Context) (c Company, err error) {
	err = s.pool.QueryRow(ctx, `select name, logo, asks_two from company where id = `+companyNow).Scan(&c.Name, &c.Logo, &c.AsksTwo)
	return c, orNone(err, nil)
}

// NameCompany sets the name of the company.
func (s *Store) NameCompany(ctx context.Context, name string) error {
	_, err := s.pool.Exec(ctx, `update company set name = $1 where id = `+companyNow, name)
	return err
}

// SetLogo sets the logo of the company; nil takes it away.
func (s *Store) SetLogo(ctx context.Context, logo []byte) error {
	_, err := s.pool.Exec(ctx, `update company set logo = $1 where id = `+companyNow, logo)
	return err
}
