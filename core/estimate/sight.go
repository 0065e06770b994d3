package estimate

import (
	"cmp"
	"math"
	"slices"

	"wakefield.example/core/document"
	"wakefield.example/core/picture"
	"wakefield.example/core/plan"
	"wakefield.example/core/resolve"
)

// Sight is what becomes of all that is drawn in a channel's picture.
type Sight struct {
	Aspect  float64       `json:"aspect" doc:"Width of the picture over its height"`
	Guessed bool          `json:"guessed,omitempty" doc:"Whether it is a guess how reliably the channel notices what is in sight: nobody stated it, or what new channels have written in"`
	Ground  *GroundSight  `json:"ground,omitempty" doc:"How the ground lies; absent where too little is said to tell"`
	Assumed *GroundSight  `json:"assumed,omitempty" doc:"How the ground might lie where too little is said: 3 m, 50° and 15° down stand for what is not known"`
	Areas   []AreaSight   `json:"areas"`
	Walks   []WalkSight   `json:"walks"`
	Patches []PatchSight  `json:"patches"`
	Reach   []ObjectReach `json:"reach" doc:"How far each kind of object is large enough for some watched area; none where any size is"`
}

// GroundSight is how the ground lies in a picture.
type GroundSight struct {
	Horizon      float64 `json:"horizon" doc:"Share of the height from the top"`
	CameraMetres float64 `json:"cameraMetres"`
	TiltDegrees  float64 `json:"tiltDegrees" doc:"How far down the camera looks: atan((½ − y0)/f)"`
	Focal        float64 `json:"focal" doc:"Focal length in heights of the picture"`
	Aspect       float64 `json:"aspect" doc:"Width over height"`

	Lines []DistanceLine `json:"lines" doc:"Where some distances lie in the picture"`
}

// DistanceLine is where a distance lies in a picture.
type DistanceLine struct {
	Metres float64 `json:"metres"`
	Y      float64 `json:"y" doc:"Share of the height from the top"`
}

// AreaSight is how much of the picture an area covers.
type AreaSight struct {
	ID              string  `json:"id"`
	Percent         float64 `json:"percent" doc:"Of the picture, as drawn"`
	LeftPercent     float64 `json:"leftPercent" doc:"Of the picture, with ignored areas taken out; 0 for an ignored one"`
	SmallestPercent float64 `json:"smallestPercent" doc:"Of the picture, that an object must cover in it"`
}

// WalkSight is what becomes of a walk, with every area watching.
type WalkSight struct {
	ID               string   `json:"id"`
	Seconds          float64  `json:"seconds" doc:"How long it takes"`
	Metres           float64  `json:"metres" doc:"How long it is"`
	EntersSeconds    *float64 `json:"entersSeconds,omitempty" doc:"When any part of it is first in a watched area"`
	NoticedSeconds   *float64 `json:"noticedSeconds,omitempty" doc:"When it is noticed, after it began; absent for never"`
	LostSeconds      *float64 `json:"lostSeconds,omitempty" doc:"When it is last in sight"`
	Area             string   `json:"area,omitempty" doc:"Id of the area that notices it"`
	AwayMetres       *float64 `json:"awayMetres,omitempty" doc:"How far away it is noticed"`
	EntersAwayMetres *float64 `json:"entersAwayMetres,omitempty" doc:"How far away it enters"`
	LostAwayMetres   *float64 `json:"lostAwayMetres,omitempty" doc:"How far away it is lost"`
	Large            bool     `json:"large" doc:"Whether it is ever large enough, however short"`
	TooSmallSeconds  float64  `json:"tooSmallSeconds" doc:"How long it is in a watched area before it is large enough there; all the while where it never is"`
	Track            []BoxAt  `json:"track" doc:"Where it is in the picture, at most 60 moments evenly spread"`
	MissingSeconds   float64  `json:"missingSeconds" doc:"Its first seconds that are not kept: what it takes to be noticed beyond the pre-event time"`
}

// BoxAt is what an object covers of the picture at a moment of its walk.
type BoxAt struct {
	Seconds float64 `json:"seconds"`
	Left    float64 `json:"left"`
	Top     float64 `json:"top"`
	Right   float64 `json:"right"`
	Bottom  float64 `json:"bottom"`
}

// PatchSight is what passes of a patch.
type PatchSight struct {
	ID              string  `json:"id"`
	PassesPercent   float64 `json:"passesPercent" doc:"Of what moves in it, that becomes triggers while detection is on"`
	UnmaskedPercent float64 `json:"unmaskedPercent" doc:"The same with no area ignored"`
	HappensPerDay   float64 `json:"happensPerDay"`
	TriggersPerDay  float64 `json:"triggersPerDay"`
}

// ObjectReach is how far an object is large enough.
type ObjectReach struct {
	ID     string  `json:"id"`
	Y      float64 `json:"y" doc:"Line in the picture beyond which it is too small, share from the top"`
	Metres float64 `json:"metres"`
}

