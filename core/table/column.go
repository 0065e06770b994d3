// Package table is the channel table: every channel as a row of texts, and what such texts
// set. What a column writes it can read, so a table that was written gives the same plan
// when it comes back.
package table

import (
	"errors"
	"fmt"
	"math"
	"strconv"
	"strings"

	"wakefield.example/core/plan"
	"wakefield.example/core/quantity"
)

// Column is one column of the channel table: how a setting of a channel is written
// as a text, and what such a text sets. What a column writes it can read, so a table
// that was exported gives the same plan when it comes back.
type Column struct {
	ID      string `json:"id"`
	Title   string `json:"title"`
	Group   string `json:"group" doc:"What the column is about"`
	Unit    string `json:"unit,omitempty"`
	Numeric bool   `json:"numeric,omitempty"`
	OfKind  bool   `json:"ofKind,omitempty" doc:"Whether a camera kind decides it"`
	Was     string `json:"-"` // its title in files written before

	get     func(p *plan.Plan, c *plan.Channel) string
	set     func(p *plan.Plan, c *plan.Channel, text string) error
	choices func(p *plan.Plan) []string
}

// Choices lists what may stand in the column; nil for anything.
func (c *Column) Choices(p *plan.Plan) []string {
	if c.choices == nil {
		return nil
	}
	return c.choices(p)
}

// Columns are the columns of the channel table, in order.
var Columns = withOldTitles(columns())

func columns() []Column {
	list := []Column{
		{ID: "number", Title: "No.", Group: "Channel", Numeric: true,
			get: func(_ *plan.Plan, c *plan.Channel) string { return strconv.Itoa(c.Number) },
			set: func(_ *plan.Plan, c *plan.Channel, text string) error { return setInt(&c.Number, text) }},
		{ID: "name", Title: "Name", Group: "Channel",
			get: func(_ *plan.Plan, c *plan.Channel) string { return c.Name },
			set: func(_ *plan.Plan, c *plan.Channel, text string) error { c.Name = text; return nil }},
		{ID: "group", Title: "Group", Group: "Channel",
			get:     func(_ *plan.Plan, c *plan.Channel) string { return c.Group },
			set:     func(_ *plan.Plan, c *plan.Channel, text string) error { c.Group = text; return nil },
			choices: groups},
		{ID: "recorder", Title: "Recorder", Group: "Channel", get: getRecorder, set: setRecorderName, choices: recorderNames},
		{ID: "pool", Title: "Pool", Group: "Channel", get: getPool, set: setPoolName, choices: poolNames},
		{ID: "camera", Title: "Camera", Group: "Channel", get: getCamera, set: setCamera, choices: fixed("yes", "none")},
		{ID: "kind", Title: "Camera kind", Group: "Channel",
			get:     func(p *plan.Plan, c *plan.Channel) string { return kindNames(p).name(c.Kind) },
			set:     setKindName,
			choices: func(p *plan.Plan) []string { return kindNames(p).all() }},
	}
	for _, which := range []plan.StreamName{plan.Main, plan.Sub, plan.Third} {
		list = append(list, streamColumns(which)...)
	}
	audio := number("audio", "Audio", "Keeping", "kbit/s", func(c *plan.Channel) *float64 { return &c.AudioKbps })
	audio.OfKind = true
	list = append(list, byColumn("streamsBy", "Streams set by", "Keeping", func(c *plan.Channel) *string { return &c.StreamsBy }), audio,
		number("pre", "Pre-event", "Keeping", "s", func(c *plan.Channel) *float64 { return &c.PreSeconds }),
		number("post", "Post-event", "Keeping", "s", func(c *plan.Channel) *float64 { return &c.PostSeconds }),
		optional("alarmPre", "Alarm pre-event", func(c *plan.Channel) **float64 { return &c.AlarmPreSeconds }),
		optional("alarmPost", "Alarm post-event", func(c *plan.Channel) **float64 { return &c.AlarmPostSeconds }),
		number("atLeast", "Keep at least", "Keeping", "d", func(c *plan.Channel) *float64 { return &c.Keep.AtLeastDays }),
		number("atMost", "Delete after", "Keeping", "d", func(c *plan.Channel) *float64 { return &c.Keep.AtMostDays }),
		number("quota", "Quota", "Keeping", "GB", func(c *plan.Channel) *float64 { return &c.Keep.QuotaGB }),
		activityColumn("activity", "Activity", func(c *plan.Channel) *string { return &c.Activity }),
		activityColumn("nuisance", "Nuisance", func(c *plan.Channel) *string { return &c.Nuisance }),
	)
	list = append(list, detectionColumns()...)
	list = append(list, Column{ID: "address", Title: "Camera address", Group: "Handover",
		get: func(_ *plan.Plan, c *plan.Channel) string { return c.Address },
		set: func(_ *plan.Plan, c *plan.Channel, text string) error { c.Address = text; return nil }})
	return append(list, Column{ID: "week", Title: "Week", Group: "Events", get: getWeek, set: setWeekName,
		choices: func(p *plan.Plan) []string { return append([]string{ownWeekText}, weekNames(p).all()...) }})
}

