package plan

import (
	"fmt"
	"io"
	"math"
	"strconv"
)

// Say is [fmt.Sprintf] for sentences that people read: of %.3g a number has three digits, or
// as many as stand before its point, and no number is ever written with an exponent.
func Say(format string, args ...any) string {
	for i, a := range args {
		if f, ok := a.(float64); ok {
			args[i] = spoken(f)
		}
	}
	return fmt.Sprintf(format, args...)
}

// spoken is a number as it is written in a sentence.
type spoken float64

// Format writes the number, to as many digits as the verb has for its precision.
func (n spoken) Format(s fmt.State, _ rune) {
	f := float64(n)
	if digits, ok := s.Precision(); ok && f != 0 && !math.IsInf(f, 0) && !math.IsNaN(f) {
		places := max(0, digits-1-int(math.Floor(math.Log10(math.Abs(f)))))
		scale := math.Pow(10, float64(min(places, 12)))
		f = math.Round(f*scale) / scale
	}
	io.WriteString(s, strconv.FormatFloat(f, 'f', -1, 64))
}

// SecondsInWords is a length of time as people say it: in s, min, h or days, whichever gives a whole number, else in s.
func SecondsInWords(seconds float64) string {
	for _, unit := range []struct {
		name string
		of   float64
	}{{"days", 86400}, {"h", 3600}, {"min", 60}} {
		if n := seconds / unit.of; n >= 1 && n == math.Trunc(n) && (unit.of < 86400 || n > 1) {
			return Say("%v %s", n, unit.name)
		}
	}
	return Say("%v s", seconds)
}

// Count is a number of things, one told from many: "1 size", "2 sizes".
func Count(n int, one string) string {
	if n == 1 {
		return "1 " + one
	}
	return strconv.Itoa(n) + " " + one + "s"
}
