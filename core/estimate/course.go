package estimate

import (
	"slices"

	"wakefield.example/core/activity"
	"wakefield.example/core/plan"
	"wakefield.example/core/resolve"
	"wakefield.example/core/week"
)

// Course is the way of a day's wanted events from happening to disk, gate by gate.
type Course struct {
	HappensPerDay          float64 `json:"happensPerDay"`
	Gates                  []Gate  `json:"gates" doc:"In the order in which events come to them"`
	FullPerDay             float64 `json:"fullPerDay" doc:"Kept at full quality, also those that only the base layer has"`
	LowPerDay              float64 `json:"lowPerDay" doc:"Kept at a lower quality"`
	MissedPerDay           float64 `json:"missedPerDay" doc:"Not kept at all"`
	NuisancePerDay         float64 `json:"nuisancePerDay" doc:"Unwanted things that move before the channel"`
	UnwantedTriggersPerDay float64 `json:"unwantedTriggersPerDay" doc:"Triggers that they become"`

	Hours *CourseHours `json:"hours,omitempty" doc:"The same by hour of the week, where it was asked for"`
}

// CourseHours is a course by hour of the week, Monday 00:00 to 01:00 first.
type CourseHours struct {
	Happens          activity.HourRates `json:"happens" doc:"Wanted events"`
	Gates            []Gated            `json:"gates" doc:"As those of the course"`
	Nuisance         activity.HourRates `json:"nuisance"`
	UnwantedTriggers activity.HourRates `json:"unwantedTriggers"`
}

// Gated are the events that come through a gate, by hour of the week.
type Gated struct {
	Gate GateName           `json:"gate" enum:"on,area,large,hours,long,detector,tied,duty"`
	Pass activity.HourRates `json:"pass"`
}

