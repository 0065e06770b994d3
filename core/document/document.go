// Package document is an engine for documents that Go types tell: a struct's fields are its members, their tags the
// limits. It reads JSON strictly, with the place of the first thing that is wrong (unknown, repeated, missing and null
// members, values out of range); checks a document that is in memory by the same tags; and writes its JSON Schema from
// them, so that what is read, checked and published is one. It knows nothing of what the documents are about.
//
//	type Door struct {
//		Name    string  `json:"name" minLength:"1" maxLength:"100"`
//		Seconds float64 `json:"seconds,omitempty" minimum:"0" maximum:"3600"`
//	}
//	var d Door
//	err := document.Read([]byte(`{"name": "Yard", "seconds": -1}`), &d, "") // seconds: -1 is below 0
//
// A member may be left out where its tag says omitempty or omitzero. Tags of limits are minimum, maximum,
// exclusiveMinimum, minLength, maxLength, minItems, maxItems and enum (values, or values of entries, with commas
// between); doc is its description.
package document

import (
	"fmt"
	"strings"
)

// Error is something wrong at one place of a document.
type Error struct {
	Path   string // such as "channels[3].week"; empty for the whole document
	Reason string
}

func (e *Error) Error() string {
	if e.Path == "" {
		return e.Reason
	}
	return e.Path + ": " + e.Reason
}

// Wrong is an [*Error] at a place.
func Wrong(path, format string, args ...any) error {
	return &Error{path, fmt.Sprintf(format, args...)}
}

// Within puts an error's path below another.
func Within(path string, err error) error {
	if e, ok := err.(*Error); ok {
		return &Error{strings.TrimSuffix(Join(path, e.Path), "."), e.Reason}
	}
	return err
}

// Join is the path of a member, or of an entry such as "[3]", below another.
func Join(path, name string) string {
	if path == "" {
		return name
	}
	if strings.HasPrefix(name, "[") {
		return path + name
	}
	return path + "." + name
}
