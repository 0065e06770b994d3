package plan

import (
	"fmt"
	"regexp"
	"slices"
	"strings"
)

// SetCells sets cells of the channel table, as texts: the same few columns on any
// number of rows. A row without a channel adds one.
type SetCells struct {
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

func (e *SetCells) apply(p *Plan) (*Plan, error) {
	next, errors := e.set(p)
	if len(errors) > 0 {
		first := errors[0]
		path := fmt.Sprintf("rows[%d]", first.Row)
		if first.Column >= 0 {
			path += fmt.Sprintf(".values[%d]", first.Column)
		}
		return nil, wrong(path, "%s", first.Reason)
	}
	return next, nil
}

// Try tells which cells cannot be set, and the same edit without their rows; nil
// where no row is left.
func (e *SetCells) Try(p *Plan) ([]CellError, *SetCells) {
	if err := checkValue(e); err != nil {
		return []CellError{{Row: 0, Column: -1, Reason: err.Error()}}, nil
	}
	_, errors := e.set(p)
	bad := make(map[int]bool)
	for _, err := range errors {
		bad[err.Row] = true
	}
	good := &SetCells{Columns: e.Columns}
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

// Attempt sets every row it can, and tells which cells cannot be set. What is left of a
// row with a bad cell is not set. The plan is nil where a column is none.
func (e *SetCells) Attempt(p *Plan) (*Plan, []CellError) { return e.set(p) }

// set sets every cell it can.
func (e *SetCells) set(p *Plan) (*Plan, []CellError) {
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
	for i, row := range e.Rows {
		var c Channel
		at := -1
		if row.Channel == "" {
			fresh, err := next.newChannel()
			if err != nil {
				errors = append(errors, CellError{i, -1, err.Error()})
				continue
			}
			c = fresh
		} else if at = slices.IndexFunc(next.Channels, func(c Channel) bool { return c.ID == row.Channel }); at >= 0 {
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
			c.ID = next.freeID(c.Name)
			next.Channels = append(next.Channels, c)
		} else {
			next.Channels[at] = c
		}
	}
	return &next, errors
}

// setRow sets the cells of one channel.
func setRow(p *Plan, c *Channel, columns []*Column, order []int, values []string, fresh bool) []CellError {
	if len(values) != len(columns) {
		return []CellError{{Column: -1, Reason: fmt.Sprintf("%d cells for %d columns", len(values), len(columns))}}
	}
	var errors []CellError
	for _, i := range order {
		text := strings.TrimSpace(values[i])
		if text == columns[i].get(p, c) || values[i] == columns[i].get(p, c) {
			continue
		}
		before := *c
		err := columns[i].set(p, c, text)
		if err == nil {
			err = checkValue(c)
		}
		if err != nil && text == "" && fresh {
			*c = before // nothing is said of it: a new channel has what is usual
			continue
		}
		if wrong, ok := err.(*Error); ok {
			err = fmt.Errorf("%s", wrong.Reason)
		}
		if err != nil {
			errors = append(errors, CellError{Column: i, Reason: err.Error()})
			*c = before
		}
	}
	if len(errors) == 0 {
		if k := c.Keep; k.AtMostDays > 0 && k.AtLeastDays > k.AtMostDays {
			errors = append(errors, CellError{Column: -1, Reason: fmt.Sprintf("%v days at least but %v at most", k.AtLeastDays, k.AtMostDays)})
		}
	}
	return errors
}

// newChannel is the next channel of the plan before anything is known of it: like the
// last one that has a camera, except that nothing measured there is known here.
func (p *Plan) newChannel() (Channel, error) {
	c := Channel{ID: "new", Name: "Camera", Streams: Streams{Main: PlainStream(Main), Sub: PlainStream(Sub)}, PreSeconds: 5, PostSeconds: 10, Detection: Detection{On: true}}
	for _, r := range p.Recorders {
		if len(r.Pools) > 0 {
			c.Recorder, c.Pool = r.ID, r.Pools[0].ID
			break
		}
	}
	switch {
	case len(p.Weeks) > 0:
		c.Week = WeekRef{Named: p.Weeks[0].ID}
	case len(p.Duties) > 0:
		c.Week = WeekRef{Own: &OwnWeek{Otherwise: p.Duties[0].ID}}
	}
	for i := len(p.Channels) - 1; i >= 0; i-- {
		if like := p.Channels[i]; !like.NoCamera {
			c = like
			c.ID, c.Nuisance, c.Detection.Areas = "new", "", nil
			c.Streams = Streams{like.Streams.Main.unmeasured(), like.Streams.Sub.unmeasured(), like.Streams.Third.unmeasured()}
			break
		}
	}
	if c.Pool == "" {
		return c, fmt.Errorf("there is no recorder with a pool of drives yet; make one first")
	}
	if c.Week == (WeekRef{}) {
		return c, fmt.Errorf("there is no duty yet; make one first")
	}
	c.Number = p.freeNumber(c.Recorder)
	c.Name = fmt.Sprintf("Camera %d", c.Number)
	return c, nil
}

// unmeasured is a stream with the same settings whose bitrate is only a guess.
func (s *Stream) unmeasured() *Stream {
	s = copied(s)
	if s != nil {
		s.KeyframeKB = 0
		if s.Rate.Known != "" {
			s.Rate.Known = "guess"
		}
	}
	return s
}

// freeNumber is the lowest number that no channel of the recorder has.
func (p *Plan) freeNumber(recorder string) int {
	taken := make(map[int]bool)
	for i := range p.Channels {
		if p.Channels[i].Recorder == recorder {
			taken[p.Channels[i].Number] = true
		}
	}
	n := 1
	for taken[n] {
		n++
	}
	return n
}

var notInID = regexp.MustCompile(`[^a-z0-9]+`)

// Slug makes an id of a name: small letters, digits and hyphens.
func Slug(name string) string {
	slug := strings.Trim(notInID.ReplaceAllString(strings.ToLower(name), "-"), "-")
	if len(slug) > 40 {
		slug = strings.TrimRight(slug[:40], "-")
	}
	return slug
}

// freeID makes an id for a channel from its name.
func (p *Plan) freeID(name string) string {
	slug := Slug(name)
	if slug == "" {
		slug = "channel"
	}
	id := slug
	for n := 2; p.Channel(id) != nil; n++ {
		id = fmt.Sprintf("%s-%d", slug, n)
	}
	return id
}

func (e *SetCells) sentence(p *Plan) string {
	var ids, titles []string
	added := 0
	for _, row := range e.Rows {
		if row.Channel == "" {
			added++
		} else {
			ids = append(ids, row.Channel)
		}
	}
	for _, id := range e.Columns {
		if c := ColumnOf(id); c != nil {
			titles = append(titles, strings.ToLower(c.FullTitle()))
		}
	}
	what := strings.Join(titles, ", ")
	if len(titles) > 3 {
		what = fmt.Sprintf("%d settings", len(titles))
	}
	if len(titles) == 1 && same(e.Rows) {
		text := e.Rows[0].Values[0]
		if text == "" {
			text = "nothing"
		}
		what += " " + text
	}
	var parts []string
	if len(ids) > 0 {
		parts = append(parts, p.names(ids)+": "+what)
	}
	if added == 1 {
		parts = append(parts, "Channel added")
	} else if added > 1 {
		parts = append(parts, fmt.Sprintf("%d channels added", added))
	}
	return strings.Join(parts, "; ")
}

// same tells whether all rows say the same.
func same(rows []CellRow) bool {
	return !slices.ContainsFunc(rows, func(r CellRow) bool { return !slices.Equal(r.Values, rows[0].Values) }) && len(rows[0].Values) == 1
}

// FullTitle is the title with what it is about, where that is needed to know it.
func (c *Column) FullTitle() string {
	if strings.Contains(c.Group, "stream") {
		return c.Group + " " + c.Title
	}
	return c.Title
}
