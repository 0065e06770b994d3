package plan

import (
	"math"
	"testing"
)

func TestSayHasNoExponents(t *testing.T) {
	for want, f := range map[string]float64{"1235": 1234.6, "123": 123.4, "12.3": 12.34, "1.23": 1.234, "0.0123": 0.01234, "0": 0,
		"99999999": 9.9999999e7, "15873062": 15873062.2, "-4.5": -4.5, "10": 9.999, "0.5": 0.5, "+Inf": math.Inf(1)} {
		if got := Say("%.3g", f); got != want {
			t.Errorf("%v is said %q, want %q", f, got, want)
		}
	}
	if got := Say("%s keeps %.3g days of %v, %d times", "It", 1e6/3, 1e7, 3); got != "It keeps 333333 days of 10000000, 3 times" {
		t.Error(got)
	}
}

// TestSayKnowsOneFromMany counts by numbers that are written 1, and by those that are not.
func TestSayKnowsOneFromMany(t *testing.T) {
	for _, test := range []struct {
		want, format string
		args         []any
	}{
		{"keep 1 day", "keep %v days", []any{1.0}}, {"keep 1.5 days", "keep %v days", []any{1.5}}, {"0 days", "%v days", []any{0.0}},
		{"1 day", "%.3g days", []any{0.9999}}, {"0.999 days", "%.3g days", []any{0.999}}, {"11 days", "%v days", []any{11.0}},
		{"1 search of 2 sites", "%d searches of %d sites", []any{1, 2}}, {"1 press", "%v presses", []any{1.0}},
		{"“1 days” for 1 hour", "“%s” for %.3g hours", []any{"1 days", 1.004}},
		{"1 % of 1 event a day", "%v %% of %v events a day", []any{1.0, 1.0}},
		{"1 times as much", "%v times as much", []any{1.0}},
		{"1 stays", "%v stays", []any{1.0}}, {"1 daysbreak", "%v daysbreak", []any{1.0}},
	} {
		if got := Say(test.format, test.args...); got != test.want {
			t.Errorf("%q, want %q", got, test.want)
		}
	}
}

// TestAbout writes times at and beside the places where the unit changes; the page has the same thresholds (web/src/ui/duration.ts).
func TestAbout(t *testing.T) {
	for seconds, want := range map[float64]string{0: "0 s", 0.06: "0.1 s", 9.94: "9.9 s", 9.95: "10 s", 99.4: "99 s", 99.5: "1.7 min",
		283: "4.7 min", 360: "6 min", 597: "10 min",
		5969: "99 min", 5970: "1.7 h", 171999: "48 h", 172000: "2 days", 900000: "10 days"} {
		if got := About(seconds); got != want {
			t.Errorf("%v s: %s, want %s", seconds, got, want)
		}
	}
}

func TestSecondsInWords(t *testing.T) {
	for seconds, want := range map[float64]string{0: "0 s", 1.5: "1.5 s", 59: "59 s", 60: "1 min", 90: "90 s", 3600: "1 h", 5400: "90 min",
		86400: "24 h", 129600: "36 h", 172800: "2 days"} {
		if got := SecondsInWords(seconds); got != want {
			t.Errorf("%v s: %s, want %s", seconds, got, want)
		}
	}
}

func TestManyThingsInWords(t *testing.T) {
	for n, want := range map[int]string{0: "0 sizes", 1: "1 size", 2: "2 sizes"} {
		if got := Count(n, "size"); got != want {
			t.Errorf("%d: %s, want %s", n, got, want)
		}
	}
	for want, names := range map[string][]string{"": nil, "a": {"a"}, "a and b": {"a", "b"}, "a, b and c": {"a", "b", "c"}} {
		if got := InList(names); got != want {
			t.Errorf("%q: %s, want %s", names, got, want)
		}
	}
}
