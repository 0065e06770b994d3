package estimate

import (
	"cmp"
	"math"
	"math/rand/v2"
	"slices"
	"sort"

	"wakefield.example/core/picture"
	"wakefield.example/core/plan"
)

// This file plays plans out event by event, second by second where needed, for the
// tests alone. It shares no code with the estimate beyond the plan document: it
// draws events, makes intervals of footage, and measures how long what was written.

const weekSeconds = 7 * 86400.0

// happening is one event in front of a camera or at a contact.
type happening struct {
	kind       int // place among what moves before the channel: wanted, nuisance, patches
	start, end float64
	wanted     bool
	trigger    float64  // when the trigger begins; NaN where there is none
	areas      []string // in which of the areas it is noticed
}

// interval is a stretch of time.
type interval struct{ from, to float64 }

// tally is what one channel put on disk in one week.
type tally struct {
	written, event, kbit         float64 // seconds, seconds, kbit
	triggers, full, base, missed float64 // counts
}

// playout plays one plan.
type playout struct {
	plan  *plan.Plan
	rng   *rand.Rand
	weeks int
	own   map[string][]happening
	alarm map[string][]interval
	calls map[string][]interval

	presses map[string][]float64 // of each button
	faults  map[string][]float64 // of lost pictures and tampering, by kind and channel
	factor  []float64            // how often all happens on each day, times what it does otherwise; nil for once
}

// play plays a plan over some weeks, after one week to begin with, and returns the
// tallies by channel and week.
func play(p *plan.Plan, weeks int, seed uint64) map[string][]tally {
	o := draw(p, weeks, seed, nil)
	out := map[string][]tally{}
	for i := range p.Channels {
		out[p.Channels[i].ID] = o.measure(&p.Channels[i])
	}
	return out
}

// draw draws all that happens over some weeks.
func draw(p *plan.Plan, weeks int, seed uint64, factor []float64) *playout {
	o := &playout{plan: p, rng: rand.New(rand.NewPCG(seed, 7)), weeks: weeks,
		own: map[string][]happening{}, alarm: map[string][]interval{}, calls: map[string][]interval{}, factor: factor,
		presses: map[string][]float64{}, faults: map[string][]float64{}}
	for i := range p.Channels {
		o.happen(&p.Channels[i])
	}
	for _, a := range p.AlarmInputs {
		for _, h := range o.events(a.Activity) {
			o.alarm[a.ID] = append(o.alarm[a.ID], interval{h.start, h.end})
		}
	}
	for _, b := range p.CallButtons {
		at := 0.0
		for b.PressesPerWeek > 0 {
			if at += o.rng.ExpFloat64() * weekSeconds / b.PressesPerWeek; at > o.end() {
				break
			}
			o.presses[b.ID] = append(o.presses[b.ID], at)
			for _, c := range o.pressed(b, at) {
				o.calls[c] = append(o.calls[c], interval{at, at + b.HoldSeconds})
			}
		}
	}
	for _, e := range p.Effects {
		if w := e.When; w.PerMonth > 0 && o.faults[w.Lost+"/"+w.Tampered] == nil {
			for at := 0.0; at < o.end(); {
				at += o.rng.ExpFloat64() * 365.25 * 86400 / 12 / w.PerMonth
				o.faults[w.Lost+"/"+w.Tampered] = append(o.faults[w.Lost+"/"+w.Tampered], at)
			}
		}
	}
	return o
}

// end is when the last week ends, with some time beyond it for what casts its
// shadow before.
func (o *playout) end() float64 { return float64(o.weeks+1)*weekSeconds + 7200 }

// covers tells whether hours on some days hold at a minute of the week.
func covers(h plan.Hours, minute int) bool {
	for day := range 7 {
		named := len(h.Days) == 0
		for _, d := range h.Days {
			named = named || int(d) == day
		}
		if !named {
			continue
		}
		from, to := day*1440+int(h.From), day*1440+int(h.To)
		if to <= from || h.To <= h.From {
			to = day*1440 + 1440 + int(h.To)
		}
		if minute >= from && minute < to || minute+10080 >= from && minute+10080 < to {
			return true
		}
	}
	return false
}

