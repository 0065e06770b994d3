package readout

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/core/table"
	"wakefield.example/core/week"
)

// Against is how a device differs from a plan. Lines are those of the recorder itself last.
type Against struct {
	Lines  []Line   `json:"lines"`
	ByHand []ByHand `json:"byHand" doc:"What the plan asks for which the device has no setting"`
	Same   int      `json:"same" doc:"Channels on which nothing differs"`
}

// Hold holds a device against a plan. entered is the plan as its recorders take it, which is what devices ought to have; edits of
// the lines change p.
func Hold(p, entered *plan.Plan, t Target, d *Device) Against {
	wanted, hand := Wanted(entered, t, d)
	pairs, names := Match(entered, t, d), namingOf(entered, t, d)
	of := func(c *Channel) *plan.Channel {
		for _, pair := range pairs {
			if pair.Read != nil && pair.Read.Token == c.Token {
				return pair.Planned
			}
		}
		return nil
	}
	days := takeDates(p, entered, t, d)
	lines := Lines(d, wanted, func(c *Channel) (id, name string) {
		if planned := of(c); planned != nil {
			return planned.ID, planned.Name
		}
		return "", c.Name
	})
	for i := range lines {
		l := &lines[i]
		if c := p.Channel(l.Channel); c != nil {
			l.Take = take(p, c, l.member(), d.channel(l.ID), d)
			switch l.member() {
			case "causes":
				l.Take = takeTies(p, c, d.channel(l.ID), names)
			case "dates":
				l.Take = days
			}
		}
	}
	for _, pair := range pairs {
		lines = append(lines, pairLines(p, t, pair, d)...)
	}
	takeDatesOfNew(p, t, lines, d)
	slices.SortStableFunc(lines, func(a, b Line) int { return cmp.Compare(cmp.Or(a.Number, 1e6), cmp.Or(b.Number, 1e6)) })
	lines = append(lines, wireLines(p, t, lines, d)...)
	lines = slices.DeleteFunc(lines, func(l Line) bool { return l.ID == "" })
	if line, differs := takesLine(p, t, d); differs {
		lines = append(lines, line)
	}
	out := Against{Lines: lines, ByHand: hand}
	for _, pair := range pairs {
		if pair.Planned != nil && pair.Read != nil &&
			!slices.ContainsFunc(lines, func(l Line) bool { return l.Channel == pair.Planned.ID }) {
			out.Same++
		}
	}
	if out.Lines == nil {
		out.Lines = []Line{}
	}
	if out.ByHand == nil {
		out.ByHand = []ByHand{}
	}
	return out
}

// member is what of its channel a line is about.
func (l *Line) member() string { return l.ID[strings.LastIndexByte(l.ID, '/')+1:] }

// channel is the channel that the id of a line begins with.
func (d *Device) channel(id string) *Channel {
	token := id[:strings.LastIndexByte(id, '/')]
	for i := range d.Channels {
		if d.Channels[i].Token == token {
			return &d.Channels[i]
		}
	}
	return &Channel{}
}

// cell is an edit of one cell of the channel table.
func cell(id, column, text string) []edit.Edit {
	return []edit.Edit{{SetCells: &edit.SetCells{Cells: table.Cells{Columns: []string{column},
		Rows: []table.CellRow{{Channel: id, Values: []string{text}}}}}}}
}

func figure(f float64) string { return strconv.FormatFloat(math.Round(f*1000)/1000, 'f', -1, 64) }

// take are the edits that make a member of a planned channel what it is at the device.
func take(p *plan.Plan, c *plan.Channel, member string, r *Channel, d *Device) []edit.Edit {
	if stream, of, ok := strings.Cut(member, "."); ok && r.Stream(plan.StreamName(stream)) != nil {
		return takeStream(c, r.Stream(plan.StreamName(stream)), of)
	}
	ids := []string{c.ID}
	switch member {
	case "name":
		if r.Name == "" {
			return nil
		}
		return cell(c.ID, "name", r.Name)
	case "layers":
		return takeLayers(p, c, r, d)
	case "around.both":
		if c.AlarmPreSeconds == nil && c.AlarmPostSeconds == nil { // alarms are as motion is
			return take(p, c, "around.motion", r, d)
		}
		return append(take(p, c, "around.motion", r, d), take(p, c, "around.alarm", r, d)...)
	case "around.motion":
		s, _ := around(r.Layers, plan.Motion)
		return []edit.Edit{{SetTimes: &edit.SetTimes{Channels: ids, PreSeconds: &s.pre, PostSeconds: &s.post}}}
	case "around.alarm":
		s, _ := around(r.Layers, plan.Alarm)
		return []edit.Edit{{SetTimes: &edit.SetTimes{Channels: ids, AlarmPreSeconds: &s.pre, AlarmPostSeconds: &s.post}}}
	case "keepAtMostDays":
		return cell(c.ID, "atMost", figure(*r.KeepAtMostDays))
	case "detection":
		return cell(c.ID, "detection", onOff(r.Detection.On))
	case "shortest":
		return cell(c.ID, "shortest", figure(*r.Detection.MinSeconds))
	case "sensitivity":
		return takeSensitivity(c, *r.Detection.SensitivityPercent)
	case "areas":
		return takeAreas(c, r.Detection)
	}
	return nil
}

