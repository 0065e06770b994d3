package readout

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// layerKey is what tells layers of a channel apart, beside their hours.
type layerKey struct {
	stream    plan.StreamName
	on        string // motion, alarm, motion+alarm; empty for all
	pre, post float64
}

// key is the layer without its hours; seconds that are not told are −1.
func (l *Layer) key() layerKey {
	var on []string
	for _, t := range []plan.Trigger{plan.Motion, plan.Alarm} {
		if slices.Contains(l.On, t) {
			on = append(on, string(t))
		}
	}
	k := layerKey{stream: l.Stream, on: strings.Join(on, "+"), pre: -1, post: -1}
	if len(on) > 0 {
		k.pre, k.post = plan.Or(l.PreSeconds, -1), plan.Or(l.PostSeconds, -1)
	}
	return k
}

// steps is when a layer is recorded.
func (l *Layer) steps() week.Steps[bool] {
	if l.Hours == nil {
		return week.Constant(true)
	}
	return plan.HourList{Blocks: l.Hours}.Steps()
}

// tidy puts layers in order, those of one key as one, and drops those that never hold.
func tidy(list []Layer) []Layer {
	when := make(map[layerKey]week.Steps[bool])
	by := make(map[layerKey][]string)
	var keys []layerKey
	for i := range list {
		k := list[i].key()
		if _, known := when[k]; !known {
			keys = append(keys, k)
		}
		when[k] = week.Or(when[k], list[i].steps())
		for _, b := range list[i].By {
			if !slices.Contains(by[k], b) {
				by[k] = append(by[k], b)
			}
		}
	}
	slices.SortFunc(keys, func(a, b layerKey) int {
		return cmp.Or(cmp.Compare(a.on, b.on), cmp.Compare(a.stream, b.stream), cmp.Compare(a.pre, b.pre), cmp.Compare(a.post, b.post))
	})
	var out []Layer
	for _, k := range keys {
		var same []*Layer
		for i := range list {
			if list[i].key() == k {
				same = append(same, &list[i])
			}
		}
		if l, ever := k.layer(when[k], departures(same, when[k])); ever {
			l.By = by[k]
			slices.Sort(l.By)
			for _, of := range same {
				l.untied = of.untied
			}
			out = append(out, l)
		}
	}
	return out
}

// layer is a layer of the key over some hours, and whether it ever holds.
func (k layerKey) layer(when week.Steps[bool], dates []OnDates) (l Layer, ever bool) {
	l.Stream = k.stream
	if k.on != "" {
		for on := range strings.SplitSeq(k.on, "+") {
			l.On = append(l.On, plan.Trigger(on))
		}
		if k.pre >= 0 {
			l.PreSeconds = &k.pre
		}
		if k.post >= 0 {
			l.PostSeconds = &k.post
		}
	}
	l.Hours, l.OnDates = plan.HoursWhere(when), dates
	if len(l.Hours) == 0 {
		l.Hours = []plan.Hours{} // never, as none is always
		return l, slices.ContainsFunc(dates, func(o OnDates) bool { return len(o.Hours) > 0 })
	}
	if slices.Equal(when, week.Constant(true)) {
		l.Hours = nil
	}
	return l, true
}

// duties are the layers of a duty on a channel, without hours.
func duties(c *plan.Channel, d *plan.Duty, around bool) (out []Layer) {
	if d == nil {
		return nil
	}
	if d.Base != nil {
		out = append(out, Layer{Stream: d.Base.Stream})
	}
	if d.Event == nil {
		return out
	}
	add := func(on []plan.Trigger, pre, post float64) {
		l := Layer{Stream: d.Event.Stream, On: on}
		if around {
			l.PreSeconds, l.PostSeconds = &pre, &post
		}
		out = append(out, l)
	}
	alike := c.AlarmPreEvent() == c.PreSeconds && c.AlarmPostEvent() == c.PostSeconds
	if len(d.Event.On) > 1 && alike || !around {
		add(d.Event.On, c.PreSeconds, c.PostSeconds)
		return out
	}
	for _, on := range d.Event.On {
		if on == plan.Alarm {
			add([]plan.Trigger{on}, c.AlarmPreEvent(), c.AlarmPostEvent())
		} else {
			add([]plan.Trigger{on}, c.PreSeconds, c.PostSeconds)
		}
	}
	return out
}

// LayersOf are the layers that a channel's week means, with the special days of the site from a date on; the zero date for none.
func LayersOf(p *plan.Plan, c *plan.Channel, around bool, from week.Date) []Layer {
	steps := p.WeekOf(c).Steps()
	return layersBy(p, c, around, steps, specialDates(p, steps, from))
}