func withOldTitles(list []Column) []Column {
	for i := range list {
		list[i].Was = oldTitles[list[i].ID]
	}
	return list
}

// oldTitles are those that columns had before, by id: files that were written then are read.
var oldTitles = map[string]string{"atLeast": "Required", "atMost": "Permitted", "alarmPre": "Alarm pre", "alarmPost": "Alarm post",
	"main.size": "Size", "sub.size": "Size", "third.size": "Size"}

// ColumnOf finds a column by its id, nil where there is none.
func ColumnOf(id string) *Column {
	for i := range Columns {
		if Columns[i].ID == id {
			return &Columns[i]
		}
	}
	return nil
}

// Text is what stands in the column for a channel.
func (c *Column) Text(p *plan.Plan, of *plan.Channel) string { return c.get(p, of) }

// Texts writes a channel as a row of the table, one text for each column.
func Texts(p *plan.Plan, c *plan.Channel) []string {
	cells := make([]string, len(Columns))
	for i := range Columns {
		cells[i] = Columns[i].get(p, c)
	}
	return cells
}

// Departures lists the columns in which a channel differs from its camera kind.
func Departures(p *plan.Plan, c *plan.Channel) []string {
	kind := p.Kind(c.Kind)
	if kind == nil || c.NoCamera {
		return nil
	}
	like := *c
	kind.Onto(&like)
	var out []string
	for i := range Columns {
		if column := &Columns[i]; column.OfKind && column.get(p, c) != column.get(p, &like) {
			out = append(out, column.ID)
		}
	}
	return out
}

func fixed(values ...string) func(*plan.Plan) []string {
	return func(*plan.Plan) []string { return values }
}

func number(id, title, group, unit string, at func(*plan.Channel) *float64) Column {
	return Column{ID: id, Title: title, Group: group, Unit: unit, Numeric: true,
		get: func(_ *plan.Plan, c *plan.Channel) string { return figure(*at(c)) },
		set: func(_ *plan.Plan, c *plan.Channel, text string) error { return setFloat(at(c), text, unit) }}
}

// optional is a number of seconds whose absence means the same as for motion.
func optional(id, title string, at func(*plan.Channel) **float64) Column {
	return Column{ID: id, Title: title, Group: "Keeping", Unit: "s", Numeric: true,
		get: func(_ *plan.Plan, c *plan.Channel) string {
			if *at(c) == nil {
				return ""
			}
			return strconv.FormatFloat(**at(c), 'f', -1, 64)
		},
		set: func(_ *plan.Plan, c *plan.Channel, text string) error {
			if text == "" {
				*at(c) = nil
				return nil
			}
			v := new(float64)
			*at(c) = v
			return setFloat(v, text, "s")
		}}
}

// figure writes a number; nothing for zero.
func figure(f float64) string {
	if f == 0 {
		return ""
	}
	return strconv.FormatFloat(f, 'f', -1, 64)
}

// setFloat reads a number, with or without its unit. An empty text is zero.
func setFloat(into *float64, text, unit string) error {
	if text == "" {
		*into = 0
		return nil
	}
	f, err := quantity.Read(text, unit)
	if err == nil {
		*into = f
	}
	return err
}

// setNeeded is [setFloat] of a number that has to be there.
func setNeeded(into *float64, text, unit string) error {
	if text == "" {
		return errEmpty
	}
	return setFloat(into, text, unit)
}

// errEmpty says that something has to stand in a cell.
var errEmpty = errors.New("empty")

func setInt(into *int, text string) error {
	if text == "" {
		return errEmpty
	}
	f, err := quantity.Read(text, "")
	if err != nil {
		return err
	}
	if f != math.Trunc(f) || math.Abs(f) > 1e9 {
		return fmt.Errorf("“%s” is not a whole number", text)
	}
	*into = int(f)
	return nil
}

// FullTitle is the title with what it is about, where that is needed to know it.
func (c *Column) FullTitle() string {
	if strings.Contains(c.Group, "stream") {
		return c.Group + " " + c.Title
	}
	return c.Title
}
