package api

import (
	"context"
	"encoding/json"
	"errors"
	"math/rand/v2"
	"strings"
	"sync"
	"time"

	"wakefield.example/core/document"
	"wakefield.example/core/overview"
	"wakefield.example/internal/server"
	"wakefield.example/internal/store"
)

// How lines of sites are made in the background.
const (
	linesLook  = 2 * time.Second  // how often it is asked which are due
	linesQuiet = 15 * time.Second // for which a plan rests before its line is made anew
)

// linesPace is how they are made by a server.
func linesPace(quiet time.Duration) store.Pace {
	return store.Pace{Most: 8, Hold: time.Minute, Quiet: quiet, Least: 5 * time.Minute}
}

// methodNow is the print of the method of this program.
var methodNow = sync.OnceValues(func() (string, error) { return overview.Method(context.Background()) })

// lines keeps each site's line of the list as its plan is, until ctx ends: after a change, and after a change of the method. One plan is
// estimated at a time, and as long as it took nothing is after it, so that whoever waits for something finds half of a processor at least.
func (s *service) lines(ctx context.Context, quiet time.Duration) {
	method, err := methodNow()
	if err != nil {
		s.log.ErrorContext(ctx, "the method cannot be told; sites are not estimated in the background", "cause", err)
		return
	}
	for ctx.Err() == nil {
		n, err := s.makeLines(ctx, method, linesPace(quiet))
		if err != nil && ctx.Err() == nil {
			s.log.WarnContext(ctx, "sites are not estimated in the background", "cause", err)
		}
		if n > 0 && err == nil {
			continue
		}
		wait := linesLook/2 + rand.N(linesLook) // not all servers at once
		if err != nil {
			wait *= 8 // a database that is away is said, and not all the time
		}
		pause(ctx, wait)
	}
}

func pause(ctx context.Context, d time.Duration) {
	select {
	case <-ctx.Done():
	case <-time.After(d):
	}
}

// makeLines makes some of those that are due, and tells how many were.
func (s *service) makeLines(ctx context.Context, method string, pace store.Pace) (int, error) {
	due, err := s.store.DueLines(store.Everything(ctx), method, pace)
	if err != nil {
		return 0, err
	}
	for _, d := range due {
		began := time.Now()
		if err := s.makeLine(store.Of(ctx, d.Company), d, method); err != nil && !errors.Is(err, store.ErrNotFound) {
			return 0, err
		}
		pause(ctx, time.Since(began))
	}
	return len(due), nil
}

// makeLine estimates a site's adopted plan, where it is not at hand, and keeps what its line says. A plan that cannot be read or estimated
// has none.
func (s *service) makeLine(ctx context.Context, d store.DueLine, method string) error {
	m := store.Made{DueLine: d, Method: method, Found: json.RawMessage("[]"), Words: json.RawMessage("[]")}
	e, err := s.forLine(ctx, d)
	switch unreadable := new(store.UnreadableError); {
	case errors.As(err, &unreadable):
		return s.store.MakeLine(ctx, m, nil)
	case err != nil:
		return err
	}
	m.Version, m.Mark = e.head.Version, e.head.Mark
	line, words := overview.Of(e.head.Plan, e.site, e.found), overview.Words(e.head.Plan, e.found)
	var text strings.Builder
	for _, w := range words {
		text.WriteString(strings.ToLower(w.Text) + "\n")
	}
	m.Lower = text.String()
	for into, what := range map[*json.RawMessage]any{&m.Said: line, &m.Found: overview.FoundOf(e.found), &m.Words: words} {
		if *into, err = json.Marshal(what); err != nil {
			return err
		}
	}
	return s.store.MakeLine(ctx, m, func(was json.RawMessage) bool {
		var before overview.Line
		return json.Unmarshal(was, &before) == nil && overview.Moved(&before, &line)
	})
}

// forLine is a site's adopted plan with its estimate: as it is at hand, or worked out and not kept at hand, where those that people look
// at are.
func (s *service) forLine(ctx context.Context, d store.DueLine) (entry, error) {
	if e, ok := s.cache.Get(d.Plan); ok && e.head.Stamp() == d.Stamp {
		return e, nil
	}
	return server.Heavily(ctx, s.slots.Heavy, func(ctx context.Context) (entry, error) {
		head, err := s.store.Load(ctx, d.Plan)
		if err != nil {
			return entry{}, err
		}
		if head.Unreadable != nil {
			return entry{}, head.Unreadable
		}
		e, err := s.estimate(ctx, head, nil)
		if wrong := new(document.Error); errors.As(err, &wrong) {
			return entry{}, &store.UnreadableError{Err: err}
		}
		return e, err
	})
}
