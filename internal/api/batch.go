package api

import (
	"context"
	"reflect"
	"sync"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/internal/server"
	"wakefield.example/internal/store"
)

// batches are changes of plans that wait for their turn. Whoever gets the turn of a plan makes those of all others too that
// wait for it: one after the other, each a revision of its own, but estimated and stored together, so that many people on one
// plan do not each wait for the figures that the others' changes have.
type batches struct {
	mutex   sync.Mutex
	waiting map[string][]*queued
}

// queued is a change that waits.
type queued struct {
	ctx  context.Context
	in   *changeRequest
	done chan made // holds what became of it
}

// made is what became of a change.
type made struct {
	answer *body[*Answer]
	err    error
}

// mostTogether are made at once: what they take is bounded, and nobody waits for more.
const mostTogether = 64

func newBatches() *batches { return &batches{waiting: make(map[string][]*queued)} }

func (b *batches) add(id string, q *queued) {
	b.mutex.Lock()
	defer b.mutex.Unlock()
	b.waiting[id] = append(b.waiting[id], q)
}

// take takes the first of those that wait for a plan.
func (b *batches) take(id string) []*queued {
	b.mutex.Lock()
	defer b.mutex.Unlock()
	list := b.waiting[id]
	n := min(len(list), mostTogether)
	taken := list[:n:n]
	if b.waiting[id] = list[n:]; len(list) == n {
		delete(b.waiting, id)
	}
	return taken
}

// edit answers a change: in its own turn, or in that of another who was before.
func (s *service) edit(ctx context.Context, in *changeRequest) (*body[*Answer], error) {
	q := &queued{ctx, in, make(chan made, 1)}
	s.batches.add(in.ID, q)
	for {
		// The turn is no longer waited for when another has made the change.
		turn, stop := context.WithCancel(ctx)
		arrived := make(chan made, 1)
		watching := make(chan struct{})
		go func() {
			defer close(watching)
			select {
			case m := <-q.done:
				arrived <- m
				stop()
			case <-turn.Done():
			}
		}()
		release, err := s.turns.Take(turn, in.ID)
		stop()
		<-watching
		select {
		case m := <-arrived:
			if err == nil {
				release()
			}
			return m.answer, m.err
		default:
		}
		if err != nil {
			return nil, s.problem(ctx, err) // who makes it sees that nobody waits
		}
		s.makeTogether(ctx, in.ID)
		release()
		select {
		case m := <-q.done:
			return m.answer, m.err
		default: // it was not among the first of many
		}
	}
}

// makeTogether makes the changes that wait for a plan, in the turn of the plan.
func (s *service) makeTogether(ctx context.Context, id string) {
	list := s.batches.take(id)
	// The work is everybody's: it does not end because one goes away.
	working, cancel := context.WithTimeout(context.WithoutCancel(ctx), server.Longest)
	defer cancel()
	left := list
	if len(list) > 1 {
		var err error
		if left, err = server.Heavily(working, s.slots.Edits, func(ctx context.Context) ([]*queued, error) {
			return s.together(ctx, id, list),
				nil
		}); err != nil {
			left = list
		}
	}
	for _, q := range left {
		answer, err := s.makeAlone(q.ctx, q.in)
		q.done <- made{answer, err}
	}
}

// step is one of several changes that are made together.
type step struct {
	*queued
	done *edit.Done // as it is made on the one before
}

// together makes changes at once, and returns those that have to be made by themselves: what meets another, what is wrong,
// and all of them where anything stands in the way.
func (s *service) together(ctx context.Context, id string, list []*queued) (left []*queued) {
	before, err := s.current(ctx, id)
	if err != nil {
		return list
	}
	now := before.head.Plan
	var steps []step
	for _, q := range list {
		done, ok := s.mergedInto(before, now, q)
		if !ok || reflect.DeepEqual(done.Plan, now) {
			left = append(left, q)
			continue
		}
		steps = append(steps, step{q, done})
		now = done.Plan
	}
	if len(steps) < 2 {
		return list
	}
	after, err := s.estimate(ctx, &store.Head{ID: id, Version: before.head.Version + int64(len(steps)), Plan: now}, before.site)
	if err != nil {
		return list
	}
	notes, plans := make([]store.Note, len(steps)), make([]*plan.Plan, len(steps))
	for i, st := range steps {
		notes[i], plans[i] = st.in.note(st.done.Sentence), st.done.Plan
	}
	notes[len(notes)-1].KeptDays = after.site.Verdict.KeptDays
	change, err := s.store.SaveAll(ctx, before.head, notes, plans)
	if err != nil {
		return list // by themselves each is told what stands in its way, and whether it was made already
	}
	answer, err := s.answer(ctx, before, after, change)
	if err != nil {
		return list
	}
	for i, st := range steps {
		own := *answer.Body
		own.Sentence, own.Made = st.done.Sentence, before.head.Version+int64(i)+1
		s.meters.Edits.WithLabelValues(outcome(nil)).Inc()
		st.queued.done <- made{&body[*Answer]{&own}, nil}
	}
	return left
}

// mergedInto is a change as it is made on a plan that others changed since the version it was made on. ok is false where
// whoever makes it by itself has to say why not.
func (s *service) mergedInto(before entry, now *plan.Plan, q *queued) (done *edit.Done, ok bool) {
	if q.ctx.Err() != nil {
		return nil, false
	}
	on := store.Stamp{Version: q.in.Body.Version, Mark: q.in.Body.Mark}
	base := before.head.Plan
	if !before.is(on) {
		if on.Mark != "" && on.Mark != before.head.Mark || on.Version > before.head.Version {
			return nil, false
		}
		if base = before.at(on.Version); base == nil {
			return nil, false // it is not at hand
		}
	}
	if base == now {
		done, err := edit.Apply(now, q.in.Body.Edits...)
		return done, err == nil
	}
	return edit.Merge(base, now, q.in.Body.Edits)
}
