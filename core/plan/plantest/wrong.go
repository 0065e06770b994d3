package plantest

import (
	"encoding/json"
	"fmt"
	"maps"
	"slices"
	"testing"
)

// EachWrong calls f with the JSON of something for every value in it that is taken away or is another: a text that nobody has, or
// none; a number below, none, or far beyond; a list with nothing in it, or with its first entry twice. path is where, and what is
// what stands there. Some of them are right all the same.
func EachWrong(t testing.TB, of any, f func(path, what string, wrong []byte)) {
	t.Helper()
	data, err := json.Marshal(of)
	if err != nil {
		t.Fatal(err)
	}
	var whole any
	if err := json.Unmarshal(data, &whole); err != nil {
		t.Fatal(err)
	}
	try := func(path, what string) {
		wrong, err := json.Marshal(whole)
		if err != nil {
			t.Fatal(err)
		}
		f(path, what, wrong)
	}
	var walk func(path string, v any, set func(any))
	walk = func(path string, v any, set func(any)) {
		others := func(list ...any) {
			for _, other := range list {
				set(other)
				what, _ := json.Marshal(other)
				try(path, string(what))
			}
			set(v)
		}
		switch v := v.(type) {
		case string:
			others("nobody", "")
		case float64:
			others(-1.0, 0.0, 1e9)
		case []any:
			set([]any{})
			try(path, "nothing in it")
			if len(v) > 0 {
				set(append([]any{v[0]}, v...))
				try(path, "the first twice")
			}
			set(v)
			for i := range v {
				walk(fmt.Sprintf("%s[%d]", path, i), v[i], func(other any) { v[i] = other })
			}
		case map[string]any:
			for _, name := range slices.Sorted(maps.Keys(v)) {
				was := v[name]
				delete(v, name)
				try(path+"."+name, "taken away")
				v[name] = was
				walk(path+"."+name, was, func(other any) { v[name] = other })
			}
		}
	}
	walk("", whole, func(other any) { whole = other })
}
