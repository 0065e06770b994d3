package rehearse

import (
	"cmp"
	"context"
	"math"
	"slices"

	"wakefield.example/core/cause"
	"wakefield.example/core/parallel"
)

// Told is what became of the triggers of a message.
type Told struct {
	ID    string
	Went  []int // events that it went out for
	Held  []int // events that were held back, as it had gone out too shortly before
	Quiet []int // events in quiet hours
}

// Switched is what became of an output.
type Switched struct {
	ID string
	On []Span // each time that it was on, in order
}

// Shown is what a monitor showed.
type Shown struct {
	ID       string
	Showings []Showing
}

// Showing is one showing on a monitor.
type Showing struct {
	Event    int
	From, To Ms
	Cut      bool // whether the next one, of another cause, cut it short
}

// tell plays what causes do beside recording.
func (r *Rehearsal) tell(ctx context.Context, causes *cause.Causes) {
	p := r.plan
	r.Told, r.Outputs, r.Monitors = make([]Told, len(p.Messages)), make([]Switched, len(p.Outputs)), make([]Shown, len(p.Monitors))
	each := func(n int, do func(k int)) {
		parallel.Do(n, func(k int) {
			if ctx.Err() == nil {
				do(k)
			}
		})
	}
	each(len(p.Messages), func(k int) { r.Told[k] = r.message(causes, k) })
	each(len(p.Outputs), func(k int) { r.Outputs[k] = r.output(causes, k) })
	each(len(p.Monitors), func(k int) { r.Monitors[k] = r.monitor(causes, k) })
	each(len(p.Channels), func(i int) {
		r.away(causes, i)
		r.stills(causes, i)
	})
}

func (r *Rehearsal) message(causes *cause.Causes, k int) Told {
	m := &r.plan.Messages[k]
	out, hours, last := Told{ID: m.ID}, m.Hours.Holding(), Ms(math.MinInt64/2)
	for _, n := range r.joined(causes.Messages[k]) {
		switch at := r.Events[n].Trigger; {
		case !hours.At(r.clock.minute(at)):
			out.Quiet = append(out.Quiet, n)
		case at-last < Ms(m.AtMostEverySeconds*float64(Second)):
			out.Held = append(out.Held, n)
		default:
			last = at
			out.Went = append(out.Went, n)
		}
	}
	return out
}

func (r *Rehearsal) output(causes *cause.Causes, k int) Switched {
	o := &r.plan.Outputs[k]
	out, hours, hold := Switched{ID: o.ID}, o.Hours.Holding(), Ms(o.HoldSeconds*float64(Second))
	for _, n := range r.joined(causes.Outputs[k]) {
		at := r.Events[n].Trigger
		if !hours.At(r.clock.minute(at)) {
			continue
		}
		last := len(out.On) - 1
		switch {
		case last < 0 || at >= out.On[last].To:
			out.On = append(out.On, Span{at, at + hold})
		case o.Prolonged:
			out.On[last].To = at + hold
		}
	}
	return out
}

func (r *Rehearsal) monitor(causes *cause.Causes, k int) Shown {
	v := &r.plan.Monitors[k]
	type moment struct{ event, tie int }
	var all []moment
	for t := range causes.Monitors[k] {
		for _, n := range r.triggers(&causes.Monitors[k][t]) {
			all = append(all, moment{n, t})
		}
	}
	slices.SortFunc(all, func(a, b moment) int {
		return cmp.Or(cmp.Compare(r.Events[a.event].Trigger, r.Events[b.event].Trigger), cmp.Compare(a.event, b.event), cmp.Compare(a.tie, b.tie))
	})
	out := Shown{ID: v.ID}
	dwell := Ms(v.DwellSeconds * float64(Second))
	other := len(all) // the next that is of another tie
	out.Showings = make([]Showing, len(all))
	for i := len(all) - 1; i >= 0; i-- {
		if i+1 < len(all) && all[i+1].tie != all[i].tie {
			other = i + 1
		}
		s := Showing{Event: all[i].event, From: r.Events[all[i].event].Trigger}
		s.To = s.From + dwell
		if other < len(all) {
			if at := r.Events[all[other].event].Trigger; at <= s.To {
				s.Cut, s.To = true, at
			}
		}
		out.Showings[i] = s
	}
	return out
}

// union joins spans that touch.
func union(list []Span) (out []Span) {
	slices.SortFunc(list, func(a, b Span) int { return cmp.Compare(a.From, b.From) })
	for _, s := range list {
		if n := len(out); n > 0 && s.From <= out[n-1].To {
			out[n-1].To = max(out[n-1].To, s.To)
			continue
		}
		out = append(out, s)
	}
	return out
}

// away finds when a movable camera looks elsewhere than home.
func (r *Rehearsal) away(causes *cause.Causes, i int) {
	c := &r.plan.Channels[i]
	if c.Movable == nil {
		return
	}
	var list []Span
	for k := range causes.Sends[i] {
		sent := &causes.Sends[i][k]
		if sent.Preset == c.Movable.Home {
			continue
		}
		for _, n := range r.triggers(&sent.Tie) {
			at := r.Events[n].Trigger
			list = append(list, Span{at, at + Ms(sent.Seconds*float64(Second))})
		}
	}
	r.Away[i] = union(list)
}

// stills finds when a channel takes stills.
func (r *Rehearsal) stills(causes *cause.Causes, i int) {
	s := r.plan.Channels[i].Stills
	if s == nil || r.plan.Channels[i].NoCamera {
		return
	}
	every, hours := max(1, Ms(s.EverySeconds*float64(Second))), s.Hours.Holding()
	if s.Mode == "timed" {
		for at := Ms(0); at < r.Length; at += every {
			if hours.At(r.clock.minute(at)) {
				r.Stills[i] = append(r.Stills[i], at)
			}
		}
		return
	}
	var list []Span
	for _, n := range r.joined(causes.Stills[i]) {
		if e := &r.Events[n]; hours.At(r.clock.minute(e.Trigger)) {
			list = append(list, Span{e.Trigger, max(e.End, e.Trigger+1)})
		}
	}
	last := Ms(math.MinInt64 / 2)
	for _, v := range union(list) {
		for at := max(v.From, last+every); at < v.To; at += every {
			last = at
			r.Stills[i] = append(r.Stills[i], at)
		}
	}
}
