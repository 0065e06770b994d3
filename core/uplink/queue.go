package uplink

import (
	"cmp"
	"slices"
	"sort"
)

// Clip is what one event brings to be copied.
type Clip struct {
	Channel       int
	Source, Event int     // which one; of a still its place
	Over          float64 // when the event was over, seconds
	Done          float64 // when the last second of its footage has been recorded
	Amount        Kbit    // that no clip before has brought
	Whole         Kbit    // of all of the event's footage that is copied
	Probe         int     // which event asks how its clips would fare, and takes nothing of the line; 0 for none
	Aside         bool    // whether it only stands in the way of others
}

// Carrier is what clips leave by.
type Carrier interface {
	// After is when an amount that begins to be sent at a moment has left.
	After(at float64, amount Kbit) float64
}

// Sort puts clips into the order in which they leave.
func Sort(clips []Clip) {
	slices.SortFunc(clips, func(a, b Clip) int {
		return cmp.Or(cmp.Compare(a.Done, b.Done), cmp.Compare(a.Channel, b.Channel), cmp.Compare(a.Source,
			b.Source), cmp.Compare(a.Event, b.Event))
	})
}

// Send lets sorted clips leave one behind the other, and tells of each when it begins to be sent and when it is safe. It ends
// early where told returns false.
func Send(clips []Clip, by Carrier, told func(k int, begins, safe float64) bool) {
	free, asked := 0.0, make(map[int]float64)
	for k := range clips {
		c := &clips[k]
		begins := max(c.Done, free)
		if c.Probe != 0 { // behind the other clips of its event, too
			begins = max(begins, asked[c.Probe])
		}
		safe := by.After(begins, c.Amount)
		if c.Probe == 0 {
			free = safe
		} else {
			asked[c.Probe] = safe
		}
		if !told(k, begins, safe) {
			return
		}
	}
}

// Span is a stretch of time, in seconds.
type Span struct{ From, To float64 }

// covered are stretches of footage that clips have brought.
type covered struct{ spans []Span }

// add adds a stretch, and calls f with those parts of it that were not there before, in order.
func (c *covered) add(from, to float64, f func(from, to float64)) {
	if to <= from {
		return
	}
	i := sort.Search(len(c.spans), func(i int) bool { return c.spans[i].To >= from })
	at, j := from, i
	merged := Span{from, to}
	for ; j < len(c.spans) && c.spans[j].From <= to; j++ {
		s := c.spans[j]
		if s.From > at {
			f(at, s.From)
		}
		at = max(at, s.To)
		merged = Span{min(merged.From, s.From), max(merged.To, s.To)}
	}
	if at < to {
		f(at, to)
	}
	c.spans = slices.Replace(c.spans, i, j, merged)
}

// overlap is for how long of a stretch any of some spans lasts, which do not overlap and are in order.
func overlap(spans []Span, from, to float64) (seconds float64) {
	for k := sort.Search(len(spans), func(k int) bool { return spans[k].To > from }); k < len(spans) && spans[k].From < to; k++ {
		seconds += min(spans[k].To, to) - max(spans[k].From, from)
	}
	return seconds
}

// Union puts spans together that overlap or touch, in order; it uses their room.
func Union(spans []Span) []Span {
	slices.SortFunc(spans, func(a, b Span) int { return cmp.Compare(a.From, b.From) })
	out := spans[:0]
	for _, s := range spans {
		if n := len(out); n > 0 && s.From <= out[n-1].To {
			out[n-1].To = max(out[n-1].To, s.To)
		} else {
			out = append(out, s)
		}
	}
	return out
}
