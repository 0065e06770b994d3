// Package picture knows what a camera notices: areas that are watched and ignored, how large people and things are in
// the picture, how they walk through it, and what else moves there.
//
// A place in a picture is a [Point], by its shares of the width and the height from the top left. The ground is a plane
// (see [Ground]). A watched area less what is ignored is a [Region], exactly, not by a grid of dots. A [Scene] has
// regions, each with the smallest object it takes notice of; [Scene.Play] follows a walk and says when it is noticed.
package picture

import (
	"cmp"
	"errors"
	"math"
	"slices"
)

// Point is a place in a picture: shares of its width and height from the top left, 0 to 1.
type Point struct{ X, Y float64 }

// Polygon is the outline of a shape, its last point joined to its first.
type Polygon []Point

// Shape is what an area covers: one polygon, or several that do not overlap, such as the runs of painted cells.
type Shape []Polygon

// Box is an upright rectangle of a picture.
type Box struct{ Left, Top, Right, Bottom float64 }

// Area is the share of the picture that the box covers, also where it reaches beyond the picture.
func (b Box) Area() float64 { return max(0, b.Right-b.Left) * max(0, b.Bottom-b.Top) }

// Check reports why the polygon is no outline of an area: fewer than three points, no inside, or sides that cross.
func (p Polygon) Check() error {
	if len(p) < 3 {
		return errors.New("an area has at least three corners")
	}
	for i := range p {
		for j := i + 1; j < len(p); j++ {
			if i == 0 && j == len(p)-1 || j == i+1 {
				if p[i] == p[j] {
					return errors.New("two corners after each other are at the same place")
				}
				continue
			}
			if meet(p[i], p[(i+1)%len(p)], p[j], p[(j+1)%len(p)]) {
				return errors.New("its sides cross each other")
			}
		}
	}
	if math.Abs(p.area()) < 1e-6 {
		return errors.New("there is nothing inside it")
	}
	return nil
}

// area is the share of the picture inside the polygon, negative where its points run the other way round.
func (p Polygon) area() (a float64) {
	for i, q := range p {
		r := p[(i+1)%len(p)]
		a += q.X*r.Y - r.X*q.Y
	}
	return a / 2
}

// meet tells whether two sides have a point in common.
func meet(a, b, c, d Point) bool {
	turn := func(p, q, r Point) float64 { return (q.X-p.X)*(r.Y-p.Y) - (q.Y-p.Y)*(r.X-p.X) }
	between := func(p, q, r Point) bool {
		return min(p.X, q.X) <= r.X && r.X <= max(p.X, q.X) && min(p.Y, q.Y) <= r.Y && r.Y <= max(p.Y, q.Y)
	}
	t1, t2, t3, t4 := turn(a, b, c), turn(a, b, d), turn(c, d, a), turn(c, d, b)
	switch {
	case t1 == 0 && between(a, b, c), t2 == 0 && between(a, b, d), t3 == 0 && between(c, d, a), t4 == 0 && between(c, d, b):
		return true
	}
	return (t1 > 0) != (t2 > 0) && (t3 > 0) != (t4 > 0) && t1 != 0 && t2 != 0 && t3 != 0 && t4 != 0
}

// Cells is the shape of painted cells of a grid, rows first from the top left.
func Cells(columns, rows int, on func(column, row int) bool) (s Shape) {
	for r := range rows {
		for c := 0; c < columns; c++ {
			from := c
			for c < columns && on(c, r) {
				c++
			}
			if c > from {
				left, right := float64(from)/float64(columns), float64(c)/float64(columns)
				top, bottom := float64(r)/float64(rows), float64(r+1)/float64(rows)
				s = append(s, Polygon{{left, top}, {right, top}, {right, bottom}, {left, bottom}})
			}
		}
	}
	return s
}

// edge is a side of a shape that runs downward, from y0 to y1 > y0, and which shape it belongs to.
type edge struct {
	x0, y0, x1, y1 float64
	shape          int
}

func (e *edge) at(y float64) float64 { return e.x0 + (e.x1-e.x0)*(y-e.y0)/(e.y1-e.y0) }

// trapezoid is a piece of a region between two levels, with straight sides.
type trapezoid struct{ top, bottom, left0, left1, right0, right1 float64 }

// Region is a watched shape less what is ignored, in pieces that do not overlap.
type Region struct {
	pieces []trapezoid // from the top down
	area   float64
}

