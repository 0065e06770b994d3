package scenery

import (
	"image"
	"math"
)

var (
	sun  = norm(vector{-0.55, 0.75, -0.5}) // where most light comes from
	fine = 2                               // rays for a pixel, each way
)

func norm(v vector) vector {
	l := math.Sqrt(v.dot(v))
	return vector{v.x / l, v.y / l, v.z / l}
}

// seen is what a ray meets.
type seen struct {
	grey  float64
	thing int // which, and which side of it: a line is drawn between two
}

// Render draws a place as a camera sees it.
func Render(p Place, c Camera, width, height int) *image.Gray {
	out := image.NewGray(image.Rect(0, 0, width, height))
	boxes := make([]bounds, len(p.Solids))
	for i, s := range p.Solids {
		boxes[i] = boundsOf(c, s)
	}
	columns := width*fine + 1
	above, row := make([]seen, columns), make([]seen, columns)
	sums := make([]float64, width)
	for line := 0; line <= height*fine; line++ {
		y := (float64(line) - 0.5) / float64(height*fine)
		var here []int
		for i, b := range boxes {
			if y >= b.top && y <= b.bottom {
				here = append(here, i)
			}
		}
		for column := range columns {
			x := (float64(column) - 0.5) / float64(width*fine)
			row[column] = p.look(c, x, y, here, boxes)
		}
		if line > 0 {
			for column := 1; column < columns; column++ {
				grey := row[column].grey
				if row[column].thing != above[column].thing || row[column].thing != row[column-1].thing {
					grey *= 0.45
				}
				sums[(column-1)/fine] += grey
			}
			if line%fine == 0 {
				for x, sum := range sums {
					out.Pix[out.PixOffset(x, line/fine-1)] = uint8(math.Round(255 * max(0, min(1, sum/float64(fine*fine)))))
					sums[x] = 0
				}
			}
		}
		above, row = row, above
	}
	return out
}

// bounds is where in the picture a solid may be.
type bounds struct{ left, right, top, bottom float64 }

func boundsOf(c Camera, s Solid) bounds {
	b := bounds{math.Inf(1), math.Inf(-1), math.Inf(1), math.Inf(-1)}
	for _, corner := range s.corners() {
		x, y, ok := c.at(corner)
		if !ok { // it reaches behind the camera
			return bounds{math.Inf(-1), math.Inf(1), math.Inf(-1), math.Inf(1)}
		}
		b = bounds{min(b.left, x), max(b.right, x), min(b.top, y), max(b.bottom, y)}
	}
	return b
}

// look is what is seen at a place of the picture, given the solids of its row.
func (p *Place) look(c Camera, x, y float64, here []int, boxes []bounds) seen {
	eye, ray := vector{0, c.Height, 0}, c.ray(x, y)
	out := seen{grey: p.Sky + 0.12*max(0, c.Horizon-y), thing: -1}
	far := math.Inf(1)
	if ray.y < 0 {
		far = -eye.y / ray.y
		grey, id := p.groundAt(far*ray.x, far)
		out = seen{grey, -2 - id}
		out.grey *= p.lit(vector{far * ray.x, 0, far}, vector{y: 1})
	}
	for _, i := range here {
		if x < boxes[i].left || x > boxes[i].right {
			continue
		}
		t, n, ok := p.Solids[i].hit(eye, ray)
		if !ok || t >= far {
			continue
		}
		far = t
		at := vector{t * ray.x, eye.y + t*ray.y, t}
		side := 0
		if _, isBox := p.Solids[i].(Box); isBox || n.y != 0 {
			side = 1 + int(math.Round(2*n.x)) + 7*int(math.Round(2*n.y)) + 49*int(math.Round(2*n.z))
		}
		out = seen{p.Solids[i].grey() * p.lit(at, n), i*1000 + side}
	}
	if far < 1e5 { // air takes a little of what is far away
		haze := 1 - math.Exp(-far/220)
		out.grey += (p.Sky - out.grey) * haze
	}
	return out
}

// lit is how much light a side gets at a place.
func (p *Place) lit(at, normal vector) float64 {
	if p.Lamps {
		return 0.78 + 0.16*normal.y + 0.1*normal.dot(sun)
	}
	light := max(0, normal.dot(sun))
	if light > 0 {
		at = vector{at.x + 1e-4*normal.x, at.y + 1e-4*normal.y, at.z + 1e-4*normal.z}
		for _, s := range p.Solids {
			if _, _, ok := s.hit(at, sun); ok {
				light *= 0.35
				break
			}
		}
	}
	return 0.62 + 0.38*light
}
