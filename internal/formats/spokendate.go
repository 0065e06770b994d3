package formats

import (
	"fmt"
	"regexp"
	"strconv"
	"strings"
	"time"

	"wakefield.example/core/week"
)

// spoken is a date as people type it, with or without a year and a time of day.
type spoken struct {
	date  week.Date
	clock week.Clock
	timed bool // whether it has a time
}

var (
	isoDate   = regexp.MustCompile(`^(\d{4})[-/](\d{1,2})[-/](\d{1,2})$`)
	dottedDay = regexp.MustCompile(`^(\d{1,2})[./-](\d{1,2})(?:[./-](\d{2}|\d{4})?)?$`)
	dayMonth  = regexp.MustCompile(`^(\d{1,2})(?:st|nd|rd|th|\.)? (?:of )?([a-z]{3,9})\.?(?:,? (\d{4}))?$`)
	monthDay  = regexp.MustCompile(`^([a-z]{3,9})\.? (\d{1,2})(?:st|nd|rd|th)?(?:,? (\d{4}))?$`)
	timeOfDay = regexp.MustCompile(`^(.*?)(?:[ ,]+(?:at )?|t)(\d{1,2}):(\d{2})(?::\d{2})?\s*(?:z|h|uhr)?$`)
)

// readSpoken reads a date. One without a year is the last such date that is not after now.
func readSpoken(text string, now week.Date) (spoken, error) {
	var out spoken
	rest := strings.Join(strings.Fields(strings.ToLower(strings.TrimSpace(text))), " ")
	if m := timeOfDay.FindStringSubmatch(rest); m != nil {
		h, _ := strconv.Atoi(m[2])
		min, _ := strconv.Atoi(m[3])
		if h > 23 || min > 59 {
			return out, fmt.Errorf("there is no time %s:%s", m[2], m[3])
		}
		rest, out.clock, out.timed = m[1], week.Clock(h*60+min), true
	}
	for _, day := range []string{"mon", "tue", "wed", "thu", "fri", "sat", "sun"} { // "Mon 12 Oct"
		if first, after, ok := strings.Cut(rest, " "); ok && strings.HasPrefix(first, day) {
			rest = strings.TrimSpace(after)
		}
	}
	year, month, day, err := partsOf(rest, text)
	if err != nil {
		return out, err
	}
	if month < 1 || month > 12 {
		return out, fmt.Errorf("%q: there is no month %d; day and month are read in this order", text, month)
	}
	given := year > 0
	if !given {
		year = now.Year
	}
	for {
		t := time.Date(year, time.Month(month), day, 0, 0, 0, 0, time.UTC)
		if t.Day() == day && t.Month() == time.Month(month) {
			out.date = week.Date{Year: year, Month: time.Month(month), Day: day}
			if given || !now.Before(out.date) {
				return out, nil
			}
		}
		if given || year < now.Year-4 {
			return out, fmt.Errorf("%q: there is no such date", text)
		}
		year--
	}
}

// partsOf takes a date apart; a year of 0 is none.
func partsOf(rest, text string) (year, month, day int, err error) {
	number := func(s string) int { n, _ := strconv.Atoi(s); return n }
	if m := isoDate.FindStringSubmatch(rest); m != nil {
		return number(m[1]), number(m[2]), number(m[3]), nil
	}
	if m := dottedDay.FindStringSubmatch(rest); m != nil {
		year = number(m[3])
		if len(m[3]) == 2 {
			year += 2000
		}
		return year, number(m[2]), number(m[1]), nil
	}
	if m := dayMonth.FindStringSubmatch(rest); m != nil {
		month, err = monthOf(m[2], text)
		return number(m[3]), month, number(m[1]), err
	}
	if m := monthDay.FindStringSubmatch(rest); m != nil {
		month, err = monthOf(m[1], text)
		return number(m[3]), month, number(m[2]), err
	}
	return 0, 0, 0, fmt.Errorf("%q is no date; write 12 Oct, 12.10.2026 or 2026-10-12", text)
}

// monthOf is the number of a month by its name or the beginning of it.
func monthOf(name, text string) (int, error) {
	for m := time.January; m <= time.December; m++ {
		if strings.HasPrefix(strings.ToLower(m.String()), name) || name == "sept" && m == time.September {
			return int(m), nil
		}
	}
	return 0, fmt.Errorf("%q: there is no month %s", text, name)
}
