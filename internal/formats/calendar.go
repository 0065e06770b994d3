package formats

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"strconv"
	"strings"
	"time"
	"unicode/utf8"

	ics "github.com/arran4/golang-ical"

	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// Calendars are iCalendar (RFC 5545). Special days are events of whole days; beside
// them stands what holds then, for whoever reads the file back.
const (
	useDay  ics.ComponentProperty = "X-WAKEFIELD-USE-DAY"
	happens ics.ComponentProperty = "X-WAKEFIELD-ACTIVITY-DAY"
	useWeek ics.ComponentProperty = "X-WAKEFIELD-WEEK"
	factor  ics.ComponentProperty = "X-WAKEFIELD-RATE-FACTOR"
)

func newCalendar(name string) *ics.Calendar {
	c := ics.NewCalendarFor("Wakefield")
	c.SetMethod(ics.MethodPublish)
	c.SetXWRCalName(name)
	return c
}

const dateOnly = "20060102"

func icsDate(d week.Date) string { return d.At(0, time.UTC).Format(dateOnly) }

// WriteSpecialDays writes the special days of a site. stamp is when it was written.
func WriteSpecialDays(p *plan.Plan, site string, stamp time.Time) []byte {
	c := newCalendar(p.Site.Name + ", special days")
	for i, d := range p.Site.SpecialDays {
		e := c.AddEvent(fmt.Sprintf("special-%d-%s-%s@wakefield", i, icsDate(d.From), site))
		e.SetDtStampTime(stamp)
		e.SetProperty(ics.ComponentPropertyDtStart, icsDate(d.From), ics.WithValue("DATE"))
		e.SetProperty(ics.ComponentPropertyDtEnd, icsDate(d.To.Add(1)), ics.WithValue("DATE"))
		e.SetSummary(d.Name)
		if d.Yearly {
			e.AddRrule("FREQ=YEARLY")
		}
		switch {
		case d.UseDay != nil:
			e.SetProperty(useDay, d.UseDay.String())
			e.SetDescription("Recorded as on a " + d.UseDay.Name())
		case d.Week != "":
			e.SetProperty(useWeek, d.Week)
			e.SetDescription("Recorded by the week " + d.Week)
		}
		if d.ActivityDay != nil {
			e.SetProperty(happens, d.ActivityDay.String())
		}
		if d.RateFactor != nil {
			e.SetProperty(factor, strconv.FormatFloat(*d.RateFactor, 'g', -1, 64))
		}
		e.SetTimeTransparency(ics.TransparencyTransparent)
	}
	return []byte(c.Serialize(ics.WithNewLineWindows))
}

// Dates is what a calendar says of special days.
type Dates struct {
	Days    []plan.SpecialDay `json:"days" doc:"Special days as they can be added"`
	LeftOut []string          `json:"leftOut" doc:"Events that are no special days, each with why"`
}

// ReadSpecialDays reads events of whole days as special days on which otherwise
// holds, unless they say themselves what does. Events with a time of day, and such
// that come weekly or the like, are left out and named. Yearly events that end, and
// those of which some are left out, are written date by date.
func ReadSpecialDays(ctx context.Context, data []byte, p *plan.Plan, otherwise week.Weekday) (*Dates, error) {
	c, err := parseCalendar(ctx, data)
	if err != nil {
		return nil, err
	}
	out := &Dates{Days: []plan.SpecialDay{}, LeftOut: []string{}}
	for _, e := range c.Events() {
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		days, err := specialDays(&e.ComponentBase, p, otherwise)
		if err == nil {
			err = possible(days)
		}
		if err != nil {
			out.LeftOut = append(out.LeftOut, fmt.Sprintf("%s: %v", nameOf(&e.ComponentBase, specialDay), err))
			continue
		}
		out.Days = append(out.Days, days...)
		if len(out.Days) > 2000 {
			return nil, errors.New("more than 2,000 special days")
		}
	}
	return out, nil
}

