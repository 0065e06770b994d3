package check

import (
	"fmt"
	"strings"

	"wakefield.example/core/doubt"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
)

// guesses names the activities that nobody counted, and of these the one whose days
// change most if its events come in groups.
func guesses(c *site) {
	writes := make(map[string]float64) // GB a day of the channels that see it
	for i := range c.plan.Channels {
		if ch := &c.plan.Channels[i]; !ch.NoCamera {
			for _, id := range []string{ch.Activity, ch.Nuisance} {
				writes[id] += c.figures.Channels[i].GigabytesPerDay
			}
		}
	}
	var names []string
	first := -1
	for i := range c.plan.Activities {
		a := &c.plan.Activities[i]
		if a.Known != "guess" || writes[a.ID] == 0 {
			continue
		}
		names = append(names, "“"+a.Name+"”")
		if first < 0 || writes[a.ID] > writes[c.plan.Activities[first].ID] {
			first = i
		}
	}
	if first < 0 {
		return
	}
	sentence := fmt.Sprintf("How often %s happens is a guess.", names[0])
	if len(names) > 1 {
		sentence = fmt.Sprintf("%d activities are guesses: %s.", len(names), listed(names))
	}
	reason := "Events counted on site, or read from a log, narrow the likely range of days."
	if grouped := c.figures.Grouped(); len(grouped) > 0 && c.figures.Verdict.KeptDays != nil {
		g := grouped[0]
		reason = plan.Say("Nor is it known whether the events come in batches. If those of “%s” come 2 or 3 at a time (%.2g within %v s), %.3g days are kept rather than %.3g.",
			c.plan.Activity(g.Activity).Name, estimate.GroupedSize, estimate.GroupedSeconds, g.Days, *c.figures.Verdict.KeptDays)
	}
	c.found = append(c.found, Finding{Rule: "guessed-activities", Severity: Hint, Sentence: sentence, Reason: reason,
		Path: fmt.Sprintf("activities[%d]", first)})
}

// listed joins names as people do, and counts those beyond the fourth.
func listed(names []string) string {
	const most = 4
	if len(names) > most {
		return fmt.Sprintf("%s and %d more", strings.Join(names[:most], ", "), len(names)-most)
	}
	return strings.Join(names[:len(names)-1], ", ") + " and " + names[len(names)-1]
}

// nights names channels that record in the dark by bitrates of the day.
func nights(c *site) {
	least, _, most := doubt.NightRange()
	var names []string
	dark, first := 0.0, -1
	for i := range c.plan.Channels {
		if gb := c.figures.UnsaidNight(i); gb > 0 {
			names = append(names, c.plan.Channels[i].Name)
			dark += gb
			if first < 0 {
				first = i
			}
		}
	}
	if first < 0 {
		return
	}
	sentence := fmt.Sprintf("%s records at night by a bitrate of the day.", names[0])
	if len(names) > 1 {
		sentence = fmt.Sprintf("%s record at night by bitrates of the day.", listed(names))
	}
	c.found = append(c.found, Finding{Rule: "night-unsaid", Severity: Hint, Sentence: sentence,
		Path: fmt.Sprintf("channels[%d].streams", first), Channel: c.plan.Channels[first].ID,
		Reason: plan.Say("Noise of a dark picture makes that %.2g to %.2g times as much: up to %.3g GB a day more. A clip taken at night tells.",
			least, most, (most-1)*dark)})
}
