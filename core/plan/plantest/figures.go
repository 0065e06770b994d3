package plantest

import (
	"encoding/json"
	"fmt"
	"maps"
	"slices"
	"strings"
	"testing"
)

// Figures are the members of a document, a line each: numbers to four digits, texts in a row on one line, and of a long row of
// numbers, or of objects with numbers in them, how many, their sum and the largest.
func Figures(t testing.TB, of any) string {
	t.Helper()
	data, err := json.Marshal(of)
	if err != nil {
		t.Fatal(err)
	}
	var v any
	if err := json.Unmarshal(data, &v); err != nil {
		t.Fatal(err)
	}
	var text strings.Builder
	lines(&text, "", v)
	return text.String()
}

// Changed are the members in which two documents differ, as [Figures] writes them: those that were behind a minus, those that are
// behind a plus.
func Changed(t testing.TB, before, after any) string {
	t.Helper()
	was, is := strings.SplitAfter(Figures(t, before), "\n"), strings.SplitAfter(Figures(t, after), "\n")
	had, has := make(map[string]bool, len(was)), make(map[string]bool, len(is))
	for _, line := range was {
		had[line] = true
	}
	for _, line := range is {
		has[line] = true
	}
	var text strings.Builder
	for _, line := range was {
		if !has[line] {
			text.WriteString("- " + line)
		}
	}
	for _, line := range is {
		if !had[line] {
			text.WriteString("+ " + line)
		}
	}
	return text.String()
}

// lines writes the lines of one value, each behind its path.
func lines(text *strings.Builder, path string, of any) {
	switch v := of.(type) {
	case map[string]any:
		for _, name := range slices.Sorted(maps.Keys(v)) {
			lines(text, path+"."+name, v[name])
		}
	case []any:
		switch {
		case all[float64](v) && len(v) > 6:
			fmt.Fprintf(text, "%s %s\n", path, row(v))
			return
		case all[string](v):
			fmt.Fprintf(text, "%s %q\n", path, v)
			return
		case all[map[string]any](v) && len(v) > 20:
			columns := make(map[string][]any)
			for _, o := range v {
				for name, member := range o.(map[string]any) {
					columns[name] = append(columns[name], member)
				}
			}
			for _, name := range slices.Sorted(maps.Keys(columns)) {
				if list := columns[name]; all[float64](list) {
					fmt.Fprintf(text, "%s[].%s %s\n", path, name, row(list))
				} else {
					lines(text, path+"[]."+name, list)
				}
			}
			return
		}
		for i := range v {
			lines(text, fmt.Sprintf("%s[%d]", path, i), v[i])
		}
	case float64:
		fmt.Fprintf(text, "%s %.4g\n", path, v)
	default:
		fmt.Fprintf(text, "%s %v\n", path, v)
	}
}

// all tells whether all of a list are of one kind.
func all[T any](list []any) bool {
	return !slices.ContainsFunc(list, func(v any) bool { _, is := v.(T); return !is })
}

// row is what is written of a list of numbers.
func row(list []any) string {
	sum, most := 0.0, 0.0
	for _, v := range list {
		sum, most = sum+v.(float64), max(most, v.(float64))
	}
	return fmt.Sprintf("%d numbers, %.4g in all, at most %.4g", len(list), sum, most)
}