// events draws an activity: for every minute of the weeks, as many as come.
func (o *playout) events(id string) []happening {
	a := o.plan.Activity(id)
	var perMinute [10080]float64
	for m := range perMinute {
		perMinute[m] = a.OtherwisePerHour / 60
		for _, b := range a.Blocks {
			if covers(b.Hours, m) {
				perMinute[m] = b.PerHour / 60
			}
		}
	}
	var out []happening
	event := func(start float64) {
		out = append(out, happening{start: start, end: start + o.rng.ExpFloat64()*a.MeanSeconds, trigger: math.NaN()})
	}
	for m := 0; float64(m)*60 < o.end(); m++ {
		rate := perMinute[m%10080]
		if a.Groups != nil {
			rate /= a.Groups.Size
		}
		if day := m / 1440; day < len(o.factor) {
			rate *= o.factor[day]
		}
		if rate == 0 {
			continue
		}
		for at := o.rng.ExpFloat64() / rate; at < 1; at += o.rng.ExpFloat64() / rate {
			start := (float64(m) + at) * 60
			if a.Groups == nil {
				event(start)
				continue
			}
			for range 1 + o.poisson(a.Groups.Size-1) {
				event(start + o.rng.Float64()*a.Groups.WithinSeconds)
			}
		}
	}
	return out
}

// poisson draws how many there are where mean are expected.
func (o *playout) poisson(mean float64) (n int) {
	for at := o.rng.ExpFloat64(); at < mean; at += o.rng.ExpFloat64() {
		n++
	}
	return n
}

// happen draws what happens in front of a camera, and what detection makes of it.
func (o *playout) happen(c *plan.Channel) {
	if c.NoCamera {
		return
	}
	var all []happening
	moving := []string{c.Activity, c.Nuisance}
	if c.Scene != nil {
		for _, patch := range c.Scene.Patches {
			moving = append(moving, patch.Activity)
		}
	}
	for k, id := range moving {
		if id == "" {
			continue
		}
		for _, h := range o.events(id) {
			h.wanted, h.kind = k == 0, k
			all = append(all, h)
		}
	}
	var on [10080]bool
	for m := range on {
		on[m] = c.Detection.On && c.Detection.Hours == nil
		if c.Detection.Hours != nil {
			for _, b := range c.Detection.Hours.Blocks {
				on[m] = on[m] || c.Detection.On && covers(b, m)
			}
		}
	}
	for i := range all {
		h := &all[i]
		begin := h.start + c.Detection.MinSeconds
		caught := o.sees(c, h, int(begin/60)%10080)
		if h.end > begin && on[int(begin/60)%10080] && caught {
			h.trigger = begin
		}
	}
	slices.SortFunc(all, func(a, b happening) int { return cmp.Compare(a.start, b.start) })
	o.own[c.ID] = all
}

// sees draws whether detection notices what happens, at a minute of the week.
func (o *playout) sees(c *plan.Channel, h *happening, minute int) bool {
	d := &c.Detection
	chance := 1.0
	switch {
	case d.Catch != nil && h.kind < 2:
		return o.rng.Float64() < *d.Catch
	case d.Catch != nil && d.Areas == nil:
		return o.rng.Float64() < *d.Catch
	case d.Reliability != nil:
		chance = *d.Reliability
	case d.Drawn():
		chance = 0.95
	}
	if o.rng.Float64() >= chance {
		return false
	}
	if !d.Drawn() {
		return true
	}
	var watch []picture.Watch
	var ids []string
	h.areas = []string{}
	var ignored []picture.Shape
	for _, a := range d.Areas.List {
		if a.Ignore {
			ignored = append(ignored, a.Shape())
		}
	}
	for _, a := range d.Areas.List {
		open := a.Hours == nil
		if a.Hours != nil {
			for _, b := range a.Hours.Blocks {
				open = open || covers(b, minute)
			}
		}
		if a.Ignore || !open {
			continue
		}
		region := picture.NewRegion(a.Shape(), ignored)
		w := picture.Watch{Region: region, Seconds: plan.Or(a.MinSeconds, d.MinSeconds)}
		if a.Smallest != nil {
			w.Smallest = a.Smallest.Percent / 100
			if a.Smallest.Of == "area" {
				w.Smallest *= region.Area()
			}
		}
		watch, ids = append(watch, w), append(ids, a.ID)
	}
	// Each area by itself; what is noticed in any is noticed.
	some := func(in func(w picture.Watch) bool) bool {
		for k, w := range watch {
			if in(w) {
				h.areas = append(h.areas, ids[k])
			}
		}
		return len(h.areas) > 0
	}
	anywhere := func(picture.Watch) bool { return true }
	switch {
	case len(watch) == 0:
		return false
	case h.kind == 1 || h.kind == 0 && (c.Scene == nil || len(c.Scene.Walks) == 0):
		return some(anywhere)
	case h.kind == 0:
		ground, known, _ := c.Ground()
		if !known {
			return some(anywhere)
		}
		all := 0.0
		for _, w := range c.Scene.Walks {
			all += w.SharePercent
		}
		at := o.rng.Float64() * all
		for i := range c.Scene.Walks {
			if at -= c.Scene.Walks[i].SharePercent; at < 0 {
				walk := o.plan.WalkOf(&c.Scene.Walks[i])
				return some(func(w picture.Watch) bool { return picture.Notices(ground, []picture.Watch{w}, walk) })
			}
		}
		return false
	}
	// Somewhere in the patch, as wide as it is high on the screen.
	patch := &c.Scene.Patches[h.kind-2]
	outline := patch.Outline()
	inside := picture.NewRegion(picture.Shape{outline}, nil)
	high := math.Sqrt(patch.BlobPercent / 100 * c.Aspect())
	wide := high / c.Aspect()
	for {
		x, y := o.rng.Float64(), o.rng.Float64()
		if inside.Within(picture.Box{Left: x - 1e-6, Top: y - 1e-6, Right: x + 1e-6, Bottom: y + 1e-6}) < 2e-12 {
			continue
		}
		box := picture.Box{Left: x - wide/2, Top: y - high/2, Right: x + wide/2, Bottom: y + high/2}
		return some(func(w picture.Watch) bool {
			covered := w.Within(box)
			return covered > 0 && covered >= w.Smallest && h.end-h.start > w.Seconds
		})
	}
}

