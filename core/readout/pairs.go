package readout

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/core/table"
)

// pairLines are what of a channel is there on one side only: the channel itself, streams, address, presets.
func pairLines(p *plan.Plan, t Target, pair Pair, d *Device) (out []Line) {
	planned, read := pair.Planned, pair.Read
	switch {
	case read == nil:
		return []Line{{ID: planned.ID + "/camera", Channel: planned.ID, Number: planned.Number, About: planned.Name, What: "camera",
			Device: "none", Plan: there, Missing: true, Take: cell(planned.ID, "camera", "none")}}
	case planned == nil || planned.NoCamera:
		if len(read.Streams) == 0 {
			return nil
		}
		line := Line{ID: read.Token + "/camera", Number: read.Number, About: read.Name, What: "camera", Device: there, Plan: "none",
			Take: describe(p, t, planned, read, d)}
		if planned != nil {
			line.Channel = planned.ID
		}
		return []Line{line}
	}
	line := func(member, what, device, wanted string, take []edit.Edit) {
		out = append(out, Line{ID: read.Token + "/" + member, Channel: planned.ID, Number: planned.Number, About: planned.Name, What: what,
			Device: device, Plan: wanted, Take: take})
	}
	if t.Channel == "" && planned.Number != read.Number {
		line("number", "number", strconv.Itoa(read.Number), strconv.Itoa(planned.Number), cell(planned.ID, "number", strconv.Itoa(read.Number)))
	}
	if read.Address != "" && read.Address != planned.Address {
		line("address", "address", read.Address, orNone(planned.Address), cell(planned.ID, "address", read.Address))
	}
	streamsOfPair(planned, read, line)
	if m := planned.Movable; m != nil && len(read.Presets) > 0 {
		for _, preset := range m.Presets {
			if !slices.Contains(read.Presets, preset.Name) {
				line("preset."+preset.ID, "preset "+preset.Name, "none of that name", "there", nil)
			}
		}
	}
	return out
}

// there is how a camera is told of that one side alone has.
const there = "there"

// streamsOfPair are streams that are there on one side only.
func streamsOfPair(planned *plan.Channel, read *Channel, line func(member, what, device, wanted string, take []edit.Edit)) {
	for _, which := range []plan.StreamName{plan.Main, plan.Sub, plan.Third} {
		called := plan.StreamChoices.Name(string(which))
		has, is := planned.Streams.Get(which), read.Stream(which)
		switch {
		case has == nil && is != nil && which != plan.Third: // a third that nobody planned with is nobody's loss
			if s := streamAsRead(is); s != nil {
				line(string(which), called, streamWords(is), "none",
					[]edit.Edit{{SetStream: &edit.SetStream{Channels: []string{planned.ID}, Stream: which, Settings: s}}})
			}
		case has != nil && is == nil && len(read.Streams) > 0:
			line(string(which), called, "none", plan.Codecs.Name(has.Codec)+fmt.Sprintf(" %d × %d", has.Width, has.Height), nil)
		}
	}
}

func orNone(text string) string {
	if text == "" {
		return "not said"
	}
	return text
}

func streamWords(s *Stream) string {
	return codec(s.Codec) + fmt.Sprintf(" %d × %d", s.Width, s.Height) + plan.Say(", %.4g frames a second", s.FPS)
}

// streamAsRead is a stream of a plan as a device has it; its bitrate is modelled within the encoder's limit until it is measured,
// or the constant one. nil for a codec that no plan knows.
func streamAsRead(s *Stream) *plan.Stream {
	if plan.Codecs.Name(s.Codec) == "" || s.Width < 16 || s.Height < 16 || s.FPS <= 0 {
		return nil
	}
	out := plan.PlainStream(s.Name)
	out.Codec, out.Width, out.Height, out.FPS = s.Codec, s.Width, s.Height, s.FPS
	if s.GOPSeconds > 0 {
		out.GOPSeconds = s.GOPSeconds
	}
	switch {
	case s.Constant && s.LimitKbps > 0:
		out.Rate = plan.Rate{Kind: "constant", Kbps: s.LimitKbps, Known: "surveyed"}
	default:
		out.Rate = plan.Rate{Kind: "modelled", Quality: 3, Scene: "moderate", MaxKbps: s.LimitKbps}
	}
	return out
}

