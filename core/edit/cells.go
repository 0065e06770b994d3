package edit

import (
	"fmt"
	"slices"
	"strings"

	"wakefield.example/core/document"
	"wakefield.example/core/plan"
	"wakefield.example/core/table"
)

// SetCells sets cells of the channel table, as texts.
type SetCells struct {
	table.Cells
}

func (e *SetCells) apply(p *plan.Plan) (*plan.Plan, error) {
	next, errors := e.Set(p)
	if len(errors) > 0 {
		first := errors[0]
		path := fmt.Sprintf("rows[%d]", first.Row)
		if first.Column >= 0 {
			path += fmt.Sprintf(".values[%d]", first.Column)
		}
		return nil, document.Wrong(path, "%s", first.Reason)
	}
	return next, nil
}

func (e *SetCells) sentence(p *plan.Plan) string {
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
		if c := table.ColumnOf(id); c != nil {
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
		parts = append(parts, names(p, ids)+": "+what)
	}
	if added == 1 {
		parts = append(parts, "Channel added")
	} else if added > 1 {
		parts = append(parts, fmt.Sprintf("%d channels added", added))
	}
	return strings.Join(parts, "; ")
}

// same tells whether all rows say the same.
func same(rows []table.CellRow) bool {
	return !slices.ContainsFunc(rows, func(r table.CellRow) bool { return !slices.Equal(r.Values, rows[0].Values) }) &&
		len(rows[0].Values) == 1
}
