package handover

import (
	"encoding/base64"
	"math"
	"slices"

	"wakefield.example/core/picture"
	"wakefield.example/core/plan"
)

// areas enters the areas of a channel. Where the recorder only hears of events they are drawn at the camera, as planned.
func (n *entering) areas(c *plan.Channel) {
	if len(c.Detection.List()) == 0 || c.Events == "out" || c.Events == "none" || n.takes.Areas == "none" {
		return
	}
	list := slices.Clone(c.Detection.Areas.List)
	columns, rows, grid := n.takes.Grid()
	var out []plan.Area
	for _, a := range list {
		n.sensitivity(c, &a)
		if grid && n.asks(AreaHours) && (a.Hours != nil || a.MinSeconds != nil) {
			n.oneForAll(c, &a)
		}
		switch {
		case grid && n.asks(Outlines) && !a.Cells.Fits(columns, rows):
			a.Cells, a.Points = onGrid(&a, columns, rows), nil
			n.departOnce(Outlines, c, "areas as drawn", plan.Say("cells of a grid of %d × %d", columns, rows))
			out = append(out, a)
		case n.takes.Areas == "polygon" && a.Cells != nil && n.asks(Outlines):
			out = append(out, asPolygons(&a, list, out)...)
			n.departOnce(Outlines, c, "areas as painted", "polygons round their cells")
		default:
			out = append(out, a)
		}
	}
	if len(out) <= plan.MostDrawn {
		c.Detection.Areas = &plan.Areas{List: out}
	}
}

// asPolygons is a painted area as polygons, each with an id that neither list has.
func asPolygons(a *plan.Area, planned, entered []plan.Area) (parts []plan.Area) {
	for k, points := range outlines(a) {
		part := *a
		part.Cells, part.Points = nil, points
		if k > 0 {
			part.Name = plan.Say("%s, part %d", a.Name, k+1)
			part.ID = plan.FreeID(part.ID, "area", func(id string) bool {
				same := func(b plan.Area) bool { return b.ID == id }
				return slices.ContainsFunc(planned, same) || slices.ContainsFunc(entered, same) || slices.ContainsFunc(parts, same)
			})
		}
		parts = append(parts, part)
	}
	return parts
}

// sensitivity puts that of an area on a step of the recorder's: the next higher, as more is noticed then, unless less is
// wanted.
func (n *entering) sensitivity(c *plan.Channel, a *plan.Area) {
	steps := n.takes.SensitivitySteps
	if a.SensitivityPercent == nil || steps == 0 || !n.asks(Sensitivity) {
		return
	}
	step := math.Ceil(*a.SensitivityPercent/100*float64(steps) - 1e-9)
	if n.lean == Lower {
		step = math.Floor(*a.SensitivityPercent/100*float64(steps) + 1e-9)
	}
	if on := step / float64(steps) * 100; math.Abs(on-*a.SensitivityPercent) > 1e-9 {
		n.depart(Sensitivity, c, plan.Say("%s %v %%", a.Name, *a.SensitivityPercent), plan.Say("%v of %d steps", step, steps))
		a.SensitivityPercent = &on
	}
}

// oneForAll enters an area without hours and a duration of its own: it watches as long as detection is on, and the shortest
// of all durations holds for all, so that nothing is noticed less.
func (n *entering) oneForAll(c *plan.Channel, a *plan.Area) {
	if a.Hours != nil {
		n.depart(AreaHours, c, plan.Say("%s %s", a.Name, plan.HoursInWords(a.Hours.Blocks)), "as long as detection is on")
		if a.Ignore { // what is not always ignored is watched at times
			n.depart(AreaHours, c, a.Name+" is ignored at times", "is watched always")
			none := &plan.AreaCells{Columns: 1, Rows: 1, On: encoded([]byte{0})}
			a.Points, a.Cells = nil, none
		}
		a.Hours = nil
	}
	if a.MinSeconds != nil {
		if *a.MinSeconds < c.Detection.MinSeconds {
			n.depart(AreaHours, c, plan.Say("shortest motion %v s, in %s %v s", c.Detection.MinSeconds, a.Name, *a.MinSeconds),
				plan.Say("%v s", *a.MinSeconds))
			c.Detection.MinSeconds = *a.MinSeconds
		} else if *a.MinSeconds > c.Detection.MinSeconds {
			n.depart(AreaHours, c, plan.Say("shortest motion in %s %v s", a.Name, *a.MinSeconds), plan.Say("%v s", c.Detection.MinSeconds))
		}
		a.MinSeconds = nil
	}
}

// encoded are painted cells as a plan has them.
func encoded(bits []byte) string { return base64.StdEncoding.EncodeToString(bits) }

// hairline is how little of a cell an area can cover by the errors of its arithmetic.
const hairline = 1e-6

