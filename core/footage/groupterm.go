package footage

import (
	"math"
	"slices"

	"wakefield.example/core/activity"
	"wakefield.example/core/week"
)

// pulse is what an edge adds to Λ: an amount of a shape, from when it begins.
type pulse struct {
	at, amount float64
	shape      *curveShape
}

func (p *pulse) begins() float64 { return p.at + p.shape.begin() }
func (p *pulse) ends() float64   { return p.at + p.shape.end() }

// groupTerm is one source whose events come in groups, seen from the moment of the
// sweep: what has come to rest, and the pulses that are under way.
type groupTerm struct {
	role   role
	mean   float64 // of Λ over the week
	base   float64 // Λ but for the active pulses
	active []pulse
	coming []pulse   // by when they begin
	breaks []float64 // when the shapes of any pulse bend, ascending
	next   float64   // the first of these that is still to come
}

// newGroupKernel is the kernel of a source.
func newGroupKernel(src *Source) *kernel {
	d := src.Detection
	return kernelOf{src.Events.Group, eventShape{src.Events.Mean, d.MinSeconds, d.Catch, src.Pre, src.Post}}.get()
}

func newGroupTerm(role role, src *Source) groupTerm {
	k := newGroupKernel(src)
	t := groupTerm{role: role}
	events := scaledTo(src.Events.Intensity, 1/src.Events.Group.Size)
	switch role {
	case happeningActive:
		t.lay(events, k.active)
	case happeningCaught:
		t.detected(events, src, k.overlap, func() (on, off *curveShape) { s := k.straddling(); return s.overlapOn, s.overlapOff })
	default:
		t.detected(events, src, k.cover, func() (on, off *curveShape) { s := k.straddling(); return s.coverOn, s.coverOff })
	}
	t.begin()
	return t
}

// rates is groups a second from moments of the week on, ascending, the first at 0.
type rates struct{ from, rate []float64 }

func (r rates) at(t float64) float64 {
	t -= math.Floor(t/week.Seconds) * week.Seconds
	i, found := slices.BinarySearch(r.from, t)
	if !found {
		i--
	}
	return r.rate[i]
}

func scaledTo(in activity.Intensity, f float64) rates {
	var r rates
	for i := range in.Len() {
		start, rate := in.Piece(i)
		r.from, r.rate = append(r.from, start), append(r.rate, rate*f)
	}
	return r
}

// detected lays the pulses of groups whose events become triggers in detection hours
// only. Groups that lie in them whole have the running shape; those that straddle an
// edge of the hours have one of their own, at the rate that holds there. Where the hours
// are shorter than a group, or pause for less, a group is in them as it begins.
func (t *groupTerm) detected(events rates, src *Source, whole *curveShape, straddling func() (on, off *curveShape)) {
	hours, w, s := src.Detection.Hours, src.Detection.MinSeconds, src.Events.Group.Seconds
	if len(hours) < 2 {
		if len(hours) == 1 && hours[0].Value {
			t.lay(events, whole)
		}
		return
	}
	in := stretchesOf(hours)
	cuts := slices.Clone(events.from)
	var admitted func(u float64) bool
	if apart(in, s) {
		admitted = func(u float64) bool {
			for _, h := range in {
				for _, turn := range []float64{0, week.Seconds} {
					if u+turn >= h.from-w-1e-9 && u+turn < h.to-w-s-1e-9 {
						return true
					}
				}
			}
			return false
		}
		on, off := straddling()
		for _, h := range in {
			cuts = append(cuts, wrap(h.from-w), wrap(h.to-w-s))
			t.coming = append(t.coming, pulse{wrap(h.from), events.at(h.from - w), on}, pulse{wrap(h.to), events.at(h.to - w - s/2), off})
		}
	} else {
		admitted = func(u float64) bool { return hours.At(week.Minute(wrap(u+w) / 60)) }
		for _, h := range in {
			cuts = append(cuts, wrap(h.from-w), wrap(h.to-w))
		}
	}
	slices.Sort(cuts)
	var r rates
	for _, u := range slices.Compact(cuts) {
		rate := 0.0
		if admitted(u) {
			rate = events.at(u)
		}
		r.from, r.rate = append(r.from, u), append(r.rate, rate)
	}
	t.lay(r, whole)
}

