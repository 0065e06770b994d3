package store

import (
	"context"
	"errors"
	"fmt"
	"sync/atomic"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgconn"
	"github.com/jackc/pgx/v5/pgxpool"
)

// Patience is how long the database may take to answer before it counts as away. One that
// is frozen, or does not answer over a network that swallows everything, is found by this
// alone.
const Patience = 4 * time.Second

// Of a database that was found to be silent nothing is asked for a while, so that those
// who wait in line behind each other are told at once, and not one after the other.
const (
	restFor  = time.Second
	askAgain = 400 * time.Millisecond // how long it has for showing that it was only this that took long
)

// errSilent says that the database did not answer in time.
var errSilent = errors.New("the database does not answer")

// database is a pool that asks with patience. A question that is asked in time and takes
// its answer in time behaves as with the pool.
type database struct {
	*pgxpool.Pool
	silent *atomic.Int64 // when it was found to be, in nanoseconds since 1970; 0 for not
}

// asking is a question under way.
type asking struct {
	db     database
	ctx    context.Context // of who asks
	short  context.Context // with patience
	cancel context.CancelFunc
}

func (d database) ask(ctx context.Context, patience time.Duration) (asking, error) {
	if at := d.silent.Load(); at != 0 && time.Since(time.Unix(0, at)) < restFor {
		return asking{}, errSilent
	}
	short, cancel := context.WithTimeout(ctx, patience)
	return asking{d, ctx, short, cancel}, nil
}

// meant is what an error of a question means: that the database is silent, where patience
// ended before who asks did.
func (a asking) meant(err error) error {
	switch {
	case err == nil:
		a.db.silent.Store(0)
		return nil
	case a.ctx.Err() != nil:
		return err // who asks went away
	case a.short.Err() != context.DeadlineExceeded && !pgconn.Timeout(err): // connecting has a time of its own
		return err
	}
	// Perhaps it waited for a lock that somebody held for long, and all is well.
	soon, cancel := context.WithTimeout(context.WithoutCancel(a.ctx), askAgain)
	defer cancel()
	if a.db.Pool.Ping(soon) != nil {
		a.db.silent.Store(time.Now().UnixNano())
	}
	return fmt.Errorf("%w in time: %w", errSilent, err)
}

func (d database) Exec(ctx context.Context, sql string, args ...any) (pgconn.CommandTag, error) {
	a, err := d.ask(ctx, Patience)
	if err != nil {
		return pgconn.CommandTag{}, err
	}
	defer a.cancel()
	tag, err := d.Pool.Exec(a.short, sql, args...)
	return tag, a.meant(err)
}

func (d database) Query(ctx context.Context, sql string, args ...any) (pgx.Rows, error) {
	a, err := d.ask(ctx, Patience)
	if err != nil {
		return nil, err
	}
	rows, err := d.Pool.Query(a.short, sql, args...)
	if err != nil {
		a.cancel()
		return rows, a.meant(err)
	}
	return &patientRows{rows, a}, nil
}

func (d database) QueryRow(ctx context.Context, sql string, args ...any) pgx.Row {
	a, err := d.ask(ctx, Patience)
	if err != nil {
		return failed{err}
	}
	return &patientRow{d.Pool.QueryRow(a.short, sql, args...), a}
}

// Ping asks even a database that was found to be silent.
func (d database) Ping(ctx context.Context) error {
	err := d.Pool.Ping(ctx)
	if err == nil {
		d.silent.Store(0)
	}
	return err
}

type failed struct{ err error }

func (f failed) Scan(...any) error { return f.err }

type patientRows struct {
	pgx.Rows
	asking
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
	row pgx.Row
	asking
}

func (r *patientRow) Scan(into ...any) error {
	defer r.cancel()
	err := r.row.Scan(into...)
	if errors.Is(err, pgx.ErrNoRows) {
		return err
	}
	return r.meant(err)
}

// inTransaction does something in a transaction that may take so long. An error of the
// commit is an [UnsureError]: only asking again tells whether it was kept.
func (s *Store) inTransaction(ctx context.Context, patience time.Duration, do func(ctx context.Context, tx pgx.Tx) error) error {
	a, err := s.pool.ask(ctx, patience)
	if err != nil {
		return err
	}
	defer a.cancel()
	tx, err := s.pool.Begin(a.short)
	if err != nil {
		return a.meant(err)
	}
	// It does nothing after a commit. A database that does not answer is not waited for again.
	defer func() {
		back, cancel := context.WithTimeout(context.WithoutCancel(ctx), askAgain)
		defer cancel()
		_ = tx.Rollback(back)
	}()
	if err := do(a.short, tx); err != nil {
		return a.meant(err)
	}
	if err := tx.Commit(a.short); err != nil {
		return &UnsureError{a.meant(err)}
	}
	return nil
}
