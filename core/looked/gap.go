package looked

import (
	"context"
	"sync"
	"time"
)

// Gap is a context that measures the longest time in which nobody looked whether it has ended.
type Gap struct {
	context.Context
	mutex   sync.Mutex
	last    time.Time
	longest time.Duration
}

// Gaps is a context that measures from now on.
func Gaps() *Gap { return &Gap{Context: context.Background(), last: time.Now()} }

// Err looks.
func (g *Gap) Err() error {
	g.look()
	return g.Context.Err()
}

func (g *Gap) look() {
	g.mutex.Lock()
	defer g.mutex.Unlock()
	now := time.Now()
	g.longest = max(g.longest, now.Sub(g.last))
	g.last = now
}

// Longest is the longest time without a look, up to now.
func (g *Gap) Longest() time.Duration {
	g.look()
	return g.longest
}
