package plantest

import "testing"

// TestLinesAlike tells lines that a processor may round otherwise from those that say another thing.
func TestLinesAlike(t *testing.T) {
	for _, test := range []struct {
		a, b  string
		alike bool
	}{
		{".days 38.44", ".days 38.45", true}, {".days 38.44", ".days 38.46", false}, {".kbps 1483", ".kbps 1484", true},
		{".kbps 1483", ".kbps 1485", false}, {"3 channels", "4 channels", false}, {".gb 1.116e+04", ".gb 1.117e+04", true},
		{".gb 1.116e+04", ".gb 1.116e+05", false}, {"keeps 2.57 more", "keeps 2.58 more", true}, {"keeps 2.57 more", "keeps 2.58 fewer", false},
		{".a 0.5", ".a 0.5 b", false}, {"c1 1.5", "c2 1.5", false}, {"−0.05", "0.05", false}, {"9.999", "10", true}, {"", "", true},
		{".a 4.7e-16", ".a 0", true},
	} {
		if got := alike(test.a, test.b); got != test.alike {
			t.Errorf("%q and %q: %t", test.a, test.b, got)
		}
	}
}
