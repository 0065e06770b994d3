package standin

import (
	"context"
	"slices"
	"strconv"
	"time"

	"wakefield.example/core/plan"
	"wakefield.example/core/week"
	"wakefield.example/internal/formats"
	"wakefield.example/internal/onvif"
)

func init() {
	answers(false, map[string]operation{
		"tsc:GetScheduleList": func(q *asked) (*onvif.Element, *onvif.Fault) {
			return q.part("tsc:GetScheduleListResponse", len(q.state.Schedules), func(k int) *onvif.Element {
				return q.state.Schedules[k].Element("tsc:Schedule")
			})
		},
		"tsc:GetSchedules": func(q *asked) (*onvif.Element, *onvif.Fault) {
			e := E("tsc:GetSchedulesResponse")
			for k := range q.state.Schedules {
				if s := &q.state.Schedules[k]; q.names(s.Token) {
					e.AddChild(s.Element("tsc:Schedule"))
				}
			}
			return e, nil
		},
		"tsc:GetSpecialDayGroupList": func(q *asked) (*onvif.Element, *onvif.Fault) {
			if q.has(NoSpecialDays) {
				return nil, &onvif.Fault{Sender: true, Code: "ActionNotSupported", Reason: "Schedules follow no special days here"}
			}
			return q.part("tsc:GetSpecialDayGroupListResponse", len(q.state.Groups), func(k int) *onvif.Element {
				return q.state.Groups[k].Element("tsc:SpecialDayGroup")
			})
		},
		"tsc:GetSpecialDayGroups": func(q *asked) (*onvif.Element, *onvif.Fault) {
			e := E("tsc:GetSpecialDayGroupsResponse")
			for k := range q.state.Groups {
				if g := &q.state.Groups[k]; q.names(g.Token) {
					e.AddChild(g.Element("tsc:SpecialDayGroup"))
				}
			}
			return e, nil
		},
		"tsc:GetServiceCapabilities": scheduleCapabilities,
	})
	answers(true, map[string]operation{
		"tsc:CreateSchedule":        createSchedule,
		"tsc:ModifySchedule":        modifySchedule,
		"tsc:DeleteSchedule":        deleteSchedule,
		"tsc:CreateSpecialDayGroup": createGroup,
		"tsc:DeleteSpecialDayGroup": deleteGroup,
	})
}

// mostInPart is how many of a list are told at once, and mostDates how many dates a group has.
const (
	mostInPart = 20
	mostDates  = 31
)

// names tells whether the question names a token.
func (q *asked) names(token string) bool {
	return slices.ContainsFunc(onvif.All(q.in, "Token"), func(e *onvif.Element) bool { return e.Text() == token })
}

// part answers with a part of a list, and where it goes on.
func (q *asked) part(name string, n int, at func(k int) *onvif.Element) (*onvif.Element, *onvif.Fault) {
	from, most := 0, mostInPart
	if text := onvif.Text(q.in, "StartReference"); text != "" {
		k, err := strconv.Atoi(text)
		if err != nil || k < 0 || k > n {
			return nil, invalid("InvalidStartReference", "There is no such place in the list")
		}
		from = k
	}
	if limit := onvif.Whole(q.in, "Limit"); limit > 0 {
		most = min(limit, mostInPart)
	}
	e, to := E(name), min(n, from+most)
	if to < n {
		e.AddChild(E("tsc:NextStartReference", strconv.Itoa(to)))
	}
	for k := from; k < to; k++ {
		e.AddChild(at(k))
	}
	return e, nil
}

func scheduleCapabilities(q *asked) (*onvif.Element, *onvif.Fault) {
	most, groups, special := "0", "100", "true"
	if q.has(EightPeriods) {
		most = "8"
	}
	if q.has(NoSpecialDays) {
		groups, special = "0", "false"
	}
	return capabilities("tsc", A("MaxLimit", strconv.Itoa(mostInPart)), A("MaxSchedules", "500"), A("MaxTimePeriodsPerDay", most),
		A("MaxSpecialDayGroups", groups), A("MaxDaysInSpecialDayGroup", strconv.Itoa(mostDates)), A("MaxSpecialDaysSchedules", groups),
		A("ExtendedRecurrenceSupported", "false"), A("SpecialDaysSupported", special), A("StateReportingSupported", "false")), nil
}

