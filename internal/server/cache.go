package server

import (
	"context"
	"sync"

	"wakefield/core/check"
	"wakefield/core/estimate"
	"wakefield/internal/store"
)

// entry is a version of a plan with its estimate.
type entry struct {
	head  *store.Head
	site  *estimate.Site
	found []check.Finding
}

// newEntry estimates and checks a version; earlier, which may be nil, is an estimate
// of one before.
func newEntry(head *store.Head, earlier *estimate.Site) entry {
	site := estimate.Run(head.Plan, earlier)
	return entry{head, site, check.Findings(head.Plan, site)}
}

// cache remembers the newest version seen of the plans asked for last.
type cache struct {
	mutex   sync.Mutex
	entries map[string]entry
	order   []string // least recently used first
}

// cached is how many plans are remembered.
const cached = 32

func newCache() *cache { return &cache{entries: make(map[string]entry)} }

func (c *cache) get(id string) (entry, bool) {
	c.mutex.Lock()
	defer c.mutex.Unlock()
	e, ok := c.entries[id]
	if ok {
		c.touch(id)
	}
	return e, ok
}

func (c *cache) put(e entry) {
	c.mutex.Lock()
	defer c.mutex.Unlock()
	if old, ok := c.entries[e.head.ID]; ok && old.head.Version > e.head.Version {
		return
	}
	c.entries[e.head.ID] = e
	c.touch(e.head.ID)
	if len(c.order) > cached {
		delete(c.entries, c.order[0])
		c.order = c.order[1:]
	}
}

func (c *cache) touch(id string) {
	for i, other := range c.order {
		if other == id {
			c.order = append(c.order[:i], c.order[i+1:]...)
			break
		}
	}
	c.order = append(c.order, id)
}

// current returns the newest version of a plan with its estimate.
func (s *service) current(ctx context.Context, id string) (entry, error) {
	e, ok := s.cache.get(id)
	if ok {
		version, err := s.store.Version(ctx, id)
		if err != nil {
			return entry{}, err
		}
		if version == e.head.Version {
			return e, nil
		}
	}
	head, err := s.store.Load(ctx, id)
	if err != nil {
		return entry{}, err
	}
	e = newEntry(head, e.site)
	s.cache.put(e)
	return e, nil
}
