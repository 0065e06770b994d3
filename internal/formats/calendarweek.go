package formats

import (
	"context"
	"fmt"
	"strings"
	"time"

	ics "github.com/arran4/golang-ical"

	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// CalendarWeek is one week of a calendar, as a week of duties can be made of it.
type CalendarWeek struct {
	Name    string        `json:"name" doc:"Of the calendar; empty where it has none"`
	Monday  week.Date     `json:"monday" doc:"Of the week that is read"`
	Events  []NamedEvents `json:"events" doc:"By name, in the order of the calendar"`
	LeftOut []string      `json:"leftOut" doc:"Events that are not in that week's hours, each with why"`
}

// NamedEvents is when the events of one name are.
type NamedEvents struct {
	Name  string       `json:"name"`
	Duty  string       `json:"duty" doc:"Id of the duty of that name; empty for none"`
	Hours []plan.Hours `json:"hours"`
	Text  string       `json:"text" doc:"The hours as one writes them"`
}

// mostWeekEvents is how many events the calendar of a week may have.
const mostWeekEvents = 500

// ReadWeek reads the week of a calendar that a date lies in, on the clocks of the site:
// what comes daily or weekly, and what is once in that week. Without a date it is the
// week of today, or where that is empty the one of the event that begins last. What runs
// on past Sunday comes back on Monday.
func ReadWeek(ctx context.Context, data []byte, p *plan.Plan, of *week.Date, today week.Date) (*CalendarWeek, error) {
	c, err := parseCalendar(ctx, data)
	if err != nil {
		return nil, err
	}
	zone, err := time.LoadLocation(p.Site.TimeZone)
	if err != nil {
		return nil, err
	}
	if n := len(c.Events()); n > mostWeekEvents {
		return nil, fmt.Errorf("the calendar has %d events; a week is read from at most %d", n, mostWeekEvents)
	}
	if of != nil {
		return readWeek(ctx, c, p, mondayOf(*of, zone)), ctx.Err()
	}
	if w := readWeek(ctx, c, p, mondayOf(today, zone)); len(w.Events) > 0 {
		return w, ctx.Err()
	}
	return readWeek(ctx, c, p, mondayOf(lastBegun(c, zone, today), zone)), ctx.Err()
}

// lastBegun is the date of the event that begins last.
func lastBegun(c *ics.Calendar, zone *time.Location, otherwise week.Date) week.Date {
	var last time.Time
	for _, e := range c.Events() {
		if o, err := occasionOf(&e.ComponentBase, zone); err == nil && o.start.After(last) {
			last = o.start.In(zone)
		}
	}
	if last.IsZero() {
		return otherwise
	}
	var d week.Date
	d.Year, d.Month, d.Day = last.Date()
	return d
}

func readWeek(ctx context.Context, c *ics.Calendar, p *plan.Plan, monday time.Time) *CalendarWeek {
	out := &CalendarWeek{Events: []NamedEvents{}, LeftOut: []string{}}
	out.Monday.Year, out.Monday.Month, out.Monday.Day = monday.Date()
	for _, property := range c.CalendarProperties {
		if property.IANAToken == string(ics.PropertyXWRCalName) {
			out.Name = ics.FromText(property.Value)
		}
	}
	var names []string
	when := make(map[string]week.Steps[bool])
	for _, e := range c.Events() {
		if ctx.Err() != nil {
			break // whoever calls looks too
		}
		name := nameOf(&e.ComponentBase, "Event")
		list, err := occasions(&e.ComponentBase, monday.Location(), monday)
		switch {
		case err == nil && len(list) == 0:
			err = fmt.Errorf("it is not in the week from %s", out.Monday)
		case err == nil && list[0].length < time.Minute:
			err = fmt.Errorf("it is shorter than a minute")
		}
		if err != nil {
			out.LeftOut = append(out.LeftOut, fmt.Sprintf("%s: %v", name, err))
			continue
		}
		steps, known := when[name]
		if !known {
			names = append(names, name)
		}
		for _, o := range list {
			steps = paintOccasion(steps, o, shown(monday))
		}
		when[name] = steps
	}
	for _, name := range names {
		events := NamedEvents{Name: name, Hours: plan.HoursWhere(when[name]), Text: week.HoursText(hoursOf(when[name]))}
		for _, d := range p.Duties {
			if strings.EqualFold(d.Name, name) {
				events.Duty = d.ID
			}
		}
		out.Events = append(out.Events, events)
	}
	return out
}

// paintOccasion adds an occasion to the hours of a week.
func paintOccasion(steps week.Steps[bool], o occasion, monday time.Time) week.Steps[bool] {
	from := week.Minute(shown(o.start).Sub(monday) / time.Minute)
	to := from + week.Minute(min(o.length, 7*24*time.Hour)/time.Minute)
	steps = steps.Paint(week.Span{From: from, To: to}, true)
	return steps.Paint(week.Span{From: 0, To: to - week.Length}, true)
}

func hoursOf(steps week.Steps[bool]) []week.Hours {
	var list []week.Hours
	for _, b := range steps.Blocks(false) {
		list = append(list, b.Hours)
	}
	return list
}
