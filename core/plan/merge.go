package plan

import (
	"reflect"

	"wakefield/core/week"
)

// Merge makes edits that were made on base on a plan that has moved on from it. It
// succeeds where the edits and what changed since concern different things: other
// channels, other settings of a channel, other minutes of its week. What is written
// of a thing as a whole counts as a whole, so that no edit writes an old setting over
// a new one. ok is false where they meet, or the edits cannot be made any more.
func Merge(base, current *Plan, edits []Edit) (merged *Plan, ok bool) {
	mine, err := base.Apply(edits...)
	if err != nil {
		return nil, false
	}
	merged, err = current.Apply(edits...)
	if err != nil {
		return nil, false
	}
	theirs := changes(base, current)
	if changes(base, mine).meet(theirs) || changes(current, merged).meet(theirs) {
		return nil, false
	}
	return merged, true
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
func changes(a, b *Plan) touched {
	t := touched{make(map[string]map[string]bool), make(map[string][]week.Span)}
	t.fields("site", reflect.ValueOf(a.Site), reflect.ValueOf(b.Site))
	if a.Name != b.Name {
		t.set("site", "plan name")
	}
	things(t, "kinds", a.Kinds, b.Kinds, func(k *Kind) string { return k.ID })
	things(t, "duties", a.Duties, b.Duties, func(d *Duty) string { return d.ID })
	things(t, "activities", a.Activities, b.Activities, func(x *Activity) string { return x.ID })
	things(t, "recorders", a.Recorders, b.Recorders, func(r *Recorder) string { return r.ID })
	things(t, "alarmInputs", a.AlarmInputs, b.AlarmInputs, func(x *AlarmInput) string { return x.ID })
	things(t, "callButtons", a.CallButtons, b.CallButtons, func(x *CallButton) string { return x.ID })
	things(t, "accepted", a.Accepted, b.Accepted, func(x *Accepted) string { return x.Finding })
	things(t, "weeks", a.Weeks, b.Weeks, func(w *Week) string { return w.ID })
	things(t, "channels", a.Channels, b.Channels, func(c *Channel) string { return c.ID })
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
		if j := a.weekIndex(b.Weeks[i].ID); j >= 0 {
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
		case WeekRef, OwnWeek:
			continue
		}
		if !reflect.DeepEqual(a.Field(i).Interface(), b.Field(i).Interface()) {
			t.set(thing, a.Type().Field(i).Name)
		}
	}
}

func (t touched) weeks(thing string, a, b *OwnWeek) {
	if a == b || reflect.DeepEqual(a, b) {
		return
	}
	if spans := differing(a.Steps(), b.Steps()); spans != nil {
		t.minutes[thing] = spans
	}
}

// differing lists the stretches over which two schedules differ.
func differing(a, b week.Steps[string]) (out []week.Span) {
	for run, duty := range a.Runs() {
		for other, theirs := range b.Runs() {
			from, to := max(run.From, other.From), min(run.To, other.To)
			if from < to && duty != theirs {
				out = append(out, week.Span{From: from, To: to})
			}
		}
	}
	return out
}

// Repainted counts what differs between the weeks of two plans: the channels that do
// something else at some time, and the minutes of a week over which they do, all
// added up.
func Repainted(a, b *Plan) (channels int, minutes week.Minute) {
	for i := range b.Channels {
		c := &b.Channels[i]
		was := a.Channel(c.ID)
		if was == nil {
			continue
		}
		before, after := a.WeekOf(was), b.WeekOf(c)
		if before == after || reflect.DeepEqual(before, after) {
			continue
		}
		spans := differing(before.Steps(), after.Steps())
		for _, s := range spans {
			minutes += s.Minutes()
		}
		if spans != nil {
			channels++
		}
	}
	return channels, minutes
}
