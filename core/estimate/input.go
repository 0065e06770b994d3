package estimate

import (
	"encoding/binary"
	"hash/fnv"
	"math"
	"slices"

	"wakefield/core/activity"
	"wakefield/core/cause"
	"wakefield/core/footage"
	"wakefield/core/parallel"
	"wakefield/core/plan"
	"wakefield/core/video"
	"wakefield/core/week"
)

// input is all that decides what one channel writes.
type input struct {
	empty   bool // no camera
	duties  week.Steps[string]
	regimes week.Steps[footage.Regime]
	scene   footage.Scene
	full    video.Kbps // main stream in full

	// How well things are known, for the draws.
	heard   heard
	layers  week.Steps[layerStreams]
	rates   [3]rateKnown
	guessed bool // whether it is a guess how reliably it notices what is in sight
	calls   int  // the stream that buttons record, as an index of rates
}

// layerStreams says which streams a duty's layers write, as indices of rates.
type layerStreams struct {
	base, event                 int
	baseHalvings, eventHalvings float64 // of a modelled stream: how often its frames are halved
}

// play plays the channel's week, at the stated figures where off is nil, else with every
// origin of what happens off by a factor.
func (in *input) play(off []factor) []footage.Shares {
	switch {
	case in.empty:
		return footage.Play(footage.Scene{}, week.Constant(footage.Regime{}))
	case off == nil:
		return footage.Play(in.scene, in.regimes)
	}
	return footage.Play(in.heard.scene(in.scene, off), in.regimes)
}

// price gives shares the channel's costs.
func (in *input) price(shares []footage.Shares) footage.Week {
	return footage.Price(shares, in.regimes)
}

// fingerprint is the same for inputs that play alike, and mostly differs for others.
func (in *input) fingerprint() uint64 {
	h := fnv.New64a()
	var buffer [8]byte
	add := func(values ...float64) {
		for _, v := range values {
			binary.LittleEndian.PutUint64(buffer[:], math.Float64bits(v))
			h.Write(buffer[:])
		}
	}
	for _, r := range in.regimes {
		add(float64(r.From), float64(r.Value.Admit))
	}
	for _, sources := range [][]footage.Source{in.scene.Motion, in.scene.Alarm} {
		for _, src := range sources {
			add(src.Pre, src.Post, src.Triggers.Mean, float64(src.Triggers.Intensity.Len()), src.Triggers.PerDay(), src.Events.Group.Size, src.Events.Group.Seconds)
		}
	}
	for _, n := range in.scene.Noticed {
		add(float64(n.From), n.Value)
	}
	add(in.scene.Call, in.scene.Wanted.Mean)
	return h.Sum64()
}

// playsAlike tells whether two channels' time divides in the same way: they see the
// same and do the same, whatever it costs.
func (in *input) playsAlike(other *input) bool {
	regime := func(a, b week.Step[footage.Regime]) bool {
		return a.From == b.From && a.Value.HasBase == b.Value.HasBase && a.Value.Whole == b.Value.Whole && a.Value.CallLow == b.Value.CallLow && a.Value.CallUnder == b.Value.CallUnder && a.Value.Admit == b.Value.Admit &&
			in.scene.Moves(a.Value) == other.scene.Moves(b.Value)
	}
	return in.empty == other.empty && slices.EqualFunc(in.regimes, other.regimes, regime) && in.sees(other)
}

// assure takes the bitrates of a channel for measured.
func (in *input) assure() {
	for s := range in.rates {
		if r := &in.rates[s]; r.known != "" {
			r.known, r.modelled = "measured", false
		}
	}
}

// assureNight takes it for known what the streams of a channel cost in the dark.
func (in *input) assureNight() {
	for s := range in.rates {
		in.rates[s].night = false
	}
}

