package plan

import (
	"encoding/base64"
	"encoding/json"
	"fmt"
	"math"
	"reflect"
	"slices"

	"wakefield.example/core/document"
	"wakefield.example/core/picture"
	"wakefield.example/core/week"
)

// Object is a kind of thing that walks through pictures.
type Object struct {
	ID              string  `json:"id" minLength:"1" maxLength:"100"`
	Name            string  `json:"name" minLength:"1" maxLength:"100"`
	WidthM          float64 `json:"widthM" minimum:"0.01" maximum:"100"`
	HeightM         float64 `json:"heightM" minimum:"0.01" maximum:"100"`
	MetresPerSecond float64 `json:"metresPerSecond" minimum:"0.01" maximum:"100"`
}

// ReadyObjects are the things that every plan knows. A plan may have others, or the same otherwise.
func ReadyObjects() []Object {
	return []Object{
		{"person", "Person", 0.5, 1.7, 1.4},
		{"child", "Child", 0.35, 1.1, 1.2},
		{"vehicle", "Vehicle", 1.8, 1.5, 4},
		{"smallAnimal", "Small animal", 0.5, 0.3, 1.5},
	}
}

// objectChoices are the ready-made objects by name.
func objectChoices() (out Choices) {
	for _, o := range ReadyObjects() {
		out = append(out, Choice{o.ID, o.Name})
	}
	return out
}

// Object finds what moves by its id: one of the plan's own, or a ready-made one; nil where there is none.
func (p *Plan) Object(id string) *Object {
	same := func(o *Object) bool { return o.ID == id }
	if o := find(p.Objects, same); o != nil {
		return o
	}
	return find(ReadyObjects(), same)
}

// Scene is what a camera looks at.
type Scene struct {
	Picture         string        `json:"picture,omitempty" key:"yes" maxLength:"100" doc:"Id of a stored snapshot"`
	VerticalDegrees float64       `json:"verticalDegrees,omitempty" minimum:"1" maximum:"150" doc:"Vertical angle of view"`
	People          []ScenePerson `json:"people,omitempty" holds:"-" maxItems:"2" doc:"People of 1.7 m set down on the picture; two tell how the ground lies, or one and the height of the camera"`
	CameraMetres    float64       `json:"cameraMetres,omitempty" minimum:"0.1" maximum:"200" doc:"Height of the camera over the ground; used where one person is set down"`
	Walks           []Walk        `json:"walks,omitempty" holds:"-" maxItems:"100" doc:"How wanted things come"`
	Patches         []Patch       `json:"patches,omitempty" holds:"-" maxItems:"100" doc:"Where something moves that nobody wants"`
}

// Point is a place in a picture: shares of its width and height from the top left, 0 to 1.
type Point [2]float64

// ScenePerson is a person of 1.7 m set down on a picture, by shares of its width and height.
type ScenePerson struct {
	X     float64 `json:"x" minimum:"0" maximum:"1"`
	FeetY float64 `json:"feetY" minimum:"0" maximum:"1"`
	HeadY float64 `json:"headY" minimum:"0" maximum:"1"`
}

// Walk is a way that wanted things take over a picture.
type Walk struct {
	ID              string  `json:"id" minLength:"1" maxLength:"100"`
	Name            string  `json:"name" minLength:"1" maxLength:"100"`
	Object          string  `json:"object" ref:"object" minLength:"1" maxLength:"100"`
	MetresPerSecond float64 `json:"metresPerSecond,omitempty" minimum:"0.01" maximum:"100" doc:"Absent as its object moves"`
	SharePercent    float64 `json:"sharePercent" exclusiveMinimum:"0" maximum:"100" doc:"Of the activity's events"`
	Points          []Point `json:"points" minItems:"2" maxItems:"100" doc:"Where the feet are, on the ground"`
}

// Patch is a part of a picture in which something moves that nobody wants.
type Patch struct {
	ID          string  `json:"id" minLength:"1" maxLength:"100"`
	Name        string  `json:"name" minLength:"1" maxLength:"100"`
	Activity    string  `json:"activity" ref:"activity" minLength:"1" maxLength:"100"`
	BlobPercent float64 `json:"blobPercent" minimum:"0.001" maximum:"100" doc:"How much of the picture what moves covers"`
	Points      []Point `json:"points" minItems:"3" maxItems:"200"`
}

// Area is a part of a picture that detection watches or ignores.
type Area struct {
	ID                 string     `json:"id" minLength:"1" maxLength:"100"`
	Name               string     `json:"name" minLength:"1" maxLength:"100"`
	Ignore             bool       `json:"ignore,omitempty"`
	Points             []Point    `json:"points,omitempty" minItems:"3" maxItems:"200"`
	Cells              *AreaCells `json:"cells,omitempty" doc:"Painted with a brush"`
	Smallest           *Smallest  `json:"smallest,omitempty" doc:"Smallest object that is noticed; absent for any"`
	SensitivityPercent *float64   `json:"sensitivityPercent,omitempty" minimum:"0" maximum:"100"`
	MinSeconds         *float64   `json:"minSeconds,omitempty" minimum:"0" maximum:"3600" doc:"Shorter motion is ignored here; absent as for all of the detection"`
	Hours              *HourList  `json:"hours,omitempty" doc:"When it watches; absent for as long as detection is on"`
}

