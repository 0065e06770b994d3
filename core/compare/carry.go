package compare

import (
	"cmp"
	"reflect"
	"slices"

	"wakefield.example/core/document"
	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
)

// Carry are the edits that give a plan parts of another: settings as they are there, things that it does not have, together
// with what they name and it does not have either; and those that the other does not have go. A part that is in neither is a
// [*document.Error], as is one that is in both as it is.
func Carry(to, from *plan.Plan, parts []Part) ([]edit.Edit, error) {
	c := &carrier{to: to, from: from, done: make(map[string]reflect.Value), kinds: make(map[string]string), gone: make(map[string][]string)}
	for i, p := range parts {
		if err := c.part(p); err != nil {
			return nil, document.Within(plan.Say("parts[%d]", i), err)
		}
	}
	edits := c.edits
	// Recorders are set with the pools that they have, so they come before pools are; camera kinds take channels along, so they
	// come before channels are.
	slices.SortStableFunc(c.order, func(a, b string) int {
		rank := func(name string) int {
			switch c.kinds[name] {
			case "recorder":
				return 0
			case "camera kind":
				return 1
			}
			return 2
		}
		return cmp.Compare(rank(a), rank(b))
	})
	for _, key := range c.order {
		edits = append(edits, setters[c.kinds[key]](c, c.done[key]))
		if kind, ok := c.done[key].Interface().(plan.Kind); ok {
			edits = append(edits, c.unmoved(kind)...)
		}
	}
	for _, kind := range goingOrder {
		for _, key := range c.gone[kind] {
			edits = append(edits, removers[kind](key))
		}
	}
	edits = append(edits, c.last...)
	if len(edits) == 0 {
		return nil, document.Wrong("parts", "empty")
	}
	return edits, nil
}

// carrier gathers what is carried: things that are set, in an order in which what they name comes before them, and what is
// done before and after.
type carrier struct {
	to, from *plan.Plan
	done     map[string]reflect.Value // by kind and key
	kinds    map[string]string
	order    []string
	edits    []edit.Edit
	gone     map[string][]string // keys of what goes, by kind
	last     []edit.Edit
}

// unmoved are the edits that give channels back what a camera kind takes along, where the two plans have it alike: nobody asked
// for it to be another.
func (c *carrier) unmoved(kind plan.Kind) (edits []edit.Edit) {
	moved, err := edit.After(c.to, edit.Edit{SetKind: &edit.SetKind{Kind: kind}})
	if err != nil {
		return nil // the edits are refused for it
	}
	for i := range c.to.Channels {
		here, then := &c.to.Channels[i], &moved.Channels[i]
		there := c.from.Channel(here.ID)
		if here.Kind != kind.ID || there == nil {
			continue
		}
		for _, which := range []plan.StreamName{plan.Main, plan.Sub, plan.Third} {
			mine := here.Streams.Get(which)
			if reflect.DeepEqual(mine, there.Streams.Get(which)) && !reflect.DeepEqual(mine, then.Streams.Get(which)) {
				edits = append(edits, edit.Edit{SetStream: &edit.SetStream{Channels: []string{here.ID}, Stream: which, Settings: mine}})
			}
		}
		if here.AudioKbps == there.AudioKbps && here.AudioKbps != then.AudioKbps {
			edits = append(edits, edit.Edit{SetAudio: &edit.SetAudio{Channels: []string{here.ID}, AudioKbps: here.AudioKbps}})
		}
	}
	return edits
}

// goingOrder is the order in which things go: what names others before what is named.
var goingOrder = []string{"channel", "alarm input", "call button", "message", "output", "monitor", "pool", "recorder", "week", "duty",
	"activity", "object", "camera kind"}

func (c *carrier) part(p Part) error {
	switch p.Kind {
	case "site":
		return c.site(p.Member)
	case "plan":
		return c.plan(p.Member)
	case "tie":
		return c.tie(p.Key)
	case "acceptance":
		return c.acceptance(p.Key)
	}
	if setters[p.Kind] == nil {
		return document.Wrong("kind", "no such kind %q", p.Kind)
	}
	there, ok := thing(c.from, p.Kind, p.Key)
	here, has := thing(c.to, p.Kind, p.Key)
	switch {
	case !ok && !has:
		return document.Wrong("key", "no %s %q in either plan", p.Kind, p.Key)
	case !ok:
		c.gone[p.Kind] = append(c.gone[p.Kind], p.Key)
		return nil
	case !has || p.Member == "":
		c.put(p.Kind, p.Key, copyOf(there))
		return nil
	}
	name := p.Kind + " " + p.Key
	at, begun := c.done[name]
	if !begun {
		at = copyOf(here)
	}
	found := false
	for _, m := range membersOf(at.Type()) {
		if slices.Contains(p.members(), m.name) {
			at.FieldByIndex(m.index).Set(there.FieldByIndex(m.index))
			found = true
		}
	}
	if !found {
		return document.Wrong("member", "a %s has no %q", p.Kind, p.Member)
	}
	c.put(p.Kind, p.Key, at)
	return nil
}

