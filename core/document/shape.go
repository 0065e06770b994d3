package document

import (
	"encoding/json"
	"reflect"
	"slices"
	"strings"
)

// What a struct's members may be together is declared by methods beside the struct, enforced by the reader and published
// in the schema.

// A Choice has exactly one of some members.
type Choice interface{ ExactlyOne() []string }

// A Selection has at least one of some members, and no two of others.
type Selection interface{ SomeOf() (some, apart []string) }

// A Variety has the members that go with its kind and no others. The first result names the member that tells the kind.
type Variety interface{ Variants() (string, []Variant) }

// Variant says which members go with one value of the member that tells a struct's kind, and which may.
type Variant struct {
	Kind     string
	Members  []string
	Optional []string
}

// allows tells whether a Member may stand beside the kind.
func (v Variant) allows(name string) bool {
	return slices.Contains(v.Members, name) || slices.Contains(v.Optional, name)
}

// An Either is written as a text, which names a thing, or as an object.
type Either interface {
	Text() (text *string, kind string) // nil for an object
	Object() any                       // a pointer to the object; nil for a text
	Begin() any                        // makes it an object, and returns that
	Meaning() (text, object string)    // what they are, for the schema and for errors
}

// A Holder is written in a way of its own; what has members, and limits to be checked, is what it holds.
type Holder interface{ Holds() any } // a pointer

// A Source reads itself from the value that begins with a token.
type Source interface {
	ReadFrom(r *Reader, path string, token json.Token) error
}

// A Checked has limits that no tag can say.
type Checked interface{ CheckAt(path string) error }

// A Described writes its schema itself, with those of other types.
type Described interface {
	Schema(of func(reflect.Type) Object) Object
}

// checkShape enforces choices and varieties on a struct of which the members were given whose places are true.
func checkShape(path string, v reflect.Value, given []bool) error {
	f := formOf(v.Type())
	if !f.shaped {
		return nil
	}
	seen := func(name string) bool { return given[f.at[name]] }
	if c, ok := v.Interface().(Choice); ok {
		names := c.ExactlyOne()
		n := 0
		for _, name := range names {
			if seen(name) {
				n++
			}
		}
		if n != 1 {
			last := len(names) - 1
			return Wrong(path, "wants exactly one of %s and %s", strings.Join(names[:last], ", "), names[last])
		}
	}
	if c, ok := v.Interface().(Selection); ok {
		some, apart := c.SomeOf()
		if !slices.ContainsFunc(some, seen) {
			return Wrong(path, "wants at least one of %s", strings.Join(some, ", "))
		}
		if n := len(slices.DeleteFunc(apart, func(name string) bool { return !seen(name) })); n > 1 {
			_, apart := c.SomeOf()
			return Wrong(path, "wants one of %s at most", strings.Join(apart, " and "))
		}
	}
	if kinds, ok := v.Interface().(Variety); ok {
		by, variants := kinds.Variants()
		kind := v.FieldByIndex(f.members[f.at[by]].Index).String()
		i := slices.IndexFunc(variants, func(c Variant) bool { return c.Kind == kind })
		if i < 0 {
			return nil // the list of values says so better
		}
		variant := variants[i]
		for _, name := range variant.Members {
			if !seen(name) {
				return Wrong(Join(path, name), "missing; %s %s needs it", by, kind)
			}
		}
		for i, m := range f.members {
			if given[i] && m.Name != by && !variant.allows(m.Name) {
				return Wrong(Join(path, m.Name), "does not go with %s %s", by, kind)
			}
		}
	}
	return nil
}