// SightOf works out what becomes of what is drawn in the picture of channel i.
func (s *Result) SightOf(i int) Sight {
	p, c := s.plan, &s.plan.Channels[i]
	out := Sight{Aspect: c.Aspect(), Guessed: resolve.Guessed(c), Areas: []AreaSight{}, Walks: []WalkSight{}, Patches: []PatchSight{},
		Reach: []ObjectReach{}}
	w := resolve.Watched(c)
	at := 0
	list := c.Detection.List()
	for k := range list {
		a := AreaSight{ID: list[k].ID, Percent: 100 * picture.NewRegion(list[k].Shape(), nil).Area()}
		if !list[k].Ignore {
			a.LeftPercent, a.SmallestPercent = 100*w.All[at].Area(), 100*w.All[at].Smallest
			at++
		}
		out.Areas = append(out.Areas, a)
	}
	if !c.Detection.Drawn() {
		w.All, w.IDs = []picture.Watch{{Region: picture.NewRegion(wholePicture, nil), Seconds: c.Detection.MinSeconds}}, []string{""}
	}
	ground, known, _ := c.Ground()
	if !known {
		g := assumedGround(c)
		out.Assumed = &GroundSight{g.Horizon, g.Camera, g.Tilt(), g.Focal, g.Aspect, []DistanceLine{}}
	}
	if known {
		out.Ground = &GroundSight{ground.Horizon, ground.Camera, ground.Tilt(), ground.Focal, ground.Aspect, distances(ground)}
		for k := range walksIn(c) {
			out.Walks = append(out.Walks, walkSight(p, c, ground, w, k))
		}
		for _, o := range reached(p) {
			if r, ok := reach(ground, o, w.All); ok {
				out.Reach = append(out.Reach, r)
			}
		}
	}
	s.patches(&out, i)
	return out
}

// distances are where round distances lie in a picture.
// assumedGround is the ground as a camera mostly sees it, by the little that is said of this one.
func assumedGround(c *plan.Channel) picture.Ground {
	degrees, metres := 50.0, 3.0
	if s := c.Scene; s != nil {
		degrees, metres = cmp.Or(s.VerticalDegrees, degrees), cmp.Or(s.CameraMetres, metres)
	}
	focal := picture.FocalOf(degrees)
	return picture.Ground{Horizon: 0.5 - focal*math.Tan(15*math.Pi/180), Camera: metres, Focal: focal, Aspect: c.Aspect()}
}

func distances(g picture.Ground) []DistanceLine {
	out := []DistanceLine{}
	for _, metres := range []float64{2, 3, 5, 7, 10, 15, 20, 30, 50, 100} {
		y := g.At(metres, 0).Y
		if n := len(out); y <= 1 && y >= 0 && (n == 0 || out[n-1].Y-y > 0.03) {
			out = append(out, DistanceLine{metres, y})
		}
	}
	return out
}

var wholePicture = picture.Shape{{{X: 0, Y: 0}, {X: 1, Y: 0}, {X: 1, Y: 1}, {X: 0, Y: 1}}}

func walksIn(c *plan.Channel) []plan.Walk {
	if c.Scene == nil {
		return nil
	}
	return c.Scene.Walks
}

// reached are the objects whose reach is said: ready-made ones and the plan's own, each once.
func reached(p *plan.Plan) (out []plan.Object) {
	for _, o := range plan.ReadyObjects() {
		out = append(out, *p.Object(o.ID))
	}
	for _, o := range p.Objects {
		if ready := (&plan.Plan{}).Object(o.ID); ready == nil {
			out = append(out, o)
		}
	}
	return out
}

// reach is that of the area that notices the smallest things; there is none where that notices any.
func reach(g picture.Ground, o plan.Object, areas []picture.Watch) (ObjectReach, bool) {
	least := 0.0
	for k, a := range areas {
		if k == 0 || a.Smallest < least {
			least = a.Smallest
		}
	}
	if least <= 0 {
		return ObjectReach{}, false
	}
	y := g.Reach(picture.Object{Width: o.WidthM, Height: o.HeightM}, least)
	return ObjectReach{o.ID, y, g.Distance(y)}, true
}

