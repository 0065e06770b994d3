package estimate

import (
	"math"

	"wakefield.example/core/plan"
)

// This file writes the formulas for what a second costs out once more, for the
// play-out.

// spent is the bitrate at one instant of a minute of the week.
func spent(c *plan.Channel, d *plan.Duty, on [4]bool, event bool, minute int, buttons []plan.CallButton) float64 {
	switch {
	case on[2]: // a record-now button writes what it says, and never less than the base layer
		most, kbps := based(c, d, true, minute), based(c, d, on[3], minute)
		if admitted(d, on[0], on[1]) {
			s := c.Streams.Get(d.Event.Stream)
			if all := bitrate(s, true, d.Event.FPS, minute)*worth(d.Event.Settings) + c.AudioKbps; all > most {
				most, kbps = all, bitrate(s, on[3], d.Event.FPS, minute)*worth(d.Event.Settings)+c.AudioKbps
			}
		}
		for _, b := range buttons {
			s := c.Streams.Get(streamOf(b))
			if all := bitrate(s, true, b.FPS, minute) + c.AudioKbps; all > most {
				most, kbps = all, bitrate(s, on[3], b.FPS, minute)+c.AudioKbps
			}
		}
		return kbps
	case event:
		return bitrate(c.Streams.Get(d.Event.Stream), on[3], d.Event.FPS, minute)*worth(d.Event.Settings) + c.AudioKbps
	}
	return based(c, d, on[3], minute)
}

func streamOf(b plan.CallButton) plan.StreamName {
	if b.Stream == "" {
		return "main"
	}
	return b.Stream
}

// based is what the base layer writes.
func based(c *plan.Channel, d *plan.Duty, moving bool, minute int) float64 {
	switch {
	case d.Base != nil && d.Base.KeyframesOnly:
		return keyframeRate(c.Streams.Get(d.Base.Stream), moving, minute) * worth(d.Base.Settings)
	case d.Base != nil:
		return bitrate(c.Streams.Get(d.Base.Stream), moving, d.Base.FPS, minute)*worth(d.Base.Settings) + c.AudioKbps
	}
	return 0
}

// worth is what settings of the hour make of a bitrate.
func worth(s plan.Settings) float64 {
	f := 1.0
	for range s.Quality {
		f *= 1.6
	}
	for range -s.Quality {
		f /= 1.6
	}
	if s.Percent != 0 {
		f *= s.Percent / 100
	}
	return f
}

// dark is what darkness multiplies a stream by.
func dark(s *plan.Stream, minute int) float64 {
	if s != nil && s.Rate.Night != nil {
		for _, b := range s.Rate.Night.Hours.Blocks {
			if covers(b, minute) {
				return s.Rate.Night.Factor
			}
		}
	}
	return 1
}

// frames is how many frames there are from one keyframe to the next.
func frames(s *plan.Stream, moving bool, fps float64) float64 {
	n := max(1, fps*s.GOPSeconds)
	if s.Rate.Adaptive && !moving {
		n *= 4
	}
	return n
}

// bitrate writes the formulas of the method out once more.
func bitrate(s *plan.Stream, moving bool, fps float64, minute int) float64 {
	r := s.Rate
	size := func(fps float64) float64 { // keyframes' worth of bits in a second
		if s.Codec == "mjpeg" {
			return fps
		}
		n := frames(s, moving, fps)
		return (1 + (n-1)/ratioOf(s, moving, fps)) * fps / n
	}
	var kbps float64
	switch {
	case r.Kind == "constant":
		kbps = r.Kbps
	case r.Kind == "variable" && moving:
		kbps = r.ActiveKbps
	case r.Kind == "variable":
		kbps = r.IdleKbps
	default:
		bits := 0.6 * map[string]float64{"h264": 1, "h265": 0.83, "av1": 0.62, "mjpeg": 1.8}[s.Codec]
		for q := 3; q < r.Quality; q++ {
			bits *= 1.6
		}
		for q := 3; q > r.Quality; q-- {
			bits /= 1.6
		}
		kbps = bits * float64(s.Width*s.Height) / 1000 * size(s.FPS)
	}
	kbps *= dark(s, minute)
	if r.MaxKbps > 0 {
		kbps = min(kbps, r.MaxKbps)
	}
	if fps > 0 && fps < s.FPS {
		kbps *= size(fps) / size(s.FPS)
	}
	return kbps
}

func ratioOf(s *plan.Stream, moving bool, fps float64) float64 {
	r := 10.0
	if s.Rate.Kind == "modelled" {
		switch r = 68; {
		case s.Rate.Adaptive && !moving:
			r = 136
		case moving:
			r = map[string]float64{"still": 68, "moderate": 44, "busy": 15}[s.Rate.Scene]
		}
	}
	return r * math.Sqrt(fps/15)
}

func keyframeRate(s *plan.Stream, moving bool, minute int) float64 {
	whole := bitrate(s, moving, 0, minute)
	if s.Codec == "mjpeg" {
		return whole
	}
	if s.KeyframeKB > 0 {
		return s.KeyframeKB * 8 * s.FPS / frames(s, moving, s.FPS) * dark(s, minute)
	}
	n, r := frames(s, moving, s.FPS), 10.0
	if s.Rate.Kind == "modelled" {
		r = ratioOf(s, moving, s.FPS)
	}
	return whole * r / (r + n - 1)
}
