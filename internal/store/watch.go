package store

import (
	"context"
	"encoding/json"
	"time"

	"github.com/jackc/pgx/v5/pgxpool"
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
// another, until the context ends or the store is closed. While the database is away it tries again every
// second; gone is called each time the connection is lost, as changes may have been
// missed.
func (s *Store) Watch(ctx context.Context, changed func(Changed), gone func()) {
	ctx, cancel := context.WithCancel(ctx)
	defer cancel()
	defer context.AfterFunc(s.closing, cancel)()
	for ctx.Err() == nil {
		s.listen(ctx, changed)
		gone()
		select {
		case <-ctx.Done():
		case <-time.After(time.Second):
		}
	}
}

// listen returns when the connection is lost or the context ends.
func (s *Store) listen(ctx context.Context, changed func(Changed)) {
	conn, err := s.pool.Acquire(ctx)
	if err != nil {
		return
	}
	defer release(conn)
	if _, err := conn.Exec(ctx, "listen "+channel); err != nil {
		return
	}
	for {
		n, err := conn.Conn().WaitForNotification(ctx)
		if err != nil {
			return
		}
		var c Changed
		if json.Unmarshal([]byte(n.Payload), &c) == nil {
			changed(c)
		}
	}
}

// release closes a connection that has listened, rather than lend it to others.
func release(conn *pgxpool.Conn) {
	c := conn.Hijack()
	ctx, cancel := context.WithTimeout(context.Background(), time.Second)
	defer cancel()
	_ = c.Close(ctx) // it may be broken already
}

// longestSentence keeps a notification below PostgreSQL's 8,000 bytes.
const longestSentence = 500

// notice is the payload that tells of a revision.
func notice(id string, r *revision) (string, error) {
	sentence := []rune(r.Sentence)
	if len(sentence) > longestSentence {
		sentence = append(sentence[:longestSentence], '…')
	}
	data, err := json.Marshal(Changed{id, r.Number, r.Author, string(sentence)})
	return string(data), err
}
