package rehearse

import (
	"context"
	"sync/atomic"
)

// countedContext ends when it was looked at so often.
type countedContext struct {
	context.Context
	left int
	seen atomic.Int64
	stop context.CancelFunc
}

func (c *countedContext) Err() error {
	if c.seen.Add(1) >= int64(c.left) {
		c.stop()
	}
	return c.Context.Err()
}
