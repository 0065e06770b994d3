package video

import "math"

// Model is the table behind modelled bitrates: what a keyframe costs a pixel, and
// how much smaller the frames are that follow it. The figures are starting points
// for scenes nobody has measured: what encoders spent on moving pictures of a made-up
// place (docs/method.md, "Compared with encoders") under sensor noise of 2.5 of 255,
// between good light and dull; at 2 and 3 a keyframe takes ×0.65 and ×1.45 of it.
//
//	rate = (K + (n−1)·P) · fps / n     K = W·H·k     P = K / (r·√(fps/15))
//
// n = fps × keyframe interval is the number of frames of a group. Frames that
// follow each other faster differ less: hence the root.
var Model = struct {
	// BitsPerPixel of an H.264 keyframe at quality 3.
	BitsPerPixel float64
	// Step is the factor between neighbouring qualities.
	Step float64
	// Codec multiplies BitsPerPixel.
	Codec map[Codec]float64
	// Ratio of a keyframe to a following frame at 15 frames a second while
	// something moves. While nothing does, it is that of a still scene.
	Ratio map[Scene]float64
	// Adaptive encoders lengthen the keyframe interval so many times while nothing moves,
	// and send following frames that are smaller than a keyframe by this ratio then.
	Adaptive Adaptive
	// UnknownRatio is taken for streams whose bitrate is not modelled.
	UnknownRatio float64
}{
	BitsPerPixel: 0.60,
	Step:         1.6,
	// At equal PSNR, encoded as quickly as a camera has to. A motion JPEG is a
	// keyframe without prediction inside the picture.
	Codec: map[Codec]float64{H264: 1, H265: 0.83, AV1: 0.62, MJPEG: 1.8},
	Ratio: map[Scene]float64{Still: 68, Moderate: 44, Busy: 15},
	// Not measured: twice the ratio of a still scene.
	Adaptive:     Adaptive{4, 136},
	UnknownRatio: 10,
}

// Adaptive is what adaptive encoders do while nothing moves.
type Adaptive struct {
	Interval float64 // factor of the keyframe interval
	Ratio    float64 // size of a keyframe over that of a following frame at 15 frames a second
}

func (s Stream) frames(moving bool, fps float64) float64 {
	if s.Codec == MJPEG {
		return 1
	}
	n := max(1, fps*s.GOPSeconds)
	if s.sparing(moving) {
		n *= Model.Adaptive.Interval
	}
	return n
}

// sparing tells whether an adaptive encoder spends less.
func (s Stream) sparing(moving bool) bool {
	return s.Rate.Kind == Modelled && s.Rate.Adaptive && !moving
}

// ratio is the size of a keyframe over that of a following frame.
func (s Stream) ratio(moving bool, fps float64) float64 {
	root := math.Sqrt(fps / 15)
	switch {
	case s.Rate.Kind != Modelled:
		return Model.UnknownRatio * root
	case s.sparing(moving):
		return Model.Adaptive.Ratio * root
	case !moving:
		return Model.Ratio[Still] * root
	}
	return Model.Ratio[s.Rate.Scene] * root
}

// modelled is the model's bitrate at a frame rate.
func (s Stream) modelled(moving bool, fps float64) Kbps {
	k := Model.BitsPerPixel * Model.Codec[s.Codec] * math.Pow(Model.Step, float64(s.Rate.Quality-3))
	keyframe := k * float64(s.Width) * float64(s.Height)
	return Kbps(keyframe * s.perKeyframe(moving, fps) / 1000)
}

// perKeyframe is what is sent in a second, in keyframes' worth.
func (s Stream) perKeyframe(moving bool, fps float64) float64 {
	n := s.frames(moving, fps)
	return (1 + (n-1)/s.ratio(moving, fps)) * fps / n
}

// keyframes is the cost of writing keyframes alone: size × 8 / interval where the
// size is known, else the share r/(r+n−1) of the stream's rate.
func (s Stream) keyframes() Cost {
	if s.Codec == MJPEG {
		return s.Cost()
	}
	if s.KeyframeKB > 0 {
		each := func(moving bool) Kbps { return Kbps(s.KeyframeKB * 8 * s.FPS / s.frames(moving, s.FPS) * s.noise()) }
		return Cost{each(false), each(true)}
	}
	share := func(moving bool) Kbps {
		r, n := s.ratio(moving, s.FPS), s.frames(moving, s.FPS)
		if s.Rate.Kind != Modelled {
			r = Model.UnknownRatio
		}
		return Kbps(r / (r + n - 1))
	}
	cost := s.Cost()
	return Cost{cost.Idle * share(false), cost.Active * share(true)}
}

// thinning is the model's ratio of the bitrate at fewer frames a second to that at
// the stream's own frame rate.
func (s Stream) thinning(moving bool, fps float64) float64 {
	return s.perKeyframe(moving, fps) / s.perKeyframe(moving, s.FPS)
}