// describe are the edits that make a channel of a plan what is read of it: one that is empty in the plan, or a new one.
func describe(p *plan.Plan, t Target, planned *plan.Channel, read *Channel, d *Device) (out []edit.Edit) {
	name := read.Name
	if name == "" {
		name = fmt.Sprintf("Camera %d", read.Number)
	}
	var c plan.Channel
	switch {
	case planned != nil:
		c = *planned
		c.NoCamera = false
	default:
		r := p.Recorder(t.Recorder)
		if r == nil || len(r.Pools) == 0 || read.Number > r.Channels || len(p.Duties) == 0 {
			return nil
		}
		id := plan.FreeID(name, "channel", func(id string) bool { return p.Channel(id) != nil })
		c = plan.Channel{ID: id, Number: read.Number, Recorder: r.ID, Pool: r.Pools[0].ID, PreSeconds: 5, PostSeconds: 10,
			Week: plan.WeekRef{Own: &plan.OwnWeek{Otherwise: p.Duties[0].ID}}}
	}
	c.Name, c.Address = name, read.Address
	for i := range read.Streams {
		if s := streamAsRead(&read.Streams[i]); s != nil {
			c.Streams = c.Streams.With(read.Streams[i].Name, s)
		}
	}
	if c.Streams.Main == nil {
		return nil
	}
	c.Week = c.Week.Departed(p)
	if read.Recording != "" {
		timesAsRead(&c, read)
		steps, made := weekOf(p, &c, read.Layers, d.Around)
		for _, duty := range made {
			out = append(out, edit.Edit{SetDuty: &edit.SetDuty{Duty: duty}})
		}
		c.Week = plan.WeekRef{Own: plan.WeekOf(steps)}
	}
	if read.KeepAtMostDays != nil {
		c.Keep.AtMostDays = *read.KeepAtMostDays
	}
	if det := read.Detection; det != nil {
		c.Detection.On, c.Detection.MinSeconds = det.On, plan.Or(det.MinSeconds, 0)
		if list := named(det.Areas); len(list) > 0 {
			c.Detection.Areas = &plan.Areas{List: list}
		}
	}
	out = append(out, edit.Edit{SetChannel: &edit.SetChannel{Channel: c}})
	if planned != nil { // those of channels that the plan does not have yet are told when it has them
		out = append(out, takeTies(p, &c, read, namingOf(p, t, d))...)
	}
	return out
}

// timesAsRead gives a channel the seconds around events that are read of it.
func timesAsRead(c *plan.Channel, read *Channel) {
	for _, on := range []plan.Trigger{plan.Motion, plan.Alarm} {
		s, told := around(read.Layers, on)
		switch {
		case !told:
		case on == plan.Motion:
			c.PreSeconds, c.PostSeconds = s.pre, s.post
		case s.pre != c.PreSeconds || s.post != c.PostSeconds:
			c.AlarmPreSeconds, c.AlarmPostSeconds = &s.pre, &s.post
		}
	}
}

// named are areas with ids of their own.
func named(list []plan.Area) (out []plan.Area) {
	for _, a := range list {
		if a.Name == "" {
			a.Name = "Area"
		}
		a.ID = plan.FreeID(a.Name, "area", func(id string) bool { return slices.ContainsFunc(out, func(b plan.Area) bool { return b.ID == id }) })
		out = append(out, a)
	}
	return out
}

// wireLines are inputs and outputs: edits for those that differ, which takes their lines' places, and those that the plan lacks.
func wireLines(p *plan.Plan, t Target, lines []Line, d *Device) (out []Line) {
	if t.Channel != "" {
		return nil
	}
	var inputs []*plan.AlarmInput
	for i := range p.AlarmInputs {
		if p.AlarmInputs[i].Recorder == t.Recorder {
			inputs = append(inputs, &p.AlarmInputs[i])
		}
	}
	var outputs []*plan.Output
	for i := range p.Outputs {
		if p.Outputs[i].Recorder == t.Recorder {
			outputs = append(outputs, &p.Outputs[i])
		}
	}
	at := func(id string) *Line {
		k := slices.IndexFunc(lines, func(l Line) bool { return l.ID == id })
		if k < 0 {
			return nil
		}
		return &lines[k]
	}
	for k := range min(len(inputs), len(d.Inputs)) {
		if l := at("input/" + d.Inputs[k].Token); l != nil {
			in := *inputs[k]
			in.Contact = d.Inputs[k].Contact
			l.About, l.Take = in.Name, []edit.Edit{{SetAlarmInput: &edit.SetAlarmInput{AlarmInput: in}}}
		}
	}
	for k := range min(len(outputs), len(d.Outputs)) {
		if l := at("output/" + d.Outputs[k].Token); l != nil {
			o := *outputs[k]
			l.About = o.Name
			if o.HoldSeconds = d.Outputs[k].HoldSeconds; o.HoldSeconds > 0 {
				l.Take = []edit.Edit{{SetOutput: &edit.SetOutput{Output: o}}}
			}
		}
	}
	count := func(what string, has, planned int) {
		if planned > has {
			out = append(out, Line{ID: "recorder/" + what, About: p.Recorder(t.Recorder).Name, What: what, Device: strconv.Itoa(has),
				Plan: strconv.Itoa(planned), Missing: true})
		}
	}
	count("inputs", len(d.Inputs), len(inputs))
	count("outputs", len(d.Outputs), len(outputs))
	return out
}

