package plan

import (
	"reflect"
	"slices"
	"strconv"
	"sync"

	"wakefield.example/core/document"
)

// A list of the plan says in its tag what its entries are (`holds:"duty"`), a member that
// names such an entry says so in its own (`ref:"duty"`). These tags are the only list of
// the plan's parts: reading, removing, merging, the estimate and the question where
// something is used go by them, and a test asks that every list and every text has one.

// thingList is a list of the plan whose entries are told apart by a key.
type thingList struct {
	kind  string
	name  string     // of the member
	index []int      // of the list in the struct that has it
	key   []int      // of the key in an entry
	in    *thingList // the list in whose entries it lies; nil for the plan itself
	byID  bool       // whether the key is an id
}

var thingLists = sync.OnceValue(func() []*thingList {
	var out []*thingList
	var walk func(t reflect.Type, in *thingList)
	walk = func(t reflect.Type, in *thingList) {
		for _, m := range document.Members(t) {
			kind := m.Tag.Get("holds")
			if kind == "" || kind == AsWhole {
				continue
			}
			key, byID := keyOf(m.Type.Elem())
			list := &thingList{kind, m.Name, m.Index, key, in, byID}
			out = append(out, list)
			walk(m.Type.Elem(), list)
		}
	}
	walk(reflect.TypeFor[Plan](), nil)
	return out
})

// AsWhole stands in the tag of a list whose entries have no key: it is compared as a whole.
const AsWhole = "-"

// keyOf is the member that tells the entries of a list apart: the id, unless another says
// that it does.
func keyOf(t reflect.Type) (key []int, byID bool) {
	members := document.Members(t)
	if i := slices.IndexFunc(members, func(m document.Member) bool { return m.Tag.Get("key") != "" }); i >= 0 {
		return members[i].Index, false
	}
	i := slices.IndexFunc(members, func(m document.Member) bool { return m.Name == "id" })
	if i < 0 {
		panic("plan: entries of " + t.String() + " have no key")
	}
	return members[i].Index, true
}

// Thing is an entry of one of the plan's lists.
type Thing struct {
	Kind  string // such as "duty" or "alarm input"
	Key   string // its id, mostly
	Value reflect.Value
	list  *thingList
	place *place
}

// Path is where it stands, such as "recorders[0].pools[1]".
func (t Thing) Path() string { return t.place.String() }

// EachThing calls f with the entries of the plan's lists that have a key, list by list,
// until f returns false.
func (p *Plan) EachThing(f func(Thing) bool) {
	root := reflect.ValueOf(p).Elem()
	for _, list := range thingLists() {
		if !list.each(root, f) {
			return
		}
	}
}

func (l *thingList) each(root reflect.Value, f func(Thing) bool) bool {
	if l.in == nil {
		return l.entries(nil, root, f)
	}
	return l.in.each(root, func(outer Thing) bool { return l.entries(outer.place, outer.Value, f) })
}

func (l *thingList) entries(at *place, v reflect.Value, f func(Thing) bool) bool {
	list := v.FieldByIndex(l.index)
	at = at.member(l.name)
	for i := range list.Len() {
		e := list.Index(i)
		if !f(Thing{l.kind, e.FieldByIndex(l.key).String(), e, l, at.entry(i)}) {
			return false
		}
	}
	return true
}

// place is where something stands in a document, written only when it is asked for.
type place struct {
	in   *place
	name string // of a member; empty for an entry
	at   int
}

func (p *place) member(name string) *place { return &place{p, name, 0} }
func (p *place) entry(i int) *place        { return &place{p, "", i} }

func (p *place) String() string {
	if p == nil {
		return ""
	}
	if p.name == "" {
		return p.in.String() + "[" + strconv.Itoa(p.at) + "]"
	}
	return document.Join(p.in.String(), p.name)
}
