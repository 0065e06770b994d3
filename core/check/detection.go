package check

import (
	"fmt"
	"reflect"
	"slices"
	"strings"

	"wakefield.example/core/cause"
	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// detectionOff: the duty waits for motion, and nothing looks for it.
func detectionOff(c *site, ch *channel) {
	waits := c.where(ch, admitsMotion)
	if ch.NoCamera || ch.Detection.On || c.records(ch, cause.Motion) || hours(waits) == 0 {
		return
	}
	on := ch.Detection
	on.On = true
	severity := Error
	if hours(c.where(ch, func(d *plan.Duty) bool { return admitsMotion(d) && d.Base == nil && (!admitsAlarm(d) || needsBoth(d)) })) == 0 {
		severity = Warning // something else is written meanwhile
	}
	c.report(ch, severity, "detection-off", "detection.on",
		fmt.Sprintf("%s records on motion, but its detection is off.", ch.Name),
		plan.Say("For %.3g hours a week the schedule waits for motion that is never reported.", hours(waits)),
		fix("Switch detection on", edit.Edit{SetDetection: &edit.SetDetection{Channels: []string{ch.ID}, Detection: on}}))
	c.costs(hours(waits) / 168)
}

// blindHours: detection is off during part of a motion duty.
func blindHours(c *site, ch *channel) {
	if ch.NoCamera || !ch.Detection.On || ch.Detection.Hours == nil {
		return
	}
	own := func(d *plan.Duty) bool { return admitsMotion(d) }
	blind := week.And(c.where(ch, own), not(ch.Detection.Steps()))
	if hours(blind) == 0 || !ch.Detection.TiedToSelf() {
		return
	}
	always := ch.Detection
	always.Hours = nil
	severity := Warning
	if hours(week.And(blind, c.where(ch, func(d *plan.Duty) bool { return d.Base == nil && !admitsAlarm(d) }))) > 0 {
		severity = Error
	}
	c.report(ch, severity, "blind-hours", "detection.hours",
		plan.Say("%s records on motion for %.3g hours a week in which its detection is off.", ch.Name, hours(blind)),
		fmt.Sprintf("Blind: %s.", inWords(blind)),
		fix("Let detection work all week", edit.Edit{SetDetection: &edit.SetDetection{Channels: []string{ch.ID}, Detection: always}}))
	c.costs(hours(blind) / 168)
}

// noArea: detection is on and looks nowhere.
func noArea(c *site, ch *channel) {
	if n, known := ch.Detection.Counted(); ch.NoCamera || !ch.Detection.On || !known || n > 0 {
		return
	}
	c.report(ch, Error, "no-area", "detection.areas",
		fmt.Sprintf("%s has detection on, but no detection area is drawn.", ch.Name),
		"Without an area no motion is seen anywhere in the picture. Draw the areas at the camera and count them here.", nil)
	c.costs(1)
}

// untied: detection is on and tells nobody.
func untied(c *site, ch *channel) {
	if ch.NoCamera || !ch.Detection.On || c.recordsAny(ch) {
		return
	}
	self := ch.Detection
	self.RecordsSelf = nil
	severity, leads := Error, "lead nowhere"
	if c.causes.Caused(cause.Motion, ch.index) > 0 {
		severity, leads = Warning, "do other things, but nothing keeps their footage"
	}
	c.report(ch, severity, "untied", "detection.recordsSelf",
		fmt.Sprintf("Motion on %s is tied to no recording, not even its own.", ch.Name),
		plan.Say("%.3g triggers a day %s.", ch.figures.TriggersPerDay, leads),
		fix("Let it record itself", edit.Edit{SetDetection: &edit.SetDetection{Channels: []string{ch.ID}, Detection: self}}))
	c.costs(1)
}

// alarmWithoutInput: the duty waits for an alarm that no input can give.
func alarmWithoutInput(c *site, ch *channel) {
	waits := c.where(ch, func(d *plan.Duty) bool { return admitsAlarm(d) && (!admitsMotion(d) || needsBoth(d)) })
	if ch.NoCamera || hours(waits) == 0 || c.records(ch, cause.Alarm) {
		return
	}
	var here []plan.AlarmInput
	for _, a := range c.plan.AlarmInputs {
		if a.Recorder == ch.Recorder {
			here = append(here, a)
		}
	}
	var tie *Fix
	if len(here) == 1 {
		tie = fix("Let "+here[0].Name+" record it", edit.Edit{AddEffect: &edit.AddEffect{
			Effect: plan.Effect{When: plan.When{Alarm: here[0].ID}, Record: []string{ch.ID}}}})
	}
	severity := Error
	if hours(week.And(waits, c.where(ch, func(d *plan.Duty) bool { return d.Base == nil }))) == 0 {
		severity = Warning
	}
	c.report(ch, severity, "alarm-without-input", "week",
		fmt.Sprintf("%s waits for an alarm, but no alarm input records it.", ch.Name),
		plan.Say("For %.3g hours a week only an alarm would start its event recording.", hours(waits)), tie)
	c.costs(hours(waits) / 168)
}

// effectsNotAdmitted: something is told to record a channel whose duty does not
// listen. What is told at the same hours is one finding.
func effectsNotAdmitted(c *site) {
	type told struct {
		channel int
		kind    string
		hours   string
	}
	type ties struct {
		effect, at int // of the first
		more       int
	}
	known := make(map[told]*ties)
	var order []told
	index := make(map[string]int, len(c.plan.Channels))
	for i := range c.plan.Channels {
		index[c.plan.Channels[i].ID] = i
	}
	for i := range c.plan.Effects {
		e := &c.plan.Effects[i]
		if e.When.Button != "" {
			continue // a button is always listened to
		}
		key := told{kind: "alarms"}
		if e.When.Motion != "" {
			key.kind = "motion"
		}
		if e.Hours != nil {
			key.hours = plan.HoursText(e.Hours.Blocks)
		}
		for k, id := range e.Record {
			key.channel = index[id]
			if c.plan.Channels[key.channel].NoCamera {
				continue
			}
			if t := known[key]; t != nil {
				t.more++
				continue
			}
			known[key] = &ties{effect: i, at: k}
			order = append(order, key)
		}
	}
	for _, key := range order {
		c.deafTo(key.channel, key.kind, known[key].effect, known[key].at, known[key].more)
	}
}

// deafTo reports that a channel does not listen to a cause, and to some more like it, at all hours of the tie.
func (c *site) deafTo(channel int, kind string, effect, at, more int) {
	ch, e := &c.plan.Channels[channel], &c.plan.Effects[effect]
	steps, holds := c.figures.Listens(channel, e.When), e.Hours.Holding()
	deaf := hours(week.And(holds, not(steps)))
	if deaf == 0 {
		return
	}
	happens := lower(c.plan.CauseInWords(e.When))
	if more > 0 {
		happens += fmt.Sprintf(" and %d more", more)
	}
	f := Finding{
		Rule: "effect-not-admitted", Severity: Hint, Path: fmt.Sprintf("effects[%d].record[%d]", effect, at), Channel: ch.ID,
		Sentence: plan.Say("%s is told to record by %s, but for %.3g hours a week its duty does not listen to %s.", ch.Name, happens, deaf, kind),
		Reason:   fmt.Sprintf("It listens only then: %s.", inWords(steps)),
	}
	if deaf == hours(holds) {
		f.Severity = Error
		f.Sentence = fmt.Sprintf("%s is told to record by %s, but none of its duties listens to %s.", ch.Name, happens, kind)
		f.Reason = "The event layer of every duty in its week leaves it out."
		if e.Hours != nil {
			f.Sentence = fmt.Sprintf("%s is told to record by %s, but its duty never listens to %s in the hours of that tie.",
				ch.Name, happens, kind)
			f.Reason = fmt.Sprintf("The tie applies %s.", plan.HoursInWords(e.Hours.Blocks))
		}
	}
	f.Fix = c.letListen(ch, c.figures.Duties(channel), week.And(holds, not(steps)), kind)
	f.Cost, f.worse = deaf/168, deaf
	f.cause = fmt.Sprint(f.Rule, f.Severity, kind, e.Hours != nil, f.Fix == nil)
	words := "%d channels are told to record by " + kind + " at hours in which their duties do not listen."
	if f.Severity == Error {
		words = "%d channels are told to record by " + kind + ", but their duties never listen then."
	}
	f.several = func(n int) string { return fmt.Sprintf(words, n) }
	c.found = append(c.found, f)
}

// lower begins a cause in the middle of a sentence, where it does not begin with a name.
func lower(cause string) string {
	for _, word := range []string{"Motion ", "Picture ", "Tampering "} {
		if strings.HasPrefix(cause, word) {
			return strings.ToLower(cause[:1]) + cause[1:]
		}
	}
	return cause
}

// mostDuties are changed at once by a fix.
const mostDuties = 4

// letListen paints duties that do what those of a channel do in some hours, and listen to motion, or to alarms, too. Where
// the plan has none such it adds one. A channel that is off stays off.
func (c *site) letListen(ch *plan.Channel, duties week.Steps[string], then week.Steps[bool], kind string) *Fix {
	on := plan.Motion
	if kind == "alarms" {
		on = plan.Alarm
	}
	var edits []edit.Edit
	list := c.plan.Duties
	for _, id := range distinct(duties) {
		d := c.duties[id]
		at := week.And(then, week.Map(duties, func(at string) bool { return at == id }))
		if d == nil || hours(at) == 0 || d.Base == nil && d.Event == nil {
			continue
		}
		wants := *d
		event := plan.Event{Stream: plan.Main, On: []plan.Trigger{on}}
		if d.Event != nil {
			event = *d.Event
			event.On, event.Match = []plan.Trigger{plan.Motion, plan.Alarm}, "any"
		}
		wants.Event = &event
		k := slices.IndexFunc(list, func(x plan.Duty) bool {
			return x.Event != nil && x.Event.Match != "all" && x.Event.Stream == event.Stream && x.Event.FPS == event.FPS &&
				x.Event.Settings == event.Settings && slices.Contains(x.Event.On, on) &&
				(d.Event == nil || len(x.Event.On) == 2) && reflect.DeepEqual(x.Base, d.Base)
		})
		if k < 0 {
			wants.Name = d.Name + ", or " + map[plan.Trigger]string{plan.Motion: "motion", plan.Alarm: "alarm"}[on]
			wants.ID, wants.Mark = plan.FreeID(wants.Name, "duty", func(id string) bool {
				return slices.ContainsFunc(list,
					func(x plan.Duty) bool { return x.ID == id })
			}), 0
			edits = append(edits, edit.Edit{SetDuty: &edit.SetDuty{Duty: wants}})
			list = append(slices.Clone(list), wants)
			k = len(list) - 1
		}
		edits = append(edits, edit.Edit{Paint: &edit.Paint{Channels: []string{ch.ID}, Hours: plan.HoursWhere(at), Duty: list[k].ID}})
		if len(edits) > 2*mostDuties {
			return nil
		}
	}
	if edits == nil {
		return nil
	}
	return &Fix{"Let it listen to " + kind + " too", edits}
}

func distinct(duties week.Steps[string]) (out []string) {
	for _, step := range duties {
		if !slices.Contains(out, step.Value) {
			out = append(out, step.Value)
		}
	}
	return out
}
