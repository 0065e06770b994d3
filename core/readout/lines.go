package readout

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"wakefield.example/core/edit"
	"wakefield.example/core/picture"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// Line is one member that differs.
type Line struct {
	ID      string      `json:"id" doc:"Of the same difference whenever it is looked for"`
	Channel string      `json:"channel,omitempty" doc:"Id in the plan; absent for the recorder, and for a channel that the plan lacks"`
	Number  int         `json:"number,omitempty" doc:"Of the channel"`
	About   string      `json:"about" doc:"Name of the channel, input, output or recorder"`
	What    string      `json:"what" doc:"What differs, in words"`
	Device  string      `json:"device" doc:"How the device has it"`
	Plan    string      `json:"plan" doc:"How the plan has it"`
	Part    string      `json:"part,omitempty" doc:"What is written as one for it to go; absent where the device cannot be told"`
	Missing bool        `json:"missing,omitempty" doc:"Whether footage is missing because of it"`
	Take    []edit.Edit `json:"take,omitempty" doc:"Edits that make the plan so; absent where a plan cannot say it"`
}

// drawing collects lines of one thing.
type drawing struct {
	channel string
	number  int
	about   string
	lines   []Line
}

func (d *drawing) add(member, what, device, wanted, part string) *Line {
	l := Line{ID: member, Channel: d.channel, Number: d.number, About: d.about, What: what, Device: device, Plan: wanted, Part: part}
	d.lines = append(d.lines, l)
	return &d.lines[len(d.lines)-1]
}

// Lines is what differs between a device as it is and as it is wanted; channels are called as the plan has them. Edits are not
// among it, see [Against].
func Lines(is, wanted *Device, name func(c *Channel) (id, name string)) (out []Line) {
	from, length := heldDates(is, wanted)
	for i := range is.Channels {
		k := slices.IndexFunc(wanted.Channels, func(c Channel) bool { return c.Token == is.Channels[i].Token })
		if k < 0 {
			continue
		}
		c := &is.Channels[i]
		d := drawing{number: c.Number}
		d.channel, d.about = name(c)
		d.channelLines(c, &wanted.Channels[k], from, length)
		d.tieLines(is, c, &wanted.Channels[k])
		for n := range d.lines {
			d.lines[n].ID = c.Token + "/" + d.lines[n].ID
		}
		out = append(out, d.lines...)
	}
	d := drawing{}
	for i := range min(len(is.Inputs), len(wanted.Inputs)) {
		a, b := is.Inputs[i], wanted.Inputs[i]
		if a.Contact != b.Contact {
			d.about = a.Name
			d.add("input/"+a.Token, "contact at rest", contact(a.Contact), contact(b.Contact), "input:"+a.Token)
		}
	}
	for i := range min(len(is.Outputs), len(wanted.Outputs)) {
		a, b := is.Outputs[i], wanted.Outputs[i]
		if a.HoldSeconds != b.HoldSeconds {
			d.about = a.Name
			d.add("output/"+a.Token, "on for", held(a.HoldSeconds), held(b.HoldSeconds), "output:"+a.Token)
		}
	}
	return append(out, d.lines...)
}

func contact(c string) string { return strings.ToLower(plan.Contacts.Name(c)) }

func held(s float64) string {
	if s == 0 {
		return "as long as it is switched on"
	}
	return plan.Say("%v s", s)
}

// channelLines are what differs on one channel.
func (d *drawing) channelLines(is, w *Channel, from week.Date, length int) {
	if is.Name != w.Name {
		part := ""
		if is.Recording != "" {
			part = "recording:" + is.Recording
		}
		d.add("name", "name", cmp.Or(is.Name, "none"), w.Name, part)
	}
	for i := range is.Streams {
		if s := w.Stream(is.Streams[i].Name); s != nil {
			d.streamLines(&is.Streams[i], s)
		}
	}
	if is.Recording != "" {
		d.layerLines(is, w, from, length)
	}
	if a, b := is.KeepAtMostDays, w.KeepAtMostDays; a != nil && b != nil && math.Abs(*a-*b) > 0.005 {
		l := d.add("keepAtMostDays", "deleted after", days(*a), days(*b), "recording:"+is.Recording)
		l.Missing = *a > 0 && (*b == 0 || *a < *b)
	}
	if is.Detection != nil && w.Detection != nil {
		d.detectionLines(is.Token, is.Detection, w.Detection)
	}
}

