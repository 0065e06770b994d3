package formats

import (
	"context"
	"errors"
	"slices"
	"strings"

	"wakefield.example/core/measured"
	"wakefield.example/core/plan"
)

// whose are the columns that say which channel a line is about, and nothing of how it is set.
var whose = []string{"number", "name", "group", "recorder", "pool", "camera", "kind", "address"}

// settings reads a channel table as a recorder has it.
func (r *foundReader) settings(ctx context.Context, data []byte) error {
	lines, _, err := tableBudget.all(ctx, data)
	if err != nil {
		return err
	}
	t := &Table{}
	places, idAt := t.heading(lines[0])
	if len(t.Ignored) > 0 {
		r.Notes = append(r.Notes, "Columns that are no settings of a channel: "+strings.Join(t.Ignored, ", ")+".")
	}
	met := meet(r.plan, lines[1:], places, nil)
	find := newFinder(r.plan, idAt, places)
	for _, l := range lines[1:] {
		if strings.TrimSpace(strings.Join(l.cells, "")) == "" {
			continue
		}
		c := find.of(l, met)
		if c == nil {
			c = r.plan.Channel(channelOf(r.plan, r.nameIn(l, places)))
		}
		if c == nil {
			r.bad(l, "", "no channel of the plan", strings.Join(l.cells, " "))
			continue
		}
		k, differs := r.channel(c.Name), 0
		r.Channels[k].Channel = c.ID
		for _, p := range places {
			text := strings.TrimSpace(l.cell(p.at))
			if slices.Contains(whose, p.column.ID) || text == "" {
				continue
			}
			r.Data.Settings = append(r.Data.Settings, measured.Setting{Channel: c.ID, Column: p.column.ID, Text: text})
			if !strings.EqualFold(text, p.column.Text(r.plan, c)) {
				differs++
			}
		}
		r.Channels[k].Says = plan.Count(differs, "setting") + " otherwise than planned"
	}
	if len(r.Data.Settings) == 0 {
		return errors.New("no line of it says how a channel of the plan is set")
	}
	return nil
}

// nameIn is the name that a line gives its channel.
func (r *foundReader) nameIn(l line, places []place) string {
	for _, p := range places {
		if p.column.ID == "name" {
			return l.cell(p.at)
		}
	}
	return ""
}
