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
