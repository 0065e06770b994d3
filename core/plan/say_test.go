package plan

import (
	"math"
	"testing"
)

func TestSayHasNoExponents(t *testing.T) {
	for want, f := range map[string]float64{"1235": 1234.6, "123": 123.4, "12.3": 12.34, "1.23": 1.234, "0.0123": 0.01234, "0": 0, "99999999": 9.9999999e7, "15873062": 15873062.2, "-4.5": -4.5, "10": 9.999, "0.5": 0.5, "+Inf": math.Inf(1)} {
		if got := Say("%.3g", f); got != want {
			t.Errorf("%v is said %q, want %q", f, got, want)
		}
	}
	if got := Say("%s keeps %.3g days of %v, %d times", "It", 1e6/3, 1e7, 3); got != "It keeps 333333 days of 10000000, 3 times" {
		t.Error(got)
	}
}