// parseCalendar reads a calendar in the encodings that text comes in.
func parseCalendar(ctx context.Context, data []byte) (*ics.Calendar, error) {
	data, _ = decoded(data)
	if !bytes.Contains(data, []byte("BEGIN:VCALENDAR")) {
		return nil, errors.New("not an iCalendar file: it does not begin with BEGIN:VCALENDAR")
	}
	if err := checkCalendar(data); err != nil {
		return nil, err
	}
	if err := ctx.Err(); err != nil {
		return nil, err
	}
	c, err := ics.ParseCalendar(bytes.NewReader(data))
	if err != nil {
		return nil, fmt.Errorf("not an iCalendar file: %w", err)
	}
	return c, nil
}

// What a calendar may have; one for a site has a few dozen events.
const (
	mostComponents = 5_000
	mostProperties = 200_000
	deepest        = 8
)

// checkCalendar asks what a calendar would take, before it is read: the components of
// one lie in each other as deep as it pleases.
func checkCalendar(data []byte) error {
	var open []string // what has begun and not ended, with the line
	components, at := 0, 0
	for text := range bytes.Lines(data) {
		at++
		word, name, _ := strings.Cut(strings.TrimSpace(string(text[:min(len(text), 100)])), ":")
		switch strings.ToUpper(word) {
		case "BEGIN":
			open = append(open, fmt.Sprintf("line %d: BEGIN:%s", at, name))
			components++
		case "END":
			if len(open) == 0 {
				return fmt.Errorf("not an iCalendar file: line %d ends what never began", at)
			}
			open = open[:len(open)-1]
		}
		switch {
		case len(open) > deepest:
			return fmt.Errorf("not an iCalendar file: %s lies %d deep in others; does one before it not end?", open[len(open)-1], len(open))
		case components > mostComponents:
			return fmt.Errorf("the calendar has more than %d events", mostComponents)
		case at > mostProperties:
			return fmt.Errorf("the calendar has more than %d lines", mostProperties)
		}
	}
	if len(open) > 0 {
		return fmt.Errorf("not an iCalendar file: %s does not end", open[len(open)-1])
	}
	return nil
}

// possible refuses what no plan can hold.
func possible(days []plan.SpecialDay) error {
	for _, d := range days {
		if d.From.Year < 1970 || d.To.Year > 2200 {
			return errors.New("its dates are not between 1970 and 2200")
		}
		if strings.ContainsRune(d.Name, 0) || !utf8.ValidString(d.Name) {
			return errors.New("its name is no text")
		}
	}
	return nil
}

func text(e *ics.ComponentBase, property ics.ComponentProperty) string {
	if p := e.GetProperty(property); p != nil {
		return strings.TrimSpace(p.Value)
	}
	return ""
}

const specialDay = "Special day" // that has no name of its own

// nameOf is what an event is called, or otherwise.
func nameOf(e *ics.ComponentBase, otherwise string) string {
	name := []rune(ics.FromText(text(e, ics.ComponentPropertySummary)))
	if len(name) == 0 {
		return otherwise
	}
	return string(name[:min(len(name), 200)])
}

func readDate(text string) (week.Date, error) {
	t, err := time.Parse(dateOnly, text)
	var d week.Date
	d.Year, d.Month, d.Day = t.Date()
	return d, err
}

// datesOf are the first and the last date of an event of whole days.
func datesOf(e *ics.ComponentBase) (from, to week.Date, err error) {
	start := text(e, ics.ComponentPropertyDtStart)
	if strings.Contains(start, "T") {
		return from, to, errors.New("it has a time of day")
	}
	if from, err = readDate(start); err != nil {
		return from, to, fmt.Errorf("no date %q", start)
	}
	to = from
	if end := text(e, ics.ComponentPropertyDtEnd); end != "" {
		until, err := readDate(end)
		if err != nil {
			return from, to, fmt.Errorf("no date %q", end)
		}
		if from.Before(until) {
			to = until.Add(-1)
		}
	} else if length := text(e, ics.ComponentPropertyDuration); length != "" {
		days, err := strconv.Atoi(strings.TrimSuffix(strings.TrimPrefix(length, "P"), "D"))
		if err != nil || days < 1 || days > 366 {
			return from, to, fmt.Errorf("no number of days %q", length)
		}
		to = from.Add(days - 1)
	}
	return from, to, nil
}

