package walktest

import (
	"wakefield.example/core/picture"
)

// sight is a walk as areas see it: what each covers of the walker, moment by moment.
type sight struct {
	step    float64
	covered [][]float64 // by area
}

// coarse is how finely walks are played for faults, in seconds.
const coarse = 2 * picture.Step

// boxes are where the walker is, every step of seconds.
func boxes(g picture.Ground, w picture.Walk, step float64) (out []picture.Box) {
	p := g.Pace(w)
	for k := 0; step*float64(k) <= p.Seconds()+1e-9; k++ {
		out = append(out, g.Box(w.Object, p.Feet(step*float64(k))))
	}
	return out
}

// seen is what areas cover of a walker's boxes, which are step seconds apart.
func seen(areas []picture.Watch, list []picture.Box, step float64) sight {
	s := sight{step, make([][]float64, len(areas))}
	for a := range areas {
		s.covered[a] = make([]float64, len(list))
		for k, b := range list {
			s.covered[a][k] = areas[a].Within(b)
		}
	}
	return s
}

// limits are from when on an area notices.
type limits struct {
	smallest, seconds float64
}

// noticed is when the walker is first noticed and last in sight, by areas that watch (bits of open), with their limits; ok is
// false where never.
func (s *sight) noticed(open uint64, of []limits) (noticed, lost float64, area int, ok bool) {
	noticed, lost, area = -1, -1, -1
	if len(s.covered) == 0 {
		return noticed, lost, area, false
	}
	since := make([]int, len(s.covered))
	for k := range s.covered[0] {
		for a := range s.covered {
			share := s.covered[a][k]
			if open>>a&1 == 0 || share <= 0 || share < of[a].smallest {
				since[a] = 0
				continue
			}
			lost = s.step * float64(k)
			if since[a] == 0 {
				since[a] = k + 1
			}
			if noticed < 0 && s.step*float64(k+1-since[a]) >= of[a].seconds-1e-9 {
				noticed, area = lost, a
			}
		}
	}
	return noticed, lost, area, noticed >= 0
}

// moved are boxes shifted over the picture.
func moved(list []picture.Box, right, down float64) []picture.Box {
	out := make([]picture.Box, len(list))
	for i, b := range list {
		out[i] = picture.Box{Left: b.Left + right, Top: b.Top + down, Right: b.Right + right, Bottom: b.Bottom + down}
	}
	return out
}

// mirrored are boxes with left and right changed.
func mirrored(list []picture.Box) []picture.Box {
	out := make([]picture.Box, len(list))
	for i, b := range list {
		out[i] = picture.Box{Left: 1 - b.Right, Top: b.Top, Right: 1 - b.Left, Bottom: b.Bottom}
	}
	return out
}
