package device

import (
	"cmp"
	"context"
	"encoding/base64"
	"math"
	"slices"
	"strings"

	"wakefield.example/core/plan"
	"wakefield.example/core/readout"
	"wakefield.example/internal/formats"
	"wakefield.example/internal/onvif"
)

// Write sets one part of a device, as lines of package readout name it, to what is wanted. What the device makes of it is to be
// read back: an encoder may round what it is told.
func (c *Client) Write(ctx context.Context, wanted *readout.Device, part string) error {
	kind, token, _ := strings.Cut(part, ":")
	switch kind {
	case "encoder":
		for i := range wanted.Channels {
			for k := range wanted.Channels[i].Streams {
				if s := &wanted.Channels[i].Streams[k]; s.Encoder == token {
					return c.writeEncoder(ctx, s)
				}
			}
		}
	case "recording", "layers":
		for i := range wanted.Channels {
			if w := &wanted.Channels[i]; w.Recording == token {
				if kind == "layers" {
					return c.writeLayers(ctx, wanted, w)
				}
				return c.writeRecording(ctx, w)
			}
		}
	case "detection":
		for i := range wanted.Channels {
			if w := &wanted.Channels[i]; w.Token == token && w.Detection != nil {
				return c.writeDetection(ctx, w.Detection)
			}
		}
	case "input":
		for _, in := range wanted.Inputs {
			if in.Token == token {
				return c.writeInput(ctx, in)
			}
		}
	case "output":
		for _, out := range wanted.Outputs {
			if out.Token == token {
				return c.writeOutput(ctx, out)
			}
		}
	}
	return &Error{Refused, "It has no such part any more; read it again."}
}

// writeEncoder sets an encoder: its configuration as it is there, with what is wanted in it.
func (c *Client) writeEncoder(ctx context.Context, s *readout.Stream) error {
	e, err := c.encoder(ctx, s.Encoder)
	if err != nil {
		return err
	}
	was := e
	e.Encoding, e.Width, e.Height, e.FPS = encodingOf(s.Codec), s.Width, s.Height, s.FPS
	if s.GOPSeconds > 0 {
		e.Gov = max(1, int(math.Round(s.GOPSeconds*s.FPS)))
	}
	if s.LimitKbps > 0 {
		e.Kbps, e.Constant = int(math.Round(s.LimitKbps)), s.Constant
	}
	if was.Encoding != e.Encoding {
		e.Profile = "" // those of another codec
	}
	if !c.Has(onvif.Media2) {
		_, err = c.ask(ctx, onvif.Media, onvif.E("trt:SetVideoEncoderConfiguration", e.Element1("trt:Configuration"),
			onvif.E("trt:ForcePersistence", "true")))
		return err
	}
	_, err = c.ask(ctx, onvif.Media2, onvif.E("tr2:SetVideoEncoderConfiguration", e.Element("tr2:Configuration")))
	return err
}

// writeRecording sets the name of a recording's source and how long it is kept.
func (c *Client) writeRecording(ctx context.Context, w *readout.Channel) error {
	all, err := c.recordingsOf(ctx)
	if err != nil {
		return err
	}
	at := slices.IndexFunc(all.recordings, func(r recordingOf) bool { return r.token == w.Recording })
	if at < 0 || all.recordings[at].configuration == nil {
		return &Error{Refused, "It has no such recording any more; read it again."}
	}
	said := func(path string) string { return onvif.Text(all.recordings[at].configuration, path) }
	atMost := said("MaximumRetentionTime")
	if w.KeepAtMostDays != nil {
		atMost = onvif.Seconds(*w.KeepAtMostDays * 86400)
	}
	_, err = c.ask(ctx, onvif.RecordingControl, onvif.E("trc:SetRecordingConfiguration", onvif.E("trc:RecordingToken", w.Recording),
		onvif.E("trc:RecordingConfiguration", onvif.E("tt:Source", onvif.E("tt:SourceId", said("Source/SourceId")), onvif.E("tt:Name", w.Name),
			onvif.E("tt:Location", said("Source/Location")), onvif.E("tt:Description", said("Source/Description")),
			onvif.E("tt:Address", said("Source/Address"))),
			onvif.E("tt:Content", said("Content")), onvif.E("tt:MaximumRetentionTime", atMost))))
	return err
}

