package plan

import (
	"encoding/json"
	"reflect"
	"slices"

	"wakefield/core/week"
)

// Schema is the JSON Schema (draft 2020-12) of a plan file, made from the same
// struct tags that [Read] enforces. What it cannot say, Read checks beyond it: that
// ids are unique, references lead somewhere, and times are in order.
func Schema() []byte {
	s := schemaOf(reflect.TypeFor[Plan]())
	s["$schema"] = "https://json-schema.org/draft/2020-12/schema"
	s["title"] = "Wakefield plan, version 1"
	s["properties"].(object)[schemaMember] = object{"type": "string", "description": "Where this schema is to be found; no part of the plan"}
	data, err := json.MarshalIndent(s, "", "  ")
	if err != nil {
		panic("plan: schema: " + err.Error()) // maps of strings, numbers and bools
	}
	return append(data, '\n')
}

type object = map[string]any

func schemaOf(t reflect.Type) object {
	if e, ok := reflect.New(t).Interface().(either); ok {
		text, _ := e.meaning()
		return object{"oneOf": []any{object{"type": "string", "description": text}, schemaOf(reflect.TypeOf(e.begin()).Elem())}}
	}
	switch t {
	case areasType:
		list := object{"type": "array", "items": schemaOf(reflect.TypeFor[Area]()), "maxItems": MostDrawn}
		return object{"oneOf": []any{object{"type": "integer", "minimum": 0, "maximum": MostAreas, "description": "How many there are at the camera"}, list}}
	case wordsType:
		text, _ := reflect.TypeFor[Word]().FieldByName("Name")
		value := object{"type": "string"}
		for name, limit := range limitsOf(text.Tag) {
			value[name] = limit
		}
		return object{"type": "object", "additionalProperties": value}
	case pointType:
		return object{"type": "array", "items": object{"type": "number", "minimum": 0, "maximum": 1}, "minItems": 2, "maxItems": 2}
	case reflect.TypeFor[week.Weekday]():
		return object{"enum": []string{"mon", "tue", "wed", "thu", "fri", "sat", "sun"}}
	case reflect.TypeFor[week.Clock]():
		return object{"type": "string", "pattern": "^(([01][0-9]|2[0-3]):[0-5][0-9]|24:00)$"}
	case reflect.TypeFor[week.Date]():
		return object{"type": "string", "format": "date", "pattern": "^[0-9]{4}-[0-9]{2}-[0-9]{2}$"}
	}
	switch t.Kind() {
	case reflect.Pointer:
		return schemaOf(t.Elem())
	case reflect.Slice:
		return object{"type": "array", "items": schemaOf(t.Elem())}
	case reflect.String:
		return object{"type": "string"}
	case reflect.Bool:
		return object{"type": "boolean"}
	case reflect.Int:
		return object{"type": "integer"}
	case reflect.Float64:
		return object{"type": "number"}
	}
	return structSchema(t)
}

func structSchema(t reflect.Type) object {
	properties, required := object{}, []string{}
	for _, m := range orderedMembers(t) {
		properties[m.name] = m.schema()
		if m.required {
			required = append(required, m.name)
		}
	}
	s := object{"type": "object", "properties": properties, "additionalProperties": false}
	if len(required) > 0 {
		s["required"] = required
	}
	zero := reflect.Zero(t).Interface()
	if c, ok := zero.(choice); ok {
		var one []any
		for _, name := range c.exactlyOne() {
			one = append(one, object{"required": []string{name}})
		}
		s["oneOf"] = one
	}
	if c, ok := zero.(selection); ok {
		some, apart := c.someOf()
		var one []object
		for _, name := range some {
			one = append(one, object{"required": []string{name}})
		}
		s["anyOf"], s["not"] = one, object{"required": apart}
	}
	if v, ok := zero.(variety); ok {
		by, variants := v.variants()
		var kinds []any
		for _, k := range variants {
			allowed := object{by: object{"const": k.kind}}
			for _, name := range slices.Concat(k.members, k.optional) {
				allowed[name] = true
			}
			kinds = append(kinds, object{"properties": allowed, "required": k.members, "additionalProperties": false})
		}
		s["oneOf"] = kinds
	}
	return s
}

// schema is the schema of a member with the limits of its tag.
func (m member) schema() object {
	s := schemaOf(m.typ)
	for name, limit := range m.limits {
		s[name] = limit
	}
	if m.enum != nil {
		if items, ok := s["items"].(object); ok {
			items["enum"] = m.enum
		} else {
			s["enum"] = m.enum
		}
	}
	if doc, ok := m.tag.Lookup("doc"); ok {
		s["description"] = doc
	}
	return s
}
