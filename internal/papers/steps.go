package papers

import (
	"fmt"
	"slices"

	"wakefield.example/core/handover"
	"wakefield.example/core/plan"
)

// of are the sheets of the recorders named, all where none is.
func (s *Source) of(recorders []string) (out []handover.Sheet) {
	for _, r := range s.document.Recorders {
		if len(recorders) == 0 || slices.Contains(recorders, r.ID) {
			out = append(out, r)
		}
	}
	return out
}

// steps writes what a fitter types, recorder by recorder.
func (s *Source) steps(sh *sheet, recorders []string) {
	list := s.of(recorders)
	if len(list) == 0 {
		s.letterhead(sh, "Sheet")
		sh.par("No recorder is planned yet.", text)
		return
	}
	for i := range list {
		if i > 0 {
			sh.page()
		}
		s.sheetOf(sh, &list[i])
	}
}

// countInWords says how many entries a sheet takes, and how many it would without copying.
func countInWords(r *handover.Sheet) string {
	words := fmt.Sprintf("%d entries", r.Entries)
	if r.Entries == 1 {
		words = "1 entry"
	}
	if r.EntriesOneByOne > r.Entries {
		words += fmt.Sprintf("; %d if every channel were typed by itself", r.EntriesOneByOne)
	}
	return words
}

func (s *Source) sheetOf(sh *sheet, r *handover.Sheet) {
	s.letterhead(sh, r.Name)
	sh.par(fmt.Sprintf("%s. %s.", plan.Count(len(r.Steps), "step"), upper(countInWords(r))), text)
	if s.Plan.Site.Notes != "" {
		sh.par(s.Plan.Site.Notes, text)
	}
	s.phone(sh)
	if list := s.Entered.Alike(r.ID); len(list) > 0 {
		sh.head("What it cannot take", 1, 12)
		var words []string
		for _, l := range list {
			words = append(words, l.Words+".")
		}
		sh.bullets(words)
	}
	section := handover.Section("")
	for i := range r.Steps {
		st := &r.Steps[i]
		if st.Section != section {
			section = st.Section
			sh.head(fmt.Sprintf("%d  %s", section.Number(), handover.Sections.Name(string(section))), 1, 14)
		}
		s.stepOf(sh, st)
	}
}

// stepOf sets a step: a box to tick, its number, what is typed, and what is to be seen then; an area with its picture.
func (s *Source) stepOf(sh *sheet, st *handover.Step) {
	const number, indent = 6.0, 17.0
	area := areaOf(st)
	wide := sh.width - indent
	const pictureW, pictureH = 56.0, 31.5
	if area != nil {
		wide -= pictureW + 8
	}
	words := sh.wrapped(st.Words, text, wide)
	soft := style{points: 8.5, soft: true}
	var notes []string
	if st.Why != "" {
		notes = append(notes, sh.wrapped(st.Why, soft, wide)...)
	}
	if st.RightWhen != "" {
		notes = append(notes, sh.wrapped("right when: "+st.RightWhen, soft, wide)...)
	}
	high := float64(len(words))*text.line() + float64(len(notes))*soft.line() + 2
	if area != nil {
		high = max(high, pictureH+6)
	}
	sh.room(min(high, sh.bottom-margin))
	sh.box(sh.left, sh.y+0.6, 3.2)
	sh.put(sh.left+number, sh.y+text.points*mm, st.ID, strong, indent-number, true)
	if area != nil {
		sh.scene(sh.left+sh.width-pictureW, sh.y+3, pictureW, pictureH, s.pictureOf(st), area)
	}
	y := sh.y
	for _, line := range words {
		if y+text.line() > sh.bottom {
			sh.page()
			y = sh.y
		}
		sh.column(sh.left+indent, y, []string{line}, text)
		y += text.line()
	}
	y += sh.column(sh.left+indent, y, notes, soft)
	sh.y = max(y+1.2, min(sh.y+high, sh.bottom))
	sh.rule(sh.y - 0.6)
	sh.y += 0.6
}

// areaOf is the area that a step draws, nil where it draws none.
func areaOf(st *handover.Step) *plan.Area {
	var values map[string]any
	switch {
	case st.Do.Set != nil:
		values = st.Do.Set.Values
	case st.Do.Camera != nil:
		values = st.Do.Camera.Values
	}
	if a, ok := values["area"].(plan.Area); ok {
		return &a
	}
	return nil
}

// pictureOf is the snapshot of the channel that a step is about.
func (s *Source) pictureOf(st *handover.Step) []byte {
	id := ""
	switch {
	case st.Do.Set != nil:
		id = st.Do.Set.Channel
	case st.Do.Camera != nil:
		id = st.Do.Camera.Channel
	}
	c := s.Plan.Channel(id)
	if c == nil || c.Scene == nil || c.Scene.Picture == "" || s.Picture == nil {
		return nil
	}
	return s.Picture(c.Scene.Picture)
}
