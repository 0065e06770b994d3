package store

import (
	"context"
	"encoding/json"
	"log/slog"
	"time"

	"github.com/jackc/pgx/v5"
)

// Changed says that a plan has a new version.
type Changed struct {
	Plan     string `json:"plan"`
	Version  int64  `json:"version"`
	Author   string `json:"author"`
	Sentence string `json:"sentence"`
}

// channel is the name under which servers on one database tell each other.
const channel = "wakefield_plan"

// Watch calls changed for every change of any plan, made through this server or
// another, until the context ends or the store is closed. While the database is away
// it tries again every second. Each time it has begun to listen it compares the
// versions there are with those it told of, so that no change is missed, though of
// several only the last may be told; at the beginning it tells of every plan.
func (s *Store) Watch(ctx context.Context, log *slog.Logger, changed func(Changed)) {
	ctx, cancel := context.WithCancel(ctx)
	defer cancel()
	defer context.AfterFunc(s.closing, cancel)()
	told := make(map[string]int64)
	tell := func(c Changed) {
		if c.Version > told[c.Plan] {
			told[c.Plan] = c.Version
			changed(c)
		}
	}
	for ctx.Err() == nil {
		if err := s.listen(ctx, tell); err != nil && ctx.Err() == nil {
			log.Warn("changes of others are not heard", "error", err)
		}
		select {
		case <-ctx.Done():
		case <-time.After(time.Second):
		}
	}
}

// listen returns when the connection is lost or the context ends.
func (s *Store) listen(ctx context.Context, tell func(Changed)) error {
	conn, err := pgx.ConnectConfig(ctx, s.pool.Config().ConnConfig)
	if err != nil {
		return err
	}
	defer conn.Close(context.WithoutCancel(ctx))
	if _, err := conn.Exec(ctx, "listen "+channel); err != nil {
		return err
	}
	// What was changed before this connection listened.
	rows, err := conn.Query(ctx, `select p.id, p.version, r.author, r.sentence from plan p join revision r on r.plan = p.id and r.number = p.version`)
	if err != nil {
		return err
	}
	newest, err := pgx.CollectRows(rows, pgx.RowToStructByPos[Changed])
	if err != nil {
		return err
	}
	for _, c := range newest {
		tell(c)
	}
	for {
		n, err := conn.WaitForNotification(ctx)
		if err != nil {
			return err
		}
		var c Changed
		if err := json.Unmarshal([]byte(n.Payload), &c); err != nil {
			return err
		}
		tell(c)
	}
}

// notice is the payload that tells of a revision; sentences are short enough for the
// 8,000 bytes that PostgreSQL allows it.
func notice(id string, r *revision) (string, error) {
	data, err := json.Marshal(Changed{id, r.Number, r.Author, r.Sentence})
	return string(data), err
}
