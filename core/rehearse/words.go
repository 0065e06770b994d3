package rehearse

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
)

// Story is what became of an event, in words.
type Story struct {
	Sentence string   `json:"sentence" doc:"What happened"`
	Steps    []Step   `json:"steps" doc:"The gates on its way, in order"`
	Answer   string   `json:"answer,omitempty" doc:"Whether it is to be seen in the footage of its channel; absent for what nobody wants"`
	Fate     Fate     `json:"fate,omitempty" enum:"full,low,missed"`
	Channels []string `json:"channels" doc:"Ids of the channels that write for it"`
	// LostAt are the gates of the course at which it was lost, as findings name them: what mends one of these mends the loss.
	LostAt []estimate.GateName `json:"lostAt" doc:"Gates at which it was lost, as findings name them; empty where it was not"`
}

// Step is a gate on the way of an event, and whether it passed.
type Step struct {
	Gate   string `json:"gate"`
	Passed bool   `json:"passed"`
	Words  string `json:"words"`
}

// Clock is a moment on the clocks of the site, such as "Tuesday 14:03:12"; with its date where there are two Tuesdays.
func (r *Rehearsal) Clock(at Ms) string {
	if r.Ask.Days > 7 {
		return r.clock.at(at).Format("Monday 2 Jan 15:04:05")
	}
	return r.clock.at(at).Format("Monday 15:04:05")
}

func (r *Rehearsal) hhmmss(at Ms) string { return r.clock.at(at).Format("15:04:05") }

// seconds is a length of time in words.
func seconds(m Ms) string {
	s := float64(m) / float64(Second)
	if s >= 600 {
		return plan.Say("%.3g min", s/60)
	}
	return plan.Say("%.3g s", s)
}

// What is what an event is, in words.
func (r *Rehearsal) What(n int) string {
	e := &r.Events[n]
	name := func(id string) string {
		if a := r.plan.Activity(id); a != nil {
			return a.Name
		}
		return id
	}
	switch e.Source {
	case Alarm:
		return r.plan.AlarmInputs[e.At].Name
	case Button:
		return r.plan.CallButtons[e.At].Name
	case UplinkLost:
		return plan.UplinkLostName
	}
	c := &r.plan.Channels[e.Channel]
	switch e.Source {
	case Lost:
		return "Picture lost on " + c.Name
	case Tampered:
		return "Tampering with " + c.Name
	case Patch:
		return c.Name + ", " + c.Scene.Patches[e.At].Name
	case Nuisance:
		return c.Name + ", " + name(c.Nuisance) + ", unwanted"
	}
	s := c.Name
	if a := name(c.Activity); a != c.Name {
		s += ", " + a
	}
	if e.Walk >= 0 {
		s += ", the way “" + c.Scene.Walks[e.Walk].Name + "”"
	}
	return s
}

// gateWords say why an event became no trigger.
var gateWords = map[Gate]string{
	Off: "detection is off", Closed: "detection does not watch at that hour", TooShort: "it was over before the shortest duration",
	OutOfSight: "no watched area had it in sight, large enough, for long enough", Overlooked: "detection overlooked it, as it does some",
}

// whyWords say why a wanted event had its fate.
var whyWords = map[Why]string{
	ByItself: "its own trigger was admitted", ByOthers: "footage was being written for something else when it began",
	ByButton: "a button had it recorded",
	ByBase:   "the base layer writes as much anyway", LowOnly: "only the base layer was written", NotNoticed: "it was not noticed",
	NotTied: "motion here does not record this channel",
	Deaf:    "the duty does not listen to motion then", BothNeeded: "the duty wants motion and an alarm at once, and there was one of them",
	AwayThen: "the camera was looking elsewhere", TurnedOff: "the duty is off",
}

// WhyWords is a reason in words.
func WhyWords(w Why) string { return whyWords[w] }

// fateWords are what fates are called.
var fateWords = map[Fate]string{Full: "kept in full", Low: "kept low", Missed: "missed"}

// FateWords is a fate in words.
func FateWords(f Fate) string { return fateWords[f] }

