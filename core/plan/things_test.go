package plan

import (
	"reflect"
	"slices"
	"strings"
	"testing"

	"wakefield.example/core/document"
)

// TestEveryListAndEveryTextIsSpokenFor walks the types of the format: a list of structs
// says what it holds, a text is one of some values, a name of something, or free, and says
// which. Whoever adds a member and says nothing of it fails here.
func TestEveryListAndEveryTextIsSpokenFor(t *testing.T) {
	free := []string{"To", "Name", "Group", "Customer", "Address", "Contact", "Notes", "Wording", "TimeZone", "Reason", "By"}
	kinds := make(map[string]bool)
	for _, list := range thingLists() {
		kinds[list.kind] = true
	}
	seen := make(map[reflect.Type]bool)
	var walk func(typ reflect.Type)
	walk = func(typ reflect.Type) {
		for typ.Kind() == reflect.Pointer || typ.Kind() == reflect.Slice {
			typ = typ.Elem()
		}
		if typ.Kind() != reflect.Struct || seen[typ] || reflect.PointerTo(typ).Implements(textType) {
			return
		}
		seen[typ] = true
		if e, ok := reflect.New(typ).Interface().(document.Either); ok {
			if _, kind := e.Text(); !kinds[kind] {
				t.Errorf("%v names a %q, of which there is no list", typ, kind)
			}
			walk(reflect.TypeOf(e.Begin()))
			return
		}
		for i := range typ.NumField() {
			f := typ.Field(i)
			of := f.Type
			for of.Kind() == reflect.Pointer || of.Kind() == reflect.Slice {
				of = of.Elem()
			}
			holds, ref := f.Tag.Get("holds"), f.Tag.Get("ref")
			isList := f.Type.Kind() == reflect.Slice
			switch {
			case isList && of.Kind() == reflect.Struct && of != reflect.TypeFor[Hours]() && holds == "":
				t.Errorf("%v.%s does not say what it holds", typ, f.Name)
			case ref != "" && !kinds[ref]:
				t.Errorf("%v.%s names a %q, of which there is no list", typ, f.Name, ref)
			case of.Kind() == reflect.String && ref == "" && f.Tag.Get("enum") == "" && f.Tag.Get("key") == "" && f.Name != "ID" &&
				!slices.Contains(free, f.Name):
				t.Errorf("%v.%s is a text that says neither what it names nor which values it has", typ, f.Name)
			}
			walk(f.Type)
		}
	}
	walk(reflect.TypeFor[Plan]())
	if len(seen) < 20 {
		t.Errorf("only %d types were seen", len(seen))
	}
}

// TestEachThingAndEachMention counts both against the document's text.
func TestEachThingAndEachMention(t *testing.T) {
	p := example(t)
	var things, paths []string
	p.EachThing(func(thing Thing) bool {
		things = append(things, thing.Kind+" "+thing.Key+" at "+thing.Path())
		return true
	})
	for _, want := range []string{"pool p2 at recorders[1].pools[0]", "channel c2 at channels[1]", "alarm input a1 at alarmInputs[0]",
		"camera kind bullet at kinds[0]"} {
		if !slices.Contains(things, want) {
			t.Errorf("no %s in %s", want, strings.Join(things, "; "))
		}
	}
	p.EachMention(func(m Mention) bool {
		paths = append(paths, m.Path()+" "+strings.Join(m.Keys(), ","))
		return true
	})
	for _, want := range []string{"channels[0].week yard", "channels[0].pool p1", "weeks[1].blocks[0].duty guard",
		"effects[1].when.motion c1"} {
		if !slices.Contains(paths, want) {
			t.Errorf("no %s in %s", want, strings.Join(paths, "; "))
		}
	}
	n := 0
	p.EachMention(func(Mention) bool { n++; return n < 3 })
	if n != 3 {
		t.Errorf("%d mentions after it was told to stop at 3", n)
	}
}

func TestUses(t *testing.T) {
	p := example(t)
	for _, test := range []struct{ kind, id, want string }{
		{"activity", "gate", "channel c2 Gate; alarm input a1 Gate contact"},
		{"week", "gate", "special day  special day 2026-12-24 (Winter rest); channel c2 Gate"},
		{"channel", "c1",
			"call button b1 Duress button; effect  effect alarm a1; effect  effect motion on c1; effect  effect picture lost on c1"},
		{"pool", "none", ""},
	} {
		var got []string
		for _, u := range p.Uses(test.kind, test.id) {
			got = append(got, u.Kind+" "+u.ID+" "+u.Name)
		}
		if text := strings.Join(got, "; "); text != test.want {
			t.Errorf("%s %s is used by %q, want %q", test.kind, test.id, text, test.want)
		}
	}
}
