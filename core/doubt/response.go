package doubt

import (
	"math"

	"wakefield.example/core/footage"
	"wakefield.example/core/parallel"
	"wakefield.example/core/resolve"
)

// knots are where a channel's bitrates are computed along the direction in which they
// change most, in standard deviations; between them they are interpolated.
var knots = [...]float64{-4, -2.2, -1, 0, 1, 2.2, 4}

// middle is the knot at which nothing is off.
const middle = 3

// response is the mean bitrate that a channel writes from each stream, by how far the
// figures of its activities are off.
//
// To first order a bitrate changes by g·z, z being how far each figure is off in standard
// deviations. All of them act by way of how much is covered, so it is enough to follow
// the bend along one direction, u: the bitrate at z is that at t·u, where t is such that
// both are the same to first order, t = g·z / g·u.
type response [3]struct {
	along spline
	by    []float64 // of each axis, what a standard deviation moves t
	// What noticing e times as much moves t: as much as if what moves before the channel
	// itself happened e times as often.
	notices float64
}

// at is the bitrate written from a stream in draw i, felt being how far off each step is,
// and noticed by how much more is noticed than was said, as a logarithm.
func (r *response) at(stream int, felt [][]float64, i int, noticed float64) float64 {
	f := &r[stream]
	if f.along.flat {
		return f.along.value
	}
	t := f.notices * noticed
	for k, by := range f.by {
		t += by * felt[k][i]
	}
	return f.along.at(t)
}

// step is one axis of one cause along which a figure may be off.
type step struct {
	cause, axis int
	oneSided    bool // events that may come in groups: the other side is that they do not
}

// stepsOf lists the axes along which the figures of a channel may be off.
func stepsOf(causes []Figures) []step {
	var out []step
	for k := range causes {
		c := &causes[k]
		for axis := range axes {
			if c.spreadAlong(axis) > 0 {
				out = append(out, step{k, axis, false})
			}
		}
		if c.OpenGroups {
			out = append(out, step{k, groupAxis, true})
		}
	}
	return out
}

// felt is how far off a step is felt to be that is z standard deviations off.
func (s step) felt(z float64) float64 {
	if !s.oneSided {
		return z
	}
	// Of a group less is covered the larger it is, nearly in proportion to 1 − 1/n.
	share := func(z float64) float64 { n := 1 + UnknownSize*max(0, z); return 1 - 1/n }
	return share(z) / share(1)
}

// responses finds how channels that play alike respond, and to which steps. What is
// played is played once for all of them, priced for each, and let go.
//
// Told are also the slopes, by channel, step and stream, in kbit/s a standard deviation.
func responses(in []*resolve.Input, causes []Figures, typical []footage.Shares) ([]response, []step, [][][3]float64) {
	first := in[0]
	steps := stepsOf(causes)
	play := func(z []float64) []footage.Shares { // z by step
		off := make([][axes]float64, len(causes))
		for k, s := range steps {
			off[s.cause][s.axis] = z[k]
		}
		factors := make([]resolve.Factor, len(off))
		for k := range off {
			factors[k] = causes[k].off(off[k])
		}
		return first.Play(factors)
	}
	stated := make([][3]float64, len(in))
	for i := range in {
		stated[i] = in[i].ByStream(typical)
	}
	stirred := make([]float64, len(steps))
	slopes := make([][][3]float64, len(in)) // by channel, step and stream
	for i := range slopes {
		slopes[i] = make([][3]float64, len(steps))
	}
	parallel.Do(len(steps), func(k int) {
		z := make([]float64, len(steps))
		z[k] = 1
		shares := play(z)
		stirred[k] = footage.Stirred(shares) - footage.Stirred(typical)
		for i := range in {
			for s, kbps := range in[i].ByStream(shares) {
				slopes[i][k][s] = kbps - stated[i][s]
			}
		}
	})
	u := direction(stirred, steps)
	values := make([][3][len(knots)]float64, len(in))
	parallel.Do(len(knots), func(k int) {
		shares := typical
		if k != middle && u != nil {
			z := make([]float64, len(steps))
			for j := range z {
				z[j] = knots[k] * u[j]
			}
			shares = play(z)
		}
		for i := range in {
			for s, kbps := range in[i].ByStream(shares) {
				values[i][s][k] = kbps
			}
		}
	})
	out := make([]response, len(in))
	for i := range out {
		for s := range out[i] {
			r := &out[i][s]
			r.along = newSpline(values[i][s])
			r.by = along(slopes[i], u, s)
			for k, step := range steps {
				if cause := &causes[step.cause]; r.by != nil && step.axis == rateAxis && first.Heard.Moves(cause.ID) {
					r.notices += r.by[k] / cause.Rate
				}
			}
		}
	}
	return out, steps, slopes
}

// direction is the unit vector along which most changes; nil where nothing does.
// One-sided steps have no part in it.
func direction(slopes []float64, steps []step) []float64 {
	sum := 0.0
	for k := range steps {
		if !steps[k].oneSided {
			sum += slopes[k] * slopes[k]
		}
	}
	if sum == 0 {
		return nil
	}
	u := make([]float64, len(steps))
	for k := range steps {
		if !steps[k].oneSided {
			u[k] = slopes[k] / math.Sqrt(sum)
		}
	}
	return u
}

// along is what a standard deviation of each step moves a stream along u.
func along(slopes [][3]float64, u []float64, stream int) []float64 {
	if u == nil {
		return nil
	}
	by := make([]float64, len(slopes))
	sum, size := 0.0, 0.0
	for k := range slopes {
		sum += slopes[k][stream] * u[k]
		if u[k] != 0 {
			size += slopes[k][stream] * slopes[k][stream]
		}
	}
	if math.Abs(sum) < 0.2*math.Sqrt(size) || sum == 0 {
		copy(by, u) // it changes in another way than the rest, and hardly
		return by
	}
	for k := range by {
		by[k] = slopes[k][stream] / sum
	}
	return by
}
