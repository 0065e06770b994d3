package server

import (
	"context"
	"net/http"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/sse"

	"wakefield/internal/store"
)

// hub tells pages of changes. They come from the database, so it does not matter
// through which server a change was made.
type hub struct {
	mutex     sync.Mutex
	listeners map[*listener]bool
}

// listener is a page that hears of changes. Of several changes of a site that it has
// not taken yet it hears of the last, so that nobody has to wait for it.
type listener struct {
	site  string // empty for all
	mutex sync.Mutex
	news  map[string]store.Changed
	ready chan struct{} // holds a token while there is news
}

func newHub() *hub { return &hub{listeners: make(map[*listener]bool)} }

// join returns a listener for the changes of a site, all for none, and how to leave.
func (h *hub) join(site string) (l *listener, leave func()) {
	l = &listener{site: site, news: make(map[string]store.Changed), ready: make(chan struct{}, 1)}
	h.mutex.Lock()
	defer h.mutex.Unlock()
	h.listeners[l] = true
	return l, func() {
		h.mutex.Lock()
		defer h.mutex.Unlock()
		delete(h.listeners, l)
	}
}

func (h *hub) count() int {
	h.mutex.Lock()
	defer h.mutex.Unlock()
	return len(h.listeners)
}

// tell passes a change on.
func (h *hub) tell(change store.Changed) {
	h.mutex.Lock()
	defer h.mutex.Unlock()
	for l := range h.listeners {
		if l.site == "" || l.site == change.Plan {
			l.tell(change)
		}
	}
}

func (l *listener) tell(change store.Changed) {
	l.mutex.Lock()
	defer l.mutex.Unlock()
	if l.news[change.Plan].Version < change.Version {
		l.news[change.Plan] = change
	}
	select {
	case l.ready <- struct{}{}:
	default:
	}
}

// take returns the news there are.
func (l *listener) take() map[string]store.Changed {
	l.mutex.Lock()
	defer l.mutex.Unlock()
	news := l.news
	l.news = make(map[string]store.Changed)
	return news
}

// Beat shows that a stream lives while there is nothing to tell.
type Beat struct {
	Seconds float64 `json:"seconds" doc:"Time until the next one"`
}

const changesPath = "/api/changes"

// registerChanges adds the stream of changes: a beat at once and then regularly, and
// every change as it is made. That of one site begins with its version.
func registerChanges(api huma.API, s *service) {
	type request struct {
		Site string `query:"site" maxLength:"200" doc:"Id of the site to hear of; absent for all"`
	}
	sse.Register(api, huma.Operation{
		OperationID: "changes", Method: http.MethodGet, Path: changesPath, Summary: "Changes, as they are made",
		Middlewares: huma.Middlewares{func(ctx huma.Context, next func(huma.Context)) {
			if site := ctx.Query("site"); site != "" {
				if _, err := s.store.Version(ctx.Context(), site); err != nil {
					told := s.problem(ctx.Context(), err).(huma.StatusError)
					_ = huma.WriteErr(api, ctx, told.GetStatus(), told.Error())
					return
				}
			}
			next(ctx)
		}},
	}, map[string]any{"change": store.Changed{}, "beat": Beat{}}, func(ctx context.Context, in *request, send sse.Sender) {
		l, leave := s.hub.join(in.Site)
		defer leave()
		beat := Beat{s.beat.Seconds()}
		if send.Data(beat) != nil {
			return
		}
		if in.Site != "" {
			version, err := s.store.Version(ctx, in.Site)
			if err != nil || send.Data(store.Changed{Plan: in.Site, Version: version}) != nil {
				return
			}
		}
		tick := time.NewTicker(s.beat)
		defer tick.Stop()
		for {
			select {
			case <-ctx.Done():
				return
			case <-tick.C:
				if send.Data(beat) != nil {
					return
				}
			case <-l.ready:
				for _, change := range l.take() {
					if send.Data(change) != nil {
						return
					}
				}
			}
		}
	})
}
