package formats

import (
	"fmt"
	"time"

	ics "github.com/arran4/golang-ical"
)

// shift is a moment at which clocks change.
type shift struct {
	at       time.Time // in UTC
	from, to int       // seconds east of UTC before and after
	name     string
}

// shifts lists the changes of clocks in the years from one to another, inclusive. It
// looks twice a day, and closer where the clocks have changed in between.
func shifts(zone *time.Location, first, last int) []shift {
	seconds := func(unix int64) int {
		_, off := time.Unix(unix, 0).In(zone).Zone()
		return off
	}
	var out []shift
	start, end := time.Date(first, 1, 1, 0, 0, 0, 0, time.UTC).Unix(), time.Date(last+1, 1, 1, 0, 0, 0, 0, time.UTC).Unix()
	for t := start; t < end; t += 12 * 3600 {
		low, high := t, t+12*3600
		before, after := seconds(low), seconds(high)
		if before == after {
			continue
		}
		for high-low > 1 {
			if middle := (low + high) / 2; seconds(middle) == before {
				low = middle
			} else {
				high = middle
			}
		}
		at := time.Unix(high, 0)
		name, _ := at.In(zone).Zone()
		out = append(out, shift{at.UTC(), before, after, name})
	}
	return out
}

// local is the moment of the shift on the clocks before it.
func (s shift) local() time.Time { return s.at.Add(time.Duration(s.from) * time.Second) }

// rule is the RRULE that the shift seems to follow: a weekday, counted from the start
// or the end of a month.
func (s shift) rule() string {
	t := s.local()
	nth := (t.Day()-1)/7 + 1
	if t.AddDate(0, 0, 7).Month() != t.Month() {
		nth = -1
	}
	day := []string{"SU", "MO", "TU", "WE", "TH", "FR", "SA"}[t.Weekday()]
	return fmt.Sprintf("FREQ=YEARLY;BYMONTH=%d;BYDAY=%d%s", t.Month(), nth, day)
}

func offset(seconds int) string {
	sign := '+'
	if seconds < 0 {
		sign, seconds = '-', -seconds
	}
	return fmt.Sprintf("%c%02d%02d", sign, seconds/3600, seconds/60%60)
}

// horizon is for how many years the changes of clocks are written where they follow
// no simple rule.
const horizon = 20

// addTimezone adds a VTIMEZONE (RFC 5545, 3.6.5) that holds from a year on. Where the
// changes follow the same rule every year the rule is written, else every change.
func addTimezone(calendar *ics.Calendar, zone *time.Location, year int) {
	z := calendar.AddTimezone(zone.String())
	all := shifts(zone, year, year+horizon)
	start := time.Date(year, 1, 1, 0, 0, 0, 0, zone)
	name, at := start.Zone()
	add := func(s shift, begins string) *ics.ComponentBase {
		set := func(c *ics.ComponentBase) *ics.ComponentBase {
			c.SetProperty(ics.ComponentPropertyDtStart, begins)
			c.SetProperty("TZOFFSETFROM", offset(s.from))
			c.SetProperty("TZOFFSETTO", offset(s.to))
			c.SetProperty("TZNAME", s.name)
			return c
		}
		if s.to > s.from {
			c := &ics.Daylight{}
			z.Components = append(z.Components, c)
			return set(&c.ComponentBase)
		}
		c := &ics.Standard{}
		z.Components = append(z.Components, c)
		return set(&c.ComponentBase)
	}
	add(shift{from: at, to: at, name: name}, fmt.Sprintf("%d0101T000000", year))
	rules := make(map[string]int)
	for _, s := range all {
		rules[s.rule()+offset(s.to)+s.local().Format("T1504")]++
	}
	written := make(map[string]bool)
	for _, s := range all {
		key := s.rule() + offset(s.to) + s.local().Format("T1504")
		// "The fourth Sunday" and "the last" are often the same day: the rule is the
		// one that holds in every year.
		steady := rules[key] == horizon+1
		if steady && written[key] {
			continue
		}
		written[key] = true
		c := add(s, s.local().Format("20060102T150405"))
		if steady {
			c.AddRrule(s.rule())
		}
	}
}
