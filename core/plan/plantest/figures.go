package plantest

import (
	"encoding/json"
	"fmt"
	"maps"
	"slices"
	"strings"
	"testing"
)

// Figures are the members of a document, a line each: numbers to four digits, and of a long row of numbers how many, their sum
// and the largest.
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
		if sum, most, ok := row(v); ok {
			fmt.Fprintf(text, "%s %d numbers, %.4g in all, at most %.4g\n", path, len(v), sum, most)
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

// row is the sum and the largest of more than six numbers.
func row(list []any) (sum, most float64, ok bool) {
	for _, v := range list {
		n, is := v.(float64)
		if !is {
			return 0, 0, false
		}
		sum, most = sum+n, max(most, n)
	}
	return sum, most, len(list) > 6
}
