package estimate

import (
	"wakefield.example/core/picture"
	"wakefield.example/core/plan"
	"wakefield.example/core/resolve"
	"wakefield.example/core/week"
)

// Watching are the watched areas of a channel as detection sees them, and their ids; with none drawn there are none. At a
// minute of the week those watch whose bit is set in Open.
func Watching(c *plan.Channel) (areas []picture.Watch, ids []string, open func(minute int) uint64) {
	w := resolve.Watched(c)
	return w.All, w.IDs, func(minute int) uint64 { return w.Open.At(week.Minute(minute)) }
}
