package compare

import (
	"errors"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
)

// ErrNothing says that nothing of a change is in a plan any more, or that it changed nothing that can be carried.
var ErrNothing = errors.New("nothing of it is left to take back")

// Meeting is a setting that a change made and that was changed again since.
type Meeting struct {
	Did   string `json:"did" doc:"What the change did"`
	Since string `json:"since" doc:"What was done to the same since"`
}

// TakenBack are the edits that take a single change back out of a plan as it stands: before and after are the plan around the
// change. What was changed again since meets it: taken back all the same, it is as before the change. The error is ErrNothing
// where there is nothing to take back.
func TakenBack(now, before, after *plan.Plan) (edits []edit.Edit, meets []Meeting, err error) {
	since := make(map[Part]string)
	changed := make(map[subject]string) // things of which anything was changed since
	for _, s := range Plans(after, now) {
		for _, p := range s.Parts {
			since[p] = s.String()
			changed[subject{p.Kind, p.Key}] = s.String()
		}
	}
	other := make(map[Part]bool) // what is otherwise now than before the change
	for _, s := range Plans(now, before) {
		for _, p := range s.Parts {
			other[p] = true
		}
	}
	var parts []Part
	for _, s := range Plans(before, after) {
		met := ""
		for _, p := range s.Parts {
			if !other[p] {
				continue // it is as before already, or its thing is gone
			}
			parts = append(parts, p)
			again, found := since[p]
			if !found && p.Member == "" {
				again, found = changed[subject{p.Kind, p.Key}]
			}
			if found {
				met = again
			}
		}
		if met != "" {
			meets = append(meets, Meeting{s.String(), met})
		}
	}
	if len(parts) == 0 {
		return nil, nil, ErrNothing
	}
	edits, err = Carry(now, before, parts)
	return edits, meets, err
}

// subject is a thing of a plan.
type subject struct{ kind, key string }
