package check

import (
	"cmp"
	"fmt"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
)

// worseInEvents: a duty whose event layer, which takes the place of its base layer, shows less than that: when something happens it
// is recorded worse than when nothing does. Keyframes are no measure of it: what follows them moves.
func worseInEvents(c *site) {
	for k := range c.plan.Duties {
		d := &c.plan.Duties[k]
		if d.Base == nil || d.Event == nil || d.Base.KeyframesOnly {
			continue
		}
		var of []Place
		less, all := "", 0.0
		for i := range c.plan.Channels {
			ch := &c.plan.Channels[i]
			words := worse(ch, d)
			if words == "" || ch.NoCamera {
				continue
			}
			if share := c.figures.Input(i).Duties.Share(func(id string) bool { return id == d.ID }); share > 0 {
				of, all = append(of, Place{ch.ID, fmt.Sprintf("On %s it is %s.", ch.Name, words)}), all+share
				less = cmp.Or(less, words)
			}
		}
		if len(of) == 0 {
			continue
		}
		better := *d
		better.Event = &plan.Event{Stream: d.Base.Stream, FPS: d.Base.FPS, Settings: d.Base.Settings, On: d.Event.On, Match: d.Event.Match}
		f := Finding{Rule: "worse-in-events", Severity: Warning, Path: fmt.Sprintf("duties[%d].event", k), Channel: of[0].Channel,
			Sentence: fmt.Sprintf("“%s” records an event on %s worse than what is between events: %s.", d.Name,
				c.plan.Channel(of[0].Channel).Name, less),
			Reason: "The event layer takes the place of the base layer while it is written.",
			Cost:   all,
			Fix: fix("In events, record as between them: "+plan.StreamChoices.Name(string(d.Base.Stream)),
				edit.Edit{SetDuty: &edit.SetDuty{Duty: better}})}
		if d.Base.Stream != d.Event.Stream {
			turned := *d
			turned.Base = &plan.Base{Stream: d.Event.Stream, FPS: d.Event.FPS, Settings: d.Event.Settings}
			turned.Event = better.Event
			f.Choices = []Fix{{fmt.Sprintf("The other way round: %s between events, %s in them", plan.StreamChoices.Name(string(d.Event.Stream)),
				plan.StreamChoices.Name(string(d.Base.Stream))), []edit.Edit{{SetDuty: &edit.SetDuty{Duty: turned}}}}}
		}
		if len(of) > 1 {
			f.Sentence = fmt.Sprintf("“%s” records events on %d channels worse than what is between them.", d.Name, len(of))
			f.Places = of
			for _, p := range of {
				f.Channels = append(f.Channels, p.Channel)
			}
		}
		c.reportPart(f)
	}
}

// worse says in what the event layer of a duty shows less on a channel than its base layer; empty where it does not.
func worse(ch *plan.Channel, d *plan.Duty) string {
	base, event := ch.Streams.Get(d.Base.Stream), ch.Streams.Get(d.Event.Stream)
	if base == nil || event == nil {
		return ""
	}
	if d.Base.Stream != d.Event.Stream {
		if event.Width*event.Height < base.Width*base.Height {
			return plan.Say("%d × %d in place of %d × %d", event.Width, event.Height, base.Width, base.Height)
		}
		return ""
	}
	if ch.CameraDecides() { // the settings of the duty have no effect
		return ""
	}
	frames := func(fps float64) float64 { // kept of so many that are asked for, 0 for all
		if fps == 0 {
			return base.FPS
		}
		return min(fps, base.FPS)
	}
	if is, was := frames(d.Event.FPS), frames(d.Base.FPS); is < was {
		return plan.Say("%v frames a second in place of %v", is, was)
	}
	if d.Event.Factor() < d.Base.Factor() {
		return "a lower bitrate"
	}
	return ""
}
