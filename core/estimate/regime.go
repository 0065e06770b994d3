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
	return r, from
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
