package handover

import (
	"fmt"
	"strings"

	"wakefield.example/core/plan"
)

// notSet is what is said of a value that a channel does not have and that has to be taken away.
func notSet(name string) string {
	switch name {
	case "sub.codec", "third.codec":
		return "off"
	case "alarmPreSeconds":
		return "no own time before an alarm"
	case "alarmPostSeconds":
		return "no own time after an alarm"
	case "detection.minSeconds":
		return "motion however short"
	case "main.rate.maxKbps":
		return "no largest bitrate"
	case "detection.hours":
		return "detection at all hours"
	}
	return name[strings.LastIndexByte(name, '.')+1:] + " not set"
}

// streamOf is the stream that a value is of; empty where it is of none.
func streamOf(name string) string {
	for _, c := range plan.StreamChoices {
		if strings.HasPrefix(name, c.ID+".") {
			return c.Name
		}
	}
	return ""
}

// goesByItself tells whether a value is gone as soon as others are typed: a bitrate when its kind is another, what a stream is
// when there is none.
func goesByItself(name string) bool {
	if stream, member, _ := strings.Cut(name, "."); stream == "sub" || stream == "third" {
		return member != "codec"
	}
	return strings.HasSuffix(name, ".rate.kbps") || strings.HasSuffix(name, ".rate.activeKbps") || strings.HasSuffix(name, ".rate.quality")
}

// streamsOf are what is typed of a channel's streams.
func streamsOf(c *plan.Channel) (out []value) {
	for _, which := range []plan.StreamName{plan.Main, plan.Sub, plan.Third} {
		s := c.Streams.Get(which)
		if s == nil {
			continue
		}
		at := string(which)
		add := func(member string, is any, words string) { out = append(out, value{at + "." + member, is, words}) }
		add("codec", s.Codec, plan.Codecs.Name(s.Codec))
		size := fmt.Sprintf("%d × %d", s.Width, s.Height) // said once, where both are typed
		add("width", s.Width, size)
		add("height", s.Height, size)
		add("fps", s.FPS, plan.Say("%v frames a second", s.FPS))
		add("gopSeconds", s.GOPSeconds, plan.Say("keyframe every %v s", s.GOPSeconds))
		switch s.Rate.Kind {
		case "constant":
			add("rate.kind", s.Rate.Kind, "constant bitrate")
			add("rate.kbps", s.Rate.Kbps, plan.Say("%v kbit/s", s.Rate.Kbps))
		case "variable":
			add("rate.kind", s.Rate.Kind, "variable bitrate")
			add("rate.activeKbps", s.Rate.ActiveKbps, plan.Say("about %v kbit/s while something moves", s.Rate.ActiveKbps))
		default:
			add("rate.kind", s.Rate.Kind, "constant quality")
			add("rate.quality", s.Rate.Quality, plan.Say("step %d of 5", s.Rate.Quality))
			if s.Rate.MaxKbps > 0 {
				add("rate.maxKbps", s.Rate.MaxKbps, plan.Say("at most %v kbit/s", s.Rate.MaxKbps))
			}
		}
	}
	if c.AudioKbps > 0 {
		out = append(out, value{"audioKbps", c.AudioKbps, plan.Say("sound %v kbit/s", c.AudioKbps)})
	} else {
		out = append(out, value{"audioKbps", 0.0, "no sound"})
	}
	return out
}

// timesOf are what is typed of a channel's pre- and post-event times.
func timesOf(c *plan.Channel) []value {
	out := []value{
		{"preSeconds", c.PreSeconds, plan.Say("%v s before an event", c.PreSeconds)},
		{"postSeconds", c.PostSeconds, plan.Say("%v s after it", c.PostSeconds)},
	}
	if c.AlarmPreSeconds != nil {
		out = append(out, value{"alarmPreSeconds", *c.AlarmPreSeconds, plan.Say("%v s before an alarm", *c.AlarmPreSeconds)})
	}
	if c.AlarmPostSeconds != nil {
		out = append(out, value{"alarmPostSeconds", *c.AlarmPostSeconds, plan.Say("%v s after an alarm", *c.AlarmPostSeconds)})
	}
	return out
}

// detectionOf are what is typed of a channel's detection, without its areas.
func detectionOf(c *plan.Channel) []value {
	d := c.Detection
	if !d.On {
		return []value{{"detection.on", false, "detection off"}}
	}
	out := []value{{"detection.on", true, "detection on"}}
	if d.By != "" {
		out = append(out, value{"detection.by", d.By, plan.Detectors.Name(d.By)})
	}
	if d.Hours != nil {
		out = append(out, value{"detection.hours", d.Hours, plan.HoursInWords(d.Hours.Blocks)})
	}
	if d.MinSeconds > 0 {
		out = append(out, value{"detection.minSeconds", d.MinSeconds, plan.Say("motion of %v s or more", d.MinSeconds)})
	}
	if d.TiedToSelf() {
		return append(out, value{"detection.recordsSelf", true, "it records its own channel"})
	}
	return append(out, value{"detection.recordsSelf", false, "it does not record its own channel"})
}