func days(n float64) string {
	if n == 0 {
		return "never"
	}
	return plan.Say("%.3g days", n)
}

// streamLines are what differs of one stream.
func (d *drawing) streamLines(is, w *Stream) {
	part, called := "encoder:"+is.Encoder, plan.StreamChoices.Name(string(is.Name))
	add := func(member, what, a, b string) {
		if a != b {
			d.add(string(is.Name)+"."+member, called+", "+what, a, b, part)
		}
	}
	add("codec", "codec", codec(is.Codec), codec(w.Codec))
	add("size", "size", fmt.Sprintf("%d × %d", is.Width, is.Height), fmt.Sprintf("%d × %d", w.Width, w.Height))
	add("fps", "frames a second", plan.Say("%.4g", is.FPS), plan.Say("%.4g", w.FPS))
	if math.Abs(is.GOPSeconds-w.GOPSeconds) > 0.5/max(is.FPS, 1) { // it is counted in frames
		add("gop", "keyframe every", plan.Say("%.3g s", is.GOPSeconds), plan.Say("%.3g s", w.GOPSeconds))
	}
	if is.LimitKbps != w.LimitKbps || is.Constant != w.Constant {
		add("limit", "bitrate", limit(is), limit(w))
	}
}

func codec(c string) string {
	if name := plan.Codecs.Name(c); name != "" {
		return name
	}
	return c
}

func limit(s *Stream) string {
	if s.Constant {
		return plan.Say("%v kbit/s constant", s.LimitKbps)
	}
	return plan.Say("at most %v kbit/s", s.LimitKbps)
}

// layerLines are what differs of what is recorded: when and which stream, and how long around events.
func (d *drawing) layerLines(is, w *Channel, from week.Date, length int) {
	part := "layers:" + is.Recording
	a, b := within(bare(is.Layers), week.Date{}, 0), within(bare(asItMatters(w.Layers, is.Layers)), week.Date{}, 0)
	a, b = tidy(a), tidy(b)
	if inWords(a) != inWords(b) || !sameHours(a, b) {
		l := d.add("layers", "what is recorded", inWords(a), inWords(b), part)
		l.Missing = less(a, b)
	}
	d.dateLine(is, w, from, length)
	var last *Line
	for _, on := range []plan.Trigger{plan.Motion, plan.Alarm} {
		a, okA := around(is.Layers, on)
		b, okB := around(w.Layers, on)
		switch {
		case !okA || !okB || a == b:
		case last != nil && last.Device == a.words() && last.Plan == b.words(): // the same for both
			last.ID, last.What = "around.both", "around motion and alarms"
		default:
			last = d.add("around."+string(on), "around "+string(on), a.words(), b.words(), part)
			last.Missing = a.pre < b.pre || a.post < b.post
		}
	}
}

// tieLines are what differs of whose events a channel records.
func (d *drawing) tieLines(device *Device, is, w *Channel) {
	var a, b []string
	for _, on := range []plan.Trigger{plan.Motion, plan.Alarm} {
		has, told := heard(is.Layers, on)
		wants, planned := heard(w.Layers, on)
		if told && planned && !slices.Equal(has, wants) {
			a, b = append(a, has...), append(b, wants...)
		}
	}
	if slices.Equal(a, b) {
		return
	}
	l := d.add("causes", "what records it", device.heardWords(a), device.heardWords(b), "layers:"+is.Recording)
	l.Missing = slices.ContainsFunc(b, func(x string) bool { return !slices.Contains(a, x) })
}