// specialDays are those that an event of a calendar stands for.
func specialDays(e *ics.ComponentBase, p *plan.Plan, otherwise week.Weekday) ([]plan.SpecialDay, error) {
	from, to, err := datesOf(e)
	if err != nil {
		return nil, err
	}
	d := plan.SpecialDay{Name: nameOf(e, specialDay), From: from, To: to}
	day := otherwise
	if err := day.UnmarshalText([]byte(text(e, useDay))); err != nil {
		day = otherwise
	}
	d.UseDay = &day
	if id := text(e, useWeek); id != "" {
		for _, w := range p.Weeks {
			if w.ID == id {
				d.UseDay, d.Week = nil, id
			}
		}
	}
	var like week.Weekday
	if like.UnmarshalText([]byte(text(e, happens))) == nil {
		d.ActivityDay = &like
	}
	if f, err := strconv.ParseFloat(text(e, factor), 64); err == nil && f >= 0 && f <= 100 {
		d.RateFactor = &f
	}
	if (d.RateFactor != nil || d.ActivityDay != nil) && text(e, useDay) == "" && d.Week == "" {
		d.UseDay = nil // more or less happens, and nothing else is different
	}
	return recurring(e, d)
}

var icsDays = [7]string{"MO", "TU", "WE", "TH", "FR", "SA", "SU"}

// WriteWeek writes a named week as events that come every week, on the clocks of the
// site, from the Monday on or before a date. Every duty has its hours, so that a
// calendar shows what holds at any time, and clocks that change do not move it.
func WriteWeek(p *plan.Plan, w *plan.Week, site string, from week.Date, stamp time.Time) ([]byte, error) {
	zone, err := time.LoadLocation(p.Site.TimeZone)
	if err != nil {
		return nil, err
	}
	c := newCalendar(p.Site.Name + ", " + w.Name)
	c.SetXWRTimezone(zone.String())
	if zone != time.UTC {
		addTimezone(c, zone, from.Year-1)
	}
	monday := from.Add(-int(from.Weekday()))
	steps := w.Steps()
	for _, d := range p.Duties {
		holds := week.Map(steps, func(duty string) bool { return duty == d.ID })
		for i, h := range plan.HoursWhere(holds) {
			days := h.Days
			if len(days) == 0 {
				days = week.Weekdays[:]
			}
			e := c.AddEvent(fmt.Sprintf("%s-%s-%d-%s@wakefield", w.ID, d.ID, i, site))
			e.SetDtStampTime(stamp)
			first, by := days[0], []string{}
			for _, day := range days {
				first = min(first, day)
				by = append(by, icsDays[day])
			}
			begins := monday.Add(int(first))
			ends := begins
			if h.To <= h.From {
				ends = begins.Add(1)
			}
			moment := func(property ics.ComponentProperty, date week.Date, clock week.Clock) {
				if clock == week.Clock(week.Day) {
					date, clock = date.Add(1), 0
				}
				at := fmt.Sprintf("%sT%02d%02d00", icsDate(date), clock/60, clock%60)
				if zone == time.UTC {
					e.SetProperty(property, at+"Z")
				} else {
					e.SetProperty(property, at, ics.WithTZID(zone.String()))
				}
			}
			moment(ics.ComponentPropertyDtStart, begins, h.From)
			moment(ics.ComponentPropertyDtEnd, ends, h.To)
			e.SetSummary(d.Name)
			e.AddRrule("FREQ=WEEKLY;BYDAY=" + strings.Join(by, ","))
			e.SetTimeTransparency(ics.TransparencyTransparent)
		}
	}
	return []byte(c.Serialize(ics.WithNewLineWindows)), nil
}