// Tell is what became of an event.
func (r *Rehearsal) Tell(n int) Story {
	e := &r.Events[n]
	s := Story{Sentence: r.Clock(e.Start) + ", " + r.What(n), Channels: []string{}}
	if e.End > e.Start {
		s.Sentence += ", for " + seconds(e.End-e.Start)
	}
	step := func(gate string, passed bool, words string, args ...any) {
		s.Steps = append(s.Steps, Step{gate, passed, fmt.Sprintf(words, args...)})
	}
	switch e.Source {
	case Wanted, Nuisance, Patch:
		if e.Gate != Passed {
			step("noticed", false, "Not noticed: %s.", gateWords[e.Gate])
			break
		}
		words := "Noticed at once"
		if e.Trigger > e.Start {
			words = "Noticed after " + seconds(e.Trigger-e.Start)
		}
		if names := r.areaNames(e); names != "" {
			words += " in " + names
		}
		step("noticed", true, "%s.", words)
	default:
		step("happened", true, "It counts at once.")
	}
	if e.Channel >= 0 && (e.Gate == Passed || e.Fate == Full || e.Fate == Low) {
		duty := r.DutyAt(e.Channel, e.Trigger)
		if d := r.plan.Duty(duty); d != nil {
			duty = d.Name
		}
		listens := e.Fate == "" || e.Why == ByItself || e.Fate == Full
		step("duty", listens, "The duty of %s is then %s.", r.plan.Channels[e.Channel].Name, duty)
	}
	if len(e.Records) == 0 && e.Gate == Passed {
		step("recorded", false, "No channel writes for it.")
	}
	for _, i := range e.Records {
		s.Channels = append(s.Channels, r.plan.Channels[i].ID)
		step("recorded", true, "%s", r.writes(i, n))
	}
	s.LostAt, s.Fate, s.Answer = lostAt(e), e.Fate, r.answer(e)
	r.tellOthers(n, step)
	if e.Fate != "" {
		step("fate", e.Fate == Full, "On disk it is %s: %s.", fateWords[e.Fate], whyWords[e.Why])
	}
	return s
}

// writes is what a channel writes for an event, in words.
func (r *Rehearsal) writes(i, n int) string {
	k := slices.IndexFunc(r.Segments[i], func(g Segment) bool { return slices.Contains(g.Causes, n) })
	g := &r.Segments[i][k]
	last := k
	for last+1 < len(r.Segments[i]) && slices.Contains(r.Segments[i][last+1].Causes, n) {
		last++
	}
	with := ""
	if more := len(g.Causes) - 1; more > 0 {
		with = ", with " + plan.Count(more, "other")
	}
	return fmt.Sprintf("%s writes from %s to %s%s.", r.plan.Channels[i].Name, r.hhmmss(g.From), r.hhmmss(r.Segments[i][last].To), with)
}

// answer is whether a wanted event is to be seen in the footage of its channel; empty for what nobody wants. An event that was
// missed may be seen by chance, as other footage covers its middle.
func (r *Rehearsal) answer(e *Event) string {
	if e.Fate == "" || e.Channel < 0 {
		return ""
	}
	name := r.plan.Channels[e.Channel].Name
	switch e.Fate {
	case Full:
		return fmt.Sprintf("Yes: it is in the footage of %s in full, as %s.", name, whyWords[e.Why])
	case Low:
		return fmt.Sprintf("Only low: it is in the base layer of %s, as %s.", name, whyWords[e.Why])
	}
	if e.Why == AwayThen {
		return fmt.Sprintf("No: %s was looking elsewhere; what it recorded then shows another place.", name)
	}
	middle := e.Start + (e.End-e.Start)/2
	if have := r.Have(e.Channel, middle, middle); have.Fate != Missed && middle < r.Length {
		return fmt.Sprintf("By chance: it was missed, but %s is on disk then, as %s.", name, whyWords[have.Why])
	}
	return fmt.Sprintf("No: nothing of it is on disk: %s.", whyWords[e.Why])
}

