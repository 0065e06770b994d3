package uplink

import (
	"cmp"
	"math"
	"slices"
	"sort"

	"wakefield.example/core/footage"
	"wakefield.example/core/week"
)

// Hold is a trigger with the footage that is wanted around it, in seconds.
type Hold struct {
	From, To float64 // of the footage
	Trigger  float64 // when it began
	Over     float64 // when its event was over
	Alarm    bool    // whether it counts as an alarm
	Source   int
	Event    int // place of the event among those of its source
}

// Footage is what a channel copies, while time goes on.
type Footage struct {
	At     func(moment float64) (g *footage.Regime, until float64)
	Active []Span // when something moves before it, in order and without overlaps
}

// Clips are what holds bring, in order of their ends; each what none before has brought. Holds of which nothing is copied are
// left out.
func (f *Footage) Clips(channel int, holds []Hold) (out []Clip) {
	byEnd(holds)
	w := writer{Footage: f, holds: holds}
	for k := range holds {
		h := &holds[k]
		if c, any := w.write(h); any {
			c.Channel = channel
			out = append(out, c)
		}
	}
	return out
}

func byEnd(holds []Hold) {
	slices.SortFunc(holds, func(a, b Hold) int { return cmp.Or(cmp.Compare(a.To, b.To), cmp.Compare(a.Event, b.Event)) })
}

// StillsOf are the stills taken while holds last, each a clip of its own of so many kbit, every so many seconds at least.
func StillsOf(channel int, holds []Hold, everySeconds float64, amount Kbit, open func(moment float64) bool) (out []Clip) {
	list := make([]Span, len(holds))
	for k, h := range holds {
		list[k] = Span{h.Trigger, h.Over}
	}
	last := math.Inf(-1)
	for _, s := range Union(list) {
		for at := max(s.From, last+everySeconds); at < s.To; at += everySeconds {
			if open(at) {
				last = at
				out = append(out, Clip{Channel: channel, Event: len(out), Over: at, Done: at, Amount: amount, Whole: amount})
			}
		}
	}
	return out
}

// holds are the triggers that a channel hears of.
func (c *Channel) holds(events func(source int) []event) (out []Hold) {
	for _, h := range c.Heard {
		pre, post := c.Pre, c.Post
		if h.Alarm {
			pre, post = c.AlarmPre, c.AlarmPost
		}
		for k, e := range events(h.Source) {
			if at, ok := trigger(e, h.By); ok {
				out = append(out, Hold{max(0, at-pre), e.to + post, at, e.to, h.Alarm, h.Source, k})
			}
		}
	}
	return out
}

// clips are what a channel sends, of so large a part of what happens.
func (c *Channel) clips(number int, part float64, events func(source int) []event) []Clip {
	holds := c.holds(events)
	if c.Stills != nil {
		return StillsOf(number, holds, c.Stills.EverySeconds/part, c.Stills.Amount,
			func(at float64) bool { return c.Stills.Hours.At(minute(at)) })
	}
	f := Footage{At: c.at}
	if c.moves() {
		for _, source := range c.Own {
			for _, e := range events(source) {
				f.Active = append(f.Active, Span{e.from, e.to})
			}
		}
		f.Active = Union(f.Active)
	}
	return f.Clips(number, holds)
}

// ask is what a channel would send of more events, each as if it were alone; ids number the events of each source.
func (c *Channel) ask(number int, events func(source int) []event, id func(source, event int) int) (out []Clip) {
	if c.Stills != nil {
		return nil
	}
	holds := c.holds(events)
	byEnd(holds)
	for k := range holds {
		h := &holds[k]
		f := Footage{At: c.at}
		if slices.Contains(c.Own, h.Source) {
			f.Active = []Span{{h.Trigger, h.Over}}
		}
		for _, clip := range f.Clips(number, holds[k:k+1]) {
			clip.Probe = id(h.Source, h.Event)
			out = append(out, clip)
		}
	}
	return out
}

// moves tells whether it matters for what is copied whether anything moves.
func (c *Channel) moves() bool {
	for _, s := range c.Copied {
		if s.Value.Event.Idle != s.Value.Event.Active {
			return true
		}
	}
	return false
}

// writer knows what a channel writes of holds, in order of their ends.
type writer struct {
	*Footage
	holds         []Hold
	motion, alarm []Span // when footage is wanted, once a duty asks for both
	covered       covered
}

// others are when footage is wanted by the other kind.
func (w *writer) others(alarm bool) []Span {
	if w.motion == nil && w.alarm == nil {
		for k := range w.holds {
			if h := &w.holds[k]; h.Alarm {
				w.alarm = append(w.alarm, Span{h.From, h.To})
			} else {
				w.motion = append(w.motion, Span{h.From, h.To})
			}
		}
		w.motion, w.alarm = Union(w.motion), Union(w.alarm)
	}
	if alarm {
		return w.motion
	}
	return w.alarm
}

// write is the clip of a hold, and whether anything is copied of it at all.
func (w *writer) write(h *Hold) (c Clip, any bool) {
	c = Clip{Event: h.Event, Source: h.Source, Over: h.Over, Done: h.To}
	for from := h.From; from < h.To; {
		g, until := w.At(from)
		to := min(h.To, until)
		amount := func(from, to float64) Kbit {
			moves := overlap(w.Active, from, to)
			return float64(g.Event.Idle)*(to-from-moves) + float64(g.Event.Active)*moves
		}
		w.admitted(h, g, Span{from, to}, func(s Span) {
			any = true
			c.Whole += amount(s.From, s.To)
			w.covered.add(s.From, s.To, func(from, to float64) { c.Amount += amount(from, to) })
		})
		from = to
	}
	return c, any
}

// admitted calls f with those parts of a stretch of a hold that the duty writes.
func (w *writer) admitted(h *Hold, g *footage.Regime, s Span, f func(Span)) {
	if g.Event.Idle == 0 && g.Event.Active == 0 {
		return
	}
	switch g.Admit {
	case footage.Either:
		f(s)
	case footage.Motion:
		if !h.Alarm {
			f(s)
		}
	case footage.Alarm:
		if h.Alarm {
			f(s)
		}
	case footage.Both:
		list := w.others(h.Alarm)
		for k := sort.Search(len(list), func(k int) bool { return list[k].To > s.From }); k < len(list) && list[k].From < s.To; k++ {
			f(Span{max(s.From, list[k].From), min(s.To, list[k].To)})
		}
	}
}

// at is what is copied at a moment, and until when that is so.
func (c *Channel) at(moment float64) (*footage.Regime, float64) {
	steps := c.Copied
	if len(steps) == 1 {
		return &steps[0].Value, math.Inf(1)
	}
	weeks := math.Floor(moment / week.Seconds)
	m := minute(moment)
	k, _ := slices.BinarySearchFunc(steps, m, func(s week.Step[footage.Regime], m week.Minute) int { return cmp.Compare(s.From, m+1) })
	until := week.Minute(week.Length)
	if k < len(steps) {
		until = steps[k].From
	}
	return &steps[k-1].Value, weeks*week.Seconds + 60*float64(until)
}
