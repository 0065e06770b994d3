package table_test

import (
	"fmt"
	"strings"
	"testing"

	"wakefield.example/core/plan/plantest"
	"wakefield.example/core/table"
)

// TestWhatCellsSay holds the cells of several plans, what a channel departs from its kind in, what usually stands in a column and
// the names that can be chosen.
func TestWhatCellsSay(t *testing.T) {
	var text strings.Builder
	for i := range table.Columns {
		c := &table.Columns[i]
		fmt.Fprintf(&text, "%s: %q in %q, %q, numeric %t, of a kind %t, one of %q\n", c.ID, c.FullTitle(), c.Group, c.Unit, c.Numeric, c.OfKind,
			c.Choices(plantest.Whole(t)))
	}
	for _, s := range plantest.Samples(t) {
		for i := range s.Plan.Channels {
			c := &s.Plan.Channels[i]
			fmt.Fprintf(&text, "%s, %s: %q departs in %q\n", s.Name, c.ID, table.Texts(s.Plan, c), table.Departures(s.Plan, c))
		}
		sorts := make(map[string]bool)
		for i := range table.Columns {
			c := &table.Columns[i]
			if i < 40 && table.Usual(s.Plan, c) != "" {
				fmt.Fprintf(&text, "  %s: usually %q\n", c.FullTitle(), table.Usual(s.Plan, c))
			}
			if sort := c.Sort(); sort != "" && !sorts[sort] {
				sorts[sort] = true
				ids, names := table.Named(s.Plan, sort)
				fmt.Fprintf(&text, "  %s: %q %q\n", sort, ids, names)
			}
		}
	}
	plantest.Said(t, "cells", text.String())
}

// TestWhatCellsTake types texts of all kinds into every column of a channel, and holds what stands there then, or why it does not.
func TestWhatCellsTake(t *testing.T) {
	p := plantest.Whole(t)
	var text strings.Builder
	texts := []string{"", "nobody", "-1", "0", "3", "0.5", "1,5", "1,500", "1000000000", "yes", "off", "12 s", "90 days", "H.264", "1920x1080",
		"640 × 360", "800-3000", "quality 2, busy", "Mon 08:00-12:00", "measured"}
	for i := range table.Columns {
		id := table.Columns[i].ID
		for _, typed := range texts {
			cells := table.Cells{Columns: []string{id}, Rows: []table.CellRow{{Channel: "c2", Values: []string{typed}}}}
			next, bad := cells.Set(p)
			switch {
			case bad != nil:
				fmt.Fprintf(&text, "%s %q: %v\n", id, typed, bad)
			case next.Check() != nil:
				fmt.Fprintf(&text, "%s %q: makes no plan: %v\n", id, typed, next.Check())
			default:
				fmt.Fprintf(&text, "%s %q is %q\n", id, typed, table.Texts(next, next.Channel("c2"))[i])
			}
		}
	}
	plantest.Said(t, "taken", text.String())
}
