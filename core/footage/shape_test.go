package footage

import (
	"math"
	"testing"
)

// TestTabulatedShapesBendWhereTheyShould tabulates a cubic that bends sharply at one break: a table of cubics by values and slopes has
// it exactly, on both sides of the bend, where the slope on each side is its own.
func TestTabulatedShapesBendWhereTheyShould(t *testing.T) {
	of := func(x float64) (value, slope float64) {
		if x < 2 {
			return x * x * x, 3 * x * x
		}
		return 8 - 3*(x-2) + (x-2)*(x-2), -3 + 2*(x-2)
	}
	s := newShape(nil, []float64{0, 2, 5}, of)
	for x := 0.01; x < 5; x += 0.013 {
		if want, _ := of(x); math.Abs(s.at(x)-want) > 1e-6 {
			t.Errorf("at %v it is %v, want %v", x, s.at(x), want)
		}
	}
	if end, _ := of(5); s.at(-1) != 0 || s.at(0) != 0 || s.at(5) != end || s.at(9) != end || s.begin() != 0 || s.end() != 5 {
		t.Errorf("beside it is %v and %v, want 0 and %v", s.at(-1), s.at(9), end)
	}
}
