package formats

import (
	"context"
	"fmt"
	"regexp"
	"strings"
	"time"

	ics "github.com/arran4/golang-ical"

	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// mostSchedule is how much text a schedule of a device may have.
const mostSchedule = 64 << 10

// zoneNamed is how a time says which clocks it is on: a schedule's are those of the device.
var zoneNamed = regexp.MustCompile(`;TZID=("[^"]*"|[^:;\r\n]*)`)

func plainLines(text string) string {
	return strings.ReplaceAll(strings.ReplaceAll(text, "\r", ""), "\n", "\r\n")
}

// ReadSchedule reads when the events of a device's schedule are, in any week: what comes daily or weekly, on whatever clocks the
// device has. now tells which week is meant where a rule ends.
func ReadSchedule(ctx context.Context, text string, now time.Time) (week.Steps[bool], error) {
	if len(text) > mostSchedule {
		return nil, fmt.Errorf("it has %d bytes; at most %d are read", len(text), mostSchedule)
	}
	c, err := parseCalendar(ctx, []byte(zoneNamed.ReplaceAllString(plainLines(text), "")))
	if err != nil {
		return nil, err
	}
	var today week.Date
	today.Year, today.Month, today.Day = now.UTC().Date()
	monday := mondayOf(today, time.UTC)
	steps := week.Constant(false)
	for _, e := range c.Events() {
		list, err := occasions(&e.ComponentBase, time.UTC, monday)
		if err != nil {
			return nil, fmt.Errorf("%s: %w", nameOf(&e.ComponentBase, "an event"), err)
		}
		for _, o := range list {
			steps = paintOccasion(steps, o, shown(monday))
		}
	}
	return steps, nil
}

// WriteSchedule writes hours as a device's schedule has them: events that come every week, on the device's own clocks; for no hours one
// that is over.
func WriteSchedule(hours []plan.Hours, name string) string {
	c := newCalendar(name)
	monday := week.Date{Year: 2024, Month: time.January, Day: 1} // a Monday; what comes weekly has begun by then
	if len(hours) == 0 {                                         // an event that is over, as a calendar has to have one
		e := c.AddEvent("never@wakefield")
		e.SetDtStampTime(monday.At(0, time.UTC))
		e.SetProperty(ics.ComponentPropertyDtStart, icsDate(monday)+"T000000")
		e.SetProperty(ics.ComponentPropertyDtEnd, icsDate(monday)+"T000100")
		e.SetSummary(name)
	}
	for i, h := range hours {
		days := h.Days
		if len(days) == 0 {
			days = week.Weekdays[:]
		}
		first, by := days[0], make([]string, 0, len(days))
		for _, day := range days {
			first = min(first, day)
			by = append(by, icsDays[day])
		}
		begins := monday.Add(int(first))
		ends, to := begins, h.To
		if h.To <= h.From || h.To == week.Clock(week.Day) {
			ends = begins.Add(1)
		}
		if to == week.Clock(week.Day) {
			to = 0
		}
		e := c.AddEvent(fmt.Sprintf("%d@wakefield", i))
		e.SetDtStampTime(monday.At(0, time.UTC))
		e.SetProperty(ics.ComponentPropertyDtStart, fmt.Sprintf("%sT%02d%02d00", icsDate(begins), h.From/60, h.From%60))
		e.SetProperty(ics.ComponentPropertyDtEnd, fmt.Sprintf("%sT%02d%02d00", icsDate(ends), to/60, to%60))
		e.SetSummary(name)
		e.AddRrule("FREQ=WEEKLY;BYDAY=" + strings.Join(by, ","))
	}
	return c.Serialize(ics.WithNewLineWindows)
}

// atMidnight is how a date is written where a time has to be.
var atMidnight = regexp.MustCompile(`(?m)^(DTSTART|DTEND)[^:\r\n]*:(\d{8})T000000Z?(\r?)$`)

// ReadDates reads the dates of a group of special days as a device has it, of some days from a date on: whole days, once or every year.
func ReadDates(ctx context.Context, text string, from week.Date, days int) ([]week.Date, error) {
	if len(text) > mostSchedule {
		return nil, fmt.Errorf("it has %d bytes; at most %d are read", len(text), mostSchedule)
	}
	c, err := parseCalendar(ctx, []byte(atMidnight.ReplaceAllString(plainLines(text), "$1:$2$3")))
	if err != nil {
		return nil, err
	}
	var calendar week.Calendar
	for _, e := range c.Events() {
		list, err := specialDays(&e.ComponentBase, &plan.Plan{}, week.Sunday)
		if err == nil {
			err = possible(list)
		}
		if err != nil {
			return nil, fmt.Errorf("%s: %w", nameOf(&e.ComponentBase, "an event"), err)
		}
		for _, d := range list {
			calendar = append(calendar, week.DateRange{From: d.From, To: d.To, Yearly: d.Yearly})
		}
	}
	var out []week.Date
	for k, of := range calendar.Holding(from, days) {
		if of >= 0 {
			out = append(out, from.Add(k))
		}
	}
	return out, nil
}

// WriteDates writes dates as a group of special days has them: those that follow each other as one event of whole days.
func WriteDates(dates []week.Date, name string) string {
	c := newCalendar(name)
	for i := 0; i < len(dates); {
		last := i
		for last+1 < len(dates) && dates[last+1] == dates[last].Add(1) {
			last++
		}
		e := c.AddEvent(icsDate(dates[i]) + "@wakefield")
		e.SetDtStampTime(week.Date{Year: 2024, Month: time.January, Day: 1}.At(0, time.UTC))
		e.SetProperty(ics.ComponentPropertyDtStart, icsDate(dates[i])+"T000000")
		e.SetProperty(ics.ComponentPropertyDtEnd, icsDate(dates[last].Add(1))+"T000000")
		e.SetSummary(name)
		i = last + 1
	}
	return c.Serialize(ics.WithNewLineWindows)
}
