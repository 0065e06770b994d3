package check

import (
	"fmt"
	"math"
	"slices"

	"wakefield.example/core/edit"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
)

// scene looks at what is drawn in a channel's picture.
func scene(c *site, ch *channel) {
	if ch.NoCamera || ch.Scene == nil && !ch.Detection.Drawn() {
		return
	}
	sight := c.figures.SightOf(ch.index)
	c.areasOff(ch)
	hidden := c.areas(ch, &sight)
	if ch.Detection.On {
		c.walks(ch, &sight, hidden)
		c.patches(ch, &sight)
	}
}

// areasOff: somebody drew areas, and detection is off.
func (c *site) areasOff(ch *channel) {
	if n, _ := ch.Detection.Counted(); ch.Detection.On || !ch.Detection.Drawn() || n == 0 || hours(c.where(ch, admitsMotion)) > 0 {
		return // where the duty waits for it, that says so better
	}
	on := ch.Detection
	on.On = true
	c.report(ch, Hint, "areas-but-off", "detection.on",
		fmt.Sprintf("%s has areas drawn, but its detection is off.", ch.Name),
		"Nothing is noticed in them.",
		fix("Switch detection on", edit.Edit{SetDetection: &edit.SetDetection{Channels: []string{ch.ID}, Detection: on}}))
}

// areas reports watched areas of which nothing is left, or too little for anything to be noticed in. It tells whether
// there was any.
func (c *site) areas(ch *channel, sight *estimate.Sight) (found bool) {
	for k, a := range ch.Detection.List() {
		seen := sight.Areas[k]
		path := fmt.Sprintf("detection.areas[%d]", k)
		switch {
		case a.Ignore:
		case seen.LeftPercent < 0.02*seen.Percent:
			found = true
			c.report(ch, Error, "area-hidden", path,
				fmt.Sprintf("On %s nothing is left of the watched area %s: ignored areas cover it.", ch.Name, a.Name),
				plan.Say("Of the %.3g %% of the picture that it covers, %.2g %% are watched.", seen.Percent, 100*seen.LeftPercent/seen.Percent), nil)
		case seen.SmallestPercent > seen.LeftPercent:
			found = true
			smaller := a
			smaller.Smallest = &plan.Smallest{Percent: tidy(seen.LeftPercent / 4), Of: "picture"}
			c.report(ch, Error, "area-too-small", path,
				fmt.Sprintf("On %s the area %s is smaller than the smallest object that it notices.", ch.Name, a.Name),
				plan.Say("It covers %.3g %% of the picture; an object must cover %.3g %% inside it.", seen.LeftPercent, seen.SmallestPercent),
				fix(plan.Say("Notice from %v %% of the picture on", smaller.Smallest.Percent),
					edit.Edit{SetArea: &edit.SetArea{Channel: ch.ID, Area: smaller}}))
		}
	}
	return found
}

// walks reports walks that are never noticed, and those whose first seconds are not kept.
func (c *site) walks(ch *channel, sight *estimate.Sight, explained bool) {
	wanted := ch.figures.Evidence.EventsPerDay
	if n, known := ch.Detection.Counted(); known && n == 0 || ch.Detection.Catch != nil {
		return
	}
	for k, seen := range sight.Walks {
		walk, path := ch.Scene.Walks[k], fmt.Sprintf("scene.walks[%d]", k)
		share := walk.SharePercent / 100
		if seen.NoticedSeconds == nil {
			if explained {
				continue
			}
			reason := "It passes beside every watched area."
			var mend *Fix
			switch {
			case seen.EntersSeconds != nil && !seen.Large:
				reason = plan.Say("In no watched area is it ever large enough, on the %.3g m that it goes.", seen.Metres)
				mend = c.smaller(ch, k, math.Inf(1))
			case seen.EntersSeconds != nil:
				reason = "In no watched area is it in sight for the shortest duration."
			}
			c.report(ch, Warning, "walk-unnoticed", path,
				fmt.Sprintf("On %s nobody is noticed on the walk %s, the way of %v %% of the events.", ch.Name, walk.Name, walk.SharePercent),
				plan.Say("%s That is %.3g events a day.", reason, wanted*share), mend)
			c.costs(share)
			continue
		}
		if seen.MissingSeconds < missingSeconds {
			continue
		}
		var smaller *Fix
		if seen.TooSmallSeconds > ch.PreSeconds {
			smaller = c.smaller(ch, k, missingSeconds)
		}
		if smaller != nil {
			c.report(ch, Hint, "reach-short", path,
				plan.Say("On %s the walk %s comes from beyond where it is large enough: its first %.2g s are not recorded.", ch.Name, walk.Name,
					seen.MissingSeconds),
				plan.Say("For %.2g s it is in a watched area and too small there; it is noticed %.3g m away, and %v s are recorded from before. An area of its own out there could notice smaller things.",
					seen.TooSmallSeconds, *seen.AwayMetres, ch.PreSeconds), smaller)
			continue
		}
		pre := math.Ceil(*seen.NoticedSeconds)
		var longer *Fix
		if r := c.plan.Recorder(ch.Recorder); r.PreSecondsLimit == 0 || pre <= r.PreSecondsLimit {
			longer = fix(plan.Say("Keep %v s before an event", pre), edit.Edit{SetTimes: &edit.SetTimes{Channels: []string{ch.ID},
				PreSeconds: &pre}})
		}
		c.report(ch, Hint, "first-seconds-lost", path,
			plan.Say("On %s the first %.2g s of the walk %s are not recorded.", ch.Name, seen.MissingSeconds, walk.Name),
			plan.Say("It is noticed %.3g s after it enters the picture, %.3g m away, and %v s are recorded from before.", *seen.NoticedSeconds,
				*seen.AwayMetres, ch.PreSeconds), longer)
	}
}

