package walktest

import (
	"context"
	"fmt"
	"hash/fnv"
	"math"
	"slices"

	"wakefield.example/core/parallel"
	"wakefield.example/core/picture"
	"wakefield.example/core/plan"
	"wakefield.example/core/resolve"
)

// Of are the cameras of a plan, as its recorders take it, with their walks, and what each should show. It fails only when the
// context ends.
func Of(ctx context.Context, p *plan.Plan) ([]Camera, error) {
	others := othersOf(p)
	out := make([]Camera, len(p.Channels))
	parallel.Do(len(p.Channels), func(i int) {
		if ctx.Err() == nil && !p.Channels[i].NoCamera {
			out[i] = cameraOf(p, i, others)
		}
	})
	if ctx.Err() != nil {
		return nil, ctx.Err()
	}
	return slices.DeleteFunc(out, func(c Camera) bool { return c.Channel == "" }), nil
}

// CameraOf is one camera of a plan; nil where the channel has none.
func CameraOf(p *plan.Plan, channel string) *Camera {
	i := slices.IndexFunc(p.Channels, func(c plan.Channel) bool { return c.ID == channel })
	if i < 0 || p.Channels[i].NoCamera {
		return nil
	}
	c := cameraOf(p, i, othersOf(p))
	return &c
}

// othersOf are the channels with areas.
func othersOf(p *plan.Plan) (out []Other) {
	for i := range p.Channels {
		c := &p.Channels[i]
		if c.NoCamera || !c.Detection.On || !c.Detection.Drawn() {
			continue
		}
		if areas := resolve.Watched(c).All; len(areas) > 0 {
			out = append(out, Other{c.ID, Called(c), areas, c})
		}
	}
	return out
}

// Called is a channel as a fitter calls it.
func Called(c *plan.Channel) string { return fmt.Sprintf("%d %s", c.Number, c.Name) }

// builder makes one camera.
type builder struct {
	maker
	ground     picture.Ground
	ids        []string // of the watched areas
	situations []situation
	out        *Camera
}

func cameraOf(p *plan.Plan, i int, others []Other) Camera {
	b, out := newBuilder(p, i)
	if b == nil {
		return *out
	}
	b.make(others)
	b.walks()
	return *out
}

// newBuilder begins a camera; it is nil where detection is off, and all is said.
func newBuilder(p *plan.Plan, i int) (*builder, *Camera) {
	c := &p.Channels[i]
	out := &Camera{Channel: c.ID, Number: c.Number, Name: c.Name, Group: c.Group, Recorder: c.Recorder, Aspect: c.Aspect(),
		Misses: 1 - plan.Or(c.Detection.Reliability, resolve.Reliability), PreSeconds: c.PreSeconds, PostSeconds: c.PostSeconds,
		Cases: []Case{}, Week: []Since{}, Walks: []Walk{}, Areas: []Area{}}
	if c.Scene != nil {
		out.Picture = c.Scene.Picture
	}
	if !c.Detection.On {
		out.None = "Detection is off: it is recorded by hours and alarms only."
		return nil, out
	}
	w := resolve.Watched(c)
	areas, ids := w.All, w.IDs
	if !c.Detection.Drawn() {
		areas, ids = []picture.Watch{{Region: everywhere.Region, Seconds: c.Detection.MinSeconds}}, []string{""}
	}
	if len(areas) == 0 {
		out.None = "None of its areas watches: motion is never noticed."
		return nil, out
	}
	ground, known, _ := c.Ground()
	b := &builder{maker: maker{plan: p, channel: c, areas: areas, limits: limitsOf(areas), known: known}, ground: ground, ids: ids, out: out}
	b.situations, out.Week = situationsOf(p, c, &w)
	for _, a := range c.Detection.List() {
		for _, polygon := range a.Shape() {
			area := Area{Ignore: a.Ignore}
			for _, at := range polygon {
				area.Points = append(area.Points, plan.Point{round(at.X, 0.001), round(at.Y, 0.001)})
			}
			out.Areas = append(out.Areas, area)
		}
	}
	return b, out
}

// walks adds what is walked.
func (b *builder) walks() {
	b.out.Cases = b.cases
	if b.known {
		b.drawn()
	} else {
		b.free()
	}
}

