package edit

import (
	"reflect"
	"slices"

	"wakefield.example/core/document"
	"wakefield.example/core/plan"
)

// removal is things of one kind that go, and what is named in their place.
type removal struct {
	kind    string
	gone    func(key string) bool
	instead string // key of what takes their place; empty for nothing
	path    string // of the edit's member that an error is about
	advice  string // what can be done where something still names one of them
}

// from returns the plan without the things and without every mention of them: in a list
// they are left out, another takes their place where there is one, and what the plan says
// of the member decides the rest (see [plan.Goes]). Where a mention can neither go nor be
// another, the error says what it is in.
func (r removal) from(p *plan.Plan) (*plan.Plan, error) {
	next := *p
	if err := r.fields(reflect.ValueOf(&next).Elem()); err != nil {
		return nil, err
	}
	return &next, nil
}

// fields goes over the lists of a struct. They are written anew where they change, as the
// plan that is changed shares them.
func (r removal) fields(v reflect.Value) error {
	for i := range v.NumField() {
		f := v.Field(i)
		switch {
		case f.Kind() == reflect.Struct:
			if err := r.fields(f); err != nil {
				return err
			}
		case f.Kind() == reflect.Slice && f.Type().Elem().Kind() == reflect.Struct:
			holds := v.Type().Field(i).Tag.Get("holds") == r.kind
			if err := r.list(f, holds); err != nil {
				return err
			}
		}
	}
	return nil
}

func (r removal) list(list reflect.Value, holds bool) error {
	kept := reflect.MakeSlice(list.Type(), 0, list.Len())
	changed := false
	for i := range list.Len() {
		entry := list.Index(i)
		if holds && r.gone(entry.FieldByName("ID").String()) {
			changed = true
			continue
		}
		if !r.named(entry) {
			kept = reflect.Append(kept, entry)
			continue
		}
		changed = true
		own := clone(entry)
		stays, err := r.settle(own)
		if err != nil {
			return err
		}
		if stays {
			kept = reflect.Append(kept, own)
		}
	}
	if !changed {
		return nil
	}
	if kept.Len() == 0 {
		kept = reflect.Zero(list.Type())
		if list.Type() == reflect.TypeFor[[]plan.Channel]() {
			kept = reflect.MakeSlice(list.Type(), 0, 0) // a plan has a list of channels, if an empty one
		}
	}
	list.Set(kept)
	return nil
}

// named tells whether an entry names one of the things.
func (r removal) named(entry reflect.Value) (found bool) {
	plan.MentionsIn(entry.Addr().Interface(), func(m plan.Mention) bool {
		found = m.Kind == r.kind && slices.ContainsFunc(m.Keys(), r.gone)
		return !found
	})
	return found
}

// settle takes the things out of an entry that nobody else has. It tells whether the entry
// stays.
func (r removal) settle(entry reflect.Value) (stays bool, err error) {
	stays = true
	if err := r.nested(entry); err != nil {
		return false, err
	}
	plan.MentionsIn(entry.Addr().Interface(), func(m plan.Mention) bool {
		if m.Kind != r.kind || !slices.ContainsFunc(m.Keys(), r.gone) {
			return true
		}
		switch {
		case m.IsList():
			rest := slices.DeleteFunc(slices.Clone(m.Keys()), r.gone)
			m.Set(rest...)
			stays = stays && (len(rest) > 0 || m.Goes != plan.Leaves)
		case m.Goes == plan.Leaves:
			stays = false
		case r.instead != "":
			m.Set(r.instead)
		case m.Goes == plan.Clears:
			m.Set("")
		default:
			err = document.Wrong(r.path, "the %s names it; %s", m.In(), r.advice)
		}
		return err == nil
	})
	if e, ok := entry.Addr().Interface().(interface{ Idle() bool }); ok && e.Idle() {
		stays = false // nothing is left of what it was for
	}
	return stays, err
}

// nested takes out the entries that leave lists inside an entry, which stays without them.
func (r removal) nested(entry reflect.Value) error {
	for i := range entry.NumField() {
		if plan.Goes(entry.Type().Field(i).Tag.Get("goes")) == plan.Leaves && entry.Field(i).Kind() == reflect.Slice &&
			entry.Field(i).Type().Elem().Kind() == reflect.Struct {
			if err := r.list(entry.Field(i), false); err != nil {
				return err
			}
		}
	}
	return nil
}

// clone is a copy of a value, addressable, that shares nothing with it.
func clone(v reflect.Value) reflect.Value {
	out := reflect.New(v.Type()).Elem()
	out.Set(v)
	switch v.Kind() {
	case reflect.Pointer:
		if !v.IsNil() {
			out.Set(clone(v.Elem()).Addr())
		}
	case reflect.Slice:
		if !v.IsNil() {
			out.Set(reflect.MakeSlice(v.Type(), v.Len(), v.Len()))
			for i := range v.Len() {
				out.Index(i).Set(clone(v.Index(i)))
			}
		}
	case reflect.Struct:
		for i := range v.NumField() {
			if out.Field(i).CanSet() {
				out.Field(i).Set(clone(v.Field(i)))
			}
		}
	}
	return out
}

// is tells whether a key is one.
func is(one string) func(string) bool { return func(key string) bool { return key == one } }
