package table

import (
	"slices"
	"strings"

	"wakefield.example/core/plan"
)

// Columns whose cells name other things of the plan say of which sort these are: recorder, pool, kind, week or
// activity; and group, which a cell makes by naming it.

// Named lists the names of the things of a sort, as cells write them, and their ids; of groups both are the name.
func Named(p *plan.Plan, sort string) (ids, names []string) {
	if sort == "group" {
		all := groups(p)
		return all, all
	}
	n := list(p, sort)
	return n.ids, n.all()
}

func list(p *plan.Plan, sort string) nameList {
	switch sort {
	case "recorder":
		return recorderNameList(p)
	case "pool":
		return poolNameList(p, "")
	case "kind":
		return kindNames(p)
	case "activity":
		return activityNames(p)
	case "week":
		return weekNames(p)
	}
	return nameList{}
}

// Sort is what sort of thing the column names; empty for a column that names none.
func (c *Column) Sort() string {
	switch c.ID {
	case "recorder", "pool", "kind", "week", "group":
		return c.ID
	case "activity", "nuisance":
		return "activity"
	}
	return ""
}

// Knows tells whether the plan has what a text of the column names. Where it has several of the name, it does: which is
// meant is another question, and the cell is refused with it.
func (c *Column) Knows(p *plan.Plan, text string) bool {
	text = strings.TrimSpace(text)
	sort := c.Sort()
	if text == "" || sort == "" || c.ID == "week" && text == ownWeekText {
		return true
	}
	if sort == "group" {
		return slices.Contains(groups(p), text)
	}
	n := list(p, sort)
	return slices.Contains(n.ids, text) || slices.ContainsFunc(n.names,
		func(name string) bool { return strings.EqualFold(strings.TrimSpace(name), text) })
}

// Usual is what stands in a column of the next new channel before anything is said of it; empty where no channel can be
// made, and for what a camera looks at and its kind, of which nothing is usual.
func Usual(p *plan.Plan, c *Column) string {
	if sort := c.Sort(); sort == "activity" || sort == "kind" {
		return ""
	}
	fresh, err := newChannel(p, numbersOf(p))
	if err != nil {
		return ""
	}
	return c.Text(p, &fresh)
}
