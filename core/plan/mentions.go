package plan

import (
	"encoding"
	"reflect"
	"sync"

	"wakefield.example/core/document"
)

// Mention is a place in a plan that names a thing by its key.
type Mention struct {
	Kind string // of the thing that is named
	// Goes says what becomes of the place when the thing goes; see the tags of the plan.
	Goes  Goes
	text  *string
	list  *[]string
	place *place
	entry reflect.Value // the entry of a list that the place is in, the outermost one
}

// Goes says what becomes of a place that names a thing when the thing goes. Ids in a list
// leave the list.
type Goes string

const (
	Stays  Goes = ""       // the thing cannot go while it is named here
	Clears Goes = "clears" // nothing is named here any more
	Leaves Goes = "leaves" // the entry that this place is in goes too
)

// Path is where the mention stands, such as "channels[3].week".
func (m Mention) Path() string { return m.place.String() }

// Keys are the keys that are named, one unless the place is a list.
func (m Mention) Keys() []string {
	if m.list != nil {
		return *m.list
	}
	return []string{*m.text}
}

// Set names others in the place. Whoever sets one has made sure that nobody else has the
// part of the plan that it is in.
func (m Mention) Set(keys ...string) {
	if m.list != nil {
		*m.list = keys
	} else {
		*m.text = keys[0]
	}
}

// IsList tells whether the place takes any number of keys.
func (m Mention) IsList() bool { return m.list != nil }

// In is what names the thing, in words: "channel 4, Gangway A".
func (m Mention) In() string {
	if !m.entry.IsValid() {
		return m.Path()
	}
	return nameOf(m.entry)
}

// EachMention calls f with every place of the plan that names a thing, in the order of the
// document, until f returns false. A place that may be empty and is names nothing.
func (p *Plan) EachMention(f func(Mention) bool) {
	eachMention(nil, reflect.ValueOf(p).Elem(), reflect.Value{}, f)
}

// eachMentionSince does the same, but leaves out entries of lists that are as they were at
// their place in an earlier plan.
func (p *Plan) eachMentionSince(before *Plan, f func(Mention) bool) {
	now, was := reflect.ValueOf(p).Elem(), reflect.ValueOf(before).Elem()
	for _, m := range document.Members(now.Type()) {
		list, old := now.FieldByIndex(m.Index), was.FieldByIndex(m.Index)
		at := (*place)(nil).member(m.Name)
		if list.Kind() != reflect.Slice {
			if mentions(m.Type) && !eachMention(at, list, reflect.Value{}, f) {
				return
			}
			continue
		}
		if !mentions(m.Type) {
			continue
		}
		for i, entry := range document.Changed(list, old) {
			if !eachMention(at.entry(i), entry, entry, f) {
				return
			}
		}
	}
}

// MentionsIn calls f with every place of what a pointer leads to that names a thing.
func MentionsIn(v any, f func(Mention) bool) {
	of := reflect.ValueOf(v).Elem()
	eachMention(nil, of, of, f)
}

func eachMention(at *place, v, entry reflect.Value, f func(Mention) bool) bool {
	if !mentions(v.Type()) {
		return true
	}
	switch v.Kind() {
	case reflect.Pointer:
		return v.IsNil() || eachMention(at, v.Elem(), entry, f)
	case reflect.Slice:
		if words, ok := v.Interface().(Words); ok {
			return words.eachMention(at, entry, f)
		}
		for i := range v.Len() {
			in := entry
			if !in.IsValid() {
				in = v.Index(i)
			}
			if !eachMention(at.entry(i), v.Index(i), in, f) {
				return false
			}
		}
		return true
	}
	if e, ok := v.Addr().Interface().(document.Either); ok {
		if text, kind := e.Text(); text != nil {
			return f(Mention{Kind: kind, text: text, place: at, entry: entry})
		}
		return eachMention(at, reflect.ValueOf(e.Object()).Elem(), entry, f)
	}
	for _, m := range document.Members(v.Type()) {
		field := v.FieldByIndex(m.Index)
		if kind := m.Tag.Get("ref"); kind != "" {
			found := Mention{Kind: kind, Goes: Goes(m.Tag.Get("goes")), place: at.member(m.Name), entry: entry}
			if m.Type.Kind() == reflect.Slice {
				found.list = field.Addr().Interface().(*[]string)
			} else if found.text = field.Addr().Interface().(*string); *found.text == "" && !m.Required {
				continue
			}
			if !f(found) {
				return false
			}
			continue
		}
		if mentions(m.Type) && !eachMention(at.member(m.Name), field, entry, f) {
			return false
		}
	}
	return true
}

// eachMention goes over the duties that words are of.
func (w Words) eachMention(at *place, entry reflect.Value, f func(Mention) bool) bool {
	for i := range w {
		if !f(Mention{Kind: "duty", Goes: Leaves, text: &w[i].Duty, place: at.member(w[i].Duty), entry: entry}) {
			return false
		}
	}
	return true
}

var (
	eitherType = reflect.TypeFor[document.Either]()
	textType   = reflect.TypeFor[encoding.TextUnmarshaler]()
)

var mentionCache sync.Map // reflect.Type → bool

// mentions tells whether values of a type can name a thing somewhere.
func mentions(t reflect.Type) (found bool) {
	if known, ok := mentionCache.Load(t); ok {
		return known.(bool)
	}
	defer func() { mentionCache.Store(t, found) }()
	switch {
	case t.Kind() == reflect.Pointer || t.Kind() == reflect.Slice:
		return mentions(t.Elem())
	case t.Kind() != reflect.Struct:
		return false
	case reflect.PointerTo(t).Implements(eitherType):
		return true
	case reflect.PointerTo(t).Implements(textType), t == reflect.TypeFor[Areas]():
		return false
	}
	for _, m := range document.Members(t) {
		if m.Tag.Get("ref") != "" || mentions(m.Type) {
			return true
		}
	}
	return false
}
