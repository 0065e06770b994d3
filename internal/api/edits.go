package api

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"reflect"

	"github.com/danielgtaylor/huma/v2"

	"wakefield.example/core/edit"
	"wakefield.example/core/parallel"
	"wakefield.example/core/plan"
	"wakefield.example/internal/server"
	"wakefield.example/internal/store"
)

// registerEdits adds the changes of a plan.
func registerEdits(api huma.API, s *service) {
	huma.Register(api, answering[Answer](api, op("edit", http.MethodPost, "/api/plans/{id}/edits", "Change the plan")), s.edited)
	huma.Register(api, op("draft", http.MethodPost, "/api/plans/{id}/draft", "What a change would do, without keeping it"), s.draft)
	huma.Register(api, op("undo", http.MethodPost, "/api/plans/{id}/undo", "Take back the last change"), s.step(store.Undo))
	huma.Register(api, op("redo", http.MethodPost, "/api/plans/{id}/redo", "Make the change again that was undone"), s.step(store.Redo))
	huma.Register(api, op("takeBack", http.MethodPost, "/api/plans/{id}/revisions/{number}/take-back",
		"Take a single change back, also where others changed other things since"), s.takeBack)
	huma.Register(api, op("returnTo", http.MethodPost, "/api/plans/{id}/return", "Return to an earlier revision, as a new one"), s.returnTo)
}

type changeRequest struct {
	PlanParam
	SentBy
	Body struct {
		Version int64       `json:"version" doc:"Version of the plan that the change is made on"`
		Mark    string      `json:"mark,omitempty" maxLength:"100" doc:"Which history of the plan it is a version of; absent for the one that is there"`
		Edits   []edit.Edit `json:"edits" minItems:"1" maxItems:"5000"`
	}
}

type stepRequest struct {
	PlanParam
	SentBy
	Body struct {
		Version int64  `json:"version" doc:"Version of the plan that the step is made on"`
		Mark    string `json:"mark,omitempty" maxLength:"100" doc:"Which history of the plan it is a version of; absent for the one that is there"`
	}
}

// change is one way of changing a plan: what it is made on, and what it becomes.
type change func(ctx context.Context) (*body[*Answer], error)

// mostTries is how often a change is made anew on the newest version, when another
// server was quicker to store one. After some it is made while the others wait.
const (
	mostTries     = 12
	triesUnlocked = 3
)

// takeTurn makes a change in the turn of its site, again where another server was quicker,
// and once where it was made before.
func (s *service) takeTurn(ctx context.Context, id string, do change) (*body[*Answer], error) {
	release, err := s.turns.Take(ctx, id)
	if err != nil {
		return nil, s.problem(ctx, err)
	}
	defer release()
	return s.tryUntilSaved(ctx, id, do)
}

func (s *service) tryUntilSaved(ctx context.Context, id string, do change) (*body[*Answer], error) {
	answer, err := server.Heavily(ctx, s.slots.Edits, func(ctx context.Context) (*body[*Answer], error) {
		for try := 1; ; try++ {
			answer, err := do(ctx)
			if late := new(store.StaleError); try < mostTries && errors.As(err, &late) && errors.Is(err, errOvertaken) {
				continue
			}
			if done := new(store.DoneError); errors.As(err, &done) {
				return s.already(ctx, id, done.Number)
			}
			return answer, err
		}
	})
	s.meters.Edits.WithLabelValues(outcome(err)).Inc()
	return answer, s.problem(ctx, err)
}

func outcome(err error) string {
	switch stale := new(store.StaleError); {
	case err == nil:
		return "kept"
	case errors.As(err, &stale):
		return "conflict"
	case store.TroubleOf(err) != store.None:
		return "database"
	}
	return "refused"
}

// errOvertaken says that a change was stored between reading the newest version and
// storing another on it.
var errOvertaken = errors.New("another was quicker")