// union joins intervals that touch, in order.
func union(list []interval) []interval {
	list = slices.Clone(list)
	slices.SortFunc(list, func(a, b interval) int {
		if a.from < b.from {
			return -1
		}
		return 1
	})
	var out []interval
	for _, v := range list {
		if n := len(out); n > 0 && v.from <= out[n-1].to {
			out[n-1].to = max(out[n-1].to, v.to)
		} else {
			out = append(out, v)
		}
	}
	return out
}

func inside(list []interval, t float64) bool {
	i := sort.Search(len(list), func(i int) bool { return list[i].to > t })
	return i < len(list) && list[i].from <= t
}

// measure lays a channel's footage on the time line and measures it week by week.
func (o *playout) measure(c *plan.Channel) []tally {
	out := make([]tally, o.weeks)
	if c.NoCamera {
		return out
	}
	motion, alarm := o.footage(c)
	var active []interval
	for _, h := range o.own[c.ID] {
		active = append(active, interval{h.start, h.end})
	}
	states := [4][]interval{union(motion), union(alarm), union(o.calls[c.ID]), union(active)}
	duties := o.duties(c)
	o.lay(c, states, duties, out)
	o.fates(c, covering(motion), states, duties, out)
	return out
}

// holds tells whether an effect's hours hold at a moment.
func (o *playout) holds(e *plan.Effect, at float64) bool {
	if e.Hours == nil {
		return true
	}
	for _, b := range e.Hours.Blocks {
		if covers(b, int(at/60)%10080) {
			return true
		}
	}
	return false
}

// pressed lists the channels that a button records when it is pressed.
func (o *playout) pressed(b plan.CallButton, at float64) []string {
	list := slices.Clone(b.Records)
	for i := range o.plan.Effects {
		if e := &o.plan.Effects[i]; e.When.Button == b.ID && o.holds(e, at) {
			for _, id := range e.Record {
				if !slices.Contains(list, id) {
					list = append(list, id)
				}
			}
		}
	}
	return list
}

// causes tells whether an event of a channel causes what an effect says.
func (o *playout) causes(e *plan.Effect, from string, h *happening) bool {
	return e.When.Motion == from && !math.IsNaN(h.trigger) && o.holds(e, h.trigger) &&
		(e.When.Area == "" || slices.Contains(h.areas, e.When.Area))
}

// records tells whether an event of one channel records another, or itself.
func (o *playout) records(c *plan.Channel, from string, h *happening) bool {
	if math.IsNaN(h.trigger) {
		return false
	}
	if from == c.ID && (c.Detection.RecordsSelf == nil || *c.Detection.RecordsSelf) {
		return true
	}
	for i := range o.plan.Effects {
		if e := &o.plan.Effects[i]; slices.Contains(e.Record, c.ID) && o.causes(e, from, h) {
			return true
		}
	}
	return false
}

