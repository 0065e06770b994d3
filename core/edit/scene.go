package edit

import (
	"fmt"
	"math"
	"slices"

	"wakefield.example/core/document"
	"wakefield.example/core/picture"
	"wakefield.example/core/plan"
)

// SetGround sets what tells how the ground lies in a channel's picture, and which still it has. What is absent stays. A
// height that is typed where two people tell another takes the place of the one farther away; a tilt takes that of both,
// with one person who stands where it says.
type SetGround struct {
	Channel         string              `json:"channel" minLength:"1" maxLength:"100"`
	Picture         *string             `json:"picture,omitempty" maxLength:"100" doc:"Id of a stored snapshot; empty for none"`
	VerticalDegrees *float64            `json:"verticalDegrees,omitempty" minimum:"1" maximum:"150"`
	CameraMetres    *float64            `json:"cameraMetres,omitempty" minimum:"0" maximum:"200" doc:"0 for not known"`
	TiltDegrees     *float64            `json:"tiltDegrees,omitempty" minimum:"-45" maximum:"80" doc:"How far down the camera looks; its height and angle of view must be known"`
	People          *[]plan.ScenePerson `json:"people,omitempty" doc:"All that are set down, at most two"`
}

func (e *SetGround) apply(p *plan.Plan) (*plan.Plan, error) {
	c := p.Channel(e.Channel)
	return inScene(p, e.Channel, func(s *plan.Scene) error {
		s.Picture = plan.Or(e.Picture, s.Picture)
		s.VerticalDegrees = plan.Or(e.VerticalDegrees, s.VerticalDegrees)
		s.CameraMetres = plan.Or(e.CameraMetres, s.CameraMetres)
		s.People = plan.Or(e.People, s.People)
		if e.People != nil {
			return nil
		}
		if e.CameraMetres != nil && *e.CameraMetres > 0 && len(s.People) == 2 {
			nearer := s.People[0]
			if s.People[1].FeetY > nearer.FeetY {
				nearer = s.People[1]
			}
			s.People = []plan.ScenePerson{nearer}
		}
		if e.TiltDegrees == nil {
			return nil
		}
		if s.CameraMetres == 0 {
			if ground, known, _ := c.Ground(); known {
				s.CameraMetres = math.Round(100*ground.Camera) / 100
			}
		}
		person, err := personAt(*e.TiltDegrees, s.VerticalDegrees, s.CameraMetres)
		if err != nil {
			return err
		}
		s.People = []plan.ScenePerson{person}
		return nil
	})
}

// personAt is a person as a camera sees one that looks down by a tilt, so near that he stands low in the picture.
func personAt(tilt, vertical, height float64) (plan.ScenePerson, error) {
	if vertical == 0 || height == 0 {
		return plan.ScenePerson{}, document.Wrong("tiltDegrees",
			"tells nothing before the vertical angle of view and the height of the camera are known")
	}
	horizon := 0.5 - picture.FocalOf(vertical)*math.Tan(tilt*math.Pi/180)
	for feet := 0.95; feet > horizon+0.02; feet -= 0.01 {
		if head := feet - picture.PersonMetres*(feet-horizon)/height; head >= 0 {
			return plan.ScenePerson{X: 0.5, FeetY: feet, HeadY: head}, nil
		}
	}
	return plan.ScenePerson{}, document.Wrong("tiltDegrees", "%v° down from %v m nobody is in the picture from head to feet", tilt, height)
}

func (e *SetGround) sentence(p *plan.Plan) string {
	what := "how the ground lies"
	if e.Picture != nil && e.VerticalDegrees == nil && e.CameraMetres == nil && e.People == nil {
		what = "another picture"
	}
	return names(p, []string{e.Channel}) + ": " + what
}

// SetWalk adds a walk to a channel's picture, or replaces the one with its id.
type SetWalk struct {
	Channel string    `json:"channel" minLength:"1" maxLength:"100"`
	Walk    plan.Walk `json:"walk"`
}

func (e *SetWalk) apply(p *plan.Plan) (*plan.Plan, error) {
	return inScene(p, e.Channel, func(s *plan.Scene) error {
		s.Walks = put(s.Walks, e.Walk, func(w *plan.Walk) bool { return w.ID == e.Walk.ID })
		return nil
	})
}

