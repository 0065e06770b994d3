package store

import (
	"context"
	"errors"
	"fmt"
	"io"
	"net"

	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgconn"
	"github.com/jackc/puddle/v2"
)

var (
	// ErrNotFound says that there is no plan of that id.
	ErrNotFound = errors.New("no such plan")
	// ErrNoRevision says that there is no revision of that number, or none any more.
	ErrNoRevision = errors.New("no such revision")
	// ErrNothing says that there is nothing to undo or redo.
	ErrNothing = errors.New("nothing to undo")
	// ErrNotArchived says that a plan that is worked on is not removed for good.
	ErrNotArchived = errors.New("it is not archived")
	// ErrAdopted says that the plan that is carried out cannot be taken away.
	ErrAdopted = errors.New("it is the one that is carried out")
	// ErrRemoved says that a plan was taken away, and has to be taken out again first.
	ErrRemoved = errors.New("it was removed")
	// ErrManyPlans says that a site has as many plans as it may, those taken away counted.
	ErrManyPlans = errors.New("the site has as many variants as it may, removed ones too")
	// ErrOtherUse says that a key was used for something else.
	ErrOtherUse = errors.New("the key was used for something else")
	// ErrManyTicks says that a plan has as many steps ticked as it may.
	ErrManyTicks = errors.New("the plan has as many steps ticked as it may")
	// ErrManyVariants says that a site has as many plans as it may.
	ErrManyVariants = errors.New("the site has as many variants as it may")
	// ErrTags says that a site would have more tags than it may.
	ErrTags = fmt.Errorf("a site has at most %d tags", MostTags)
	// ErrSearches says that somebody keeps as many searches as they may.
	ErrSearches = fmt.Errorf("at most %d searches are kept", MostSearches)
	// ErrManyPictures says that a site keeps as many pictures as it may.
	ErrManyPictures = errors.New("the site has as many pictures as it may")
)

// StaleError says that a change was made on a version that is no longer the newest.
type StaleError struct {
	On      int64      // the version the change was made on
	Version int64      // the newest version
	Since   []Revision // the last changes since the version the change was made on, oldest first
	More    int64      // how many there are before those

	// Restored says that the change was made on a history that is no longer there, as a
	// backup was restored. Since and More are empty then.
	Restored bool
}

// mostSince is how many changes a StaleError tells of.
const mostSince = 100

func (e *StaleError) Error() string {
	if e.Restored {
		return fmt.Sprintf("a backup was restored; the plan has version %d", e.Version)
	}
	return fmt.Sprintf("the plan has moved on to version %d", e.Version)
}

// DoneError says that a change with this key is stored already.
type DoneError struct {
	Plan   string
	Number int64 // the revision it made
}

func (e *DoneError) Error() string { return fmt.Sprintf("done already, as revision %d", e.Number) }

// UnsureError says that the connection was lost while a change was being committed:
// it may be stored or not. Made again with the same key, it is stored once.
type UnsureError struct{ Err error }

func (e *UnsureError) Error() string { return "whether it was stored is not known: " + e.Err.Error() }
func (e *UnsureError) Unwrap() error { return e.Err }

// UnreadableError says that a plan is stored that this program cannot read.
type UnreadableError struct{ Err error }

func (e *UnreadableError) Error() string { return e.Err.Error() }
func (e *UnreadableError) Unwrap() error { return e.Err }

// Trouble is what an error says of the database.
type Trouble int

const (
	None     Trouble = iota // the error is not the database's
	Away                    // it is going, gone, or does not answer
	Full                    // it has no room left
	ReadOnly                // it may not be written to
	Refused                 // it was asked something that it does not do
)

// TroubleOf tells what an error of this package says of the database.
func TroubleOf(err error) Trouble {
	if err == context.DeadlineExceeded {
		return None // it was not the database that took so long: its errors wrap this one
	}
	var database *pgconn.PgError
	var connect *pgconn.ConnectError
	var network net.Error
	switch {
	case errors.As(err, &database):
		switch {
		case database.Code == "3D000": // there is none of that name, for the moment in which a restored one takes its place
			return Away
		case database.Code == "53100":
			return Full
		case database.Code == "25006":
			return ReadOnly
		// Connection exceptions, too many connections, operator intervention, system
		// errors.
		case database.Code[:2] == "08", database.Code[:2] == "53", database.Code[:2] == "57", database.Code[:2] == "58":
			return Away
		}
		return Refused
	case errors.Is(err, errSilent), errors.As(err, &connect), errors.As(err, &network), errors.Is(err,
		io.EOF), errors.Is(err, io.ErrUnexpectedEOF),
		errors.Is(err, puddle.ErrClosedPool), errors.Is(err, net.ErrClosed), pgconn.SafeToRetry(err),
		pgconn.Timeout(err) && !errors.Is(err, context.Canceled):
		return Away
	}
	if err != nil && err.Error() == "conn closed" {
		return Away
	}
	return None
}

// duplicates tells whether an error says that a key is there already.
func duplicates(err error, index string) bool {
	var database *pgconn.PgError
	return errors.As(err, &database) && database.Code == "23505" && database.ConstraintName == index
}

// orNone is another error in the place of the one that says that there is no such row.
func orNone(err, none error) error {
	if errors.Is(err, pgx.ErrNoRows) {
		return none
	}
	return err
}
