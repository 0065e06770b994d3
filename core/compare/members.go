package compare

import (
	"reflect"
	"strings"
)

// member is a JSON member of a struct.
type member struct {
	name  string
	index []int
	holds string
	ref   string
}

// membersOf are the members of a struct, those of embedded structs in place; weeks are compared as a whole.
func membersOf(t reflect.Type) (out []member) {
	for i := range t.NumField() {
		f := t.Field(i)
		if f.Anonymous && f.Tag.Get("json") == "" {
			if f.Type == ownWeek {
				out = append(out, member{name: "week", index: f.Index})
				continue
			}
			for _, m := range membersOf(f.Type) {
				m.index = append([]int{i}, m.index...)
				out = append(out, m)
			}
			continue
		}
		name, _, _ := strings.Cut(f.Tag.Get("json"), ",")
		if name == "" || name == "-" || name == "id" {
			continue
		}
		out = append(out, member{name, f.Index, f.Tag.Get("holds"), f.Tag.Get("ref")})
	}
	return out
}

// keyOf is what tells an entry of a list apart: its id, or what says that it does.
func keyOf(v reflect.Value) string {
	if f := v.FieldByName("ID"); f.IsValid() {
		return f.String()
	}
	for i := range v.NumField() {
		if v.Type().Field(i).Tag.Get("key") != "" {
			return v.Field(i).String()
		}
	}
	panic("compare: entries of " + v.Type().String() + " have no key")
}

// nameOf is what people call an entry of a list.
func nameOf(v reflect.Value) string {
	if f := v.FieldByName("Name"); f.IsValid() {
		return f.String()
	}
	return keyOf(v)
}
