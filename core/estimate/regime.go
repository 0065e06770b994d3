package estimate

import (
	"slices"

	"wakefield/core/footage"
	"wakefield/core/plan"
	"wakefield/core/video"
)

// regimeOf says what a duty means on a channel. A layer whose stream the camera
// does not have writes nothing; a finding says so.
func regimeOf(c *plan.Channel, d *plan.Duty) (footage.Regime, layerStreams) {
	var r footage.Regime
	var from layerStreams
	if d == nil {
		return r, from
	}
	audio := video.Kbps(c.AudioKbps)
	if b := d.Base; b != nil {
		if s := c.Streams.Get(b.Stream); s != nil {
			r.HasBase = true
			r.Base = encoded(s).Written(video.Cut{KeyframesOnly: b.KeyframesOnly, FPS: b.FPS}, audio)
			from.base = streamIndex(b.Stream)
		}
	}
	if e := d.Event; e != nil {
		if s := c.Streams.Get(e.Stream); s != nil {
			r.Admit = admits(e)
			r.Event = encoded(s).Written(video.Cut{FPS: e.FPS}, audio)
			from.event = streamIndex(e.Stream)
		}
	}
	r.Whole = r.HasBase && whole(c, d, r.Admit != footage.Nothing)
	return r, from
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
func framesOf(c *plan.Channel, stream plan.Which, fps float64) float64 {
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

func streamIndex(w plan.Which) int {
	return slices.Index([]plan.Which{plan.Main, plan.Sub, plan.Third}, w)
}

// encoded translates a stream of the plan.
func encoded(s *plan.Stream) video.Stream {
	out := video.Stream{
		Codec: video.Codec(s.Codec), Width: s.Width, Height: s.Height,
		FPS: s.FPS, GOPSeconds: s.GOPSeconds, KeyframeKB: s.KeyframeKB,
		Rate: video.Rate{Kind: video.Kind(s.Rate.Kind), Quality: s.Rate.Quality, Scene: video.Scene(s.Rate.Scene)},
	}
	switch out.Rate.Kind {
	case video.Constant:
		out.Rate.Idle, out.Rate.Active = video.Kbps(s.Rate.Kbps), video.Kbps(s.Rate.Kbps)
	case video.Variable:
		out.Rate.Idle, out.Rate.Active = video.Kbps(s.Rate.IdleKbps), video.Kbps(s.Rate.ActiveKbps)
	}
	return out
}
