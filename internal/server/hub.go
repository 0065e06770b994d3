package server

import (
	"context"
	"net/http"
	"sync"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/sse"

	"wakefield/internal/store"
)

// hub tells the pages that show a site of its changes. They come from the database,
// so it does not matter through which server a change was made.
type hub struct {
	mutex     sync.Mutex
	listeners map[string]map[chan store.Changed]bool
}

func newHub() *hub { return &hub{listeners: make(map[string]map[chan store.Changed]bool)} }

// join returns a channel of the changes of a site, and how to leave.
func (h *hub) join(id string) (<-chan store.Changed, func()) {
	// A page that is slower than this many changes reads the site anew at the next.
	c := make(chan store.Changed, 16)
	h.mutex.Lock()
	defer h.mutex.Unlock()
	if h.listeners[id] == nil {
		h.listeners[id] = make(map[chan store.Changed]bool)
	}
	h.listeners[id][c] = true
	return c, func() {
		h.mutex.Lock()
		defer h.mutex.Unlock()
		if h.listeners[id][c] {
			delete(h.listeners[id], c)
			close(c)
		}
		if len(h.listeners[id]) == 0 {
			delete(h.listeners, id)
		}
	}
}

// tell passes a change on.
func (h *hub) tell(change store.Changed) {
	h.mutex.Lock()
	defer h.mutex.Unlock()
	for c := range h.listeners[change.Plan] {
		select {
		case c <- change:
		default:
		}
	}
}

// hangUp ends all streams, so that pages connect anew and see what they missed.
func (h *hub) hangUp() {
	h.mutex.Lock()
	defer h.mutex.Unlock()
	for id, all := range h.listeners {
		for c := range all {
			close(c)
		}
		delete(h.listeners, id)
	}
}

// registerChanges adds the stream of a site's changes: first the version it has, then
// every change as it is made.
func registerChanges(api huma.API, s *service) {
	sse.Register(api, huma.Operation{
		OperationID: "changes", Method: http.MethodGet, Path: "/api/sites/{id}/changes", Summary: "Changes of a site, as they are made",
	}, map[string]any{"change": store.Changed{}}, func(ctx context.Context, in *SiteParam, send sse.Sender) {
		changes, leave := s.hub.join(in.ID)
		defer leave()
		version, err := s.store.Version(ctx, in.ID)
		if err != nil || send.Data(store.Changed{Plan: in.ID, Version: version}) != nil {
			return
		}
		for {
			select {
			case <-ctx.Done():
				return
			case change, ok := <-changes:
				if !ok || send.Data(change) != nil {
					return
				}
			}
		}
	})
}

// unhurried lifts the time limits from a stream and gives them to all else.
func unhurried(limit func(http.Handler) http.Handler) func(http.Handler) http.Handler {
	return func(next http.Handler) http.Handler {
		limited := limit(next)
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			if r.Header.Get("Accept") == "text/event-stream" {
				next.ServeHTTP(w, r)
				return
			}
			limited.ServeHTTP(w, r)
		})
	}
}
