package handover

import (
	"math"
	"slices"

	"wakefield.example/core/plan"
)

// next is the value that is chosen in place of one: the smallest that is not below it, or leaning to the lower ones the largest
// that is not above; where there is none on that side, the nearest on the other. An empty list takes all.
func (n *entering) next(values []float64, v float64) float64 {
	if len(values) == 0 {
		return v
	}
	above, below := math.Inf(1), math.Inf(-1)
	for _, c := range values {
		if c >= v-1e-9 {
			above = min(above, c)
		}
		if c <= v+1e-9 {
			below = max(below, c)
		}
	}
	if math.IsInf(above, 1) || n.lean == Lower && !math.IsInf(below, -1) {
		return below
	}
	return above
}

// duty is the duty that is entered for a planned one: with one layer where the recorder takes no two, and frames that it knows.
func (n *entering) duty(id string) string {
	if entered, ok := n.duties[id]; ok {
		return entered
	}
	d := n.planned.Duty(id)
	if d == nil {
		return id
	}
	next := *d
	if n.asks(Layers) && n.takes.Layers == "one" && d.Base != nil && d.Event != nil {
		switch n.lean {
		case Lower:
			next.Event = nil
		case Upper:
			next.Base = nil
		default: // the main stream with all its frames keeps in full whatever two layers keep
			next.Base, next.Event = &plan.Base{Stream: plan.Main}, nil
		}
	}
	if n.asks(Frames) {
		next.Base, next.Event = n.framesOf(next.Base, next.Event)
	}
	if sameLayers(d, &next) {
		n.duties[id] = id
		return id
	}
	n.duties[id] = n.dutyLike(&next)
	return n.duties[id]
}

func (n *entering) framesOf(base *plan.Base, event *plan.Event) (*plan.Base, *plan.Event) {
	if base != nil && base.FPS > 0 {
		b := *base
		b.FPS = n.frameRate(b.FPS)
		base = &b
	}
	if event != nil && event.FPS > 0 {
		e := *event
		e.FPS = n.frameRate(e.FPS)
		event = &e
	}
	return base, event
}

// frameRate is the next frame rate that a duty can have; 0, for all frames, where there is none.
func (n *entering) frameRate(fps float64) float64 {
	next := n.next(n.takes.FramesPerSecond, fps)
	if next < fps && n.lean != Lower {
		return 0
	}
	return next
}

func sameLayers(a, b *plan.Duty) bool {
	if (a.Base == nil) != (b.Base == nil) || (a.Event == nil) != (b.Event == nil) {
		return false
	}
	if a.Base != nil && *a.Base != *b.Base {
		return false
	}
	return a.Event == nil || a.Event.Stream == b.Event.Stream && slices.Equal(a.Event.On, b.Event.On) &&
		(a.Event.Match == "all") == (b.Event.Match == "all") && a.Event.FPS == b.Event.FPS && a.Event.Settings == b.Event.Settings
}

// dutyLike is a duty with these layers: one of the plan, or a new one.
func (n *entering) dutyLike(like *plan.Duty) string {
	for i := range n.Plan.Duties {
		if sameLayers(&n.Plan.Duties[i], like) {
			return n.Plan.Duties[i].ID
		}
	}
	d := *like
	d.Mark = 0
	switch {
	case d.Event == nil && *d.Base == (plan.Base{Stream: plan.Main}):
		d.Name = "Round the clock"
	default:
		d.Name = plan.Say("%s, as %s takes it", like.Name, n.recorder.Name)
	}
	if r := []rune(d.Name); len(r) > 100 {
		d.Name = string(r[:99]) + "…"
	}
	d.ID = plan.FreeID(d.Name, "duty", func(id string) bool { return n.Plan.Duty(id) != nil })
	n.Plan.Duties = append(n.Plan.Duties, d)
	return d.ID
}

// seconds enters pre- and post-event times: the next that can be chosen, upwards.
func (n *entering) seconds(c *plan.Channel) {
	if !n.asks(Seconds) {
		return
	}
	set := func(what string, values []float64, v float64) float64 {
		next := n.next(values, v)
		if next != v {
			n.depart(Seconds, c, plan.Say("%v s %s", v, what), plan.Say("%v s", next))
		}
		return next
	}
	t := n.takes
	pre, post := c.AlarmPreSeconds, c.AlarmPostSeconds
	c.PreSeconds = set("before an event", t.PreSeconds, c.PreSeconds)
	c.PostSeconds = set("after an event", t.PostSeconds, c.PostSeconds)
	if pre != nil {
		v := set("before an alarm", t.PreSeconds, *pre)
		c.AlarmPreSeconds = &v
	}
	if post != nil {
		v := set("after an alarm", t.PostSeconds, *post)
		c.AlarmPostSeconds = &v
	}
}

// frames enters the frame rates of streams.
func (n *entering) frames(c *plan.Channel) {
	if !n.asks(Frames) || c.CameraDecides() {
		return
	}
	for _, which := range []plan.StreamName{plan.Main, plan.Sub, plan.Third} {
		s := c.Streams.Get(which)
		if s == nil {
			continue
		}
		if fps := n.next(n.takes.FramesPerSecond, s.FPS); fps != s.FPS {
			next := *s
			next.FPS = fps
			c.Streams = c.Streams.With(which, &next)
			n.depart(Frames, c, plan.Say("%s %v frames a second", plan.StreamChoices.Name(string(which)), s.FPS), plan.Say("%v", fps))
		}
	}
}
