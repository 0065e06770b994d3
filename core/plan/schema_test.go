package plan

import (
	"encoding/json"
	"slices"
	"strings"
	"testing"

	"wakefield.example/core/document"
)

// TestSchemaHasEveryMemberAndLimit follows the path of every member of the format through the schema.
func TestSchemaHasEveryMemberAndLimit(t *testing.T) {
	var schema document.Object
	if err := json.Unmarshal(Schema(), &schema); err != nil {
		t.Fatal(err)
	}
	seen := 0
	eachMember(func(path string, m document.Member) {
		if path == "recorders.words.duty" {
			return // what an object has for its names
		}
		at := schemaAt(schema, strings.Split(path, "."))
		if at == nil {
			t.Errorf("%s is not in the schema", path)
			return
		}
		for name, limit := range m.Limits() {
			if at[name] != limit {
				t.Errorf("%s: %s is %v in the schema, want %v", path, name, at[name], limit)
			}
			seen++
		}
	})
	if seen < 200 {
		t.Errorf("only %d limits were seen", seen)
	}
	for path, required := range map[string][]string{"": {"format", "name", "site", "recorders"},
		"channels": {"id", "number", "recorder", "pool", "week"}} {
		at := schema
		if path != "" {
			at = below(schemaAt(schema, strings.Split(path, ".")))
		}
		for _, name := range required {
			if list, _ := at["required"].([]any); !slices.Contains(list, any(name)) {
				t.Errorf("%q does not ask for %s", path, name)
			}
		}
		if at["additionalProperties"] != false {
			t.Errorf("%q allows what is no member", path)
		}
	}
}

// below is the schema of one entry, or of the object that stands beside a text.
func below(s document.Object) document.Object {
	if items, ok := s["items"].(document.Object); ok {
		return items
	}
	if s["properties"] == nil {
		for _, one := range list(s["oneOf"]) {
			if b := below(one.(document.Object)); b["properties"] != nil {
				return b
			}
		}
	}
	return s
}

func list(v any) []any { l, _ := v.([]any); return l }

// schemaAt is where a path leads, nil where it leads nowhere.
func schemaAt(s document.Object, path []string) document.Object {
	for _, name := range path {
		properties, _ := below(s)["properties"].(document.Object)
		next, ok := properties[name].(document.Object)
		if !ok {
			next, ok = s["additionalProperties"].(document.Object)
		}
		if !ok {
			return nil
		}
		s = next
	}
	return s
}

// TestMembersUsed is what the plan of all members leaves out of the format.
func TestMembersUsed(t *testing.T) {
	p := example(t)
	used, all := MembersUsed(p), Members()
	for _, path := range used {
		if !slices.Contains(all, path) {
			t.Errorf("%s is used, but no member", path)
		}
	}
	for path, want := range map[string]bool{"channels.detection.areas.cells.on": true, "effects.preset.dwellSeconds": true,
		"recorders.takes.gridRows": true, "channels.name": true, "prices": false, "offsite.watched": false,
		"channels.streams.third.codec": false} {
		if got := slices.Contains(used, path); got != want {
			t.Errorf("%s is used: %v", path, got)
		}
		if !slices.Contains(all, path) {
			t.Errorf("%s is no member", path)
		}
	}
	limits := AllLimits()
	if l := limits["channels.preSeconds"]; l.Minimum == nil || *l.Minimum != 0 || *l.Maximum != 3600 || l.Whole {
		t.Errorf("pre-event time is limited to %+v", l)
	}
	if l := limits["channels.number"]; !l.Whole {
		t.Errorf("numbers of channels are no whole numbers: %+v", l)
	}
	if _, ok := limits["channels.noCamera"]; ok {
		t.Error("a switch has limits")
	}
}