// drawn adds the walks that are drawn, and two across the picture.
func (b *builder) drawn() {
	var walks []plan.Walk
	if b.channel.Scene != nil {
		walks = b.channel.Scene.Walks
	}
	walks = walks[:min(len(walks), mostWalks)]
	for k := range walks {
		w := b.plan.WalkOf(&walks[k])
		o := b.plan.Object(walks[k].Object)
		b.walk(Walk{ID: walks[k].ID, Name: walks[k].Name, Do: b.says(o.Name, w)}, w)
	}
	person := b.plan.Object("person")
	object := picture.Object{Width: person.WidthM, Height: person.HeightM, Speed: person.MetresPerSecond}
	for k, y := range b.crossings(object) {
		at := []struct{ id, name string }{{"~near", "Across, near"}, {"~middle", "Across, in the middle"}, {"~far", "Across, far"}}[k]
		w := picture.Walk{Object: object, Feet: []picture.Point{{X: 0.02, Y: y}, {X: 0.98, Y: y}}, Share: 1}
		if len(walks) > 0 && at.id == "~middle" || b.ground.Seconds(w) > mostCrossing {
			continue
		}
		b.walk(Walk{ID: at.id, Name: at.name, Optional: len(walks) > 0,
			Do: plan.Say("A person walks across the picture from left to right, about %.2g m away, %.2g m/s.",
				b.ground.Distance(y), object.Speed)}, w)
	}
}

// mostWalks of a camera are walked, the first ones.
const mostWalks = 24

// mostCrossing is how long a walk across the picture may take, in seconds.
const mostCrossing = 90

// crossings are heights of the picture at which a person walks across: near, middle, far. Far is as far as a person is large
// enough for the most attentive area, at most 30 m.
func (b *builder) crossings(o picture.Object) [3]float64 {
	near := 0.95
	least := b.limits[0].smallest
	for _, l := range b.limits {
		least = min(least, l.smallest)
	}
	far := 30.0
	if least > 0 {
		far = min(far, 0.9*b.ground.Distance(b.ground.Reach(o, least)))
	}
	nearest := b.ground.Distance(near)
	far = max(far, 1.5*nearest)
	middle := math.Sqrt(nearest * far)
	return [3]float64{near, b.ground.At(middle, 0).Y, b.ground.At(far, 0).Y}
}

// says is who walks where.
func (b *builder) says(object string, w picture.Walk) string {
	from, to := b.ground.Distance(w.Feet[0].Y), b.ground.Distance(w.Feet[len(w.Feet)-1].Y)
	return plan.Say("%s from %.2g m to %.2g m away, %.2g m/s.", object, from, to, w.Object.Speed)
}

// free adds walks near, in the middle and far, of which nothing is known but seconds.
func (b *builder) free() {
	for _, at := range []struct{ id, name, where string }{{"~near", "Near", "close to the camera"},
		{"~middle", "In the middle", "in the middle of the picture"},
		{"~far", "Far", "as far away as it should notice a person"}} {
		w := Walk{ID: at.id, Name: at.name, Free: true, Do: "A person walks across the picture, " + at.where + ".", Track: []TrackPoint{}}
		for k := range b.situations {
			s := &b.situations[k]
			shows := make([]Shown, len(b.cases))
			for c := range b.cases {
				shows[c] = b.freely(s, &b.sees[c])
			}
			w.Shows = append(w.Shows, shows)
			w.Expected = append(w.Expected, b.expects(&w, s, shows[0], ""))
		}
		b.out.Walks = append(b.out.Walks, w)
	}
}

// freely is what a walk shows of which only seconds are known: its sign comes when the shortest motion is over, its footage is
// told from the sign and from when the walker is out of view.
func (b *builder) freely(s *situation, how *sees) (out Shown) {
	wait := math.Inf(1)
	for a, l := range how.limits {
		if s.open>>a&1 == 1 {
			wait = min(wait, l.seconds)
		}
	}
	on := s.open != 0 && !how.noSign
	if how.hours {
		on, wait = s.open == 0, how.limits[0].seconds
	}
	shot := on && s.listens && s.tied && !how.noShot
	if on {
		out[Sign] = seconds(wait)
	}
	if shot {
		out[First], out[Last] = seconds(how.clock-how.pre), seconds(how.clock+how.post)
	}
	return out
}

