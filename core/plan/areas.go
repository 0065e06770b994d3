package plan

import (
	"bytes"
	"encoding/json"
	"reflect"

	"wakefield.example/core/document"
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

// Holds are the areas that are drawn.
func (a *Areas) Holds() any { return &a.List }

// ReadFrom reads a number or a list.
func (a *Areas) ReadFrom(r *document.Reader, path string, token json.Token) error {
	switch token.(type) {
	case json.Number:
		a.Count = new(int)
		return r.Into(path, token, a.Count)
	case json.Delim:
		return r.Into(path, token, &a.List)
	}
	return document.Wrong(path, "%s where a list of areas, or how many there are, is wanted", document.KindOf(token))
}

// CheckAt enforces how many there may be.
func (a *Areas) CheckAt(path string) error {
	if n := Or(a.Count, 0); n < 0 || n > MostAreas {
		return document.Wrong(path, "%d areas; 0 to %d are possible", n, MostAreas)
	}
	if len(a.List) > MostDrawn {
		return document.Wrong(path, "%d areas; at most %d can be drawn", len(a.List), MostDrawn)
	}
	return nil
}

// Schema is a number or a list.
func (a *Areas) Schema(of func(reflect.Type) document.Object) document.Object {
	list := document.Object{"type": "array", "items": of(reflect.TypeFor[Area]()), "maxItems": MostDrawn}
	count := document.Object{"type": "integer", "minimum": 0, "maximum": MostAreas, "description": "How many there are at the camera"}
	return document.Object{"oneOf": []any{count, list}}
}
