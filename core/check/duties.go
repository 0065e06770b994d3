package check

import (
	"fmt"
	"slices"
	"strconv"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/core/storage"
	"wakefield.example/core/week"
)

// missingStream: a duty writes a stream that the camera does not have.
func missingStream(c *site, ch *channel) {
	if ch.NoCamera {
		return
	}
	lacks := func(w plan.StreamName) bool { return ch.Streams.Get(w) == nil }
	bad := c.where(ch, func(d *plan.Duty) bool {
		return d.Base != nil && lacks(d.Base.Stream) || d.Event != nil && lacks(d.Event.Stream)
	})
	if hours(bad) == 0 {
		return
	}
	c.report(ch, Error, "missing-stream", "streams",
		fmt.Sprintf("%s is to write a stream that its camera does not have.", ch.Name),
		fmt.Sprintf("That layer writes nothing then: %s.", inWords(bad)), nil)
	c.costs(hours(bad) / 168)
}

// emptyRecords: a recorder will happily spend disk on a channel without a camera.
func emptyRecords(c *site, ch *channel) {
	writes := c.where(ch, func(d *plan.Duty) bool { return d.Base != nil || d.Event != nil })
	if !ch.NoCamera || hours(writes) == 0 {
		return
	}
	var mend *Fix
	if i := slices.IndexFunc(c.plan.Duties, func(d plan.Duty) bool { return d.Base == nil && d.Event == nil }); i >= 0 {
		off := c.plan.Duties[i]
		mend = fix("Set “"+off.Name+"” all week", edit.Edit{Paint: &edit.Paint{Channels: []string{ch.ID}, Hours: wholeWeek(), Duty: off.ID}})
	}
	c.report(ch, Warning, "empty-records", "week",
		fmt.Sprintf("%s has no camera, but is set to record.", ch.Name),
		plan.Say("The estimate counts nothing for it; some recorders would write an empty picture for %.3g hours a week all the same.",
			hours(writes)), mend)
}

func wholeWeek() []plan.Hours { return []plan.Hours{{From: 0, To: week.Clock(week.Day)}} }

// nothingRecorded: hours in which nothing can be written though footage must be
// kept.
func nothingRecorded(c *site, ch *channel) {
	if ch.NoCamera || ch.Keep.AtLeastDays == 0 {
		return
	}
	off := c.where(ch, func(d *plan.Duty) bool { return d.Base == nil && d.Event == nil })
	if hours(off) == 0 {
		return
	}
	events := 0.0
	if a := c.plan.Activity(ch.Activity); a != nil {
		in := a.Process().Intensity
		for span, on := range off.Runs() {
			if on {
				events += in.Count(float64(span.From)*60, float64(span.To)*60)
			}
		}
	}
	severity, reason := Warning, "No wanted event is expected then"
	if events > 0.05 {
		severity, reason = Error, plan.Say("%.3g wanted events a week are expected then, and none is kept", events)
	}
	c.report(ch, severity, "nothing-recorded", "week",
		plan.Say("%s records nothing for %.3g hours a week, though its footage must be kept.", ch.Name, hours(off)),
		fmt.Sprintf("%s: %s.", reason, inWords(off)), nil)
	c.costs(hours(off) / 168)
	c.withCause(inWords(off), "%d channels record nothing on "+inWords(off)+", though their footage must be kept.")
}

// framesBeyondCamera: a duty keeps more frames than the camera sends.
func framesBeyondCamera(c *site, ch *channel) {
	if ch.NoCamera {
		return
	}
	beyond := func(w plan.StreamName, fps float64) bool {
		s := ch.Streams.Get(w)
		return s != nil && fps > s.FPS
	}
	for _, id := range dutiesOf(ch) {
		d := c.duties[id]
		if d == nil || !(d.Base != nil && beyond(d.Base.Stream, d.Base.FPS) || d.Event != nil && beyond(d.Event.Stream, d.Event.FPS)) {
			continue
		}
		c.report(ch, Hint, "frames-beyond-camera", "streams",
			fmt.Sprintf("%s: the duty %s records more frames a second than the camera sends.", ch.Name, d.Name),
			"The camera decides; the setting at the recorder has no effect.", nil)
		return
	}
}