// onGrid is an area as cells of a grid: a watched one has every cell that it meets, an ignored one those that lie in it.
func onGrid(a *plan.Area, columns, rows int) *plan.AreaCells {
	region := picture.NewRegion(a.Shape(), nil)
	bits := make([]byte, (columns*rows+7)/8)
	cell := 1 / float64(columns*rows)
	for row := range rows {
		for column := range columns {
			covered := region.Within(picture.Box{
				Left: float64(column) / float64(columns), Right: float64(column+1) / float64(columns),
				Top: float64(row) / float64(rows), Bottom: float64(row+1) / float64(rows),
			}) / cell
			if !a.Ignore && covered > hairline || covered > 1-hairline {
				i := row*columns + column
				bits[i/8] |= 1 << (7 - i%8)
			}
		}
	}
	return &plan.AreaCells{Columns: columns, Rows: rows, On: encoded(bits)}
}

// mostCorners is how many points a polygon of a plan can have.
const mostCorners = 200

// outlines are polygons in place of painted cells, one round each part that hangs together. A watched part is watched with its
// holes, an ignored one that has any is taken apart into rectangles, so that no less is watched than planned.
func outlines(a *plan.Area) (out [][]plan.Point) {
	columns, rows := a.Cells.Columns, a.Cells.Rows
	painted := a.Cells.Painted()
	seen := make([]bool, columns*rows)
	for start := range columns * rows {
		if !painted(start%columns, start/columns) || seen[start] {
			continue
		}
		part := []int{start}
		seen[start] = true
		in := map[int]bool{start: true}
		for k := 0; k < len(part); k++ {
			x, y := part[k]%columns, part[k]/columns
			for _, d := range [][2]int{{1, 0}, {-1, 0}, {0, 1}, {0, -1}} {
				u, v := x+d[0], y+d[1]
				if u < 0 || v < 0 || u >= columns || v >= rows || !painted(u, v) || seen[v*columns+u] {
					continue
				}
				seen[v*columns+u], in[v*columns+u] = true, true
				part = append(part, v*columns+u)
			}
		}
		line, whole := boundary(in, columns, start)
		if a.Ignore && !whole || len(line) > mostCorners {
			out = append(out, rectangles(in, columns, rows)...)
			continue
		}
		points := make([]plan.Point, len(line))
		for i, p := range line {
			points[i] = plan.Point{float64(p[0]) / float64(columns), float64(p[1]) / float64(rows)}
		}
		out = append(out, points)
	}
	return out
}

// boundary is the outer line of a part that hangs together, from the upper left corner of its first cell, clockwise; whole
// tells whether the part has no holes.
func boundary(in map[int]bool, columns, start int) (line [][2]int, whole bool) {
	at := func(x, y int) bool { return x >= 0 && x < columns && y >= 0 && in[y*columns+x] }
	// Corners lie between cells. Facing 0 east, 1 south, 2 west, 3 north; the part is to the right.
	x, y, facing := start%columns, start/columns, 0
	x0, y0 := x, y
	doubled := 0
	for {
		if n := len(line); n == 0 || line[n-1] != [2]int{x, y} {
			line = append(line, [2]int{x, y})
		}
		for {
			dx, dy := [4]int{1, 0, -1, 0}[facing], [4]int{0, 1, 0, -1}[facing]
			doubled += x*(y+dy) - (x+dx)*y
			x, y = x+dx, y+dy
			// The two cells ahead, to the left and to the right of the line.
			left := [4][2]int{{x, y - 1}, {x, y}, {x - 1, y}, {x - 1, y - 1}}[facing]
			right := [4][2]int{{x, y}, {x - 1, y}, {x - 1, y - 1}, {x, y - 1}}[facing]
			turn := 0
			switch {
			case at(left[0], left[1]): // also across a corner: what lies behind it is a hole
				turn = 3
			case !at(right[0], right[1]):
				turn = 1
			}
			if turn != 0 {
				facing = (facing + turn) % 4
				break
			}
		}
		if x == x0 && y == y0 && facing == 0 {
			break
		}
	}
	return line, doubled == 2*len(in)
}

// rectangles are those of a part, run by run of its rows, equal runs below one another as one.
func rectangles(in map[int]bool, columns, rows int) (out [][]plan.Point) {
	type run struct{ from, to, top int }
	var open []run
	close := func(r run, bottom int) {
		left, right := float64(r.from)/float64(columns), float64(r.to)/float64(columns)
		top, low := float64(r.top)/float64(rows), float64(bottom)/float64(rows)
		out = append(out, []plan.Point{{left, top}, {right, top}, {right, low}, {left, low}})
	}
	for y := 0; y <= rows; y++ {
		var now []run
		for x := 0; y < rows && x < columns; x++ {
			if !in[y*columns+x] {
				continue
			}
			from := x
			for x < columns && in[y*columns+x] {
				x++
			}
			now = append(now, run{from, x, y})
		}
		for i := range now {
			for _, o := range open {
				if o.from == now[i].from && o.to == now[i].to {
					now[i].top = o.top
				}
			}
		}
		for _, o := range open {
			if !slices.Contains(now, o) {
				close(o, y)
			}
		}
		open = now
	}
	return out
}