// manyPeriods a day are no limit to any week.
const manyPeriods = 48

// TakesOf is what can be entered at the device as far as it says so, in place of what the plan says of its recorder.
func TakesOf(was *plan.Takes, d *Device) *plan.Takes {
	t := plan.Takes{}
	if was != nil {
		t = *was
	}
	if d.Periods > 0 && d.Periods < manyPeriods {
		t.PeriodsPerDay = d.Periods
	}
	drawn, columns, rows := "", 0, 0
	for i := range d.Channels {
		det := d.Channels[i].Detection
		if det == nil {
			continue
		}
		if drawn != "" && (drawn != det.Drawn || columns != det.Columns || rows != det.Rows) {
			drawn = "mixed"
			break
		}
		drawn, columns, rows = det.Drawn, det.Columns, det.Rows
	}
	if drawn == "grid" && columns <= 128 && rows <= 96 {
		t.Areas, t.GridColumns, t.GridRows = drawn, columns, rows
	}
	if len(t.FramesPerSecond) == 0 && was == nil && t.PeriodsPerDay == 0 && t.Areas == "" {
		return nil
	}
	return &t
}

// takesLine is what can be entered at the recorder, where the device says otherwise than the plan.
func takesLine(p *plan.Plan, t Target, d *Device) (l Line, differs bool) {
	r := p.Recorder(t.Recorder)
	if r == nil || t.Channel != "" {
		return l, false
	}
	now := TakesOf(r.Takes, d)
	say := func(t *plan.Takes) string {
		var parts []string
		if t != nil && t.PeriodsPerDay > 0 {
			parts = append(parts, plan.Count(t.PeriodsPerDay, "period")+" a day")
		}
		if columns, rows, on := t.Grid(); on {
			parts = append(parts, fmt.Sprintf("areas on a grid of %d × %d", columns, rows))
		}
		if len(parts) == 0 {
			return "no limit"
		}
		return strings.Join(parts, ", ")
	}
	if a, b := say(now), say(r.Takes); a != b {
		next := *r
		next.Takes = now
		return Line{ID: "recorder/takes", About: r.Name, What: "what can be entered", Device: a, Plan: b,
			Take: []edit.Edit{{SetRecorder: &edit.SetRecorder{Recorder: next}}}}, true
	}
	return l, false
}

// Together are the edits of several lines, cells of one column set in one edit.
func Together(lines []Line) (out []edit.Edit) {
	cells := make(map[string]*edit.SetCells)
	duties := make(map[string]bool)
	days := false
	for i := range lines {
		for _, e := range lines[i].Take {
			switch {
			case e.SetCells != nil && len(e.SetCells.Columns) == 1:
				column := e.SetCells.Columns[0]
				if known := cells[column]; known != nil {
					known.Rows = append(known.Rows, e.SetCells.Rows...)
					continue
				}
				c := &edit.SetCells{Cells: table.Cells{Columns: e.SetCells.Columns, Rows: slices.Clone(e.SetCells.Rows)}}
				cells[column] = c
				out = append(out, edit.Edit{SetCells: c})
			case e.SetDuty != nil && duties[e.SetDuty.Duty.ID]:
			case e.SetSpecialDays != nil && days: // those of the site are the same for all channels
			default:
				days = days || e.SetSpecialDays != nil
				if e.SetDuty != nil {
					duties[e.SetDuty.Duty.ID] = true
				}
				out = append(out, e)
			}
		}
	}
	return out
}
