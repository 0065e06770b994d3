package main

import (
	"math"
	"math/rand/v2"
)

// scenery is a made-up place that a camera looks at: ground with a texture at every scale, walls with edges, things that cross it
// at walking speed and foliage that sways. It is a function of time, so that it can be taken at any frame rate.
type scenery struct {
	width, height int
	ground        []float64
	things        []thing
	sways         bool
	noise         float64 // standard deviation of the sensor, of 255
	luck          *rand.Rand
}

type thing struct{ y, size, speed, start, shade float64 }

// newScenery makes one: still, moderate (a person is in the picture most of the time) or busy (many, and foliage).
func newScenery(width, height int, scene string, noise float64) *scenery {
	luck := rand.New(rand.NewPCG(7, 7))
	s := &scenery{width: width, height: height, ground: make([]float64, width*height), noise: noise, luck: luck}
	octaves := [][]float64{}
	for k := range 7 {
		grid := make([]float64, 129*129)
		for i := range grid {
			grid[i] = luck.Float64() - 0.5
		}
		_ = k
		octaves = append(octaves, grid)
	}
	for y := range height {
		for x := range width {
			u, v := float64(x)/float64(height), float64(y)/float64(height)
			light := 110 + 60*v
			for k, grid := range octaves {
				scale := math.Exp2(float64(k)) * 3
				light += 55 * math.Exp2(-0.7*float64(k)) * value(grid, u*scale, v*scale)
			}
			if v < 0.45 && int(u*9)%2 == 0 { // walls
				light -= 35
			}
			s.ground[y*width+x] = light
		}
	}
	number := map[string]int{"still": 0, "moderate": 2, "busy": 14}[scene]
	for range number {
		s.things = append(s.things, thing{0.5 + 0.4*luck.Float64(), 0.1 + 0.15*luck.Float64(),
			(0.06 + 0.1*luck.Float64()) * []float64{-1, 1}[luck.IntN(2)], luck.Float64() * 2, 40 + 150*luck.Float64()})
	}
	s.sways = scene == "busy"
	return s
}

// value is the grid between its points.
func value(grid []float64, x, y float64) float64 {
	i, j := int(x)%128, int(y)%128
	fx, fy := x-math.Floor(x), y-math.Floor(y)
	fx, fy = fx*fx*(3-2*fx), fy*fy*(3-2*fy)
	at := func(i, j int) float64 { return grid[j*129+i] }
	return (at(i, j)*(1-fx)+at(i+1, j)*fx)*(1-fy) + (at(i, j+1)*(1-fx)+at(i+1, j+1)*fx)*fy
}

// frame is the picture at a second, as planar YUV 4:2:0 without colour.
func (s *scenery) frame(t float64) []byte {
	out := make([]byte, s.width*s.height*3/2)
	line := make([]float64, s.width)
	for y := range s.height {
		v := float64(y) / float64(s.height)
		copy(line, s.ground[y*s.width:(y+1)*s.width])
		if s.sways && v < 0.4 {
			shift := int(math.Round(0.006 * float64(s.height) * math.Sin(2*math.Pi*t/1.7+9*v)))
			for x := range s.width / 4 {
				line[x] = s.ground[y*s.width+min(s.width-1, max(0, x+shift+8))]
			}
		}
		for _, th := range s.things {
			if v < th.y-th.size || v > th.y {
				continue
			}
			wide := 0.35 * th.size
			span := float64(s.width)/float64(s.height) + 2*wide
			at := math.Mod(math.Mod(th.start+th.speed*t, span)+span, span) - wide
			swing := 0.03 * th.size * math.Sin(2*math.Pi*t*1.8)
			for x := int((at - wide/2 + swing) * float64(s.height)); x < int((at+wide/2+swing)*float64(s.height)); x++ {
				if x >= 0 && x < s.width {
					u := float64(x)/float64(s.height) - at
					line[x] = th.shade + 30*math.Sin(80*u/wide/6) + 25*math.Sin(60*(v-th.y)/th.size)
				}
			}
		}
		for x, light := range line {
			if s.noise > 0 {
				light += s.noise * s.luck.NormFloat64()
			}
			out[y*s.width+x] = byte(max(0, min(255, light+0.5)))
		}
	}
	for i := s.width * s.height; i < len(out); i++ {
		out[i] = 128
	}
	return out
}
