package plan

import (
	"bytes"
	"encoding/json"
	"reflect"
)

// Areas are the detection areas of a channel: drawn, or only counted.
type Areas struct {
	Count *int   // how many there are at the camera; nil where they are drawn
	List  []Area `holds:"-"`
}

// MostAreas is how many areas a channel can have.
const MostAreas = 1000

// MostDrawn is how many of them can be drawn.
const MostDrawn = 64

// MarshalJSON writes how many there are as a number, drawn ones as a list.
func (a Areas) MarshalJSON() ([]byte, error) {
	if a.Count != nil {
		return json.Marshal(*a.Count)
	}
	return json.Marshal(a.List)
}

// UnmarshalJSON reads what MarshalJSON writes.
func (a *Areas) UnmarshalJSON(data []byte) error {
	if bytes.HasPrefix(bytes.TrimSpace(data), []byte("[")) {
		a.List = []Area{}
		return json.Unmarshal(data, &a.List)
	}
	a.Count = new(int)
	return json.Unmarshal(data, a.Count)
}

var areasType = reflect.TypeFor[Areas]()

// readAreas reads a number or a list.
func (r *reader) readAreas(path string, token json.Token, a *Areas) error {
	switch token.(type) {
	case json.Number:
		a.Count = new(int)
		return r.number(path, token, reflect.ValueOf(a.Count).Elem())
	case json.Delim:
		return r.list(path, token, reflect.ValueOf(&a.List).Elem())
	}
	return Wrong(path, "%s where a list of areas, or how many there are, is wanted", kindOf(token))
}

// checkAreas enforces how many there may be.
func checkAreas(path string, a Areas) error {
	if n := Or(a.Count, 0); n < 0 || n > MostAreas {
		return Wrong(path, "%d areas; 0 to %d are possible", n, MostAreas)
	}
	if len(a.List) > MostDrawn {
		return Wrong(path, "%d areas; at most %d can be drawn", len(a.List), MostDrawn)
	}
	return nil
}
