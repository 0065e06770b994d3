package server

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

	"github.com/hashicorp/golang-lru/v2/simplelru"
	"golang.org/x/sync/semaphore"
	"golang.org/x/sync/singleflight"

	"wakefield.example/core/check"
	"wakefield.example/core/document"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
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
func (s *service) estimate(ctx context.Context, head *store.Head, earlier *estimate.Result) (e entry, err error) {
	defer func() {
		if v := recover(); v != nil {
			s.log.ErrorContext(ctx, "a plan cannot be estimated", "site", head.ID, "version", head.Version, "id", requestID(ctx), "value", v,
				"stack", string(debug.Stack()))
			err = &document.Error{Reason: fmt.Sprintf("its figures cannot be computed (%v)", v)}
		}
	}()
	defer s.meters.estimated(time.Now())
	site, err := estimate.RunContext(ctx, head.Plan, earlier)
	if err != nil {
		return entry{}, err
	}
	if err := site.CheckFinite(); err != nil {
		return entry{}, err
	}
	return entry{head: head, site: site, found: check.Findings(head.Plan, site), shown: new(shown)}, nil
}

// heldKey is for a slot that the work of a context is in.
type heldKey struct{ slot *semaphore.Weighted }

// heavily is something that takes long or much memory, of which not much goes on at
// once. What is done within it and is heavy too needs no slot of its own: two that each
// waited for the other's would wait for ever.
func heavily[T any](ctx context.Context, s *semaphore.Weighted, do func(ctx context.Context) (T, error)) (T, error) {
	if ctx.Value(heldKey{s}) != nil {
		return do(ctx)
	}
	release, err := waitFor(ctx, s, 1)
	if err != nil {
		var none T
		return none, err
	}
	defer release()
	return do(context.WithValue(ctx, heldKey{s}, true))
}

// mostCached is about how much memory the entries may take together.
const mostCached = 256 << 20

// cache remembers the newest version seen of the plans asked for last, as long as all
// together do not take too much memory.
type cache struct {
	meters  *meters
	loading singleflight.Group

	mutex   sync.Mutex
	entries *simplelru.LRU[string, entry]
	bytes   int
}

func newCache(m *meters) *cache {
	entries, err := simplelru.NewLRU[string, entry](10_000, nil)
	if err != nil {
		panic(err) // the size is a constant above 0
	}
	return &cache{meters: m, entries: entries}
}

// size is about what an entry takes of memory.
func (e entry) size() int {
	const shownOfChannel = 8000
	return e.site.Bytes() + len(e.past)*len(e.head.Plan.Channels)*400 + len(e.head.Plan.Channels)*shownOfChannel
}

func (c *cache) get(id string) (entry, bool) {
	c.mutex.Lock()
	defer c.mutex.Unlock()
	return c.entries.Get(id)
}

// peek is get for whoever only looks whether it is there: what is not used otherwise goes first all the same.
func (c *cache) peek(id string) (entry, bool) {
	c.mutex.Lock()
	defer c.mutex.Unlock()
	return c.entries.Peek(id)
}

func (c *cache) put(e entry) {
	c.mutex.Lock()
	defer c.mutex.Unlock()
	if old, ok := c.entries.Peek(e.head.ID); ok {
		if old.head.Mark == e.head.Mark && old.head.Version > e.head.Version {
			return
		}
		c.bytes -= old.size()
	}
	c.entries.Add(e.head.ID, e)
	c.bytes += e.size()
	for c.bytes > mostCached && c.entries.Len() > 1 {
		_, old, _ := c.entries.RemoveOldest()
		c.bytes -= old.size()
	}
	c.meters.cached.Set(float64(c.bytes))
	c.meters.entries.Set(float64(c.entries.Len()))
}

// forget drops all there is.
func (c *cache) forget() {
	c.mutex.Lock()
	defer c.mutex.Unlock()
	c.entries.Purge()
	c.bytes = 0
	c.meters.cached.Set(0)
	c.meters.entries.Set(0)
}

// missed is told when changes may not have been heard of. Where the database holds another
// history than it did, nothing that is remembered of it is true any more.
func (s *service) missed(epoch string) {
	if s.epoch != "" && s.epoch != epoch {
		s.log.Warn("a backup was restored; all that was remembered is dropped")
		s.cache.forget()
		s.verdicts.forget()
		s.rehearsals.forget()
		s.prepared.forget()
	}
	s.epoch = epoch
	s.hub.missed(epoch)
}

// current returns the newest version of a plan with its estimate. It fails with a
// [*store.UnreadableError] where the plan can be neither read nor estimated.
func (s *service) current(ctx context.Context, id string) (entry, error) {
	e, ok := s.cache.get(id)
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
		loaded, err, shared := s.cache.loading.Do(id, func() (any, error) { return s.load(ctx, id, e) })
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
	return heavily(ctx, s.heavy.heavy, func(ctx context.Context) (entry, error) {
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
		s.cache.put(e)
		return e, nil
	})
}
