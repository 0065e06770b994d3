package api

import (
	"encoding/json"
	"maps"
	"os"
	"regexp"
	"slices"
	"strings"
	"testing"
)

// TestTheDocumentsListTheAPI asks that docs/operation.md lists every operation, and none that is not.
func TestTheDocumentsListTheAPI(t *testing.T) {
	var api struct {
		Paths map[string]map[string]any `json:"paths"`
	}
	spec, err := Describe()
	if err == nil {
		err = json.Unmarshal(spec, &api)
	}
	if err != nil {
		t.Fatal(err)
	}
	served := map[string]bool{"GET /metrics": true} // Prometheus' own format, beside the API
	for path, methods := range api.Paths {
		for method := range methods {
			served[strings.ToUpper(method)+" "+path] = true
		}
	}
	page, err := os.ReadFile("../../docs/operation.md")
	if err != nil {
		t.Fatal(err)
	}
	listed := map[string]bool{}
	for _, row := range regexp.MustCompile("(?m)^\\| `(?:GET|POST|PUT) .*$").FindAllString(string(page), -1) {
		for _, m := range regexp.MustCompile("`((?:GET|POST|PUT|PATCH|DELETE) [^`]*)`").FindAllStringSubmatch(row, -1) {
			listed[m[1]] = true
		}
	}
	if len(listed) < 30 {
		t.Fatalf("the page lists %d operations", len(listed))
	}
	for _, operation := range slices.Sorted(maps.Keys(served)) {
		if !listed[operation] {
			t.Errorf("docs/operation.md does not list %s", operation)
		}
	}
	for _, operation := range slices.Sorted(maps.Keys(listed)) {
		if !served[operation] {
			t.Errorf("docs/operation.md lists %s, which is not served", operation)
		}
	}
}

// TestTheGlossaryHasEveryWord asks that docs/glossary.md explains each word as the program does.
func TestTheGlossaryHasEveryWord(t *testing.T) {
	text, err := os.ReadFile("../../web/src/ui/words.json")
	if err != nil {
		t.Fatal(err)
	}
	var words map[string]string
	if err := json.Unmarshal(text, &words); err != nil || len(words) < 20 {
		t.Fatal(len(words), err)
	}
	page, err := os.ReadFile("../../docs/glossary.md")
	if err != nil {
		t.Fatal(err)
	}
	for word, meaning := range words {
		if !strings.Contains(string(page), "| **"+word+"** | "+meaning+" |") {
			t.Errorf("docs/glossary.md does not say of %q: %s", word, meaning)
		}
	}
}
