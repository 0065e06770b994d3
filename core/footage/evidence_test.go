package footage

import "testing"

// TestAChangeOfEvidenceIsWhatItIsLess takes away what was, events and percentage points alike.
func TestAChangeOfEvidenceIsWhatItIsLess(t *testing.T) {
	was, is := EvidenceOf(10, 5, 5), EvidenceOf(4, 1, 0)
	if got := is.Minus(was); got != (Evidence{-15, -6, -4, -5, 80 - 50, 20 - 25, -25, 100 - 75}) {
		t.Errorf("%+v", got)
	}
	if got := was.Plus(is); got != EvidenceOf(14, 6, 5) {
		t.Errorf("%+v", got)
	}
}