func (o *playout) footage(c *plan.Channel) (motion, alarm []interval) {
	for i := range o.plan.Channels {
		from := o.plan.Channels[i].ID
		for k := range o.own[from] {
			if h := &o.own[from][k]; o.records(c, from, h) {
				motion = append(motion, interval{h.trigger - c.PreSeconds, h.end + c.PostSeconds})
			}
		}
	}
	pre, post := c.PreSeconds, c.PostSeconds
	if c.AlarmPreSeconds != nil {
		pre = *c.AlarmPreSeconds
	}
	if c.AlarmPostSeconds != nil {
		post = *c.AlarmPostSeconds
	}
	for _, v := range o.others(func(e *plan.Effect) bool { return e.When.Button == "" && slices.Contains(e.Record, c.ID) }) {
		alarm = append(alarm, interval{v.from - pre, v.to + post})
	}
	return motion, alarm
}

// others are the causes other than motion of some effects, each once.
func (o *playout) others(of func(*plan.Effect) bool) (out []interval) {
	type once struct {
		when plan.When
		at   float64
	}
	seen := map[once]bool{}
	for i := range o.plan.Effects {
		e := &o.plan.Effects[i]
		if e.When.Motion != "" || !of(e) {
			continue
		}
		var list []interval
		switch {
		case e.When.Alarm != "":
			list = o.alarm[e.When.Alarm]
		case e.When.Button != "":
			for _, at := range o.presses[e.When.Button] {
				list = append(list, interval{at, at})
			}
		default:
			for _, at := range o.faults[e.When.Lost+"/"+e.When.Tampered] {
				list = append(list, interval{at, at})
			}
		}
		for _, v := range list {
			if key := (once{e.When, v.from}); o.holds(e, v.from) && !seen[key] {
				seen[key] = true
				out = append(out, v)
			}
		}
	}
	return out
}

// duties finds the duty of every minute, block by block.
func (o *playout) duties(c *plan.Channel) (out [10080]*plan.Duty) {
	w := c.Week.Own
	if w == nil {
		for i := range o.plan.Weeks {
			if o.plan.Weeks[i].ID == c.Week.Named {
				w = &o.plan.Weeks[i].OwnWeek
			}
		}
	}
	for m := range out {
		id := w.Otherwise
		for _, b := range w.Blocks {
			if covers(b.Hours, m) {
				id = b.Duty
			}
		}
		out[m] = o.plan.Duty(id)
	}
	if c.StreamsBy == "camera" { // what the recorder is told of frames and bitrates does nothing
		whole := map[*plan.Duty]*plan.Duty{}
		for m, d := range out {
			if whole[d] == nil {
				next := *d
				if d.Base != nil {
					next.Base = &plan.Base{Stream: d.Base.Stream, KeyframesOnly: d.Base.KeyframesOnly}
				}
				if d.Event != nil {
					next.Event = &plan.Event{Stream: d.Event.Stream, On: d.Event.On, Match: d.Event.Match}
				}
				whole[d] = &next
			}
			out[m] = whole[d]
		}
	}
	return out
}

// lay goes from change to change and adds up what is written between.
func (o *playout) lay(c *plan.Channel, states [4][]interval, duties [10080]*plan.Duty, out []tally) {
	cuts := make([]float64, 0, 4096)
	for _, list := range states {
		for _, v := range list {
			cuts = append(cuts, v.from, v.to)
		}
	}
	for m := 1; m < 10080; m++ {
		if duties[m] != duties[m-1] || darkens(c, m) {
			for w := range o.weeks {
				cuts = append(cuts, float64(w+1)*weekSeconds+float64(m)*60)
			}
		}
	}
	for w := range o.weeks + 1 {
		cuts = append(cuts, float64(w+1)*weekSeconds)
	}
	slices.Sort(cuts)
	var at [4]int
	for i := 0; i+1 < len(cuts); i++ {
		from, to := cuts[i], cuts[i+1]
		w := int(from/weekSeconds) - 1
		if from < weekSeconds || w >= o.weeks || to <= from {
			continue
		}
		middle := (from + to) / 2
		var on [4]bool
		for k, list := range states {
			for at[k] < len(list) && list[at[k]].to <= middle {
				at[k]++
			}
			on[k] = at[k] < len(list) && list[at[k]].from <= middle
		}
		d := duties[int(middle/60)%10080]
		event := on[2] || admitted(d, on[0], on[1])
		t := &out[w]
		t.kbit += (to - from) * spent(c, d, on, event, int(middle/60)%10080, o.buttons(c))
		if event {
			t.event += to - from
		}
		if event || d.Base != nil {
			t.written += to - from
		}
	}
}

