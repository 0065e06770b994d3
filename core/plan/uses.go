package plan

import (
	"fmt"
	"reflect"
	"strings"
)

// Use is a part of a plan that names a thing.
type Use struct {
	Kind string `json:"kind" doc:"What it is, such as channel, alarm input or special day"`
	ID   string `json:"id" doc:"Its id; empty where it has none"`
	Name string `json:"name" doc:"As people call it"`
	Path string `json:"path" doc:"Where the plan names the thing"`
}

// Uses lists what names a thing, each once, in the order of the document. A channel that
// follows a named week uses the duties of that week only by way of it.
func (p *Plan) Uses(kind, id string) []Use {
	uses := []Use{}
	seen := make(map[reflect.Value]bool)
	p.EachMention(func(m Mention) bool {
		for _, key := range m.Keys() {
			if m.Kind == kind && key == id && !seen[m.entry] {
				seen[m.entry] = true
				use := Use{Kind: kindOfEntry(m.entry), Name: nameOf(m.entry), Path: m.Path()}
				if f := m.entry.FieldByName("ID"); f.IsValid() {
					use.ID, use.Name = f.String(), m.entry.FieldByName("Name").String()
				}
				uses = append(uses, use)
			}
		}
		return true
	})
	return uses
}

// kindOfEntry is what an entry of a list is: its type's name in words.
func kindOfEntry(entry reflect.Value) string {
	var words strings.Builder
	for i, r := range entry.Type().Name() {
		if i > 0 && r >= 'A' && r <= 'Z' {
			words.WriteByte(' ')
		}
		words.WriteString(strings.ToLower(string(r)))
	}
	return words.String()
}

// nameOf is an entry of a list in words: "channel 4, Gangway A".
func nameOf(entry reflect.Value) string {
	if s, ok := entry.Interface().(fmt.Stringer); ok {
		return kindOfEntry(entry) + " " + s.String()
	}
	name := kindOfEntry(entry)
	if n := entry.FieldByName("Number"); n.IsValid() {
		name += fmt.Sprintf(" %d,", n.Int())
	}
	if n := entry.FieldByName("Name"); n.IsValid() {
		name += " " + n.String()
	}
	return name
}

// String is the special day in words.
func (d SpecialDay) String() string { return fmt.Sprintf("%v (%s)", d.From, d.Name) }
