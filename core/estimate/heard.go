package estimate

import (
	"slices"

	"wakefield/core/activity"
	"wakefield/core/footage"
	"wakefield/core/week"
)

// process is what happens, as the plan states it, with where that comes from.
type process struct {
	activity.Process
	from origin
}

// trigger is what detection makes of a process.
type trigger struct {
	process
	by     activity.Detection
	stated activity.Process // the triggers, at the figures as they are stated
}

// detected are the triggers that a detection makes of a process.
func (k process) detected(d activity.Detection) *trigger {
	return &trigger{process: k, by: d, stated: d.Triggers(k.Process)}
}

// heard is all that happens to one channel, by what causes it.
type heard struct {
	own           []process  // what moves in the picture, the wanted activity first
	caught        []*trigger // what detection makes of it
	motion, alarm []*trigger // what records the channel

	pre, post, alarmPre, alarmPost float64
	by                             []activity.Detection // of the channel itself, for what is wanted
	wanted                         bool                 // whether there is a wanted activity

	origins []origin // each once
}

// moves tells whether what comes from an activity moves in the channel's own picture.
func (h *heard) moves(id string) bool {
	return slices.ContainsFunc(h.own, func(k process) bool { return k.from.id == id })
}

// findOrigins lists what the channel hears of.
func (h *heard) findOrigins() {
	add := func(o origin) {
		if !slices.ContainsFunc(h.origins, func(known origin) bool { return known.id == o.id }) {
			h.origins = append(h.origins, o)
		}
	}
	for _, k := range h.own {
		add(k.from)
	}
	for _, list := range [][]*trigger{h.motion, h.alarm} {
		for _, t := range list {
			add(t.from)
		}
	}
}

// factor is how far the figures of one activity are off.
type factor struct {
	rate, length float64
	group        activity.Group
}

// of is a process with its figures off by the factor.
func (f factor) of(p activity.Process) activity.Process {
	p = p.Scale(f.rate)
	p.Mean *= f.length
	p.Group = f.group
	return p
}

// scene fills in what happens to the channel, at the stated figures where off is nil,
// else with every origin off by its factor.
func (h *heard) scene(s footage.Scene, off []factor) footage.Scene {
	happens := func(k process) activity.Process {
		if off == nil {
			return k.Process
		}
		return off[slices.IndexFunc(h.origins, func(o origin) bool { return o.id == k.from.id })].of(k.Process)
	}
	source := func(t *trigger, pre, post float64) footage.Source {
		src := footage.Source{Triggers: t.stated, Pre: pre, Post: post}
		events := happens(t.process)
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
		s.Own[i] = happens(k)
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
