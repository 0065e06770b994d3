package check

import (
	"fmt"
	"slices"
	"sort"

	"wakefield.example/core/cause"
	"wakefield.example/core/edit"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
)

// What is worth a finding of what causes do.
const (
	quietShare    = 0.8  // of a cause's triggers that a receiver does not hear of
	noticeSeconds = 3.0  // a relay, lamp or sounder is noticed after
	cutPercent    = 20.0 // of a monitor's showings
	awayPercent   = 10.0 // of the wanted events
	nightTimes    = 1.0 / 7
)

// reportPart keeps a finding reportPart a part of the plan that is no channel.
func (c *site) reportPart(f Finding) { c.found = append(c.found, f) }

// tiesNeverAct: a cause is tied to something, and can never bring it about.
func tiesNeverAct(c *site) {
	type of struct {
		effect int
		why    estimate.WhyNot
	}
	ties := make(map[of][]estimate.TieFigures)
	var order []of
	for _, t := range c.ties {
		if t.Why == "" || t.Does == "record" && (t.Why == estimate.WhyDeaf || t.Why == estimate.WhyEmpty) ||
			t.Does == "still" && t.Why == estimate.WhyNothing {
			continue // said of the channel
		}
		key := of{t.Effect, t.Why}
		if ties[key] == nil {
			order = append(order, key)
		}
		ties[key] = append(ties[key], t)
	}
	for _, key := range order {
		list := ties[key]
		e := &c.plan.Effects[key.effect]
		what := c.target(&list[0])
		if n := len(list) - 1; n > 0 {
			what += fmt.Sprintf(" and %d more", n)
		}
		f := Finding{Rule: "tie-never-acts", Severity: Error, Path: fmt.Sprintf("effects[%d]", key.effect), Channel: e.When.Motion,
			Sentence: fmt.Sprintf("%s is tied to %s, but can never act on it.", c.plan.CauseInWords(e.When), what)}
		switch key.why {
		case estimate.WhyOff:
			f.Reason = "Detection is off there, or there is no camera."
			if ch := c.plan.Channel(e.When.Motion); !ch.NoCamera {
				on := ch.Detection
				on.On = true
				f.Fix = fix("Switch detection on", edit.Edit{SetDetection: &edit.SetDetection{Channels: []string{ch.ID}, Detection: on}})
			}
		case estimate.WhyNever:
			f.Severity, f.Reason = Warning, "By what is known of it, it never happens."
		case estimate.WhyHours:
			f.Reason = fmt.Sprintf("The tie applies %s; it happens at other hours only.", plan.HoursInWords(e.Hours.Blocks))
			always := *e
			always.Hours = nil
			f.Fix = &Fix{"Let it apply always", []edit.Edit{{RemoveEffect: &edit.RemoveEffect{Effect: *e}},
				{AddEffect: &edit.AddEffect{Effect: always}}}}
		case estimate.WhyQuiet:
			f.Reason = fmt.Sprintf("It is quiet whenever that happens; it acts %s only.", list[0].Hours)
		case estimate.WhyEmpty:
			f.Reason = "The channel has no camera."
		default:
			f.Reason = "There is nothing to do it with: see Copy off site."
		}
		c.reportPart(f)
	}
}

// target is what a tie does, in words.
func (c *site) target(t *estimate.TieFigures) string {
	switch t.Does {
	case "message":
		return "the message " + c.plan.Message(t.To).Name
	case "output":
		return c.plan.Output(t.To).Name
	case "monitor":
		return "the monitor " + c.plan.Monitor(t.To).Name
	}
	name := c.plan.Channel(t.To).Name
	switch t.Does {
	case "preset":
		return name + " at " + c.plan.Channel(t.To).Movable.Name(t.Preset)
	case "still":
		return "snapshots of " + name
	case "offsite":
		return "the copy of " + name
	}
	return "footage of " + name
}

// intervals are those that a fix offers, seconds.
var intervals = []float64{60, 120, 300, 600, 900, 1800, 3600, 7200, 14400, 28800, 86400}

