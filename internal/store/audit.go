package store

import (
	"context"
	"time"

	"github.com/jackc/pgx/v5"
)

// Happened is a line of the audit: what happened around accounts. Nobody can change one.
type Happened struct {
	Number  int64     `json:"number"`
	At      time.Time `json:"at"`
	Company string    `json:"-"`
	Who     string    `json:"who" doc:"Name, as it was then; of who failed to sign in, as it was typed"`
	Person  string    `json:"person" doc:"Id; empty where nobody is known"`
	What    string    `json:"what" doc:"Such as signed-in, refused, role, link, export"`
	Site    string    `json:"site" doc:"Id; empty where it is of none"`
	Detail  string    `json:"detail"`
	Address string    `json:"address"`
	Request string    `json:"request" doc:"Id of the request, as the log has it"`
}

// Audit keeps what happened. What is of no company is of the first.
func (s *Store) Audit(ctx context.Context, h Happened) error {
	_, err := s.pool.Exec(ctx, `insert into audit (company, who, person, what, site, detail, address, request)
		values (coalesce(nullif($1, ''), 'own'), left($2, 200), $3, $4, $5, left($6, 1000), $7, $8)`,
		h.Company, h.Who, h.Person, h.What, h.Site, h.Detail, h.Address, h.Request)
	return err
}

// Asked is what is looked for in the audit.
type Asked struct {
	Text   string // in any of its texts
	What   string // exactly; empty for all
	From   time.Time
	To     time.Time // zero for no bound
	Before int64     // only lines before this number; 0 for the newest
	Limit  int
}

// Audited are the lines that are looked for, the newest first.
func (s *Store) Audited(ctx context.Context, q Asked) ([]Happened, error) {
	rows, err := s.pool.Query(ctx, `select number, at, company, who, person, what, site, detail, address, request from audit
		where ($1 = '' or strpos(lower(who || ' ' || what || ' ' || site || ' ' || detail || ' ' || address || ' ' || request), lower($1)) > 0)
			and ($2 = '' or what = $2) and ($3::timestamptz is null or at >= $3) and ($4::timestamptz is null or at < $4) and ($5 = 0 or number < $5)
		order by number desc limit $6`, q.Text, q.What, orNull(q.From), orNull(q.To), q.Before, q.Limit)
	if err != nil {
		return nil, err
	}
	list, err := pgx.CollectRows(rows, pgx.RowToStructByPos[Happened])
	if list == nil {
		list = []Happened{}
	}
	return list, err
}

func orNull(t time.Time) *time.Time {
	if t.IsZero() {
		return nil
	}
	return &t
}
