package device

import (
	"context"
	"slices"
	"strings"
	"time"

	"wakefield.example/core/plan"
	"wakefield.example/core/readout"
	"wakefield.example/core/week"
	"wakefield.example/internal/formats"
	"wakefield.example/internal/onvif"
)

// timetables are a device's schedules with the groups of special days that they follow.
type timetables struct {
	schedules map[string]schedule
	groups    []dayGroup
	periods   int // a day; 0 for no limit
	special   int // dates of a group; 0 where schedules follow none
}

// schedule is hours of the week by which something is recorded, and other hours on dates.
type schedule struct {
	onvif.Timetable
	when  week.Steps[bool]
	dates []readout.OnDates
	why   string // why it is not understood; empty where it is
}

// dayGroup is a group of special days with its dates of the time that devices are told.
type dayGroup struct {
	onvif.DayGroup
	dates []week.Date
	why   string
}

// Lists of a device come in parts.
const (
	mostParts   = 200
	manyDates   = 10_000 // are no limit
	ofWakefield = "Wakefield "
)

// today is the date by our clock.
func today() (d week.Date) {
	d.Year, d.Month, d.Day = time.Now().Date()
	return d
}

// timetables reads what of schedules the device takes, its groups of special days, and its schedules.
func (c *Client) timetables(ctx context.Context) (*timetables, error) {
	t := &timetables{schedules: make(map[string]schedule)}
	if answer, err := c.ask(ctx, onvif.Schedule, onvif.E("tsc:GetServiceCapabilities")); err == nil {
		if of := onvif.At(answer, "Capabilities"); of != nil {
			most := func(name string) int {
				return onvif.Whole(onvif.E("n", onvif.E("n", of.SelectAttrValue(name, ""))), "n")
			}
			if n := most("MaxTimePeriodsPerDay"); n > 0 && n <= 1440 {
				t.periods = n
			}
			if onvif.Truth(of.SelectAttrValue("SpecialDaysSupported", "")) {
				t.special = manyDates
				if n := most("MaxDaysInSpecialDayGroup"); n > 0 {
					t.special = min(n, manyDates)
				}
			}
		}
	}
	from := today()
	if t.special > 0 {
		list, err := c.parts(ctx, "tsc:GetSpecialDayGroupList", "SpecialDayGroup")
		if err != nil {
			return nil, err
		}
		for _, e := range list {
			g := dayGroup{DayGroup: onvif.DayGroupOf(e)}
			if g.dates, err = formats.ReadDates(ctx, g.Days, from, readout.DatesTold); err != nil {
				g.why = err.Error()
			}
			t.groups = append(t.groups, g)
		}
	}
	list, err := c.parts(ctx, "tsc:GetScheduleList", "Schedule")
	if err != nil {
		return nil, err
	}
	for _, e := range list {
		var s schedule
		if s.Timetable, err = onvif.TimetableOf(e); err == nil {
			if s.when, err = formats.ReadSchedule(ctx, s.Standard, time.Now()); err == nil {
				s.dates, err = t.datesOf(&s.Timetable)
			}
		}
		if err != nil {
			s.why = err.Error()
		}
		t.schedules[s.Token] = s
	}
	return t, ctx.Err()
}

// parts asks for a list until it has all of it.
func (c *Client) parts(ctx context.Context, operation, name string) (out []*onvif.Element, err error) {
	next := ""
	for range mostParts {
		in := onvif.E(operation)
		if next != "" {
			in.AddChild(onvif.E("tsc:StartReference", next))
		}
		answer, err := c.ask(ctx, onvif.Schedule, in)
		if err != nil {
			return nil, err
		}
		out = append(out, onvif.All(answer, name)...)
		was := next
		if next = onvif.Text(answer, "NextStartReference"); next == "" || next == was {
			return out, nil
		}
	}
	return nil, &Error{Stranger, plan.Say("Its list of schedules has no end after %d parts.", mostParts)}
}