// put sets a thing, after what it names and the plan does not have.
func (c *carrier) put(kind, key string, v reflect.Value) {
	name := kind + " " + key
	if _, begun := c.done[name]; begun {
		c.done[name] = v
		return
	}
	c.done[name] = v // before what it names, so that nothing is looked at twice
	c.bring(v.Addr().Interface())
	c.kinds[name] = kind
	c.order = append(c.order, name)
}

// bring sets what a pointer leads to names, where only the other plan has it.
func (c *carrier) bring(v any) {
	plan.MentionsIn(v, func(m plan.Mention) bool {
		for _, id := range m.Keys() {
			if _, here := thing(c.to, m.Kind, id); !here && setters[m.Kind] != nil {
				if there, ok := thing(c.from, m.Kind, id); ok {
					c.put(m.Kind, id, copyOf(there))
				}
			}
		}
		return true
	})
}

func copyOf(v reflect.Value) reflect.Value {
	out := reflect.New(v.Type()).Elem()
	out.Set(v)
	return out
}

func thing(p *plan.Plan, kind, key string) (found reflect.Value, ok bool) {
	p.EachThing(func(t plan.Thing) bool {
		if t.Kind == kind && t.Key == key {
			found, ok = t.Value, true
		}
		return !ok
	})
	return found, ok
}

func (c *carrier) site(member string) error {
	site := &c.from.Site
	switch member {
	case "name":
		c.edits = append(c.edits, edit.Edit{SetSite: &edit.SetSite{Name: &site.Name}})
	case "customer":
		c.edits = append(c.edits, edit.Edit{SetSite: &edit.SetSite{Customer: &site.Customer}})
	case "address":
		c.edits = append(c.edits, edit.Edit{SetSite: &edit.SetSite{Address: &site.Address}})
	case "contact":
		c.edits = append(c.edits, edit.Edit{SetSite: &edit.SetSite{Contact: &site.Contact}})
	case "notes":
		c.edits = append(c.edits, edit.Edit{SetSite: &edit.SetSite{Notes: &site.Notes}})
	case "wording":
		c.edits = append(c.edits, edit.Edit{SetSite: &edit.SetSite{Wording: &site.Wording}})
	case "timeZone":
		c.edits = append(c.edits, edit.Edit{SetSite: &edit.SetSite{TimeZone: &site.TimeZone}})
	case "specialDays":
		for _, d := range site.SpecialDays {
			if there, ok := thing(c.from, "week", d.Week); ok && c.to.Week(d.Week) == nil {
				c.put("week", d.Week, copyOf(there))
			}
		}
		c.last = append(c.last, edit.Edit{SetSpecialDays: &edit.SetSpecialDays{Days: append([]plan.SpecialDay{}, site.SpecialDays...)}})
	default:
		return document.Wrong("member", "a site has no %q", member)
	}
	return nil
}

func (c *carrier) plan(member string) error {
	switch member {
	case "offsite":
		c.edits = append(c.edits, edit.Edit{SetOffsite: &edit.SetOffsite{Offsite: c.from.Offsite}})
	case "prices":
		c.edits = append(c.edits, edit.Edit{SetPrices: &edit.SetPrices{Prices: c.from.Prices}})
	default:
		return document.Wrong("member", "a plan has no %q", member)
	}
	return nil
}

func (c *carrier) tie(key string) error {
	if one := tieOf(c.from, key); one != nil {
		c.bring(one)
		c.last = append(c.last, edit.Edit{AddEffect: &edit.AddEffect{Effect: *one}})
		return nil
	}
	one := tieOf(c.to, key)
	if one == nil {
		return document.Wrong("key", "no such tie in either plan")
	}
	c.edits = append(c.edits, edit.Edit{RemoveEffect: &edit.RemoveEffect{Effect: *one}})
	return nil
}

func (c *carrier) acceptance(key string) error {
	if there, ok := thing(c.from, "acceptance", key); ok {
		c.last = append(c.last, edit.Edit{AcceptFinding: &edit.AcceptFinding{Accepted: there.Interface().(plan.Accepted)}})
		return nil
	}
	c.last = append(c.last, edit.Edit{ReopenFinding: &edit.ReopenFinding{Finding: key}})
	return nil
}