// same tells whether two inputs are one and the same.
func (in *input) same(other *input) bool {
	return in.rates == other.rates && in.guessed == other.guessed && !in.empty && !other.empty && len(in.regimes) > 0 && len(other.regimes) > 0 && &in.regimes[0] == &other.regimes[0]
}

// equal tells whether two inputs give the same footage and doubt.
func (in *input) equal(other *input) bool {
	if in.same(other) {
		return true
	}
	return in.empty == other.empty && in.full == other.full && in.rates == other.rates && in.guessed == other.guessed &&
		slices.Equal(in.duties, other.duties) && slices.Equal(in.layers, other.layers) && slices.Equal(in.regimes, other.regimes) &&
		in.sees(other)
}

// sees tells whether the same happens to two channels, as well known.
func (in *input) sees(other *input) bool {
	return in.scene.Equal(&other.scene) && slices.Equal(in.heard.origins, other.heard.origins)
}

// resolver is a plan with what it means for its channels.
type resolver struct {
	plan *plan.Plan
	*shared
	inputs []input // by channel
}

// shared is what does not change as long as no channel hears of anything else.
type shared struct {
	hearing   *hearing
	processes map[string]process // of activities
	duties    map[string]*plan.Duty
	weeks     map[string]week.Steps[string]
	channels  map[string]int
	noticing  []noticing   // what the detection of each channel makes of what happens
	triggers  [][]*trigger // own triggers of each channel, wanted first
	causes    *cause.Causes
	toMotion  [][]int      // channels whose motion records this one, itself included
	motion    [][]*trigger // what of their motion does
	toAlarm   [][]*trigger
	self      []tied    // what of its own motion records a channel
	call      []float64 // presses × seconds a week that record each channel: −log of the share not covered
}

// hearing is one and the same for as long as no channel hears of anything else, whatever is told or switched.
type hearing struct{ _ byte }

// with is the same plan with more duties to choose from.
func (r *resolver) with(more []plan.Duty) *resolver {
	sh := *r.shared
	sh.duties = make(map[string]*plan.Duty, len(r.plan.Duties)+len(more))
	for i := range r.plan.Duties {
		sh.duties[r.plan.Duties[i].ID] = &r.plan.Duties[i]
	}
	for i := range more {
		sh.duties[more[i].ID] = &more[i]
	}
	return &resolver{r.plan, &sh, r.inputs}
}

// resolve resolves every channel of a plan. Where nothing but channels changed since
// an earlier one, which may be nil, and nothing that others listen to, the rest is taken from
// there.
func resolve(p *plan.Plan, earlier *resolver) *resolver {
	if earlier == nil || !p.SharesWhatChannelsHear(earlier.plan) {
		r := newResolver(p, earlier)
		for i := range r.inputs {
			r.inputs[i] = r.input(i)
		}
		return r
	}
	r := &resolver{p, earlier.shared, make([]input, len(p.Channels))}
	if !p.SharesAlerts(earlier.plan) || !p.SharesStills(earlier.plan) {
		beside := *r.shared
		beside.causes = cause.Of(p)
		r.shared = &beside
	}
	for i := range r.inputs {
		if p.Channels[i] == earlier.plan.Channels[i] {
			r.inputs[i] = earlier.inputs[i]
		} else {
			r.inputs[i] = r.input(i)
		}
	}
	return r
}

// hearsAsBefore tells whether every channel hears of the same as in an earlier plan, and so does what is told or switched.
func (r *resolver) hearsAsBefore(earlier *resolver) bool {
	return earlier != nil && r.hearing == earlier.hearing
}

// sameAsBefore tells whether that is so, and the same is told, switched and shown.
func (r *resolver) sameAsBefore(earlier *resolver) bool {
	return earlier != nil && r.shared == earlier.shared
}

