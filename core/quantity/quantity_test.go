package quantity

import (
	"errors"
	"math"
	"strconv"
	"strings"
	"testing"
)

func TestNumbersAsPeopleWriteThem(t *testing.T) {
	for _, c := range []struct {
		text, unit string
		want       float64
	}{
		{"4", "", 4}, {" 8 ", "", 8}, {"7,5", "", 7.5}, {"12.25", "", 12.25}, {".5", "", 0.5}, {",5", "", 0.5}, {"3.", "", 3},
		{"-2", "", -2}, {"−2", "", -2}, {"+2", "", 2}, {"0,250", "", 0.25}, {"1,2345", "", 1.2345}, {"1.500", "", 1.5},
		{"1 500", "", 1500}, {"1\u202f500", "", 1500}, {"1\u00a0234\u00a0567,5", "", 1234567.5}, {"1'500", "", 1500}, {"1’500.25", "", 1500.25},
		{"1.500,5", "", 1500.5}, {"1,500.5", "", 1500.5}, {"1.234.567", "", 1234567}, {"1,234,567", "", 1234567},
		{"1e3", "", 1000}, {"1.5E+05", "", 150000}, {"2e-3", "", 0.002},
		{"4 Mbps", "kbit/s", 4000}, {"4Mbit/s", "kbit/s", 4000}, {"1 500 kbit/s", "kbit/s", 1500}, {"1.2 M", "kbit/s", 1200},
		{"5 min", "s", 300}, {"0.1 h", "s", 360}, {"2 weeks", "d", 14}, {"30 d", "days", 30}, {"0.3 TB", "GB", 300},
		{"12 fps", "/s", 12}, {"12/s", "/s", 12}, {"50 %", "%", 50}, {"50percent", "%", 50}, {"250 cm", "m", 2.5}, {"3 °", "°", 3},
		{"500 kbps", "Mbit/s", 0.5},
	} {
		if got, err := Read(c.text, c.unit); err != nil || got != c.want {
			t.Errorf("%q in %q: %v, %v, want %v", c.text, c.unit, got, err, c.want)
		}
	}
	for _, c := range []struct{ text, unit, want string }{
		{"soon", "", "“soon” is not a number"}, {"", "", "“” is not a number"}, {"7..5", "", "“7..5” is not a number"},
		{"1,234", "", "“1,234” can mean two numbers: write “1234” or “1.234”"}, {"12,500 kbit/s", "kbit/s", "write “12500” or “12.500”"},
		{"1 2", "", "“1 2” is not a number"}, {"15 00", "", "“15 00” is not a number"}, {"1.50.000", "", "is not a number"},
		{"5 apples", "s", "“5 apples” is not in s"}, {"5 GB", "", "“5 GB” is not a number"}, {"4 Mbps", "s", "is not in s"},
		{"0x10", "", "is not a number"}, {"1_000", "", "is not a number"}, {"Inf", "", "is not a number"}, {"NaN", "s", "is not a number"},
		{"1e99", "", "is too large"}, {"5-", "", "is not a number"}, {"--5", "", "is not a number"},
	} {
		if got, err := Read(c.text, c.unit); err == nil || !strings.Contains(err.Error(), c.want) {
			t.Errorf("%q in %q: %v, %v, want %s", c.text, c.unit, got, err, c.want)
		}
	}
	if _, err := Read("1,234", ""); !errors.Is(err, ErrTwoMeanings) {
		t.Error(err)
	}
}

// FuzzRead asks that what the program writes is read as it was, alone and with every unit, and that nothing else is a
// number without end.
func FuzzRead(fuzz *testing.F) {
	for _, text := range []string{"1 500", "1,5", "4 Mbps", "1.234.567", "−3", "1e5", "12 500.5", "0,250", "x"} {
		fuzz.Add(text, 1.25)
	}
	fuzz.Fuzz(func(t *testing.T, text string, f float64) {
		for unit := range Units {
			if got, err := Read(text, unit); err == nil && (math.IsNaN(got) || math.IsInf(got, 0)) {
				t.Fatalf("%q in %s is %v", text, unit, got)
			}
		}
		if math.Abs(f) > 1e14 || math.IsNaN(f) {
			return
		}
		for unit := range Units {
			written := strconv.FormatFloat(f, 'f', -1, 64)
			for _, text := range []string{written, written + " " + unit} {
				if got, err := Read(text, unit); err != nil || got != f {
					t.Fatalf("%q in %s is %v, %v", text, unit, got, err)
				}
			}
		}
	})
}
