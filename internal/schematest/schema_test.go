// Package schematest holds the JSON Schema of the plan file against the program
// that reads it. It lies outside the core, which imports no schema validator.
package schematest

import (
	"bytes"
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"os"
	"path/filepath"
	"slices"
	"testing"

	"github.com/santhosh-tekuri/jsonschema/v6"

	"wakefield.example/core/plan"
	"wakefield.example/internal/demo"
)

func schema(t *testing.T) *jsonschema.Schema {
	t.Helper()
	doc, err := jsonschema.UnmarshalJSON(bytes.NewReader(plan.Schema()))
	if err != nil {
		t.Fatal(err)
	}
	c := jsonschema.NewCompiler()
	c.AssertFormat()
	if err := c.AddResource("plan.json", doc); err != nil {
		t.Fatal(err)
	}
	s, err := c.Compile("plan.json")
	if err != nil {
		t.Fatal(err)
	}
	return s
}

// documents are all plan files of the repository and the sample sites.
func documents(t *testing.T) map[string][]byte {
	t.Helper()
	out := make(map[string][]byte)
	for _, pattern := range []string{"../../core/estimate/testdata/plans/*.json", "../../core/estimate/testdata/*.json",
		"../../core/plan/testdata/*.json", "../demo/*.json"} {
		files, _ := filepath.Glob(pattern)
		for _, file := range files {
			data, err := os.ReadFile(file)
			if err != nil {
				t.Fatal(err)
			}
			if bytes.Contains(data, []byte(plan.Format)) {
				out[file] = data
			}
		}
	}
	depot, err := demo.SaltmarshTramDepot().Write()
	if err != nil {
		t.Fatal(err)
	}
	out["depot"] = depot
	if len(out) < 15 {
		t.Fatalf("only %d plan files", len(out))
	}
	return out
}

func TestSchemaAcceptsWhatTheProgramAccepts(t *testing.T) {
	s := schema(t)
	for name, data := range documents(t) {
		if _, err := plan.Read(data); err != nil {
			t.Errorf("%s: %v", name, err)
		}
		if err := s.Validate(parse(t, data)); err != nil {
			t.Errorf("%s: %v", name, err)
		}
	}
}

func parse(t *testing.T, data []byte) any {
	t.Helper()
	v, err := jsonschema.UnmarshalJSON(bytes.NewReader(data))
	if err != nil {
		t.Fatal(err)
	}
	return v
}

// TestSchemaAndProgramRefuseTheSame spoils plans in thousands of ways, one member
// at a time. Whatever the schema refuses the program must refuse, and the other way
// round, but for what only the program can check.
func TestSchemaAndProgramRefuseTheSame(t *testing.T) {
	s := schema(t)
	rng := rand.New(rand.NewPCG(1, 2))
	both, neither, program := 0, 0, 0
	for name, data := range documents(t) {
		if len(data) > 100e3 {
			continue
		}
		for range 120 {
			var doc any
			if err := json.Unmarshal(data, &doc); err != nil {
				t.Fatal(err)
			}
			what := spoil(rng, doc, "")
			spoilt, err := json.Marshal(doc)
			if err != nil {
				t.Fatal(err)
			}
			_, refused := plan.Read(spoilt)
			invalid := s.Validate(parse(t, spoilt))
			switch {
			case invalid != nil && refused == nil:
				t.Errorf("%s, %s: the schema refuses what the program accepts: %v", name, what, invalid)
			case invalid == nil && refused != nil:
				program++ // references, times, order: allowed, but see below
				if !beyondSchema(refused.Error()) {
					t.Errorf("%s, %s: the program refuses what the schema accepts: %v", name, what, refused)
				}
			case invalid != nil:
				both++
			default:
				neither++
			}
		}
	}
	t.Logf("%d refused by both, %d accepted by both, %d refused by the program for what a schema cannot say", both, neither, program)
	if both < 1000 || neither < 60 {
		t.Error("the spoiling is too weak to tell anything")
	}
}

// beyondSchema tells whether a refusal is one that no schema can state.
func beyondSchema(refusal string) bool {
	for _, says := range []string{": no duty ", ": no week ", ": no activity ", ": no camera kind ", ": no object ", ": a second walk ",
		": a second patch ", ": a second area ", "its sides cross each other", "corners after each other", "nothing inside it",
		"above the horizon", "where the one before is", "are the most: let it begin", "a person's head is above", "both people stand equally",
		"the horizon would be", "the camera would hang", "the shares of the walks", "cells.on: is not base64", "cells.on: has ",
		"a camera has a main stream", ": no pool ", ": no recorder ", ": no channel ", ": no alarm input ", ": no message ", ": no output ",
		": no monitor ", ": no call button ", ": no preset ", ": no area ", "how often", "an area goes with", "cannot move",
		"is ignored; nothing", "a month, but",
		": a second ", "belongs to recorder", "starts and ends at the same time", "starts at 24:00", "named twice", "no time zone", "hot spare",
		"is before", "days at least but", "has a main stream", "have no frame rate of their own"} {
		if bytes.Contains([]byte(refusal), []byte(says)) {
			return true
		}
	}
	return false
}

// odd are values of every kind, some within limits and some beyond.
var odd = []any{nil, true, "", "x", "main", "25:00", "24:00", "07:30", "2026-02-30", 0, -1, 1, 2.5, 7, 1e7, []any{},
	[]any{"mon"}, map[string]any{}}

// spoil changes one place in a document and says which.
func spoil(rng *rand.Rand, v any, path string) string {
	switch v := v.(type) {
	case map[string]any:
		keys := slices.Sorted(func(yield func(string) bool) {
			for k := range v {
				if !yield(k) {
					return
				}
			}
		})
		if len(keys) == 0 {
			v["extra"] = 1
			return path + ".extra added"
		}
		key := keys[rng.IntN(len(keys))]
		_, isObject := v[key].(map[string]any)
		_, isList := v[key].([]any)
		if (isObject || isList) && rng.IntN(8) > 0 {
			return spoil(rng, v[key], path+"."+key)
		}
		switch rng.IntN(6) {
		case 0:
			delete(v, key)
			return path + "." + key + " removed"
		case 1:
			v["extra"] = 1
			return path + ".extra added"
		}
		v[key] = odd[rng.IntN(len(odd))]
		return fmt.Sprintf("%s.%s = %v", path, key, v[key])
	case []any:
		if len(v) == 0 {
			return path + " as it is"
		}
		i := rng.IntN(len(v))
		switch v[i].(type) {
		case map[string]any, []any:
			return spoil(rng, v[i], fmt.Sprintf("%s[%d]", path, i))
		}
		v[i] = odd[rng.IntN(len(odd))]
		return fmt.Sprintf("%s[%d] = %v", path, i, v[i])
	}
	return path
}
