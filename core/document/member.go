package document

import (
	"reflect"
	"strconv"
	"strings"
	"sync"
)

// Member is one JSON member of a struct.
type Member struct {
	Name     string
	Index    []int // of its field, for [reflect.Value.FieldByIndex]
	Required bool
	Tag      reflect.StructTag
	Type     reflect.Type
	limits   map[string]float64
	enum     []string
}

// Limit is a numeric limit of the member by the name of its tag, if it has one.
func (m Member) Limit(name string) (float64, bool) {
	f, ok := m.limits[name]
	return f, ok
}

// Limits are all its numeric limits by the names of their tags. They must not be changed.
func (m Member) Limits() map[string]float64 { return m.limits }

// Enum are the values that it, or each of its entries, may have; none where any is possible.
func (m Member) Enum() []string { return m.enum }

// form is what a type tells of its values, looked at once.
type form struct {
	text    bool // written as a text
	shaped  bool // has a say in which members go together
	members []Member
	at      map[string]int // where a member is among those, by its name
}

var forms sync.Map // reflect.Type → *form

func formOf(t reflect.Type) *form {
	if f, ok := forms.Load(t); ok {
		return f.(*form)
	}
	f := &form{text: reflect.PointerTo(t).Implements(textType), at: make(map[string]int)}
	for _, shape := range []reflect.Type{reflect.TypeFor[Choice](), reflect.TypeFor[Selection](), reflect.TypeFor[Variety]()} {
		f.shaped = f.shaped || t.Implements(shape)
	}
	if t.Kind() == reflect.Struct && !f.text {
		f.members = membersOf(t)
	}
	for i, m := range f.members {
		f.at[m.Name] = i
	}
	forms.Store(t, f)
	return f
}

// Members lists the JSON members of a struct type, embedded ones in place. The list must not be changed.
func Members(t reflect.Type) []Member { return formOf(t).members }

func membersOf(t reflect.Type) []Member {
	var out []Member
	for i := range t.NumField() {
		f := t.Field(i)
		if f.Anonymous {
			for _, m := range Members(f.Type) {
				m.Index = append([]int{i}, m.Index...)
				out = append(out, m)
			}
			continue
		}
		name, options, _ := strings.Cut(f.Tag.Get("json"), ",")
		m := Member{
			Name:     name,
			Index:    f.Index,
			Required: !strings.Contains(options, "omit"),
			Tag:      f.Tag,
			Type:     f.Type,
			limits:   limitsOf(f.Tag),
		}
		if list, ok := f.Tag.Lookup("enum"); ok {
			m.enum = strings.Split(list, ",")
		}
		out = append(out, m)
	}
	return out
}

// limitsOf reads the numeric limits of a tag. Tags are constants, so one that is no number is a mistake of who wrote it.
func limitsOf(tag reflect.StructTag) map[string]float64 {
	var out map[string]float64
	for _, name := range []string{"minimum", "maximum", "exclusiveMinimum", "minLength", "maxLength", "minItems", "maxItems"} {
		text, ok := tag.Lookup(name)
		if !ok {
			continue
		}
		limit, err := strconv.ParseFloat(text, 64)
		if err != nil {
			panic("document: tag " + name + ": " + err.Error())
		}
		if out == nil {
			out = make(map[string]float64)
		}
		out[name] = limit
	}
	return out
}

// EachMember calls f with every member of a type and of what is below it, in the order of the document, with its path:
// "channels.detection.catch".
func EachMember(t reflect.Type, f func(path string, m Member)) {
	var walk func(path string, t reflect.Type)
	walk = func(path string, t reflect.Type) {
		for t.Kind() == reflect.Pointer || t.Kind() == reflect.Slice {
			t = t.Elem()
		}
		switch v := reflect.New(t).Interface().(type) {
		case Either:
			t = reflect.TypeOf(v.Begin()).Elem()
		case Holder:
			walk(path, reflect.TypeOf(v.Holds()))
			return
		}
		if !hasMembers(t) {
			return
		}
		for _, m := range Members(t) {
			f(Join(path, m.Name), m)
			walk(Join(path, m.Name), m.Type)
		}
	}
	walk("", t)
}

// hasMembers tells whether a type is a struct that is not written as a text.
func hasMembers(t reflect.Type) bool { return t.Kind() == reflect.Struct && !formOf(t).text }

// Used lists the paths of the members of what a pointer leads to that have a value other than zero, once for each time
// that one has.
func Used(of any) []string {
	var out []string
	var walk func(path string, v reflect.Value)
	walk = func(path string, v reflect.Value) {
		if v.CanAddr() {
			switch e := v.Addr().Interface().(type) {
			case Either:
				v = reflect.ValueOf(e.Object())
			case Holder:
				v = reflect.ValueOf(e.Holds()).Elem()
			}
		}
		switch {
		case v.Kind() == reflect.Pointer:
			if !v.IsNil() {
				walk(path, v.Elem())
			}
		case v.Kind() == reflect.Slice:
			for i := range v.Len() {
				walk(path, v.Index(i))
			}
		case hasMembers(v.Type()):
			for _, m := range Members(v.Type()) {
				if f := v.FieldByIndex(m.Index); !f.IsZero() {
					out = append(out, Join(path, m.Name))
					walk(Join(path, m.Name), f)
				}
			}
		}
	}
	walk("", reflect.ValueOf(of).Elem())
	return out
}