// takeStream are the edits that make a member of a stream what it is at the device.
func takeStream(c *plan.Channel, s *Stream, member string) []edit.Edit {
	column := string(s.Name) + "." + member
	switch member {
	case "codec":
		if plan.Codecs.Name(s.Codec) == "" {
			return nil
		}
		return cell(c.ID, column, plan.Codecs.Name(s.Codec))
	case "size":
		return cell(c.ID, column, fmt.Sprintf("%dx%d", s.Width, s.Height))
	case "fps":
		return cell(c.ID, column, figure(s.FPS))
	case "gop":
		return cell(c.ID, column, figure(s.GOPSeconds))
	case "limit":
		planned := c.Streams.Get(s.Name)
		if planned == nil {
			return nil
		}
		return []edit.Edit{{SetRate: &edit.SetRate{Channels: []string{c.ID}, Stream: s.Name, Rate: rateAt(planned.Rate, s)}}}
	}
	return nil
}

// rateAt is a planned bitrate as the encoder's limit leaves it: constant where the encoder is, else never more than the limit.
func rateAt(r plan.Rate, s *Stream) plan.Rate {
	switch {
	case s.Constant:
		return plan.Rate{Kind: "constant", Kbps: s.LimitKbps, Known: "surveyed"}
	case r.Kind == "variable":
		r.ActiveKbps = min(r.ActiveKbps, s.LimitKbps)
		r.IdleKbps = min(r.IdleKbps, r.ActiveKbps)
		return r
	case r.Kind == "modelled":
		r.MaxKbps = s.LimitKbps
		return r
	}
	return plan.Rate{Kind: "modelled", Quality: 3, Scene: "moderate", MaxKbps: s.LimitKbps}
}

// takeLayers are the edits that give a channel the week that the device records.
func takeLayers(p *plan.Plan, c *plan.Channel, r *Channel, d *Device) (out []edit.Edit) {
	steps, made := weekOf(p, c, r.Layers, d.Around)
	for _, duty := range made {
		out = append(out, edit.Edit{SetDuty: &edit.SetDuty{Duty: duty}})
	}
	if times := newTimes(p, c, r); times != nil {
		out = append(out, edit.Edit{SetTimes: times})
	}
	was := p.WeekOf(c).Steps()
	var told []string
	for _, s := range steps {
		if slices.Contains(told, s.Value) {
			continue
		}
		told = append(told, s.Value)
		where := week.Map(week.Both(was, steps), func(at week.Pair[string, string]) bool { return at.A != at.B && at.B == s.Value })
		if hours := plan.HoursWhere(where); len(hours) > 0 {
			out = append(out, edit.Edit{Paint: &edit.Paint{Channels: []string{c.ID}, Hours: hours, Duty: s.Value}})
		}
	}
	return out
}

// newTimes are the seconds around events that the plan's week does not have and the device's does; nil where there are none.
func newTimes(p *plan.Plan, c *plan.Channel, r *Channel) *edit.SetTimes {
	planned := LayersOf(p, c, true, week.Date{})
	is := *c
	timesAsRead(&is, r)
	times := edit.SetTimes{Channels: []string{c.ID}}
	lacks := func(on plan.Trigger) bool {
		_, has := around(planned, on)
		_, told := around(r.Layers, on)
		return told && !has
	}
	if lacks(plan.Motion) && (is.PreSeconds != c.PreSeconds || is.PostSeconds != c.PostSeconds) {
		times.PreSeconds, times.PostSeconds = &is.PreSeconds, &is.PostSeconds
	}
	if lacks(plan.Alarm) {
		times.AlarmPreSeconds, times.AlarmPostSeconds = is.AlarmPreSeconds, is.AlarmPostSeconds
	}
	if times.PreSeconds == nil && times.AlarmPreSeconds == nil {
		return nil
	}
	return &times
}

// takeSensitivity gives all watched areas the device's one.
func takeSensitivity(c *plan.Channel, percent float64) (out []edit.Edit) {
	for _, a := range c.Detection.List() {
		if !a.Ignore && a.SensitivityPercent != nil {
			a.SensitivityPercent = &percent
			out = append(out, edit.Edit{SetArea: &edit.SetArea{Channel: c.ID, Area: a}})
		}
	}
	return out
}

// takeAreas gives the channel the areas that the device watches, in place of those that it has.
func takeAreas(c *plan.Channel, r *Detection) (out []edit.Edit) {
	was := c.Detection.List()
	taken := make([]string, 0, len(was)+len(r.Areas))
	for i, a := range r.Areas {
		if len(a.Points) == 0 && a.Cells == nil {
			continue
		}
		if i < len(was) && !was[i].Ignore {
			kept := was[i]
			kept.Points, kept.Cells = a.Points, a.Cells
			a = kept
		} else {
			a.Name = cmp.Or(a.Name, "Area")
			a.ID = plan.FreeID(a.Name, "area", func(id string) bool {
				return slices.Contains(taken, id) || slices.ContainsFunc(was, func(b plan.Area) bool { return b.ID == id })
			})
		}
		taken = append(taken, a.ID)
		out = append(out, edit.Edit{SetArea: &edit.SetArea{Channel: c.ID, Area: a}})
	}
	for _, a := range was {
		if !slices.Contains(taken, a.ID) {
			out = append(out, edit.Edit{RemoveArea: &edit.RemoveArea{Channel: c.ID, Area: a.ID}})
		}
	}
	return out
}