// overtaken marks a stale save, which may be tried again.
func overtaken(err error) error {
	if stale := new(store.StaleError); errors.As(err, &stale) {
		return errors.Join(errOvertaken, err)
	}
	return err
}

// is tells whether a stamp, which may have no mark, names the version that an entry is.
func (e entry) is(on store.Stamp) bool {
	return e.head.Version == on.Version && (on.Mark == "" || on.Mark == e.head.Mark)
}

// at returns the site as it stands if it has the version asked for.
func (s *service) at(ctx context.Context, id string, on store.Stamp, request store.Request) (entry, error) {
	e, err := s.current(ctx, id)
	if err != nil {
		return entry{}, err
	}
	if !e.is(on) {
		return entry{}, s.store.Stale(ctx, id, on, request)
	}
	return e, nil
}

// proposed returns the plan that a change is made on, and as it would be after. A
// change that was made on an old version is made on the newest one, where the two do
// not concern the same things; else it fails with a [*store.StaleError].
func (s *service) proposed(ctx context.Context, in *changeRequest) (before entry, done *edit.Done, err error) {
	if before, err = s.current(ctx, in.ID); err != nil {
		return entry{}, nil, err
	}
	on := store.Stamp{Version: in.Body.Version, Mark: in.Body.Mark}
	if before.is(on) {
		done, err = edit.Apply(before.head.Plan, in.Body.Edits...)
		return before, done, err
	}
	stale := s.store.Stale(ctx, in.ID, on, in.request())
	if late := new(store.StaleError); !errors.As(stale, &late) || late.Restored {
		return entry{}, nil, stale // it is made already, or of a history that is gone, or nobody knows
	}
	base := before.at(in.Body.Version)
	if base == nil {
		if base, err = s.store.At(ctx, before.head, in.Body.Version); err != nil {
			return entry{}, nil, stale
		}
	}
	if _, err := edit.Apply(base, in.Body.Edits...); err != nil {
		return entry{}, nil, err // it never was possible, whatever others did
	}
	done, ok := edit.Merge(base, before.head.Plan, in.Body.Edits)
	if !ok {
		return entry{}, nil, stale
	}
	return before, done, nil
}

// edited answers a change as JSON.
func (s *service) edited(ctx context.Context, in *changeRequest) (*written, error) {
	a, err := s.edit(ctx, in)
	if err != nil {
		return nil, err
	}
	s.slots.Written(ctx)
	data, err := a.Body.JSON()
	return &written{Type: "application/json", Body: data}, s.problem(ctx, err)
}

// makeAlone makes a change by itself, in the turn of its plan.
func (s *service) makeAlone(ctx context.Context, in *changeRequest) (*body[*Answer], error) {
	tries := 0
	return s.tryUntilSaved(ctx, in.ID, func(ctx context.Context) (*body[*Answer], error) {
		before, done, err := s.proposed(ctx, in)
		if err != nil {
			return nil, err
		}
		if tries++; tries > triesUnlocked {
			return s.mergeLocked(ctx, in, before)
		}
		return s.save(ctx, before, in.note(done.Sentence), done.Plan)
	})
}

// save estimates what a plan would become, and stores it only if that can be done. What is written is written out beside the
// estimate; what is found and told of it is worked out while the database takes it, which keeps it only if that can be done too.
func (s *service) save(ctx context.Context, before entry, note store.Note, next *plan.Plan) (*body[*Answer], error) {
	if before.head.Plan != nil && reflect.DeepEqual(before.head.Plan, next) {
		return unchanged(before), nil
	}
	head := &store.Head{ID: before.head.ID, Version: before.head.Version + 1, Plan: next}
	var after entry
	var told *Answer
	var prepared *store.Prepared
	var change *store.Change
	var failed, err error
	parallel.Both(func() { after, failed = s.figures(ctx, head, before.site) }, func() { prepared = store.Prepare(before.head, next) })
	if failed != nil {
		return nil, failed
	}
	note.KeptDays = after.site.Verdict.KeptDays
	done := make(chan struct{})
	parallel.Both(func() {
		defer close(done)
		if after, failed = s.checked(ctx, after); failed == nil {
			told, failed = s.told(ctx, before, after)
		}
	}, func() {
		change, err = s.store.SavePrepared(ctx, prepared, note, func() error { <-done; return failed })
	})
	switch {
	case failed != nil:
		return nil, failed
	case err != nil:
		return nil, overtaken(err)
	}
	return s.kept(before, after, told, change)
}

