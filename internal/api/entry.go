package api

import (
	"bytes"
	"compress/gzip"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"runtime/debug"
	"sync"
	"time"

	"wakefield.example/core/check"
	"wakefield.example/core/document"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/internal/server"
	"wakefield.example/internal/store"
)

// entry is a version of a plan with its estimate.
type entry struct {
	head  *store.Head
	site  *estimate.Result
	found []check.Finding
	// The plans of the last versions, oldest first, for changes that are made on them.
	past []version

	shown *shown
}

// shown is a plan as it is answered to whoever opens it, written once for all of them.
type shown struct {
	once   sync.Once
	json   []byte
	err    error
	packed func() []byte
}

// view is the entry as [View], written as JSON; as gzip of it for whoever takes that.
func (e entry) view(packed bool) (data []byte, encoding string, err error) {
	e.shown.once.Do(func() {
		e.shown.json, e.shown.err = json.Marshal(view(e))
		e.shown.packed = sync.OnceValue(func() []byte { return gzipped(e.shown.json) })
	})
	if packed && e.shown.err == nil {
		return e.shown.packed(), "gzip", nil
	}
	return e.shown.json, "", e.shown.err
}

// gzipped is data as gzip, at the level that takes least time.
func gzipped(data []byte) []byte {
	var out bytes.Buffer
	w, err := gzip.NewWriterLevel(&out, gzip.BestSpeed)
	if err == nil {
		_, err = w.Write(data)
	}
	if err == nil {
		err = w.Close()
	}
	if err != nil {
		panic(err) // the level is a constant, and memory takes all
	}
	return out.Bytes()
}

type version struct {
	number int64
	plan   *plan.Plan
}

// at is the plan of a version that is at hand, nil for none.
func (e entry) at(number int64) *plan.Plan {
	if number == e.head.Version {
		return e.head.Plan
	}
	for _, v := range e.past {
		if v.number == number {
			return v.plan
		}
	}
	return nil
}

// remembering is the entry with what the one before it remembers of the past. Versions
// share what did not change between them, but for the list of channels. Of another history
// nothing is remembered.
func (e entry) remembering(before entry) entry {
	if before.head == nil || before.head.Plan == nil || before.head.Mark != e.head.Mark || before.head.Version >= e.head.Version {
		return e
	}
	e.past = append(append([]version(nil), before.past...), version{before.head.Version, before.head.Plan})
	most := 64
	if n := len(e.head.Plan.Channels); n > 200 {
		most = max(4, 64*200/n)
	}
	e.past = e.past[max(0, len(e.past)-most):]
	return e
}

// estimate estimates and checks a plan, before it is kept or shown; earlier, which may
// be nil, is an estimate of one before. A plan whose figures cannot be computed is an
// [*document.Error].
func (s *service) estimate(ctx context.Context, head *store.Head, earlier *estimate.Result) (entry, error) {
	e, err := s.figures(ctx, head, earlier)
	if err != nil {
		return entry{}, err
	}
	return s.checked(ctx, e)
}

// figures estimates a plan, without what is found in it.
func (s *service) figures(ctx context.Context, head *store.Head, earlier *estimate.Result) (e entry, err error) {
	defer s.meters.Estimated(time.Now())
	err = s.computed(ctx, head, func() error {
		site, err := estimate.RunContext(ctx, head.Plan, earlier)
		if err != nil {
			return err
		}
		e = entry{head: head, site: site, shown: new(shown)}
		return site.CheckFinite()
	})
	return e, err
}

// checked is an entry with what is found in it.
func (s *service) checked(ctx context.Context, e entry) (entry, error) {
	err := s.computed(ctx, e.head, func() error { e.found = check.Findings(e.head.Plan, e.site); return nil })
	return e, err
}

// computed does what is worked out of a plan; where that cannot be done it is an [*document.Error].
func (s *service) computed(ctx context.Context, head *store.Head, do func() error) (err error) {
	defer func() {
		if v := recover(); v != nil {
			s.log.ErrorContext(ctx, "a plan cannot be estimated", "site", head.ID, "version", head.Version, "id", server.RequestID(ctx), "value", v,
				"stack", string(debug.Stack()))
			err = &document.Error{Reason: fmt.Sprintf("its figures cannot be computed (%v)", v)}
		}
	}()
	return do()
}

// mostCached is about how much memory the entries may take together.
const mostCached = 256 << 20

// plansKept remembers the newest version seen of the plans asked for last.
func plansKept(m *server.Meters) *server.Cache[string, entry] {
	return server.NewCache[string](server.Bounds[entry]{Entries: 10_000, Bytes: mostCached, Size: entry.size, Told: m.Kept})
}

// size is about what an entry takes of memory.
func (e entry) size() int {
	const shownOfChannel = 8000
	return e.site.Bytes() + len(e.past)*len(e.head.Plan.Channels)*400 + len(e.head.Plan.Channels)*shownOfChannel
}

// keep remembers an entry, unless a later version is remembered.
func (s *service) keep(e entry) {
	s.cache.PutUnless(e.head.ID, e, func(old entry) bool { return old.head.Mark == e.head.Mark && old.head.Version > e.head.Version })
}

// missed is told when changes may not have been heard of. Where the database holds another
// history than it did, nothing that is remembered of it is true any more.
func (s *service) missed(epoch string) {
	if s.epoch != "" && s.epoch != epoch {
		s.log.Warn("a backup was restored; all that was remembered is dropped")
		s.cache.Forget()
		s.verdicts.Forget()
		s.rehearsals.Forget()
		s.prepared.last.Forget()
		s.sources.Forget()
		s.printed.Forget()
		s.comparisons.Forget()
	}
	s.epoch = epoch
	s.hub.Missed(epoch)
}

// current returns the newest version of a plan with its estimate. It fails with a
// [*store.UnreadableError] where the plan can be neither read nor estimated.
func (s *service) current(ctx context.Context, id string) (entry, error) {
	e, ok := s.cache.Get(id)
	if ok {
		now, err := s.store.Version(ctx, id)
		if err != nil {
			return entry{}, err
		}
		if now.Mark == e.head.Mark && now.Version <= e.head.Version {
			return e, nil
		}
	}
	// Many ask for one site at once, after a start say; one of them loads it.
	for {
		loaded, err, shared := s.loading.Do(id, func() (any, error) { return s.load(ctx, id, e) })
		if shared && errors.Is(err, context.Canceled) && ctx.Err() == nil {
			continue // the one that loaded it went away
		}
		if err != nil {
			return entry{}, err
		}
		return loaded.(entry), nil
	}
}

func (s *service) load(ctx context.Context, id string, earlier entry) (entry, error) {
	return server.Heavily(ctx, s.slots.Heavy, func(ctx context.Context) (entry, error) {
		head, err := s.store.Load(ctx, id)
		if err != nil {
			return entry{}, err
		}
		if head.Unreadable != nil {
			return entry{}, head.Unreadable
		}
		e, err := s.estimate(ctx, head, earlier.site)
		if wrong := new(document.Error); errors.As(err, &wrong) {
			return entry{}, &store.UnreadableError{Err: err}
		}
		if err != nil {
			return entry{}, err
		}
		e = e.remembering(earlier)
		s.keep(e)
		return e, nil
	})
}
