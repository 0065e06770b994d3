package formats

import (
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"strconv"
	"strings"

	"github.com/xuri/excelize/v2"

	"wakefield/core/plan"
)

// A channel table is one row for each channel: its id, then the columns of
// [plan.Columns]. What is written can be read back and gives the same plan.

const idTitle = "id"

// title is the heading of a column, with what it is about and its unit.
func title(c *plan.Column) string {
	t := c.FullTitle()
	if c.Unit != "" {
		t += " (" + c.Unit + ")"
	}
	return t
}

func rows(p *plan.Plan) [][]string {
	head := []string{idTitle}
	for i := range plan.Columns {
		head = append(head, title(&plan.Columns[i]))
	}
	out := [][]string{head}
	for i := range p.Channels {
		row := append([]string{p.Channels[i].ID}, p.Cells(&p.Channels[i])...)
		for j := range row {
			row[j] = defuse(row[j])
		}
		out = append(out, row)
	}
	return out
}

// WriteCSV writes the channel table as RFC 4180 has it, in UTF-8 with the mark that
// spreadsheets look for.
func WriteCSV(p *plan.Plan) ([]byte, error) {
	var b bytes.Buffer
	b.WriteString("\ufeff")
	w := csv.NewWriter(&b)
	if err := w.WriteAll(rows(p)); err != nil {
		return nil, err
	}
	return b.Bytes(), nil
}

const sheet = "Channels"

// WriteXLSX writes the channel table as a workbook. Numbers are numbers, all else is
// text and never a formula.
func WriteXLSX(p *plan.Plan) ([]byte, error) {
	f := excelize.NewFile()
	defer f.Close()
	if err := f.SetSheetName("Sheet1", sheet); err != nil {
		return nil, err
	}
	for i, row := range rows(p) {
		for j, text := range row {
			at, err := excelize.CoordinatesToCellName(j+1, i+1)
			if err != nil {
				return nil, err
			}
			number, notNumber := strconv.ParseFloat(text, 64)
			if i > 0 && j > 0 && plan.Columns[j-1].Numeric && notNumber == nil {
				err = f.SetCellFloat(sheet, at, number, -1, 64)
			} else {
				err = f.SetCellStr(sheet, at, text)
			}
			if err != nil {
				return nil, err
			}
		}
	}
	panes := &excelize.Panes{Freeze: true, XSplit: 3, YSplit: 1, TopLeftCell: "D2", ActivePane: "bottomRight"}
	if err := f.SetPanes(sheet, panes); err != nil {
		return nil, err
	}
	var b bytes.Buffer
	err := f.Write(&b)
	return b.Bytes(), err
}

// Table is what a file says of the channels of a plan, before anything is changed.
type Table struct {
	Columns []string       `json:"columns" doc:"Headings that were understood"`
	Ignored []string       `json:"ignored" doc:"Headings that were not, and their columns left out"`
	Added   int            `json:"added" doc:"Channels that would be added"`
	Changed int            `json:"changed"`
	Same    int            `json:"same" doc:"Rows that say what the plan says already"`
	Bad     []BadCell      `json:"bad" doc:"Cells that cannot be used; their rows are left out"`
	Edit    *plan.SetCells `json:"edit,omitempty" doc:"What the good rows set; absent where they set nothing"`
}

// BadCell is a cell that cannot be used.
type BadCell struct {
	Line   int    `json:"line" doc:"Line of the file, the heading being 1 in a workbook"`
	Column string `json:"column" doc:"Heading of the column; empty for the row as a whole"`
	Text   string `json:"text"`
	Reason string `json:"reason"`
}

// line is a row of a file with where it stands in it.
type line struct {
	at    int
	cells []string
}

// ReadTable reads a channel table, CSV with commas, semicolons or tabs, or XLSX, and
// holds it against a plan. A row is of the channel whose id it has, else of the one
// with its number on its recorder; any other is a new channel. The error says why
// the file is no table at all.
func ReadTable(data []byte, p *plan.Plan) (*Table, error) {
	lines, err := readLines(data)
	if err != nil {
		return nil, err
	}
	if len(lines) == 0 {
		return nil, errors.New("the file is empty")
	}
	t := &Table{Columns: []string{}, Ignored: []string{}, Bad: []BadCell{}}
	places, idAt := t.heading(lines[0])
	if len(places) == 0 {
		return nil, fmt.Errorf("line %d: no heading is known; the first line names the columns, such as %s", lines[0].at, strings.Join([]string{"No.", "Name", "Main stream Codec"}, ", "))
	}
	edit := &plan.SetCells{}
	for _, place := range places {
		edit.Columns = append(edit.Columns, place.column.ID)
	}
	var from []line
	seen := make(map[string]int)
	for _, l := range lines[1:] {
		if strings.TrimSpace(strings.Join(l.cells, "")) == "" {
			continue
		}
		row := plan.CellRow{}
		for _, place := range places {
			row.Values = append(row.Values, l.cell(place.at))
		}
		row.Channel = match(p, l, idAt, places)
		if first, twice := seen[row.Channel]; twice && row.Channel != "" {
			t.Bad = append(t.Bad, BadCell{l.at, "", "", fmt.Sprintf("the same channel as line %d", first)})
			continue
		}
		seen[row.Channel] = l.at
		if same(p, row, places) {
			t.Same++
			continue
		}
		edit.Rows = append(edit.Rows, row)
		from = append(from, l)
	}
	if len(edit.Rows) == 0 {
		return t, nil
	}
	bad, good := edit.Try(p)
	for _, b := range bad {
		cell := BadCell{Line: from[b.Row].at, Reason: b.Reason}
		if b.Column >= 0 {
			cell.Column, cell.Text = places[b.Column].heading, edit.Rows[b.Row].Values[b.Column]
		}
		t.Bad = append(t.Bad, cell)
	}
	if good != nil {
		t.Edit = good
		for _, row := range good.Rows {
			if row.Channel == "" {
				t.Added++
			} else {
				t.Changed++
			}
		}
	}
	return t, nil
}

