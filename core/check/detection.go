package check

import (
	"fmt"
	"slices"

	"wakefield/core/edit"
	"wakefield/core/plan"
)

// detectionOff: the duty waits for motion, and nothing looks for it.
func detectionOff(c *site, ch *channel) {
	waits := c.where(ch, admitsMotion)
	if ch.NoCamera || ch.Detection.On || len(c.causes[ch.ID].motion) > 0 || hours(waits) == 0 {
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
	blind := and(c.where(ch, own), not(ch.Detection.Steps()))
	if hours(blind) == 0 || !ch.Detection.TiedToSelf() {
		return
	}
	always := ch.Detection
	always.Hours = nil
	severity := Warning
	if hours(and(blind, c.where(ch, func(d *plan.Duty) bool { return d.Base == nil && !admitsAlarm(d) }))) > 0 {
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
	if ch.NoCamera || !ch.Detection.On || c.causes[ch.ID].tells {
		return
	}
	self := ch.Detection
	self.RecordsSelf = nil
	c.report(ch, Error, "untied", "detection.recordsSelf",
		fmt.Sprintf("Motion on %s is tied to no recording, not even its own.", ch.Name),
		plan.Say("%.3g triggers a day lead nowhere.", ch.figures.TriggersPerDay),
		fix("Let it record itself", edit.Edit{SetDetection: &edit.SetDetection{Channels: []string{ch.ID}, Detection: self}}))
	c.costs(1)
}

// alarmWithoutInput: the duty waits for an alarm that no input can give.
func alarmWithoutInput(c *site, ch *channel) {
	waits := c.where(ch, func(d *plan.Duty) bool { return admitsAlarm(d) && (!admitsMotion(d) || needsBoth(d)) })
	if ch.NoCamera || hours(waits) == 0 || len(c.causes[ch.ID].alarms) > 0 {
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
	if hours(and(waits, c.where(ch, func(d *plan.Duty) bool { return d.Base == nil }))) == 0 {
		severity = Warning
	}
	c.report(ch, severity, "alarm-without-input", "week",
		fmt.Sprintf("%s waits for an alarm, but no alarm input records it.", ch.Name),
		plan.Say("For %.3g hours a week only an alarm would start its event recording.", hours(waits)), tie)
	c.costs(hours(waits) / 168)
}

// effectsNotAdmitted: something is told to record a channel whose duty does not
// listen.
func effectsNotAdmitted(c *site) {
	for i, e := range c.plan.Effects {
		listens, cause, kind := admitsMotion, "motion on another channel", "motion"
		if e.When.Alarm != "" {
			listens, kind = admitsAlarm, "alarms"
			if j := slices.IndexFunc(c.plan.AlarmInputs, func(a plan.AlarmInput) bool { return a.ID == e.When.Alarm }); j >= 0 {
				cause = c.plan.AlarmInputs[j].Name
			}
		} else if from := c.plan.Channel(e.When.Motion); from != nil {
			cause = "motion on " + from.Name
		}
		for k, id := range e.Record {
			j := slices.IndexFunc(c.plan.Channels, func(ch plan.Channel) bool { return ch.ID == id })
			ch := &c.plan.Channels[j]
			steps := c.where(&channel{Channel: ch, duties: c.figures.Duties(j)}, listens)
			deaf := 168 - hours(steps)
			if deaf == 0 || ch.NoCamera {
				continue
			}
			f := Finding{
				Rule: "effect-not-admitted", Severity: Hint, Path: fmt.Sprintf("effects[%d].record[%d]", i, k), Channel: id,
				Sentence: plan.Say("%s is told to record by %s, but for %.3g hours a week its duty does not listen to %s.", ch.Name, cause, deaf, kind),
				Reason:   fmt.Sprintf("It listens only then: %s.", inWords(steps)),
			}
			if deaf == 168 {
				f.Severity = Error
				f.Sentence = fmt.Sprintf("%s is told to record by %s, but none of its duties listens to %s.", ch.Name, cause, kind)
				f.Reason = "The event layer of every duty in its week leaves it out."
			}
			f.Cost = deaf / 168
			c.found = append(c.found, f)
		}
	}
}
