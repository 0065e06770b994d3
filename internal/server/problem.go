package server

import (
	"context"
	"errors"
	"net/http"

	"github.com/danielgtaylor/huma/v2"
	"github.com/jackc/pgx/v5/pgconn"

	"wakefield/core/plan"
	"wakefield/internal/store"
)

// Conflict is the problem (RFC 9457) of a change made on an old version.
type Conflict struct {
	huma.ErrorModel
	Version int64            `json:"version" doc:"The newest version"`
	Since   []store.Revision `json:"since" doc:"What changed since the version the change was made on, oldest first"`
}

// problem turns an error into what the client is told.
func problem(err error) error {
	var stale *store.StaleError
	var wrong *plan.Error
	var database *pgconn.PgError
	switch {
	case err == nil:
		return nil
	case errors.As(err, &stale):
		return &Conflict{
			ErrorModel: huma.ErrorModel{Status: http.StatusConflict, Title: http.StatusText(http.StatusConflict),
				Detail: "The plan was changed in the meantime. Nothing of this change was kept."},
			Version: stale.Version, Since: stale.Since,
		}
	case errors.As(err, &wrong):
		return huma.Error422UnprocessableEntity(wrong.Error(), &huma.ErrorDetail{Location: wrong.Path, Message: wrong.Reason})
	case errors.Is(err, store.ErrNotFound):
		return huma.Error404NotFound("There is no such site.")
	case errors.Is(err, store.ErrNothing):
		return huma.Error422UnprocessableEntity("There is nothing to take back.")
	case errors.Is(err, context.Canceled):
		return huma.NewError(499, "The request was given up.")
	case errors.As(err, &database) && !away(database.Code):
		return err
	default:
		return huma.Error503ServiceUnavailable("The database does not answer. Nothing was changed; try again when it is back.")
	}
}

// away tells whether an error code says that the database is going, gone or full,
// rather than that it was asked something wrong.
func away(code string) bool {
	switch code[:2] {
	case "08", "53", "57", "58":
		return true
	}
	return false
}
