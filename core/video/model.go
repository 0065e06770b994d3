package video

import "math"

// Model is the table behind modelled bitrates: what a keyframe costs a pixel, and
// how much smaller the frames are that follow it. The figures are starting points
// for scenes nobody has measured, and carry an uncertainty of ×/÷ 1.8.
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
	// UnknownRatio is taken for streams whose bitrate is not modelled.
	UnknownRatio float64
}{
	BitsPerPixel: 0.60,
	Step:         1.6,
	// H.265 spends about six tenths of H.264 at equal looks, AV1 about half. A
	// motion JPEG is a keyframe without prediction inside the picture.
	Codec:        map[Codec]float64{H264: 1, H265: 0.6, AV1: 0.5, MJPEG: 1.1},
	Ratio:        map[Scene]float64{Still: 30, Moderate: 12, Busy: 6},
	UnknownRatio: 10,
}

// Frames is the number of frames in a group: frame rate × keyframe interval, at
// least 1. Motion JPEG has keyframes only.
func (s Stream) Frames() float64 { return s.frames(s.FPS) }

func (s Stream) frames(fps float64) float64 {
	if s.Codec == MJPEG {
		return 1
	}
	return max(1, fps*s.GOPSeconds)
}

// ratio is the size of a keyframe over that of a following frame.
func ratio(scene Scene, moving bool, fps float64) float64 {
	if !moving {
		scene = Still
	}
	return Model.Ratio[scene] * math.Sqrt(fps/15)
}

// modelled is the model's bitrate at a frame rate.
func (s Stream) modelled(scene Scene, moving bool, fps float64) Kbps {
	k := Model.BitsPerPixel * Model.Codec[s.Codec] * math.Pow(Model.Step, float64(s.Rate.Quality-3))
	keyframe := k * float64(s.Width) * float64(s.Height)
	n := s.frames(fps)
	return Kbps(keyframe * (1 + (n-1)/ratio(scene, moving, fps)) * fps / n / 1000)
}

// keyframes is the cost of writing keyframes alone: size × 8 / interval where the
// size is known, else the share r/(r+n−1) of the stream's rate.
func (s Stream) keyframes() Cost {
	cost, n := s.Cost(), s.Frames()
	switch {
	case s.Codec == MJPEG:
		return cost
	case s.KeyframeKB > 0:
		each := Kbps(s.KeyframeKB * 8 * s.FPS / n)
		return Cost{each, each}
	case s.Rate.Kind == Modelled:
		idle, active := ratio(s.Rate.Scene, false, s.FPS), ratio(s.Rate.Scene, true, s.FPS)
		return Cost{cost.Idle * Kbps(idle/(idle+n-1)), cost.Active * Kbps(active/(active+n-1))}
	default:
		return cost.Scale(Model.UnknownRatio / (Model.UnknownRatio + n - 1))
	}
}

// thinning is the model's ratio of the bitrate at fewer frames a second to that at
// the stream's own frame rate.
func (s Stream) thinning(moving bool, fps float64) float64 {
	shape := func(fps float64) float64 {
		r := Model.UnknownRatio * math.Sqrt(fps/15)
		if s.Rate.Kind == Modelled {
			r = ratio(s.Rate.Scene, moving, fps)
		}
		n := s.frames(fps)
		return (1 + (n-1)/r) * fps / n
	}
	return shape(fps) / shape(s.FPS)
}
