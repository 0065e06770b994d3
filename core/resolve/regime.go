package resolve

import (
	"math"
	"slices"

	"wakefield.example/core/footage"
	"wakefield.example/core/plan"
	"wakefield.example/core/video"
	"wakefield.example/core/week"
)

// noise is what darkness multiplies the bitrates of the streams by, main first; 0 by day.
type noise [3]float64

// noises is the noise of a channel's streams minute by minute.
func noises(c *plan.Channel) week.Steps[noise] {
	out := week.Constant(noise{})
	for k, which := range Streams {
		s := c.Streams.Get(which)
		if s == nil || s.Rate.Night == nil {
			continue
		}
		out = week.Map(week.Both(out, s.Rate.Night.Steps()), func(at week.Pair[noise, bool]) noise {
			if at.B {
				at.A[k] = s.Rate.Night.Factor
			}
			return at.A
		})
	}
	return out
}

// Regimes is what a channel does minute by minute, given its duties.
func (r *Site) Regimes(c *plan.Channel, duties week.Steps[string]) week.Steps[footage.Regime] {
	known := make(map[week.Pair[string, noise]]footage.Regime, 4)
	buttons := r.buttonsOf(c)
	return week.Map(week.Both(duties, noises(c)), func(at week.Pair[string, noise]) footage.Regime {
		regime, ok := known[at]
		if !ok {
			regime = regimeOf(c, r.Duties[at.A], at.B, buttons)
			known[at] = regime
		}
		return regime
	})
}

// layersOf says which streams a duty writes on a channel.
func layersOf(c *plan.Channel, d *plan.Duty) (out LayerStreams) {
	if d == nil {
		return out
	}
	if d.Base != nil && c.Streams.Get(d.Base.Stream) != nil {
		out.Base = slices.Index(Streams[:], d.Base.Stream)
		if !d.Base.KeyframesOnly && !c.CameraDecides() {
			out.BaseHalvings = halvings(c.Streams.Get(d.Base.Stream), d.Base.FPS)
		}
	}
	if d.Event != nil && c.Streams.Get(d.Event.Stream) != nil {
		out.Event = slices.Index(Streams[:], d.Event.Stream)
		if !c.CameraDecides() {
			out.EventHalvings = halvings(c.Streams.Get(d.Event.Stream), d.Event.FPS)
		}
	}
	return out
}

// halvings is how often the frames of a stream are halved where so many a second are asked for, 0 for all.
func halvings(s *plan.Stream, fps float64) float64 {
	if s == nil || fps <= 0 || fps >= s.FPS || s.Rate.Kind != "modelled" {
		return 0
	}
	return math.Log2(s.FPS / fps)
}

// regimeOf says what a duty means on a channel. A layer whose stream the camera
// does not have writes nothing; a finding says so.
func regimeOf(c *plan.Channel, d *plan.Duty, dark noise, buttons []*plan.CallButton) footage.Regime {
	var r footage.Regime
	audio := video.Kbps(c.AudioKbps)
	cost := func(which plan.StreamName, cut video.Cut) (video.Cost, bool) {
		s := c.Streams.Get(which)
		if s == nil {
			return video.Cost{}, false
		}
		v := Encoded(s)
		v.Rate.Noise = dark[slices.Index(Streams[:], which)]
		return v.Written(cut, audio), true
	}
	settings := func(keyframes bool, fps float64, s plan.Settings) video.Cut {
		if c.CameraDecides() { // the recorder keeps what it is sent
			return video.Cut{KeyframesOnly: keyframes}
		}
		return video.Cut{KeyframesOnly: keyframes, FPS: fps, Factor: s.Factor()}
	}
	r.CallLow = len(buttons) > 0
	for _, b := range buttons {
		call, _ := cost(b.Stream.OrMain(), settings(false, b.FPS, plan.Settings{}))
		r.CallLow = r.CallLow && !(b.Stream.OrMain() == plan.Main && framesOf(c, plan.Main, b.FPS) == c.Streams.Main.FPS)
		if call.Active >= r.Call.Active {
			r.Call = call
		}
	}
	if d == nil {
		return r
	}
	if b := d.Base; b != nil {
		r.Base, r.HasBase = cost(b.Stream, settings(b.KeyframesOnly, b.FPS, b.Settings))
	}
	if e := d.Event; e != nil {
		if event, ok := cost(e.Stream, settings(false, e.FPS, e.Settings)); ok {
			r.Admit, r.Event = Admits(e), event
		}
	}
	r.Whole = r.HasBase && whole(c, d, r.Admit != footage.Nothing)
	if r.HasBase && r.Base.Active >= r.Call.Active {
		r.Call, r.CallLow = r.Base, r.CallLow && !r.Whole // a button never makes it write less
	}
	r.CallUnder = len(buttons) > 0 && r.Admit != footage.Nothing && r.Event.Active > r.Call.Active
	return r
}