// datesOf are the dates on which a schedule has other hours. Where two of its groups have a date, the hours of both are recorded.
func (t *timetables) datesOf(s *onvif.Timetable) (out []readout.OnDates, err error) {
	for _, of := range s.SpecialDays {
		k := slices.IndexFunc(t.groups, func(g dayGroup) bool { return g.Token == of.Group })
		if k < 0 {
			return nil, &Error{Stranger, "It follows a group of special days that the device does not have."}
		}
		g := &t.groups[k]
		if g.why != "" {
			return nil, &Error{Stranger, "The special days " + g.Name + " are not understood: " + g.why + "."}
		}
		o := readout.OnDates{Name: strings.TrimPrefix(g.Name, ofWakefield), Dates: g.dates}
		for _, r := range of.Ranges {
			o.Hours = append(o.Hours, readout.Between{From: week.Clock(r.From), To: week.Clock(r.Until)})
		}
		if len(o.Dates) > 0 {
			out = append(out, o)
		}
	}
	return readout.Ordered(out), nil
}

// sameDates tells whether dates have the same hours.
func sameDates(a, b []readout.OnDates) bool {
	hours := func(list []readout.OnDates) map[week.Date][]readout.Between {
		out := make(map[week.Date][]readout.Between)
		for _, o := range list {
			for _, d := range o.Dates {
				out[d] = o.Hours
			}
		}
		return out
	}
	x, y := hours(a), hours(b)
	for d, h := range x {
		if other, there := y[d]; !there || !slices.Equal(h, other) {
			return false
		}
	}
	return len(x) == len(y)
}

// writeDates makes groups of the dates, as many to each as the device takes: those that are there, or new ones.
func (c *Client) writeDates(ctx context.Context, t *timetables, list []readout.OnDates) (out []onvif.SpecialDays, err error) {
	for _, o := range list {
		var ranges []onvif.MinuteSpan
		for _, b := range o.Hours {
			ranges = append(ranges, onvif.MinuteSpan{From: int(b.From), Until: int(b.To)})
		}
		for dates := range slices.Chunk(o.Dates, max(1, t.special)) {
			token, err := c.group(ctx, t, o.Name, dates)
			if err != nil {
				return nil, err
			}
			out = append(out, onvif.SpecialDays{Group: token, Ranges: ranges})
		}
	}
	return out, nil
}

// group is the token of a group of these dates that we made before, or a new one.
func (c *Client) group(ctx context.Context, t *timetables, name string, dates []week.Date) (string, error) {
	name = ofWakefield + name
	for i := range t.groups {
		if g := &t.groups[i]; g.Name == name && slices.Equal(g.dates, dates) {
			return g.Token, nil
		}
	}
	g := dayGroup{onvif.DayGroup{Name: name, Description: plan.Count(len(dates), "day"), Days: formats.WriteDates(dates, name)}, dates, ""}
	answer, err := c.call(ctx, onvif.Schedule, onvif.E("tsc:CreateSpecialDayGroup", g.Element("tsc:SpecialDayGroup")))
	if err != nil {
		return "", err
	}
	if g.Token = onvif.Text(answer, "Token"); g.Token == "" {
		return "", &Error{Stranger, "It made a group of special days and does not say which."}
	}
	t.groups = append(t.groups, g)
	return g.Token, nil
}

// dropGroups deletes groups that we made and no schedule follows any more.
func (c *Client) dropGroups(ctx context.Context, t *timetables) error {
	for _, g := range t.groups {
		used := false
		for _, s := range t.schedules {
			used = used || slices.ContainsFunc(s.SpecialDays, func(d onvif.SpecialDays) bool { return d.Group == g.Token })
		}
		if used || !strings.HasPrefix(g.Name, ofWakefield) {
			continue
		}
		if _, err := c.call(ctx, onvif.Schedule, onvif.E("tsc:DeleteSpecialDayGroup", onvif.E("tsc:Token", g.Token))); err != nil {
			return err
		}
	}
	return nil
}
