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

// errBusy says that more is asked at once than there is room for.
var errBusy = errors.New("busy")

// busyAfter is how long a request waits for its turn.
const busyAfter = 10 * time.Second

// waitFor waits for a part of something shared, until the context ends or for so long
// that it is better to be asked again.
func waitFor(ctx context.Context, s *semaphore.Weighted, n int64) (release func(), err error) {
	short, cancel := context.WithTimeout(ctx, busyAfter)
	defer cancel()
	if err := s.Acquire(short, n); err != nil {
		if ctx.Err() != nil {
			return nil, ctx.Err()
		}
		return nil, errBusy
	}
	return sync.OnceFunc(func() { s.Release(n) }), nil
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

// Sizes of requests, in bytes.
const (
	usualBody   = 4 << 20
	tableBody   = 16 << 20
	clipBody    = 24 << 20
	largestBody = 32 << 20 // plan files and event logs
	bundleBody  = 80 << 20 // plan files with pictures
)

// gate bounds what the bodies of all requests take at once.
type gate struct{ room *semaphore.Weighted }

const (
	smallBody = 256 << 10 // not counted
	roomBytes = 96 << 20
)

func newGate() *gate { return &gate{semaphore.NewWeighted(roomBytes)} }

// bodies lets requests with large bodies wait until there is room for them.
func (g *gate) bodies(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		n := r.ContentLength
		if n < 0 {
			n = largestBody // it does not say
		}
		if n > smallBody {
			release, err := waitFor(r.Context(), g.room, min(n, bundleBody))
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

// slots bounds how much heavy work goes on at once: reading files, estimating plans
// that are not at hand. Light requests do not pass through them.
type slots struct {
	heavy, edits *semaphore.Weighted
	pictures     *semaphore.Weighted // bytes of pictures that are decoded
	answers      *semaphore.Weighted // to changes, being written
}

// pictureBytes is what pictures that are being decoded may take together: a little more
// than the largest of them does.
const pictureBytes = 220_000_000

func newSlots() *slots {
	n := int64(runtime.GOMAXPROCS(0))
	return &slots{semaphore.NewWeighted(max(2, n/2)), semaphore.NewWeighted(2 * n), semaphore.NewWeighted(pictureBytes),
		semaphore.NewWeighted(1)}
}

// readsAtOnce is how many requests that only read are worked on at once, for each core: so many that no core idles, and so few
// that changes have their share of the cores however many read.
const readsAtOnce = 1.5

// slowAfter is when a request that reads no longer counts: it waits for its client, and not for a core.
const slowAfter = 250 * time.Millisecond

// reads lets requests that only read wait for each other, but for those that last.
func reads(lasts func(*http.Request) bool) func(http.Handler) http.Handler {
	room := semaphore.NewWeighted(int64(readsAtOnce * float64(runtime.GOMAXPROCS(0))))
	return func(next http.Handler) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			if r.Method != http.MethodGet || !strings.HasPrefix(r.URL.Path, "/api/") || lasts(r) {
				next.ServeHTTP(w, r)
				return
			}
			release, err := waitFor(r.Context(), room, 1)
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

// written lets the answers to changes that were made together be written a few at a time: else all would want the cores at one
// moment, before everybody who reads. A client that is slow to take its answer keeps nobody waiting.
func (s *slots) written(ctx context.Context) {
	then, ok := ctx.Value(finishedKey{}).(*func())
	if !ok {
		return
	}
	if release, err := waitFor(ctx, s.answers, 1); err == nil {
		timer := time.AfterFunc(slowAfter, release)
		*then = func() { timer.Stop(); release() }
	}
}
