package store

import (
	"context"
	"errors"
	"fmt"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgconn"
	"github.com/jackc/pgx/v5/pgxpool"
)

// Patience is how long the database may take to answer before it counts as away. One that
// is frozen, or does not answer over a network that swallows everything, is found by this
// alone.
const Patience = 4 * time.Second

// errSilent says that the database did not answer in time.
var errSilent = errors.New("the database does not answer")

// database is a pool that asks with patience. A question that is asked in time and takes
// its answer in time behaves as with the pool.
type database struct{ *pgxpool.Pool }

// patient is a context that ends when patience does, and what an error under it means.
func patient(ctx context.Context, patience time.Duration) (short context.Context, cancel context.CancelFunc, meant func(error) error) {
	short, cancel = context.WithTimeout(ctx, patience)
	return short, cancel, func(err error) error {
		if err != nil && short.Err() == context.DeadlineExceeded && ctx.Err() == nil {
			return fmt.Errorf("%w within %v: %w", errSilent, patience, err)
		}
		return err
	}
}

func (d database) Exec(ctx context.Context, sql string, args ...any) (pgconn.CommandTag, error) {
	short, cancel, meant := patient(ctx, Patience)
	defer cancel()
	tag, err := d.Pool.Exec(short, sql, args...)
	return tag, meant(err)
}

func (d database) Query(ctx context.Context, sql string, args ...any) (pgx.Rows, error) {
	short, cancel, meant := patient(ctx, Patience)
	rows, err := d.Pool.Query(short, sql, args...)
	if err != nil {
		cancel()
		return rows, meant(err)
	}
	return &patientRows{rows, cancel, meant}, nil
}

func (d database) QueryRow(ctx context.Context, sql string, args ...any) pgx.Row {
	short, cancel, meant := patient(ctx, Patience)
	return &patientRow{d.Pool.QueryRow(short, sql, args...), cancel, meant}
}

func (d database) Ping(ctx context.Context) error {
	short, cancel, meant := patient(ctx, Patience)
	defer cancel()
	return meant(d.Pool.Ping(short))
}

type patientRows struct {
	pgx.Rows
	cancel context.CancelFunc
	meant  func(error) error
}

func (r *patientRows) Next() bool {
	more := r.Rows.Next()
	if !more {
		r.cancel()
	}
	return more
}

func (r *patientRows) Close()     { r.Rows.Close(); r.cancel() }
func (r *patientRows) Err() error { return r.meant(r.Rows.Err()) }

type patientRow struct {
	row    pgx.Row
	cancel context.CancelFunc
	meant  func(error) error
}

func (r *patientRow) Scan(into ...any) error {
	defer r.cancel()
	return r.meant(r.row.Scan(into...))
}

// inTransaction does something in a transaction that may take so long. An error of the
// commit is an [UnsureError]: only asking again tells whether it was kept.
func (s *Store) inTransaction(ctx context.Context, patience time.Duration, do func(ctx context.Context, tx pgx.Tx) error) error {
	short, cancel, meant := patient(ctx, patience)
	defer cancel()
	tx, err := s.pool.Begin(short)
	if err != nil {
		return meant(err)
	}
	// It does nothing after a commit. A database that does not answer is not asked again.
	defer func() {
		back, cancel := context.WithTimeout(context.WithoutCancel(ctx), time.Second)
		defer cancel()
		_ = tx.Rollback(back)
	}()
	if err := do(short, tx); err != nil {
		return meant(err)
	}
	if err := tx.Commit(short); err != nil {
		return &UnsureError{meant(err)}
	}
	return nil
}
