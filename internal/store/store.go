// Package store keeps plans in PostgreSQL.
//
// A plan is one JSON document with a version. Every change is a revision: its
// number is the version it made, and beside who, when and a sentence it holds the
// JSON Patches (RFC 6902) forward from the version before and back to it. Undo,
// redo and history all come from these. A change is made against a version; when
// the plan has moved on, [StaleError] says what changed since, and nothing is
// stored. A change that carries a key is stored once, however often it is sent:
// [DoneError] says which revision it made.
//
// A database has a mark, its epoch, and every plan has one of its own. Where a backup is
// restored both become others, so that nobody takes a version of what was lost for one of
// what is there: a change is made against version and mark.
//
// No call holds more than one connection of the pool.
package store

import (
	"context"
	"strings"
	"sync/atomic"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgconn"
	"github.com/jackc/pgx/v5/pgxpool"
)

// Store is a database of plans. It is safe for concurrent use, also by several
// processes on one database.
type Store struct {
	pool    database
	closing context.Context // ends when the store is closed
	close   context.CancelFunc

	sessions *pgxpool.Pool // of what cookies lead to; nil until it is asked for
}

// connections is how many the pool may have, unless the URL says so itself with
// pool_max_conns. Migrations and the watch have one of their own beside it.
const connections = 16

// Open connects to a database and brings its tables up to date.
func Open(ctx context.Context, url string) (*Store, error) {
	config, err := pgxpool.ParseConfig(url)
	if err != nil {
		return nil, err
	}
	if !strings.Contains(url, "pool_max_conns") {
		config.MaxConns = connections
	}
	config.ConnConfig.ConnectTimeout = 3 * time.Second
	if err := migrate(ctx, config.ConnConfig); err != nil {
		return nil, err
	}
	config.AfterConnect = func(ctx context.Context, conn *pgx.Conn) error {
		_, err := conn.Exec(ctx, lessMight)
		return err
	}
	config.PrepareConn = show
	pool, err := pgxpool.NewWithConfig(ctx, config)
	if err != nil {
		return nil, err
	}
	s := &Store{pool: database{pool, new(atomic.Int64)}}
	s.closing, s.close = context.WithCancel(context.Background())
	return s, nil
}

// Close ends all watches and closes the connections.
func (s *Store) Close() {
	s.close()
	s.pool.Close()
}

// Ping asks the database whether it is there.
func (s *Store) Ping(ctx context.Context) error { return s.pool.Ping(ctx) }

// Probe writes to the database, and tells whether it can be written to. A row that is
// written anew finds room where it was, also on a full disk; so a megabyte is sorted by
// way of the disk besides, which leaves nothing behind.
func (s *Store) Probe(ctx context.Context) error {
	return s.inTransaction(ctx, Patience, func(ctx context.Context, tx pgx.Tx) error {
		for _, sql := range []string{
			`set local work_mem = '64kB'`,
			`select max(n) from (select row_number() over (order by md5(i::text)) as n from generate_series(1, 15000) i) s`,
			`update probe set written_at = now()`,
		} {
			if _, err := tx.Exec(ctx, sql); err != nil {
				return err
			}
		}
		return nil
	})
}

// Connections tells how many connections the pool has, of these how many are in use,
// and how many there may be.
func (s *Store) Connections() (open, used, most int) {
	stat := s.pool.Stat()
	return int(stat.TotalConns()), int(stat.AcquiredConns()), int(stat.MaxConns())
}

// Questions is how often a connection was taken to ask the database something, since the start.
func (s *Store) Questions() int64 {
	n := s.pool.Stat().AcquireCount()
	if s.sessions != nil {
		n += s.sessions.Stat().AcquireCount()
	}
	return n
}

// querier is a pool or a transaction: what asks in a transaction asks on its own
// connection.
type querier interface {
	Query(ctx context.Context, sql string, args ...any) (pgx.Rows, error)
	QueryRow(ctx context.Context, sql string, args ...any) pgx.Row
	Exec(ctx context.Context, sql string, args ...any) (pgconn.CommandTag, error)
}
