// Package resolve says what a plan means for each of its channels: what happens before it, what its detection notices of
// that, which triggers record it, and what its duties write then, minute by minute.
//
// Nothing in it is uncertain: how far figures may be off is for others, which find here where each came from ([Origin],
// [RateKnown]) and may ask what would happen if it were off ([Factor]).
//
// A [Site] is made from a plan and, where there is one, from the site before a change: what did not change is taken from there.
package resolve

import (
	"math"
	"slices"

	"wakefield.example/core/activity"
	"wakefield.example/core/cause"
	"wakefield.example/core/footage"
	"wakefield.example/core/parallel"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// Site is a plan with what it means for its channels.
type Site struct {
	Plan *plan.Plan
	*shared
	Inputs []Input // by channel
}

// shared is what does not change as long as no channel hears of anything else.
type shared struct {
	hearing    *hearing
	Activities map[string]Happening // by id
	Duties     map[string]*plan.Duty
	Weeks      map[string]week.Steps[string]
	Channels   map[string]int
	Noticing   []Noticing   // what the detection of each channel makes of what happens
	Triggers   [][]*Trigger // own triggers of each channel, wanted first
	Causes     *cause.Causes
	ToMotion   [][]int      // channels whose motion records this one, itself included
	motion     [][]*Trigger // what of their motion does
	toAlarm    [][]*Trigger
	self       []Tied    // what of its own motion records a channel
	call       []float64 // presses × seconds a week that record each channel: −log of the share not covered
}

// hearing is one and the same for as long as no channel hears of anything else, whatever is told or switched.
type hearing struct{ _ byte }

// With is the same plan with more duties to choose from.
func (r *Site) With(more []plan.Duty) *Site {
	sh := *r.shared
	sh.Duties = make(map[string]*plan.Duty, len(r.Plan.Duties)+len(more))
	for i := range r.Plan.Duties {
		sh.Duties[r.Plan.Duties[i].ID] = &r.Plan.Duties[i]
	}
	for i := range more {
		sh.Duties[more[i].ID] = &more[i]
	}
	return &Site{r.Plan, &sh, r.Inputs}
}

// Of resolves every channel of a plan. Where nothing but channels changed since
// an earlier one, which may be nil, and nothing that others listen to, the rest is taken from
// there.
func Of(p *plan.Plan, earlier *Site) *Site {
	if earlier == nil || !p.SharesWhatChannelsHear(earlier.Plan) {
		r := newSite(p, earlier)
		for i := range r.Inputs {
			r.Inputs[i] = r.input(i)
		}
		return r
	}
	r := &Site{p, earlier.shared, make([]Input, len(p.Channels))}
	if !p.SharesAlerts(earlier.Plan) || !p.SharesStills(earlier.Plan) {
		beside := *r.shared
		beside.Causes = cause.Of(p)
		r.shared = &beside
	}
	for i := range r.Inputs {
		if p.Channels[i] == earlier.Plan.Channels[i] {
			r.Inputs[i] = earlier.Inputs[i]
		} else {
			r.Inputs[i] = r.input(i)
		}
	}
	return r
}

// HearsAsBefore tells whether every channel hears of the same as in an earlier plan, and so does what is told or switched.
func (r *Site) HearsAsBefore(earlier *Site) bool {
	return earlier != nil && r.hearing == earlier.hearing
}

// SameAsBefore tells whether that is so, and the same is told, switched and shown.
func (r *Site) SameAsBefore(earlier *Site) bool {
	return earlier != nil && r.shared == earlier.shared
}

func newSite(p *plan.Plan, earlier *Site) *Site {
	r := &Site{p, &shared{
		hearing:    new(hearing),
		Activities: make(map[string]Happening, len(p.Activities)),
		Duties:     make(map[string]*plan.Duty, len(p.Duties)),
		Weeks:      make(map[string]week.Steps[string], len(p.Weeks)),
		Channels:   make(map[string]int, len(p.Channels)),
		Triggers:   make([][]*Trigger, len(p.Channels)),
		Causes:     cause.Of(p),
		ToMotion:   make([][]int, len(p.Channels)),
		motion:     make([][]*Trigger, len(p.Channels)),
		toAlarm:    make([][]*Trigger, len(p.Channels)),
		self:       make([]Tied, len(p.Channels)),
		call:       make([]float64, len(p.Channels)),
	}, make([]Input, len(p.Channels))}
	season := !slices.ContainsFunc(p.Site.SpecialDays, func(d plan.SpecialDay) bool { return d.RateFactor != nil })
	for i := range p.Activities {
		a := &p.Activities[i]
		r.Activities[a.ID] = Happening{Process: a.Process(), From: OriginOf(a, season)}
	}
	for i := range p.Duties {
		r.Duties[p.Duties[i].ID] = &p.Duties[i]
	}
	for i := range p.Weeks {
		r.Weeks[p.Weeks[i].ID] = p.Weeks[i].Steps()
	}
	for i := range p.Channels {
		r.Channels[p.Channels[i].ID] = i
	}
	r.notice(earlier)
	r.detect()
	r.tie()
	return r
}

// notice works out what each channel notices, but for channels of which the same was found for an earlier plan.
func (r *Site) notice(earlier *Site) {
	r.Noticing = make([]Noticing, len(r.Plan.Channels))
	process := func(id string) activity.Process { return r.Activities[id].Process }
	parallel.Do(len(r.Noticing), func(i int) {
		c := &r.Plan.Channels[i]
		if earlier != nil && r.noticesAsBefore(c, i, earlier) {
			r.Noticing[i] = earlier.Noticing[i]
		} else {
			r.Noticing[i] = Notices(r.Plan, c, process)
			r.Noticing[i].Catch = r.catchPercent(i)
		}
	})
}

// noticesAsBefore tells whether a channel with drawn areas notices what it noticed in an earlier plan: its scene and
// all that is looked at besides are the very same.
func (r *Site) noticesAsBefore(c *plan.Channel, i int, earlier *Site) bool {
	p := earlier.Plan
	if i >= len(p.Channels) || !c.Detection.Drawn() || len(p.Objects) != len(r.Plan.Objects) ||
		len(p.Objects) > 0 && &p.Objects[0] != &r.Plan.Objects[0] ||
		len(p.Activities) != len(r.Plan.Activities) || len(p.Activities) > 0 && &p.Activities[0] != &r.Plan.Activities[0] {
		return false
	}
	before := &p.Channels[i]
	return before.NoCamera == c.NoCamera && before.Detection == c.Detection && plan.SameScene(before, c)
}

// detect makes the triggers of every channel that has detection on.
func (r *Site) detect() {
	for i := range r.Plan.Channels {
		r.Triggers[i] = r.detected(i, &r.Noticing[i])
	}
}

// detected are the triggers of channel i, of what it notices.
func (r *Site) detected(i int, by *Noticing) (out []*Trigger) {
	c := &r.Plan.Channels[i]
	if c.NoCamera || !c.Detection.On {
		return nil
	}
	for k, p := range r.Own(c) {
		for _, d := range by.Of(c, k) {
			out = append(out, p.detected(d))
		}
	}
	return out
}

// Own lists what moves in the picture of a channel, the wanted activity first, patches last.
func (r *Site) Own(c *plan.Channel) []Happening {
	var out []Happening
	for _, id := range []string{c.Activity, c.Nuisance} {
		if id != "" {
			out = append(out, r.Activities[id])
		}
	}
	if c.Scene != nil {
		for _, patch := range c.Scene.Patches {
			out = append(out, r.Activities[patch.Activity])
		}
	}
	return out
}

// Of are the detections of what moves in the picture, by its place in the list of it.
func (n *Noticing) Of(c *plan.Channel, k int) []activity.Detection {
	for _, place := range []struct {
		there bool
		by    []activity.Detection
	}{{c.Activity != "", n.Wanted}, {c.Nuisance != "", n.nuisance}} {
		if !place.there {
			continue
		}
		if k == 0 {
			return place.by
		}
		k--
	}
	return n.Patches[k]
}

// input resolves channel i.
func (r *Site) input(i int) Input {
	c := &r.Plan.Channels[i]
	return r.InputOf(i, c, r.steps(c))
}

// InputOf resolves channel i as if it were c, with duties of its own.
func (r *Site) InputOf(i int, c *plan.Channel, duties week.Steps[string]) Input {
	in := Input{Empty: c.NoCamera, Duties: duties}
	if in.Empty {
		return in
	}
	in.Regimes = r.Regimes(c, in.Duties)
	in.Layers = week.Map(in.Duties, func(id string) LayerStreams { return layersOf(c, r.Duties[id]) })
	for k, which := range Streams {
		if s := c.Streams.Get(which); s != nil {
			in.Rates[k] = RateKnownOf(s)
		}
	}
	in.Guessed = Guessed(c)
	in.Full = fullOf(c)
	for _, b := range r.buttonsOf(c) {
		if k := slices.Index(Streams[:], b.Stream.OrMain()); c.Streams.Get(Streams[k]) != nil {
			in.Calls = k
		}
	}
	in.Happening = footage.Happening{Call: -math.Expm1(-r.call[i])}
	r.sources(i, c, &in)
	return in
}

// sources fills in what happens to channel i, as if it were c.
func (r *Site) sources(i int, c *plan.Channel, in *Input) {
	h := &in.Heard
	if c.Activity != "" {
		h.by = r.Noticing[i].Wanted
	}
	h.Pre, h.Post = c.PreSeconds, c.PostSeconds
	h.Own, h.Caught, h.Motion = r.Own(c), r.Triggers[i], r.motion[i]
	if self := &r.self[i]; self.Part {
		h.Caught = self.Triggers
		if c.Activity != "" {
			h.by = self.Noticing.Wanted
		}
	}
	h.Alarm, h.AlarmPre, h.AlarmPost = r.toAlarm[i], c.AlarmPreEvent(), c.AlarmPostEvent()
	h.wanted = c.Activity != ""
	h.FindOrigins()
	in.Happening.Tied = slices.Contains(r.ToMotion[i], i)
	in.Happening = h.Happening(in.Happening, nil)
}

func (r *Site) steps(c *plan.Channel) week.Steps[string] {
	if c.Week.IsOwn() {
		return c.Week.Own.Steps()
	}
	return r.Weeks[c.Week.Named] // once for all that follow it
}
