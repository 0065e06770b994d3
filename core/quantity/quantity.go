// Package quantity reads numbers as people write them, with the units they have for them.
//
// A number has a point or a comma before its fraction, and its thousands apart by spaces, apostrophes, points or commas,
// where that leaves one meaning: 1 500, 1’500, 1.500,5 and 1,500.5 are read; 1,500 is refused, as it is one and a half for
// some and fifteen hundred for others. A point alone begins a fraction, as it does where the program writes a number. What
// a field is in may stand behind it, or another unit of the same thing: "4 Mbps" is 4000 where kbit/s are wanted.
package quantity

import (
	"errors"
	"fmt"
	"math"
	"regexp"
	"strconv"
	"strings"
)

// Units are the units that people type behind a number, in small letters, by the unit that is wanted: what one of them is.
var Units = map[string]map[string]float64{
	"kbit/s": {"kbit/s": 1, "kbps": 1, "kbit": 1, "k": 1, "mbit/s": 1000, "mbps": 1000, "mbit": 1000, "m": 1000, "gbit/s": 1e6,
		"gbps": 1e6},
	"Mbit/s": {"mbit/s": 1, "mbps": 1, "kbit/s": 0.001, "kbps": 0.001, "gbit/s": 1000, "gbps": 1000},
	"s": {"s": 1, "sec": 1, "secs": 1, "second": 1, "seconds": 1, "m": 60, "min": 60, "mins": 60, "minute": 60, "minutes": 60,
		"h": 3600, "hr": 3600, "hrs": 3600, "hour": 3600, "hours": 3600, "d": 86400, "day": 86400, "days": 86400},
	"d":    {"d": 1, "day": 1, "days": 1, "week": 7, "weeks": 7},
	"days": {"d": 1, "day": 1, "days": 1, "week": 7, "weeks": 7},
	"GB":   {"gb": 1, "tb": 1000, "mb": 0.001},
	"TB":   {"tb": 1, "gb": 0.001},
	"TB/y": {"tb/y": 1, "tb": 1},
	"MB/s": {"mb/s": 1, "gb/s": 1000},
	"kB":   {"kb": 1, "mb": 1000},
	"m":    {"m": 1, "cm": 0.01},
	"/s":   {"/s": 1, "fps": 1},
	"%":    {"%": 1, "percent": 1},
}

// ErrTwoMeanings is that of a text that can mean two numbers.
var ErrTwoMeanings = errors.New("can mean two numbers")

var (
	// behind is a number and what stands behind it.
	behind = regexp.MustCompile(`^(.*?[\d.,])\s*([^\d\s.,+\-'’].*)?$`)
	// The ways to write a number: plain, with the thousands apart, and with both a comma and points or the other way round.
	plain   = regexp.MustCompile(`^[+-]?(\d+([.,]\d*)?|[.,]\d+)(e[+-]?\d{1,2})?$`)
	apart   = regexp.MustCompile(`^[+-]?\d{1,3}([ '’]\d{3})+([.,]\d*)?$`)
	byPoint = regexp.MustCompile(`^[+-]?\d{1,3}(\.\d{3})+,\d*$|^[+-]?\d{1,3}(\.\d{3}){2,}$`)
	byComma = regexp.MustCompile(`^[+-]?\d{1,3}(,\d{3})+\.\d*$|^[+-]?\d{1,3}(,\d{3}){2,}$`)
	// either may be a fraction or thousands.
	either = regexp.MustCompile(`^[+-]?[1-9]\d{0,2},\d{3}$`)
	spaces = strings.NewReplacer("\u00a0", " ", "\u202f", " ", "\u2009", " ", "−", "-")
)

// Read reads a number in a unit, which may stand behind it or not; an empty unit has no other. The error says in words
// what is wrong with the text, and quotes it; it is an [ErrTwoMeanings] where that is so.
func Read(text, unit string) (float64, error) {
	given := strings.TrimSpace(spaces.Replace(text))
	written, times := given, 1.0
	if m := behind.FindStringSubmatch(given); m != nil && m[2] != "" && !plain.MatchString(strings.ToLower(given)) {
		said := strings.ToLower(strings.TrimSpace(m[2]))
		factor, known := Units[unit][said]
		if said == strings.ToLower(unit) {
			factor, known = 1, true
		}
		if !known {
			return 0, fmt.Errorf("“%s” is not %s", given, wanted(unit))
		}
		written, times = m[1], factor
	}
	digits := strings.ToLower(strings.TrimSpace(written))
	switch {
	case either.MatchString(digits):
		return 0, fmt.Errorf("“%s” %w: write “%s” or “%s”", given, ErrTwoMeanings, strings.Replace(digits, ",", "", 1),
			strings.Replace(digits, ",", ".", 1))
	case plain.MatchString(digits):
		digits = strings.Replace(digits, ",", ".", 1)
	case apart.MatchString(digits):
		digits = strings.NewReplacer(" ", "", "'", "", "’", "", ",", ".").Replace(digits)
	case byPoint.MatchString(digits):
		digits = strings.NewReplacer(".", "", ",", ".").Replace(digits)
	case byComma.MatchString(digits):
		digits = strings.ReplaceAll(digits, ",", "")
	default:
		return 0, fmt.Errorf("“%s” is not a number", given)
	}
	f, err := strconv.ParseFloat(digits, 64)
	if err != nil || math.Abs(f*times) > 1e15 {
		return 0, fmt.Errorf("“%s” is too large a number", given)
	}
	if times == 1 {
		return f, nil
	}
	return math.Round(f*times*1e9) / 1e9, nil // no more digits than were meant
}

// wanted is what should stand there.
func wanted(unit string) string {
	if unit == "" {
		return "a number"
	}
	return "in " + unit
}
