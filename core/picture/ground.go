package picture

import (
	"errors"
	"fmt"
	"math"
)

// PersonMetres is the height of the people that are set down on a picture to find the ground.
const PersonMetres = 1.7

// Person is a person of PersonMetres set down on a picture: the height of feet and head, as shares from the top.
type Person struct{ Feet, Head float64 }

func (p Person) height() float64 { return p.Feet - p.Head }

// Ground is a plane as a camera sees it, level from left to right. People and distances are exact for a camera that looks
// level; tilted by 8° it seems up to 10 % higher than it is. Sizes hold near the people it was found by. Beyond some 25° it
// is no use.
type Ground struct {
	Horizon float64 // where the plane ends, as a share from the top; above 0 where it is in the picture
	Camera  float64 // height of the camera over the plane, metres, > 0
	Focal   float64 // focal length in heights of the picture, 1 / (2·tan(v/2)) for a vertical angle of view v
	Aspect  float64 // width of the picture over its height
}

// FocalOf is the focal length, in heights of the picture, of a vertical angle of view in degrees, 1 to 150.
func FocalOf(degrees float64) float64 { return 1 / (2 * math.Tan(degrees*math.Pi/360)) }

// FromTwo finds the ground from two people at different distances:
// y0 = (h2·y1 − h1·y2)/(h2 − h1), H = 1.7·(y1 − y0)/h1.
func FromTwo(a, b Person, focal, aspect float64) (Ground, error) {
	h1, h2 := a.height(), b.height()
	if h1 <= 0 || h2 <= 0 {
		return Ground{}, errors.New("a person's head is above the feet")
	}
	if math.Abs(h1-h2) < 0.02*max(h1, h2) {
		return Ground{}, errors.New("both people stand equally far away; set one of them nearer")
	}
	horizon := (h2*a.Feet - h1*b.Feet) / (h2 - h1)
	return ground(horizon, PersonMetres*(a.Feet-horizon)/h1, focal, aspect, a, b)
}

// FromOne finds the ground from one person and the height of the camera, metres.
func FromOne(a Person, camera, focal, aspect float64) (Ground, error) {
	if a.height() <= 0 {
		return Ground{}, errors.New("a person's head is above the feet")
	}
	return ground(a.Feet-camera*a.height()/PersonMetres, camera, focal, aspect, a)
}

func ground(horizon, camera, focal, aspect float64, people ...Person) (Ground, error) {
	for _, p := range people {
		if p.Feet <= horizon {
			return Ground{},
				fmt.Errorf("the horizon would be at %.0f %% of the height, below the feet of a person: the one nearer is the taller one in the picture",
					100*horizon)
		}
	}
	if camera <= 0 || camera > 1000 || math.IsNaN(camera) {
		return Ground{}, errors.New("the camera would hang at no height that can be; check where the feet and heads are")
	}
	return Ground{horizon, camera, focal, aspect}, nil
}

// Tilt is how far down the camera looks, degrees: atan((½ − y0)/f); below 0 where it looks up.
func (g Ground) Tilt() float64 { return math.Atan((0.5-g.Horizon)/g.Focal) * 180 / math.Pi }

// Distance is how far away, in metres along the ground, feet at a height of the picture stand; none above the horizon.
func (g Ground) Distance(y float64) float64 {
	if y <= g.Horizon {
		return math.Inf(1)
	}
	return g.Camera * g.Focal / (y - g.Horizon)
}

// At is where in the picture a place on the ground is: metres away, and metres to the right of the middle.
func (g Ground) At(away, right float64) Point {
	return Point{0.5 + right*g.Focal/(away*g.Aspect), g.Horizon + g.Camera*g.Focal/away}
}

// Place is where on the ground feet at a point of the picture stand; see [Ground.At].
func (g Ground) Place(feet Point) (away, right float64) {
	away = g.Distance(feet.Y)
	return away, (feet.X - 0.5) * g.Aspect * away / g.Focal
}

// Object is a kind of thing that moves.
type Object struct {
	Width, Height float64 // metres, > 0
	Speed         float64 // metres a second, > 0
}

// Box is where in the picture an object is that stands on a point: h·(y − y0)/H high, w·(y − y0)/(H·A) wide.
func (g Ground) Box(o Object, feet Point) Box {
	scale := (feet.Y - g.Horizon) / g.Camera
	half := o.Width * scale / g.Aspect / 2
	return Box{feet.X - half, feet.Y - o.Height*scale, feet.X + half, feet.Y}
}

// Reach is the height in the picture of the line beyond which an object covers less than a share of the picture,
// wherever it stands: y0 + H·√(share·A/(w·h)). With a share of 0 it is the horizon.
func (g Ground) Reach(o Object, share float64) float64 {
	return g.Horizon + g.Camera*math.Sqrt(share*g.Aspect/(o.Width*o.Height))
}