// messages: more than anyone reads, most of them held back, a receiver that is quiet just when it matters.
func messages(c *site) {
	for k := range c.plan.Messages {
		m, told := &c.plan.Messages[k], &c.figures.Messages[k]
		path := fmt.Sprintf("messages[%d]", k)
		every := plan.SecondsInWords(m.AtMostEverySeconds)
		if told.PerDay > m.Readable() {
			f := Finding{Rule: "too-many-messages", Severity: Warning, Path: path + ".atMostEverySeconds",
				Sentence: plan.Say("%s is told %.3g times a day, more than the %v a day set as readable.", m.To, told.PerDay, m.Readable()),
				Reason: plan.Say("%s sends at most one every %s; %.3g go out in the busiest hour, %.3g at night.", m.Name, every,
					told.BusiestPerHour, told.NightPerDay)}
			// The longer the interval the less goes out.
			at := sort.Search(len(intervals), func(i int) bool {
				return intervals[i] > m.AtMostEverySeconds && c.figures.SentAt(m.ID, intervals[i]) <= m.Readable()
			})
			if at < len(intervals) {
				rarer := *m
				rarer.AtMostEverySeconds = intervals[at]
				f.Fix = fix("At most one every "+plan.SecondsInWords(intervals[at]), edit.Edit{SetMessage: &edit.SetMessage{Message: rarer}})
			}
			c.reportPart(f)
		} else if told.HeldBackPerDay >= 1 && told.HeldBackPerDay > told.PerDay {
			c.reportPart(Finding{Rule: "mostly-held-back", Severity: Hint, Path: path + ".atMostEverySeconds",
				Sentence: plan.Say("%.0f %% of the messages to %s are held back.", 100*told.HeldBackPerDay/(told.PerDay+told.HeldBackPerDay), m.To),
				Reason: plan.Say("%s: %.3g a day go out and %.3g do not, as another went out within %s before.", m.Name, told.PerDay,
					told.HeldBackPerDay, every)})
		}
	}
	for _, t := range c.ties {
		if t.Does == "message" && t.Why == "" && t.HappensPerDay >= 0.01 && t.ActsPerDay < (1-quietShare)*t.HappensPerDay {
			m := c.plan.Message(t.To)
			c.reportPart(Finding{Rule: "message-quiet", Severity: Hint, Path: fmt.Sprintf("effects[%d].message", t.Effect),
				Sentence: plan.Say("%s is quiet for %.0f %% of what it is tied to: %s.", m.Name, 100*(1-t.ActsPerDay/t.HappensPerDay),
					c.plan.CauseInWords(c.plan.Effects[t.Effect].When)),
				Reason: plan.Say("Of %.3g a day it hears of %.3g; it goes out %s only.", t.HappensPerDay, t.ActsPerDay, t.Hours)})
		}
	}
}

// outputs: a sounder at night, something held shorter than anyone notices.
func outputs(c *site) {
	for k := range c.plan.Outputs {
		o, on := &c.plan.Outputs[k], &c.figures.Outputs[k]
		path := fmt.Sprintf("outputs[%d]", k)
		if o.Loud() && on.NightPerDay > nightTimes {
			quiet := *o
			days := &plan.HourList{Blocks: []plan.Hours{{From: 6 * 60, To: 22 * 60}}}
			quiet.Hours = days
			f := Finding{Rule: "sounder-at-night", Severity: Hint, Path: path + ".hours",
				Sentence: plan.Say("%s sounds %.3g times a night.", o.Name, on.NightPerDay),
				Reason:   plan.Say("From 22:00 to 06:00 it is on for %.2g %% of the time.", on.NightOnPercent)}
			if o.Hours == nil {
				f.Fix = fix("Quiet from 22:00 to 06:00", edit.Edit{SetOutput: &edit.SetOutput{Output: quiet}})
			}
			c.reportPart(f)
		}
		if o.HoldSeconds < noticeSeconds {
			longer := *o
			longer.HoldSeconds = 5
			c.reportPart(Finding{Rule: "hold-too-short", Severity: Hint, Path: path + ".holdSeconds",
				Sentence: plan.Say("%s is on for %v s only, too short to be noticed.", o.Name, o.HoldSeconds),
				Reason:   plan.Say("A person needs some %v s to notice. Leave it so where it drives a device that wants a short pulse.", noticeSeconds),
				Fix:      fix("Switch it on for 5 s", edit.Edit{SetOutput: &edit.SetOutput{Output: longer}})})
		}
	}
}

// monitors: what is shown is gone before it was seen.
func monitors(c *site) {
	for k := range c.plan.Monitors {
		m, shown := &c.plan.Monitors[k], &c.figures.Monitors[k]
		if shown.CutShortPercent > cutPercent {
			c.reportPart(Finding{Rule: "monitor-cut-short", Severity: Warning, Path: fmt.Sprintf("monitors[%d].dwellSeconds", k),
				Sentence: plan.Say("On %s %.0f %% of the showings are cut short by the next.", m.Name, shown.CutShortPercent),
				Reason: plan.Say("Each is to last %v s; there are %.3g a day, and in the busiest hour it is in use for %.0f %% of the time.",
					m.DwellSeconds, shown.PerDay, shown.BusiestOnPercent)})
		}
	}
}