// stretch is a time in which detection is on, in seconds since the week began.
type stretch struct{ from, to float64 }

// stretchesOf are the hours in which detection is on; the last may go on over the end of the week.
func stretchesOf(hours week.Steps[bool]) (in []stretch) {
	for run, yes := range hours.Runs() {
		if yes {
			in = append(in, stretch{float64(run.From) * 60, float64(run.To) * 60})
		}
	}
	if n := len(in); n > 1 && in[0].from == 0 && in[n-1].to == week.Seconds {
		in[n-1].to += in[0].to
		in = in[1:]
	}
	return in
}

// apart tells whether all of them, and all pauses between, last some seconds at least.
func apart(in []stretch, seconds float64) bool {
	for i, h := range in {
		next := in[(i+1)%len(in)].from
		if i+1 == len(in) {
			next += week.Seconds
		}
		if h.to-h.from < seconds || next-h.to < seconds {
			return false
		}
	}
	return true
}

func wrap(t float64) float64 { return t - math.Floor(t/week.Seconds)*week.Seconds }

// lay adds the pulses of a rate of groups, each edge being one, and what has come to rest
// before the first of them.
func (t *groupTerm) lay(r rates, shape *curveShape) {
	total := 0.0
	for i, from := range r.from {
		before := r.rate[(i+len(r.rate)-1)%len(r.rate)]
		if r.rate[i] != before {
			t.coming = append(t.coming, pulse{from, r.rate[i] - before, shape})
		}
		to := float64(week.Seconds)
		if i+1 < len(r.from) {
			to = r.from[i+1]
		}
		total += r.rate[i] * (to - from)
	}
	t.mean = total / week.Seconds * shape.level
	// Before all pulses that are laid, the rate that held then had come to rest.
	weeks := math.Ceil(max(shape.end(), 0) / week.Seconds)
	t.base = r.at(-1e-6-weeks*week.Seconds) * shape.level
}

// begin repeats the pulses of a week as often as they reach into it, and takes the term
// to second 0.
func (t *groupTerm) begin() {
	week0 := t.coming
	t.coming = nil
	for _, p := range week0 {
		weeks := int(math.Ceil(max(p.shape.end(), 0) / week.Seconds))
		for turn := -weeks; turn <= 1; turn++ {
			q := p
			q.at += float64(turn) * week.Seconds
			if q.begins() < week.Seconds {
				t.coming = append(t.coming, q)
			}
		}
	}
	slices.SortFunc(t.coming, func(a, b pulse) int {
		if a.begins() < b.begins() {
			return -1
		}
		return 1
	})
	for i := range t.coming {
		for _, b := range t.coming[i].shape.steps {
			if at := t.coming[i].at + b; at > 0 && at < week.Seconds {
				t.breaks = append(t.breaks, at)
			}
		}
	}
	slices.Sort(t.breaks)
	t.pass(0)
}

// pass takes the term over the edges up to a moment.
func (t *groupTerm) pass(now float64) {
	for len(t.coming) > 0 && t.coming[0].begins() <= now {
		t.active = append(t.active, t.coming[0])
		t.coming = t.coming[1:]
	}
	t.active = slices.DeleteFunc(t.active, func(p pulse) bool {
		if p.ends() > now {
			return false
		}
		t.base += p.amount * p.shape.level
		return true
	})
	for len(t.breaks) > 0 && t.breaks[0] <= now {
		t.breaks = t.breaks[1:]
	}
	t.next = math.Inf(1)
	if len(t.breaks) > 0 {
		t.next = t.breaks[0]
	}
}

// at is what the active pulses add at a moment.
func (t *groupTerm) at(now float64) float64 {
	sum := 0.0
	for i := range t.active {
		sum += t.active[i].amount * t.active[i].shape.at(now-t.active[i].at)
	}
	return sum
}
