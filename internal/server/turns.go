package server

import (
	"context"
	"sync"
)

// Turns lets the changes of one site go one after the other, as they would only make
// each other stale. Sites do not wait for each other.
type Turns struct {
	mutex sync.Mutex
	sites map[string]*turn
}

type turn struct {
	free    chan struct{} // holds one token while nobody has the turn
	waiting int
}

func NewTurns() *Turns { return &Turns{sites: make(map[string]*turn)} }

// Take waits for the turn of a site.
func (t *Turns) Take(ctx context.Context, id string) (release func(), err error) {
	t.mutex.Lock()
	site := t.sites[id]
	if site == nil {
		site = &turn{free: make(chan struct{}, 1)}
		site.free <- struct{}{}
		t.sites[id] = site
	}
	site.waiting++
	t.mutex.Unlock()
	leave := func() {
		t.mutex.Lock()
		defer t.mutex.Unlock()
		if site.waiting--; site.waiting == 0 {
			delete(t.sites, id)
		}
	}
	select {
	case <-site.free:
		return func() { site.free <- struct{}{}; leave() }, nil
	case <-ctx.Done():
		leave()
		return nil, ctx.Err()
	}
}
