package papers

// column of a table.
type column struct {
	title string
	width float64 // mm, or a share of what is left where share is set
	share float64
	right bool // aligned to the right
}

// table sets rows with their headings, which stand again on every page. No row goes over the end of a page unless it is higher
// than one.
func (s *sheet) table(columns []column, rows [][]string, st style) {
	left := s.width
	shares := 0.0
	for _, c := range columns {
		left -= c.width
		shares += c.share
	}
	const gap = 2.5
	at, wide := make([]float64, len(columns)), make([]float64, len(columns))
	x := s.left
	for i, c := range columns {
		at[i], wide[i] = x, c.width
		if c.share > 0 {
			wide[i] = left * c.share / shares
		}
		x += wide[i]
	}
	bold := st
	bold.bold = true
	row := func(cells []string, st style) [][]string {
		out := make([][]string, len(columns))
		for i := range columns {
			if i < len(cells) {
				out[i] = s.wrapped(cells[i], st, wide[i]-gap)
			}
		}
		return out
	}
	height := func(lines [][]string) (h float64) {
		for _, l := range lines {
			h = max(h, float64(len(l))*st.line())
		}
		return max(h+1.4, s.form)
	}
	draw := func(lines [][]string, st style) {
		for i, list := range lines {
			for k, line := range list {
				x := at[i]
				if columns[i].right {
					x += wide[i] - gap - s.letters.width(line, st.face())*st.points*mm
				}
				s.put(x, s.y+0.7+float64(k)*st.line()+st.points*mm, line, st, 0, true)
			}
		}
		top := s.y
		s.y += height(lines)
		s.rule(s.y)
		for i := 1; s.form > 0 && i < len(at); i++ {
			s.pdf.Line(at[i]-gap/2, top, at[i]-gap/2, s.y)
		}
	}
	titles := make([]string, len(columns))
	for i, c := range columns {
		titles[i] = c.title
	}
	top := row(titles, bold)
	first := true
	for _, cells := range rows {
		lines := row(cells, st)
		need := height(lines)
		if first {
			need += height(top)
		}
		if tall := s.bottom - margin - height(top); height(lines) > tall {
			s.tall(columns, at, wide, lines, top, draw, st)
			first = false
			continue
		}
		if first || s.y+need > s.bottom {
			s.room(need)
			draw(top, bold)
			first = false
		}
		draw(lines, st)
	}
}

// blank sets a table in which somebody writes: its rows are high enough for that, with lines between the columns.
func (s *sheet) blank(columns []column, rows [][]string, st style, high float64) {
	s.form = high
	s.table(columns, rows, st)
	s.form = 0
}

// tall sets a row that is higher than a page, over as many as it takes.
func (s *sheet) tall(columns []column, at, wide []float64, lines, top [][]string, draw func([][]string, style), st style) {
	bold := st
	bold.bold = true
	for {
		s.room(6 * st.line())
		if s.y == margin {
			draw(top, bold)
		}
		fit := max(1, int((s.bottom-s.y-1.4)/st.line()))
		rest := false
		now, next := make([][]string, len(lines)), make([][]string, len(lines))
		for i, l := range lines {
			now[i] = l[:min(fit, len(l))]
			next[i] = l[min(fit, len(l)):]
			rest = rest || len(next[i]) > 0
		}
		draw(now, st)
		if lines = next; !rest {
			return
		}
		s.page()
	}
}
