package check

import (
	"fmt"
	"slices"
	"time"

	"wakefield.example/core/edit"
)

// hiddenDays finds special days that never hold, as others of the same dates do.
func hiddenDays(c *site) {
	days := c.plan.Site.SpecialDays
	for _, h := range c.plan.Site.Calendar().HiddenRanges() {
		day, by := days[h.Range], days[h.By]
		last := slices.Delete(slices.Clone(days), h.Range, h.Range+1)
		c.found = append(c.found, Finding{Rule: "special-day-hidden", Severity: Warning, Path: fmt.Sprintf("site.specialDays[%d]", h.Range),
			Sentence: fmt.Sprintf("“%s” has no effect: on %s “%s” is lower in the list.", day.Name, h.On.At(0, time.UTC).Format("2 Jan 2006"),
				by.Name),
			Reason: "Of several special days of one date the later in the list applies, with its duties and its factor; the others count for nothing then.",
			Fix:    fix(fmt.Sprintf("Let “%s” apply", day.Name), edit.Edit{SetSpecialDays: &edit.SetSpecialDays{Days: append(last, day)}}),
		})
	}
}
