package onvif

import (
	"fmt"
	"strconv"
	"strings"
)

// Timetable is a schedule: events of an iCalendar, and on the days of some groups other hours in place of them.
type Timetable struct {
	Token       string        `json:"token"`
	Name        string        `json:"name"`
	Description string        `json:"description"`
	Standard    string        `json:"standard"` // iCalendar
	SpecialDays []SpecialDays `json:"specialDays,omitempty"`
}

// SpecialDays are the hours of the days of a group; none for not at all.
type SpecialDays struct {
	Group  string       `json:"group"` // token
	Ranges []MinuteSpan `json:"ranges"`
}

// MinuteSpan is a stretch of a day in minutes since midnight, its end not included; at most 1440.
type MinuteSpan struct {
	From  int `json:"from"`
	Until int `json:"until"`
}

// DayGroup is a group of special days.
type DayGroup struct {
	Token       string `json:"token"`
	Name        string `json:"name"`
	Description string `json:"description"`
	Days        string `json:"days"` // iCalendar
}

const minutesOfDay = 24 * 60

// Element writes the schedule.
func (s *Timetable) Element(name string) *Element {
	e := E(name, Attr{"token", s.Token}, E("tsc:Name", s.Name), E("tsc:Description", s.Description), E("tsc:Standard", s.Standard))
	for _, d := range s.SpecialDays {
		of := E("tsc:SpecialDays", E("tsc:GroupToken", d.Group))
		for _, r := range d.Ranges {
			span := E("tsc:TimeRange", E("tsc:From", timeOfDay(r.From)))
			if r.Until < minutesOfDay { // to the end of the day where there is none
				span.AddChild(E("tsc:Until", timeOfDay(r.Until)))
			}
			of.AddChild(span)
		}
		e.AddChild(of)
	}
	return e
}

func timeOfDay(m int) string { return fmt.Sprintf("%02d:%02d:00", m/60, m%60) }

// TimetableOf reads a schedule. Hours of special days that are no times are an error.
func TimetableOf(e *Element) (s Timetable, err error) {
	s = Timetable{Token: e.SelectAttrValue("token", ""), Name: Text(e, "Name"), Description: Text(e,
		"Description"), Standard: Text(e, "Standard")}
	for _, of := range All(e, "SpecialDays") {
		d := SpecialDays{Group: Text(of, "GroupToken")}
		for _, r := range All(of, "TimeRange") {
			span := MinuteSpan{Until: minutesOfDay}
			if span.From, err = minuteOf(Text(r, "From"), false); err != nil {
				return s, err
			}
			if text := Text(r, "Until"); text != "" {
				if span.Until, err = minuteOf(text, true); err != nil {
					return s, err
				}
			}
			if span.Until <= span.From {
				return s, fmt.Errorf("special days from %s until %s end before they begin", Text(r, "From"), Text(r, "Until"))
			}
			d.Ranges = append(d.Ranges, span)
		}
		s.SpecialDays = append(s.SpecialDays, d)
	}
	return s, nil
}

// minuteOf reads a time of XML Schema as a minute of the day: on the device's own clocks, whatever zone it names; seconds are left out,
// or are the next minute.
func minuteOf(text string, up bool) (int, error) {
	part := strings.Split(text, ":")
	if len(part) < 3 || len(part[2]) < 2 {
		return 0, fmt.Errorf("%.40q is no time of day", text)
	}
	var n [3]int
	for i := range n {
		v, err := strconv.Atoi(part[i][:min(2, len(part[i]))])
		if err != nil || v < 0 || i > 0 && v > 59 {
			return 0, fmt.Errorf("%.40q is no time of day", text)
		}
		n[i] = v
	}
	m := n[0]*60 + n[1]
	if up && n[2] > 0 {
		m++
	}
	if m > minutesOfDay {
		return 0, fmt.Errorf("%.40q is no time of day", text)
	}
	return m, nil
}

// Element writes the group.
func (g *DayGroup) Element(name string) *Element {
	return E(name, Attr{"token", g.Token}, E("tsc:Name", g.Name), E("tsc:Description", g.Description), E("tsc:Days", g.Days))
}

// DayGroupOf reads a group of special days.
func DayGroupOf(e *Element) DayGroup {
	return DayGroup{e.SelectAttrValue("token", ""), Text(e, "Name"), Text(e, "Description"), Text(e, "Days")}
}
