package rehearse

import (
	"math"
	"math/rand/v2"

	"wakefield.example/core/estimate"
	"wakefield.example/core/picture"
	"wakefield.example/core/plan"
	"wakefield.example/core/resolve"
	"wakefield.example/core/week"
)

// notice is what the detection of a channel makes of events, one by one.
type notice struct {
	c     *plan.Channel
	clock *clock
	on    week.Steps[bool]
	least Ms

	areas []picture.Watch
	open  func(minute int) uint64
	walks []uint64  // of each walk: the areas that notice it while they watch
	ways  []float64 // up to which share of all each walk is taken
	known bool      // whether it is known how the ground lies
	room  []*picture.Region
}

func newNotice(r *Rehearsal, i int) *notice {
	c := &r.plan.Channels[i]
	n := &notice{c: c, clock: r.clock, on: c.Detection.Steps(), least: Ms(c.Detection.MinSeconds * float64(Second))}
	if c.NoCamera || !c.Detection.Drawn() {
		return n
	}
	n.areas, _, n.open = estimate.Watching(c)
	if c.Scene == nil {
		return n
	}
	ground, known, _ := c.Ground()
	n.known = known
	all := 0.0
	for k := range c.Scene.Walks {
		all += c.Scene.Walks[k].SharePercent
		n.ways = append(n.ways, all)
		bits := uint64(0)
		for a := range n.areas {
			if known && picture.Notices(ground, n.areas[a:a+1], r.plan.WalkOf(&c.Scene.Walks[k])) {
				bits |= 1 << a
			}
		}
		n.walks = append(n.walks, bits)
	}
	for k := range c.Scene.Patches {
		n.room = append(n.room, picture.NewRegion(picture.Shape{c.Scene.Patches[k].Outline()}, nil))
	}
	return n
}

// of decides whether an event becomes a trigger, and at which gate it is lost otherwise. As many numbers are drawn whatever
// the settings, so that the same happens under others.
func (n *notice) of(e *Event, l luck) {
	chance, way, first, second := l.u(), l.u(), l.pcg.Uint64(), l.pcg.Uint64()
	if e.Source == Wanted && len(n.ways) > 0 {
		at := way * n.ways[len(n.ways)-1]
		for e.Walk = 0; at >= n.ways[e.Walk] && e.Walk < len(n.ways)-1; e.Walk++ {
		}
	}
	e.Trigger = e.Start + n.least
	e.Gate = n.gate(e, chance, rand.NewPCG(first, second))
}

func (n *notice) gate(e *Event, chance float64, place *rand.PCG) Gate {
	d := &n.c.Detection
	minute := n.clock.minute(e.Trigger)
	switch {
	case n.c.NoCamera || !d.On:
		return Off
	case !n.on.At(minute):
		return Closed
	case e.End <= e.Trigger:
		return TooShort
	}
	sure := 1.0
	switch {
	case d.Catch != nil && (e.Source != Patch || d.Areas == nil):
		if chance >= *d.Catch {
			return Overlooked
		}
		return Passed
	case d.Reliability != nil:
		sure = *d.Reliability
	case d.Drawn():
		sure = resolve.Reliability
	}
	if d.Drawn() {
		watching := n.open(int(minute))
		if watching == 0 {
			return Closed
		}
		if e.Areas = n.seen(e, place) & watching; e.Areas == 0 {
			return OutOfSight
		}
	}
	if chance >= sure {
		e.Areas = 0
		return Overlooked
	}
	return Passed
}

// seen are the areas in which an event is in sight for long enough.
func (n *notice) seen(e *Event, place *rand.PCG) (bits uint64) {
	switch {
	case e.Source == Wanted && e.Walk >= 0 && n.known:
		return n.walks[e.Walk]
	case e.Source == Patch:
		return n.inPatch(e, luck{place})
	}
	return math.MaxUint64 // it has no place in the picture
}

// inPatch are the areas that see what moves somewhere in a patch, as wide as it is high on the screen.
func (n *notice) inPatch(e *Event, l luck) (bits uint64) {
	patch, inside := &n.c.Scene.Patches[e.At], n.room[e.At]
	high := math.Sqrt(patch.BlobPercent / 100 * n.c.Aspect())
	wide := high / n.c.Aspect()
	const point = 1e-6
	for range 10_000 {
		x, y := l.u(), l.u()
		if inside.Within(picture.Box{Left: x - point, Top: y - point, Right: x + point, Bottom: y + point}) < 2*point*point {
			continue
		}
		box := picture.Box{Left: x - wide/2, Top: y - high/2, Right: x + wide/2, Bottom: y + high/2}
		for a, w := range n.areas {
			if covered := w.Within(box); covered > 0 && covered >= w.Smallest && float64(e.End-e.Start) > w.Seconds*float64(Second) {
				bits |= 1 << a
			}
		}
		return bits
	}
	return 0
}
