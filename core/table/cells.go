package table

import (
	"errors"
	"fmt"
	"slices"
	"strings"

	"wakefield.example/core/document"
	"wakefield.example/core/plan"
	"wakefield.example/core/quantity"
)

// Cells are texts for cells of the table: the same few columns on any number of rows. A row
// without a channel is one to add.
type Cells struct {
	Columns []string  `json:"columns" minItems:"1" maxItems:"100" doc:"Ids of the columns"`
	Rows    []CellRow `json:"rows" minItems:"1" maxItems:"5000"`
}

// CellRow is one row of texts, one for each column.
type CellRow struct {
	Channel string   `json:"channel,omitempty" maxLength:"100" doc:"Id of the channel; absent for a new one"`
	Values  []string `json:"values" maxItems:"100"`
}

// CellError is a cell that cannot be set. Column is -1 where the row as a whole is
// wrong.
type CellError struct {
	Row    int    `json:"row"`
	Column int    `json:"column"`
	Reason string `json:"reason"`
}

// Try tells which cells cannot be set, and the cells without their rows; nil
// where no row is left.
func (e *Cells) Try(p *plan.Plan) ([]CellError, *Cells) {
	if err := document.Check("", e); err != nil {
		return []CellError{{Row: 0, Column: -1, Reason: err.Error()}}, nil
	}
	_, errors := e.Set(p)
	bad := make(map[int]bool)
	for _, err := range errors {
		bad[err.Row] = true
	}
	good := &Cells{Columns: e.Columns}
	for i, row := range e.Rows {
		if !bad[i] {
			good.Rows = append(good.Rows, row)
		}
	}
	if len(good.Rows) == 0 {
		return errors, nil
	}
	return errors, good
}

// Set sets every row it can, and tells which cells cannot be set; of a row with such a cell
// nothing is set. p stays as it is. The new plan is nil where a column is none.
func (e *Cells) Set(p *plan.Plan) (*plan.Plan, []CellError) {
	var errors []CellError
	// Columns are set in their own order, so that a camera kind comes before what
	// departs from it and a bitrate before where it is known from.
	order := make([]int, 0, len(e.Columns))
	columns := make([]*Column, len(e.Columns))
	for i, id := range e.Columns {
		if columns[i] = ColumnOf(id); columns[i] == nil {
			return nil, []CellError{{Row: 0, Column: i, Reason: fmt.Sprintf("no column %q", id)}}
		}
		order = append(order, i)
	}
	slices.SortStableFunc(order, func(a, b int) int {
		at := func(i int) int { return slices.IndexFunc(Columns, func(c Column) bool { return c.ID == e.Columns[i] }) }
		return at(a) - at(b)
	})
	next := *p
	next.Channels = slices.Clone(p.Channels)
	// Both are found once some channel is made: a table may make thousands.
	var ids *plan.IDs
	var taken numbers
	for i, row := range e.Rows {
		var c plan.Channel
		at := -1
		if row.Channel == "" {
			if taken == nil {
				taken = numbersOf(&next)
			}
			fresh, err := newChannel(&next, taken)
			if err != nil {
				errors = append(errors, CellError{i, -1, err.Error()})
				continue
			}
			c = fresh
		} else if at = slices.IndexFunc(next.Channels, func(c plan.Channel) bool { return c.ID == row.Channel }); at >= 0 {
			c = next.Channels[at]
		} else {
			errors = append(errors, CellError{i, -1, fmt.Sprintf("no channel %q", row.Channel)})
			continue
		}
		wrongCells := setRow(&next, &c, columns, order, row.Values, row.Channel == "")
		for _, bad := range wrongCells {
			errors = append(errors, CellError{i, bad.Column, bad.Reason})
		}
		if len(wrongCells) > 0 {
			continue
		}
		if at < 0 {
			if ids == nil {
				taken := make(map[string]bool, len(next.Channels))
				for k := range next.Channels {
					taken[next.Channels[k].ID] = true
				}
				ids = plan.NewIDs(taken)
			}
			c.ID = ids.Take(c.Name, "channel")
			next.Channels = append(next.Channels, c)
			taken.add(&c)
		} else {
			next.Channels[at] = c
			taken = nil // a number may be free now
		}
	}
	return &next, errors
}

