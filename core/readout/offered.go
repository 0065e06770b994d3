package readout

import (
	"fmt"
	"math"
	"slices"

	"wakefield.example/core/plan"
)

// want puts the plan's stream into what is read of one: what its encoder does not offer becomes the next that it does, so that no less
// is seen, and is said.
func (s *Stream) want(planned *plan.Stream) (otherwise []string) {
	say := func(format string, args ...any) { otherwise = append(otherwise, plan.Say(format, args...)) }
	could := s.could(planned.Codec)
	if could == nil && len(s.Could) > 0 {
		say("%s is not offered, it stays %s", plan.Codecs.Name(planned.Codec), codec(s.Codec))
		could = s.could(s.Codec)
	} else {
		s.Codec = planned.Codec
	}
	if w, h := could.size(planned.Width, planned.Height); w != planned.Width || h != planned.Height {
		say("%s are not offered, %s are entered", fmt.Sprintf("%d × %d", planned.Width, planned.Height), fmt.Sprintf("%d × %d", w, h))
		s.Width, s.Height = w, h
	} else {
		s.Width, s.Height = planned.Width, planned.Height
	}
	if s.FPS = could.frames(planned.FPS); s.FPS != planned.FPS {
		say("%v frames a second are not offered, %v are entered", planned.FPS, s.FPS)
	}
	if s.GOPSeconds > 0 {
		frames := int(math.Round(planned.GOPSeconds * s.FPS))
		if within := could.gop(frames); within != frames {
			say("a keyframe every %.3g s is not offered, every %.3g s is entered", planned.GOPSeconds, float64(within)/s.FPS)
			s.GOPSeconds = float64(within) / s.FPS
		} else {
			s.GOPSeconds = planned.GOPSeconds
		}
	}
	s.wantRate(planned, could, say)
	return otherwise
}

// wantRate puts the plan's bitrate into the encoder's limit: a constant one, a largest one, or what the scene needs while something
// moves where the encoder allows less.
func (s *Stream) wantRate(planned *plan.Stream, could *Could, say func(format string, args ...any)) {
	if s.LimitKbps == 0 {
		return
	}
	var wanted float64
	var constant bool
	switch r := &planned.Rate; {
	case r.Kind == "constant":
		wanted, constant = r.Kbps, could == nil && s.Constant || could != nil && could.Constant
	case r.Kind == "modelled" && r.MaxKbps > 0:
		wanted, constant = r.MaxKbps, false
	case r.Kind == "variable" && r.ActiveKbps > s.LimitKbps: // it could not send what is planned
		wanted, constant = math.Ceil(r.ActiveKbps/100)*100, false
	default:
		return
	}
	if could != nil && could.MostKbps > 0 {
		if within := min(max(wanted, could.LeastKbps), could.MostKbps); within != wanted {
			say("%v kbit/s are not offered, %v are entered", wanted, within)
			wanted = within
		}
	}
	s.LimitKbps, s.Constant = wanted, constant
}

// could is what the encoder can be set to with a codec; nil where it does not say.
func (s *Stream) could(codec string) *Could {
	for i := range s.Could {
		if s.Could[i].Codec == codec {
			return &s.Could[i]
		}
	}
	return nil
}

// size is the smallest that is offered and no smaller; the largest where there is none.
func (c *Could) size(w, h int) (int, int) {
	if c == nil || len(c.Sizes) == 0 || slices.Contains(c.Sizes, [2]int{w, h}) {
		return w, h
	}
	sizes := slices.Clone(c.Sizes)
	slices.SortFunc(sizes, func(a, b [2]int) int { return a[0]*a[1] - b[0]*b[1] })
	for _, s := range sizes {
		if s[0] >= w && s[1] >= h {
			return s[0], s[1]
		}
	}
	last := sizes[len(sizes)-1]
	return last[0], last[1]
}

// frames is the lowest rate that is offered and no lower; the highest where there is none.
func (c *Could) frames(fps float64) float64 {
	if c == nil || len(c.FramesPerSecond) == 0 {
		return fps
	}
	most, least := c.FramesPerSecond[0], c.FramesPerSecond[len(c.FramesPerSecond)-1]
	if c.Stepless {
		return min(max(fps, least), most)
	}
	for _, f := range slices.Backward(c.FramesPerSecond) {
		if f >= fps-0.005 { // 29.97 is written in more ways than one
			return f
		}
	}
	return most
}

// gop is how many frames a group of pictures may have.
func (c *Could) gop(frames int) int {
	if c == nil || c.MostFrames == 0 {
		return max(1, frames)
	}
	return min(max(frames, c.LeastFrames), c.MostFrames)
}