// cameraDecides: frames, quality or bitrate set by the hour at a recorder whose camera decides them.
func cameraDecides(c *site, ch *channel) {
	if ch.NoCamera || !ch.CameraDecides() {
		return
	}
	for _, id := range dutiesOf(ch) {
		d := c.duties[id]
		if d == nil {
			continue
		}
		which, asked, sent := plan.StreamName(""), 0.0, 0.0
		look := func(stream plan.StreamName, fps float64, s plan.Settings) {
			if of := ch.Streams.Get(stream); of != nil && (fps > 0 && fps < of.FPS || s.Factor() != 1) {
				which, asked, sent = stream, fps, of.FPS
			}
		}
		if d.Base != nil && !d.Base.KeyframesOnly {
			look(d.Base.Stream, d.Base.FPS, d.Base.Settings)
		}
		if d.Event != nil {
			look(d.Event.Stream, d.Event.FPS, d.Event.Settings)
		}
		if which == "" {
			continue
		}
		sentence := plan.Say("%s: the duty %s asks for %v frames a second, but the camera decides and sends %v.", ch.Name, d.Name, asked, sent)
		if asked == 0 || asked >= sent {
			sentence = plan.Say("%s: the duty %s asks for other settings of the %s stream, but the camera decides.", ch.Name, d.Name, which)
		}
		free := *ch.Channel
		free.StreamsBy = ""
		planned := c.figures.Alternatives(nil).Of(ch.index, &free, ch.duties)
		c.report(ch, Warning, "camera-decides", "streamsBy", sentence,
			plan.Say("%.3g GB a day are written; as asked for it would be %.3g. The setting at the recorder has no effect.",
				ch.figures.GigabytesPerDay, float64(planned.Daily/storage.GB)), nil)
		return
	}
}

// dutiesOf are the duties in a channel's week, in the order they come.
func dutiesOf(ch *channel) []string {
	var ids []string
	for _, id := range ch.duties.Runs() {
		if !slices.Contains(ids, id) {
			ids = append(ids, id)
		}
	}
	return ids
}

// crossing is how long a person takes to cross a picture, in seconds.
const crossing = 4

// keyframeGap: a keyframe base whose pictures are so far apart that somebody can
// cross between them.
func keyframeGap(c *site, ch *channel) {
	if ch.NoCamera {
		return
	}
	for _, id := range dutiesOf(ch) {
		d := c.duties[id]
		if d == nil || d.Base == nil || !d.Base.KeyframesOnly {
			continue
		}
		if s := ch.Streams.Get(d.Base.Stream); s != nil && s.Codec != "mjpeg" && s.GOPSeconds > crossing {
			c.report(ch, Warning, "keyframe-gap", "streams."+string(d.Base.Stream)+".gopSeconds",
				fmt.Sprintf("%s: between keyframes a person can cross the picture unseen.", ch.Name),
				fmt.Sprintf("“%s” writes a picture every %v s when nothing happens; crossing takes about %d s. Shorten the camera's keyframe interval.",
					d.Name, s.GOPSeconds, crossing), nil)
			return
		}
	}
}

// likelyMisses: events are often missed where nothing lies beneath event recording.
func likelyMisses(c *site, ch *channel) {
	e := ch.figures.Evidence
	if ch.NoCamera || !ch.Detection.On || e.EventsPerDay < 1 || e.MissedPerDay < 0.1*e.EventsPerDay {
		return
	}
	bare := c.where(ch, func(d *plan.Duty) bool { return d.Event != nil && d.Base == nil })
	if hours(bare) == 0 {
		return
	}
	c.report(ch, Warning, "likely-misses", "detection",
		plan.Say("%s misses %.3g of %.3g wanted events a day, with no continuous recording as a fallback.", ch.Name,
			e.MissedPerDay, e.EventsPerDay),
		"Detection does not see every event, or its duty does not let it record. A cheap base layer would prove what happened.",
		c.withBase(ch, bare))
	c.costs(e.MissedPerDay / e.EventsPerDay)
}

// withBase offers the plan's duty that has the same event layer over a cheap base.
func (c *site) withBase(ch *channel, bare week.Steps[bool]) *Fix {
	var admitted []plan.Trigger
	for _, id := range dutiesOf(ch) {
		if d := c.duties[id]; d != nil && d.Event != nil && d.Base == nil {
			admitted = append(admitted, d.Event.On...)
		}
	}
	for i := range c.plan.Duties {
		d := &c.plan.Duties[i]
		if d.Base == nil || d.Event == nil || needsBoth(d) || ch.Streams.Get(d.Base.Stream) == nil || !cheap(d.Base) {
			continue
		}
		if !slices.ContainsFunc(admitted, func(t plan.Trigger) bool { return !slices.Contains(d.Event.On, t) }) {
			return fix("Set “"+d.Name+"” then", edit.Edit{Paint: &edit.Paint{Channels: []string{ch.ID}, Hours: plan.HoursWhere(bare), Duty: d.ID}})
		}
	}
	return nil
}

