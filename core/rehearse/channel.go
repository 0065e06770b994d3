package rehearse

import (
	"cmp"
	"context"
	"slices"
	"sort"

	"wakefield.example/core/cause"
	"wakefield.example/core/footage"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// hold is an event that wants footage of a channel.
type hold struct {
	Span
	event int
	kind  int // inMotion, inAlarm or inCall
}

const (
	inMotion = iota
	inAlarm
	inCall
	isActive // something moves before the channel
	kinds
)

// run is a stretch of time under one duty, with what that means.
type run struct {
	Span
	duty   string
	regime footage.Regime
}

// channel plays what a channel writes, and the fates of its wanted events. It returns the events that record it.
func (r *Rehearsal) channel(ctx context.Context, causes *cause.Causes, i int) []int {
	c := &r.plan.Channels[i]
	if c.NoCamera {
		for _, n := range r.own[i] {
			r.Events[n].Fate, r.Events[n].Why = Missed, TurnedOff
		}
		return nil
	}
	holds := r.holds(causes, i)
	runs := r.runs(i)
	r.Segments[i] = r.segments(ctx, i, holds, runs)
	if ctx.Err() != nil {
		return nil
	}
	r.fates(i, holds, runs)
	var all []int
	for _, s := range r.Segments[i] {
		all = append(all, s.Causes...)
	}
	slices.Sort(all)
	return slices.Compact(all)
}

func (r *Rehearsal) holds(causes *cause.Causes, i int) (out []hold) {
	c := &r.plan.Channels[i]
	ms := func(seconds float64) Ms { return Ms(seconds * float64(Second)) }
	var motion, alarm []cause.Tie
	for _, tie := range causes.Records[i] {
		if tie.Cause.Kind == cause.Motion {
			motion = append(motion, tie)
		} else {
			alarm = append(alarm, tie)
		}
	}
	for _, n := range r.joined(motion) {
		e := &r.Events[n]
		out = append(out, hold{Span{e.Trigger - ms(c.PreSeconds), e.End + ms(c.PostSeconds)}, n, inMotion})
	}
	for _, n := range r.joined(alarm) {
		e := &r.Events[n]
		out = append(out, hold{Span{e.Trigger - ms(c.AlarmPreEvent()), e.End + ms(c.AlarmPostEvent())}, n, inAlarm})
	}
	for _, n := range r.joined(causes.Held[i]) {
		e := &r.Events[n]
		out = append(out, hold{Span{e.Trigger, e.Trigger + ms(r.plan.CallButtons[e.At].HoldSeconds)}, n, inCall})
	}
	return out
}

// runs are the duties of a channel over the time that is played, with what they mean minute by minute.
func (r *Rehearsal) runs(i int) (out []run) {
	own := r.site.Duties(i)
	of := func(s *plan.SpecialDay) week.Steps[string] {
		switch {
		case s == nil:
			return own
		case s.Week != "":
			return r.site.WeekOf(s.Week)
		case s.UseDay != nil:
			return week.Repeated(own, *s.UseDay)
		}
		return own
	}
	known := make(map[*plan.SpecialDay]week.Steps[string])
	steps := func(s *plan.SpecialDay) week.Steps[string] {
		if _, ok := known[s]; !ok {
			known[s] = of(s)
		}
		return known[s]
	}
	meant := make(map[string]week.Steps[footage.Regime])
	over(r.clock, steps, func(from, to Ms, duty string, _ *plan.SpecialDay) {
		m, ok := meant[duty]
		if !ok {
			m = r.site.DutyAt(i, duty)
			meant[duty] = m
		}
		for at := from; at < to; {
			minute := r.clock.minute(at)
			until, regime := untilChange(m, minute)
			next := min(to, at+Ms(until-minute)*Minute)
			if n := len(out); n > 0 && out[n-1].duty == duty && out[n-1].regime == regime && out[n-1].To == at {
				out[n-1].To = next
			} else {
				out = append(out, run{Span{at, next}, duty, regime})
			}
			at = next
		}
	})
	return out
}

// admits tells whether the event layer writes.
func admits(a footage.Admit, motion, alarm bool) bool {
	switch a {
	case footage.Motion:
		return motion
	case footage.Alarm:
		return alarm
	case footage.Either:
		return motion || alarm
	case footage.Both:
		return motion && alarm
	}
	return false
}

// edge is where something begins or ends.
type edge struct {
	at    Ms
	hold  int // place among the holds; -1 for what moves, and for duties
	kind  int
	begin bool
}

// segments goes from edge to edge and says what is written between, within the days asked for.
func (r *Rehearsal) segments(ctx context.Context, i int, holds []hold, runs []run) (out []Segment) {
	edges := make([]edge, 0, 2*len(holds)+2*len(r.own[i])+len(runs)+2)
	for k, h := range holds {
		edges = append(edges, edge{h.From, k, h.kind, true}, edge{h.To, k, h.kind, false})
	}
	for _, n := range r.own[i] {
		edges = append(edges, edge{r.Events[n].Start, -1, isActive, true}, edge{r.Events[n].End, -1, isActive, false})
	}
	for _, d := range runs {
		edges = append(edges, edge{d.From, -1, kinds, true})
	}
	edges = append(edges, edge{0, -1, kinds, true}, edge{r.Length, -1, kinds, true})
	slices.SortFunc(edges, func(a, b edge) int { return cmp.Compare(a.at, b.at) })
	w := writing{r: r, channel: i, holds: holds, place: make([]int, len(holds))}
	at := 0 // of the runs
	for k := 0; k < len(edges); {
		if stopped(ctx, k) {
			return nil
		}
		from := edges[k].at
		for ; k < len(edges) && edges[k].at == from; k++ {
			w.pass(edges[k])
		}
		if k == len(edges) || from < 0 || from >= r.Length {
			continue
		}
		to := edges[k].at
		for at < len(runs)-1 && runs[at].To <= from {
			at++
		}
		w.write(Span{from, to}, &runs[at])
	}
	for k := range w.out {
		slices.Sort(w.out[k].Causes)
		w.out[k].Causes = slices.Compact(w.out[k].Causes)
	}
	return w.out
}

// writing is what is written of a channel, as it goes from edge to edge. Each hold costs the same, however many are under way.
type writing struct {
	r       *Rehearsal
	channel int
	holds   []hold
	out     []Segment

	count [kinds]int
	held  []int // holds under way, in no order
	place []int // of each of them among those
	fresh []int // those that began since something was written last
	own   int   // of those under way, of the channel's own motion
}

// pass goes over an edge.
func (w *writing) pass(e edge) {
	step := 1
	switch {
	case e.kind == kinds:
		return
	case !e.begin:
		step = -1
	}
	w.count[e.kind] += step
	if e.hold < 0 {
		return
	}
	if h := w.holds[e.hold]; h.kind == inMotion && w.r.Events[h.event].Channel == w.channel {
		w.own += step
	}
	if e.begin {
		w.place[e.hold] = len(w.held)
		w.held, w.fresh = append(w.held, e.hold), append(w.fresh, e.hold)
		return
	}
	last := w.held[len(w.held)-1]
	w.held[w.place[e.hold]], w.place[last] = last, w.place[e.hold]
	w.held = w.held[:len(w.held)-1]
	w.place[e.hold] = -1
}

// write adds what is written over a stretch of time, to the last segment where it goes on.
func (w *writing) write(over Span, d *run) {
	g := &d.regime
	s := Segment{From: over.From, To: over.To, Duty: d.duty, Button: w.count[inCall] > 0}
	s.Event = s.Button || admits(g.Admit, w.count[inMotion] > 0, w.count[inAlarm] > 0)
	cost := g.Base
	switch {
	case s.Button && !(g.CallUnder && admits(g.Admit, w.count[inMotion] > 0, w.count[inAlarm] > 0)):
		cost = g.Call
	case s.Event:
		cost = g.Event
	case !g.HasBase:
		return
	}
	kbps := float64(cost.Idle)
	if w.count[isActive] > 0 {
		kbps = float64(cost.Active)
	}
	s.Kbit = kbps * float64(over.To-over.From) / float64(Second)
	s.Others = s.Event && w.own == 0
	n, causes := len(w.out), w.held
	goesOn := n > 0 && w.out[n-1].To == s.From && w.out[n-1].Duty == s.Duty && w.out[n-1].Event == s.Event && w.out[n-1].Button == s.Button &&
		w.out[n-1].Others == s.Others
	if goesOn {
		w.out[n-1].To, w.out[n-1].Kbit = s.To, w.out[n-1].Kbit+s.Kbit
		causes = w.fresh
	} else {
		w.out = append(w.out, s)
		n++
	}
	if s.Event {
		for _, h := range causes {
			if w.place[h] >= 0 { // it is under way still
				w.out[n-1].Causes = append(w.out[n-1].Causes, w.holds[h].event)
			}
		}
	}
	w.fresh = w.fresh[:0]
}

// covering tells how many intervals of a kind cover a moment.
type covering struct{ begins, ends []Ms }

func coveringOf(holds []hold, kind int) (c covering) {
	for _, h := range holds {
		if h.kind == kind {
			c.begins, c.ends = append(c.begins, h.From), append(c.ends, h.To)
		}
	}
	slices.Sort(c.begins)
	slices.Sort(c.ends)
	return c
}

func (c covering) at(t Ms) int {
	upTo := func(list []Ms) int { return sort.Search(len(list), func(i int) bool { return list[i] > t }) }
	return upTo(c.begins) - upTo(c.ends)
}

func runAt(runs []run, t Ms) *run {
	k := sort.Search(len(runs), func(i int) bool { return runs[i].To > t })
	return &runs[min(k, len(runs)-1)]
}

func within(list []Span, t Ms) bool {
	k := sort.Search(len(list), func(i int) bool { return list[i].To > t })
	return k < len(list) && list[k].From <= t
}

// fates decides what became of every wanted event of a channel.
func (r *Rehearsal) fates(i int, holds []hold, runs []run) {
	motion, alarm, call := coveringOf(holds, inMotion), coveringOf(holds, inAlarm), coveringOf(holds, inCall)
	self := make(map[int]Span) // own events that record the channel
	for _, h := range holds {
		if h.kind == inMotion {
			self[h.event] = h.Span
		}
	}
	for _, n := range r.own[i] {
		e := &r.Events[n]
		if e.Source != Wanted {
			continue
		}
		own, tied := self[n]
		e.Fate, e.Why = r.fate(i, e, tied, own, motion, alarm, call, runs)
	}
}

func (r *Rehearsal) fate(i int, e *Event, tied bool, own Span, motion, alarm, call covering, runs []run) (Fate, Why) {
	then := &runAt(runs, e.Start).regime
	others := motion.at(e.Start)
	if tied && own.From <= e.Start && e.Start < own.To {
		others-- // its own footage is no other's
	}
	switch {
	case within(r.Away[i], e.Start):
		return Missed, AwayThen
	case tied && admits(runAt(runs, e.Trigger).regime.Admit, true, alarm.at(e.Trigger) > 0):
		return Full, ByItself
	case call.at(e.Start) > 0 && !then.CallLow:
		return Full, ByButton
	case admits(then.Admit, others > 0, alarm.at(e.Start) > 0):
		return Full, ByOthers
	case then.Whole:
		return Full, ByBase
	}
	fate, why := Missed, Deaf
	if then.HasBase || call.at(e.Start) > 0 {
		fate = Low
	}
	switch at := &runAt(runs, e.Trigger).regime; {
	case e.Gate != Passed:
		why = NotNoticed
	case !tied:
		why = NotTied
	case at.Admit == footage.Both:
		why = BothNeeded
	case at.Admit == footage.Nothing && !at.HasBase:
		why = TurnedOff
	}
	return fate, why
}
