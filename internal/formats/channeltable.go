package formats

import (
	"bytes"
	"context"
	"encoding/csv"
	"errors"
	"fmt"
	"reflect"
	"slices"
	"strconv"
	"strings"

	"github.com/xuri/excelize/v2"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/core/quantity"
	"wakefield.example/core/table"
)

// A channel table is one row for each channel: its id, then the columns of
// [table.Columns]. What is written can be read back and gives the same plan.

const idTitle = "id"

// title is the heading of a column, with what it is about and its unit.
func title(c *table.Column) string {
	t := c.FullTitle()
	if c.Unit != "" {
		t += " (" + c.Unit + ")"
	}
	return t
}

func rows(p *plan.Plan) [][]string {
	head := []string{idTitle}
	for i := range table.Columns {
		head = append(head, title(&table.Columns[i]))
	}
	out := [][]string{head}
	for i := range p.Channels {
		row := append([]string{p.Channels[i].ID}, table.Texts(p, &p.Channels[i])...)
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
			if i > 0 && j > 0 && table.Columns[j-1].Numeric && notNumber == nil {
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
	Encoding string       `json:"encoding" doc:"How its text was encoded: UTF-8, UTF-16, Windows-1252; empty for a workbook"`
	Rows     []RowChange  `json:"rows" doc:"What the good rows would change, the first five hundred"`
	Columns  []string     `json:"columns" doc:"Headings that were understood"`
	Ignored  []string     `json:"ignored" doc:"Headings that were not, and their columns left out"`
	Added    int          `json:"added" doc:"Channels that would be added"`
	Changed  int          `json:"changed"`
	Same     int          `json:"same" doc:"Rows that say what the plan says already"`
	Bad      []BadCell    `json:"bad" doc:"Cells that cannot be used; their rows are left out"`
	Edit     *table.Cells `json:"edit,omitempty" doc:"What the good rows set; absent where they set nothing"`

	Unknown []UnknownName `json:"unknown" doc:"Names that the plan does not know, the first five hundred"`
	Names   []NameChoices `json:"names" doc:"What names of a sort can be, of those that are not known"`
	Makes   []edit.Edit   `json:"makes" doc:"What is made before the rows are set"`
}

// RowChange is what a row would change.
type RowChange struct {
	Line    int          `json:"line"`
	Channel string       `json:"channel" doc:"Name of the channel; of a new one that in the row"`
	New     bool         `json:"new" doc:"Whether the channel would be added"`
	Cells   []CellChange `json:"cells" doc:"Cells that would be different; of a new channel all that are not empty"`
}

// CellChange is a cell as it is and as it would be.
type CellChange struct {
	Column string `json:"column"`
	Old    string `json:"old"`
	New    string `json:"new"`
}

// mostRows is how many rows are told of one by one.
const mostRows = 500

// tell lists what the good rows would change. from are the lines of all rows that are not
// as the plan has it.
func (t *Table) tell(p, after *plan.Plan, cells *table.Cells, from []line, bad map[int]bool, places []place) {
	for i, row := range cells.Rows {
		if bad[i] || len(t.Rows) == mostRows {
			continue
		}
		change := RowChange{Line: from[i].at, New: row.Channel == "", Cells: []CellChange{}}
		var old, set []string
		if c := p.Channel(row.Channel); c != nil {
			change.Channel, old, set = c.Name, table.Texts(p, c), table.Texts(after, after.Channel(row.Channel))
		}
		for k, place := range places {
			was, is := "", row.Values[k]
			if old != nil {
				at := slices.IndexFunc(table.Columns, func(c table.Column) bool { return c.ID == place.column.ID })
				was, is = old[at], set[at]
			}
			if change.New && place.column.ID == "name" {
				change.Channel = row.Values[k]
			}
			if is != was {
				change.Cells = append(change.Cells, CellChange{place.heading, was, is})
			}
		}
		t.Rows = append(t.Rows, change)
	}
}

// BadCell is a cell that cannot be used.
type BadCell struct {
	Line   int    `json:"line" doc:"Line of the file, the heading being 1 in a workbook"`
	Column string `json:"column" doc:"Heading of the column; empty for the row as a whole"`
	Text   string `json:"text"`
	Reason string `json:"reason"`
}

// ReadTable reads a channel table, CSV with commas, semicolons or tabs, or XLSX, and
// holds it against a plan. A row is of the channel whose id it has, else of the one
// with its number on its recorder; any other is a new channel. The error says why
// the file is no table at all. What names mean that the plan does not know is said by names.
func ReadTable(ctx context.Context, data []byte, p *plan.Plan, names ...Name) (*Table, error) {
	lines, encoding, err := tableBudget.all(ctx, data)
	if err != nil {
		return nil, err
	}
	if len(lines) == 0 {
		return nil, errors.New("the file is empty")
	}
	t := &Table{Encoding: encoding, Rows: []RowChange{}, Columns: []string{}, Ignored: []string{}, Bad: []BadCell{}, Unknown: []UnknownName{},
		Names: []NameChoices{}}
	places, idAt := t.heading(lines[0])
	if len(places) == 0 {
		return nil, fmt.Errorf("line %d: no heading is known; the first line names the columns, such as %s", lines[0].at,
			strings.Join([]string{"No.", "Name", "Main stream Codec"}, ", "))
	}
	if len(places) == 1 && idAt < 0 {
		return nil,
			fmt.Errorf("line %d: of the headings only %q is known, and one column does not tell which channel a line is about; it takes two at least, such as No. and Name", lines[0].at, places[0].heading)
	}
	met := meet(p, lines[1:], places, names)
	if met.tell(p, t); ctx.Err() != nil {
		return nil, ctx.Err()
	}
	if p, t.Makes, err = met.made(p, lines[1:], places); err != nil {
		return nil, err
	}
	cells, from, err := t.changes(ctx, p, lines[1:], newFinder(p, idAt, places), met, places, t.habit(lines[1:], places))
	if err != nil {
		return nil, err
	}
	if len(cells.Rows) == 0 {
		return t, nil
	}
	after, bad := cells.Set(p)
	if after == nil {
		return nil, errors.New(bad[0].Reason)
	}
	if from = t.leaveOutSame(p, after, rowsOf(bad), cells, from); len(cells.Rows) == 0 {
		return t, nil
	}
	if ctx.Err() != nil {
		return nil, ctx.Err()
	}
	bad, good := cells.Try(p)
	for _, b := range bad {
		cell := BadCell{Line: from[b.Row].at, Reason: b.Reason}
		if b.Column >= 0 {
			cell.Column, cell.Text = places[b.Column].heading, cells.Rows[b.Row].Values[b.Column]
		}
		t.Bad = append(t.Bad, cell)
	}
	t.tell(p, after, cells, from, rowsOf(bad), places)
	t.makes(good)
	return t, nil
}

// makes takes the edit that makes what is good of the table, if any is, and counts its rows.
func (t *Table) makes(good *table.Cells) {
	if good == nil {
		return
	}
	t.Edit = good
	for _, row := range good.Rows {
		if row.Channel == "" {
			t.Added++
		} else {
			t.Changed++
		}
	}
}

// changes are the cells of the rows that are otherwise than in the plan, and the lines they come from.
func (t *Table) changes(ctx context.Context, p *plan.Plan, lines []line, find *finder, met *strangers,
	places []place, habit quantity.Habit) (*table.Cells, []line, error) {
	cells, from, seen := &table.Cells{}, []line(nil), make(map[string]int)
	for _, place := range places {
		cells.Columns = append(cells.Columns, place.column.ID)
	}
	for n, l := range lines {
		if n%looksAgain == 0 && ctx.Err() != nil {
			return nil, nil, ctx.Err()
		}
		if strings.TrimSpace(strings.Join(l.cells, "")) == "" {
			continue
		}
		row := table.CellRow{}
		channel := find.of(l, met)
		bad := len(t.Bad)
		for _, place := range places {
			text := met.cell(p, channel, place, l.cell(place.at))
			if place.column.Numeric {
				plain, err := habit.Plain(text)
				if err != nil {
					t.Bad = append(t.Bad, BadCell{l.at, place.heading, text, err.Error()})
				}
				text = plain
			}
			row.Values = append(row.Values, text)
		}
		if len(t.Bad) > bad {
			continue
		}
		if channel != nil {
			row.Channel = channel.ID
		}
		if first, twice := seen[row.Channel]; twice && row.Channel != "" {
			t.Bad = append(t.Bad, BadCell{l.at, "", "", fmt.Sprintf("the same channel as line %d", first)})
			continue
		}
		seen[row.Channel] = l.at
		if same(p, channel, row, places) {
			t.Same++
			continue
		}
		cells.Rows = append(cells.Rows, row)
		from = append(from, l)
	}
	return cells, from, ctx.Err()
}

// habit is how the file writes its numbers. A workbook has numbers that are written in no way.
func (t *Table) habit(lines []line, places []place) (h quantity.Habit) {
	for _, place := range places {
		for _, l := range lines {
			if place.column.Numeric && t.Encoding != "" {
				h.Learn(l.cell(place.at))
			}
		}
	}
	return h
}

// place is a column of the file that is understood.
type place struct {
	at      int
	column  *table.Column
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

func columnOf(heading string) *table.Column {
	name := plain(heading)
	old := func(c table.Column) table.Column { c.Title = c.Was; return c }
	for i := range table.Columns {
		c := &table.Columns[i]
		before := old(*c)
		if name == plain(c.FullTitle()) || name == strings.ToLower(c.ID) || c.Was != "" && name == plain(before.FullTitle()) {
			return c
		}
	}
	// Without what it is about a heading means the main stream.
	for i := range table.Columns {
		if c := &table.Columns[i]; name == plain(c.Title) || c.Was != "" && name == plain(c.Was) {
			return c
		}
	}
	return nil
}

// finder finds the channels that lines are about.
type finder struct {
	plan   *plan.Plan
	idAt   int
	places []place
	byID   map[string]*plan.Channel
	// Channels by their number on a recorder, which is known by its id, by its name in
	// small letters, and without any where there is one only.
	byNumber map[string]map[int]*plan.Channel
}

func newFinder(p *plan.Plan, idAt int, places []place) *finder {
	f := &finder{p, idAt, places, make(map[string]*plan.Channel, len(p.Channels)), make(map[string]map[int]*plan.Channel)}
	names := make(map[string]string, len(p.Recorders))
	for i := range p.Recorders {
		names[p.Recorders[i].ID] = strings.ToLower(p.Recorders[i].Name)
	}
	for i := range p.Channels {
		c := &p.Channels[i]
		f.byID[c.ID] = c
		f.number(c.Recorder, c)
		f.number(names[c.Recorder], c)
		if len(p.Recorders) == 1 {
			f.number("", c)
		}
	}
	return f
}

// number files a channel under its number, the first of a number being meant.
func (f *finder) number(recorder string, c *plan.Channel) {
	if f.byNumber[recorder] == nil {
		f.byNumber[recorder] = make(map[int]*plan.Channel)
	}
	if f.byNumber[recorder][c.Number] == nil {
		f.byNumber[recorder][c.Number] = c
	}
}

// of finds the channel that a line is about, nil for none.
func (f *finder) of(l line, met *strangers) *plan.Channel {
	if c := f.byID[strings.TrimSpace(l.cell(f.idAt))]; c != nil {
		return c
	}
	number, recorder := 0, ""
	for _, place := range f.places {
		switch place.column.ID {
		case "number":
			number, _ = strconv.Atoi(strings.TrimSpace(l.cell(place.at)))
		case "recorder":
			recorder = strings.TrimSpace(met.cell(f.plan, nil, place, l.cell(place.at)))
		}
	}
	if c := f.byNumber[recorder][number]; c != nil {
		return c
	}
	return f.byNumber[strings.ToLower(recorder)][number]
}

// rowsOf are the rows that have a bad cell.
func rowsOf(bad []table.CellError) map[int]bool {
	rows := make(map[int]bool)
	for _, b := range bad {
		rows[b.Row] = true
	}
	return rows
}

// leaveOutSame counts and leaves out the rows that set nothing, though a spreadsheet wrote
// their texts in other letters: 1920x1080, 900-4200, h265. It returns the lines of the rest.
func (t *Table) leaveOutSame(p, after *plan.Plan, bad map[int]bool, cells *table.Cells, from []line) []line {
	was := byID(p)
	is := byID(after)
	var rows []table.CellRow
	var lines []line
	for i, row := range cells.Rows {
		if c := was[row.Channel]; c != nil && !bad[i] && reflect.DeepEqual(c, is[row.Channel]) {
			t.Same++
			continue
		}
		rows, lines = append(rows, row), append(lines, from[i])
	}
	cells.Rows = rows
	return lines
}

func byID(p *plan.Plan) map[string]*plan.Channel {
	at := make(map[string]*plan.Channel, len(p.Channels))
	for i := range p.Channels {
		at[p.Channels[i].ID] = &p.Channels[i]
	}
	return at
}

// same tells whether a row says what the plan says already, to the letter.
func same(p *plan.Plan, c *plan.Channel, row table.CellRow, places []place) bool {
	if c == nil {
		return false
	}
	cells := table.Texts(p, c)
	for i, place := range places {
		at := 0
		for table.Columns[at].ID != place.column.ID {
			at++
		}
		if cells[at] != row.Values[i] {
			return false
		}
	}
	return true
}