func newResolver(p *plan.Plan, earlier *resolver) *resolver {
	r := &resolver{p, &shared{
		hearing:   new(hearing),
		processes: make(map[string]process, len(p.Activities)),
		duties:    make(map[string]*plan.Duty, len(p.Duties)),
		weeks:     make(map[string]week.Steps[string], len(p.Weeks)),
		channels:  make(map[string]int, len(p.Channels)),
		triggers:  make([][]*trigger, len(p.Channels)),
		causes:    cause.Of(p),
		toMotion:  make([][]int, len(p.Channels)),
		motion:    make([][]*trigger, len(p.Channels)),
		toAlarm:   make([][]*trigger, len(p.Channels)),
		self:      make([]tied, len(p.Channels)),
		call:      make([]float64, len(p.Channels)),
	}, make([]input, len(p.Channels))}
	season := !slices.ContainsFunc(p.Site.SpecialDays, func(d plan.SpecialDay) bool { return d.RateFactor != nil })
	for i := range p.Activities {
		a := &p.Activities[i]
		r.processes[a.ID] = process{Process: a.Process(), from: originOf(a, season)}
	}
	for i := range p.Duties {
		r.duties[p.Duties[i].ID] = &p.Duties[i]
	}
	for i := range p.Weeks {
		r.weeks[p.Weeks[i].ID] = p.Weeks[i].Steps()
	}
	for i := range p.Channels {
		r.channels[p.Channels[i].ID] = i
	}
	r.notice(earlier)
	r.detect()
	r.tie()
	return r
}

// notice works out what each channel notices, but for channels of which the same was found for an earlier plan.
func (r *resolver) notice(earlier *resolver) {
	r.noticing = make([]noticing, len(r.plan.Channels))
	process := func(id string) activity.Process { return r.processes[id].Process }
	parallel.Do(len(r.noticing), func(i int) {
		c := &r.plan.Channels[i]
		if earlier != nil && r.noticesAsBefore(c, i, earlier) {
			r.noticing[i] = earlier.noticing[i]
		} else {
			r.noticing[i] = notices(r.plan, c, process)
			r.noticing[i].catch = r.catchPercent(i)
		}
	})
}

// noticesAsBefore tells whether a channel with drawn areas notices what it noticed in an earlier plan: its scene and
// all that is looked at besides are the very same.
func (r *resolver) noticesAsBefore(c *plan.Channel, i int, earlier *resolver) bool {
	p := earlier.plan
	if i >= len(p.Channels) || !c.Detection.Drawn() || len(p.Objects) != len(r.plan.Objects) || len(p.Objects) > 0 && &p.Objects[0] != &r.plan.Objects[0] ||
		len(p.Activities) != len(r.plan.Activities) || len(p.Activities) > 0 && &p.Activities[0] != &r.plan.Activities[0] {
		return false
	}
	before := &p.Channels[i]
	return before.NoCamera == c.NoCamera && before.Detection == c.Detection && plan.SameScene(before, c)
}

// detect makes the triggers of every channel that has detection on.
func (r *resolver) detect() {
	for i := range r.plan.Channels {
		r.triggers[i] = r.detected(i, &r.noticing[i])
	}
}

// detected are the triggers of channel i, of what it notices.
func (r *resolver) detected(i int, by *noticing) (out []*trigger) {
	c := &r.plan.Channels[i]
	if c.NoCamera || !c.Detection.On {
		return nil
	}
	for k, p := range r.own(c) {
		for _, d := range by.of(c, k) {
			out = append(out, p.detected(d))
		}
	}
	return out
}

// own lists what moves in the picture of a channel, the wanted activity first, patches last.
func (r *resolver) own(c *plan.Channel) []process {
	var out []process
	for _, id := range []string{c.Activity, c.Nuisance} {
		if id != "" {
			out = append(out, r.processes[id])
		}
	}
	if c.Scene != nil {
		for _, patch := range c.Scene.Patches {
			out = append(out, r.processes[patch.Activity])
		}
	}
	return out
}