// writeLayers makes the jobs of a recording what is wanted: those that are there are changed in turn, what is lacking is made, what
// is too many is deleted. A schedule that other jobs follow is left alone, and another made.
func (c *Client) writeLayers(ctx context.Context, wanted *readout.Device, w *readout.Channel) error {
	all, err := c.recordingsOf(ctx)
	if err != nil {
		return err
	}
	users := make(map[string]int) // jobs by schedule
	var jobs []onvif.Job
	for _, r := range all.recordings {
		for _, j := range r.jobs {
			users[j.Schedule]++
		}
		if r.token == w.Recording {
			jobs = r.jobs
		}
	}
	topics := topicsIn(all)
	layers := slices.DeleteFunc(slices.Clone(w.Layers), func(l readout.Layer) bool { return len(l.On) > 0 && len(l.Heard()) == 0 })
	for i := range layers {
		l := &layers[i]
		j := onvif.Job{Recording: w.Recording, Active: true, Priority: basePriority}
		if i < len(jobs) {
			j.Token, j.Schedule = jobs[i].Token, jobs[i].Schedule
		}
		was := j.Schedule
		if j.Schedule, err = c.writeSchedule(ctx, all, j.Schedule, users[j.Schedule], w, l); err != nil {
			return err
		}
		if was != "" && was != j.Schedule {
			users[was]--
		}
		if len(l.On) > 0 {
			j.Priority = eventPriority
			j.Filter = &onvif.Filter{Before: plan.Or(l.PreSeconds, -1), After: plan.Or(l.PostSeconds, -1), Heard: heardOf(l, topics, wanted, w)}
		}
		if err := c.writeJob(ctx, j, l, w); err != nil {
			return err
		}
	}
	for _, j := range jobs[min(len(jobs), len(layers)):] {
		if _, err := c.call(ctx, onvif.RecordingControl, onvif.E("trc:DeleteRecordingJob", onvif.E("trc:JobToken", j.Token))); err != nil {
			return err
		}
		users[j.Schedule]--
	}
	for token, s := range all.schedules { // those that nobody follows any more, of this recording's
		if users[token] == 0 && strings.HasPrefix(s.name, scheduleName(w)) {
			if _, err := c.call(ctx, onvif.Schedule, onvif.E("tsc:DeleteSchedule", onvif.E("tsc:Token", token))); err != nil {
				return err
			}
		}
	}
	return nil
}

// Of jobs that write into one recording at once the one with more priority does: what happens goes before what is recorded anyway.
const (
	basePriority  = 1
	eventPriority = 2
)

// writeJob makes a job of a layer, or sets the one of its token.
func (c *Client) writeJob(ctx context.Context, j onvif.Job, l *readout.Layer, w *readout.Channel) error {
	s := w.Stream(l.Stream)
	if s == nil {
		return &Error{Refused, plan.Say("%s has no %s.", w.Name, plan.StreamChoices.Name(string(l.Stream)))}
	}
	j.Profile = s.Profile
	if j.Token == "" {
		_, err := c.call(ctx, onvif.RecordingControl, onvif.E("trc:CreateRecordingJob", j.Configuration("trc:JobConfiguration")))
		return err
	}
	_, err := c.ask(ctx, onvif.RecordingControl, onvif.E("trc:SetRecordingJobConfiguration", onvif.E("trc:JobToken", j.Token),
		j.Configuration("trc:JobConfiguration")))
	return err
}

// scheduleName is what schedules of a channel are called that we make.
func scheduleName(w *readout.Channel) string { return "Wakefield " + w.Recording + " " }

// writeSchedule makes the hours of a layer a schedule, and returns its token; none for always.
func (c *Client) writeSchedule(ctx context.Context, all *recorded, token string, users int, w *readout.Channel,
	l *readout.Layer) (string, error) {
	if l.Hours == nil {
		return "", nil
	}
	s, known := all.schedules[token]
	if known && s.why == "" && slices.Equal(s.when, plan.HourList{Blocks: l.Hours}.Steps()) {
		return token, nil
	}
	name := scheduleName(w) + string(l.Stream)
	for _, on := range l.On {
		name += " " + string(on)
	}
	inner := []*onvif.Element{onvif.E("tsc:Name", name), onvif.E("tsc:Description", plan.HoursInWords(l.Hours)),
		onvif.E("tsc:Standard", formats.WriteSchedule(l.Hours, name))}
	if known && users == 1 {
		inner[0] = onvif.E("tsc:Name", s.name)
		_, err := c.ask(ctx, onvif.Schedule, onvif.E("tsc:ModifySchedule",
			onvif.E("tsc:Schedule", onvif.Attr{Name: "token", Value: token}, inner)))
		return token, err
	}
	answer, err := c.call(ctx, onvif.Schedule, onvif.E("tsc:CreateSchedule",
		onvif.E("tsc:Schedule", onvif.Attr{Name: "token", Value: ""}, inner)))
	if err != nil {
		return "", err
	}
	if token = onvif.Text(answer, "Token"); token == "" {
		return "", &Error{Stranger, "It made a schedule and does not say which."}
	}
	return token, nil
}