func (e *SetWalk) sentence(p *plan.Plan) string {
	return plan.Say("%s: the walk %s, %v %% of the events", names(p, []string{e.Channel}), e.Walk.Name, e.Walk.SharePercent)
}

// RemoveWalk removes a walk from a channel's picture.
type RemoveWalk struct {
	Channel string `json:"channel" minLength:"1" maxLength:"100"`
	Walk    string `json:"walk" minLength:"1" maxLength:"100"`
}

func (e *RemoveWalk) apply(p *plan.Plan) (*plan.Plan, error) {
	return inScene(p, e.Channel, func(s *plan.Scene) (err error) {
		s.Walks, err = without(s.Walks, "walk", e.Walk, func(w *plan.Walk) string { return w.ID })
		return err
	})
}

func (e *RemoveWalk) sentence(p *plan.Plan) string {
	return names(p, []string{e.Channel}) + ": a walk removed"
}

// SetPatch adds a patch to a channel's picture, or replaces the one with its id.
type SetPatch struct {
	Channel string     `json:"channel" minLength:"1" maxLength:"100"`
	Patch   plan.Patch `json:"patch"`
}

func (e *SetPatch) apply(p *plan.Plan) (*plan.Plan, error) {
	return inScene(p, e.Channel, func(s *plan.Scene) error {
		s.Patches = put(s.Patches, e.Patch, func(x *plan.Patch) bool { return x.ID == e.Patch.ID })
		return nil
	})
}

func (e *SetPatch) sentence(p *plan.Plan) string {
	return fmt.Sprintf("%s: the patch %s", names(p, []string{e.Channel}), e.Patch.Name)
}

// RemovePatch removes a patch from a channel's picture.
type RemovePatch struct {
	Channel string `json:"channel" minLength:"1" maxLength:"100"`
	Patch   string `json:"patch" minLength:"1" maxLength:"100"`
}

func (e *RemovePatch) apply(p *plan.Plan) (*plan.Plan, error) {
	return inScene(p, e.Channel, func(s *plan.Scene) (err error) {
		s.Patches, err = without(s.Patches, "patch", e.Patch, func(x *plan.Patch) string { return x.ID })
		return err
	})
}

func (e *RemovePatch) sentence(p *plan.Plan) string {
	return names(p, []string{e.Channel}) + ": a patch removed"
}

// SetArea adds an area to a channel's detection, or replaces the one with its id. Where areas were only counted, they are
// drawn from then on.
type SetArea struct {
	Channel string    `json:"channel" minLength:"1" maxLength:"100"`
	Area    plan.Area `json:"area"`
}

func (e *SetArea) apply(p *plan.Plan) (*plan.Plan, error) {
	return eachChannel(p, []string{e.Channel}, func(c *plan.Channel) error {
		list := put(c.Detection.List(), e.Area, func(a *plan.Area) bool { return a.ID == e.Area.ID })
		c.Detection.Areas = &plan.Areas{List: list}
		return nil
	})
}

func (e *SetArea) sentence(p *plan.Plan) string {
	does := "watches"
	if e.Area.Ignore {
		does = "ignores"
	}
	return fmt.Sprintf("%s: %s %s", names(p, []string{e.Channel}), does, e.Area.Name)
}

// RemoveArea removes an area from a channel's detection, with what motion in it causes. After the last one, nobody says
// where it looks.
type RemoveArea struct {
	Channel string `json:"channel" minLength:"1" maxLength:"100"`
	Area    string `json:"area" minLength:"1" maxLength:"100"`
}

func (e *RemoveArea) apply(p *plan.Plan) (*plan.Plan, error) {
	next, err := eachChannel(p, []string{e.Channel}, func(c *plan.Channel) error {
		list, err := without(c.Detection.List(), "area", e.Area, func(a *plan.Area) string { return a.ID })
		if err != nil {
			return err
		}
		c.Detection.Areas = nil
		if list != nil {
			c.Detection.Areas = &plan.Areas{List: list}
		}
		return nil
	})
	if err != nil || e.ties(p) == 0 {
		return next, err
	}
	next.Effects = slices.DeleteFunc(slices.Clone(p.Effects), e.causes)
	return next, nil
}

