package effect

import (
	"strconv"

	"wakefield.example/core/activity"
	"wakefield.example/core/cause"
	"wakefield.example/core/plan"
	"wakefield.example/core/resolve"
	"wakefield.example/core/uplink"
)

// happens fills in what is played of a channel's copies: what moves before it, and what of its ties becomes a trigger.
func happens(r *resolve.Site, i int, out *copied, motion, other []cause.Tie) {
	c := &r.Plan.Channels[i]
	out.plays.Pre, out.plays.Post, out.plays.AlarmPre, out.plays.AlarmPost = c.PreSeconds, c.PostSeconds, c.AlarmPreEvent(), c.AlarmPostEvent()
	places := make(map[string]int)
	source := func(name string, p activity.Process) int {
		at, ok := places[name]
		if !ok {
			at = len(out.sources)
			places[name] = at
			out.sources = append(out.sources, uplink.Source{Name: name, Process: p})
		}
		return at
	}
	moving := func(c *plan.Channel, k int, p activity.Process) int {
		return source("motion "+c.ID+" "+strconv.Itoa(k), p)
	}
	for k, p := range r.Own(c) {
		out.plays.Own = append(out.plays.Own, moving(c, k, p.Process))
	}
	for _, of := range resolve.ByChannel(motion) {
		from := &r.Plan.Channels[of.At]
		if from.NoCamera || !from.Detection.On {
			continue
		}
		counts := r.MotionOf(of.At, of.Ties)
		for k, p := range r.Own(from) {
			if by := counts.Noticing.Of(from, k); len(by) > 0 {
				out.plays.Heard = append(out.plays.Heard, uplink.Heard{Source: moving(from, k, p.Process), By: by})
			}
		}
	}
	for k := range other {
		t := r.Elsewhere(&other[k])
		out.plays.Heard = append(out.plays.Heard, uplink.Heard{Source: source(named(r.Plan, other[k].Cause), t.Process),
			By: []activity.Detection{t.By}, Alarm: true})
	}
}

// named tells a cause that is no motion from all others, wherever it stands in the plan.
func named(p *plan.Plan, c cause.Cause) string {
	id := ""
	switch c.Kind {
	case cause.Alarm:
		id = p.AlarmInputs[c.At].ID
	case cause.Button:
		id = p.CallButtons[c.At].ID
	case cause.Lost, cause.Tampered:
		id = p.Channels[c.At].ID
	}
	return string(c.Kind) + " " + id
}