// topicsIn are the topics that jobs of the device have, by what they are of.
func topicsIn(all *recorded) map[plan.Trigger]string {
	out := make(map[plan.Trigger]string)
	for _, r := range all.recordings {
		for _, j := range r.jobs {
			if j.Filter == nil {
				continue
			}
			for _, h := range j.Filter.Heard {
				out[triggerOf(h.Topic)] = h.Topic
			}
		}
	}
	return out
}

// heardOf are the topics of a layer's events: as the device's other jobs have them, else by how the channel notices motion; each with
// whose they are, so that nobody else's records it.
func heardOf(l *readout.Layer, known map[plan.Trigger]string, wanted *readout.Device, w *readout.Channel) (out []onvif.Heard) {
	motion := onvif.TopicMotionAlarm
	if d := w.Detection; d != nil {
		switch d.Drawn {
		case "grid":
			motion = onvif.TopicCellMotion
		case "polygon":
			motion = onvif.TopicRegionMotion
		}
	}
	topics := map[plan.Trigger]string{plan.Motion: cmp.Or(known[plan.Motion], motion), plan.Alarm: cmp.Or(known[plan.Alarm], onvif.TopicInput)}
	for _, on := range l.Heard() {
		n := len(out)
		for _, b := range l.By {
			if token, is := strings.CutPrefix(b, string(on)+" "); is {
				out = append(out, onvif.Heard{Topic: topics[on], Source: sourceItem(topics[on], token, wanted)})
			}
		}
		if len(out) == n {
			out = append(out, onvif.Heard{Topic: topics[on]})
		}
	}
	return out
}

// sourceItem is how messages of a topic say whose they are.
func sourceItem(topic, token string, d *readout.Device) map[string]string {
	switch {
	case triggerOf(topic) == plan.Alarm:
		return map[string]string{"InputToken": token}
	case strings.Contains(topic, "RuleEngine"):
		for i := range d.Channels {
			if c := &d.Channels[i]; c.Token == token && len(c.Tokens) > 0 {
				return map[string]string{"VideoSourceConfigurationToken": c.Tokens[0]}
			}
		}
	}
	return map[string]string{"Source": token}
}

// writeInput sets how a contact rests.
func (c *Client) writeInput(ctx context.Context, in readout.Input) error {
	idle := "open"
	if in.Contact == "normallyClosed" {
		idle = "closed"
	}
	_, err := c.ask(ctx, onvif.DeviceIO, onvif.E("tmd:SetDigitalInputConfigurations", onvif.E("tmd:DigitalInputs",
		onvif.Attr{Name: "token", Value: in.Token}, onvif.Attr{Name: "IdleState", Value: idle})))
	return err
}

// writeOutput sets how long a relay holds.
func (c *Client) writeOutput(ctx context.Context, out readout.Output) error {
	answer, err := c.ask(ctx, onvif.DeviceIO, onvif.E("tmd:GetRelayOutputs"))
	if err != nil {
		return err
	}
	idle := "open"
	for _, e := range onvif.All(answer, "RelayOutputs") {
		if e.SelectAttrValue("token", "") == out.Token {
			idle = cmp.Or(onvif.Text(e, "Properties/IdleState"), idle)
		}
	}
	mode, delay := "Bistable", "PT0S"
	if out.HoldSeconds > 0 {
		mode, delay = "Monostable", onvif.Seconds(out.HoldSeconds)
	}
	_, err = c.ask(ctx, onvif.DeviceIO, onvif.E("tmd:SetRelayOutputSettings", onvif.E("tmd:RelayOutput",
		onvif.Attr{Name: "token", Value: out.Token}, onvif.E("tt:Properties", onvif.E("tt:Mode", mode), onvif.E("tt:DelayTime", delay),
			onvif.E("tt:IdleState", idle)))))
	return err
}

// writeDetection sets rules and modules of a configuration.
func (c *Client) writeDetection(ctx context.Context, w *readout.Detection) error {
	rules, err := c.rules(ctx, "GetRules", "Rule", w.Configuration)
	if err != nil {
		return err
	}
	if w.Drawn == "grid" {
		if err := c.writeSensitivity(ctx, w); err != nil {
			return err
		}
	}
	kind := map[string]string{"grid": "CellMotionDetector", "polygon": "MotionRegionDetector"}[w.Drawn]
	if kind == "" {
		return &Error{Refused, "It tells of no detection that can be set."}
	}
	var there []rule
	for _, r := range rules {
		if r.kind == kind {
			there = append(there, r)
		}
	}
	var wanted []*onvif.Element
	if w.On {
		wanted = ruleElements(w, kind, there)
	}
	operation := func(name string, in ...any) error {
		_, err := c.call(ctx, onvif.Analytics, onvif.E("tan:"+name, append([]any{onvif.E("tan:ConfigurationToken", w.Configuration)}, in...)...))
		return err
	}
	n := min(len(there), len(wanted))
	if n > 0 {
		if err := operation("ModifyRules", wanted[:n]); err != nil {
			return err
		}
	}
	if len(wanted) > n {
		if err := operation("CreateRules", wanted[n:]); err != nil {
			return err
		}
	}
	var names []*onvif.Element
	for _, r := range there[n:] {
		names = append(names, onvif.E("tan:RuleName", r.name))
	}
	if len(names) > 0 {
		return operation("DeleteRules", names)
	}
	return nil
}