// setRow sets the cells of one channel.
func setRow(p *plan.Plan, c *plan.Channel, columns []*Column, order []int, values []string, fresh bool) []CellError {
	if len(values) != len(columns) {
		return []CellError{{Column: -1, Reason: plan.Count(len(values), "cell") + " for " + plan.Count(len(columns), "column")}}
	}
	var wrongCells []CellError
	for _, i := range order {
		text := strings.TrimSpace(values[i])
		if text == columns[i].Text(p, c) || values[i] == columns[i].Text(p, c) {
			continue
		}
		before := *c
		err := columns[i].set(p, c, text)
		if err == nil {
			err = document.Check("", c)
		}
		if err != nil && text == "" && (fresh || c.NoCamera) {
			*c = before // nothing is said of it: a new channel has what is usual, and one without a camera needs nothing
			continue
		}
		if wrong, ok := err.(*document.Error); ok {
			err = errors.New(columns[i].wrong(wrong.Reason, text))
		}
		if err != nil {
			wrongCells = append(wrongCells, CellError{Column: i, Reason: err.Error()})
			*c = before
		}
	}
	if len(wrongCells) == 0 {
		if k := c.Keep; k.AtMostDays > 0 && k.AtLeastDays > k.AtMostDays {
			at := -1 // the cell that was set; of two the last
			for i, column := range columns {
				if column.ID == "atLeast" || column.ID == "atMost" {
					at = i
				}
			}
			wrongCells = append(wrongCells, CellError{Column: at, Reason: plan.Say("%v days at least but %v at most", k.AtLeastDays, k.AtMostDays)})
		}
	}
	return wrongCells
}

// wrong is why a text may not stand in the column. Of one that was typed with a unit, "90 min" say, the limit is told in the
// column's: the number that it came to is nobody's.
func (c *Column) wrong(reason, text string) string {
	_, limit, ok := strings.Cut(reason, " is ")
	if _, err := quantity.Read(text, ""); !ok || err == nil || c.Unit == "" {
		return reason
	}
	return fmt.Sprintf("“%s” is %s %s", text, limit, c.Unit)
}

// newChannel is the next channel of the plan before anything is known of it: like the
// last one that has a camera, except that nothing measured there is known here.
func newChannel(p *plan.Plan, taken numbers) (plan.Channel, error) {
	c := plan.Channel{ID: "new", Name: "Camera", Streams: plan.Streams{Main: plan.PlainStream(plan.Main),
		Sub: plan.PlainStream(plan.Sub)}, PreSeconds: 5, PostSeconds: 10, Detection: plan.Detection{On: true}}
	reliability := plan.GuessedReliability
	c.Detection.Reliability = &reliability
	for _, r := range p.Recorders {
		if len(r.Pools) > 0 {
			c.Recorder, c.Pool = r.ID, r.Pools[0].ID
			break
		}
	}
	switch {
	case len(p.Weeks) > 0:
		c.Week = plan.WeekRef{Named: p.Weeks[0].ID}
	case len(p.Duties) > 0:
		c.Week = plan.WeekRef{Own: &plan.OwnWeek{Otherwise: p.Duties[0].ID}}
	}
	for i := len(p.Channels) - 1; i >= 0; i-- {
		if like := p.Channels[i]; !like.NoCamera {
			c = like
			c.ID, c.Nuisance, c.Detection.Areas, c.Scene, c.Movable, c.Stills = "new", "", nil, nil, nil, nil
			c.Streams = plan.Streams{Main: unmeasured(like.Streams.Main), Sub: unmeasured(like.Streams.Sub), Third: unmeasured(like.Streams.Third)}
			break
		}
	}
	if c.Pool == "" {
		return c, fmt.Errorf("there is no recorder with a pool of drives yet; make one first")
	}
	if c.Week == (plan.WeekRef{}) {
		return c, fmt.Errorf("there is no duty yet; make one first")
	}
	c.Number = taken.free(c.Recorder)
	c.Name = fmt.Sprintf("Camera %d", c.Number)
	return c, nil
}

// unmeasured is a stream with the same settings whose bitrate is only a guess.
func unmeasured(s *plan.Stream) *plan.Stream {
	s = s.Clone()
	if s != nil {
		s.KeyframeKB = 0
		if s.Rate.Known != "" {
			s.Rate.Known = "guess"
		}
	}
	return s
}

// numbers are those that the channels of each recorder have.
type numbers map[string]map[int]bool

func numbersOf(p *plan.Plan) numbers {
	n := make(numbers)
	for i := range p.Channels {
		n.add(&p.Channels[i])
	}
	return n
}

func (n numbers) add(c *plan.Channel) {
	if n[c.Recorder] == nil {
		n[c.Recorder] = make(map[int]bool)
	}
	n[c.Recorder][c.Number] = true
}

// free is the lowest number that no channel of a recorder has.
func (n numbers) free(recorder string) int {
	lowest := 1
	for n[recorder][lowest] {
		lowest++
	}
	return lowest
}