// sentAway: a movable camera is elsewhere just when something happens at home.
func sentAway(c *site) {
	for _, a := range c.figures.SentAway() {
		if a.Percent <= awayPercent {
			continue
		}
		i := slices.IndexFunc(c.plan.Channels, func(ch plan.Channel) bool { return ch.ID == a.Channel })
		ch := &c.plan.Channels[i]
		c.reportPart(Finding{Rule: "camera-away", Severity: Warning, Path: fmt.Sprintf("channels[%d].movable", i), Channel: ch.ID,
			Sentence: plan.Say("%s looks elsewhere during %.0f %% of the wanted events at %s.", ch.Name, a.Percent,
				ch.Movable.Name(ch.Movable.Home)),
			Reason: plan.Say("%.3g events a day that it would have at home are missed for it.", a.Missed), Cost: a.Percent / 100})
	}
}

// stillsIncomplete: stills are wanted, and one of the settings that make them is missing.
func stillsIncomplete(c *site) {
	wanted := c.stillsWanted()
	for i := range c.plan.Channels {
		ch := &c.plan.Channels[i]
		path := fmt.Sprintf("channels[%d].stills", i)
		switch reason := wanted[ch.ID]; {
		case ch.NoCamera:
		case reason != "" && ch.Stills == nil:
			c.reportPart(Finding{Rule: "stills-incomplete", Severity: Warning, Path: path, Channel: ch.ID,
				Sentence: fmt.Sprintf("%s takes no snapshots, but something should send one.", ch.Name), Reason: reason + ".",
				Fix: fix("Take snapshots on trigger", edit.Edit{SetStills: &edit.SetStills{Channels: []string{ch.ID}, Stills: plainStills(ch)}})})
		case ch.Stills != nil && ch.Stills.Hours != nil && len(ch.Stills.Hours.Blocks) == 0:
			always := *ch.Stills
			always.Hours = nil
			c.reportPart(Finding{Rule: "stills-incomplete", Severity: Warning, Path: path + ".hours", Channel: ch.ID,
				Sentence: fmt.Sprintf("%s is to take snapshots, but at no hour of the week.", ch.Name),
				Reason:   "Its snapshots have hours, and none is among them.",
				Fix:      fix("Take them always", edit.Edit{SetStills: &edit.SetStills{Channels: []string{ch.ID}, Stills: &always}})})
		case ch.Stills != nil && ch.Stills.Mode == "trigger" && len(c.causes.Stills[i]) == 0:
			f := Finding{Rule: "stills-incomplete", Severity: Warning, Path: path + ".mode", Channel: ch.ID,
				Sentence: fmt.Sprintf("%s takes snapshots on trigger, but nothing triggers them.", ch.Name),
				Reason:   "Its detection is off, and no other cause is tied to them."}
			if !ch.Detection.On {
				on := ch.Detection
				on.On = true
				f.Fix = fix("Switch detection on", edit.Edit{SetDetection: &edit.SetDetection{Channels: []string{ch.ID}, Detection: on}})
			}
			c.reportPart(f)
		}
	}
}

// stillsWanted are channels without stills of which something is to have some, and what that is.
func (c *site) stillsWanted() map[string]string {
	wanted := make(map[string]string)
	for _, t := range c.ties {
		if t.Does == "still" && t.Why == estimate.WhyNothing {
			wanted[t.To] = c.plan.CauseInWords(c.plan.Effects[t.Effect].When) + " is tied to them"
		}
	}
	for i, m := range c.plan.Messages {
		if !m.Still {
			continue
		}
		for _, t := range c.causes.Messages[i] {
			if ch := &c.plan.Channels[t.Cause.At]; t.Cause.Kind == cause.Motion && ch.Stills == nil && wanted[ch.ID] == "" {
				wanted[ch.ID] = m.Name + " carries a snapshot of it"
			}
		}
	}
	return wanted
}

// plainStills are what a channel takes of which nothing is said: of medium quality, no larger than is shown on a telephone.
func plainStills(ch *plan.Channel) *plan.Stills {
	s := &plan.Stills{Mode: "trigger", EverySeconds: 5, Width: 1280, Height: 720, Quality: 3}
	if main := ch.Streams.Main; main != nil && main.Width < s.Width {
		s.Width, s.Height = main.Width, main.Height
	}
	return s
}

