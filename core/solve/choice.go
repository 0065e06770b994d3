package solve

import (
	"context"
	"fmt"
	"math"
	"slices"

	"wakefield.example/core/edit"
	"wakefield.example/core/estimate"
	"wakefield.example/core/footage"
	"wakefield.example/core/plan"
	"wakefield.example/core/storage"
	"wakefield.example/core/week"
)

// Choice is one way of setting a channel.
type Choice struct {
	Words []string      // what is changed, each as a fitter would enter it, without the channel's name; empty as it is
	Edits []edit.Edit   // that make it so
	Daily storage.Bytes // written in a mean day

	// Of modelled streams fewer frames save as much as makes it this little or this much, four times out of five.
	least, most storage.Bytes

	evidence footage.Evidence
	frames   bool       // whether it has fewer frames than now
	quality  bool       // whether its pictures are worse than now, which no evidence counts
	alone    bool       // whether it is offered by itself only, as somebody has to know that it can be done
	keep     *plan.Keep // what is kept then, where that is otherwise
}

// mostChoices of a channel are tried.
const mostChoices = 60

// frameRates are those that are offered, frames a second.
var frameRates = []float64{12, 8, 5, 2}

// fewerFrames are duties like those of a plan whose base layer keeps fewer frames.
func fewerFrames(p *plan.Plan) (out []plan.Duty) {
	taken := func(id string) bool {
		same := func(d plan.Duty) bool { return d.ID == id }
		return slices.ContainsFunc(p.Duties, same) || slices.ContainsFunc(out, same)
	}
	for _, d := range p.Duties {
		if d.Base == nil || d.Base.KeyframesOnly || d.Base.Stream != plan.Main {
			continue
		}
		for _, fps := range frameRates {
			if d.Base.FPS > 0 && d.Base.FPS <= fps {
				continue
			}
			base := *d.Base
			base.FPS = fps
			fewer := d
			fewer.Base, fewer.Mark = &base, 0
			fewer.Name = plan.Say("%s, %v frames", d.Name, fps)
			fewer.ID = plan.FreeID(fewer.Name, "duty", taken)
			out = append(out, fewer)
		}
	}
	return out
}

// lowerQuality are duties like those of a plan that write the main stream a step of quality lower, for recorders whose settings
// change by the hour; of tells of which duty each is.
func lowerQuality(p *plan.Plan, more []plan.Duty) (out []plan.Duty, of map[string]string) {
	of = make(map[string]string)
	taken := func(id string) bool {
		same := func(d plan.Duty) bool { return d.ID == id }
		return slices.ContainsFunc(p.Duties, same) || slices.ContainsFunc(more, same) || slices.ContainsFunc(out, same)
	}
	for _, d := range p.Duties {
		lower := d
		lower.Mark = 0
		if d.Base != nil && d.Base.Stream == plan.Main && d.Base.Quality > -2 {
			base := *d.Base
			base.Quality--
			lower.Base = &base
		}
		if d.Event != nil && d.Event.Stream == plan.Main && d.Event.Quality > -2 {
			event := *d.Event
			event.Quality--
			lower.Event = &event
		}
		if lower.Base == d.Base && lower.Event == d.Event {
			continue
		}
		lower.Name = plan.Say("%s, quality a step lower", d.Name)
		lower.ID = plan.FreeID(lower.Name, "duty", taken)
		of[lower.ID] = d.ID
		out = append(out, lower)
	}
	return out, of
}

// option is one part of a choice: duties, or another setting.
type option struct {
	words  string
	edits  []edit.Edit
	change func(*plan.Channel)
	duties map[string]string // duties that take the place of others

	frames, quality bool
	keep            *plan.Keep
}