// Why says in a few words why none of the wanted events starts a recording; it is empty where some do, or none happen.
func (c *Course) Why() string {
	if c.HappensPerDay == 0 {
		return ""
	}
	for _, g := range c.Gates {
		if g.PassPerDay <= 0 {
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
	Gate       GateName `json:"gate" enum:"on,area,large,hours,long,detector,tied,duty"`
	PassPerDay float64  `json:"passPerDay" doc:"Events that come through"`
	LostPerDay float64  `json:"lostPerDay" doc:"Events that fall out here"`
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
func (s *Result) CourseOf(i int) Course { return s.course(i, false) }

// CourseByHour is the same, by hour of the week too.
func (s *Result) CourseByHour(i int) Course { return s.course(i, true) }

// courseSoFar makes a course, gate after gate.
type courseSoFar struct {
	Course
	left   float64
	byHour bool
}

// gate lets through what passes, at most what came.
func (w *courseSoFar) gate(name GateName, pass ...activity.Process) {
	all := 0.0
	for _, p := range pass {
		all += p.PerDay()
	}
	all = min(max(all, 0), w.left)
	w.Gates = append(w.Gates, Gate{name, all, w.left - all})
	w.left = all
	if !w.byHour {
		return
	}
	before := w.Hours.Happens
	if n := len(w.Hours.Gates); n > 0 {
		before = w.Hours.Gates[n-1].Pass
	}
	by := activity.NewHourRates(pass...)
	for k := range by {
		by[k] = min(by[k], before[k])
	}
	w.Hours.Gates = append(w.Hours.Gates, Gated{name, by})
}

func (s *Result) course(i int, byHour bool) Course {
	c := &s.plan.Channels[i]
	e := s.Channels[i].Evidence
	out := courseSoFar{byHour: byHour, Course: Course{Gates: []Gate{},
		FullPerDay: e.FullPerDay, LowPerDay: e.LowPerDay, MissedPerDay: e.MissedPerDay}}
	if byHour {
		out.Hours = &CourseHours{Gates: []Gated{}, Happens: activity.NewHourRates(), Nuisance: activity.NewHourRates(),
			UnwantedTriggers: activity.NewHourRates()}
	}
	s.unwanted(i, &out)
	if c.Activity == "" {
		return out.Course
	}
	wanted := s.process(c.Activity)
	out.HappensPerDay = wanted.PerDay()
	out.left = out.HappensPerDay
	if byHour {
		out.Hours.Happens.Add(wanted)
	}
	if !c.Detection.On || c.NoCamera {
		out.gate(GateOn)
		return out.Course
	}
	s.noticedGates(i, wanted, &out)
	s.recordedGates(i, wanted, &out)
	return out.Course
}

// unwanted adds what nobody wants, and what of it becomes triggers.
func (s *Result) unwanted(i int, out *courseSoFar) {
	c, r := &s.plan.Channels[i], s.site
	for k, process := range r.Own(c) {
		if c.Activity != "" && k == 0 {
			continue
		}
		out.NuisancePerDay += process.PerDay()
		if out.byHour {
			out.Hours.Nuisance.Add(process.Process)
		}
		for _, d := range r.Noticing[i].Of(c, k) {
			triggers := d.Triggers(process.Process)
			out.UnwantedTriggersPerDay += triggers.PerDay()
			if out.byHour {
				out.Hours.UnwantedTriggers.Add(triggers)
			}
		}
	}
}

// noticedGates are those of the detection. Each is looked at by itself: the events that there would be behind it if all further
// gates stood open.
func (s *Result) noticedGates(i int, wanted activity.Process, out *courseSoFar) {
	c := &s.plan.Channels[i]
	behind := func(change func(*plan.Channel)) (list []activity.Process) {
		d := *c
		if d.Detection.Catch == nil {
			one := 1.0
			d.Detection.Reliability = &one
		}
		change(&d)
		for _, by := range resolve.Notices(s.plan, &d, s.process).Wanted {
			list = append(list, by.Triggers(wanted))
		}
		return list
	}
	none := 0.0
	open := func(d *plan.Channel) {
		d.Detection.Hours, d.Detection.MinSeconds = nil, 0
		eachArea(d, func(a *plan.Area) { a.Hours, a.MinSeconds = nil, &none })
	}
	if c.Detection.Drawn() && c.Detection.Catch == nil {
		out.gate(GateArea, behind(func(d *plan.Channel) {
			open(d)
			eachArea(d, func(a *plan.Area) { a.Smallest = nil })
		})...)
		out.gate(GateLarge, behind(open)...)
	}
	if c.Detection.Catch != nil {
		out.gate(GateDetector, behind(open)...) // what is stated stands for all that the areas do
	}
	out.gate(GateHours, behind(func(d *plan.Channel) {
		d.Detection.MinSeconds = 0
		eachArea(d, func(a *plan.Area) { a.MinSeconds = &none })
	})...)
	long := behind(func(*plan.Channel) {})
	out.gate(GateLong, long...)
	if c.Detection.Catch == nil {
		out.gate(GateDetector, s.caught(i, wanted)...)
	}
}

// caught are the triggers of wanted events.
func (s *Result) caught(i int, wanted activity.Process) (out []activity.Process) {
	for _, by := range s.site.Noticing[i].Wanted {
		out = append(out, by.Triggers(wanted))
	}
	return out
}

// recordedGates are those between a trigger and what is recorded for it.
func (s *Result) recordedGates(i int, wanted activity.Process, out *courseSoFar) {
	r := s.site
	recorded := r.RecordedBy(i)
	if len(recorded) == 0 {
		out.gate(GateTied)
		return
	}
	caught := s.caught(i, wanted)
	// Where ties name areas or hours, the others of its triggers record nothing.
	if counts := r.MotionOf(i, r.RecordingTies(i)); counts.Part {
		caught = nil
		for _, by := range counts.Noticing.Wanted {
			caught = append(caught, by.Triggers(wanted))
		}
	}
	out.gate(GateTied, caught...)
	listens := week.Constant(false)
	for _, j := range recorded {
		listens = week.Or(listens, r.ListensToMotion(j))
	}
	var heard []activity.Process
	for _, by := range caught {
		heard = append(heard, activity.Detection{Hours: listens, Catch: 1}.Triggers(by))
	}
	out.gate(GateDuty, heard...)
}

// eachArea changes the areas of a channel that stands for another, and leaves those of the other.
func eachArea(d *plan.Channel, change func(*plan.Area)) {
	if !d.Detection.Drawn() {
		return
	}
	list := slices.Clone(d.Detection.Areas.List)
	for k := range list {
		change(&list[k])
	}
	d.Detection.Areas = &plan.Areas{List: list}
}

// process is an activity as the plan states it.
func (s *Result) process(id string) activity.Process { return s.site.Activities[id].Process }