// mergeLocked makes a change while no other server can make one. base is the version that
// it is merged from, as far as the newest that is known.
func (s *service) mergeLocked(ctx context.Context, in *changeRequest, base entry) (*body[*Answer], error) {
	var before, after entry
	change, err := s.store.Locked(ctx, in.ID, in.request(), func(head *store.Head) (store.Note, *plan.Plan, error) {
		if head.Unreadable != nil {
			return store.Note{}, nil, head.Unreadable
		}
		if head.Mark != base.head.Mark {
			return store.Note{}, nil, &store.StaleError{On: base.head.Version, Version: head.Version, Since: []store.Revision{}, Restored: true}
		}
		done, ok := edit.Merge(base.head.Plan, head.Plan, in.Body.Edits)
		if !ok {
			return store.Note{}, nil, &store.StaleError{Version: head.Version, Since: []store.Revision{}}
		}
		var err error
		if before, err = s.estimate(ctx, head, base.site); err != nil {
			return store.Note{}, nil, err
		}
		before = before.remembering(base)
		after, err = s.estimate(ctx, &store.Head{ID: in.ID, Version: head.Version + 1, Plan: done.Plan}, before.site)
		if err != nil {
			return store.Note{}, nil, err
		}
		note := in.note(done.Sentence)
		note.KeptDays = after.site.Verdict.KeptDays
		return note, done.Plan, nil
	})
	if err != nil {
		return nil, err
	}
	return s.answer(ctx, before, after, change)
}

// unchanged answers a change that changes nothing: it makes no revision.
func unchanged(e entry) *body[*Answer] {
	a := answer(e, e)
	a.Patch = []any{}
	return &body[*Answer]{a}
}

// answer tells what a change changed that was stored, and remembers it.
func (s *service) answer(ctx context.Context, before, after entry, change *store.Change) (*body[*Answer], error) {
	a, err := s.told(ctx, before, after)
	if err != nil {
		return nil, err
	}
	return s.kept(before, after, a, change)
}

// told is what a change changes, as far as it can be told before it is stored.
func (s *service) told(ctx context.Context, before, after entry) (a *Answer, err error) {
	if before.head.Plan == nil { // it could not be read; all of it is new
		before.head = &store.Head{ID: before.head.ID, Version: before.head.Version, Mark: before.head.Mark, Plan: after.head.Plan}
	}
	err = s.computed(ctx, after.head, func() error { a = answer(before, after); return nil })
	return a, err
}

// kept remembers a change that was stored, and completes what is told of it.
func (s *service) kept(before, after entry, a *Answer, change *store.Change) (*body[*Answer], error) {
	after.head = change.Head
	s.keep(after.remembering(before))
	a.stamp(change.Head)
	a.Sentence, a.Made = change.Sentence, change.Head.Version
	if err := json.Unmarshal(change.Forward, &a.Patch); err != nil {
		return nil, err
	}
	return &body[*Answer]{a}, nil
}