// layersBy are the layers that a week of duties means on a channel.
func layersBy(p *plan.Plan, c *plan.Channel, around bool, steps week.Steps[string], dates []special) []Layer {
	var out []Layer
	for i := range p.Duties {
		d := &p.Duties[i]
		hours, onDates := plan.HoursWhere(week.Map(steps, func(id string) bool { return id == d.ID })), onSpecial(dates, d.ID)
		if hours == nil {
			hours = []plan.Hours{}
		}
		for _, l := range duties(c, d, around) {
			l.Hours, l.OnDates = hours, onDates
			out = append(out, l)
		}
	}
	return tidy(out)
}

// what says what a layer records.
func (l *Layer) what() string {
	text := plan.StreamChoices.Name(string(l.Stream))
	if len(l.On) > 0 {
		text += " on " + triggers(l.On)
	}
	return text
}

// words says what a layer is in a week.
func (l *Layer) words() string {
	if l.Hours != nil {
		return l.what() + " " + plan.HoursInWords(l.Hours)
	}
	return l.what() + l.always()
}

// always says that a layer is there at all hours: what writes whatever happens does so round the clock.
func (l *Layer) always() string {
	if len(l.On) > 0 {
		return " at all hours"
	}
	return " round the clock"
}

// inWords says what is recorded.
func inWords(list []Layer) string {
	if len(list) == 0 {
		return "nothing is recorded"
	}
	parts := make([]string, len(list))
	for i := range list {
		parts[i] = list[i].words()
	}
	return strings.Join(parts, "; ")
}

// weekOf is the week of duties that layers mean on a channel, and the duties that the plan lacks for it. Of duties that mean the
// same, the one that is planned at the time is kept.
func weekOf(p *plan.Plan, c *plan.Channel, list []Layer, around bool) (steps week.Steps[string], made []plan.Duty) {
	set := week.Constant("")
	for i := range list {
		set = week.Map(week.Both(set, list[i].steps()), func(at week.Pair[string, bool]) string {
			if at.B {
				return at.A + fmt.Sprintf("%d ", i)
			}
			return at.A
		})
	}
	planned := p.WeekOf(c).Steps()
	all := slices.Clone(p.Duties)
	means := func(d *plan.Duty) string { return keysOf(duties(c, d, around)) }
	return week.Map(week.Both(set, planned), func(at week.Pair[string, string]) string {
		var layers []Layer
		for text := range strings.FieldsSeq(at.A) {
			var i int
			if _, err := fmt.Sscan(text, &i); err == nil {
				layers = append(layers, list[i])
			}
		}
		want := keysOf(layers)
		if d := p.Duty(at.B); d != nil && means(d) == want {
			return d.ID
		}
		for i := range all {
			if means(&all[i]) == want {
				return all[i].ID
			}
		}
		d := dutyOf(layers)
		d.ID = plan.FreeID(d.Name, "duty", func(id string) bool { return slices.ContainsFunc(all, func(d plan.Duty) bool { return d.ID == id }) })
		all, made = append(all, d), append(made, d)
		return d.ID
	}), made
}

// keysOf are the keys of layers, in an order of their own, without seconds: those are the channel's, not a duty's.
func keysOf(list []Layer) string {
	base, events := "", map[plan.Trigger]plan.StreamName{}
	for i := range list {
		if len(list[i].On) == 0 {
			base += string(list[i].Stream) + " "
		}
		for _, on := range list[i].On {
			events[on] = list[i].Stream
		}
	}
	return fmt.Sprint(base, events)
}

// dutyOf is a duty of some layers. A recorder that writes two streams round the clock has the larger as its base.
func dutyOf(list []Layer) (d plan.Duty) {
	for i := range list {
		l := &list[i]
		if len(l.On) == 0 {
			if d.Base == nil || l.Stream == plan.Main {
				d.Base = &plan.Base{Stream: l.Stream}
			}
			continue
		}
		if d.Event == nil {
			d.Event = &plan.Event{Stream: l.Stream}
		}
		for _, on := range l.On {
			if !slices.Contains(d.Event.On, on) {
				d.Event.On = append(d.Event.On, on)
			}
		}
	}
	if d.Event != nil && len(d.Event.On) > 1 {
		d.Event.Match = "any"
	}
	switch {
	case d.Base == nil && d.Event == nil:
		d.Name = "Off"
	case d.Event == nil:
		d.Name = "Round the clock, " + string(d.Base.Stream)
	case d.Base == nil:
		d.Name = "On " + triggers(d.Event.On) + ", " + string(d.Event.Stream)
	default:
		d.Name = string(d.Base.Stream) + ", " + string(d.Event.Stream) + " on " + triggers(d.Event.On)
		d.Name = strings.ToUpper(d.Name[:1]) + d.Name[1:]
	}
	return d
}

// triggers says which events.
func triggers(on []plan.Trigger) string {
	if len(on) > 1 {
		return "motion or alarm"
	}
	return string(on[0])
}