// buttonsOf are the buttons that make a channel record, each once.
func (r *Site) buttonsOf(c *plan.Channel) (out []*plan.CallButton) {
	i, ok := r.Channels[c.ID]
	if !ok {
		return nil
	}
	for k := range r.Causes.Held[i] {
		b := &r.Plan.CallButtons[r.Causes.Held[i][k].Cause.At]
		if !slices.Contains(out, b) {
			out = append(out, b)
		}
	}
	return out
}

// whole tells whether the base layer of a duty writes as much as its event layer would:
// the same stream with as many frames and settings no lower. All frames of the main stream are as much as
// there is; where there is no event layer nothing less is.
func whole(c *plan.Channel, d *plan.Duty, listens bool) bool {
	base, worth, least := framesOf(c, d.Base.Stream, d.Base.FPS), d.Base.Factor(), 1.0
	if c.CameraDecides() {
		return !d.Base.KeyframesOnly && (d.Base.Stream == plan.Main || listens && d.Base.Stream == d.Event.Stream)
	}
	if listens && d.Base.Stream == d.Event.Stream {
		least = d.Event.Factor()
	}
	switch {
	case d.Base.KeyframesOnly || worth < least:
		return false
	case d.Base.Stream == plan.Main && base == c.Streams.Main.FPS:
		return true
	case !listens:
		return false
	}
	return d.Base.Stream == d.Event.Stream && base >= framesOf(c, d.Event.Stream, d.Event.FPS)
}

// framesOf is how many frames a second are kept of a stream where fps are asked for, 0
// for all.
func framesOf(c *plan.Channel, stream plan.StreamName, fps float64) float64 {
	all := c.Streams.Get(stream).FPS
	if fps > 0 && fps < all && !c.CameraDecides() {
		return fps
	}
	return all
}

func Admits(e *plan.Event) footage.Admit {
	motion, alarm := slices.Contains(e.On, plan.Motion), slices.Contains(e.On, plan.Alarm)
	switch {
	case motion && alarm && e.Match == "all":
		return footage.Both
	case motion && alarm:
		return footage.Either
	case alarm:
		return footage.Alarm
	case motion:
		return footage.Motion
	}
	return footage.Nothing
}

// Streams are those a camera may have, the main one first.
var Streams = [3]plan.StreamName{plan.Main, plan.Sub, plan.Third}

// Encoded translates a stream of the plan.
func Encoded(s *plan.Stream) video.Stream {
	out := video.Stream{
		Codec: video.Codec(s.Codec), Width: s.Width, Height: s.Height,
		FPS: s.FPS, GOPSeconds: s.GOPSeconds, KeyframeKB: s.KeyframeKB,
		Rate: video.Rate{Kind: video.Kind(s.Rate.Kind), Quality: s.Rate.Quality, Scene: video.Scene(s.Rate.Scene), Adaptive: s.Rate.Adaptive,
			Max: video.Kbps(s.Rate.MaxKbps)},
	}
	switch out.Rate.Kind {
	case video.Constant:
		out.Rate.Idle, out.Rate.Active = video.Kbps(s.Rate.Kbps), video.Kbps(s.Rate.Kbps)
	case video.Variable:
		out.Rate.Idle, out.Rate.Active = video.Kbps(s.Rate.IdleKbps), video.Kbps(s.Rate.ActiveKbps)
	}
	return out
}

// fullOf is the main stream of a channel in full, at its highest hour.
func fullOf(c *plan.Channel) (most video.Kbps) {
	if c.Streams.Main == nil {
		return 0
	}
	v := Encoded(c.Streams.Main)
	for _, at := range noises(c) {
		v.Rate.Noise = at.Value[0]
		cost := v.Written(video.Cut{}, video.Kbps(c.AudioKbps))
		most = max(most, cost.Idle, cost.Active)
	}
	return most
}

// ListensToMotion is when a duty of channel i records on motion alone.
func (r *Site) ListensToMotion(i int) week.Steps[bool] {
	return week.Map(r.Inputs[i].Duties, func(id string) bool {
		d := r.Duties[id]
		if d == nil || d.Event == nil {
			return false
		}
		by := Admits(d.Event)
		return by == footage.Motion || by == footage.Either
	})
}
