package papers

import (
	"fmt"
	"strings"

	"github.com/xuri/excelize/v2"

	"wakefield.example/core/handover"
)

// Workbook is the sheet as XLSX, a page for each of the recorders named, all where none is. Cells are texts, never formulas.
func (s *Source) Workbook(recorders ...string) ([]byte, error) {
	f := excelize.NewFile()
	defer f.Close()
	bold, err := f.NewStyle(&excelize.Style{Font: &excelize.Font{Bold: true}})
	if err != nil {
		return nil, fmt.Errorf("papers: workbook: %w", err)
	}
	wrap, err := f.NewStyle(&excelize.Style{Alignment: &excelize.Alignment{WrapText: true, Vertical: "top"}})
	if err != nil {
		return nil, fmt.Errorf("papers: workbook: %w", err)
	}
	list := s.of(recorders)
	if len(list) == 0 {
		list = []handover.Sheet{{Name: "No recorder"}}
	}
	taken := make(map[string]bool)
	for i := range list {
		name := pageName(list[i].Name, taken)
		if i == 0 {
			err = f.SetSheetName("Sheet1", name)
		} else {
			_, err = f.NewSheet(name)
		}
		if err == nil {
			err = s.workbookPage(f, name, &list[i], bold, wrap)
		}
		if err != nil {
			return nil, fmt.Errorf("papers: workbook: %w", err)
		}
	}
	out, err := f.WriteToBuffer()
	if err != nil {
		return nil, fmt.Errorf("papers: workbook: %w", err)
	}
	return out.Bytes(), nil
}

// pageName is a name that a page of a workbook can have: 31 characters without some signs, each once.
func pageName(name string, taken map[string]bool) string {
	name = strings.Map(func(r rune) rune {
		if strings.ContainsRune(`:\/?*[]'`, r) || r < ' ' {
			return ' '
		}
		return r
	}, name)
	runes := []rune(strings.TrimSpace(name))
	if len(runes) == 0 {
		runes = []rune("Recorder")
	}
	out := string(runes[:min(31, len(runes))])
	for n := 2; taken[strings.ToLower(out)] || utf16Length(out) > 31; n++ {
		tail := fmt.Sprintf(" %d", n)
		keep := min(len(runes), 31-len(tail))
		for utf16Length(string(runes[:keep]))+len(tail) > 31 {
			keep--
		}
		out = string(runes[:keep]) + tail
	}
	taken[strings.ToLower(out)] = true
	return out
}

// utf16Length is how long a text is where letters beyond the basic plane count twice.
func utf16Length(s string) (n int) {
	for _, r := range s {
		n++
		if r > 0xffff {
			n++
		}
	}
	return n
}

func (s *Source) workbookPage(f *excelize.File, page string, r *handover.Sheet, bold, wrap int) error {
	rows := [][]any{{r.Name, "", countInWords(r)}, {}, {"Step", "Section", "What is typed", "Why", "Right when",
		"Entries", "Done", "By", "When"}}
	for i := range r.Steps {
		st := &r.Steps[i]
		rows = append(rows, []any{st.ID, handover.Sections.Name(string(st.Section)), st.Words, st.Why, st.RightWhen, st.Entries})
	}
	for i, row := range rows {
		at, err := excelize.CoordinatesToCellName(1, i+1)
		if err != nil {
			return err
		}
		if err := f.SetSheetRow(page, at, &row); err != nil {
			return err
		}
	}
	for _, c := range []struct {
		column string
		width  float64
	}{{"A", 7}, {"B", 22}, {"C", 78}, {"D", 34}, {"E", 38}, {"F", 8}, {"G", 7}, {"H", 14}, {"I", 14}} {
		if err := f.SetColWidth(page, c.column, c.column, c.width); err != nil {
			return err
		}
	}
	if err := f.SetCellStyle(page, "A1", "I3", bold); err != nil {
		return err
	}
	if len(rows) > 3 {
		if err := f.SetCellStyle(page, "A4", fmt.Sprintf("I%d", len(rows)), wrap); err != nil {
			return err
		}
	}
	return f.SetPanes(page, &excelize.Panes{Freeze: true, YSplit: 3, TopLeftCell: "A4", ActivePane: "bottomLeft"})
}