func cheap(b *plan.Base) bool {
	return b.Stream != plan.Main || b.KeyframesOnly || b.FPS > 0 || b.Factor() < 1
}

// oddOneOut: a channel that differs from its group in one respect only.
func oddOneOut(c *site) {
	groups := make(map[string][]int)
	for i := range c.plan.Channels {
		if ch := &c.plan.Channels[i]; ch.Group != "" && !ch.NoCamera {
			groups[ch.Group] = append(groups[ch.Group], i)
		}
	}
	for i := range c.plan.Channels {
		if ch := &c.plan.Channels[i]; ch.Group != "" && len(groups[ch.Group]) > 0 && groups[ch.Group][0] == i {
			c.oddOf(groups[ch.Group])
		}
	}
}

// respects are what is meant to be alike in a group, in which a channel can be odd.
var respects = []struct {
	name string
	of   func(c *site, i int) string
	copy func(from, to *plan.Channel) edit.Edit
}{
	{"the seconds before and after an event",
		func(c *site, i int) string {
			ch := &c.plan.Channels[i]
			return fmt.Sprint(ch.PreSeconds, ch.PostSeconds, ch.AlarmPreEvent(), ch.AlarmPostEvent())
		},
		func(from, to *plan.Channel) edit.Edit {
			pre, post := from.AlarmPreEvent(), from.AlarmPostEvent()
			return edit.Edit{SetTimes: &edit.SetTimes{Channels: []string{to.ID}, PreSeconds: &from.PreSeconds, PostSeconds: &from.PostSeconds,
				AlarmPreSeconds: &pre, AlarmPostSeconds: &post}}
		}},
	{"how long footage is kept",
		func(c *site, i int) string { return fmt.Sprint(c.plan.Channels[i].Keep) },
		func(from, to *plan.Channel) edit.Edit {
			return edit.Edit{SetKeep: &edit.SetKeep{Channels: []string{to.ID}, Keep: from.Keep}}
		}},
	{"audio",
		func(c *site, i int) string { return fmt.Sprint(c.plan.Channels[i].AudioKbps) },
		func(from, to *plan.Channel) edit.Edit {
			return edit.Edit{SetAudio: &edit.SetAudio{Channels: []string{to.ID}, AudioKbps: from.AudioKbps}}
		}},
	{"its week",
		func(c *site, i int) string {
			var key []byte
			for _, step := range c.figures.Duties(i) {
				key = append(strconv.AppendInt(key, int64(step.From), 10), ' ')
				key = append(append(key, step.Value...), 0)
			}
			return string(key)
		},
		func(from, to *plan.Channel) edit.Edit {
			whole := *to
			whole.Week = from.Week
			return edit.Edit{SetChannel: &edit.SetChannel{Channel: whole}}
		}},
}

// oddOf reports the member of a group of at least three that differs from all the
// others, which agree in everything, in one respect.
func (c *site) oddOf(group []int) {
	if len(group) < 3 {
		return
	}
	odd, like, respect := -1, -1, 0
	for k, r := range respects {
		i, j, alike := lonely(group, func(i int) string { return r.of(c, i) })
		switch {
		case alike:
		case i < 0 || odd >= 0:
			return // several differ, or in several respects
		default:
			odd, like, respect = i, j, k
		}
	}
	if odd < 0 {
		return
	}
	ch, other := &c.plan.Channels[odd], &c.plan.Channels[like]
	c.found = append(c.found, Finding{
		Rule: "odd-one-out", Severity: Hint, Path: fmt.Sprintf("channels[%d]", odd), Channel: ch.ID,
		Sentence: fmt.Sprintf("%s differs from the other %d of %s in one respect: %s.", ch.Name, len(group)-1, ch.Group, respects[respect].name),
		Reason:   "The others are alike. If unintended, set it like " + other.Name + ".",
		Fix:      fix("Set it like "+other.Name, respects[respect].copy(other, ch)),
	})
}

// lonely finds the only member of a group whose value is not that of all the others,
// and one of the others. odd is -1 where there is none such; alike tells whether all
// have one value.
func lonely(group []int, value func(int) string) (odd, like int, alike bool) {
	members := make(map[string][]int)
	for _, i := range group {
		v := value(i)
		members[v] = append(members[v], i)
	}
	if len(members) == 1 {
		return -1, -1, true
	}
	odd, like = -1, -1
	for _, m := range members {
		if len(m) == 1 && len(members) == 2 {
			odd = m[0]
		} else {
			like = m[0]
		}
	}
	return odd, like, false
}