// place is a column of the file that is understood.
type place struct {
	at      int
	column  *plan.Column
	heading string
}

// heading reads the first line.
func (t *Table) heading(l line) (places []place, idAt int) {
	idAt = -1
	known := make(map[string]bool)
	for i, text := range l.cells {
		text = rearm(text)
		if plain(text) == idTitle {
			idAt = i
			continue
		}
		column := columnOf(text)
		switch {
		case column != nil && !known[column.ID]:
			known[column.ID] = true
			places = append(places, place{i, column, text})
			t.Columns = append(t.Columns, text)
		case strings.TrimSpace(text) != "":
			t.Ignored = append(t.Ignored, text)
		}
	}
	return places, idAt
}

// plain is a heading without its unit and with small letters.
func plain(heading string) string {
	name, _, _ := strings.Cut(heading, "(")
	return strings.Join(strings.Fields(strings.ToLower(name)), " ")
}

func columnOf(heading string) *plan.Column {
	name := plain(heading)
	for i := range plan.Columns {
		c := &plan.Columns[i]
		if name == plain(c.FullTitle()) || name == strings.ToLower(c.ID) {
			return c
		}
	}
	// Without what it is about a heading means the main stream.
	for i := range plan.Columns {
		if c := &plan.Columns[i]; name == plain(c.Title) {
			return c
		}
	}
	return nil
}

func (l line) cell(at int) string {
	if at < 0 || at >= len(l.cells) {
		return ""
	}
	return rearm(l.cells[at])
}

// match finds the channel that a line is about; empty for none.
func match(p *plan.Plan, l line, idAt int, places []place) string {
	if c := p.Channel(strings.TrimSpace(l.cell(idAt))); c != nil {
		return c.ID
	}
	number, recorder := 0, ""
	for _, place := range places {
		switch place.column.ID {
		case "number":
			number, _ = strconv.Atoi(strings.TrimSpace(l.cell(place.at)))
		case "recorder":
			recorder = strings.TrimSpace(l.cell(place.at))
		}
	}
	for i := range p.Channels {
		c := &p.Channels[i]
		onIt := recorder == c.Recorder || recorder == "" && len(p.Recorders) == 1
		if r := p.Recorder(c.Recorder); r != nil && strings.EqualFold(r.Name, recorder) {
			onIt = true
		}
		if onIt && c.Number == number {
			return c.ID
		}
	}
	return ""
}

// same tells whether a row says what the plan says already.
func same(p *plan.Plan, row plan.CellRow, places []place) bool {
	c := p.Channel(row.Channel)
	if c == nil {
		return false
	}
	cells := p.Cells(c)
	for i, place := range places {
		at := 0
		for plan.Columns[at].ID != place.column.ID {
			at++
		}
		if cells[at] != row.Values[i] {
			return false
		}
	}
	return true
}

// readLines reads a workbook's first sheet, or CSV.
func readLines(data []byte) ([]line, error) {
	if bytes.HasPrefix(data, []byte("PK\x03\x04")) {
		return readSheet(data)
	}
	return readCSV(data)
}

func readSheet(data []byte) ([]line, error) {
	f, err := excelize.OpenReader(bytes.NewReader(data), excelize.Options{RawCellValue: true, UnzipSizeLimit: 256 << 20, UnzipXMLSizeLimit: 64 << 20})
	if err != nil {
		return nil, fmt.Errorf("not a workbook: %w", err)
	}
	defer f.Close()
	names := f.GetSheetList()
	if len(names) == 0 {
		return nil, errors.New("the workbook has no sheet")
	}
	all, err := f.GetRows(names[0])
	if err != nil {
		return nil, fmt.Errorf("not a workbook: %w", err)
	}
	var lines []line
	for i, cells := range all {
		lines = append(lines, line{i + 1, cells})
	}
	return lines, nil
}

func readCSV(data []byte) ([]line, error) {
	data = bytes.TrimPrefix(data, []byte("\ufeff"))
	if bytes.IndexByte(data, 0) >= 0 {
		return nil, errors.New("not a table of text: neither CSV nor a workbook (.xlsx)")
	}
	r := csv.NewReader(bytes.NewReader(data))
	r.Comma = separator(data)
	r.FieldsPerRecord = -1
	var lines []line
	for {
		cells, err := r.Read()
		if wrong := new(csv.ParseError); errors.As(err, &wrong) {
			return nil, fmt.Errorf("line %d, column %d: %w", wrong.Line, wrong.Column, wrong.Err)
		}
		if err != nil {
			return lines, nil // the end
		}
		at, _ := r.FieldPos(0)
		lines = append(lines, line{at, cells})
	}
}

// separator is what stands between the cells: of comma, semicolon and tab the one
// that is most frequent in the first line.
func separator(data []byte) rune {
	first, _, _ := bytes.Cut(data, []byte("\n"))
	best, most := ',', 0
	for _, s := range ",;\t" {
		if n := bytes.Count(first, []byte(string(s))); n > most {
			best, most = s, n
		}
	}
	return best
}
