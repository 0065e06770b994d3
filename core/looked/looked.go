// Package looked tells tests how often long work looks whether anybody waits for it still.
package looked

import (
	"context"
	"sync/atomic"
)

// Context counts how often somebody looks whether it has ended, and ends at one of those looks.
type Context struct {
	context.Context
	times atomic.Int64
	end   int
	stop  context.CancelFunc
}

// At is a context that ends when it is looked at so often; at 0 it never does.
func At(end int) *Context {
	ctx, stop := context.WithCancel(context.Background())
	return &Context{Context: ctx, end: end, stop: stop}
}

// Err counts, and ends the context when it is time.
func (c *Context) Err() error {
	if n := c.times.Add(1); int(n) == c.end {
		c.stop()
	}
	return c.Context.Err()
}

// Times is how often it was looked at.
func (c *Context) Times() int { return int(c.times.Load()) }
