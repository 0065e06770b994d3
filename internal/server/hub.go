package server

import (
	"context"
	"errors"
	"maps"
	"net/http"
	"slices"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/sse"

	"wakefield.example/internal/account"
	"wakefield.example/internal/store"
)

// hub tells pages of changes. They come from the database, so it does not matter
// through which server a change was made.
type hub struct {
	mutex     sync.Mutex
	epoch     string
	isAway    bool // whether the database does not answer
	listeners map[*listener]bool
}

// listener is a page that hears of changes. Of several changes of a plan that it has
// not taken yet it hears of the last, and of several of a site of each kind once, so that
// nobody has to wait for it.
type listener struct {
	sites []string // none for all
	mutex sync.Mutex
	news  news
	ready chan struct{} // holds a token while there is news
}

// news is what a page has not heard yet.
type news struct {
	plans  map[string]store.Changed
	sites  []store.SiteChanged
	here   map[string]store.Presence // by who it is: only the newest counts
	missed *Missed
	beat   bool // whether it is to hear at once that the database is away
}

// mostSites is how many changes of sites are kept for a page; where there are more, it is
// told that it missed some.
const mostSites = 200

func newHub() *hub { return &hub{listeners: make(map[*listener]bool)} }

// join returns a listener for the changes of some sites, all for none, and how to leave. Nobody knows what it missed before.
func (h *hub) join(sites []string) (l *listener, leave func()) {
	l = &listener{sites: sites, ready: make(chan struct{}, 1)}
	h.mutex.Lock()
	defer h.mutex.Unlock()
	h.listeners[l] = true
	if h.epoch != "" {
		l.news.missed = &Missed{h.epoch}
		l.ready <- struct{}{}
	}
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

// tell passes a change of a plan on.
func (h *hub) tell(change store.Changed) {
	h.pass(change.Site, func(n *news) {
		if n.plans == nil {
			n.plans = make(map[string]store.Changed)
		}
		if before := n.plans[change.Plan]; before.Mark != change.Mark || before.Version < change.Version {
			n.plans[change.Plan] = change
		}
	})
}

// tellSite passes a change of a site on.
func (h *hub) tellSite(change store.SiteChanged) {
	h.pass(change.Site, func(n *news) {
		switch {
		case slices.Contains(n.sites, change):
		case len(n.sites) < mostSites:
			n.sites = append(n.sites, change)
		default:
			n.missed = &Missed{h.epoch}
		}
	})
}

// tellPresence passes on who is at a site. Of more than a page can need nothing is kept: they say so again.
func (h *hub) tellPresence(p store.Presence) {
	h.pass(p.Site, func(n *news) {
		if n.here == nil {
			n.here = make(map[string]store.Presence)
		}
		if _, known := n.here[p.Who]; known || len(n.here) < mostSites {
			n.here[p.Who] = p
		}
	})
}

// missed tells all pages that changes may have been missed.
func (h *hub) missed(epoch string) {
	h.mutex.Lock()
	h.epoch, h.isAway = epoch, false
	h.mutex.Unlock()
	h.pass("", func(n *news) { n.missed = &Missed{epoch} })
}

// lost tells all pages that the database does not answer.
func (h *hub) lost() {
	h.mutex.Lock()
	h.isAway = true
	h.mutex.Unlock()
	h.pass("", func(n *news) { n.beat = true })
}

// away tells whether the database does not answer.
func (h *hub) away() bool {
	h.mutex.Lock()
	defer h.mutex.Unlock()
	return h.isAway
}

// pass adds to the news of those that a site concerns; with none named it concerns all.
func (h *hub) pass(site string, add func(*news)) {
	h.mutex.Lock()
	defer h.mutex.Unlock()
	for l := range h.listeners {
		if len(l.sites) > 0 && site != "" && !slices.Contains(l.sites, site) {
			continue
		}
		l.mutex.Lock()
		add(&l.news)
		l.mutex.Unlock()
		select {
		case l.ready <- struct{}{}:
		default:
		}
	}
}

// take returns the news there are.
func (l *listener) take() news {
	l.mutex.Lock()
	defer l.mutex.Unlock()
	n := l.news
	l.news = news{}
	return n
}

// only leaves out what is of sites that whoever hears of it may not see.
func (n *news) only(maySee func(site string) bool) {
	n.sites = slices.DeleteFunc(n.sites, func(c store.SiteChanged) bool { return !maySee(c.Site) })
	maps.DeleteFunc(n.here, func(_ string, p store.Presence) bool { return !maySee(p.Site) })
	maps.DeleteFunc(n.plans, func(_ string, c store.Changed) bool { return !maySee(c.Site) })
}

// send sends news in an order in which nothing is asked for twice.
func (n news) send(data func(any) error) error {
	if n.missed != nil {
		if err := data(*n.missed); err != nil {
			return err
		}
	}
	for _, c := range n.sites {
		if err := data(c); err != nil {
			return err
		}
	}
	for _, c := range n.plans {
		if err := data(c); err != nil {
			return err
		}
	}
	for _, p := range n.here {
		if err := data(p); err != nil {
			return err
		}
	}
	return nil
}

// Missed says that changes may have been missed, so that what is shown is to be asked for
// anew.
type Missed struct {
	Epoch string `json:"epoch" doc:"Which history is in the database; another one after a backup was restored"`
}

// Beat shows that a stream lives while there is nothing to tell.
type Beat struct {
	Seconds float64 `json:"seconds" doc:"Time until the next one"`
	Away    bool    `json:"away,omitempty" doc:"Whether the database does not answer, so that nothing can be saved at present"`
}

// heardSites refuses a stream of sites that are not there, or that whoever asks may not see, unless these are to be passed over.
func (s *service) heardSites(api huma.API) func(ctx huma.Context, next func(huma.Context)) {
	return func(ctx huma.Context, next func(huma.Context)) {
		if ctx.Query("passOver") == "true" {
			next(ctx)
			return
		}
		for _, site := range sitesHeard(ctx) {
			_, err := s.store.Site(ctx.Context(), site)
			if err == nil && !s.maySee(ctx.Context(), site) {
				err = store.ErrNotFound
			}
			if err != nil {
				told := s.problem(ctx.Context(), err).(huma.StatusError)
				_ = huma.WriteErr(api, ctx, told.GetStatus(), told.Error())
				return
			}
		}
		next(ctx)
	}
}

// sendVersions tells the versions of the plans of some sites as they are. Those that are not there, or that whoever asks may not see,
// have none.
func (s *service) sendVersions(ctx context.Context, sites []string, data func(any) error) error {
	for _, id := range sites {
		site, err := s.store.Site(ctx, id)
		if errors.Is(err, store.ErrNotFound) || err == nil && !s.maySee(ctx, id) {
			continue
		}
		if err != nil {
			return err
		}
		for _, p := range site.Plans {
			if err := data(store.Changed{Site: id, Plan: p.ID, Version: p.Version, Mark: p.Mark}); err != nil {
				return err
			}
		}
	}
	return nil
}

// sitesHeard are the sites that a stream is asked for.
func sitesHeard(ctx huma.Context) []string {
	u := ctx.URL()
	return u.Query()["site"]
}

const changesPath = "/api/changes"

// registerChanges adds the stream of changes: a beat at once and then regularly, and
// every change as it is made. That of some sites begins with the versions of their plans.
func registerChanges(api huma.API, s *service) {
	type request struct {
		Sites []string `query:"site,explode" maxItems:"50" doc:"Ids of the sites to hear of; absent for all"`
		Over  bool     `query:"passOver" doc:"Whether sites that are not there are passed over, in place of an error"`
	}
	sse.Register(api, huma.Operation{
		OperationID: "changes", Method: http.MethodGet, Path: changesPath, Summary: "Changes, as they are made",
		Middlewares: huma.Middlewares{s.heardSites(api)},
	}, map[string]any{"change": store.Changed{}, "site": store.SiteChanged{}, "present": store.Presence{}, "missed": Missed{},
		"beat": Beat{}},
		func(ctx context.Context, in *request, send sse.Sender) {
			l, leave := s.hub.join(in.Sites)
			defer leave()
			if who := account.From(ctx); who != nil && s.keeper != nil {
				var done context.CancelFunc
				ctx, done = s.keeper.Listen(ctx, who)
				defer done()
			}
			beat := func() error { return send.Data(Beat{s.beat.Seconds(), s.hub.away()}) }
			if beat() != nil {
				return
			}
			if s.sendVersions(ctx, in.Sites, send.Data) != nil {
				return
			}
			tick := time.NewTicker(s.beat)
			defer tick.Stop()
			for {
				select {
				case <-ctx.Done():
					return
				case <-s.life.Done(): // another server is to be had
					return
				case <-tick.C:
					if beat() != nil {
						return
					}
				case <-l.ready:
					n := l.take()
					n.only(func(site string) bool { return s.maySee(ctx, site) })
					if n.beat && beat() != nil || n.send(send.Data) != nil {
						return
					}
				}
			}
		})
}
