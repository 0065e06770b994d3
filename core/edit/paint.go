package edit

import (
	"fmt"
	"slices"
	"strings"

	"wakefield.example/core/document"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// Paint gives channels a duty over some hours. A channel that follows a named week
// departs from it and has a week of its own from then on, unless Shared is set:
// then the named week itself is painted, for all that follow it. Weeks paints named
// weeks whether or not anybody follows them.
type Paint struct {
	Channels []string     `json:"channels,omitempty" maxItems:"5000"`
	Weeks    []string     `json:"weeks,omitempty" maxItems:"5000" doc:"Ids of named weeks to paint"`
	Hours    []plan.Hours `json:"hours" minItems:"1" maxItems:"1000"`
	Duty     string       `json:"duty" minLength:"1" maxLength:"100"`
	Shared   bool         `json:"shared,omitempty" doc:"Paint the named weeks that the channels follow, for all that follow them"`
}

func (e *Paint) apply(p *plan.Plan) (*plan.Plan, error) {
	if p.Duty(e.Duty) == nil {
		return nil, document.Wrong("duty", "no duty %q", e.Duty)
	}
	spans, err := plan.SpansOf(e.Hours)
	if err != nil {
		return nil, err
	}
	weeks := slices.Clone(p.Weeks)
	painted := make(map[string]bool)
	for i, id := range e.Weeks {
		at := weekIndex(p, id)
		if at < 0 {
			return nil, document.Wrong(fmt.Sprintf("weeks[%d]", i), "no week %q", id)
		}
		painted[id] = true
		weeks[at].OwnWeek = *paint(&weeks[at].OwnWeek, spans, e.Duty)
	}
	if len(e.Channels) == 0 && len(e.Weeks) > 0 {
		next := *p
		next.Weeks = weeks
		return &next, nil
	}
	next, err := eachChannel(p, e.Channels, func(c *plan.Channel) error {
		if e.Shared && !c.Week.IsOwn() {
			if i := weekIndex(p, c.Week.Named); i >= 0 && !painted[c.Week.Named] {
				painted[c.Week.Named] = true
				weeks[i].OwnWeek = *paint(&weeks[i].OwnWeek, spans, e.Duty)
			}
			return nil
		}
		c.Week = plan.WeekRef{Own: paint(p.WeekOf(c), spans, e.Duty)}
		return nil
	})
	if err != nil {
		return nil, err
	}
	if len(painted) > 0 { // else the list stays the very same, and estimates know that nobody else is concerned
		next.Weeks = weeks
	}
	return next, nil
}

func (e *Paint) sentence(p *plan.Plan) string {
	duty := e.Duty
	if d := p.Duty(e.Duty); d != nil {
		duty = d.Name
	}
	who := names(p, e.Channels)
	if e.Shared {
		who = "The week followed by " + who
	}
	if len(e.Channels) == 0 && len(e.Weeks) > 0 {
		names := make([]string, len(e.Weeks))
		for i, id := range e.Weeks {
			names[i] = weekName(p, id)
		}
		who = "The week " + strings.Join(names, ", ")
	}
	return who + ", " + plan.HoursInWords(e.Hours) + ": " + duty
}

// paint returns the week with the spans painted, written as a person would.
func paint(w *plan.OwnWeek, spans []week.Span, duty string) *plan.OwnWeek {
	steps := w.Steps()
	for _, span := range spans {
		steps = steps.Paint(span, duty)
	}
	return plan.WeekOf(steps)
}