// darkens tells whether night begins or ends for a stream at a minute of the week.
func darkens(c *plan.Channel, m int) bool {
	for _, s := range []*plan.Stream{c.Streams.Main, c.Streams.Sub, c.Streams.Third} {
		if dark(s, m) != dark(s, m-1) {
			return true
		}
	}
	return false
}

// admitted tells whether the duty's event layer writes.
func admitted(d *plan.Duty, motion, alarm bool) bool {
	if d.Event == nil {
		return false
	}
	byMotion := slices.Contains(d.Event.On, plan.Motion)
	byAlarm := slices.Contains(d.Event.On, plan.Alarm)
	if byMotion && byAlarm && d.Event.Match == "all" {
		return motion && alarm
	}
	return byMotion && motion || byAlarm && alarm
}

// fates decides what became of every wanted event, and counts triggers.
func (o *playout) fates(c *plan.Channel, covers func(float64) int, states [4][]interval, duties [10080]*plan.Duty, out []tally) {
	away := union(o.away(c))
	for _, h := range o.own[c.ID] {
		w := int(h.start/weekSeconds) - 1
		if h.start < weekSeconds || w >= o.weeks {
			continue
		}
		triggered := !math.IsNaN(h.trigger)
		if triggered {
			out[w].triggers++
		}
		self := o.records(c, c.ID, &h)
		if !h.wanted {
			continue
		}
		full := inside(states[2], h.start) && !o.buttonsLow(c)
		if triggered && self {
			d := duties[int(h.trigger/60)%10080]
			full = full || admitted(d, true, inside(states[1], h.trigger))
		}
		d := duties[int(h.start/60)%10080]
		full = full || whollyBased(c, d)
		others := covers(h.start)
		if triggered && self && h.trigger-c.PreSeconds <= h.start {
			others-- // its own footage is no other's
		}
		full = full || admitted(d, others > 0, inside(states[1], h.start))
		switch {
		case inside(away, h.start):
			out[w].missed++
		case full:
			out[w].full++
		case d.Base != nil || inside(states[2], h.start):
			out[w].base++
		default:
			out[w].missed++
		}
	}
}

// whollyBased tells whether the base layer leaves nothing for the event layer to add.
func whollyBased(c *plan.Channel, d *plan.Duty) bool {
	if d.Base == nil || d.Base.KeyframesOnly {
		return false
	}
	frames := func(of plan.StreamName, fps float64) float64 {
		if s := c.Streams.Get(of); fps == 0 || fps > s.FPS {
			return s.FPS
		}
		return fps
	}
	based, least := frames(d.Base.Stream, d.Base.FPS), 1.0
	if d.Event != nil && d.Event.Stream == d.Base.Stream {
		least = worth(d.Event.Settings)
	}
	if worth(d.Base.Settings) < least {
		return false
	}
	if d.Base.Stream == plan.Main && based == c.Streams.Main.FPS {
		return true
	}
	return d.Event != nil && c.Streams.Get(d.Event.Stream) != nil && d.Event.Stream == d.Base.Stream &&
		based >= frames(d.Event.Stream, d.Event.FPS)
}

// buttons are those that may record a channel.
func (o *playout) buttons(c *plan.Channel) (out []plan.CallButton) {
	for _, b := range o.plan.CallButtons {
		named := slices.Contains(b.Records, c.ID)
		for _, e := range o.plan.Effects {
			named = named || e.When.Button == b.ID && slices.Contains(e.Record, c.ID)
		}
		if named {
			if c.StreamsBy == "camera" {
				b.FPS = 0
			}
			out = append(out, b)
		}
	}
	return out
}

// buttonsLow tells whether none of them records all of the main stream.
func (o *playout) buttonsLow(c *plan.Channel) bool {
	for _, b := range o.buttons(c) {
		if streamOf(b) == "main" && (b.FPS == 0 || b.FPS >= c.Streams.Main.FPS) {
			return false
		}
	}
	return true
}

// covering tells how many intervals cover an instant.
func covering(list []interval) func(t float64) int {
	var begins, ends []float64
	for _, v := range list {
		begins, ends = append(begins, v.from), append(ends, v.to)
	}
	slices.Sort(begins)
	slices.Sort(ends)
	return func(t float64) int {
		begun, _ := slices.BinarySearch(begins, math.Nextafter(t, math.Inf(1)))
		ended, _ := slices.BinarySearch(ends, math.Nextafter(t, math.Inf(1)))
		return begun - ended
	}
}