// choicesOf are the choices of channel i, as it is first.
func (p *Prepared) choicesOf(ctx context.Context, try *estimate.Alternatives, i int) []Choice {
	c, figures := &p.plan.Channels[i], &p.site.Channels[i]
	asIs := Choice{Daily: storage.Bytes(figures.GigabytesPerDay) * storage.GB, evidence: figures.Evidence}
	out := []Choice{asIs}
	if c.NoCamera {
		return out
	}
	duties := p.site.Duties(i)
	none := []option{{}}
	for _, a := range append(none, p.dutyOptions(c, duties)...) {
		for _, b := range append(none, postOptions(c)...) {
			for _, q := range append(none, qualityOptions(c)...) {
				if len(out) == mostChoices || ctx.Err() != nil {
					return append(out, p.lone(try, i, duties)...)
				}
				if choice := together(c, []option{a, b, q}); len(choice.Edits) > 0 {
					changed := *c
					steps := duties
					for _, w := range []option{a, b, q} {
						if w.change != nil {
							w.change(&changed)
						}
						steps = w.in(steps)
					}
					got := try.Of(i, &changed, steps)
					choice.Daily, choice.evidence = got.Daily, got.Evidence
					choice.least, choice.most = got.Least, got.Most
					if choice.Daily < asIs.Daily { // else it wins nothing
						out = append(out, choice)
					}
				}
			}
		}
	}
	return append(out, p.lone(try, i, duties)...)
}

// lone are choices that are offered by themselves only.
func (p *Prepared) lone(try *estimate.Alternatives, i int, duties week.Steps[string]) (out []Choice) {
	c := &p.plan.Channels[i]
	for _, w := range append(p.loneOptions(i), p.lowerOptions(c, duties)...) {
		choice := together(c, []option{w})
		choice.alone, choice.keep = true, w.keep
		changed := *c
		if w.change != nil {
			w.change(&changed)
		}
		got := try.Of(i, &changed, w.in(duties))
		choice.Daily, choice.evidence = got.Daily, got.Evidence
		out = append(out, choice)
	}
	return append(out, p.masks(i)...)
}

// in are the duties of a week with those that the way puts in the place of others.
func (w *option) in(duties week.Steps[string]) week.Steps[string] {
	if w.duties == nil {
		return duties
	}
	return week.Map(duties, func(id string) string {
		if to, ok := w.duties[id]; ok {
			return to
		}
		return id
	})
}

// lowerOptions write a step of quality less in the hours of one duty of a channel, at recorders whose settings change by the hour.
func (p *Prepared) lowerOptions(c *plan.Channel, duties week.Steps[string]) (out []option) {
	for k := range p.duties {
		to := &p.duties[k]
		id := p.lower[to.ID]
		if id == "" || !slices.ContainsFunc(duties, func(s week.Step[string]) bool { return s.Value == id }) {
			continue
		}
		hours := plan.HoursWhere(week.Map(duties, func(of string) bool { return of == id }))
		out = append(out, option{
			quality: true,
			words:   fmt.Sprintf("%s, %s, where the recorder can", to.Name, plan.HoursInWords(hours)),
			edits:   []edit.Edit{{SetDuty: &edit.SetDuty{Duty: *to}}, {Paint: &edit.Paint{Channels: []string{c.ID}, Hours: hours, Duty: to.ID}}},
			duties:  map[string]string{id: to.ID},
		})
	}
	return out
}

func together(c *plan.Channel, options []option) (out Choice) {
	for _, w := range options {
		if w.words == "" {
			continue
		}
		out.Words = append(out.Words, w.words)
		out.Edits = append(out.Edits, w.edits...)
		out.frames, out.quality = out.frames || w.frames, out.quality || w.quality
	}
	return out
}

