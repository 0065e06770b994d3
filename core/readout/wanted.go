package readout

import (
	"encoding/base64"
	"slices"
	"strings"

	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// Wanted is the device as a plan would have it: a copy with the plan's values in place of its own, where the device tells of
// such and the plan says something. p is the plan as its recorders take it. Beside it stands what the plan asks of channels for
// which there is no setting.
func Wanted(p *plan.Plan, t Target, d *Device) (*Device, []ByHand) {
	w := *d
	w.Channels, w.Inputs, w.Outputs = slices.Clone(d.Channels), slices.Clone(d.Inputs), slices.Clone(d.Outputs)
	var hand []ByHand
	names := namingOf(p, t, d)
	for _, pair := range Match(p, t, d) {
		if pair.Planned == nil || pair.Read == nil || pair.Planned.NoCamera {
			continue
		}
		c := &w.Channels[slices.IndexFunc(d.Channels, func(c Channel) bool { return c.Token == pair.Read.Token })]
		for _, words := range append(c.want(p, pair.Planned, d, names), byHand(p, pair.Planned, c, d)...) {
			hand = append(hand, ByHand{pair.Planned.ID, words})
		}
	}
	if t.Channel == "" {
		w.wires(p, t.Recorder)
	}
	return &w, hand
}

// ByHand is something of the plan for which a device has no setting, or that becomes another value there.
type ByHand struct {
	Channel string `json:"channel" doc:"Id"`
	Words   string `json:"words"`
}

// want puts the plan's values into a channel, and says which become others as the device does not offer them.
func (c *Channel) want(p *plan.Plan, planned *plan.Channel, d *Device, names naming) (otherwise []string) {
	c.Name = planned.Name
	if c.Recording == "" && c.Name != "" && len(d.Channels) == 1 {
		c.Name = d.Channels[0].Name // a camera's own name is nobody's decision
	}
	c.Streams = slices.Clone(c.Streams)
	for i := range c.Streams {
		if s := planned.Streams.Get(c.Streams[i].Name); s != nil {
			for _, words := range c.Streams[i].want(s) {
				otherwise = append(otherwise, plan.StreamChoices.Name(string(c.Streams[i].Name))+": "+words)
			}
		}
	}
	if c.Recording != "" {
		if layers := LayersOf(p, planned, d.Around, d.from()); d.cannot(layers) == "" {
			t := tiedTo(p, planned)
			names.name(layers, &t)
			c.Layers = layers
		}
		if c.KeepAtMostDays != nil {
			c.KeepAtMostDays = &planned.Keep.AtMostDays
		}
	}
	if c.Detection != nil {
		c.Detection = c.Detection.wanted(&planned.Detection)
	}
	return otherwise
}

// cannot is what of layers cannot be told to a device, which is left as it is then: one that does not follow hours where the week
// changes, or does not record around events where some are. Empty where all can.
func (d *Device) cannot(layers []Layer) string {
	switch {
	case !d.ByHour && slices.ContainsFunc(layers, func(l Layer) bool { return l.Hours != nil || len(l.OnDates) > 0 }):
		return "a week that changes by the hour"
	case !d.Around && slices.ContainsFunc(layers, func(l Layer) bool { return len(l.On) > 0 }):
		return "recording around events"
	}
	return ""
}

// from is the date from which special days are told to the device; the zero date where it follows none.
func (d *Device) from() week.Date {
	if d.SpecialDays == 0 {
		return week.Date{}
	}
	return d.Today
}

// wanted is the detection as the plan has it.
func (r *Detection) wanted(planned *plan.Detection) *Detection {
	w := *r
	w.On = planned.On
	if !w.On {
		return &w
	}
	if w.MinSeconds != nil {
		w.MinSeconds = &planned.MinSeconds
	}
	list := planned.List()
	if len(list) == 0 {
		return &w
	}
	if most := sensitivityOf(list); most != nil && w.SensitivityPercent != nil {
		w.SensitivityPercent = most
	}
	switch w.Drawn {
	case "polygon":
		w.Areas = slices.DeleteFunc(slices.Clone(list), func(a plan.Area) bool { return a.Ignore || a.Cells != nil })
	case "grid":
		if cells := gridOf(list, w.Columns, w.Rows); cells != nil {
			w.Areas = []plan.Area{{ID: "grid", Name: "Grid", Cells: cells}}
		}
	}
	return &w
}

// sensitivityOf is the highest of watched areas; nil where none says one.
func sensitivityOf(list []plan.Area) (most *float64) {
	for i := range list {
		if s := list[i].SensitivityPercent; s != nil && !list[i].Ignore && (most == nil || *s > *most) {
			most = s
		}
	}
	return most
}

// gridOf is one grid of all areas: what is watched without what is ignored; nil where an area is on another grid.
func gridOf(list []plan.Area, columns, rows int) *plan.AreaCells {
	bits := make([]byte, (columns*rows+7)/8)
	for _, ignore := range []bool{false, true} {
		for i := range list {
			if list[i].Ignore != ignore {
				continue
			}
			if !list[i].Cells.Fits(columns, rows) {
				return nil
			}
			on := list[i].Cells.Painted()
			for k := range columns * rows {
				if on(k%columns, k/columns) {
					if bit := byte(0x80 >> (k % 8)); ignore {
						bits[k/8] &^= bit
					} else {
						bits[k/8] |= bit
					}
				}
			}
		}
	}
	return &plan.AreaCells{Columns: columns, Rows: rows, On: base64.StdEncoding.EncodeToString(bits)}
}

// wires puts the plan's inputs and outputs into those of the device, one after the other as both list them.
func (d *Device) wires(p *plan.Plan, recorder string) {
	k := 0
	for i := range p.AlarmInputs {
		if in := &p.AlarmInputs[i]; in.Recorder == recorder && k < len(d.Inputs) {
			if d.Inputs[k].Contact != "" && in.Contact != "" {
				d.Inputs[k].Contact = in.Contact
			}
			k++
		}
	}
	k = 0
	for i := range p.Outputs {
		if out := &p.Outputs[i]; out.Recorder == recorder && k < len(d.Outputs) {
			d.Outputs[k].HoldSeconds = out.HoldSeconds
			k++
		}
	}
}

// byHand is what the plan asks of a channel for which the device has no setting.
func byHand(p *plan.Plan, planned *plan.Channel, c *Channel, d *Device) (out []string) {
	told := make(map[string]bool)
	add := func(words string) {
		if !told[words] {
			told[words] = true
			out = append(out, words)
		}
	}
	if c.Recording == "" {
		return nil
	}
	layers := LayersOf(p, planned, d.Around, d.Today)
	switch words := d.cannot(layers); {
	case words != "":
		add(words)
	case d.from() != d.Today:
		var names []string
		for _, name := range datesOf(layers) {
			if !slices.Contains(names, name) {
				names = append(names, name)
			}
		}
		slices.Sort(names)
		if len(names) > 0 {
			add("special days: " + strings.Join(names, ", "))
		}
	}
	for _, step := range p.WeekOf(planned).Steps() {
		if d := p.Duty(step.Value); d != nil {
			for _, words := range dutyByHand(d) {
				add(words)
			}
		}
	}
	if planned.Detection.On && planned.Detection.Hours != nil {
		add("detection only " + plan.HoursInWords(planned.Detection.Hours.Blocks))
	}
	if det := c.Detection; det != nil && det.Drawn == "polygon" {
		for _, a := range planned.Detection.List() {
			if a.Ignore {
				add("ignored area " + a.Name)
			}
		}
	}
	if planned.Keep.QuotaGB > 0 {
		add(plan.Say("quota of %v GB", planned.Keep.QuotaGB))
	}
	return out
}

// dutyByHand is what a duty asks for beside streams, events and hours.
func dutyByHand(d *plan.Duty) (out []string) {
	if b := d.Base; b != nil {
		if b.KeyframesOnly {
			out = append(out, d.Name+": keyframes only")
		}
		if b.FPS > 0 {
			out = append(out, plan.Say("%s: %v frames a second", d.Name, b.FPS))
		}
		if b.Settings != (plan.Settings{}) {
			out = append(out, d.Name+": another quality of its base layer")
		}
	}
	if e := d.Event; e != nil {
		if e.FPS > 0 {
			out = append(out, plan.Say("%s: %v frames a second while something happens", d.Name, e.FPS))
		}
		if e.Settings != (plan.Settings{}) {
			out = append(out, d.Name+": another quality while something happens")
		}
		if e.Match == "all" && len(e.On) > 1 {
			out = append(out, d.Name+": motion and alarm both at once")
		}
	}
	return out
}