// walk adds a walk over known ground.
func (b *builder) walk(walk Walk, w picture.Walk) {
	walk.Seconds = round(b.ground.Seconds(w), 0.01)
	if !(walk.Seconds <= picture.MostSeconds) {
		return
	}
	walk.Track = b.track(w, walk.Seconds)
	sights := b.sights(w)
	for k := range b.situations {
		s := &b.situations[k]
		shows := make([]Shown, len(b.cases))
		area := ""
		for c := range b.cases {
			var at int
			shows[c], at = b.shown(s, &b.sees[c], sights)
			if c == 0 && at >= 0 {
				area = b.ids[at]
			}
		}
		walk.Shows = append(walk.Shows, shows)
		walk.Expected = append(walk.Expected, b.expects(&walk, s, shows[0], area))
	}
	if n, _, _, ok := sights[0].noticed(math.MaxUint64, b.limits); ok {
		at := b.at(w, n)
		walk.Noticed = &at
	}
	b.out.Walks = append(b.out.Walks, walk)
}

// sights are how each variant that any case needs sees a walk; the plan's own finely.
func (b *builder) sights(w picture.Walk) []sight {
	fine, rough := boxes(b.ground, w, picture.Step), boxes(b.ground, w, coarse)
	out := make([]sight, len(b.variants))
	see := func(k int) {
		if out[k].covered != nil {
			return
		}
		v, list, step := b.variants[k], rough, coarse
		if k == 0 {
			list, step = fine, picture.Step
		}
		if v.change != nil {
			list = v.change(list)
		}
		out[k] = seen(v.areas, list, step)
	}
	see(0)
	for c := range b.sees {
		see(b.sees[c].variant)
	}
	return out
}

// shown is what a case shows of a walk, and by which area it is noticed; −1 for none.
func (b *builder) shown(s *situation, how *sees, sights []sight) (out Shown, area int) {
	open := s.open
	if how.hours {
		open = 0
		if s.open == 0 {
			open = math.MaxUint64
		}
	}
	if how.all && open != 0 {
		open = math.MaxUint64
	}
	noticed, lost, area, ok := sights[how.variant].noticed(open, how.limits)
	if !ok {
		return out, -1
	}
	if !how.noSign {
		out[Sign] = seconds(noticed)
	}
	tied := s.tied || area < len(b.ids) && slices.Contains(s.tiedBy, b.ids[area])
	if s.listens && tied && !how.noShot && !how.noSign {
		out[First], out[Last] = seconds(noticed-how.pre+how.clock), seconds(lost+how.post+how.clock)
	}
	return out, area
}

func (b *builder) track(w picture.Walk, lasts float64) []TrackPoint {
	const most = 40
	n := max(2, min(most, 1+int(lasts)))
	out := make([]TrackPoint, n)
	for k := range out {
		out[k] = b.at(w, lasts*float64(k)/float64(n-1))
	}
	return out
}

func (b *builder) at(w picture.Walk, t float64) TrackPoint {
	feet := b.ground.FeetAt(w, t)
	return TrackPoint{round(t, 0.01), round(feet.X, 0.001), round(feet.Y, 0.001), round(b.ground.Distance(feet.Y), 0.1),
		round(100*b.ground.Box(w.Object, feet).Area(), 0.01)}
}

// expects is what a walk should show in a situation.
func (b *builder) expects(w *Walk, s *situation, shown Shown, area string) Expectation {
	e := Expectation{Words: s.words(shown[Sign] != nil), Shown: shown, Always: s.always}
	if shown[Sign] != nil {
		if len(w.Track) > 0 {
			metres := round(pointAt(w.Track, *shown[Sign]).Metres, 0.1)
			e.AwayMetres = &metres
		}
		for _, k := range s.effects {
			of := &b.plan.Effects[k]
			if of.When.Area != "" && of.When.Area != area {
				continue
			}
			for _, id := range of.Record {
				if c := b.plan.Channel(id); c != nil && id != b.channel.ID && !slices.Contains(e.Records, Called(c)) {
					e.Records = append(e.Records, Called(c))
				}
			}
			for _, words := range does(b.plan, of) {
				if !slices.Contains(e.Does, words) {
					e.Does = append(e.Does, words)
				}
			}
		}
	}
	h := fnv.New64a()
	fmt.Fprintf(h, "%v %v %v %v %v %v", w.Do, w.Track, e.Words, e.Always, e.Records, e.Does)
	for _, t := range shown {
		fmt.Fprintf(h, " %.1f", plan.Or(t, -1e6))
	}
	e.Key = fmt.Sprintf("%016x", h.Sum64())
	return e
}

func seconds(t float64) *float64 {
	t = round(t, 0.01)
	return &t
}
