package footage

import (
	"math"
)

// sums gathers the integrals of one bin.
type sums struct {
	happening  *Happening
	regime     Regime
	noticed    float64 // chance that a wanted event becomes a trigger here
	alone      float64 // chance that the rest of its group leaves its beginning uncovered
	wantedRate float64 // wanted events a second in the present segment
	length     float64 // seconds of the bin

	seconds, event, written   float64
	base, motion, alarm, call layer   // seconds
	full, begun, called       float64 // wanted events; called are those that a button keeps low
}

// indifferent tells whether the regime writes the same whatever happens.
func (s *sums) indifferent() bool {
	return s.regime.Admit == Nothing && !s.happening.Moves(s.regime)
}

// panel integrates between two points, by halves where a curve runs too far between
// them to be followed by four points.
func (s *sums) panel(w *sweep, from, to float64, here, there levels, depth int) {
	run, weight, steep := 0.0, 0.0, false
	for _, r := range w.used {
		change := math.Abs(here[r] - there[r])
		run = max(run, change)
		weight = max(weight, change/max(here[r], there[r], 1e-12))
		steep = steep || change > 2 && min(here[r], there[r]) < 30
	}
	weight *= (to - from) / s.length
	if steep && depth < 30 {
		middle := (from + to) / 2
		w.look(middle)
		between := w.levels(middle)
		s.panel(w, from, middle, here, between, depth+1)
		s.panel(w, middle, to, between, there, depth+1)
		return
	}
	points := pointsFor(run, weight)
	if w.curved {
		points = max(points, 3) // it may rise and fall in between
	}
	s.points(w, from, to, points)
}

// pointsFor is how many points follow a curve that runs so far, and weighs so much in its
// bin: what is short, or hardly changes, matters little.
func pointsFor(run, weight float64) int {
	switch {
	case run < 1e-4 || run < 0.1 && weight < 0.0005:
		return 1
	case run < 0.02 || run < 0.5 && weight < 0.03:
		return 2
	case run < 0.3 || run < 1 && weight < 0.2:
		return 3
	}
	return 4
}

// points integrates between two points.
func (s *sums) points(w *sweep, from, to float64, n int) {
	for i, x := range gauss[n].x {
		s.point(w, from+x*(to-from), gauss[n].weight[i]*(to-from))
	}
}

// point adds the state s seconds behind the edge with a weight in seconds.
func (s *sums) point(w *sweep, at, weight float64) {
	w.look(at)
	s.state(w.at(w.levels(at)), weight)
}

// chance is that of at least one where mean are expected, mean ≥ 0. Below a tenth the
// series of 1 − exp(−mean) is quicker, and loses no digits; the next term is 2e-11.
func chance(mean float64) float64 {
	if mean < 0.1 {
		return mean * (1 - mean*(1./2-mean*(1./6-mean*(1./24-mean*(1./120-mean*(1./720-mean*(1./5040)))))))
	}
	return 1 - math.Exp(-mean)
}

// state is one instant: the chances that motion and alarm triggers cover it, that
// a caught trigger is going on, and that something not caught is.
type state struct{ motion, alarm, caught, missed float64 }

// active is the chance that anything moves.
func (x state) active() float64 { return 1 - (1-x.caught)*(1-x.missed) }

// covered is p, the chance that the event layer is written.
func (x state) covered(admit Admit) float64 {
	switch admit {
	case Motion:
		return x.motion
	case Alarm:
		return x.alarm
	case Either:
		return 1 - (1-x.motion)*(1-x.alarm)
	case Both:
		return x.motion * x.alarm
	}
	return 0
}

// together is j, the chance that the event layer is written while something moves.
// Own motion that is caught is always covered; otherwise happening and coverage are
// independent.
func (x state) together(admit Admit, tied bool) float64 {
	with := func(p float64) float64 { return x.caught + max(0, p-x.caught)*x.missed }
	p := x.covered(admit)
	switch {
	case tied && admit.motion():
		return with(p)
	case tied && admit == Both:
		return x.alarm * with(x.motion)
	}
	return p * x.active()
}

func (s *sums) state(x state, weight float64) {
	r, call := &s.regime, s.happening.Call
	p, j, a := x.covered(r.Admit), x.together(r.Admit, s.happening.Tied), x.active()

	byAlarm := 0.0 // share of the event layer's footage that an alarm asks for
	switch {
	case r.Admit == Alarm || r.Admit == Both:
		byAlarm = 1
	case r.Admit == Either && p > 0:
		byAlarm = x.alarm / p
	}
	rest := weight * (1 - call)
	if r.CallUnder {
		s.motion.add(weight*(1-byAlarm), j, p)
		s.alarm.add(weight*byAlarm, j, p)
		s.call.add(weight*call, a-j, 1-p)
	} else {
		s.motion.add(rest*(1-byAlarm), j, p)
		s.alarm.add(rest*byAlarm, j, p)
		s.call.add(weight*call, a, 1)
	}
	s.base.add(rest, a-j, 1-p)

	covered := p + call*(1-p)
	s.seconds += weight
	s.event += weight * covered
	if r.HasBase {
		s.written += weight
	} else {
		s.written += weight * covered
	}

	s.begun += weight * s.wantedRate
	full := s.inFull(x)
	s.full += weight * s.wantedRate * (1 - call) * full
	if s.regime.CallLow {
		s.full += weight * s.wantedRate * call * full
		s.called += weight * s.wantedRate * call * (1 - full)
	} else {
		s.full += weight * s.wantedRate * call
	}
}

// inFull is the chance that a wanted event is kept in full: by its own trigger where
// the layer admits it, or by footage that covers its beginning for another reason.
func (s *sums) inFull(x state) float64 {
	own, admit := 0.0, s.regime.Admit
	if s.happening.Tied {
		own = s.noticed
		x.motion = 1 - (1-x.motion)*s.alone
	}
	switch {
	case admit.motion():
		return own + (1-own)*x.covered(admit)
	case admit == Both:
		return x.alarm * (own + (1-own)*x.motion)
	}
	return x.covered(admit)
}

// into writes the means of the bin.
func (s *sums) into(b *Shares) {
	b.Event = s.event / s.seconds
	b.Written = s.written / s.seconds
	b.base.add(1/s.seconds, s.base.moving, s.base.written)
	b.motion.add(1/s.seconds, s.motion.moving, s.motion.written)
	b.alarm.add(1/s.seconds, s.alarm.moving, s.alarm.written)
	b.call.add(1/s.seconds, s.call.moving, s.call.written)
	b.Full = s.full
	switch {
	case s.regime.HasBase && s.regime.Whole:
		b.Full = s.begun // the button's is no less
	case s.regime.HasBase:
		b.Low = max(0, s.begun-s.full)
	default:
		b.Low = min(s.called, max(0, s.begun-s.full))
		b.Missed = max(0, s.begun-s.full-b.Low)
	}
}
