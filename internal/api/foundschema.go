package api

import (
	"bytes"
	"encoding/json"
	"fmt"
	"strings"

	"github.com/go-chi/chi/v5"
)

// FoundSchema is the JSON Schema (draft 2020-12) of a comparison of what was found with a plan, as the API describes it.
func FoundSchema() ([]byte, error) {
	api := newAPI(chi.NewRouter())
	register(api, &service{})
	data, err := json.Marshal(api.OpenAPI().Components.Schemas)
	if err != nil {
		return nil, err
	}
	const there, here = "#/components/schemas/", "#/$defs/"
	var all map[string]json.RawMessage
	if err := json.Unmarshal(bytes.ReplaceAll(data, []byte(there), []byte(here)), &all); err != nil {
		return nil, err
	}
	wanted := map[string]json.RawMessage{}
	for next := []string{"FoundResult"}; len(next) > 0; next = next[1:] {
		name := next[0]
		if _, known := wanted[name]; known {
			continue
		}
		schema, ok := all[name]
		if !ok {
			return nil, fmt.Errorf("the API describes no %s", name)
		}
		wanted[name] = schema
		for _, part := range strings.Split(string(schema), `"`+here)[1:] {
			name, _, _ := strings.Cut(part, `"`)
			next = append(next, name)
		}
	}
	return json.MarshalIndent(map[string]any{"$schema": "https://json-schema.org/draft/2020-12/schema",
		"title": "Wakefield, what was found, version 1",
		"$ref":  here + "FoundResult", "$defs": wanted}, "", "  ")
}