// wantedSchedule reads a schedule that is to be, and refuses what it does not take.
func (q *asked) wantedSchedule() (s onvif.Timetable, fault *onvif.Fault) {
	e := onvif.At(q.in, "Schedule")
	if e == nil {
		return s, invalid("BadConfiguration", "There is no schedule")
	}
	s, err := onvif.TimetableOf(e)
	if err != nil {
		return s, invalid("BadConfiguration", err.Error())
	}
	when, err := formats.ReadSchedule(context.Background(), s.Standard, time.Now())
	if err != nil {
		return s, invalid("BadConfiguration", "The iCalendar is not understood: "+err.Error())
	}
	for _, d := range s.SpecialDays {
		switch {
		case q.has(NoSpecialDays):
			return s, &onvif.Fault{Sender: true, Because: "CapabilityViolated", Code: "SpecialDaysSupported",
				Reason: "Schedules follow no special days here"}
		case !slices.ContainsFunc(q.state.Groups, func(g onvif.DayGroup) bool { return g.Token == d.Group }):
			return s, invalid("ReferenceNotFound", "There is no such group of special days")
		}
		for _, r := range d.Ranges {
			if q.has(HalfHours) && (r.From%30 != 0 || r.Until%30 != 0) {
				return s, invalid("BadConfiguration", "Times stand on half hours")
			}
		}
	}
	return s, q.wantedHours(plan.HoursWhere(when))
}

// wantedHours refuses hours of a week that it does not take.
func (q *asked) wantedHours(hours []plan.Hours) *onvif.Fault {
	perDay := make(map[week.Weekday]int)
	for _, h := range hours {
		if q.has(HalfHours) && (h.From%30 != 0 || h.To%30 != 0) {
			return invalid("BadConfiguration", "Times stand on half hours")
		}
		days := h.Days
		if len(days) == 0 {
			days = week.Weekdays[:]
		}
		for _, d := range days {
			if perDay[d]++; q.has(EightPeriods) && perDay[d] > 8 {
				return &onvif.Fault{Sender: true, Because: "CapabilityViolated", Code: "MaxTimePeriodsPerDay",
					Reason: "A day has eight periods at most"}
			}
		}
	}
	return nil
}

func createSchedule(q *asked) (*onvif.Element, *onvif.Fault) {
	s, fault := q.wantedSchedule()
	if fault != nil {
		return nil, fault
	}
	s.Token = q.state.make("SCH")
	q.state.Schedules = append(q.state.Schedules, s)
	return E("tsc:CreateScheduleResponse", E("tsc:Token", s.Token)), nil
}

func modifySchedule(q *asked) (*onvif.Element, *onvif.Fault) {
	s, fault := q.wantedSchedule()
	if fault != nil {
		return nil, fault
	}
	for k := range q.state.Schedules {
		if q.state.Schedules[k].Token == s.Token {
			q.state.Schedules[k] = s
			return E("tsc:ModifyScheduleResponse"), nil
		}
	}
	return nil, invalid("NotFound", "There is no such schedule")
}

func deleteSchedule(q *asked) (*onvif.Element, *onvif.Fault) {
	token := onvif.Text(q.in, "Token")
	if slices.ContainsFunc(q.state.Jobs, func(j onvif.Job) bool { return j.Schedule == token }) {
		return nil, invalid("ReferenceInUse", "A job follows the schedule")
	}
	q.state.Schedules = slices.DeleteFunc(q.state.Schedules, func(s onvif.Timetable) bool { return s.Token == token })
	return E("tsc:DeleteScheduleResponse"), nil
}

func createGroup(q *asked) (*onvif.Element, *onvif.Fault) {
	e := onvif.At(q.in, "SpecialDayGroup")
	if e == nil || q.has(NoSpecialDays) {
		return nil, invalid("BadConfiguration", "There is no group of special days")
	}
	g := onvif.DayGroupOf(e)
	from := week.Date{Year: 2000, Month: time.January, Day: 1}
	switch dates, err := formats.ReadDates(context.Background(), g.Days, from, 365*200); {
	case err != nil:
		return nil, invalid("BadConfiguration", "The iCalendar is not understood: "+err.Error())
	case len(dates) > mostDates:
		return nil, &onvif.Fault{Sender: true, Because: "CapabilityViolated", Code: "MaxDaysInSpecialDayGroup",
			Reason: "A group has " + strconv.Itoa(mostDates) + " days at most"}
	}
	g.Token = q.state.make("SDG")
	q.state.Groups = append(q.state.Groups, g)
	return E("tsc:CreateSpecialDayGroupResponse", E("tsc:Token", g.Token)), nil
}

func deleteGroup(q *asked) (*onvif.Element, *onvif.Fault) {
	token := onvif.Text(q.in, "Token")
	for _, s := range q.state.Schedules {
		if slices.ContainsFunc(s.SpecialDays, func(d onvif.SpecialDays) bool { return d.Group == token }) {
			return nil, invalid("ReferenceInUse", "A schedule follows the group")
		}
	}
	q.state.Groups = slices.DeleteFunc(q.state.Groups, func(g onvif.DayGroup) bool { return g.Token == token })
	return E("tsc:DeleteSpecialDayGroupResponse"), nil
}

// specialFrom is the date from which a stand-in follows special days; the zero date for never.
func specialFrom(q []Quirk) (d week.Date) {
	if !slices.Contains(q, NoSpecialDays) && !slices.Contains(q, NoSchedules) {
		d.Year, d.Month, d.Day = time.Now().Date()
	}
	return d
}
