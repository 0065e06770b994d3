package papers

import (
	"bytes"
	"crypto/sha256"
	"encoding/hex"
	"image"
	"image/draw"
	_ "image/jpeg" // pictures of cameras and logos
	_ "image/png"

	"codeberg.org/go-pdf/fpdf"

	"wakefield.example/core/footage"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// picture sets a JPEG or PNG, as large as it fits; nothing where it cannot be read.
func (s *sheet) picture(data []byte, x, y, w, h float64) (width, height float64) {
	config, kind, err := image.DecodeConfig(bytes.NewReader(data))
	if err != nil || config.Width == 0 || config.Height == 0 {
		return 0, 0
	}
	sum := sha256.Sum256(data)
	name := hex.EncodeToString(sum[:8])
	options := fpdf.ImageOptions{ImageType: kind}
	s.pdf.RegisterImageOptionsReader(name, options, bytes.NewReader(data))
	if s.pdf.Err() {
		s.pdf.ClearError()
		return 0, 0
	}
	scale := min(w/float64(config.Width), h/float64(config.Height))
	width, height = scale*float64(config.Width), scale*float64(config.Height)
	s.pdf.ImageOptions(name, x+w-width, y, width, height, false, options, 0, "")
	return width, height
}

// OnWhite is a picture with white where it was transparent.
func OnWhite(img image.Image) image.Image {
	out := image.NewRGBA(image.Rect(0, 0, img.Bounds().Dx(), img.Bounds().Dy()))
	draw.Draw(out, out.Bounds(), image.White, image.Point{}, draw.Src)
	draw.Draw(out, out.Bounds(), img, img.Bounds().Min, draw.Over)
	return out
}

var dayLetters = [...]string{"Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"}

// days sets the names of the days over a ribbon.
func (s *sheet) days(x, y, w float64) {
	for d, name := range dayLetters {
		s.put(x+w*float64(d)/7+0.8, y, name, style{points: 7, soft: true}, 20, true)
	}
}

// ribbon draws a week of writing in black: the base layer as a band, motion as a comb that stands on it, alarms hatched. Its
// height is the share of full.
func (s *sheet) ribbon(x, y, w, h float64, bins footage.Week, full float64) {
	s.pdf.SetDrawColor(hair[0], hair[1], hair[2])
	s.pdf.SetLineWidth(0.1)
	for d := range 8 {
		at := x + w*float64(d)/7
		s.pdf.Line(at, y, at, y+h)
	}
	s.pdf.SetDrawColor(ink[0], ink[1], ink[2])
	s.pdf.SetFillColor(0x8a, 0x82, 0x92)
	at := func(m week.Minute) float64 { return x + w*float64(m)/float64(week.Length) }
	if full <= 0 {
		full = 1
	}
	for _, b := range bins {
		from, to := at(b.Span.From), at(b.Span.To)
		base := h * min(1, float64(b.Base)/full)
		motion := h * min(1, float64(b.Base+b.Motion)/full)
		alarm := h * min(1, float64(b.Total())/full)
		if base > 0.05 {
			s.pdf.Rect(from, y+h-base, to-from, base, "F")
		}
		s.pdf.SetLineWidth(0.12)
		if motion-base > 0.05 {
			for line := from; line < to; line += 0.45 {
				s.pdf.Line(line, y+h-motion, line, y+h-base)
			}
		}
		if alarm-motion > 0.05 {
			for line := from; line < to; line += 0.45 {
				s.pdf.Line(line, y+h-motion, min(to, line+0.45), y+h-alarm)
			}
		}
	}
	s.pdf.SetLineWidth(0.2)
	s.pdf.Line(x, y+h, x+w, y+h)
}

// scene draws an area on a picture: its outline, or the cells of a grid that are to be marked.
func (s *sheet) scene(x, y, w, h float64, jpeg []byte, a *plan.Area) {
	s.pdf.SetFillColor(0xf2, 0xef, 0xe9)
	s.pdf.Rect(x, y, w, h, "F")
	if len(jpeg) > 0 {
		s.stretched(jpeg, x, y, w, h)
	}
	s.pdf.SetDrawColor(ink[0], ink[1], ink[2])
	s.pdf.SetLineWidth(0.15)
	s.pdf.Rect(x, y, w, h, "D")
	if a.Cells != nil {
		s.cells(x, y, w, h, a.Cells)
		return
	}
	points := make([]fpdf.PointType, len(a.Points))
	for i, p := range a.Points {
		points[i] = fpdf.PointType{X: x + w*p[0], Y: y + h*p[1]}
	}
	s.pdf.SetLineWidth(0.5)
	if a.Ignore {
		s.pdf.SetDashPattern([]float64{1, 0.8}, 0)
	}
	if len(points) > 2 {
		s.pdf.Polygon(points, "D")
	}
	s.pdf.SetDashPattern(nil, 0)
	for i, p := range points {
		if len(points) <= 12 {
			below := 2.4
			if p.Y+below > y+h {
				below = -0.8
			}
			s.put(min(p.X+0.5, x+w-2), p.Y+below, plan.Say("%d", i+1), style{points: 6, bold: true}, 5, true)
		}
	}
}

// stretched sets a picture over all of a box.
func (s *sheet) stretched(jpeg []byte, x, y, w, h float64) {
	sum := sha256.Sum256(jpeg)
	name := hex.EncodeToString(sum[:8])
	options := fpdf.ImageOptions{ImageType: "jpeg"}
	s.pdf.RegisterImageOptionsReader(name, options, bytes.NewReader(jpeg))
	if s.pdf.Err() {
		s.pdf.ClearError()
		return
	}
	s.pdf.SetAlpha(0.45, "Normal")
	s.pdf.ImageOptions(name, x, y, w, h, false, options, 0, "")
	s.pdf.SetAlpha(1, "Normal")
}

// cells draws a grid with its marked cells hatched, and the numbers of columns and rows by fives.
func (s *sheet) cells(x, y, w, h float64, c *plan.AreaCells) {
	painted := c.Painted()
	cw, ch := w/float64(c.Columns), h/float64(c.Rows)
	s.pdf.SetLineWidth(0.06)
	s.pdf.SetDrawColor(hair[0], hair[1], hair[2])
	for k := 1; k < c.Columns; k++ {
		s.pdf.Line(x+cw*float64(k), y, x+cw*float64(k), y+h)
	}
	for k := 1; k < c.Rows; k++ {
		s.pdf.Line(x, y+ch*float64(k), x+w, y+ch*float64(k))
	}
	s.pdf.SetDrawColor(ink[0], ink[1], ink[2])
	s.pdf.SetLineWidth(0.18)
	for row := range c.Rows {
		for col := range c.Columns {
			if painted(col, row) {
				left, top := x+cw*float64(col), y+ch*float64(row)
				s.pdf.Line(left, top+ch, left+cw, top)
				s.pdf.Line(left, top, left+cw, top+ch)
			}
		}
	}
	number := style{points: 5, soft: true}
	for k := 4; k < c.Columns; k += 5 {
		s.put(x+cw*float64(k), y-0.5, plan.Say("%d", k+1), number, 8, true)
	}
	for k := 4; k < c.Rows; k += 5 {
		s.put(x-3.2, y+ch*float64(k)+ch*0.8, plan.Say("%d", k+1), number, 8, true)
	}
}
