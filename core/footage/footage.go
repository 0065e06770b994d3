// Package footage says what is on disk when: the coverage of the week by recorded
// footage, and what it costs.
//
// Footage is wanted from pre seconds before a trigger's start to post seconds after
// its end. The number of wanted intervals that cover an instant is Poisson with mean
//
//	Λ(t) = Σ over sources [ ∫ from t−post to t+pre of τ(u) du  +  ∫ from 0 to ∞ of τ(t−post−x)·exp(−x/d) dx ]
//
// so an instant is covered with probability p(t) = 1 − exp(−Λ(t)). Overlaps merge,
// which the usual rate × (pre + length + post) forgets.
//
// Events may come in groups (see [activity.Group]); the chance that a source does not
// cover an instant is then exp(−∫ λ(u)/n · K(t−u) du) with a fixed kernel K, see
// kernel. All else stays.
//
// Triggers have constant intensity between edges, so Λ has a closed form from edge
// to edge: a straight line and one exponential for each mean length. [Play] sweeps
// the week once along those edges and integrates exp(−Λ) over a few Gauss–Legendre
// points behind each, so the cost grows with the number of edges, not of seconds.
package footage

import (
	"slices"

	"wakefield.example/core/activity"
	"wakefield.example/core/video"
	"wakefield.example/core/week"
)

// Source is one process of triggers that wants footage of a channel.
type Source struct {
	Triggers activity.Process
	Pre      float64 // seconds kept before a trigger's start, ≥ 0
	Post     float64 // seconds kept after its end, ≥ 0

	// Where events come in groups, what the triggers are made of, and how.
	Events    activity.Process
	Detection activity.Detection
}

// grouped tells whether the triggers come together.
func (s *Source) grouped() bool { return s.Events.Group.Grouped() }

// Admit says which triggers make the event layer write.
type Admit uint8

const (
	Nothing Admit = iota
	Motion        // p = p_m
	Alarm         // p = p_a
	Either        // p = 1 − (1−p_m)(1−p_a)
	Both          // p = p_m · p_a
)

// motion tells whether motion alone makes the layer write.
func (a Admit) motion() bool { return a == Motion || a == Either }

// Regime is what a channel does while one duty holds.
type Regime struct {
	HasBase bool
	Base    video.Cost // of what is written when nothing happens, 0 without base
	Whole   bool       // whether the base writes as much as the event layer would
	Admit   Admit
	Event   video.Cost // of what replaces the base while the event layer is written
	Call    video.Cost // of what record-now buttons write
	CallLow bool       // whether that is less than all of the main stream
	// CallUnder is whether it is less than the event layer's, which then is written still where it would be.
	CallUnder bool
}

// Happening is all that happens to one channel.
type Happening struct {
	Motion []Source // triggers that count as motion here
	Alarm  []Source // triggers that count as alarm here

	Own []activity.Process // what moves in the picture, wanted or nuisance

	// Caught are the triggers that detection makes of Own. Their Pre is how long
	// before a trigger begins its event is going on and kept: the shortest duration
	// that detection waits for, or the pre-event time where that is less. Post is 0.
	Caught []Source
	Tied   bool // whether Caught is among Motion

	Wanted  activity.Process    // the wanted part of Own
	Noticed week.Steps[float64] // chance that a wanted event becomes a trigger, by when that would be

	Call float64 // μ: share of time that record-now buttons cover
}

// Bin is the mean of a channel over one stretch of the week.
type Bin struct {
	Span    week.Span
	Written float64 // share of time in which anything is written
	Event   float64 // share of time in which the event layer is admitted and covering

	// Bitrates by cause, averaged over all of the stretch: Base is written because
	// the base layer is on, Motion and Alarm because an event is; what both ask for
	// counts as Alarm, and so does a record-now button.
	Base, Motion, Alarm video.Kbps
	Call                video.Kbps // the part of Alarm that a record-now button asks for

	// Wanted events begun in the stretch, by fate: kept at full quality, at a lower one,
	// not at all. At full quality is what is written as the event layer would write it,
	// whichever layer does.
	Full, Low, Missed float64
}

// Total is the bitrate written, all causes together.
func (b Bin) Total() video.Kbps { return b.Base + b.Motion + b.Alarm }

// Week is what one channel writes over the week.
type Week []Bin

// Grain is the longest stretch of a bin. Bins also end where a regime ends.
const Grain week.Minute = 30

// Mean is the bin of the whole week.
func (w Week) Mean() Bin {
	mean := Bin{Span: week.Whole}
	for _, b := range w {
		part := float64(b.Span.Minutes()) / float64(week.Length)
		mean.Written += part * b.Written
		mean.Event += part * b.Event
		mean.Base += video.Kbps(part) * b.Base
		mean.Motion += video.Kbps(part) * b.Motion
		mean.Alarm += video.Kbps(part) * b.Alarm
		mean.Call += video.Kbps(part) * b.Call
		mean.Full += b.Full
		mean.Low += b.Low
		mean.Missed += b.Missed
	}
	return mean
}

// At returns the bin that holds a minute.
func (w Week) At(m week.Minute) Bin {
	for _, b := range w {
		if b.Span.Contains(m) {
			return b
		}
	}
	return Bin{}
}

// Times is the happening with all that happens in it a number of times as often; buttons are
// pressed as they were.
func (s Happening) Times(factor float64) Happening {
	sources := func(list []Source) []Source {
		out := make([]Source, len(list))
		for i, src := range list {
			src.Triggers, src.Events = src.Triggers.Scale(factor), src.Events.Scale(factor)
			out[i] = src
		}
		return out
	}
	s.Motion, s.Alarm, s.Caught = sources(s.Motion), sources(s.Alarm), sources(s.Caught)
	own := make([]activity.Process, len(s.Own))
	for i, p := range s.Own {
		own[i] = p.Scale(factor)
	}
	s.Own, s.Wanted = own, s.Wanted.Scale(factor)
	return s
}

// Equal tells whether two happenings are the same, so that the same is written of them.
func (s *Happening) Equal(o *Happening) bool {
	return slices.EqualFunc(s.Motion, o.Motion, Source.Equal) && slices.EqualFunc(s.Alarm, o.Alarm, Source.Equal) &&
		slices.EqualFunc(s.Own, o.Own, activity.Process.Equal) && slices.EqualFunc(s.Caught, o.Caught, Source.Equal) &&
		s.Tied == o.Tied && slices.Equal(s.Noticed, o.Noticed) && s.Wanted.Equal(o.Wanted) && s.Call == o.Call
}

// Equal tells whether two sources are the same.
func (s Source) Equal(o Source) bool {
	return s.Pre == o.Pre && s.Post == o.Post && s.Triggers.Equal(o.Triggers) && s.Events.Equal(o.Events) && s.Detection.Equal(o.Detection)
}
