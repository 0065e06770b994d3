package server

import (
	"context"
	"errors"
	"net/http"
	"runtime"
	"strings"
	"sync"
	"time"

	"golang.org/x/sync/semaphore"
)

// ErrBusy says that more is asked at once than there is room for.
var ErrBusy = errors.New("busy")

// BusyAfter is how long a request waits for its turn.
const BusyAfter = 10 * time.Second

// WaitFor waits for a part of something shared, until the context ends or for so long
// that it is better to be asked again.
func WaitFor(ctx context.Context, s *semaphore.Weighted, n int64) (release func(), err error) {
	short, cancel := context.WithTimeout(ctx, BusyAfter)
	defer cancel()
	if err := s.Acquire(short, n); err != nil {
		if ctx.Err() != nil {
			return nil, ctx.Err()
		}
		return nil, ErrBusy
	}
	return sync.OnceFunc(func() { s.Release(n) }), nil
}

// heldKey is for a slot that the work of a context is in.
type heldKey struct{ slot *semaphore.Weighted }

// Heavily is something that takes long or much memory, of which not much goes on at
// once. What is done within it and is heavy too needs no slot of its own: two that each
// waited for the other's would wait for ever.
func Heavily[T any](ctx context.Context, s *semaphore.Weighted, do func(ctx context.Context) (T, error)) (T, error) {
	if ctx.Value(heldKey{s}) != nil {
		return do(ctx)
	}
	release, err := WaitFor(ctx, s, 1)
	if err != nil {
		var none T
		return none, err
	}
	defer release()
	return do(context.WithValue(ctx, heldKey{s}, true))
}

// Sizes of requests, in bytes.
const (
	UsualBody   = 4 << 20
	TableBody   = 16 << 20
	ClipBody    = 24 << 20
	LargestBody = 32 << 20 // plan files and event logs
	BundleBody  = 80 << 20 // plan files with pictures
)

// gate bounds what the bodies of all requests take at once.
type gate struct{ room *semaphore.Weighted }

const (
	SmallBody = 256 << 10 // not counted
	RoomBytes = 96 << 20
)

func newGate() *gate { return &gate{semaphore.NewWeighted(RoomBytes)} }

// bodies lets requests with large bodies wait until there is room for them.
func (g *gate) bodies(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		n := r.ContentLength
		if n < 0 {
			n = LargestBody // it does not say
		}
		if n > SmallBody {
			release, err := WaitFor(r.Context(), g.room, min(n, BundleBody))
			if err != nil {
				w.Header().Set("Retry-After", "2")
				writeProblem(w, r, http.StatusTooManyRequests, busyWords)
				return
			}
			defer release()
		}
		next.ServeHTTP(w, r)
	})
}

// Slots bounds how much heavy work goes on at once: reading files, estimating plans
// that are not at hand. Light requests do not pass through them.
type Slots struct {
	Heavy, Edits *semaphore.Weighted
	Pictures     *semaphore.Weighted // bytes of pictures that are decoded
	answers      *semaphore.Weighted // to changes, being written
}

// PictureBytes is what pictures that are being decoded may take together: a little more
// than the largest of them does.
const PictureBytes = 220_000_000

func NewSlots() *Slots {
	n := int64(runtime.GOMAXPROCS(0))
	return &Slots{semaphore.NewWeighted(max(2, n/2)), semaphore.NewWeighted(2 * n), semaphore.NewWeighted(PictureBytes),
		semaphore.NewWeighted(1)}
}

// ReadsAtOnce is how many requests that only read are worked on at once, for each core: so many that no core idles, and so few
// that changes have their share of the cores however many read.
const ReadsAtOnce = 1.5

// slowAfter is when a request that reads no longer counts: it waits for its client, and not for a core.
const slowAfter = 250 * time.Millisecond

// reads lets requests that only read wait for each other, but for those that last.
func reads(lasts func(*http.Request) bool) func(http.Handler) http.Handler {
	room := semaphore.NewWeighted(int64(ReadsAtOnce * float64(runtime.GOMAXPROCS(0))))
	return func(next http.Handler) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			if r.Method != http.MethodGet || !strings.HasPrefix(r.URL.Path, "/api/") || lasts(r) {
				next.ServeHTTP(w, r)
				return
			}
			release, err := WaitFor(r.Context(), room, 1)
			if err != nil {
				w.Header().Set("Retry-After", "2")
				writeProblem(w, r, http.StatusTooManyRequests, busyWords)
				return
			}
			defer release()
			defer time.AfterFunc(slowAfter, release).Stop()
			next.ServeHTTP(w, r)
		})
	}
}

type finishedKey struct{}

// finished lets an operation say what is to be done when its answer is written.
func finished(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		var then func()
		defer func() {
			if then != nil {
				then()
			}
		}()
		next.ServeHTTP(w, r.WithContext(context.WithValue(r.Context(), finishedKey{}, &then)))
	})
}

// Written lets the answers to changes that were made together be written a few at a time: else all would want the cores at one
// moment, before everybody who reads. A client that is slow to take its answer keeps nobody waiting.
func (s *Slots) Written(ctx context.Context) {
	then, ok := ctx.Value(finishedKey{}).(*func())
	if !ok {
		return
	}
	if release, err := WaitFor(ctx, s.answers, 1); err == nil {
		timer := time.AfterFunc(slowAfter, release)
		*then = func() { timer.Stop(); release() }
	}
}