// lostAt are the gates at which a wanted event was lost that is not kept in full. A base layer, which is what findings of the
// detector offer, keeps it whatever the gate.
func lostAt(e *Event) []estimate.GateName {
	if e.Source != Wanted || e.Fate == Full {
		return []estimate.GateName{}
	}
	at := estimate.GateDuty
	switch {
	case e.Gate == Off:
		at = estimate.GateOn
	case e.Gate == Closed:
		at = estimate.GateHours
	case e.Gate == TooShort:
		at = estimate.GateLong
	case e.Gate == OutOfSight:
		return []estimate.GateName{estimate.GateArea, estimate.GateLarge, estimate.GateDetector}
	case e.Gate == Overlooked:
		return []estimate.GateName{estimate.GateDetector}
	case e.Why == NotTied:
		at = estimate.GateTied
	}
	return []estimate.GateName{at, estimate.GateDetector}
}

// areaNames are the areas that noticed an event.
func (r *Rehearsal) areaNames(e *Event) string {
	if e.Channel < 0 {
		return ""
	}
	var names []string
	for k, id := range r.areas[e.Channel] {
		if a := r.plan.Channels[e.Channel].Detection.Area(id); e.Areas>>k&1 == 1 && a != nil {
			names = append(names, a.Name)
		}
	}
	return strings.Join(names, ", ")
}

// tellOthers says what else an event did.
func (r *Rehearsal) tellOthers(n int, step func(gate string, passed bool, words string, args ...any)) {
	at := r.Events[n].Trigger
	for k, t := range r.Told {
		m := &r.plan.Messages[k]
		switch {
		case slices.Contains(t.Went, n):
			step("message", true, "%s was told at %s.", m.Name, r.hhmmss(at))
		case slices.Contains(t.Held, n):
			last := at
			for _, w := range t.Went {
				if r.Events[w].Trigger <= at {
					last = r.Events[w].Trigger
				}
			}
			step("message", false, "%s was not told: the last message was at %s, and the next goes out %s later at the earliest.", m.Name,
				r.hhmmss(last), plan.SecondsInWords(m.AtMostEverySeconds))
		case slices.Contains(t.Quiet, n):
			step("message", false, "%s was not told: these are quiet hours.", m.Name)
		}
	}
	for k, o := range r.Outputs {
		for _, s := range o.On {
			if s.From == at {
				step("output", true, "%s went on, until %s.", r.plan.Outputs[k].Name, r.hhmmss(s.To))
			}
		}
	}
	for k, m := range r.Monitors {
		for _, s := range m.Showings {
			if s.Event != n {
				continue
			}
			if s.Cut {
				step("monitor", false, "%s showed it until %s, when the next cut it short.", r.plan.Monitors[k].Name, r.hhmmss(s.To))
			} else {
				step("monitor", true, "%s showed it until %s.", r.plan.Monitors[k].Name, r.hhmmss(s.To))
			}
		}
	}
	for i := range r.Away {
		for _, s := range r.Away[i] {
			if s.From == at {
				step("preset", true, "%s looked elsewhere until %s.", r.plan.Channels[i].Name, r.hhmmss(s.To))
			}
		}
	}
}

// Moment is a moment on the clocks of the site.
func (r *Rehearsal) Moment(at Ms) time.Time { return r.clock.at(at) }

// Plan is the plan that was played.
func (r *Rehearsal) Plan() *plan.Plan { return r.plan }

// Of are the events of a channel, by their place, whoever they are wanted by.
func (r *Rehearsal) Of(channel int) []int { return r.own[channel] }

// OfCause are the events of an alarm input or a button, by its place in the plan, or those in which a channel's picture is
// lost or it is tampered with, or the uplink is lost; in order.
func (r *Rehearsal) OfCause(s Source, at int) []int {
	if list := r.other[s]; at < len(list) {
		return list[at]
	}
	return nil
}

// SinceMidnight is how long after the first midnight a moment on the clocks of the site is.
func (r *Rehearsal) SinceMidnight(at time.Time) Ms {
	return Ms(at.Sub(r.clock.midnight).Milliseconds())
}

// Zone is where the clocks of the site are.
func (r *Rehearsal) Zone() *time.Location { return r.clock.zone }
