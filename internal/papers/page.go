package papers

import (
	"bytes"
	"fmt"
	"time"

	"codeberg.org/go-pdf/fpdf"
)

// Size is a size of paper.
type Size string

// Sizes.
const (
	A4     Size = "a4"
	Letter Size = "letter"
)

// style is how a text is set.
type style struct {
	points float64
	bold   bool
	soft   bool
}

var (
	text    = style{points: 9.5}
	small   = style{points: 8, soft: true}
	strong  = style{points: 9.5, bold: true}
	heading = style{points: 12, bold: true}
	title   = style{points: 18, bold: true}
)

// mm is a point in millimetres.
const mm = 25.4 / 72

// line is the height of a line, in mm.
func (s style) line() float64 { return s.points * mm * 1.36 }

func (s style) face() face {
	if s.bold {
		return semiBold
	}
	return regular
}

// ink and soft ink, which differ in grey too.
var (
	ink     = [3]int{0x23, 0x1c, 0x2e}
	softInk = [3]int{0x5a, 0x52, 0x66}
	hair    = [3]int{0xb8, 0xb0, 0xa4}
)

// sheet is a document that is written from the top to the bottom, over as many pages as it takes. Lengths are mm.
type sheet struct {
	pdf     *fpdf.Fpdf
	letters letters
	left    float64
	width   float64 // between the margins
	bottom  float64
	y       float64
	added   [3]bool // fonts that the document has by now
	form    float64 // height of the rows of a form, in whose cells somebody writes; 0 for a table that is read
}

const (
	margin = 17.0
	foot   = 12.0
)

// newSheet begins a document. At the foot of every page stands what it is about to the left, cut where it is long, and to the
// right the mark by which it is told from others, and the number of the page.
func newSheet(size Size, name, about, mark string, made time.Time) (*sheet, error) {
	l, err := loadFonts()
	if err != nil {
		return nil, err
	}
	format := "A4"
	if size == Letter {
		format = "Letter"
	}
	pdf := fpdf.New("P", "mm", format, "")
	s := &sheet{pdf: pdf, letters: l, left: margin}
	w, h := pdf.GetPageSize()
	s.width, s.bottom = w-2*margin, h-margin-foot
	pdf.SetAutoPageBreak(false, 0)
	pdf.SetMargins(margin, margin, margin)
	pdf.SetTitle(name, true)
	pdf.SetProducer("Wakefield", true)
	pdf.SetLang("en")
	pdf.SetCreationDate(made)
	pdf.SetModificationDate(made)
	pdf.SetCatalogSort(true)
	pdf.AliasNbPages(allPages)
	pdf.SetFooterFunc(func() {
		y := h - margin
		s.rule(y - 4.5)
		number := fmt.Sprintf("%s · page %d of %s", mark, pdf.PageNo(), allPages)
		wide := l.width(fmt.Sprintf("%s · page %d of %d", mark, pdf.PageNo(), 10), regular) * small.points * mm
		s.put(s.left, y, l.clean(about), small, s.width-wide-6, false)
		s.put(s.left+s.width-wide, y, number, small, 60, true)
	})
	s.page()
	return s, nil
}

// allPages stands for how many pages there are until that is known.
const allPages = "{pages}"

// page begins a page.
func (s *sheet) page() {
	s.pdf.AddPage()
	s.y = margin
}

// room begins a page where there is less than so much left on this one.
func (s *sheet) room(height float64) {
	if s.y+height > s.bottom && s.y > margin {
		s.page()
	}
}

// space leaves some height free, but not at the top of a page.
func (s *sheet) space(height float64) {
	if s.y > margin {
		s.y += height
	}
}

func (s *sheet) use(f face, points float64) {
	if !s.added[f] {
		s.pdf.AddUTF8FontFromBytes(families[f], "", s.letters[f].data)
		s.added[f] = true
	}
	s.pdf.SetFont(families[f], "", points)
}

// put sets one line with its base at a height. What is wider than it may be is cut with dots, unless it is whole as it stands.
func (s *sheet) put(x, base float64, line string, st style, widest float64, asItIs bool) {
	if !asItIs {
		line = s.fit(line, st, widest)
	}
	colour := ink
	if st.soft {
		colour = softInk
	}
	s.pdf.SetTextColor(colour[0], colour[1], colour[2])
	for _, p := range s.letters.parts(line, st.face()) {
		s.use(p.face, st.points)
		s.pdf.Text(x, base, p.text)
		x += p.width * st.points * mm
	}
}

// fit is a line cut with dots to what has room.
func (s *sheet) fit(line string, st style, widest float64) string {
	ems := widest / (st.points * mm)
	if s.letters.width(line, st.face()) <= ems {
		return line
	}
	runes := []rune(line)
	for len(runes) > 0 && s.letters.width(string(runes)+"…", st.face()) > ems {
		runes = runes[:len(runes)-1]
	}
	return string(runes) + "…"
}

// wrapped are the lines of a text in a column.
func (s *sheet) wrapped(text string, st style, width float64) []string {
	return s.letters.lines(s.letters.clean(text), st.face(), width/(st.points*mm))
}

// column sets lines from a height on, and tells how high they are.
func (s *sheet) column(x, y float64, lines []string, st style) float64 {
	for i, line := range lines {
		s.put(x, y+float64(i)*st.line()+st.points*mm, line, st, 0, true)
	}
	return float64(len(lines)) * st.line()
}

// par sets a paragraph over the whole width.
func (s *sheet) par(words string, st style) { s.inset(words, st, 0) }

// inset sets a paragraph some way from the left.
func (s *sheet) inset(words string, st style, by float64) {
	for _, line := range s.wrapped(words, st, s.width-by) {
		s.room(st.line())
		s.column(s.left+by, s.y, []string{line}, st)
		s.y += st.line()
	}
}

// head sets a heading, with room for so much of what follows, and a bookmark to it.
func (s *sheet) head(words string, level int, follows float64) {
	st := heading
	if level > 0 {
		st = strong
	}
	s.space(4)
	lines := s.wrapped(words, st, s.width)
	s.room(float64(len(lines))*st.line() + follows)
	s.bookmark(words, level, -1)
	s.y += s.column(s.left, s.y, lines, st) + 1
}

// bookmark marks a height of the page, -1 for where the document is. It is written as the font in use is, so one is.
func (s *sheet) bookmark(words string, level int, y float64) {
	s.use(semiBold, heading.points)
	s.pdf.Bookmark(words, level, y)
}

func (s *sheet) rule(y float64) {
	s.pdf.SetDrawColor(hair[0], hair[1], hair[2])
	s.pdf.SetLineWidth(0.15)
	s.pdf.Line(s.left, y, s.left+s.width, y)
}

// box is a square to tick.
func (s *sheet) box(x, y, side float64) {
	s.pdf.SetDrawColor(ink[0], ink[1], ink[2])
	s.pdf.SetLineWidth(0.25)
	s.pdf.Rect(x, y, side, side, "D")
}

// bytes is the document.
func (s *sheet) bytes() ([]byte, error) {
	var b bytes.Buffer
	if err := s.pdf.Output(&b); err != nil {
		return nil, fmt.Errorf("papers: %w", err)
	}
	return b.Bytes(), nil
}