// ExactlyOne is how it is drawn.
func (Area) ExactlyOne() []string { return []string{"points", "cells"} }

// Smallest is the smallest object that is noticed.
type Smallest struct {
	Percent float64 `json:"percent" minimum:"0" maximum:"100"`
	Of      string  `json:"of" enum:"picture,area"`
}

// AreaCells are cells of a grid over the picture.
type AreaCells struct {
	Columns int    `json:"columns" minimum:"1" maximum:"128"`
	Rows    int    `json:"rows" minimum:"1" maximum:"96"`
	On      string `json:"on" key:"yes" maxLength:"2048" doc:"Base64 of one bit for each cell, rows first, the first cell in the highest bit of a byte"`
}

// Fits tells whether they are of a grid of so many columns and rows.
func (c *AreaCells) Fits(columns, rows int) bool {
	return c != nil && c.Columns == columns && c.Rows == rows
}

// cells decodes which cells are painted.
func (c *AreaCells) cells() (func(column, row int) bool, error) {
	bits, err := base64.StdEncoding.DecodeString(c.On)
	if err != nil {
		return nil, fmt.Errorf("is not base64")
	}
	if want := (c.Columns*c.Rows + 7) / 8; len(bits) != want {
		return nil, fmt.Errorf("has %d bytes; %d cells in %d rows take %d", len(bits), c.Columns*c.Rows, c.Rows, want)
	}
	return func(column, row int) bool {
		i := row*c.Columns + column
		return bits[i/8]>>(7-i%8)&1 == 1
	}, nil
}

// Painted tells which cells are painted; none of cells that cannot be read.
func (c *AreaCells) Painted() func(column, row int) bool {
	on, err := c.cells()
	if err != nil {
		return func(int, int) bool { return false }
	}
	return on
}

// polygon is a list of points as the picture knows them.
func polygon(points []Point) picture.Polygon {
	out := make(picture.Polygon, len(points))
	for i, p := range points {
		out[i] = picture.Point{X: p[0], Y: p[1]}
	}
	return out
}

// Shape is what the area covers, watched or ignored. It is empty for cells that cannot be read.
func (a *Area) Shape() picture.Shape {
	if a.Cells == nil {
		return picture.Shape{polygon(a.Points)}
	}
	on, err := a.Cells.cells()
	if err != nil {
		return nil
	}
	return picture.Cells(a.Cells.Columns, a.Cells.Rows, on)
}

// Outline is the shape of a patch.
func (p *Patch) Outline() picture.Polygon { return polygon(p.Points) }

// Feet is where a walk leads over the picture.
func (w *Walk) Feet() []picture.Point { return polygon(w.Points) }

// WalkOf is a walk as the picture knows it.
func (p *Plan) WalkOf(w *Walk) picture.Walk {
	o := p.Object(w.Object)
	speed := o.MetresPerSecond
	if w.MetresPerSecond > 0 {
		speed = w.MetresPerSecond
	}
	return picture.Walk{Object: picture.Object{Width: o.WidthM, Height: o.HeightM, Speed: speed}, Feet: w.Feet(), Share: w.SharePercent}
}

// Aspect is the width of the channel's picture over its height, by its main stream.
func (c *Channel) Aspect() float64 {
	if m := c.Streams.Main; m != nil && m.Height > 0 {
		return float64(m.Width) / float64(m.Height)
	}
	return 16.0 / 9
}

// Ground is how the ground lies in the channel's picture; known is false where too little is said to tell.
func (c *Channel) Ground() (g picture.Ground, known bool, err error) {
	s := c.Scene
	if s == nil || s.VerticalDegrees == 0 || len(s.People) == 0 || len(s.People) == 1 && s.CameraMetres == 0 {
		return g, false, nil
	}
	person := func(i int) picture.Person { return picture.Person{Feet: s.People[i].FeetY, Head: s.People[i].HeadY} }
	focal := picture.FocalOf(s.VerticalDegrees)
	if len(s.People) == 1 {
		g, err = picture.FromOne(person(0), s.CameraMetres, focal, c.Aspect())
	} else {
		g, err = picture.FromTwo(person(0), person(1), focal, c.Aspect())
	}
	return g, err == nil, err
}

