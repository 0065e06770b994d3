package document

import (
	"encoding/json"
	"maps"
	"reflect"
	"slices"
)

// Object is an object of JSON.
type Object = map[string]any

// Schema is the JSON Schema (draft 2020-12) of a type of struct, made from the same tags that [Read] enforces; beside is
// what Read reads over. Types that are written as texts have their schemas in texts. What a schema cannot say (that ids
// are unique, references lead somewhere) it does not.
func Schema(t reflect.Type, title, beside string, texts map[reflect.Type]Object) []byte {
	s := schemas{texts}.of(t)
	s["$schema"] = "https://json-schema.org/draft/2020-12/schema"
	s["title"] = title
	if beside != "" {
		s["properties"].(Object)[beside] = Object{"type": "string", "description": "Where this schema is to be found; no part of the document"}
	}
	data, err := json.MarshalIndent(s, "", "  ")
	if err != nil {
		panic("document: schema: " + err.Error()) // maps of strings, numbers and bools
	}
	return append(data, '\n')
}

// schemas makes them; texts are those of types that are written as texts.
type schemas struct{ texts map[reflect.Type]Object }

// of is the schema of a type.
func (s schemas) of(t reflect.Type) Object {
	if e, ok := reflect.New(t).Interface().(Either); ok {
		text, _ := e.Meaning()
		return Object{"oneOf": []any{Object{"type": "string", "description": text}, s.of(reflect.TypeOf(e.Begin()).Elem())}}
	}
	if own, ok := reflect.New(t).Interface().(Described); ok {
		return own.Schema(s.of)
	}
	if text, ok := s.texts[t]; ok {
		return maps.Clone(text)
	}
	switch t.Kind() {
	case reflect.Pointer:
		return s.of(t.Elem())
	case reflect.Slice:
		return Object{"type": "array", "items": s.of(t.Elem())}
	case reflect.String:
		return Object{"type": "string"}
	case reflect.Bool:
		return Object{"type": "boolean"}
	case reflect.Int:
		return Object{"type": "integer"}
	case reflect.Float64:
		return Object{"type": "number"}
	}
	return s.object(t)
}

// object is the schema of a struct.
func (s schemas) object(t reflect.Type) Object {
	properties, required := Object{}, []string{}
	for _, m := range Members(t) {
		properties[m.Name] = s.member(m)
		if m.Required {
			required = append(required, m.Name)
		}
	}
	out := Object{"type": "object", "properties": properties, "additionalProperties": false}
	if len(required) > 0 {
		out["required"] = required
	}
	zero := reflect.Zero(t).Interface()
	if c, ok := zero.(Choice); ok {
		var one []any
		for _, name := range c.ExactlyOne() {
			one = append(one, Object{"required": []string{name}})
		}
		out["oneOf"] = one
	}
	if c, ok := zero.(Selection); ok {
		some, apart := c.SomeOf()
		var one []Object
		for _, name := range some {
			one = append(one, Object{"required": []string{name}})
		}
		out["anyOf"], out["not"] = one, Object{"required": apart}
	}
	if v, ok := zero.(Variety); ok {
		by, variants := v.Variants()
		var kinds []any
		for _, k := range variants {
			allowed := Object{by: Object{"const": k.Kind}}
			for _, name := range slices.Concat(k.Members, k.Optional) {
				allowed[name] = true
			}
			kinds = append(kinds, Object{"properties": allowed, "required": k.Members, "additionalProperties": false})
		}
		out["oneOf"] = kinds
	}
	return out
}

// member is the schema of a member with the limits of its tag.
func (s schemas) member(m Member) Object {
	out := s.of(m.Type)
	for name, limit := range m.limits {
		out[name] = limit
	}
	if m.enum != nil {
		if items, ok := out["items"].(Object); ok {
			items["enum"] = m.enum
		} else {
			out["enum"] = m.enum
		}
	}
	if doc, ok := m.Tag.Lookup("doc"); ok {
		out["description"] = doc
	}
	return out
}
