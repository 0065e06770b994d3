package readout

import (
	"slices"
	"strings"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
)

// tied is what makes a channel record: whose motion, and which contacts. Ties at some hours only, or by one area, are ties; lost
// pictures, tampering and buttons no recorder is told of from here.
type tied struct {
	motion []string // ids of channels
	alarm  []string // ids of alarm inputs of its recorder
}

func tiedTo(p *plan.Plan, c *plan.Channel) (t tied) {
	if c.Detection.TiedToSelf() {
		t.motion = append(t.motion, c.ID)
	}
	for i := range p.Effects {
		e := &p.Effects[i]
		if !slices.Contains(e.Record, c.ID) {
			continue
		}
		if id := e.When.Motion; id != "" && !slices.Contains(t.motion, id) {
			t.motion = append(t.motion, id)
		}
		if id := e.When.Alarm; id != "" && !slices.Contains(t.alarm, id) {
			if in := p.AlarmInput(id); in != nil && in.Recorder == c.Recorder {
				t.alarm = append(t.alarm, id)
			}
		}
	}
	return t
}

// naming tells which picture or contact of a device is which of the plan.
type naming struct {
	channels map[string]string // tokens by id
	inputs   map[string]string
}

func namingOf(p *plan.Plan, t Target, d *Device) naming {
	n := naming{make(map[string]string), make(map[string]string)}
	for _, pair := range Match(p, t, d) {
		if pair.Planned != nil && pair.Read != nil {
			n.channels[pair.Planned.ID] = pair.Read.Token
		}
	}
	k := 0
	for i := range p.AlarmInputs {
		if in := &p.AlarmInputs[i]; in.Recorder == t.Recorder && t.Channel == "" && k < len(d.Inputs) {
			n.inputs[in.ID] = d.Inputs[k].Token
			k++
		}
	}
	return n
}

// name puts into layers whose events they are recorded around.
func (n naming) name(layers []Layer, t *tied) {
	for i := range layers {
		l := &layers[i]
		l.By, l.untied = nil, nil
		for _, on := range l.On {
			before := len(l.By)
			ids, tokens := t.motion, n.channels
			if on == plan.Alarm {
				ids, tokens = t.alarm, n.inputs
			}
			for _, id := range ids {
				if token := tokens[id]; token != "" {
					l.By = append(l.By, string(on)+" "+token)
				}
			}
			if len(l.By) == before {
				l.untied = append(l.untied, on)
			}
		}
		slices.Sort(l.By)
	}
}

// asItMatters are wanted layers beside those of a device: events that never come are wanted where the device has them, and are not
// where it has not.
func asItMatters(wanted, is []Layer) (out []Layer) {
	for i := range wanted {
		l := wanted[i]
		l.On = nil
		for _, on := range wanted[i].On {
			has := slices.ContainsFunc(is, func(d Layer) bool { return d.Stream == l.Stream && slices.Contains(d.On, on) })
			if has || !slices.Contains(l.untied, on) {
				l.On = append(l.On, on)
			}
		}
		if len(l.On) > 0 || len(wanted[i].On) == 0 {
			out = append(out, l)
		}
	}
	return out
}

// heard is whose events of a kind a channel records; told is false where the device does not say it of all its layers around such.
func heard(list []Layer, on plan.Trigger) (by []string, told bool) {
	told = true
	any := false
	for i := range list {
		l := &list[i]
		if !slices.Contains(l.On, on) {
			continue
		}
		any = true
		said := false
		for _, b := range l.By {
			if strings.HasPrefix(b, string(on)+" ") {
				said = true
				if !slices.Contains(by, b) {
					by = append(by, b)
				}
			}
		}
		told = told && said
	}
	slices.Sort(by)
	return by, told && any
}

// heardWords says whose events.
func (d *Device) heardWords(by []string) string {
	var parts []string
	for _, b := range by {
		_, token, _ := strings.Cut(b, " ")
		name := token
		for i := range d.Channels {
			if c := &d.Channels[i]; c.Token == token && c.Name != "" {
				name = "motion on " + c.Name
			}
		}
		for i := range d.Inputs {
			if d.Inputs[i].Token == token {
				name = "contact " + d.Inputs[i].Name
			}
		}
		parts = append(parts, name)
	}
	if len(parts) == 0 {
		return "nothing"
	}
	return strings.Join(parts, ", ")
}

// takeTies are the edits that make what records a channel what the device has.
func takeTies(p *plan.Plan, c *plan.Channel, r *Channel, n naming) (out []edit.Edit) {
	t := tiedTo(p, c)
	for _, of := range []struct {
		on     plan.Trigger
		ids    []string
		tokens map[string]string
		when   func(id string) plan.When
	}{{plan.Motion, t.motion, n.channels, func(id string) plan.When { return plan.When{Motion: id} }},
		{plan.Alarm, t.alarm, n.inputs, func(id string) plan.When { return plan.When{Alarm: id} }}} {
		by, told := heard(r.Layers, of.on)
		if !told {
			continue
		}
		for id, token := range of.tokens {
			has, is := slices.Contains(of.ids, id), slices.Contains(by, string(of.on)+" "+token)
			if id == c.ID && of.on == plan.Motion || has == is {
				continue
			}
			tie := plan.Effect{When: of.when(id), Record: []string{c.ID}}
			if is {
				out = append(out, edit.Edit{AddEffect: &edit.AddEffect{Effect: tie}})
			} else {
				out = append(out, edit.Edit{RemoveEffect: &edit.RemoveEffect{Effect: tie}})
			}
		}
	}
	slices.SortFunc(out, func(a, b edit.Edit) int { return strings.Compare(tieKey(a), tieKey(b)) })
	return out
}

func tieKey(e edit.Edit) string {
	if e.AddEffect != nil {
		return "+" + e.AddEffect.Effect.String()
	}
	return "-" + e.RemoveEffect.Effect.String()
}
