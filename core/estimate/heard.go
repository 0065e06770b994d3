package estimate

import (
	"slices"

	"wakefield/core/activity"
	"wakefield/core/footage"
	"wakefield/core/week"
)

// known is the process of an activity, with how far it may be off.
type known struct {
	activity.Process
	cause doubtful
}

// trigger is what detection makes of a process.
type trigger struct {
	known
	by     activity.Detection
	stated activity.Process // the triggers, at the figures as they are stated
}

// detected are the triggers that a detection makes of a process.
func (k known) detected(d activity.Detection) *trigger {
	return &trigger{known: k, by: d, stated: d.Triggers(k.Process)}
}

// heard is all that happens to one channel, by what causes it.
type heard struct {
	own           []known    // what moves in the picture, the wanted activity first
	caught        []*trigger // what detection makes of it
	motion, alarm []*trigger // what records the channel

	pre, post, alarmPre, alarmPost float64
	by                             []activity.Detection // of the channel itself, for what is wanted
	wanted                         bool                 // whether there is a wanted activity

	causes []doubtful // each once
}

// moves tells whether a cause moves in the channel's own picture.
func (h *heard) moves(id string) bool {
	return slices.ContainsFunc(h.own, func(k known) bool { return k.cause.id == id })
}

// findCauses lists what the channel hears of.
func (h *heard) findCauses() {
	add := func(c doubtful) {
		if !slices.ContainsFunc(h.causes, func(d doubtful) bool { return d.id == c.id }) {
			h.causes = append(h.causes, c)
		}
	}
	for _, k := range h.own {
		add(k.cause)
	}
	for _, list := range [][]*trigger{h.motion, h.alarm} {
		for _, t := range list {
			add(t.cause)
		}
	}
}

// scene fills in what happens to the channel, at the stated figures where off is nil,
// else with every cause off by its factor.
func (h *heard) scene(s footage.Scene, off []factor) footage.Scene {
	process := func(k known) activity.Process {
		if off == nil {
			return k.Process
		}
		return off[slices.IndexFunc(h.causes, func(c doubtful) bool { return c.id == k.cause.id })].of(k.Process)
	}
	source := func(t *trigger, pre, post float64) footage.Source {
		src := footage.Source{Triggers: t.stated, Pre: pre, Post: post}
		events := process(t.known)
		if off != nil {
			src.Triggers = t.by.Triggers(events)
		}
		if events.Group.Grouped() {
			src.Events, src.Detection = events, t.by
		}
		return src
	}
	sources := func(list []*trigger, pre, post float64) []footage.Source {
		out := make([]footage.Source, len(list))
		for i, t := range list {
			out[i] = source(t, pre, post)
		}
		return out
	}
	s.Motion, s.Alarm = sources(h.motion, h.pre, h.post), sources(h.alarm, h.alarmPre, h.alarmPost)
	s.Own = make([]activity.Process, len(h.own))
	for i, k := range h.own {
		s.Own[i] = process(k)
	}
	s.Caught = make([]footage.Source, len(h.caught))
	for i, t := range h.caught {
		s.Caught[i] = source(t, min(t.by.MinSeconds, h.pre), 0)
		if s.Caught[i].Events.Group.Grouped() {
			s.Caught[i].Pre, s.Caught[i].Post = h.pre, h.post // what is caught and kept is found from all of the group
		}
	}
	if h.wanted {
		s.Wanted = s.Own[0]
	}
	s.Noticed = week.Constant(0.0)
	for _, d := range h.by {
		for run, on := range d.Hours.Runs() {
			if on {
				s.Noticed = s.Noticed.Paint(run, d.Notices(s.Wanted.Mean))
			}
		}
	}
	return s
}
