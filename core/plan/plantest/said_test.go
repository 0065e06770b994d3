package plantest

import "testing"

// TestLinesAlike tells lines that a processor may round otherwise from those that say another thing.
func TestLinesAlike(t *testing.T) {
	for _, test := range []struct {
		a, b  string
		alike bool
	}{
		{".days 38.44", ".days 38.45", true}, {".days 38.44", ".days 38.46", false}, {".days 38.44", ".date 38.44", false},
		{"[3].kbps 1483", "[3].kbps 1484", true}, {"[3].kbps 1483", "[4].kbps 1483", false}, {".kbps 1483", ".kbps 1485", false},
		{".channels 3", ".channels 4", false}, {".gb 1.116e+04", ".gb 1.117e+04", true}, {".gb 1.116e+04", ".gb 1.116e+05", false},
		{".a -0.05", ".a 0.05", false}, {".a 4.7e-16", ".a 0", true}, {".a 9.999", ".a 10", true}, {".a 0.5", ".a 0.5 b", false},
		{".h 24 numbers, 148.3 in all, at most 12.99", ".h 24 numbers, 148.4 in all, at most 12.99", true},
		{".h 24 numbers, 148.3 in all, at most 12.99", ".h 25 numbers, 148.3 in all, at most 12.99", false},
		{"keeps 2.57 more", "keeps 2.58 more", false}, {".address 192.0.2.10", ".address 192.0.2.11", false},
	} {
		if got := alike(test.a, test.b); got != test.alike {
			t.Errorf("%q and %q: %t", test.a, test.b, got)
		}
	}
}
