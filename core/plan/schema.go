package plan

import (
	"reflect"

	"wakefield.example/core/document"
	"wakefield.example/core/week"
)

// Schema is the JSON Schema (draft 2020-12) of a plan file, made from the same
// struct tags that [Read] enforces. What it cannot say, Read checks beyond it: that
// ids are unique, references lead somewhere, and times are in order.
func Schema() []byte {
	return document.Schema(reflect.TypeFor[Plan](), "Wakefield plan, version 1", schemaMember, map[reflect.Type]document.Object{
		reflect.TypeFor[week.Weekday](): {"enum": []string{"mon", "tue", "wed", "thu", "fri", "sat", "sun"}},
		reflect.TypeFor[week.Clock]():   {"type": "string", "pattern": "^(([01][0-9]|2[0-3]):[0-5][0-9]|24:00)$"},
		reflect.TypeFor[week.Date]():    {"type": "string", "format": "date", "pattern": "^[0-9]{4}-[0-9]{2}-[0-9]{2}$"},
	})
}

// Members lists the paths of all members of the format, such as
// "channels.detection.catch", in the order of the document.
func Members() []string {
	var out []string
	eachMember(func(path string, _ document.Member) { out = append(out, path) })
	return out
}

// eachMember calls f with every member of the format and its path.
func eachMember(f func(path string, m document.Member)) {
	document.EachMember(reflect.TypeFor[Plan](), f)
}

// MembersUsed lists the members that a plan gives a value other than zero.
func MembersUsed(p *Plan) []string { return document.Used(p) }
