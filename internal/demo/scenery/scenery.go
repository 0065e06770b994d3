// Package scenery draws places of simple solids as a camera sees them, in greys with a thin line round everything, so that
// sample sites have pictures of which the truth is known.
//
// Lengths are metres: X to the right of the camera's foot, Y above the ground, Z away from it. The camera is a pinhole that
// looks level; its picture may lie higher or lower than the middle of what it sees, as with a shifted lens. What
// [wakefield/core/picture] says of such pictures is exact.
package scenery

import "math"

type vector struct{ x, y, z float64 }

func (a vector) dot(b vector) float64 { return a.x*b.x + a.y*b.y + a.z*b.z }

// A Camera looks along Z, level.
type Camera struct {
	Height  float64 // over the ground, metres
	Focal   float64 // in heights of the picture
	Horizon float64 // share of the height from the top
	Aspect  float64 // width over height
}

// ray is the way that light comes from to a place of the picture. It is as long as what it meets at distance 1 is far.
func (c Camera) ray(x, y float64) vector {
	return vector{(x - 0.5) * c.Aspect / c.Focal, (c.Horizon - y) / c.Focal, 1}
}

// at is where a place is in the picture; ok is false for what lies behind.
func (c Camera) at(p vector) (x, y float64, ok bool) {
	if p.z < 0.05 {
		return 0, 0, false
	}
	return 0.5 + p.x*c.Focal/(p.z*c.Aspect), c.Horizon + (c.Height-p.y)*c.Focal/p.z, true
}

// A Place is what there is to be seen.
type Place struct {
	Ground  float64 // grey, 0 black to 1 white
	Sky     float64 // grey at the horizon; where there are walls and a ceiling it is not seen
	Lamps   bool    // light comes from lamps everywhere above, without shadows
	Painted []Paint
	Solids  []Solid
}

// Paint is a rectangle on the ground. The one named last is on top.
type Paint struct {
	X0, X1, Z0, Z1 float64
	Grey           float64
	Waves          bool // it moves as water does
}

func (p Paint) covers(x, z float64) bool { return x >= p.X0 && x <= p.X1 && z >= p.Z0 && z <= p.Z1 }

func (p *Place) groundAt(x, z float64) (grey float64, id int) {
	grey = p.Ground
	for i, paint := range p.Painted {
		if paint.covers(x, z) {
			grey, id = paint.Grey, i+1
			if paint.Waves {
				grey += 0.05 * math.Sin(2.1*z+0.7*math.Sin(1.3*x)) * math.Sin(0.9*x+0.4*z)
			}
		}
	}
	return grey, id
}

// A Solid is something that stands there.
type Solid interface {
	// hit is how far along a ray from a point it is met, in lengths of the ray, and the normal there; ok is false for not.
	hit(from, ray vector) (far float64, normal vector, ok bool)
	corners() []vector // of a box round it
	grey() float64
}

// Box is a box on its side, turned about the vertical.
type Box struct {
	X, Z    float64 // its middle
	Y       float64 // its underside
	W, H, D float64 // along X, Y and Z before it is turned
	Turn    float64 // degrees, to the left seen from above
	Grey    float64
}

func (b Box) grey() float64 { return b.Grey }

func (b Box) turned() (cos, sin float64) {
	sin, cos = math.Sincos(b.Turn * math.Pi / 180)
	return cos, sin
}

func (b Box) corners() (out []vector) {
	cos, sin := b.turned()
	for i := range 8 {
		x, y, z := b.W*(float64(i&1)-0.5), b.Y+b.H*float64(i>>1&1), b.D*(float64(i>>2&1)-0.5)
		out = append(out, vector{b.X + x*cos - z*sin, y, b.Z + x*sin + z*cos})
	}
	return out
}

func (b Box) hit(from, ray vector) (float64, vector, bool) {
	cos, sin := b.turned()
	into := func(v vector) vector { return vector{v.x*cos + v.z*sin, v.y, -v.x*sin + v.z*cos} }
	from = into(vector{from.x - b.X, from.y - b.Y - b.H/2, from.z - b.Z})
	ray = into(ray)
	near, far, normal := math.Inf(-1), math.Inf(1), vector{}
	for axis := range 3 {
		f, r, half := [3]float64{from.x, from.y, from.z}[axis], [3]float64{ray.x, ray.y, ray.z}[axis], [3]float64{b.W, b.H, b.D}[axis]/2
		if r == 0 {
			if math.Abs(f) > half {
				return 0, vector{}, false
			}
			continue
		}
		in, out := (-half-f)/r, (half-f)/r
		if in > out {
			in, out = out, in
		}
		if in > near {
			near = in
			side := -math.Copysign(1, r)
			normal = [3]vector{{x: side}, {y: side}, {z: side}}[axis]
		}
		far = min(far, out)
	}
	if near > far || near <= 1e-6 {
		return 0, vector{}, false
	}
	return near, vector{normal.x*cos - normal.z*sin, normal.y, normal.x*sin + normal.z*cos}, true
}

// Post is an upright cylinder.
type Post struct {
	X, Z, Y float64 // its axis and its underside
	R, H    float64
	Grey    float64
}

func (p Post) grey() float64 { return p.Grey }

func (p Post) corners() []vector {
	return Box{X: p.X, Z: p.Z, Y: p.Y, W: 2 * p.R, D: 2 * p.R, H: p.H}.corners()
}

func (p Post) hit(from, ray vector) (float64, vector, bool) {
	x, z := from.x-p.X, from.z-p.Z
	best, normal, ok := 0.0, vector{}, false
	a, b, c := ray.x*ray.x+ray.z*ray.z, x*ray.x+z*ray.z, x*x+z*z-p.R*p.R
	if d := b*b - a*c; a > 0 && d >= 0 {
		t := (-b - math.Sqrt(d)) / a
		if y := from.y + t*ray.y; t > 1e-6 && y >= p.Y && y <= p.Y+p.H {
			best, normal, ok = t, vector{(x + t*ray.x) / p.R, 0, (z + t*ray.z) / p.R}, true
		}
	}
	if ray.y != 0 {
		end, up := p.Y+p.H, 1.0
		if ray.y > 0 {
			end, up = p.Y, -1
		}
		t := (end - from.y) / ray.y
		if dx, dz := x+t*ray.x, z+t*ray.z; t > 1e-6 && dx*dx+dz*dz <= p.R*p.R && (!ok || t < best) {
			best, normal, ok = t, vector{y: up}, true
		}
	}
	return best, normal, ok
}

// Person is someone of a height who stands at a place.
func Person(x, z, height float64) []Solid {
	return []Solid{
		Post{X: x, Z: z, R: 0.13 * height, H: 0.5 * height, Grey: 0.2},
		Post{X: x, Z: z, Y: 0.5 * height, R: 0.15 * height, H: 0.34 * height, Grey: 0.3},
		Post{X: x, Z: z, Y: 0.84 * height, R: 0.065 * height, H: 0.16 * height, Grey: 0.5},
	}
}
