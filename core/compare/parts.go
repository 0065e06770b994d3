package compare

import (
	"encoding"
	"fmt"
	"reflect"
	"strings"

	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

var (
	ownWeek = reflect.TypeFor[plan.OwnWeek]()
	areas   = reflect.TypeFor[plan.Areas]()
)

// ofItsOwn says what differs in a member of a type that has words of its own; known is false for others.
func (c *comparer) ofItsOwn(ph phrase, a, b reflect.Value) (out []string, known bool) {
	switch was := a.Interface().(type) {
	case plan.WeekRef:
		return c.weekOf(was, b.Interface().(plan.WeekRef)), true
	case plan.OwnWeek:
		is := b.Interface().(plan.OwnWeek)
		return c.weeks(&was, &is), true
	case plan.HourList:
		return said(ph, hours(&was), hours(ptr(b.Interface().(plan.HourList)))), true
	case *plan.HourList:
		return said(ph, hours(was), hours(b.Interface().(*plan.HourList))), true
	case *plan.Areas:
		return c.areas(ph, was, b.Interface().(*plan.Areas)), true
	case []plan.RateBlock:
		return []string{"other hours"}, true // see rates, which tells them with the rate otherwise
	case []plan.DriveGroup:
		return said(ph, drives(was), drives(b.Interface().([]plan.DriveGroup))), true
	case []plan.DrivePrice:
		return said(ph, prices(was), prices(b.Interface().([]plan.DrivePrice))), true
	case []plan.SpecialDay:
		return days(was, b.Interface().([]plan.SpecialDay)), true
	}
	return nil, false
}

// member says what differs in a member of a struct, part by part.
func (c *comparer) member(of reflect.Type, m member, a, b reflect.Value) []string {
	ph := phrases[of.Name()+"."+m.name]
	if out, known := c.ofItsOwn(ph, a, b); known {
		return out
	}
	if ph.drawn {
		return []string{"drawn otherwise"}
	}
	if m.ref != "" {
		return said(ph, c.named(c.a, m.ref, a), c.named(c.b, m.ref, b))
	}
	if a.Kind() == reflect.Pointer && a.Type().Elem().Kind() == reflect.Struct && !isText(a.Type()) {
		switch {
		case a.IsNil():
			return []string{ph.what + " added"}
		case b.IsNil():
			return []string{"no " + ph.what + " any more"}
		}
		return under(ph.what, c.members(a.Elem(), b.Elem()))
	}
	switch a.Kind() {
	case reflect.Struct:
		if !isText(a.Type()) {
			return under(ph.what, c.members(a, b))
		}
	case reflect.Slice:
		if a.Type().Elem().Kind() == reflect.Struct {
			return c.entries(ph, a, b)
		}
	case reflect.Bool:
		return []string{switched(ph, b.Bool())}
	case reflect.Pointer:
		if a.Type().Elem().Kind() == reflect.Bool {
			return []string{switched(ph, b.IsNil() || b.Elem().Bool())} // absent for true
		}
	}
	return said(ph, ph.say(a), ph.say(b))
}

// members says what differs between two structs.
func (c *comparer) members(a, b reflect.Value) (out []string) {
	for _, m := range membersOf(a.Type()) {
		if was, is := a.FieldByIndex(m.index), b.FieldByIndex(m.index); !same(was, is) {
			out = append(out, c.member(a.Type(), m, was, is)...)
		}
	}
	return out
}

// entries says what differs between two lists of things that have an id.
func (c *comparer) entries(ph phrase, a, b reflect.Value) (out []string) {
	was := make(map[string]reflect.Value)
	for i := range a.Len() {
		was[keyOf(a.Index(i))] = a.Index(i)
	}
	for i := range b.Len() {
		is := b.Index(i)
		name := ph.what + " " + nameOf(is)
		if before, ok := was[keyOf(is)]; !ok {
			out = append(out, name+" added")
		} else if !same(before, is) {
			out = append(out, under(name, c.members(before, is))...)
		}
		delete(was, keyOf(is))
	}
	for i := range a.Len() {
		if v := a.Index(i); was[keyOf(v)].IsValid() {
			out = append(out, "no "+ph.what+" "+nameOf(v)+" any more")
		}
	}
	return out
}

func (c *comparer) areas(ph phrase, a, b *plan.Areas) []string {
	count := func(x *plan.Areas) string {
		switch {
		case x == nil:
			return "not counted"
		case x.Count != nil:
			return fmt.Sprint(*x.Count)
		}
		return fmt.Sprint(len(x.List), " drawn")
	}
	if a == nil || b == nil || a.Count != nil || b.Count != nil {
		return said(ph, count(a), count(b))
	}
	return c.entries(phrase{what: "area"}, reflect.ValueOf(a.List), reflect.ValueOf(b.List))
}

// named is what is named by an id, or by several.
func (c *comparer) named(p *plan.Plan, kind string, v reflect.Value) string {
	if v.Kind() == reflect.Slice {
		var names []string
		for i := range v.Len() {
			names = append(names, c.named(p, kind, v.Index(i)))
		}
		return strings.Join(names, ", ")
	}
	id := v.String()
	name := id
	if o := p.Object(id); kind == "object" && o != nil {
		return o.Name
	}
	p.EachThing(func(t plan.Thing) bool {
		if t.Kind == kind && t.Key == id {
			name = nameOf(t.Value)
		}
		return name == id
	})
	return name
}

func isText(t reflect.Type) bool {
	text := reflect.TypeFor[encoding.TextMarshaler]()
	return t.Implements(text) || reflect.PointerTo(t).Implements(text)
}

// said is one value in the place of another.
func said(ph phrase, was, is string) []string {
	absent := ph.absent
	if absent == "" {
		absent = "none"
	}
	if was == "" {
		was = absent
	}
	if is == "" {
		is = absent
	}
	if was == is {
		return nil
	}
	return []string{ph.what + " " + is + " instead of " + was}
}

func switched(ph phrase, on bool) string {
	if on {
		return ph.on
	}
	return ph.off
}

// say is a value in words; nothing where nothing is said.
func (ph phrase) say(v reflect.Value) string {
	if v.Kind() == reflect.Pointer {
		if v.IsNil() {
			return ""
		}
		if !isText(v.Type()) {
			v = v.Elem()
		}
	} else if v.IsZero() {
		return ""
	}
	text := ""
	switch x := v.Interface().(type) {
	case encoding.TextMarshaler:
		b, _ := x.MarshalText()
		text = string(b)
	case float64:
		text = plan.Say("%v", x)
	default:
		text = fmt.Sprint(x)
	}
	if v.Kind() == reflect.Slice {
		text = plan.InList(strings.Fields(strings.Trim(text, "[]")))
	}
	if ph.names != nil {
		text = ph.names.Name(text)
	}
	if ph.unit != "" {
		text += " " + ph.unit
	}
	return text
}

// under says of what some differences are.
func under(what string, parts []string) []string {
	if what == "" || len(parts) == 0 {
		return parts
	}
	return []string{what + ": " + strings.Join(parts, ", ")}
}

func ptr[T any](v T) *T { return &v }

// hours are hours in words; nothing for always.
func hours(h *plan.HourList) string {
	if h == nil {
		return "always"
	}
	return plan.HoursInWords(h.Blocks)
}

func drives(list []plan.DriveGroup) string {
	var parts []string
	for _, d := range list {
		s := plan.Say("%d × %v TB", d.Count, d.Terabytes)
		if d.YearlyTB > 0 {
			s += plan.Say(" rated %v TB a year", d.YearlyTB)
		}
		parts = append(parts, s)
	}
	return plan.InList(parts)
}

func prices(list []plan.DrivePrice) string {
	var parts []string
	for _, d := range list {
		parts = append(parts, plan.Say("%v TB at %v", d.Terabytes, d.Each))
	}
	return strings.Join(parts, ", ")
}

// days says which special days come and go.
func days(a, b []plan.SpecialDay) (out []string) {
	there := func(list []plan.SpecialDay, d plan.SpecialDay) bool {
		for _, x := range list {
			if reflect.DeepEqual(x, d) {
				return true
			}
		}
		return false
	}
	for _, d := range b {
		if !there(a, d) {
			out = append(out, "special day "+d.Name+" from "+d.From.String())
		}
	}
	for _, d := range a {
		if !there(b, d) {
			out = append(out, "no special day "+d.Name+" from "+d.From.String()+" as it was")
		}
	}
	if out == nil {
		out = []string{"special days in another order"}
	}
	return out
}

// rates says how an activity's rate differs over the week.
func rates(a, b *plan.Activity) []string {
	was, is := a.Rates(), b.Rates()
	differ := week.Map(week.Both(was, is), func(p week.Pair[float64, float64]) bool { return p.A != p.B })
	if differ.Share(func(on bool) bool { return on }) == 0 {
		return []string{"rates written otherwise, the same at every hour"}
	}
	daily := func(s week.Steps[float64]) float64 {
		sum := 0.0
		for run, v := range s.Runs() {
			sum += v * float64(run.Minutes()) / 60 / 7
		}
		return sum
	}
	return []string{plan.Say("%.3g events a day instead of %.3g, other %s", daily(is), daily(was), plan.HoursInWords(plan.HoursWhere(differ)))}
}
