package plantest

import (
	"cmp"
	"math"
	"os"
	"path/filepath"
	"regexp"
	"strconv"
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

// Said holds what a room says against what it said before, in testdata/said of its package, line by line; of a line of [Figures] the
// last digit may be another by one, as processors round in more ways than one. What is meant to be another is written anew by
// WAKEFIELD_SAID=anew go test ./core/..., and read before it is kept.
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
		if a == b || alike(a, b) {
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

// figure is a line of [Figures]: a path, and a number or what is written of a row of them.
var (
	figure  = regexp.MustCompile(`^([.\[]\S*) (-?\d+(?:\.\d+)?(?:e[+-]\d+)?|\d+ numbers, \S+ in all, at most \S+)$`)
	measure = regexp.MustCompile(`-?\d+(\.\d+)?(e[+-]\d+)?`)
)

// alike tells whether two lines are of one figure, and differ at most in the last digit of a number with a fraction or of four digits.
func alike(a, b string) bool {
	was, is := figure.FindStringSubmatch(a), figure.FindStringSubmatch(b)
	if was == nil || is == nil || was[1] != is[1] || measure.ReplaceAllString(was[2], "#") != measure.ReplaceAllString(is[2], "#") {
		return false
	}
	before, now := measure.FindAllString(was[2], -1), measure.FindAllString(is[2], -1)
	for k := range now {
		x, _ := strconv.ParseFloat(now[k], 64)
		y, _ := strconv.ParseFloat(before[k], 64)
		unit := 0.0 // of the last digit
		if digits, exponent, _ := strings.Cut(before[k], "e"); strings.ContainsAny(before[k], ".e") || math.Abs(y) >= 1000 {
			_, fraction, _ := strings.Cut(digits, ".")
			power, _ := strconv.Atoi(exponent)
			unit = math.Pow(10, float64(power-len(fraction)))
		}
		if math.Abs(x-y) > max(1.01*unit, 1e-9) { // less is nothing
			return false
		}
	}
	return true
}