func walkSight(p *plan.Plan, c *plan.Channel, g picture.Ground, w resolve.Watching, k int) WalkSight {
	walk := p.WalkOf(&c.Scene.Walks[k])
	seen := picture.Play(g, w.All, walk)
	out := WalkSight{ID: c.Scene.Walks[k].ID, Seconds: seen.Seconds, Metres: seen.Seconds * walk.Object.Speed}
	anything := make([]picture.Watch, len(w.All))
	for a := range w.All {
		anything[a].Region = w.All[a].Region
	}
	steps := min(60, 1+int(seen.Seconds/picture.Step))
	out.Track = []BoxAt{}
	for at := range steps {
		t := seen.Seconds * float64(at) / float64(max(1, steps-1))
		b := g.Box(walk.Object, g.FeetAt(walk, t))
		out.Track = append(out.Track, BoxAt{t, b.Left, b.Top, b.Right, b.Bottom})
	}
	touched := picture.Play(g, anything, walk)
	out.EntersSeconds = seconds(touched.Noticed)
	for a := range anything {
		anything[a].Smallest = w.All[a].Smallest
	}
	large := picture.Play(g, anything, walk)
	out.Large = large.Noticed >= 0
	switch {
	case out.Large:
		out.TooSmallSeconds = large.Noticed - touched.Noticed
	case touched.Noticed >= 0:
		out.TooSmallSeconds = touched.Lost - touched.Noticed
	}
	out.NoticedSeconds, out.LostSeconds = seconds(seen.Noticed), seconds(seen.Lost)
	away := func(at *float64) *float64 {
		if at == nil {
			return nil
		}
		metres := g.Distance(g.FeetAt(walk, *at).Y)
		return &metres
	}
	out.AwayMetres, out.EntersAwayMetres, out.LostAwayMetres = away(out.NoticedSeconds), away(out.EntersSeconds), away(out.LostSeconds)
	if seen.Noticed >= 0 {
		out.Area = w.IDs[seen.Area]
		out.MissingSeconds = max(0, seen.Noticed-c.PreSeconds)
	}
	return out
}

func seconds(s float64) *float64 {
	if s < 0 {
		return nil
	}
	return &s
}

// patches fills in what passes of the patches of channel i.
func (s *Result) patches(out *Sight, i int) {
	c := &s.plan.Channels[i]
	if c.Scene == nil {
		return
	}
	open := *c
	if c.Detection.Drawn() {
		var list []plan.Area
		for _, a := range c.Detection.Areas.List {
			if !a.Ignore {
				list = append(list, a)
			}
		}
		open.Detection.Areas = &plan.Areas{List: list}
	}
	unmasked := resolve.Notices(s.plan, &open, s.process)
	for k, patch := range c.Scene.Patches {
		process := s.process(patch.Activity)
		of := PatchSight{ID: patch.ID, HappensPerDay: process.PerDay()}
		for _, d := range s.site.Noticing[i].Patches[k] {
			of.PassesPercent = max(of.PassesPercent, 100*d.Catch)
			of.TriggersPerDay += d.Triggers(process).PerDay()
		}
		for _, d := range unmasked.Patches[k] {
			of.UnmaskedPercent = max(of.UnmaskedPercent, 100*d.Catch)
		}
		out.Patches = append(out.Patches, of)
	}
}

// Unkept is how many seconds of a walk of channel i of a plan go by before what is kept of it begins, every area watching;
// infinite where it is never noticed.
func Unkept(p *plan.Plan, i, walk int) float64 {
	c := &p.Channels[i]
	ground, known, _ := c.Ground()
	if !known {
		return math.Inf(1)
	}
	seen := picture.Play(ground, resolve.Watched(c).All, p.WalkOf(&c.Scene.Walks[walk]))
	if seen.Noticed < 0 {
		return math.Inf(1)
	}
	return max(0, seen.Noticed-c.PreSeconds)
}

// Standing is an object that stands somewhere in a picture.
type Standing struct {
	Box              BoxAt   `json:"box"`
	OfPicturePercent float64 `json:"ofPicturePercent" doc:"What the area sees of it, of the picture"`
	OfAreaPercent    float64 `json:"ofAreaPercent" doc:"The same of what is left of the area; 0 where nothing is"`
}

// StandIn tells how large an object is in an area of channel i that stands at a place of the picture. It fails where the
// ground is not known, and where nothing can stand.
func (s *Result) StandIn(i int, area, object string, feet plan.Point) (*Standing, error) {
	c := &s.plan.Channels[i]
	ground, known, _ := c.Ground()
	if !known {
		return nil, document.Wrong("stand", "how the ground lies is not known; set two people down first")
	}
	o := s.plan.Object(object)
	if o == nil {
		return nil, document.Wrong("stand.object", "no object %q", object)
	}
	if feet[1] <= ground.Horizon {
		return nil, document.Wrong("stand.feet", "is above the horizon, which is at %.3g; nobody can stand there", ground.Horizon)
	}
	w := resolve.Watched(c)
	at := slices.Index(w.IDs, area)
	if at < 0 {
		return nil, document.Wrong("stand.area", "no watched area %q", area)
	}
	b := ground.Box(picture.Object{Width: o.WidthM, Height: o.HeightM}, picture.Point{X: feet[0], Y: feet[1]})
	region := w.All[at].Region
	out := &Standing{Box: BoxAt{Left: b.Left, Top: b.Top, Right: b.Right, Bottom: b.Bottom}, OfPicturePercent: 100 * region.Within(b)}
	if region.Area() > 0 {
		out.OfAreaPercent = out.OfPicturePercent / region.Area()
	}
	return out, nil
}