// scene checks what a camera looks at, and its areas.
func (c *checker) scene(path string, ch *Channel) {
	c.areas(path+".detection.areas", ch.Detection.List())
	s := ch.Scene
	if s == nil {
		return
	}
	path += ".scene"
	ground, known, err := ch.Ground()
	if err != nil {
		c.wrong(path+".people", "%v", err)
		return
	}
	ids, shares := make(map[string]bool), 0.0
	for i, w := range s.Walks {
		at := fmt.Sprintf("%s.walks[%d]", path, i)
		c.once(ids, at, "walk", w.ID)
		if shares += w.SharePercent; shares > 100.01 {
			c.wrong(at+".sharePercent", "the shares of the walks are %.4g %% in all; 100 is everything", shares)
		}
		for k, p := range w.Points {
			if known && p[1] < ground.Horizon+0.002 {
				c.wrong(fmt.Sprintf("%s.points[%d]", at, k), "is above the horizon, which is at %.3g; nobody can walk there", ground.Horizon)
			}
			if k > 0 && p == w.Points[k-1] {
				c.wrong(fmt.Sprintf("%s.points[%d]", at, k), "is where the one before is")
			}
		}
		if known && c.err == nil {
			if took := ground.Seconds(c.plan.WalkOf(&w)); took > picture.MostSeconds {
				c.wrong(at+".points", "%s", Say("takes %.3g minutes at its speed; %d are the most: let it begin nearer or move faster",
					took/60, picture.MostSeconds/60))
			}
		}
	}
	ids = make(map[string]bool)
	for i := range s.Patches {
		at := fmt.Sprintf("%s.patches[%d]", path, i)
		c.once(ids, at, "patch", s.Patches[i].ID)
		if err := s.Patches[i].Outline().Check(); err != nil {
			c.wrong(at+".points", "%v", err)
		}
	}
}

// once asks that an id is not among those that were seen, and adds it to them.
func (c *checker) once(seen map[string]bool, path, kind, id string) {
	if seen[id] {
		c.wrong(path+".id", "a second %s %q", kind, id)
	}
	seen[id] = true
}

func (c *checker) areas(path string, list []Area) {
	ids := make(map[string]bool)
	for i := range list {
		a, at := &list[i], fmt.Sprintf("%s[%d]", path, i)
		c.once(ids, at, "area", a.ID)
		if a.Cells != nil {
			if _, err := a.Cells.cells(); err != nil {
				c.wrong(at+".cells.on", "%v", err)
			}
		} else if err := polygon(a.Points).Check(); err != nil {
			c.wrong(at+".points", "%v", err)
		}
		if a.Hours != nil {
			for k, h := range a.Hours.Blocks {
				c.hours(fmt.Sprintf("%s.hours.blocks[%d]", at, k), h)
			}
		}
	}
}

// Pictures are the ids of the stills that the plan's channels have, each once.
func (p *Plan) Pictures() (ids []string) {
	for i := range p.Channels {
		if s := p.Channels[i].Scene; s != nil && s.Picture != "" && !slices.Contains(ids, s.Picture) {
			ids = append(ids, s.Picture)
		}
	}
	return ids
}

// SameScene tells whether two channels see the same in the same way, so that what they notice is the same.
func SameScene(a, b *Channel) bool {
	return a.Scene == b.Scene && a.Detection.Areas == b.Detection.Areas && a.Detection.MinSeconds == b.Detection.MinSeconds &&
		(a.Scene == nil || a.Aspect() == b.Aspect())
}

// Watching is when an area watches, within the hours of the detection.
func (d *Detection) Watching(a *Area) week.Steps[bool] {
	on := d.Steps()
	if a.Hours == nil {
		return on
	}
	return week.And(on, a.Hours.Steps())
}

// List are the areas of the detection that are drawn.
func (d *Detection) List() []Area {
	if d.Areas == nil {
		return nil
	}
	return d.Areas.List
}

// Area finds a drawn area by its id, nil where there is none.
func (d *Detection) Area(id string) *Area {
	return find(d.List(), func(a *Area) bool { return a.ID == id })
}

// Drawn tells whether areas are drawn, if only ones that are ignored.
func (d *Detection) Drawn() bool { return d.Areas != nil && d.Areas.Count == nil }

// Counted is how many areas there are that are watched; known is false where nobody has counted.
func (d *Detection) Counted() (n int, known bool) {
	switch {
	case d.Areas == nil:
		return 0, false
	case d.Areas.Count != nil:
		return *d.Areas.Count, true
	}
	return len(slices.DeleteFunc(slices.Clone(d.Areas.List), func(a Area) bool { return a.Ignore })), true
}

// ReadFrom reads a list of two numbers.
func (p *Point) ReadFrom(r *document.Reader, path string, token json.Token) error {
	var numbers []float64
	if err := r.Into(path, token, &numbers); err != nil {
		return err
	}
	if len(numbers) != len(p) {
		return document.Wrong(path, "%d numbers; a point has two, from the left and from the top", len(numbers))
	}
	copy(p[:], numbers)
	return nil
}

// CheckAt refuses a place outside the picture.
func (p *Point) CheckAt(path string) error {
	for _, v := range p {
		if math.IsNaN(v) || v < 0 || v > 1 {
			return document.Wrong(path, "%v is outside the picture, which goes from 0 to 1 each way", *p)
		}
	}
	return nil
}

// Schema is a list of two numbers.
func (p *Point) Schema(func(reflect.Type) document.Object) document.Object {
	number := document.Object{"type": "number", "minimum": 0, "maximum": 1}
	return document.Object{"type": "array", "items": number, "minItems": len(p), "maxItems": len(p)}
}
