package plan

import (
	"fmt"
	"slices"
	"strings"

	"wakefield/core/week"
)

// Paint gives channels a duty over some hours. A channel that follows a named week
// departs from it and has a week of its own from then on, unless Shared is set:
// then the named week itself is painted, for all that follow it. Weeks paints named
// weeks whether or not anybody follows them.
type Paint struct {
	Channels []string `json:"channels,omitempty" maxItems:"5000"`
	Weeks    []string `json:"weeks,omitempty" maxItems:"5000" doc:"Ids of named weeks to paint"`
	Hours    []Hours  `json:"hours" minItems:"1" maxItems:"1000"`
	Duty     string   `json:"duty" minLength:"1" maxLength:"100"`
	Shared   bool     `json:"shared,omitempty" doc:"Paint the named weeks that the channels follow, for all that follow them"`
}

func (e *Paint) apply(p *Plan) (*Plan, error) {
	if p.Duty(e.Duty) == nil {
		return nil, wrong("duty", "no duty %q", e.Duty)
	}
	spans, err := SpansOf(e.Hours)
	if err != nil {
		return nil, err
	}
	weeks := slices.Clone(p.Weeks)
	painted := make(map[string]bool)
	for i, id := range e.Weeks {
		at := p.weekIndex(id)
		if at < 0 {
			return nil, wrong(fmt.Sprintf("weeks[%d]", i), "no week %q", id)
		}
		painted[id] = true
		weeks[at].OwnWeek = *paint(&weeks[at].OwnWeek, spans, e.Duty)
	}
	if len(e.Channels) == 0 && len(e.Weeks) > 0 {
		next := *p
		next.Weeks = weeks
		return &next, nil
	}
	next, err := p.eachChannel(e.Channels, func(c *Channel) error {
		if e.Shared && c.Week.Own == nil {
			if i := p.weekIndex(c.Week.Named); i >= 0 && !painted[c.Week.Named] {
				painted[c.Week.Named] = true
				weeks[i].OwnWeek = *paint(&weeks[i].OwnWeek, spans, e.Duty)
			}
			return nil
		}
		c.Week = WeekRef{Own: paint(p.WeekOf(c), spans, e.Duty)}
		return nil
	})
	if err != nil {
		return nil, err
	}
	next.Weeks = weeks
	return next, nil
}

func (e *Paint) sentence(p *Plan) string {
	duty := e.Duty
	if d := p.Duty(e.Duty); d != nil {
		duty = d.Name
	}
	who := p.names(e.Channels)
	if e.Shared {
		who = "The week followed by " + who
	}
	if len(e.Channels) == 0 && len(e.Weeks) > 0 {
		names := make([]string, len(e.Weeks))
		for i, id := range e.Weeks {
			names[i] = p.weekName(id)
		}
		who = "The week " + strings.Join(names, ", ")
	}
	return who + ", " + HoursInWords(e.Hours) + ": " + duty
}

// paint returns the week with the spans painted, written as a person would.
func paint(w *OwnWeek, spans []week.Span, duty string) *OwnWeek {
	steps := w.Steps()
	for _, span := range spans {
		steps = steps.Paint(span, duty)
	}
	return WeekOf(steps)
}

// SpansOf lists the stretches of the week that hours cover; the error names the hours that
// are none.
func SpansOf(hours []Hours) ([]week.Span, error) {
	var spans []week.Span
	for i, h := range hours {
		if err := h.week().Check(); err != nil {
			return nil, wrong(fmt.Sprintf("hours[%d]", i), "%v", err)
		}
		spans = append(spans, h.week().Spans()...)
	}
	return spans, nil
}

// HoursInWords writes hours as "Tue-Fri 06:00-22:00"; more than four stretches are
// counted.
func HoursInWords(hours []Hours) string {
	if len(hours) > 4 {
		return fmt.Sprintf("%d stretches", len(hours))
	}
	return HoursText(hours)
}

// ReadHours reads hours as people type them, see [week.ReadHours].
func ReadHours(text string) ([]Hours, error) {
	read, err := week.ReadHours(text)
	if err != nil {
		return nil, err
	}
	out := make([]Hours, len(read))
	for i, h := range read {
		out[i] = hoursOf(h)
	}
	return out, nil
}

// HoursText writes hours as [ReadHours] reads them.
func HoursText(hours []Hours) string {
	list := make([]week.Hours, len(hours))
	for i, h := range hours {
		list[i] = h.week()
	}
	return week.HoursText(list)
}

// FollowWeek lets channels follow a named week.
type FollowWeek struct {
	Channels []string `json:"channels" minItems:"1" maxItems:"5000"`
	Week     string   `json:"week" minLength:"1" maxLength:"100"`
}

func (e *FollowWeek) apply(p *Plan) (*Plan, error) {
	if p.weekIndex(e.Week) < 0 {
		return nil, wrong("week", "no week %q", e.Week)
	}
	return p.eachChannel(e.Channels, func(c *Channel) error {
		c.Week = WeekRef{Named: e.Week}
		return nil
	})
}

func (e *FollowWeek) sentence(p *Plan) string {
	name := e.Week
	if i := p.weekIndex(e.Week); i >= 0 {
		name = p.Weeks[i].Name
	}
	return fmt.Sprintf("%s: follow the week %q", p.names(e.Channels), name)
}
