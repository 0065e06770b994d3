package check

import (
	"fmt"
	"reflect"

	"wakefield.example/core/edit"
	"wakefield.example/core/estimate"
	"wakefield.example/core/handover"
	"wakefield.example/core/plan"
)

// otherwise is what is said of one channel of which something cannot be entered as planned, and of several.
var otherwise = map[handover.Kind]struct{ one, several string }{
	handover.Times:   {"%s changes at times that %s does not take.", "%d channels change at times that their recorders do not take."},
	handover.Periods: {"%s changes more often a day than %s takes.", "%d channels change more often a day than their recorders take."},
	handover.Layers: {"%s has a base and an event layer at once, and %s takes one.",
		"%d channels have a base and an event layer at once, and their recorders take one."},
	handover.Seconds: {"%s has pre- or post-event times that %s does not offer.",
		"%d channels have pre- or post-event times that their recorders do not offer."},
	handover.Frames: {"%s has frame rates that %s does not offer.", "%d channels have frame rates that their recorders do not offer."},
	handover.Sensitivity: {"%s has a sensitivity that %s does not offer.",
		"%d channels have a sensitivity that their recorders do not offer."},
	handover.Outlines: {"The areas of %s cannot be entered at %s as they are drawn.",
		"The areas of %d channels cannot be entered as they are drawn."},
	handover.AreaHours: {"Areas of %s have hours or durations of their own, which %s does not take.",
		"Areas of %d channels have hours or durations of their own, which their recorders do not take."},
}

// other are the other ways to enter what cannot be entered as planned.
var other = map[handover.Kind][]struct {
	lean  handover.Lean
	label string
}{
	handover.Times:       {{handover.Upper, "Plan the later times instead"}, {handover.Lower, "Plan the earlier times instead"}},
	handover.Layers:      {{handover.Upper, "Plan the event layer alone"}, {handover.Lower, "Plan the base layer alone"}},
	handover.Seconds:     {{handover.Lower, "Plan the next lower instead"}},
	handover.Frames:      {{handover.Lower, "Plan the next lower instead"}},
	handover.Sensitivity: {{handover.Lower, "Plan the next lower instead"}},
}

// enteredPrefix begins the names of rules about what recorders do not take; a kind of that ends them.
const enteredPrefix = "entered-"

// enteredOtherwise: what recorders do not take as it is planned, one finding for each kind of it.
func enteredOtherwise(c *site) {
	entry := handover.Of(c.plan, c.figures)
	all := entry.Enter()
	for _, kind := range handover.Kinds {
		if list := all.Of(kind); len(list) > 0 {
			c.entered(entry, kind, list)
		}
	}
}

// entered reports what of one kind is entered otherwise, with what that does.
func (c *site) entered(entry *handover.Entry, kind handover.Kind, list []handover.Departure) {
	e := entry.Enter(kind)
	then := estimate.Figures(e.Plan, c.figures)
	f := Finding{Rule: enteredPrefix + string(kind), Severity: Hint, Channel: list[0].Channel, Recorder: list[0].Recorder}
	var ids []string
	said := make(map[string]string)
	for _, d := range list {
		if said[d.Channel] == "" {
			ids = append(ids, d.Channel)
			said[d.Channel] = c.plan.Channel(d.Channel).Name + ": "
		} else {
			said[d.Channel] += "; "
		}
		said[d.Channel] += d.Planned + " becomes " + d.Entered
	}
	for i := range c.plan.Channels {
		if c.plan.Channels[i].ID == ids[0] {
			f.Path = fmt.Sprintf("channels[%d]", i)
		}
	}
	words := otherwise[kind]
	f.Sentence = fmt.Sprintf(words.one, c.plan.Channel(ids[0]).Name, c.plan.Recorder(list[0].Recorder).Name)
	if len(ids) > 1 {
		f.Sentence, f.Channels = fmt.Sprintf(words.several, len(ids)), ids
		for _, id := range ids {
			f.Places = append(f.Places, Place{id, said[id] + "."})
		}
	}
	lost, costs := c.asEntered(then)
	if lost {
		f.Severity = Warning
	}
	f.Reason = "As entered, " + list[0].Planned + " becomes " + list[0].Entered
	if n := len(list) - 1; n > 0 {
		f.Reason += fmt.Sprintf(", and %d more", n)
	}
	f.Reason += ". " + costs
	f.Fix = &Fix{"Plan it as it is entered", handover.EditsTo(c.plan, e.Plan)}
	for _, o := range other[kind] {
		edits := handover.EditsTo(c.plan, entry.EnterOtherwise(o.lean, kind).Plan)
		if len(edits) > 0 && !same(edits, f.Fix.Edits) {
			f.Choices = append(f.Choices, Fix{o.label, edits})
		}
	}
	if kind == handover.Outlines || kind == handover.AreaHours {
		var edits []edit.Edit
		for _, id := range ids {
			at := *c.plan.Channel(id)
			at.Events = "out"
			edits = append(edits, edit.Edit{SetChannel: &edit.SetChannel{Channel: at}})
		}
		f.Choices = append(f.Choices, Fix{"Draw them at the cameras", edits})
	}
	c.found = append(c.found, f)
}

// asEntered says what an estimate as entered is beside the one as planned, and whether footage is lost by it.
func (c *site) asEntered(then *estimate.Result) (lost bool, words string) {
	was, is := c.figures.Verdict, then.Verdict
	worse := (was.Evidence.FullPerDay + halfOf(was.Evidence.LowPerDay)) - (is.Evidence.FullPerDay + halfOf(is.Evidence.LowPerDay))
	more := is.GigabytesPerDay - was.GigabytesPerDay
	switch {
	case more >= 0.005:
		words = plan.Say("%.3g GB a day more", more)
	case more <= -0.005:
		words = plan.Say("%.3g GB a day less", -more)
	default:
		words = "As much is written"
	}
	if lost = worse >= 0.005; lost {
		words += plan.Say(", the worth of %.2g events a day lost", worse)
	} else {
		words += ", no evidence lost"
	}
	if kept := daysOf(then, was.Channel); kept != nil && was.KeptDays != nil {
		if change := *kept - *was.KeptDays; change <= -0.05 || change >= 0.05 {
			words += fmt.Sprintf("; %s is kept %.1f days in place of %.1f", c.plan.Channel(was.Channel).Name, *kept, *was.KeptDays)
			lost = lost || was.RequiredDays != nil && *kept < *was.RequiredDays && change <= -0.5
		}
	}
	return lost, words + "."
}

// halfOf is what events count that are kept low.
func halfOf(low float64) float64 { return low / 2 }

// same tells whether edits are the same.
func same(a, b []edit.Edit) bool { return reflect.DeepEqual(a, b) }
