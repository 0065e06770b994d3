package plan

import (
	"fmt"
	"io"
	"math"
	"regexp"
	"strconv"
	"strings"
)

// Say is [fmt.Sprintf] for sentences that people read: of %.3g a number has three digits, or
// as many as stand before its point, and no number is ever written with an exponent. What is
// counted is one where the number is written 1: of "%v days" comes "1 day".
func Say(format string, args ...any) string {
	one := false // whether any number may be written 1
	for i, a := range args {
		switch n := a.(type) {
		case float64:
			args[i], one = spoken(n), one || n > 0.9 && n < 1.1
		case int:
			one = one || n == 1
		}
	}
	if one {
		format = ofOne(format, args)
	}
	return fmt.Sprintf(format, args...)
}

// counted is a verb of a format, and what it counts where that is told by its name.
var counted = regexp.MustCompile(`%[-+# 0-9.]*([a-zA-Z%])( (?:days|hours|minutes|seconds|weeks|times(?: as)?|events|triggers|alarms|` +
	`recordings|frames|presses|channels|cameras|drives|pictures|settings|steps|searches|sites|parts)\b)?`)

// ofOne is a format in which what is counted by a number that is written 1 is one. Only the format is changed, never a name.
func ofOne(format string, args []any) string {
	at := 0
	return counted.ReplaceAllStringFunc(format, func(found string) string {
		part := counted.FindStringSubmatch(found)
		if part[1] == "%" {
			return found
		}
		at++
		if part[2] == "" || at > len(args) || strings.HasSuffix(found, "s as") { // twice as much, and once as much
			return found
		}
		verb := strings.TrimSuffix(found, part[2])
		if fmt.Sprintf(verb, args[at-1]) != "1" {
			return found
		}
		if one, ok := strings.CutSuffix(found, "ches"); ok {
			return one + "ch"
		}
		if one, ok := strings.CutSuffix(found, "sses"); ok {
			return one + "ss"
		}
		return strings.TrimSuffix(found, "s")
	})
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

// About is how long something takes, which need not be exact, as the page writes it: to a tenth below ten, in s below 99.5, in
// min below 99.5, in h below 47.8, else in days.
func About(seconds float64) string {
	of := func(value float64, unit string) string {
		if value < 9.95 {
			return Say("%v %s", math.Round(value*10)/10, unit)
		}
		return Say("%v %s", math.Round(value), unit)
	}
	switch {
	case seconds < 99.5:
		return of(seconds, "s")
	case seconds < 5970:
		return of(seconds/60, "min")
	case seconds < 172000:
		return of(seconds/3600, "h")
	}
	return of(seconds/86400, "days")
}

// Count is a number of things, one told from many: "1 size", "2 sizes".
func Count(n int, one string) string {
	if n == 1 {
		return "1 " + one
	}
	return strconv.Itoa(n) + " " + one + "s"
}

// InList is "a, b and c".
func InList(names []string) string {
	if n := len(names); n > 1 {
		return strings.Join(names[:n-1], ", ") + " and " + names[n-1]
	}
	return strings.Join(names, "")
}
