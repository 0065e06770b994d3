package server

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/core/document"
	"wakefield.example/core/rehearse"
	"wakefield.example/internal/store"
)

// Conflict is the problem (RFC 9457) of a change made on an old version.
type Conflict struct {
	huma.ErrorModel
	Version int64            `json:"version" doc:"The newest version"`
	Since   []store.Revision `json:"since" doc:"The last changes since the version the change was made on, a hundred at most, oldest first"`
	More    int64            `json:"more" doc:"How many there are before those"`

	Restored bool `json:"restored" doc:"Whether the change was made on a history that is gone, as a backup was restored"`
}

// Problem is what it has of every problem.
func (c *Conflict) Problem() *huma.ErrorModel { return &c.ErrorModel }

// Unreadable is the type of the problem that a stored plan can be neither shown nor
// Estimated by this program. Its history and export are there all the same.
const Unreadable = "wakefield:unreadable"

// Removed is the type of the problem that a variant takes no changes, as it was removed.
const Removed = "wakefield:removed"

// What is told where there is nothing better to tell. The cause stands in the log.
const (
	Mistake   = "Server error. Nothing was changed; try again."
	busyWords = "The server has too much to do at once. Nothing was changed; try again in a moment."
	AwayWords = "The database does not answer. Nothing was changed; try again when it is back."
	unsure    = "The connection to the database was lost while the change was being saved. Sent again, it is saved once."
)

// refusals are what the store refuses, with what is said of it.
var refusals = []struct {
	err    error
	status int
	words  string
}{
	{store.ErrNotFound, http.StatusNotFound,
		"There is no such site or plan."},
	{store.ErrNoPerson, http.StatusNotFound,
		"There is no such person any more."},
	{store.ErrNoLink, http.StatusNotFound,
		"This is not valid any more: it was used or ended, or its time is over."},
	{store.ErrLastPlanner, http.StatusUnprocessableEntity,
		"Nobody would be left who decides about people. Make somebody else a planner of the company first."},
	{store.ErrManyRoles, http.StatusUnprocessableEntity,
		"A person has a role at 5,000 sites at most."},
	{store.ErrNoRevision, http.StatusNotFound,
		"There is no such revision."},
	{store.ErrNothing, http.StatusUnprocessableEntity,
		"There is nothing to undo."},
	{store.ErrAdopted, http.StatusUnprocessableEntity,
		"This variant is the adopted one; adopt another before you remove it."},
	{store.ErrManyTicks, http.StatusUnprocessableEntity,
		"The plan has as many steps ticked as it may. Nothing was ticked."},
	{store.ErrNoDevice, http.StatusNotFound,
		"There is no such device at this site any more."},
	{store.ErrManyDevices, http.StatusUnprocessableEntity,
		fmt.Sprintf("A site has %d devices at most; remove one first.", store.MostDevices)},
	{store.ErrAtWork, http.StatusConflict,
		"Somebody is at work with this device. Wait until it is done, or stop it."},
	{store.ErrManyBrought, http.StatusUnprocessableEntity,
		fmt.Sprintf("A site keeps %d files of what was found at most; take one away first.", store.MostBrought)},
	{store.ErrTags, http.StatusUnprocessableEntity,
		fmt.Sprintf("A site has %d tags at most. Nothing was changed.", store.MostTags)},
	{store.ErrManyVariants, http.StatusUnprocessableEntity,
		fmt.Sprintf("A site has %d variants at most; remove one first.", store.MostVariants)},
	{store.ErrManyPlans, http.StatusUnprocessableEntity,
		fmt.Sprintf("A site has %d variants at most, removed ones too. This one was not made; a duplicate of the site begins with one.",
			store.MostPlans)},
	{store.ErrOtherUse, http.StatusUnprocessableEntity,
		"The Idempotency-Key was used for something else before. Nothing was changed; send the change with a key of its own."},
	{store.ErrManyPictures, http.StatusUnprocessableEntity,
		"The site has as many pictures as it may, those of its history too. This one was not saved; a duplicate of the site begins with those in use."},
}

// ProblemOf is an error as it is told.
func ProblemOf(err error) error {
	var (
		stale      *store.StaleError
		wrong      *document.Error
		unreadable *store.UnreadableError
		lost       *store.UnsureError
		told       huma.StatusError
		many       *rehearse.TooManyError
	)
	switch {
	case err == nil:
		return nil
	case errors.As(err, &told):
		return told
	case errors.As(err, &stale):
		detail := "The plan was changed in the meantime. Nothing of this change was saved."
		if stale.Restored {
			detail = fmt.Sprintf("This change was made on version %d, and the newest is %d now, of another history: a backup was restored. Nothing of this change was saved.", stale.On, stale.Version)
		}
		return &Conflict{
			ErrorModel: huma.ErrorModel{Status: http.StatusConflict, Title: http.StatusText(http.StatusConflict), Detail: detail},
			Version:    stale.Version, Since: stale.Since, More: stale.More, Restored: stale.Restored,
		}
	case errors.As(err, &many):
		return huma.Error422UnprocessableEntity(Sentence(many.Error()))
	case errors.As(err, &unreadable):
		return &huma.ErrorModel{Type: Unreadable, Status: http.StatusInternalServerError, Title: "Not readable",
			Detail: "The plan that is stored cannot be shown by this program: " + unreadable.Error() +
				". It can be exported, and an earlier revision can be returned to."}
	case errors.As(err, &wrong):
		return huma.Error422UnprocessableEntity(wrong.Error(), &huma.ErrorDetail{Location: wrong.Path, Message: wrong.Reason})
	case errors.Is(err, store.ErrRemoved):
		return &huma.ErrorModel{Type: Removed, Status: http.StatusUnprocessableEntity, Title: "Removed",
			Detail: "This variant was removed; restore it first."}
	case errors.Is(err, ErrBusy):
		return huma.ErrorWithHeaders(huma.Error429TooManyRequests(busyWords), http.Header{"Retry-After": {"2"}})
	case errors.Is(err, context.Canceled):
		return huma.NewError(499, "The request was given up.")
	case errors.As(err, &lost):
		return huma.Error503ServiceUnavailable(unsure)
	}
	for _, r := range refusals {
		if errors.Is(err, r.err) {
			return huma.NewError(r.status, r.words)
		}
	}
	switch store.TroubleOf(err) {
	case store.Away:
		return huma.Error503ServiceUnavailable(AwayWords)
	case store.Full:
		return huma.Error507InsufficientStorage("The database has no room left on its disk. Nothing was changed; make room, then try again.")
	case store.ReadOnly:
		return huma.Error507InsufficientStorage("The database may not be written to at present. Nothing was changed.")
	}
	if errors.Is(err, context.DeadlineExceeded) {
		return huma.Error504GatewayTimeout("It took longer than the server allows, and was stopped. Nothing was changed.")
	}
	return huma.Error500InternalServerError(Mistake)
}

// Sentence makes one of the words of an error.
func Sentence(words string) string { return strings.ToUpper(words[:1]) + words[1:] + "." }
