package plantest

import (
	"cmp"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"wakefield.example/core/plan"
)

// Sample is a plan with its name.
type Sample struct {
	Name string
	Plan *plan.Plan
}

// Samples are plans of all kinds, for what a room says of a plan.
func Samples(t testing.TB) (out []Sample) {
	t.Helper()
	for _, file := range []string{"../plan/testdata/whole.json", "../../internal/demo/pennywhistle-quay.json",
		"../estimate/testdata/plans/ties-of-every-kind.json", "../estimate/testdata/plans/cause-and-effect.json",
		"../estimate/testdata/plans/settings-by-the-hour.json", "../estimate/testdata/plans/watched-yard.json",
		"../estimate/testdata/plans/limits.json", "../estimate/testdata/plans/buttons.json"} {
		out = append(out, Sample{strings.TrimSuffix(filepath.Base(file), ".json"), Read(t, file)})
	}
	quay := &out[1]
	return append(out, Sample{quay.Name + "-otherwise", Otherwise(t, quay.Plan)})
}

// Said holds what a room says against what it said before, in testdata/said of its package, line by line. What is meant to be
// another is written anew by WAKEFIELD_SAID=anew go test ./core/..., and read before it is kept.
func Said(t testing.TB, name, text string) {
	t.Helper()
	file := filepath.Join("testdata", "said", name+".txt")
	if os.Getenv("WAKEFIELD_SAID") == "anew" {
		if err := cmp.Or(os.MkdirAll(filepath.Dir(file), 0o755), os.WriteFile(file, []byte(text), 0o644)); err != nil {
			t.Fatal(err)
		}
		return
	}
	before, err := os.ReadFile(file)
	if err != nil {
		t.Fatal(err)
	}
	was, is := strings.Split(string(before), "\n"), strings.Split(text, "\n")
	told := 0
	for n := range max(len(was), len(is)) {
		a, b := at(was, n), at(is, n)
		if a == b {
			continue
		}
		if t.Errorf("%s:%d\nwas %s\nis  %s", file, n+1, a, b); told == 4 {
			t.Fatal("and more")
		}
		told++
	}
}

// at is a line, or nothing beyond the last.
func at(lines []string, n int) string {
	if n < len(lines) {
		return lines[n]
	}
	return "nothing"
}
