package server

import (
	"maps"
	"slices"
	"sync"

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