// causes tells whether motion in the area is the cause of an effect.
func (e *RemoveArea) causes(f plan.Effect) bool {
	return f.When.Motion == e.Channel && f.When.Area == e.Area
}

func (e *RemoveArea) ties(p *plan.Plan) (n int) {
	for _, f := range p.Effects {
		if e.causes(f) {
			n += f.Ties()
		}
	}
	return n
}

func (e *RemoveArea) sentence(p *plan.Plan) string {
	s := names(p, []string{e.Channel}) + ": an area removed"
	if n := e.ties(p); n > 0 {
		s += ", with " + plan.Count(n, "tie")
	}
	return s
}

// CopyAreas gives channels the areas of another, in place of their own. Every scene differs: whoever copies looks again.
type CopyAreas struct {
	From string   `json:"from" minLength:"1" maxLength:"100"`
	To   []string `json:"to" minItems:"1" maxItems:"5000"`
}

func (e *CopyAreas) apply(p *plan.Plan) (*plan.Plan, error) {
	from := p.Channel(e.From)
	if from == nil {
		return nil, document.Wrong("from", "no channel %q", e.From)
	}
	if len(from.Detection.List()) == 0 {
		return nil, document.Wrong("from", "%s has no areas drawn", from.Name)
	}
	return eachChannel(p, e.To, func(c *plan.Channel) error {
		c.Detection.Areas = &plan.Areas{List: slices.Clone(from.Detection.Areas.List)}
		return nil
	})
}

func (e *CopyAreas) sentence(p *plan.Plan) string {
	return names(p, e.To) + ": the areas of " + names(p, []string{e.From})
}

// SetObject adds a kind of thing that walks, or replaces the one with its id.
type SetObject struct {
	Object plan.Object `json:"object"`
}

func (e *SetObject) apply(p *plan.Plan) (*plan.Plan, error) {
	next := *p
	next.Objects = put(p.Objects, e.Object, func(o *plan.Object) bool { return o.ID == e.Object.ID })
	return &next, nil
}

func (e *SetObject) sentence(*plan.Plan) string {
	return plan.Say("%s: %v × %v m, %v m/s", e.Object.Name, e.Object.WidthM, e.Object.HeightM, e.Object.MetresPerSecond)
}

// RemoveObject removes a kind of thing that walks; instead, one of the plan's or a ready-made one, takes its place.
type RemoveObject struct {
	Object  string `json:"object" minLength:"1" maxLength:"100"`
	Instead string `json:"instead,omitempty" maxLength:"100"`
}

func (e *RemoveObject) apply(p *plan.Plan) (*plan.Plan, error) {
	if !slices.ContainsFunc(p.Objects, func(o plan.Object) bool { return o.ID == e.Object }) {
		return nil, document.Wrong("object", "no object %q of the plan's own", e.Object)
	}
	if e.Instead == e.Object || e.Instead != "" && p.Object(e.Instead) == nil {
		return nil, document.Wrong("instead", "no other object %q", e.Instead)
	}
	return removal{kind: "object", gone: is(e.Object), instead: e.Instead, path: "instead",
		advice: "name what walks there in its place"}.from(p)
}

func (e *RemoveObject) sentence(p *plan.Plan) string {
	name := e.Object
	if o := p.Object(e.Object); o != nil {
		name = o.Name
	}
	return "Object removed: " + name
}

// inScene changes a copy of what a channel's camera looks at.
func inScene(p *plan.Plan, channel string, change func(*plan.Scene) error) (*plan.Plan, error) {
	return eachChannel(p, []string{channel}, func(c *plan.Channel) error {
		s := new(plan.Scene)
		if c.Scene != nil {
			*s = *c.Scene
		}
		c.Scene = s
		return change(s)
	})
}

// without is a list less the entry with a key; nil where nothing is left.
func without[T any](list []T, kind, key string, of func(*T) string) ([]T, error) {
	at := slices.IndexFunc(list, func(e T) bool { return of(&e) == key })
	if at < 0 {
		return nil, document.Wrong(kind, "no %s %q", kind, key)
	}
	if len(list) == 1 {
		return nil, nil
	}
	return slices.Delete(slices.Clone(list), at, at+1), nil
}
