package demo

import (
	"context"
	"embed"
	"image"
	"math"

	"wakefield.example/core/picture"
	"wakefield.example/core/plan"
	"wakefield.example/internal/demo/scenery"
	"wakefield.example/internal/stills"
)

// A view is what a camera of a sample site sees, and what is drawn in its picture. Lengths on the ground are metres to
// the right of the camera and away from it.
type view struct {
	channel string
	degrees float64 // vertical angle of view
	height  float64 // of the camera, metres
	horizon float64 // share of the picture from the top
	place   scenery.Place
	people  [2]spot
	walks   []route
	areas   []zone
	patches []zone
}

// A spot is a place on the ground, or in the picture where it is said so.
type spot [2]float64

type route struct {
	id, name, object string
	percent          float64 // of the events
	feet             []spot
}

// A zone is a part of the picture, drawn on the ground or, with corners in the picture, anywhere.
type zone struct {
	id, name string
	ground   []spot
	picture  []spot // shares of the picture
	ignore   bool
	smallest float64 // % of the picture
	activity string  // of a patch
	blob     float64 // of a patch, % of the picture
}

func (v *view) camera() scenery.Camera {
	return scenery.Camera{Height: v.height, Focal: picture.FocalOf(v.degrees), Horizon: v.horizon, Aspect: 16.0 / 9}
}

func (v *view) onGround() picture.Ground {
	c := v.camera()
	return picture.Ground{Horizon: c.Horizon, Camera: c.Height, Focal: c.Focal, Aspect: c.Aspect}
}

// points are places on the ground as shares of the picture; those outside are brought to its edge.
func (v *view) points(feet []spot) (out []plan.Point) {
	for _, p := range feet {
		at := v.onGround().At(p[1], p[0])
		out = append(out, plan.Point{share(at.X), share(at.Y)})
	}
	return out
}

func share(f float64) float64 { return math.Round(1e4*max(0, min(1, f))) / 1e4 }

func (v *view) outline(z zone) []plan.Point {
	if z.ground != nil {
		return v.points(z.ground)
	}
	out := make([]plan.Point, len(z.picture))
	for i, p := range z.picture {
		out[i] = plan.Point(p)
	}
	return out
}

// draw puts what is drawn in the picture into a channel. What the channel has already stays.
func (v *view) draw(c *plan.Channel) {
	if c.Scene != nil {
		return
	}
	scene := &plan.Scene{VerticalDegrees: v.degrees}
	ground := v.onGround()
	for _, p := range v.people {
		feet := ground.At(p[1], p[0])
		box := ground.Box(picture.Object{Width: 0.5, Height: picture.PersonMetres}, feet)
		scene.People = append(scene.People, plan.ScenePerson{X: share(feet.X), FeetY: share(feet.Y), HeadY: share(box.Top)})
	}
	for _, w := range v.walks {
		scene.Walks = append(scene.Walks, plan.Walk{ID: w.id, Name: w.name, Object: w.object, SharePercent: w.percent, Points: v.points(w.feet)})
	}
	for _, z := range v.patches {
		scene.Patches = append(scene.Patches, plan.Patch{ID: z.id, Name: z.name, Activity: z.activity, BlobPercent: z.blob, Points: v.outline(z)})
	}
	c.Scene = scene
	var list []plan.Area
	for _, z := range v.areas {
		a := plan.Area{ID: z.id, Name: z.name, Ignore: z.ignore, Points: v.outline(z)}
		if z.smallest > 0 {
			a.Smallest = &plan.Smallest{Percent: z.smallest, Of: "picture"}
		}
		list = append(list, a)
	}
	if list != nil {
		c.Detection.Areas = &plan.Areas{List: list}
	}
}

//go:generate go run ./draw

//go:embed pictures
var files embed.FS

// pictures are what some views show, in their order.
func pictures(views []view) []*stills.Still {
	var out []*stills.Still
	for _, v := range views {
		data, err := files.ReadFile("pictures/" + v.channel + ".jpg")
		if err != nil {
			panic("demo: " + err.Error())
		}
		still, err := stills.Take(context.Background(), data)
		if err != nil {
			panic("demo: " + v.channel + ": " + err.Error())
		}
		out = append(out, still)
	}
	return out
}

// Draw draws anew what all cameras of the sample sites see, in a size in pixels, and gives each picture to a function.
func Draw(width, height int, give func(channel string, picture *image.Gray)) {
	for _, v := range append(quayViews(), ciderViews()...) {
		give(v.channel, scenery.Render(v.place, v.camera(), width, height))
	}
}

// withPictures gives cameras what is known of their views, and the pictures.
func withPictures(p *plan.Plan, views []view) (*plan.Plan, []*stills.Still) {
	list := pictures(views)
	for i, v := range views {
		c := p.Channel(v.channel)
		v.draw(c)
		c.Scene.Picture = list[i].ID
	}
	return p, list
}