// NewRegion takes ignored shapes out of a watched one. It cuts all at every corner and every crossing of sides; between
// two such levels sides do not cross, so the pieces are exact. The cost grows with the square of the number of sides.
func NewRegion(watched Shape, ignored []Shape) *Region {
	var edges []edge
	for k, shape := range append([]Shape{watched}, ignored...) {
		for _, polygon := range shape {
			for i, a := range polygon {
				if b := polygon[(i+1)%len(polygon)]; a.Y < b.Y {
					edges = append(edges, edge{a.X, a.Y, b.X, b.Y, k})
				} else if b.Y < a.Y {
					edges = append(edges, edge{b.X, b.Y, a.X, a.Y, k})
				}
			}
		}
	}
	levels := make([]float64, 0, 2*len(edges))
	for i := range edges {
		e := &edges[i]
		levels = append(levels, e.y0, e.y1)
		for j := range edges[:i] {
			if y, ok := crossing(e, &edges[j]); ok {
				levels = append(levels, y)
			}
		}
	}
	slices.Sort(levels)
	levels = slices.Compact(levels)
	r := new(Region)
	var here []*edge
	for k := 1; k < len(levels); k++ {
		top, bottom := levels[k-1], levels[k]
		here = here[:0]
		for i := range edges {
			if edges[i].y0 <= top && edges[i].y1 >= bottom {
				here = append(here, &edges[i])
			}
		}
		r.between(top, bottom, here, 1+len(ignored))
	}
	return r
}

// between adds the pieces between two levels, of the edges that go from one to the other; shape 0 is watched, the others are
// ignored.
func (r *Region) between(top, bottom float64, edges []*edge, shapes int) {
	middle := (top + bottom) / 2
	slices.SortFunc(edges, func(a, b *edge) int { return cmp.Compare(a.at(middle), b.at(middle)) })
	inside := make([]bool, shapes)
	covered := 0 // ignored shapes that cover the place
	var left *edge
	for _, e := range edges {
		was := inside[0] && covered == 0
		inside[e.shape] = !inside[e.shape]
		switch {
		case e.shape > 0 && inside[e.shape]:
			covered++
		case e.shape > 0:
			covered--
		}
		switch is := inside[0] && covered == 0; {
		case is && !was:
			left = e
		case was && !is:
			r.add(trapezoid{top, bottom, left.at(top), left.at(bottom), e.at(top), e.at(bottom)})
		}
	}
}

// crossing is the level at which two sides cross within both, if they do.
func crossing(a, b *edge) (float64, bool) {
	top, bottom := max(a.y0, b.y0), min(a.y1, b.y1)
	if top >= bottom {
		return 0, false
	}
	d0, d1 := a.at(top)-b.at(top), a.at(bottom)-b.at(bottom)
	if d0 == 0 || d1 == 0 || (d0 > 0) == (d1 > 0) {
		return 0, false
	}
	return top + (bottom-top)*d0/(d0-d1), true
}

func (r *Region) add(t trapezoid) {
	if a := (t.right0 - t.left0 + t.right1 - t.left1) / 2 * (t.bottom - t.top); a > 0 {
		r.pieces = append(r.pieces, t)
		r.area += a
	}
}

// Area is the share of the picture that the region covers.
func (r *Region) Area() float64 { return r.area }

// Within is the share of the picture that both the region and a box cover.
func (r *Region) Within(b Box) (area float64) {
	if b.Right <= b.Left || b.Bottom <= b.Top {
		return 0
	}
	for i := range r.pieces {
		t := &r.pieces[i]
		if t.bottom <= b.Top {
			continue
		}
		if t.top >= b.Bottom {
			break
		}
		if max(t.right0, t.right1) <= b.Left || min(t.left0, t.left1) >= b.Right {
			continue
		}
		top, bottom := max(t.top, b.Top), min(t.bottom, b.Bottom)
		u, v := (top-t.top)/(t.bottom-t.top), (bottom-t.top)/(t.bottom-t.top)
		width := clamped(t.right0+(t.right1-t.right0)*u, t.right0+(t.right1-t.right0)*v, b.Left, b.Right) -
			clamped(t.left0+(t.left1-t.left0)*u, t.left0+(t.left1-t.left0)*v, b.Left, b.Right)
		area += width * (bottom - top)
	}
	return area
}

// clamped is the mean of a value that goes straight from a to b, kept between low and high.
func clamped(a, b, low, high float64) float64 {
	if a > b {
		a, b = b, a
	}
	switch {
	case b <= low:
		return low
	case a >= high:
		return high
	case a >= low && b <= high:
		return (a + b) / 2
	}
	// The integral of the kept value over the way from a to b, divided by its length.
	total := 0.0
	if a < low {
		total += (low - a) * low
	}
	if b > high {
		total += (b - high) * high
	}
	from, to := max(a, low), min(b, high)
	return (total + (to-from)*(from+to)/2) / (b - a)
}