// ruleElements are rules as they are wanted; those that are there keep their names and what is not ours.
func ruleElements(w *readout.Detection, kind string, there []rule) (out []*onvif.Element) {
	named := func(k int, otherwise string) string {
		if k < len(there) {
			return there[k].name
		}
		return otherwise
	}
	if kind == "CellMotionDetector" {
		parameters := onvif.E("tt:Parameters")
		delay := 0.0
		if w.MinSeconds != nil {
			delay = math.Round(*w.MinSeconds * 1000)
		}
		ours := map[string]string{"MinCount": "5", "AlarmOnDelay": plan.Say("%v",
			delay), "AlarmOffDelay": "1000", "ActiveCells": onvif.ActiveCells(cellBits(w))}
		if len(there) > 0 {
			for _, name := range []string{"MinCount", "AlarmOffDelay"} {
				ours[name] = cmp.Or(there[0].items[name], ours[name])
			}
		}
		for _, name := range []string{"MinCount", "AlarmOnDelay", "AlarmOffDelay", "ActiveCells"} {
			parameters.AddChild(onvif.Item(name, ours[name]))
		}
		return []*onvif.Element{onvif.E("tan:Rule", onvif.Attr{Name: "Name", Value: named(0, "Motion")}, onvif.Attr{Name: "Type", Value: "tt:" +
			kind},
			parameters)}
	}
	areas := w.Areas
	if len(areas) == 0 {
		areas = []plan.Area{{Name: "Picture", Points: []plan.Point{{0, 0}, {1, 0}, {1, 1}, {0, 1}}}}
	}
	for k := range areas {
		points := make([][2]float64, len(areas[k].Points))
		for i, p := range areas[k].Points {
			points[i] = p
		}
		region := onvif.E("tt:MotionRegionConfig", onvif.Polygon(points))
		if s := w.SensitivityPercent; s != nil {
			region.AddChild(onvif.E("tt:Sensitivity", plan.Say("%v", math.Round(*s))))
		}
		out = append(out, onvif.E("tan:Rule", onvif.Attr{Name: "Name", Value: named(k, cmp.Or(areas[k].Name, "Area"))},
			onvif.Attr{Name: "Type", Value: "tt:" + kind}, onvif.E("tt:Parameters", onvif.ElementItem("MotionRegion", region))))
	}
	return out
}

// cellBits are the cells that are watched: all where no area is drawn.
func cellBits(w *readout.Detection) []byte {
	if len(w.Areas) > 0 && w.Areas[0].Cells != nil {
		if bits, err := base64.StdEncoding.DecodeString(w.Areas[0].Cells.On); err == nil {
			return bits
		}
	}
	bits := make([]byte, (w.Columns*w.Rows+7)/8)
	for k := range w.Columns * w.Rows {
		bits[k/8] |= 0x80 >> (k % 8)
	}
	return bits
}

// writeSensitivity sets that of the motion engine.
func (c *Client) writeSensitivity(ctx context.Context, w *readout.Detection) error {
	modules, err := c.rules(ctx, "GetAnalyticsModules", "AnalyticsModule", w.Configuration)
	if err != nil || w.SensitivityPercent == nil {
		return err
	}
	for i := range modules {
		m := &modules[i]
		if m.kind != "CellMotionEngine" {
			continue
		}
		if is := percent(m.items["Sensitivity"]); is != nil && math.Abs(*is-*w.SensitivityPercent) < 0.5 {
			return nil
		}
		parameters := onvif.E("tt:Parameters", onvif.Item("Sensitivity", plan.Say("%v", math.Round(*w.SensitivityPercent))))
		if w.Columns > 0 {
			parameters.AddChild(onvif.ElementItem("Layout", onvif.Layout{Columns: w.Columns, Rows: w.Rows}.Element()))
		}
		_, err := c.ask(ctx, onvif.Analytics, onvif.E("tan:ModifyAnalyticsModules", onvif.E("tan:ConfigurationToken", w.Configuration),
			onvif.E("tan:AnalyticsModule", onvif.Attr{Name: "Name", Value: m.name}, onvif.Attr{Name: "Type", Value: "tt:CellMotionEngine"},
				parameters)))
		return err
	}
	return nil
}
