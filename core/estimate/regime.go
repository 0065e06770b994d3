package estimate

import (
	"slices"

	"wakefield/core/footage"
	"wakefield/core/plan"
	"wakefield/core/video"
	"wakefield/core/week"
)

// noise is what darkness multiplies the bitrates of the streams by, main first; 0 by day.
type noise [3]float64

// noises is the noise of a channel's streams minute by minute.
func noises(c *plan.Channel) week.Steps[noise] {
	out := week.Constant(noise{})
	for k, which := range streams {
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

// regimes is what a channel does minute by minute, given its duties.
func (r *resolver) regimes(c *plan.Channel, duties week.Steps[string]) week.Steps[footage.Regime] {
	known := make(map[week.Pair[string, noise]]footage.Regime, 4)
	return week.Map(week.Both(duties, noises(c)), func(at week.Pair[string, noise]) footage.Regime {
		regime, ok := known[at]
		if !ok {
			regime = regimeOf(c, r.duties[at.A], at.B)
			known[at] = regime
		}
		return regime
	})
}

// layersOf says which streams a duty writes on a channel.
func layersOf(c *plan.Channel, d *plan.Duty) (out layerStreams) {
	if d == nil {
		return out
	}
	if d.Base != nil && c.Streams.Get(d.Base.Stream) != nil {
		out.base = slices.Index(streams[:], d.Base.Stream)
		if !d.Base.KeyframesOnly {
			out.baseHalvings = halvings(c.Streams.Get(d.Base.Stream), d.Base.FPS)
		}
	}
	if d.Event != nil && c.Streams.Get(d.Event.Stream) != nil {
		out.event = slices.Index(streams[:], d.Event.Stream)
		out.eventHalvings = halvings(c.Streams.Get(d.Event.Stream), d.Event.FPS)
	}
	return out
}

// regimeOf says what a duty means on a channel. A layer whose stream the camera
// does not have writes nothing; a finding says so.
func regimeOf(c *plan.Channel, d *plan.Duty, dark noise) footage.Regime {
	var r footage.Regime
	audio := video.Kbps(c.AudioKbps)
	cost := func(which plan.StreamName, cut video.Cut) (video.Cost, bool) {
		s := c.Streams.Get(which)
		if s == nil {
			return video.Cost{}, false
		}
		v := encoded(s)
		v.Rate.Noise = dark[slices.Index(streams[:], which)]
		return v.Written(cut, audio), true
	}
	r.Call, _ = cost(plan.Main, video.Cut{})
	if d == nil {
		return r
	}
	if b := d.Base; b != nil {
		r.Base, r.HasBase = cost(b.Stream, video.Cut{KeyframesOnly: b.KeyframesOnly, FPS: b.FPS})
	}
	if e := d.Event; e != nil {
		if event, ok := cost(e.Stream, video.Cut{FPS: e.FPS}); ok {
			r.Admit, r.Event = admits(e), event
		}
	}
	r.Whole = r.HasBase && whole(c, d, r.Admit != footage.Nothing)
	return r
}

// whole tells whether the base layer of a duty writes as much as its event layer would:
// the same stream with as many frames. All frames of the main stream are as much as
// there is; where there is no event layer nothing less is.
func whole(c *plan.Channel, d *plan.Duty, listens bool) bool {
	base := framesOf(c, d.Base.Stream, d.Base.FPS)
	switch {
	case d.Base.KeyframesOnly:
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
	if fps > 0 && fps < all {
		return fps
	}
	return all
}

func admits(e *plan.Event) footage.Admit {
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

// streams are those a camera may have, the main one first.
var streams = [3]plan.StreamName{plan.Main, plan.Sub, plan.Third}

// encoded translates a stream of the plan.
func encoded(s *plan.Stream) video.Stream {
	out := video.Stream{
		Codec: video.Codec(s.Codec), Width: s.Width, Height: s.Height,
		FPS: s.FPS, GOPSeconds: s.GOPSeconds, KeyframeKB: s.KeyframeKB,
		Rate: video.Rate{Kind: video.Kind(s.Rate.Kind), Quality: s.Rate.Quality, Scene: video.Scene(s.Rate.Scene), Adaptive: s.Rate.Adaptive, Max: video.Kbps(s.Rate.MaxKbps)},
	}
	switch out.Rate.Kind {
	case video.Constant:
		out.Rate.Idle, out.Rate.Active = video.Kbps(s.Rate.Kbps), video.Kbps(s.Rate.Kbps)
	case video.Variable:
		out.Rate.Idle, out.Rate.Active = video.Kbps(s.Rate.IdleKbps), video.Kbps(s.Rate.ActiveKbps)
	}
	return out
}

// DutyAt is what a duty means on channel i in every minute of the week: which layers write what, and which triggers count.
// The play-out of single weeks asks it too, so that a duty means the same to both.
func (s *Result) DutyAt(i int, duty string) week.Steps[footage.Regime] {
	return s.resolver.regimes(&s.plan.Channels[i], week.Constant(duty))
}

// WeekOf are the duties of a named week.
func (s *Result) WeekOf(id string) week.Steps[string] { return s.resolver.weeks[id] }