// offsite: a copy that never catches up, or comes later than a thief.
func offsite(c *site) {
	o, copied := c.plan.Offsite, c.figures.Offsite
	if o == nil || copied == nil {
		return
	}
	unwatched(c)
	if copied.WorstWaitSeconds == nil {
		c.reportPart(Finding{Rule: "copy-never-catches-up", Severity: Error, Path: "offsite.uplinkKbps",
			Sentence: plan.Say("The copy off site never catches up: a week brings %.3g %% of what the uplink carries.", copied.UplinkPercent),
			Reason: plan.Say("%.3g GB a day are to be copied over %.4g kbit/s. Copy less, or let the sub stream or snapshots go in its place.",
				copied.GigabytesPerDay, o.UplinkKbps)})
		return
	}
	if copied.LateChannels == 0 {
		return
	}
	worst, late := 0, 0.0
	for i := range c.figures.Channels {
		if s := c.figures.Channels[i].LatePercent; s != nil && *s > late {
			late, worst = *s, i
		}
	}
	f, name := &c.figures.Channels[worst], c.plan.Channels[worst].Name
	c.reportPart(Finding{Rule: "copy-late", Severity: Warning, Path: "offsite.takenWithinSeconds",
		Sentence: plan.Say("A thief needs %s to take the recorder; footage of %s is copied later than that.",
			plan.SecondsInWords(o.TakenWithinSeconds), plan.Count(copied.LateChannels, "channel")),
		Reason: plan.Say("%s: %.3g %% of events are safe later. Nine of ten are safe within %s, 99 of 100 within %s.", name, late,
			plan.About(*f.NinetySafeSeconds), plan.About(*f.WorstSafeSeconds))})
}

// unwatched: whoever cuts the line before coming in leaves nothing off site, and nobody would know.
func unwatched(c *site) {
	if c.plan.Offsite.Watched {
		return
	}
	for _, lists := range [][][]cause.Tie{c.causes.Messages, c.causes.Outputs, c.causes.Monitors} {
		for _, list := range lists {
			if slices.ContainsFunc(list, func(t cause.Tie) bool { return t.Cause.Kind == cause.UplinkLost }) {
				return
			}
		}
	}
	c.reportPart(Finding{Rule: "copy-unwatched", Severity: Warning, Path: "offsite.watched",
		Sentence: "Nobody is told when the uplink of the copy is cut.",
		Reason:   "Who cuts it before coming in leaves nothing off site of what follows. Somebody has to be told within minutes, by another way than the uplink."})
}

// losses: nobody would hear that a picture is lost, or that somebody opens the recorder.
func losses(c *site) {
	if len(c.plan.Messages) == 0 {
		return // nobody is told of anything
	}
	told := make([]bool, len(c.plan.Channels))
	for _, lists := range [][][]cause.Tie{c.causes.Messages, c.causes.Outputs, c.causes.Monitors} {
		for _, list := range lists {
			for _, t := range list {
				if t.Cause.Kind == cause.Lost {
					told[t.Cause.At] = true
				}
			}
		}
	}
	without := 0
	var ties []edit.Edit
	first := -1
	for i := range c.plan.Channels {
		if ch := &c.plan.Channels[i]; !told[i] && !ch.NoCamera {
			if first < 0 {
				first = i
			}
			without++
			ties = append(ties, edit.Edit{AddEffect: &edit.AddEffect{Effect: plan.Effect{When: plan.When{Lost: ch.ID, PerMonth: lostPerMonth},
				Message: []string{c.plan.Messages[0].ID}}}})
		}
	}
	if without > 0 {
		s := "Nobody is told when the picture of " + c.plan.Channels[first].Name + " is lost."
		if without > 1 {
			s = fmt.Sprintf("Nobody is told when the picture of any of %d channels is lost.", without)
		}
		c.reportPart(Finding{Rule: "loss-untold", Severity: Hint, Path: "effects", Sentence: s,
			Reason: "A camera that fails would be noticed when its footage is wanted.",
			Fix:    &Fix{"Tell " + c.plan.Messages[0].To, ties}})
	}
	for i, r := range c.plan.Recorders {
		if !slices.ContainsFunc(c.plan.AlarmInputs, func(a plan.AlarmInput) bool { return a.Guards == r.ID }) {
			c.reportPart(Finding{Rule: "no-tamper-contact", Severity: Hint, Path: fmt.Sprintf("recorders[%d]", i), Recorder: r.ID,
				Sentence: fmt.Sprintf("Nobody would notice that %s is opened or carried off.", r.Name),
				Reason:   "No alarm input watches its housing."})
		}
	}
}

// lostPerMonth is how often a picture is lost where nobody has counted.
const lostPerMonth = 0.1

// contacts: an alarm input records something, and nobody has looked which way round its contact is.
func contacts(c *site) {
	for i, a := range c.plan.AlarmInputs {
		n := 0
		for k, list := range c.causes.Records {
			for _, t := range list {
				if t.Cause.Kind == cause.Alarm && t.Cause.At == i && !c.plan.Channels[k].NoCamera {
					n++
				}
			}
		}
		if a.Contact == "" && n > 0 {
			c.reportPart(Finding{Rule: "contact-unknown", Severity: Hint, Path: fmt.Sprintf("alarmInputs[%d].contact", i), Recorder: a.Recorder,
				Sentence: fmt.Sprintf("%s: contact type not set, normally open or normally closed.", a.Name),
				Reason:   fmt.Sprintf("Set the wrong way round it would be in alarm for ever, and keep %s recording.", plan.Count(n, "channel"))})
		}
	}
}
