package api

import (
	"context"
	"errors"
	"fmt"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/core/compare"
	"wakefield.example/core/edit"
	"wakefield.example/internal/store"
)

// Types of the problems of taking a change back.
const (
	MeetsType   = "wakefield:meets"   // others changed the same since
	NothingType = "wakefield:nothing" // nothing of it is left
)

// Meets is the problem (RFC 9457) of taking back a change of which something was changed again since.
type Meets struct {
	huma.ErrorModel
	Meets []compare.Meeting `json:"meets" doc:"What it did, and what was done to the same since"`
}

// Problem is what it has of every problem.
func (m *Meets) Problem() *huma.ErrorModel { return &m.ErrorModel }

// takeBack takes a single change back, also where others changed other things since.
func (s *service) takeBack(ctx context.Context, in *struct {
	PlanParam
	SentBy
	Number int64 `path:"number" minimum:"1" doc:"Of the revision that is taken back"`
	Body   struct {
		Version int64  `json:"version" doc:"Version of the plan that it is made on"`
		Mark    string `json:"mark,omitempty" maxLength:"100" doc:"Which history of the plan it is a version of; absent for the one that is there"`
		Anyway  bool   `json:"anyway,omitempty" doc:"Whether what was changed again since becomes as before too"`
	}
}) (*body[*Answer], error) {
	return s.takeTurn(ctx, in.ID, func(ctx context.Context) (*body[*Answer], error) {
		now, err := s.at(ctx, in.ID, store.Stamp{Version: in.Body.Version, Mark: in.Body.Mark}, in.request())
		if err != nil {
			return nil, err
		}
		change, _, err := s.store.Revision(ctx, in.ID, in.Number)
		if errors.Is(err, store.ErrNoRevision) || err == nil && (change.Kind != "edit" || in.Number == 1) {
			return nil, &huma.ErrorModel{Type: NothingType, Status: http.StatusUnprocessableEntity, Title: "Nothing to take back",
				Detail: fmt.Sprintf("Revision %d is no change that can be taken back by itself.", in.Number)}
		}
		if err != nil {
			return nil, err
		}
		after, err := s.store.At(ctx, now.head, in.Number)
		if err != nil {
			return nil, err
		}
		before, err := s.store.At(ctx, now.head, in.Number-1)
		if err != nil {
			return nil, err
		}
		edits, meets, err := compare.TakenBack(now.head.Plan, before, after)
		switch {
		case errors.Is(err, compare.ErrNothing):
			return nil, &huma.ErrorModel{Type: NothingType, Status: http.StatusUnprocessableEntity, Title: "Nothing to take back",
				Detail: fmt.Sprintf("Nothing of revision %d is left to take back: it was undone, changed again, or removed.", in.Number)}
		case err != nil:
			return nil, err
		case len(meets) > 0 && !in.Body.Anyway:
			return nil, &Meets{huma.ErrorModel{Type: MeetsType, Status: http.StatusUnprocessableEntity, Title: "Changed again since",
				Detail: "What this change did was changed again since. Nothing was taken back."}, meets}
		}
		done, err := edit.Apply(now.head.Plan, edits...)
		if err != nil {
			return nil, err
		}
		return s.save(ctx, now, in.note("Taken back: "+change.Sentence), done.Plan)
	})
}