// dutyOptions replace the duties of a channel's week by others that its camera can do: each by itself, and all of them by one.
func (p *Prepared) dutyOptions(c *plan.Channel, duties week.Steps[string]) (out []option) {
	all := append(slices.Clone(p.plan.Duties), p.duties...)
	byID := func(id string) *plan.Duty {
		if k := slices.IndexFunc(all, func(d plan.Duty) bool { return d.ID == id }); k >= 0 {
			return &all[k]
		}
		return nil
	}
	var now []string
	for _, step := range duties {
		if d := byID(step.Value); d != nil && (d.Base != nil || d.Event != nil) && !slices.Contains(now, step.Value) {
			now = append(now, step.Value)
		}
	}
	replace := func(gone []string, to *plan.Duty) option {
		w := option{duties: make(map[string]string)}
		names := make([]string, len(gone))
		for k, id := range gone {
			d := byID(id)
			names[k] = d.Name
			w.duties[id] = to.ID
			w.frames = w.frames || fewer(c, d, to)
		}
		hours := plan.HoursWhere(week.Map(duties, func(id string) bool { return slices.Contains(gone, id) }))
		w.words = fmt.Sprintf("%s instead of %s", to.Name, plan.InList(names))
		if len(gone) < len(now) {
			w.words += ", " + plan.HoursInWords(hours)
		}
		if !slices.ContainsFunc(p.plan.Duties, func(d plan.Duty) bool { return d.ID == to.ID }) {
			w.edits = append(w.edits, edit.Edit{SetDuty: &edit.SetDuty{Duty: *to}})
		}
		w.edits = append(w.edits, edit.Edit{Paint: &edit.Paint{Channels: []string{c.ID}, Hours: hours, Duty: to.ID}})
		return w
	}
	for k := range all {
		to := &all[k]
		if !canDo(c, to) || p.lower[to.ID] != "" { // for the latter see lowerOptions
			continue
		}
		var others []string
		for _, id := range now {
			if id != to.ID && (onAlarm(to) || !onAlarm(byID(id))) {
				others = append(others, id)
			}
		}
		if len(others) > 1 {
			out = append(out, replace(others, to))
		}
		for _, id := range others {
			out = append(out, replace([]string{id}, to))
		}
	}
	return out
}

// canDo tells whether a duty is one that a channel's camera can do, and that records something of what it sees.
func canDo(c *plan.Channel, d *plan.Duty) bool {
	return (d.Base != nil || d.Event != nil && slices.Contains(d.Event.On, plan.Motion) && d.Event.Match != "all") &&
		(d.Base == nil || c.Streams.Get(d.Base.Stream) != nil) && (d.Event == nil || c.Streams.Get(d.Event.Stream) != nil)
}

// onAlarm tells whether a duty listens to alarms. What does goes on doing so: what is tied to them counts in no evidence.
func onAlarm(d *plan.Duty) bool { return d.Event != nil && slices.Contains(d.Event.On, plan.Alarm) }

// fewer tells whether one duty's base layer keeps fewer frames than another's.
func fewer(c *plan.Channel, from, to *plan.Duty) bool {
	frames := func(d *plan.Duty) float64 {
		switch {
		case d.Base == nil:
			return math.Inf(1) // what is not written has no frame rate
		case d.Base.KeyframesOnly:
			return 1 / c.Streams.Get(d.Base.Stream).GOPSeconds
		}
		all := c.Streams.Get(d.Base.Stream).FPS
		if d.Base.FPS > 0 {
			return min(all, d.Base.FPS)
		}
		return all
	}
	return from.Base != nil && to.Base != nil && c.Streams.Get(from.Base.Stream) != nil && frames(to) < frames(from)
}

// postOptions keep fewer seconds after an event.
func postOptions(c *plan.Channel) (out []option) {
	for _, post := range []float64{20, 10} {
		if c.PostSeconds <= 1.2*post {
			continue
		}
		// Alarms that have no times of their own keep theirs.
		times := edit.SetTimes{Channels: []string{c.ID}, PostSeconds: &post}
		if c.AlarmPostSeconds == nil {
			kept := c.PostSeconds
			times.AlarmPostSeconds = &kept
		}
		out = append(out, option{
			words: plan.Say("%v s after an event instead of %v", post, c.PostSeconds),
			edits: []edit.Edit{{SetTimes: &times}},
			change: func(c *plan.Channel) {
				if c.AlarmPostSeconds == nil {
					kept := c.PostSeconds
					c.AlarmPostSeconds = &kept
				}
				c.PostSeconds = post
			},
		})
	}
	return out
}

// qualityOptions lower the quality of a main stream whose bitrate is modelled by it.
func qualityOptions(c *plan.Channel) (out []option) {
	main := c.Streams.Main
	if main == nil || main.Rate.Kind != "modelled" || main.Rate.Quality <= 1 {
		return nil
	}
	rate := main.Rate
	rate.Quality--
	return []option{{
		quality: true,
		words:   fmt.Sprintf("quality %d instead of %d", rate.Quality, main.Rate.Quality),
		edits:   []edit.Edit{{SetRate: &edit.SetRate{Channels: []string{c.ID}, Stream: plan.Main, Rate: rate}}},
		change: func(c *plan.Channel) {
			stream := *c.Streams.Main
			stream.Rate = rate
			c.Streams.Main = &stream
		},
	}}
}
