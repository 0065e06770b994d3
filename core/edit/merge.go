package edit

import (
	"encoding/json"
	"reflect"

	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// Merge makes edits that were made on base on a plan that has moved on from it. It
// succeeds where the edits and what changed since concern different things: other
// channels, other settings of a channel, other minutes of its week. What is written
// of a thing as a whole counts as a whole, so that no edit writes an old setting over
// a new one. ok is false where they meet, or the edits cannot be made any more.
func Merge(base, current *plan.Plan, edits []Edit) (done *Done, ok bool) {
	mine, err := Apply(base, edits...)
	if err != nil {
		return nil, false
	}
	done, err = Apply(current, edits...)
	if err != nil {
		return nil, false
	}
	theirs := changes(base, current)
	if changes(base, mine.Plan).meet(theirs) || changes(current, done.Plan).meet(theirs) {
		return nil, false
	}
	return done, true
}

// touched are the things that differ between two plans: settings of the members of
// its lists, and minutes of weeks.
type touched struct {
	settings map[string]map[string]bool // by list and id, then by setting; "" for the thing as such
	minutes  map[string][]week.Span
}

func (t touched) set(thing, setting string) {
	if t.settings[thing] == nil {
		t.settings[thing] = make(map[string]bool)
	}
	t.settings[thing][setting] = true
}

// meet tells whether two differences concern one thing.
func (t touched) meet(other touched) bool {
	for thing, settings := range t.settings {
		theirs := other.settings[thing]
		if len(theirs) > 0 && (settings[""] || theirs[""]) {
			return true
		}
		for setting := range settings {
			if theirs[setting] {
				return true
			}
		}
		if settings[""] && len(other.minutes[thing]) > 0 {
			return true
		}
	}
	for thing, spans := range t.minutes {
		if other.settings[thing][""] {
			return true
		}
		for _, a := range spans {
			for _, b := range other.minutes[thing] {
				if a.From < b.To && b.From < a.To {
					return true
				}
			}
		}
	}
	return false
}

// changes lists what differs between two plans, by the plan's own lists: a member that is
// added to the format is compared without being named here.
func changes(a, b *plan.Plan) touched {
	t := touched{make(map[string]map[string]bool), make(map[string][]week.Span)}
	c := &comparison{a, b, t}
	c.fields(whole, reflect.ValueOf(*a), reflect.ValueOf(*b))
	was := make(map[string]reflect.Value)
	a.EachThing(func(thing plan.Thing) bool {
		was[thing.Kind+" "+thing.Key] = thing.Value
		return true
	})
	b.EachThing(func(thing plan.Thing) bool {
		name := thing.Kind + " " + thing.Key
		if before, ok := was[name]; ok {
			c.fields(name, before, thing.Value)
		} else {
			t.set(name, "")
		}
		delete(was, name)
		return true
	})
	for gone := range was {
		t.set(gone, "")
	}
	return t
}

// whole is the plan itself as a thing that has settings.
const whole = "the plan"

// comparison compares two plans part by part.
type comparison struct {
	a, b *plan.Plan
	touched
}

// fields compares two structs member by member. Things that have a key are compared by
// themselves, weeks by the minute, what has no key entry by entry.
func (c *comparison) fields(thing string, a, b reflect.Value) {
	for i := range a.NumField() {
		field := a.Type().Field(i)
		was, is := a.Field(i), b.Field(i)
		switch holds := field.Tag.Get("holds"); {
		case holds == plan.AsWhole && field.Tag.Get("apart") != "":
			c.entries(field.Name, was, is)
			continue
		case holds != "" && holds != plan.AsWhole:
			continue
		}
		switch is := is.Interface().(type) {
		case plan.WeekRef:
			c.weeks(thing, was.Interface().(plan.WeekRef).In(c.a), is.In(c.b))
			continue
		case plan.OwnWeek:
			before := was.Interface().(plan.OwnWeek)
			c.weeks(thing, &before, &is)
			continue
		}
		if is.Kind() == reflect.Struct && thing == whole {
			c.fields(field.Name, was, is) // the site, setting by setting
			continue
		}
		switch is.Interface().(type) {
		case plan.Detection, *plan.Scene:
			c.parts(thing, field.Name, was, is)
			continue
		}
		if !reflect.DeepEqual(was.Interface(), is.Interface()) {
			c.set(thing, field.Name)
		}
	}
}

// parts compares what a setting consists of, member by member, and lists whose entries have an id entry by entry, so
// that two people can draw in one picture.
func (c *comparison) parts(thing, setting string, a, b reflect.Value) {
	if reflect.DeepEqual(a.Interface(), b.Interface()) {
		return
	}
	if a.Kind() == reflect.Pointer {
		if a.IsNil() || b.IsNil() {
			a, b = orZero(a), orZero(b)
		}
		a, b = a.Elem(), b.Elem()
	}
	switch {
	case a.Kind() == reflect.Struct:
		if areas, ok := a.Interface().(plan.Areas); ok && (areas.Count != nil || b.Interface().(plan.Areas).Count != nil) {
			c.set(thing, setting) // counted, or no longer
			return
		}
		for i := range a.NumField() {
			c.parts(thing, setting+" "+a.Type().Field(i).Name, a.Field(i), b.Field(i))
		}
	case a.Kind() == reflect.Slice && hasID(a.Type().Elem()):
		was := make(map[string]any)
		for i := range a.Len() {
			was[a.Index(i).FieldByName("ID").String()] = a.Index(i).Interface()
		}
		for i := range b.Len() {
			id := b.Index(i).FieldByName("ID").String()
			if before, ok := was[id]; !ok || !reflect.DeepEqual(before, b.Index(i).Interface()) {
				c.set(thing, setting+" "+id)
			}
			delete(was, id)
		}
		for gone := range was {
			c.set(thing, setting+" "+gone)
		}
	default:
		c.set(thing, setting)
	}
}

// orZero is a pointer, or where it is nil one to nothing said.
func orZero(p reflect.Value) reflect.Value {
	if p.IsNil() {
		return reflect.New(p.Type().Elem())
	}
	return p
}

func hasID(t reflect.Type) bool {
	if t.Kind() != reflect.Struct {
		return false
	}
	_, has := t.FieldByName("ID")
	return has
}

// entries compares lists whose entries have no key: each is a thing by what it says.
func (c *comparison) entries(list string, a, b reflect.Value) {
	said := func(v reflect.Value) map[string]int {
		out := make(map[string]int)
		for i := range v.Len() {
			for _, one := range apart(v.Index(i).Interface()) {
				text, err := json.Marshal(one)
				if err != nil {
					panic("edit: " + err.Error()) // parts of a plan can be written
				}
				out[string(text)]++
			}
		}
		return out
	}
	if reflect.DeepEqual(a.Interface(), b.Interface()) {
		return
	}
	before, after := said(a), said(b)
	for text, n := range after {
		if before[text] != n {
			c.set(list+" "+text, "")
		}
	}
	for text := range before {
		if after[text] == 0 {
			c.set(list+" "+text, "")
		}
	}
}

// apart takes an entry apart into what two people can change side by side: an effect into its ties.
func apart(entry any) (out []any) {
	effect, ok := entry.(plan.Effect)
	if !ok || effect.Idle() {
		return []any{entry}
	}
	for _, one := range effect.Single() {
		out = append(out, one)
	}
	return out
}

func (t touched) weeks(thing string, a, b *plan.OwnWeek) {
	if a == b || reflect.DeepEqual(a, b) {
		return
	}
	if spans := differing(a.Steps(), b.Steps()); spans != nil {
		t.minutes[thing] = spans
	}
}
