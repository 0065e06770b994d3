package quantity

import (
	"errors"
	"testing"
)

// TestAFileTellsHowItWritesNumbers reads numbers of files that tell of their commas, of points, of both, and of nothing.
func TestAFileTellsHowItWritesNumbers(t *testing.T) {
	for _, test := range []struct {
		file        []string
		text, plain string
		twice       bool
	}{
		{[]string{"12,5"}, "1,125", "1.125", false}, {[]string{"12,5"}, "1.500", "", true}, {[]string{"12,5"}, "−1.500 kbit/s", "", true},
		{[]string{"1.500,5"}, "1,125 s", "1.125 s", false}, {[]string{"0,125"}, "2.048", "", true}, {[]string{"1,2345"}, "2.048", "", true},
		{[]string{"12,5"}, "2.5", "2.5", false}, {[]string{"12,5"}, "1.500,5", "1.500,5", false}, {[]string{"12,5"}, "soon", "soon", false},
		{[]string{"12,5"}, "0.125", "0.125", false}, {[]string{"12,5 %"}, "1500", "1500", false},
		{[]string{"1\u202f500,5"}, "1.500", "", true},
		{[]string{"12.5"}, "1.500", "1.500", false}, {[]string{"12,5", "12.5"}, "1.500", "1.500", false},
		{[]string{"12,5", "0.25"}, "1,500", "1,500", false}, {[]string{"1,500", "1.500", "4", ""}, "1.500", "1.500", false},
		{[]string{"1,500.25"}, "1.500", "1.500", false}, {nil, "1,500", "1,500", false},
	} {
		var h Habit
		for _, text := range test.file {
			h.Learn(text)
		}
		got, err := h.Plain(test.text)
		if got != test.plain || errors.Is(err, ErrTwoMeanings) != test.twice || (err != nil) != test.twice {
			t.Errorf("%q after %q: %q, %v", test.text, test.file, got, err)
		}
	}
}
