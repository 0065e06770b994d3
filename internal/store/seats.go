package store

import (
	"context"
	"time"

	"github.com/jackc/pgx/v5"
)

// Seat is where a person is signed in.
type Seat struct {
	ID      string    `json:"id"`
	Device  string    `json:"device" doc:"Browser and system, as it says itself"`
	Address string    `json:"address"`
	Made    time.Time `json:"made" doc:"When they signed in"`
	Seen    time.Time `json:"seen" doc:"When it was used last, to some minutes"`
	Expires time.Time `json:"expires" doc:"When it ends however it is used"`
	Here    bool      `json:"here" doc:"Whether it is the one that asks"`
}

// Sit keeps that a person signed in. Of one person 100 are kept, the newest.
func (s *Store) Sit(ctx context.Context, person string, seat Seat) error {
	return s.inTransaction(ctx, Patience, func(ctx context.Context, tx pgx.Tx) error {
		_, err := tx.Exec(ctx, `insert into seat (id, person, device, address, expires_at) select $1, id, $3, $4, $5 from person where id = $2 and removed_at is null`,
			seat.ID, person, seat.Device, seat.Address, seat.Expires)
		if err == nil {
			_, err = tx.Exec(ctx, `delete from seat where expires_at < now() or person = $1 and id in
				(select id from seat where person = $1 order by made_at desc offset 100)`, person)
		}
		return err
	})
}

// Seated is who sits at a seat, while it is one and was used at a time or later; when it was used last, and when it ends. It
// fails with ErrNoPerson.
func (s *Store) Seated(ctx context.Context, seat string, used time.Time) (p *Person, seen, ends time.Time, err error) {
	var id string
	err = s.pool.QueryRow(ctx, `select person, seen_at, expires_at from seat where id = $1 and expires_at > now() and seen_at >= $2`,
		seat, used).Scan(&id, &seen, &ends)
	if err != nil {
		return nil, seen, ends, orNone(err, ErrNoPerson)
	}
	p, err = s.Person(ctx, id)
	return p, seen, ends, err
}

// Seen keeps that a seat is in use.
func (s *Store) Seen(ctx context.Context, seat string) error {
	_, err := s.pool.Exec(ctx, `update seat set seen_at = now() where id = $1`, seat)
	return err
}

// Seats are those of a person, the newest first.
func (s *Store) Seats(ctx context.Context, person string, used time.Time) ([]Seat, error) {
	rows, err := s.pool.Query(ctx, `select id, device, address, made_at, seen_at, expires_at, false from seat
		where person = $1 and expires_at > now() and seen_at >= $2 order by made_at desc`, person, used)
	if err != nil {
		return nil, err
	}
	list, err := pgx.CollectRows(rows, pgx.RowToStructByPos[Seat])
	if list == nil {
		list = []Seat{}
	}
	return list, err
}

// Leave ends one seat of a person, or all with none named. It tells how many it were.
func (s *Store) Leave(ctx context.Context, person, seat string) (n int64, err error) {
	err = s.inTransaction(ctx, Patience, func(ctx context.Context, tx pgx.Tx) error {
		tag, err := tx.Exec(ctx, `delete from seat where person = $1 and ($2 = '' or id = $2)`, person, seat)
		if err != nil {
			return err
		}
		n = tag.RowsAffected()
		return tellPerson(ctx, tx, person)
	})
	return n, err
}