// bare are layers without seconds.
func bare(list []Layer) []Layer {
	out := slices.Clone(list)
	for i := range out {
		out[i].PreSeconds, out[i].PostSeconds = nil, nil
	}
	return tidy(out)
}

func sameHours(a, b []Layer) bool {
	return slices.EqualFunc(a, b, func(a, b Layer) bool { return slices.Equal(a.steps(), b.steps()) })
}

// less tells whether layers record nothing at some time at which others record something.
func less(a, b []Layer) bool {
	never := func(list []Layer, m week.Minute) bool {
		for i := range list {
			if list[i].steps().At(m) {
				return false
			}
		}
		return true
	}
	for m := range week.Length {
		if never(a, m) && !never(b, m) {
			return true
		}
	}
	return false
}

// seconds are those kept before and after an event.
type seconds struct{ pre, post float64 }

func (s seconds) words() string { return plan.Say("%v s before and %v s after", s.pre, s.post) }

// around are the seconds kept around a kind of event: the most that any layer keeps; not told where one does not say.
func around(list []Layer, on plan.Trigger) (s seconds, told bool) {
	for i := range list {
		if l := &list[i]; slices.Contains(l.On, on) && l.PreSeconds != nil && l.PostSeconds != nil {
			s, told = seconds{max(s.pre, *l.PreSeconds), max(s.post, *l.PostSeconds)}, true
		}
	}
	return s, told
}

// sameArea is the share of the picture by which areas may differ and be called the same.
const sameArea = 0.005

// detectionLines are what differs of detection.
func (d *drawing) detectionLines(token string, is, w *Detection) {
	part := "detection:" + token
	if is.On != w.On {
		l := d.add("detection", "detection", onOff(is.On), onOff(w.On), part)
		l.Missing = w.On
		return
	}
	if !is.On {
		return
	}
	if a, b := is.SensitivityPercent, w.SensitivityPercent; a != nil && b != nil && math.Abs(*a-*b) > 0.5 {
		d.add("sensitivity", "sensitivity", plan.Say("%.3g %%", *a), plan.Say("%.3g %%", *b), part)
	}
	if a, b := is.MinSeconds, w.MinSeconds; a != nil && b != nil && math.Abs(*a-*b) > 0.05 {
		d.add("shortest", "shortest motion", plan.Say("%.3g s", *a), plan.Say("%.3g s", *b), part)
	}
	a, b := is.shapes(), w.shapes()
	areaA, areaB, union := covered(a), covered(b), covered(slices.Concat(a, b))
	if 2*union-areaA-areaB > sameArea { // what only one of them covers
		l := d.add("areas", "areas that are watched", watched(is, areaA), watched(w, areaB), part)
		l.Missing = union-areaA > sameArea
	}
}

func onOff(on bool) string {
	if on {
		return "on"
	}
	return "off"
}

// wholePicture is all of it.
var wholePicture = picture.Shape{{{X: 0, Y: 0}, {X: 1, Y: 0}, {X: 1, Y: 1}, {X: 0, Y: 1}}}

// shapes are those of the areas that are watched, which may overlap.
func (r *Detection) shapes() (list []picture.Shape) {
	if len(r.Areas) == 0 {
		return []picture.Shape{wholePicture}
	}
	for i := range r.Areas {
		list = append(list, r.Areas[i].Shape())
	}
	return list
}

// covered is the share of the picture that lies in any of some shapes: all of it but what is left without them.
func covered(shapes []picture.Shape) float64 {
	return 1 - picture.NewRegion(wholePicture, shapes).Area()
}

func watched(r *Detection, area float64) string {
	if len(r.Areas) == 0 {
		return "all of the picture"
	}
	return plan.Say("%s, %.3g %% of the picture", plan.Count(len(r.Areas), "area"), 100*area)
}
