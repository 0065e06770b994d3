package resolve

import (
	"slices"

	"wakefield.example/core/activity"
	"wakefield.example/core/footage"
	"wakefield.example/core/week"
)

// Happening is what happens, as the plan states it, with where that comes from.
type Happening struct {
	activity.Process
	From Origin
}

// Trigger is what detection makes of a process.
type Trigger struct {
	Happening
	By     activity.Detection
	Stated activity.Process // the triggers, at the figures as they are stated
}

// detected are the triggers that a detection makes of a process.
func (k Happening) detected(d activity.Detection) *Trigger {
	return &Trigger{Happening: k, By: d, Stated: d.Triggers(k.Process)}
}

// Heard is all that happens to one channel, by what causes it.
type Heard struct {
	Own           []Happening // what moves in the picture, the wanted activity first
	Caught        []*Trigger  // what detection makes of it
	Motion, Alarm []*Trigger  // what records the channel

	Pre, Post, AlarmPre, AlarmPost float64
	by                             []activity.Detection // of the channel itself, for what is wanted
	wanted                         bool                 // whether there is a wanted activity

	Origins []Origin // each once
}

// Moves tells whether what comes from an activity moves in the channel's own picture.
func (h *Heard) Moves(id string) bool {
	return slices.ContainsFunc(h.Own, func(k Happening) bool { return k.From.ID == id })
}

// FindOrigins lists what the channel hears of.
func (h *Heard) FindOrigins() {
	add := func(o Origin) {
		if !slices.ContainsFunc(h.Origins, func(known Origin) bool { return known.ID == o.ID }) {
			h.Origins = append(h.Origins, o)
		}
	}
	for _, k := range h.Own {
		add(k.From)
	}
	for _, list := range [][]*Trigger{h.Motion, h.Alarm} {
		for _, t := range list {
			add(t.From)
		}
	}
}

// Factor is how far the figures of one activity are off.
type Factor struct {
	Rate, Length float64
	Group        activity.Group
}

// of is a process with its figures off by the factor.
func (f Factor) of(p activity.Process) activity.Process {
	p = p.Scale(f.Rate)
	p.Mean *= f.Length
	p.Group = f.Group
	return p
}

// Scene fills in what happens to the channel, at the stated figures where off is nil,
// else with every origin off by its factor.
func (h *Heard) Happening(s footage.Happening, off []Factor) footage.Happening {
	happens := func(k Happening) activity.Process {
		if off == nil {
			return k.Process
		}
		return off[slices.IndexFunc(h.Origins, func(o Origin) bool { return o.ID == k.From.ID })].of(k.Process)
	}
	source := func(t *Trigger, pre, post float64) footage.Source {
		src := footage.Source{Triggers: t.Stated, Pre: pre, Post: post}
		events := happens(t.Happening)
		if off != nil {
			src.Triggers = t.By.Triggers(events)
		}
		if events.Group.Grouped() {
			src.Events, src.Detection = events, t.By
		}
		return src
	}
	sources := func(list []*Trigger, pre, post float64) []footage.Source {
		out := make([]footage.Source, len(list))
		for i, t := range list {
			out[i] = source(t, pre, post)
		}
		return out
	}
	s.Motion, s.Alarm = sources(h.Motion, h.Pre, h.Post), sources(h.Alarm, h.AlarmPre, h.AlarmPost)
	s.Own = make([]activity.Process, len(h.Own))
	for i, k := range h.Own {
		s.Own[i] = happens(k)
	}
	s.Caught = make([]footage.Source, len(h.Caught))
	for i, t := range h.Caught {
		s.Caught[i] = source(t, min(t.By.MinSeconds, h.Pre), 0)
		if s.Caught[i].Events.Group.Grouped() {
			s.Caught[i].Pre, s.Caught[i].Post = h.Pre, h.Post // what is caught and kept is found from all of the group
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
