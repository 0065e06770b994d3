package edit

import (
	"reflect"

	"wakefield/core/plan"
	"wakefield/core/week"
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

// changes lists what differs between two plans.
func changes(a, b *plan.Plan) touched {
	t := touched{make(map[string]map[string]bool), make(map[string][]week.Span)}
	t.fields("site", reflect.ValueOf(a.Site), reflect.ValueOf(b.Site))
	if a.Name != b.Name {
		t.set("site", "plan name")
	}
	things(t, "kinds", a.Kinds, b.Kinds, func(k *plan.Kind) string { return k.ID })
	things(t, "duties", a.Duties, b.Duties, func(d *plan.Duty) string { return d.ID })
	things(t, "activities", a.Activities, b.Activities, func(x *plan.Activity) string { return x.ID })
	things(t, "recorders", a.Recorders, b.Recorders, func(r *plan.Recorder) string { return r.ID })
	things(t, "alarmInputs", a.AlarmInputs, b.AlarmInputs, func(x *plan.AlarmInput) string { return x.ID })
	things(t, "callButtons", a.CallButtons, b.CallButtons, func(x *plan.CallButton) string { return x.ID })
	things(t, "accepted", a.Accepted, b.Accepted, func(x *plan.Accepted) string { return x.Finding })
	things(t, "weeks", a.Weeks, b.Weeks, func(w *plan.Week) string { return w.ID })
	things(t, "channels", a.Channels, b.Channels, func(c *plan.Channel) string { return c.ID })
	if !reflect.DeepEqual(a.Effects, b.Effects) {
		t.set("effects", "")
	}
	for i := range b.Channels {
		c := &b.Channels[i]
		if was := a.Channel(c.ID); was != nil {
			t.weeks("channels "+c.ID, a.WeekOf(was), b.WeekOf(c))
		}
	}
	for i := range b.Weeks {
		if j := weekIndex(a, b.Weeks[i].ID); j >= 0 {
			t.weeks("weeks "+b.Weeks[i].ID, &a.Weeks[j].OwnWeek, &b.Weeks[i].OwnWeek)
		}
	}
	return t
}

// things compares two lists member by member; one that came or went differs as such.
func things[T any](t touched, list string, a, b []T, id func(*T) string) {
	was := make(map[string]*T, len(a))
	for i := range a {
		was[id(&a[i])] = &a[i]
	}
	for i := range b {
		thing := list + " " + id(&b[i])
		if before := was[id(&b[i])]; before == nil {
			t.set(thing, "")
		} else {
			t.fields(thing, reflect.ValueOf(*before), reflect.ValueOf(b[i]))
		}
		delete(was, id(&b[i]))
	}
	for gone := range was {
		t.set(list+" "+gone, "")
	}
}

// fields compares two structs member by member. Weeks are compared by the minute,
// elsewhere.
func (t touched) fields(thing string, a, b reflect.Value) {
	for i := range a.NumField() {
		switch a.Field(i).Interface().(type) {
		case plan.WeekRef, plan.OwnWeek:
			continue
		}
		if !reflect.DeepEqual(a.Field(i).Interface(), b.Field(i).Interface()) {
			t.set(thing, a.Type().Field(i).Name)
		}
	}
}

func (t touched) weeks(thing string, a, b *plan.OwnWeek) {
	if a == b || reflect.DeepEqual(a, b) {
		return
	}
	if spans := differing(a.Steps(), b.Steps()); spans != nil {
		t.minutes[thing] = spans
	}
}
