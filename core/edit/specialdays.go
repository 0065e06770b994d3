package edit

import (
	"fmt"
	"slices"

	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// SetSpecialDays sets all special days of the site.
type SetSpecialDays struct {
	Days []plan.SpecialDay `json:"days" maxItems:"2000"`
}

func (e *SetSpecialDays) apply(p *plan.Plan) (*plan.Plan, error) {
	next := *p
	next.Site.SpecialDays = e.Days
	return &next, nil
}

func (e *SetSpecialDays) sentence(p *plan.Plan) string {
	was := p.Site.SpecialDays
	added := slices.DeleteFunc(slices.Clone(e.Days), func(d plan.SpecialDay) bool {
		return slices.ContainsFunc(was, func(o plan.SpecialDay) bool { return equalDays(d, o) })
	})
	removed := slices.DeleteFunc(slices.Clone(was), func(d plan.SpecialDay) bool {
		return slices.ContainsFunc(e.Days, func(o plan.SpecialDay) bool { return equalDays(d, o) })
	})
	switch {
	case len(added) == 1 && len(removed) == 0:
		return "Special day added: " + specialDayInWords(added[0])
	case len(added) == 1 && len(removed) == 1:
		return "Special day changed: " + specialDayInWords(added[0])
	case len(added) == 0 && len(removed) == 1:
		return "Special day removed: " + specialDayInWords(removed[0])
	case len(added) == 0 && len(removed) == 0:
		return "Special days: another order, which decides what applies on a date that two of them share"
	}
	return fmt.Sprintf("Special days: %d added, %d removed", len(added), len(removed))
}

func specialDayInWords(d plan.SpecialDay) string {
	when := d.From.String()
	if d.To != d.From {
		when += " to " + d.To.String()
	}
	if d.Yearly {
		when += ", every year"
	}
	if d.ActivityDay != nil {
		when += ", what happens as on " + d.ActivityDay.Name()
	}
	if d.RateFactor != nil {
		when += fmt.Sprintf(", %v times as much happens", *d.RateFactor)
	}
	return d.Name + ", " + when
}

func equalDays(d, e plan.SpecialDay) bool {
	same := func(a, b *week.Weekday) bool { return a == nil && b == nil || a != nil && b != nil && *a == *b }
	sameDay := same(d.UseDay, e.UseDay) && same(d.ActivityDay, e.ActivityDay)
	sameRate := (d.RateFactor == nil) == (e.RateFactor == nil) && plan.Or(d.RateFactor, 1) == plan.Or(e.RateFactor, 1)
	return sameDay && sameRate && d.From == e.From && d.To == e.To && d.Name == e.Name && d.Week == e.Week && d.Yearly == e.Yearly
}