// missingSeconds of a walk are worth a finding.
const missingSeconds = 0.5

// smaller offers the largest of some smaller sizes of one area at which fewer than so many seconds of walk k are not kept.
func (c *site) smaller(ch *channel, k int, most float64) *Fix {
	// Tried on a plan of which one channel is another; what is found is made by an edit like any.
	next := *c.plan
	next.Channels = slices.Clone(c.plan.Channels)
	tried := &next.Channels[ch.index]
	for i, a := range ch.Detection.List() {
		if a.Ignore || a.Smallest == nil {
			continue
		}
		for divisor := 2.0; divisor <= 64; divisor *= 2 {
			smaller := a
			smaller.Smallest = &plan.Smallest{Percent: tidy(a.Smallest.Percent / divisor), Of: a.Smallest.Of}
			list := slices.Clone(ch.Detection.List())
			list[i] = smaller
			tried.Detection.Areas = &plan.Areas{List: list}
			if estimate.Unkept(&next, ch.index, k) < most {
				return fix(plan.Say("Notice from %v %% on in %s", smaller.Smallest.Percent, a.Name),
					edit.Edit{SetArea: &edit.SetArea{Channel: ch.ID, Area: smaller}})
			}
		}
	}
	return nil
}

// tidy is a percentage with two digits.
func tidy(percent float64) float64 {
	if percent <= 0 {
		return 0
	}
	scale := math.Pow(10, math.Floor(math.Log10(percent))-1)
	return math.Max(0.001, math.Round(percent/scale)*scale)
}

// patches reports patches whose movement becomes triggers.
func (c *site) patches(ch *channel, sight *estimate.Sight) {
	for k, seen := range sight.Patches {
		if seen.TriggersPerDay < 5 {
			continue
		}
		patch := ch.Scene.Patches[k]
		taken := func(id string) bool {
			return slices.ContainsFunc(ch.Detection.List(), func(a plan.Area) bool { return a.ID == id })
		}
		mask := plan.Area{ID: plan.FreeID(patch.Name, "mask", taken), Name: patch.Name, Ignore: true, Points: patch.Points}
		var mend *Fix
		if n, _ := ch.Detection.Counted(); ch.Detection.Drawn() && n > 0 {
			mend = fix(fmt.Sprintf("Ignore %s", patch.Name), edit.Edit{SetArea: &edit.SetArea{Channel: ch.ID, Area: mask}})
		}
		c.report(ch, Warning, "patch-passes", fmt.Sprintf("scene.patches[%d]", k),
			plan.Say("%s starts %.3g recordings a day on %s.", patch.Name, seen.TriggersPerDay, ch.Name),
			plan.Say("%.3g %% of it is in sight of a watched area.", seen.PassesPercent), mend)
		c.found[len(c.found)-1].worse = seen.TriggersPerDay
	}
}

// setElsewhere: the recorder cannot set the camera's detection, or does not even hear of it.
func setElsewhere(c *site, ch *channel) {
	if ch.NoCamera || !ch.Detection.On || ch.Detection.By == "recorder" {
		return
	}
	switch ch.Events {
	case "out":
		if ch.Detection.By != "camera" {
			byCamera := ch.Detection
			byCamera.By = "camera"
			c.report(ch, Hint, "set-at-camera", "events",
				fmt.Sprintf("The detection of %s must be set on the camera itself.", ch.Name),
				"The recorder hears of its events, but cannot set what they are.",
				fix("Note that it is the camera's", edit.Edit{SetDetection: &edit.SetDetection{Channels: []string{ch.ID}, Detection: byCamera}}))
		}
	case "none":
		waits := c.where(ch, admitsMotion)
		if hours(waits) == 0 {
			return
		}
		byRecorder := ch.Detection
		byRecorder.By = "recorder"
		c.report(ch, Error, "no-events", "events",
			fmt.Sprintf("%s records on motion, but its camera tells the recorder of none.", ch.Name),
			plan.Say("For %.3g hours a week the schedule waits for motion that is never reported.", hours(waits)),
			fix("Let the recorder detect motion", edit.Edit{SetDetection: &edit.SetDetection{Channels: []string{ch.ID}, Detection: byRecorder}}))
		c.costs(hours(waits) / 168)
	}
}
