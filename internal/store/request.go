package store

import (
	"context"

	"github.com/jackc/pgx/v5"
)

// Request is what a change is asked with. Under its key a change is stored once, however
// often it is sent; a key belongs to what it was first used for, wherever it comes again.
type Request struct {
	Key  string // empty for none
	What string // operation, place and a hash of what was sent
}

// key is nil for none, which is stored nowhere.
func (r Request) key() *string {
	if r.Key == "" {
		return nil
	}
	return &r.Key
}

// keyTaken is the constraint that a key meets which was used.
const keyTaken = "request_pkey"

// done is a [*DoneError] where a change was stored with a key, and ErrOtherUse where the
// key was used for something else.
func done(ctx context.Context, q querier, r Request) error {
	if r.Key == "" {
		return nil
	}
	var what string
	var made DoneError
	if err := q.QueryRow(ctx, `select what, plan, number from request where key = $1`, r.Key).Scan(&what, &made.Plan,
		&made.Number); err != nil {
		return orNone(err, nil)
	}
	if what != "" && what != r.What { // of keys from before they were bound nobody knows it
		return ErrOtherUse
	}
	return &made
}

// doneIf is what done says in the place of an error that says that the key is there.
func (s *Store) doneIf(ctx context.Context, err error, r Request) error {
	if duplicates(err, keyTaken) {
		if made := done(ctx, s.pool, r); made != nil {
			return made
		}
		return ErrOtherUse // of a site that is not seen here
	}
	return err
}

// keepRequest stores what a revision was asked with.
func keepRequest(ctx context.Context, tx pgx.Tx, r Request, id string, number int64) error {
	if r.Key == "" {
		return nil
	}
	_, err := tx.Exec(ctx, `insert into request (key, what, plan, number) values ($1, $2, $3, $4)`, r.Key, r.What, id, number)
	return err
}