// setAtCamera tells whether the detection of a channel is set at its camera; streams are where the camera decides.
func (w *writer) setAtCamera(c *plan.Channel) bool {
	return c.Events == "out" || c.Events == "none" || w.recorder.Takes != nil && w.recorder.Takes.Areas == "none"
}

// having are the channels with a camera of which something holds.
func (w *writer) having(holds func(c *plan.Channel) bool) (out []*plan.Channel) {
	for _, c := range w.channels {
		if !c.NoCamera && holds(c) {
			out = append(out, c)
		}
	}
	return out
}

func (w *writer) streams() {
	w.begin(Streams)
	list := w.having(func(c *plan.Channel) bool { return !c.CameraDecides() })
	w.copied(plan.CopiesStream, "stream", streamsOf, list)
	if len(list) > 0 {
		which := called(list[0])
		if len(list) > 1 {
			which += " and " + called(list[len(list)-1])
		}
		w.save(which + " as above")
	}
}

func (w *writer) detection() {
	w.begin(Detection)
	list := w.having(func(c *plan.Channel) bool { return !w.setAtCamera(c) })
	w.copied(plan.CopiesDetection, "detection", detectionOf, list)
	for _, c := range list {
		w.areas(c, func(area *plan.Area, words, why string) {
			set := Set{Channel: c.ID, Section: "area", Values: map[string]any{"area": *area}}
			w.step(Step{Words: words, Why: why, RightWhen: w.areaRight(c, area), Entries: 1, Do: Do{Set: &set}}, 1)
		})
	}
	if len(list) > 0 {
		w.save("detection of " + called(list[len(list)-1]) + " as above")
	}
}

// areas calls with each area of a channel and what is drawn.
func (w *writer) areas(c *plan.Channel, draw func(area *plan.Area, words, why string)) {
	if c.Detection.Areas == nil {
		return
	}
	for i := range c.Detection.Areas.List {
		a := &c.Detection.Areas.List[i]
		what, why := "area", "Every scene is its own: areas are never copied."
		if a.Ignore {
			what, why = "ignored area", ""
		}
		words := fmt.Sprintf("%s: %s “%s”, %s", capital(called(c)), what, a.Name, outline(a))
		if a.SensitivityPercent != nil {
			words += ", " + w.sensitivity(*a.SensitivityPercent)
		}
		if a.Smallest != nil {
			words += plan.Say(", nothing below %v %% %s", a.Smallest.Percent, plan.SmallestOf.Name(a.Smallest.Of))
		}
		if a.MinSeconds != nil {
			words += plan.Say(", motion of %v s or more", *a.MinSeconds)
		}
		if a.Hours != nil {
			words += ", " + plan.HoursInWords(a.Hours.Blocks)
		}
		draw(a, words, why)
	}
}

func (w *writer) sensitivity(percent float64) string {
	if t := w.recorder.Takes; t != nil && t.SensitivitySteps > 0 {
		return plan.Say("sensitivity %v of %d", percent/100*float64(t.SensitivitySteps), t.SensitivitySteps)
	}
	return plan.Say("sensitivity %v %%", percent)
}

func (w *writer) areaRight(c *plan.Channel, a *plan.Area) string {
	if a.Ignore {
		return "nothing is marked while something moves there"
	}
	return "the sign of motion comes on " + c.Name + " when somebody walks there"
}

// outline is an area in words: how many corners, and where they are, or which cells.
func outline(a *plan.Area) string {
	if a.Cells != nil {
		painted, n := a.Cells.Painted(), 0
		for row := range a.Cells.Rows {
			for column := range a.Cells.Columns {
				if painted(column, row) {
					n++
				}
			}
		}
		return fmt.Sprintf("%s of %d × %d", plan.Count(n, "cell"), a.Cells.Columns, a.Cells.Rows)
	}
	text := plan.Count(len(a.Points), "corner")
	if len(a.Points) <= 8 {
		text += ", % across and down:"
		for i, p := range a.Points {
			sep := " "
			if i > 0 {
				sep = " · "
			}
			text += plan.Say("%s%.3g, %.3g", sep, 100*p[0], 100*p[1])
		}
	}
	return text
}
