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

// input is all that decides what one channel writes, resolved from the plan.
type input struct {
	empty   bool // no camera
	duties  week.Steps[string]
	regimes week.Steps[footage.Regime]
	scene   footage.Scene
	full    video.Kbps // main stream in full

	// How well things are known, for the draws.
	heard   heard
	layers  week.Steps[layerStreams]
	doubt   [3]float64 // standard deviations of logarithms, of the bitrate of each stream
	unsaid  [3]unsaid
	guessed bool // see [guessed]
	calls   int  // the stream that buttons record, as an index of doubt
}

// layerStreams says which streams a duty's layers write, as indices of doubt.
type layerStreams struct {
	base, event                 int
	baseHalvings, eventHalvings float64 // see [halvings]
}

// play plays the channel's week, at the stated figures where off is nil, else with every
// cause off by a factor.
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
	for s := range in.doubt {
		in.doubt[s] = min(in.doubt[s], measuredSpread)
		in.unsaid[s].model = false
	}
}

// assureNight takes it for known what the streams of a channel cost in the dark.
func (in *input) assureNight() {
	for s := range in.unsaid {
		in.unsaid[s].night = false
	}
}

// same tells whether two inputs are one and the same.
func (in *input) same(other *input) bool {
	return in.doubt == other.doubt && in.unsaid == other.unsaid && in.guessed == other.guessed && !in.empty && !other.empty && len(in.regimes) > 0 && len(other.regimes) > 0 && &in.regimes[0] == &other.regimes[0]
}

// equal tells whether two inputs give the same footage and doubt.
func (in *input) equal(other *input) bool {
	if in.same(other) {
		return true
	}
	return in.empty == other.empty && in.full == other.full && in.doubt == other.doubt && in.unsaid == other.unsaid && in.guessed == other.guessed &&
		slices.Equal(in.duties, other.duties) && slices.Equal(in.layers, other.layers) && slices.Equal(in.regimes, other.regimes) &&
		in.sees(other)
}

// sees tells whether the same happens to two channels, as well known.
func (in *input) sees(other *input) bool {
	return in.scene.Equal(&other.scene) && slices.Equal(in.heard.causes, other.heard.causes)
}

// resolver gathers what several channels share.
type resolver struct {
	plan *plan.Plan
	*shared
}

// shared is what does not change as long as no channel hears of anything else.
type shared struct {
	hearing   *hearing
	processes map[string]known // of activities
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

// resolve resolves every channel of a plan. Where nothing but channels changed since
// an earlier estimate, and nothing that others listen to, the rest is taken from
// there.
func resolve(p *plan.Plan, earlier *Result) (*resolver, []input) {
	out := make([]input, len(p.Channels))
	if earlier == nil || !p.SharesWhatChannelsHear(earlier.plan) {
		r := newResolver(p, earlier)
		for i := range out {
			out[i] = r.input(i)
		}
		return r, out
	}
	r := resolver{p, earlier.resolver.shared}
	if !saysTheSameBeside(p, earlier.plan) {
		beside := *r.shared
		beside.causes = cause.Of(p)
		r.shared = &beside
	}
	for i := range out {
		if p.Channels[i] == earlier.plan.Channels[i] {
			out[i] = earlier.inputs[i]
		} else {
			out[i] = r.input(i)
		}
	}
	return &r, out
}

// saysTheSameBeside tells whether two plans have the same messages, outputs, monitors and stills, of which no footage
// depends.
func saysTheSameBeside(p, q *plan.Plan) bool {
	for i := range p.Channels {
		if p.Channels[i].Stills != q.Channels[i].Stills {
			return false
		}
	}
	return same(p.Messages, q.Messages) && same(p.Outputs, q.Outputs) && same(p.Monitors, q.Monitors)
}

func newResolver(p *plan.Plan, earlier *Result) *resolver {
	r := &resolver{p, &shared{
		hearing:   new(hearing),
		processes: make(map[string]known, len(p.Activities)),
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
	}}
	season := !slices.ContainsFunc(p.Site.SpecialDays, func(d plan.SpecialDay) bool { return d.RateFactor != nil })
	for i := range p.Activities {
		a := &p.Activities[i]
		r.processes[a.ID] = known{Process: a.Process(), cause: causeOf(a, season)}
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

// notice works out what each channel notices, but for channels that an earlier estimate found the same of.
func (r *resolver) notice(earlier *Result) {
	r.noticing = make([]noticing, len(r.plan.Channels))
	process := func(id string) activity.Process { return r.processes[id].Process }
	parallel.Do(len(r.noticing), func(i int) {
		c := &r.plan.Channels[i]
		if earlier != nil && r.noticesAsBefore(c, i, earlier) {
			r.noticing[i] = earlier.resolver.noticing[i]
		} else {
			r.noticing[i] = notices(r.plan, c, process)
			r.noticing[i].catch = r.catchPercent(i)
		}
	})
}

// noticesAsBefore tells whether a channel with drawn areas notices what it noticed in an earlier estimate: its scene and
// all that is looked at besides are the very same.
func (r *resolver) noticesAsBefore(c *plan.Channel, i int, earlier *Result) bool {
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
func (r *resolver) own(c *plan.Channel) []known {
	var out []known
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
			in.doubt[k], in.unsaid[k] = rateSpread(s.Rate), unsaidOf(s)
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
	h.findCauses()
	in.scene.Tied = slices.Contains(r.toMotion[i], i)
	in.scene = h.scene(in.scene, nil)
}

func (r *resolver) steps(c *plan.Channel) week.Steps[string] {
	if c.Week.IsOwn() {
		return c.Week.Own.Steps()
	}
	return r.weeks[c.Week.Named] // once for all that follow it
}