// setters are the edits that set a thing of a kind as it is.
var setters = map[string]func(c *carrier, v reflect.Value) edit.Edit{
	"camera kind": func(_ *carrier, v reflect.Value) edit.Edit {
		return edit.Edit{SetKind: &edit.SetKind{Kind: v.Interface().(plan.Kind)}}
	},
	"duty": func(_ *carrier, v reflect.Value) edit.Edit {
		return edit.Edit{SetDuty: &edit.SetDuty{Duty: v.Interface().(plan.Duty)}}
	},
	"week": func(_ *carrier, v reflect.Value) edit.Edit {
		return edit.Edit{SetWeek: &edit.SetWeek{Week: v.Interface().(plan.Week)}}
	},
	"activity": func(_ *carrier, v reflect.Value) edit.Edit {
		return edit.Edit{SetActivity: &edit.SetActivity{Activity: v.Interface().(plan.Activity)}}
	},
	"object": func(_ *carrier, v reflect.Value) edit.Edit {
		return edit.Edit{SetObject: &edit.SetObject{Object: v.Interface().(plan.Object)}}
	},
	"recorder": func(_ *carrier, v reflect.Value) edit.Edit {
		return edit.Edit{SetRecorder: &edit.SetRecorder{Recorder: v.Interface().(plan.Recorder)}}
	},
	"pool": func(c *carrier, v reflect.Value) edit.Edit {
		pool := v.Interface().(plan.Pool)
		of := ""
		for _, p := range []*plan.Plan{c.from, c.to} { // where it is in the plan it is carried to, if it is there
			for i := range p.Recorders {
				if slices.ContainsFunc(p.Recorders[i].Pools, func(x plan.Pool) bool { return x.ID == pool.ID }) {
					of = p.Recorders[i].ID
				}
			}
		}
		return edit.Edit{SetPool: &edit.SetPool{Recorder: of, Pool: pool}}
	},
	"channel": func(_ *carrier, v reflect.Value) edit.Edit {
		return edit.Edit{SetChannel: &edit.SetChannel{Channel: v.Interface().(plan.Channel)}}
	},
	"alarm input": func(_ *carrier, v reflect.Value) edit.Edit {
		return edit.Edit{SetAlarmInput: &edit.SetAlarmInput{AlarmInput: v.Interface().(plan.AlarmInput)}}
	},
	"call button": func(_ *carrier, v reflect.Value) edit.Edit {
		return edit.Edit{SetCallButton: &edit.SetCallButton{CallButton: v.Interface().(plan.CallButton)}}
	},
	"message": func(_ *carrier, v reflect.Value) edit.Edit {
		return edit.Edit{SetMessage: &edit.SetMessage{Message: v.Interface().(plan.Message)}}
	},
	"output": func(_ *carrier, v reflect.Value) edit.Edit {
		return edit.Edit{SetOutput: &edit.SetOutput{Output: v.Interface().(plan.Output)}}
	},
	"monitor": func(_ *carrier, v reflect.Value) edit.Edit {
		return edit.Edit{SetMonitor: &edit.SetMonitor{Monitor: v.Interface().(plan.Monitor)}}
	},
}

// removers are the edits that remove a thing of a kind.
var removers = map[string]func(key string) edit.Edit{
	"camera kind": func(key string) edit.Edit { return edit.Edit{RemoveKind: &edit.RemoveKind{Kind: key}} },
	"duty":        func(key string) edit.Edit { return edit.Edit{RemoveDuty: &edit.RemoveDuty{Duty: key}} },
	"week":        func(key string) edit.Edit { return edit.Edit{RemoveWeek: &edit.RemoveWeek{Week: key}} },
	"activity":    func(key string) edit.Edit { return edit.Edit{RemoveActivity: &edit.RemoveActivity{Activity: key}} },
	"object":      func(key string) edit.Edit { return edit.Edit{RemoveObject: &edit.RemoveObject{Object: key}} },
	"recorder":    func(key string) edit.Edit { return edit.Edit{RemoveRecorder: &edit.RemoveRecorder{Recorder: key}} },
	"pool":        func(key string) edit.Edit { return edit.Edit{RemovePool: &edit.RemovePool{Pool: key}} },
	"channel": func(key string) edit.Edit {
		return edit.Edit{RemoveChannels: &edit.RemoveChannels{Channels: []string{key}}}
	},
	"alarm input": func(key string) edit.Edit {
		return edit.Edit{RemoveAlarmInput: &edit.RemoveAlarmInput{AlarmInput: key}}
	},
	"call button": func(key string) edit.Edit {
		return edit.Edit{RemoveCallButton: &edit.RemoveCallButton{CallButton: key}}
	},
	"message": func(key string) edit.Edit { return edit.Edit{RemoveMessage: &edit.RemoveMessage{Message: key}} },
	"output":  func(key string) edit.Edit { return edit.Edit{RemoveOutput: &edit.RemoveOutput{Output: key}} },
	"monitor": func(key string) edit.Edit { return edit.Edit{RemoveMonitor: &edit.RemoveMonitor{Monitor: key}} },
}
