package plan

import (
	"reflect"
	"slices"
	"strconv"
	"strings"
	"sync"
)

// member is one JSON member of a struct.
type member struct {
	name     string
	index    []int
	required bool
	tag      reflect.StructTag
	typ      reflect.Type
	limits   map[string]float64
	enum     []string
}

// variant says which members go with one value of the member that tells a struct's
// kind, and which may.
type variant struct {
	kind     string
	members  []string
	optional []string
}

// allows tells whether a member may stand beside the kind.
func (v variant) allows(name string) bool {
	return slices.Contains(v.members, name) || slices.Contains(v.optional, name)
}

// A choice has exactly one of some members; a variety has the members that go with
// its kind and no others. Both are declared beside the struct they limit, and
// enforced by the reader as well as published in the schema.
type choice interface{ exactlyOne() []string }

// A selection has at least one of some members, and no two of others.
type selection interface{ someOf() (some, apart []string) }

type variety interface{ variants() (string, []variant) }

var memberCache sync.Map // reflect.Type → []member

// orderedMembers lists the JSON members of a struct type, embedded ones in place.
func orderedMembers(t reflect.Type) []member {
	if m, ok := memberCache.Load(t); ok {
		return m.([]member)
	}
	var out []member
	for i := range t.NumField() {
		f := t.Field(i)
		if f.Anonymous {
			for _, m := range orderedMembers(f.Type) {
				m.index = append([]int{i}, m.index...)
				out = append(out, m)
			}
			continue
		}
		name, options, _ := strings.Cut(f.Tag.Get("json"), ",")
		m := member{
			name:     name,
			index:    f.Index,
			required: !strings.Contains(options, "omit"),
			tag:      f.Tag,
			typ:      f.Type,
			limits:   limitsOf(f.Tag),
		}
		if list, ok := f.Tag.Lookup("enum"); ok {
			m.enum = strings.Split(list, ",")
		}
		out = append(out, m)
	}
	memberCache.Store(t, out)
	return out
}

// limitsOf reads the numeric limits of a tag. Tags are constants of this package, so
// one that is no number is a mistake in it.
func limitsOf(tag reflect.StructTag) map[string]float64 {
	var out map[string]float64
	for _, name := range []string{"minimum", "maximum", "exclusiveMinimum", "minLength", "maxLength", "minItems", "maxItems"} {
		text, ok := tag.Lookup(name)
		if !ok {
			continue
		}
		limit, err := strconv.ParseFloat(text, 64)
		if err != nil {
			panic("plan: tag " + name + ": " + err.Error())
		}
		if out == nil {
			out = make(map[string]float64)
		}
		out[name] = limit
	}
	return out
}

func membersOf(t reflect.Type) map[string]member {
	byName := make(map[string]member)
	for _, m := range orderedMembers(t) {
		byName[m.name] = m
	}
	return byName
}

// checkShape enforces choices and varieties on a struct whose members seen were
// given.
func checkShape(path string, v reflect.Value, seen map[string]bool) error {
	if c, ok := v.Interface().(choice); ok {
		names := c.exactlyOne()
		n := 0
		for _, name := range names {
			if seen[name] {
				n++
			}
		}
		if n != 1 {
			last := len(names) - 1
			return Wrong(path, "wants exactly one of %s and %s", strings.Join(names[:last], ", "), names[last])
		}
	}
	if c, ok := v.Interface().(selection); ok {
		some, apart := c.someOf()
		if !slices.ContainsFunc(some, func(name string) bool { return seen[name] }) {
			return Wrong(path, "wants at least one of %s", strings.Join(some, ", "))
		}
		if n := len(slices.DeleteFunc(apart, func(name string) bool { return !seen[name] })); n > 1 {
			_, apart := c.someOf()
			return Wrong(path, "wants one of %s at most", strings.Join(apart, " and "))
		}
	}
	if kinds, ok := v.Interface().(variety); ok {
		by, variants := kinds.variants()
		kind := v.FieldByIndex(membersOf(v.Type())[by].index).String()
		i := slices.IndexFunc(variants, func(c variant) bool { return c.kind == kind })
		if i < 0 {
			return nil // the list of values says so better
		}
		for _, name := range variants[i].members {
			if !seen[name] {
				return Wrong(join(path, name), "missing; %s %s needs it", by, kind)
			}
		}
		for name := range seen {
			if name != by && !variants[i].allows(name) {
				return Wrong(join(path, name), "does not go with %s %s", by, kind)
			}
		}
	}
	return nil
}

// Members lists the paths of all members of the format, such as
// "channels.detection.catch", in the order of the document.
func Members() []string {
	var out []string
	eachMember(func(path string, _ member) { out = append(out, path) })
	return out
}

// eachMember calls f with every member of the format and its path.
func eachMember(f func(path string, m member)) {
	var walk func(path string, t reflect.Type)
	walk = func(path string, t reflect.Type) {
		for t.Kind() == reflect.Pointer || t.Kind() == reflect.Slice {
			t = t.Elem()
		}
		if e, ok := reflect.New(t).Interface().(either); ok {
			t = reflect.TypeOf(e.begin()).Elem()
		}
		if t == areasType {
			t = reflect.TypeFor[Area]()
		}
		if t.Kind() != reflect.Struct || reflect.PointerTo(t).Implements(textType) {
			return
		}
		for _, m := range orderedMembers(t) {
			f(join(path, m.name), m)
			walk(join(path, m.name), m.typ)
		}
	}
	walk("", reflect.TypeFor[Plan]())
}

// MembersUsed lists the members that a plan gives a value other than zero.
func MembersUsed(p *Plan) []string {
	var out []string
	var walk func(path string, v reflect.Value)
	walk = func(path string, v reflect.Value) {
		if v.CanAddr() {
			if e, ok := v.Addr().Interface().(either); ok {
				v = reflect.ValueOf(e.object())
			}
		}
		if v.Type() == areasType {
			v = v.FieldByName("List")
		}
		switch {
		case v.Kind() == reflect.Pointer:
			if !v.IsNil() {
				walk(path, v.Elem())
			}
			return
		case v.Kind() == reflect.Slice:
			for i := range v.Len() {
				walk(path, v.Index(i))
			}
			return
		case v.Kind() != reflect.Struct || reflect.PointerTo(v.Type()).Implements(textType):
			return
		}
		for _, m := range orderedMembers(v.Type()) {
			if f := v.FieldByIndex(m.index); !f.IsZero() {
				out = append(out, join(path, m.name))
				walk(join(path, m.name), f)
			}
		}
	}
	walk("", reflect.ValueOf(p).Elem())
	return out
}