// already answers a change that was made before, as revision number: with what is
// different now from what was before it.
func (s *service) already(ctx context.Context, id string, number int64) (*body[*Answer], error) {
	now, err := s.current(ctx, id)
	if err != nil {
		return nil, err
	}
	made, _, err := s.store.Revision(ctx, id, number)
	if err != nil {
		return nil, err
	}
	then, err := s.store.At(ctx, now.head, number-1)
	if err != nil {
		return nil, err
	}
	before, err := s.estimate(ctx, &store.Head{ID: id, Version: number - 1, Plan: then}, now.site)
	if err != nil {
		return nil, err
	}
	patch, err := store.Patch(then, now.head.Plan)
	if err != nil {
		return nil, err
	}
	a := answer(before, now)
	a.Sentence, a.Made = made.Sentence, number
	return &body[*Answer]{a}, json.Unmarshal(patch, &a.Patch)
}

func (s *service) draft(ctx context.Context, in *changeRequest) (*body[*Draft], error) {
	d, err := server.Heavily(ctx, s.slots.Edits, func(ctx context.Context) (*Draft, error) {
		before, err := s.at(ctx, in.ID, store.Stamp{Version: in.Body.Version, Mark: in.Body.Mark}, store.Request{})
		if err != nil {
			return nil, err
		}
		done, err := edit.Apply(before.head.Plan, in.Body.Edits...)
		if err != nil {
			return nil, err
		}
		return draft(ctx, before, done)
	})
	return &body[*Draft]{d}, s.problem(ctx, err)
}

// step answers undo or redo.
func (s *service) step(to store.Direction) func(context.Context, *stepRequest) (*body[*Answer], error) {
	return func(ctx context.Context, in *stepRequest) (*body[*Answer], error) {
		return s.takeTurn(ctx, in.ID, func(ctx context.Context) (*body[*Answer], error) {
			before, err := s.at(ctx, in.ID, store.Stamp{Version: in.Body.Version, Mark: in.Body.Mark}, in.request())
			if err != nil {
				return nil, err
			}
			// Where a step leads was estimated when it was left, so it can be stored first.
			change, err := s.store.Step(ctx, before.head, in.note(""), to)
			if err != nil {
				return nil, err
			}
			after, err := s.estimate(ctx, change.Head, before.site)
			if err != nil {
				return nil, err
			}
			return s.answer(ctx, before, after, change)
		})
	}
}

func (s *service) returnTo(ctx context.Context, in *struct {
	PlanParam
	SentBy
	Body struct {
		Version  int64  `json:"version" doc:"Version of the plan that the return is made on"`
		Mark     string `json:"mark,omitempty" maxLength:"100" doc:"Which history of the plan it is a version of; absent for the one that is there"`
		Revision int64  `json:"revision" minimum:"1" doc:"The revision to return to"`
	}
}) (*body[*Answer], error) {
	return s.takeTurn(ctx, in.ID, func(ctx context.Context) (*body[*Answer], error) {
		on := store.Stamp{Version: in.Body.Version, Mark: in.Body.Mark}
		before, err := s.at(ctx, in.ID, on, in.request())
		if unreadable := new(store.UnreadableError); errors.As(err, &unreadable) {
			before, err = s.unreadable(ctx, in.ID, on, in.request())
		}
		if err != nil {
			return nil, err
		}
		then, err := s.store.At(ctx, before.head, in.Body.Revision)
		if errors.Is(err, store.ErrNoRevision) {
			return nil, huma.Error422UnprocessableEntity(fmt.Sprintf("There is no revision %d to return to.", in.Body.Revision))
		}
		if err != nil {
			return nil, err
		}
		return s.save(ctx, before, in.note(fmt.Sprintf("Back to revision %d", in.Body.Revision)), then)
	})
}

// unreadable is the entry of a plan that can be neither shown nor estimated: enough to
// return from it to an earlier revision.
func (s *service) unreadable(ctx context.Context, id string, on store.Stamp, request store.Request) (entry, error) {
	head, err := s.store.Load(ctx, id)
	if err != nil {
		return entry{}, err
	}
	if e := (entry{head: head}); e.is(on) {
		return e, nil
	}
	return entry{}, s.store.Stale(ctx, id, on, request)
}
