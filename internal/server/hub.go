package server

import (
	"maps"
	"slices"
	"sync"

	"wakefield.example/internal/store"
)

// Hub tells pages of changes. They come from the database, so it does not matter
// through which server a change was made.
type Hub struct {
	mutex     sync.Mutex
	epoch     string
	isAway    bool // whether the database does not answer
	listeners map[*Listener]bool
}

// Listener is a page that hears of changes. Of several changes of a plan that it has
// not taken yet it hears of the last, and of several of a site of each kind once, so that
// nobody has to wait for it.
type Listener struct {
	sites []string // none for all
	mutex sync.Mutex
	news  News
	Ready chan struct{} // holds a token while there is news
}

// News is what a page has not heard yet.
type News struct {
	plans  map[string]store.Changed
	sites  []store.SiteChanged
	Here   map[string]store.Presence // by who it is: only the newest counts
	Missed *Missed
	Beat   bool // whether it is to hear at once that the database is away
}

// mostSites is how many changes of sites are kept for a page; where there are more, it is
// told that it missed some.
const mostSites = 200

func NewHub() *Hub { return &Hub{listeners: make(map[*Listener]bool)} }

// Join returns a listener for the changes of some sites, all for none, and how to leave. Nobody knows what it missed before.
func (h *Hub) Join(sites []string) (l *Listener, leave func()) {
	l = &Listener{sites: sites, Ready: make(chan struct{}, 1)}
	h.mutex.Lock()
	defer h.mutex.Unlock()
	h.listeners[l] = true
	if h.epoch != "" {
		l.news.Missed = &Missed{h.epoch}
		l.Ready <- struct{}{}
	}
	return l, func() {
		h.mutex.Lock()
		defer h.mutex.Unlock()
		delete(h.listeners, l)
	}
}

func (h *Hub) count() int {
	h.mutex.Lock()
	defer h.mutex.Unlock()
	return len(h.listeners)
}

// Tell passes a change of a plan on.
func (h *Hub) Tell(change store.Changed) {
	h.pass(change.Site, func(n *News) {
		if n.plans == nil {
			n.plans = make(map[string]store.Changed)
		}
		if before := n.plans[change.Plan]; before.Mark != change.Mark || before.Version < change.Version {
			n.plans[change.Plan] = change
		}
	})
}

// TellSite passes a change of a site on.
func (h *Hub) TellSite(change store.SiteChanged) {
	h.pass(change.Site, func(n *News) {
		switch {
		case slices.Contains(n.sites, change):
		case len(n.sites) < mostSites:
			n.sites = append(n.sites, change)
		default:
			n.Missed = &Missed{h.epoch}
		}
	})
}

// TellPresence passes on who is at a site. Of more than a page can need nothing is kept: they say so again.
func (h *Hub) TellPresence(p store.Presence) {
	h.pass(p.Site, func(n *News) {
		if n.Here == nil {
			n.Here = make(map[string]store.Presence)
		}
		if _, known := n.Here[p.Who]; known || len(n.Here) < mostSites {
			n.Here[p.Who] = p
		}
	})
}

// Missed tells all pages that changes may have been missed.
func (h *Hub) Missed(epoch string) {
	h.mutex.Lock()
	h.epoch, h.isAway = epoch, false
	h.mutex.Unlock()
	h.pass("", func(n *News) { n.Missed = &Missed{epoch} })
}

// Lost tells all pages that the database does not answer.
func (h *Hub) Lost() {
	h.mutex.Lock()
	h.isAway = true
	h.mutex.Unlock()
	h.pass("", func(n *News) { n.Beat = true })
}

// Away tells whether the database does not answer.
func (h *Hub) Away() bool {
	h.mutex.Lock()
	defer h.mutex.Unlock()
	return h.isAway
}

// pass adds to the news of those that a site concerns; with none named it concerns all.
func (h *Hub) pass(site string, add func(*News)) {
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
		case l.Ready <- struct{}{}:
		default:
		}
	}
}

// Take returns the news there are.
func (l *Listener) Take() News {
	l.mutex.Lock()
	defer l.mutex.Unlock()
	n := l.news
	l.news = News{}
	return n
}

// Only leaves out what is of sites that whoever hears of it may not see.
func (n *News) Only(maySee func(site string) bool) {
	n.sites = slices.DeleteFunc(n.sites, func(c store.SiteChanged) bool { return !maySee(c.Site) })
	maps.DeleteFunc(n.Here, func(_ string, p store.Presence) bool { return !maySee(p.Site) })
	maps.DeleteFunc(n.plans, func(_ string, c store.Changed) bool { return !maySee(c.Site) })
}

// Send sends news in an order in which nothing is asked for twice.
func (n News) Send(data func(any) error) error {
	if n.Missed != nil {
		if err := data(*n.Missed); err != nil {
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
	for _, p := range n.Here {
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
