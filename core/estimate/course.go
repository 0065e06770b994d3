package estimate

import (
	"wakefield/core/activity"
	"wakefield/core/footage"
	"wakefield/core/plan"
	"wakefield/core/week"
)

// Course is the way of a day's wanted events from happening to disk, gate by gate.
type Course struct {
	HappensPerDay float64 `json:"happensPerDay"`
	Gates         []Gate  `json:"gates" doc:"In the order in which events come to them"`
	Full          float64 `json:"fullPerDay" doc:"Kept at full quality, also those that only the base layer has"`
	Low           float64 `json:"lowPerDay" doc:"Kept at a lower quality"`
	Missed        float64 `json:"missedPerDay" doc:"Not kept at all"`
	Nuisance      float64 `json:"nuisancePerDay" doc:"Unwanted things that move before the channel"`
	Unwanted      float64 `json:"unwantedTriggersPerDay" doc:"Triggers that they become"`
}

// Why says in a few words why none of the wanted events starts a recording; it is empty where some do, or none happen.
func (c *Course) Why() string {
	if c.HappensPerDay == 0 {
		return ""
	}
	for _, g := range c.Gates {
		if g.Pass <= 0 {
			return shut[g.Gate]
		}
	}
	return ""
}

// shut is said of a gate that lets nothing through.
var shut = map[GateName]string{
	GateOn: "detection is off", GateArea: "no area there", GateLarge: "all too small", GateHours: "watches at no time",
	GateLong: "all too short", GateDetector: "detector misses all", GateTied: "tied to nothing", GateDuty: "duty never listens",
}

// Gate is what events must pass to start a recording.
type Gate struct {
	Gate GateName `json:"gate" enum:"on,area,large,hours,long,detector,tied,duty"`
	Pass float64  `json:"passPerDay" doc:"Events that come through"`
	Lost float64  `json:"lostPerDay" doc:"Events that fall out here"`
}

// GateName names a gate.
type GateName string

const (
	GateOn       GateName = "on"       // detection is switched on
	GateArea     GateName = "area"     // it comes into a watched area
	GateLarge    GateName = "large"    // it is large enough there
	GateHours    GateName = "hours"    // detection, and the area, watch at the time
	GateLong     GateName = "long"     // it lasts long enough
	GateDetector GateName = "detector" // the detector does not miss it
	GateTied     GateName = "tied"     // motion is tied to a recording
	GateDuty     GateName = "duty"     // a duty listens to motion alone then
)

// CourseOf is the course of channel i, steady state, events a day.
func (s *Result) CourseOf(i int) Course {
	c, r := &s.plan.Channels[i], s.resolver
	e := s.Channels[i].Evidence
	out := Course{Gates: []Gate{}, Full: e.FullPerDay, Low: e.LowPerDay, Missed: e.MissedPerDay}
	for k, process := range r.own(c) {
		if c.Activity != "" && k == 0 {
			continue
		}
		out.Nuisance += process.PerDay()
		for _, d := range r.noticing[i].of(c, k) {
			out.Unwanted += d.Triggers(process.Process).PerDay()
		}
	}
	if c.Activity == "" {
		return out
	}
	wanted := s.process(c.Activity)
	out.HappensPerDay = wanted.PerDay()
	left := out.HappensPerDay
	gate := func(name GateName, pass float64) {
		pass = min(max(pass, 0), left)
		out.Gates = append(out.Gates, Gate{name, pass, left - pass})
		left = pass
	}
	if !c.Detection.On || c.NoCamera {
		gate(GateOn, 0)
		return out
	}
	// Each gate by itself: how many events a day there would be behind it if all further gates stood open.
	behind := func(change func(*plan.Channel)) float64 {
		d := *c
		if d.Detection.Catch == nil {
			one := 1.0
			d.Detection.Reliability = &one
		}
		change(&d)
		total := 0.0
		for _, by := range notices(s.plan, &d, s.process).wanted {
			total += by.Triggers(wanted).PerDay()
		}
		return total
	}
	areas := func(d *plan.Channel, change func(*plan.Area)) {
		if !d.Detection.Drawn() {
			return
		}
		list := make([]plan.Area, len(d.Detection.Areas.List))
		copy(list, d.Detection.Areas.List)
		for k := range list {
			change(&list[k])
		}
		d.Detection.Areas = &plan.Areas{List: list}
	}
	none := 0.0
	open := func(d *plan.Channel) {
		d.Detection.Hours, d.Detection.MinSeconds = nil, 0
		areas(d, func(a *plan.Area) { a.Hours, a.MinSeconds = nil, &none })
	}
	if c.Detection.Drawn() && c.Detection.Catch == nil {
		gate(GateArea, behind(func(d *plan.Channel) {
			open(d)
			areas(d, func(a *plan.Area) { a.Smallest = nil })
		}))
		gate(GateLarge, behind(open))
	}
	if c.Detection.Catch != nil {
		gate(GateDetector, behind(open)) // what is stated stands for all that the areas do
	}
	gate(GateHours, behind(func(d *plan.Channel) {
		d.Detection.MinSeconds = 0
		areas(d, func(a *plan.Area) { a.MinSeconds = &none })
	}))
	gate(GateLong, behind(func(*plan.Channel) {}))
	if c.Detection.Catch == nil {
		caught := 0.0
		for _, by := range r.noticing[i].wanted {
			caught += by.Triggers(wanted).PerDay()
		}
		gate(GateDetector, caught)
	}
	recorded := r.recordedBy(i)
	if len(recorded) == 0 {
		gate(GateTied, 0)
		return out
	}
	gate(GateTied, left)
	listens := week.Constant(false)
	for _, j := range recorded {
		admits := week.Map(s.Duties(j), func(id string) bool {
			d := r.duties[id]
			if d == nil || d.Event == nil {
				return false
			}
			by := admits(d.Event)
			return by == footage.Motion || by == footage.Either
		})
		listens = week.Map(week.Both(listens, admits), func(p week.Pair[bool, bool]) bool { return p.A || p.B })
	}
	heard := 0.0
	for _, by := range r.noticing[i].wanted {
		heard += activity.Detection{Hours: listens, Catch: 1}.Triggers(by.Triggers(wanted)).PerDay()
	}
	gate(GateDuty, heard)
	return out
}

// recordedBy are the channels that the motion of channel i records.
func (r *resolver) recordedBy(i int) (out []int) {
	for j, from := range r.toMotion {
		for _, k := range from {
			if k == i && !r.plan.Channels[j].NoCamera {
				out = append(out, j)
			}
		}
	}
	return out
}

// process is an activity as the plan states it.
func (s *Result) process(id string) activity.Process { return s.resolver.processes[id].Process }
