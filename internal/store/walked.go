package store

import (
	"context"
	"encoding/json"
	"reflect"
	"time"

	"github.com/jackc/pgx/v5"
)

// Walked is something that was seen or decided on site. It is never changed.
type Walked struct {
	ID       string
	Kind     string
	About    string // id of a channel, a trial, a recorder or another of these
	Said     json.RawMessage
	Revision int64  // of the plan, on which it was noted
	NotedBy  string // as the phone knew who held it
	Author   string // who sent it
	At       time.Time
	Clock    string // by which clock the phone knew the time
	Arrived  time.Time
}

// MostWalked of a plan are kept.
const MostWalked = 50_000

// WalkedOf are those of a plan, in the order in which they were noted.
func (s *Store) WalkedOf(ctx context.Context, planID string) ([]Walked, error) {
	rows, err := s.pool.Query(ctx, `select id, kind, about, said, revision, noted_by, author, at, clock, arrived from walked
		where plan = $1 order by at, arrived, id`, planID)
	if err != nil {
		return nil, err
	}
	return pgx.CollectRows(rows, pgx.RowToStructByPos[Walked])
}

// KeepWalked keeps what was noted on site. What is there already under its id is kept once; others are the ids under which
// something else is there, which stays. It fails with ErrNotFound where there is no such plan, and with ErrManyTicks
// where it has no room for more.
func (s *Store) KeepWalked(ctx context.Context, site, planID string, list []Walked) (others []string, err error) {
	err = s.deciding(ctx, site, func(ctx context.Context, tx pgx.Tx) error {
		others = nil
		var many int
		if err := tx.QueryRow(ctx, `select count(*) from walked where plan = $1`, planID).Scan(&many); err != nil {
			return err
		}
		if many+len(list) > MostWalked {
			return ErrManyTicks
		}
		added := false
		for _, w := range list {
			done, err := tx.Exec(ctx, `insert into walked (plan, id, kind, about, said, revision, noted_by, author, at, clock)
				values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10) on conflict do nothing`,
				planID, w.ID, w.Kind, w.About, w.Said, w.Revision, w.NotedBy, w.Author, w.At, w.Clock)
			if err != nil {
				return err
			}
			if done.RowsAffected() > 0 {
				added = true
				continue
			}
			var kind, about string
			var said json.RawMessage
			err = tx.QueryRow(ctx, `select kind, about, said from walked where plan = $1 and id = $2`, planID, w.ID).Scan(&kind, &about, &said)
			if err != nil {
				return err
			}
			if kind != w.Kind || about != w.About || !sameJSON(said, w.Said) {
				others = append(others, w.ID)
			}
		}
		if !added {
			return nil
		}
		return tellSite(ctx, tx, SiteChanged{Site: site, What: "handover", Plan: planID})
	})
	return others, err
}

// sameJSON tells whether two documents say the same, in whatever order.
func sameJSON(a, b json.RawMessage) bool {
	var x, y any
	return json.Unmarshal(a, &x) == nil && json.Unmarshal(b, &y) == nil && reflect.DeepEqual(x, y)
}