// of are the detections of what moves in the picture, by its place in the list of it.
func (n *noticing) of(c *plan.Channel, k int) []activity.Detection {
	for _, place := range []struct {
		there bool
		by    []activity.Detection
	}{{c.Activity != "", n.wanted}, {c.Nuisance != "", n.nuisance}} {
		if !place.there {
			continue
		}
		if k == 0 {
			return place.by
		}
		k--
	}
	return n.patches[k]
}

// input resolves channel i.
func (r *resolver) input(i int) input {
	c := &r.plan.Channels[i]
	return r.inputOf(i, c, r.steps(c))
}

// inputOf resolves channel i as if it were c, with duties of its own.
func (r *resolver) inputOf(i int, c *plan.Channel, duties week.Steps[string]) input {
	in := input{empty: c.NoCamera, duties: duties}
	if in.empty {
		return in
	}
	in.regimes = r.regimes(c, in.duties)
	in.layers = week.Map(in.duties, func(id string) layerStreams { return layersOf(c, r.duties[id]) })
	for k, which := range streams {
		if s := c.Streams.Get(which); s != nil {
			in.rates[k] = rateKnownOf(s)
		}
	}
	in.guessed = guessed(c)
	in.full = fullOf(c)
	for _, b := range r.buttonsOf(c) {
		if k := slices.Index(streams[:], b.Stream.OrMain()); c.Streams.Get(streams[k]) != nil {
			in.calls = k
		}
	}
	in.scene = footage.Scene{Call: -math.Expm1(-r.call[i])}
	r.sources(i, c, &in)
	return in
}

// sources fills in what happens to channel i, as if it were c.
func (r *resolver) sources(i int, c *plan.Channel, in *input) {
	h := &in.heard
	if c.Activity != "" {
		h.by = r.noticing[i].wanted
	}
	h.pre, h.post = c.PreSeconds, c.PostSeconds
	h.own, h.caught, h.motion = r.own(c), r.triggers[i], r.motion[i]
	if self := &r.self[i]; self.part {
		h.caught = self.triggers
		if c.Activity != "" {
			h.by = self.noticing.wanted
		}
	}
	h.alarm, h.alarmPre, h.alarmPost = r.toAlarm[i], c.AlarmPreEvent(), c.AlarmPostEvent()
	h.wanted = c.Activity != ""
	h.findOrigins()
	in.scene.Tied = slices.Contains(r.toMotion[i], i)
	in.scene = h.scene(in.scene, nil)
}

func (r *resolver) steps(c *plan.Channel) week.Steps[string] {
	if c.Week.IsOwn() {
		return c.Week.Own.Steps()
	}
	return r.weeks[c.Week.Named] // once for all that follow it
}

// byStream is the mean bitrate of a week from each stream.
func (in *input) byStream(shares []footage.Shares) (out [3]float64) {
	in.eachBin(shares, func(_ int, b *footage.Bin, from layerStreams) {
		part := float64(b.Span.Minutes()) / 10080
		out[from.base] += part * float64(b.Base)
		out[from.event] += part * float64(b.Motion+b.Alarm-b.Call)
		out[in.calls] += part * float64(b.Call)
	})
	return out
}

// eachBin calls f with every bin of what is written, and with the streams that the duty's layers write then.
func (in *input) eachBin(shares []footage.Shares, f func(k int, b *footage.Bin, from layerStreams)) {
	var from layerStreams
	next := 0
	bins := in.price(shares)
	for k := range bins {
		for next < len(in.layers) && in.layers[next].From <= bins[k].Span.From {
			from = in.layers[next].Value
			next++
		}
		f(k, &bins[k], from)
	}
}

// fewerFrames tells whether anything of a modelled stream is written with fewer frames than it has.
func (in *input) fewerFrames() bool {
	return slices.ContainsFunc(in.layers, func(s week.Step[layerStreams]) bool {
		return s.Value.baseHalvings > 0 || s.Value.eventHalvings > 0
	})
}
