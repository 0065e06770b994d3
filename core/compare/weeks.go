package compare

import (
	"fmt"

	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// weekOf says how the week of a channel differs: another that it follows, or other duties.
func (c *comparer) weekOf(a, b plan.WeekRef) []string {
	named := func(p *plan.Plan, r plan.WeekRef) string {
		if r.IsOwn() {
			return "a week of its own"
		}
		if w := p.Week(r.Named); w != nil {
			return "the week " + w.Name
		}
		return "the week " + r.Named
	}
	out := c.weeks(a.In(c.a), b.In(c.b))
	if was, is := named(c.a, a), named(c.b, b); was != is {
		out = append(out, "follows "+is+" instead of "+was)
	}
	return out
}

// mostPairs of duties are told of one week.
const mostPairs = 4

// weeks says which duties take the place of which, and when.
func (c *comparer) weeks(a, b *plan.OwnWeek) (out []string) {
	was, is := a.Steps(), b.Steps()
	var pairs []week.Pair[string, string]
	both := week.Both(was, is)
	minutes := make(map[week.Pair[string, string]]bool)
	for _, step := range both {
		if p := step.Value; p.A != p.B && !minutes[p] {
			minutes[p] = true
			pairs = append(pairs, p)
		}
	}
	for k, p := range pairs {
		if k == mostPairs {
			return append(out, fmt.Sprintf("and %d more", len(pairs)-k))
		}
		when := plan.HoursInWords(plan.HoursWhere(week.Map(both, func(x week.Pair[string, string]) bool { return x == p })))
		out = append(out, fmt.Sprintf("%s instead of %s, %s", dutyName(c.b, p.B), dutyName(c.a, p.A), when))
	}
	if out == nil {
		return []string{"the week written otherwise, the same at every hour"}
	}
	return out
}

func dutyName(p *plan.Plan, id string) string {
	if d := p.Duty(id); d != nil {
		return d.Name
	}
	return id
}
