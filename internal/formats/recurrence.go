package formats

import (
	"errors"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"time"

	ics "github.com/arran4/golang-ical"
	"github.com/teambition/rrule-go"

	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// ruleOf reads the rule by which an event comes again (RFC 5545, 3.3.10); nil for one
// that comes once.
func ruleOf(e *ics.ComponentBase) (*rrule.ROption, error) {
	rule := text(e, ics.ComponentPropertyRrule)
	if rule == "" {
		return nil, nil
	}
	option, err := rrule.StrToROption(strings.ToUpper(rule))
	if err != nil {
		return nil, fmt.Errorf("how it comes again is not understood: %q", rule)
	}
	if option.Interval > 1000 || option.Count > 100_000 {
		return nil, fmt.Errorf("how it comes again is out of bounds: %q", rule)
	}
	return option, nil
}

// without is on which dates an event does not come though its rule says so.
func without(e *ics.ComponentBase) map[string]bool {
	dates := make(map[string]bool)
	for _, x := range e.GetProperties(ics.ComponentPropertyExdate) {
		for _, date := range strings.Split(x.Value, ",") {
			dates[date[:min(len(dateOnly), len(date))]] = true
		}
	}
	return dates
}

// mostYears is for how many years a special day that ends is written out.
const mostYears = 100

// recurring is a special day with the dates on which it comes again: as one that comes
// every year, or each by itself where that ends or leaves some out.
func recurring(e *ics.ComponentBase, d plan.SpecialDay) ([]plan.SpecialDay, error) {
	option, err := ruleOf(e)
	if option == nil || err != nil {
		return []plan.SpecialDay{d}, err
	}
	if option.Freq != rrule.YEARLY || option.Interval > 1 {
		return nil, errors.New("it does not come every year")
	}
	only := func(list []int, value int) bool { return len(list) == 0 || len(list) == 1 && list[0] == value }
	if !only(option.Bymonth, int(d.From.Month)) || !only(option.Bymonthday, d.From.Day) || len(option.Byweekday)+len(option.Bysetpos)+
		len(option.Byyearday)+len(option.Byweekno)+len(option.Byeaster) > 0 {
		return nil, errors.New("it comes on another day each year")
	}
	left := without(e)
	if option.Count == 0 && option.Until.IsZero() && len(left) == 0 {
		d.Yearly = true
		return []plan.SpecialDay{d}, nil
	}
	option.Dtstart = d.From.At(0, time.UTC)
	last := option.Dtstart.AddDate(mostYears, 0, -1)
	if option.Until.IsZero() || option.Until.After(last) {
		option.Until = last
	}
	rule, err := rrule.NewRRule(*option)
	if err != nil {
		return nil, fmt.Errorf("how it comes again is not understood: %w", err)
	}
	var days []plan.SpecialDay
	length := int(d.To.At(0, time.UTC).Sub(d.From.At(0, time.UTC)).Hours() / 24)
	for _, at := range rule.All() {
		next := d
		next.From.Year, next.From.Month, next.From.Day = at.Date()
		next.To = next.From.Add(length)
		if !left[icsDate(next.From)] {
			days = append(days, next)
		}
	}
	return days, nil
}

// occasion is when an event is, on the clocks of a site.
type occasion struct {
	start  time.Time
	length time.Duration // as clocks show it
}

// occasions lists when an event begins in the seven days from a Monday on.
func occasions(e *ics.ComponentBase, zone *time.Location, monday time.Time) ([]occasion, error) {
	first, err := occasionOf(e, zone)
	if err != nil {
		return nil, err
	}
	option, err := ruleOf(e)
	if err != nil {
		return nil, err
	}
	end := monday.AddDate(0, 0, 7)
	in := func(t time.Time) bool { t = t.In(zone); return !t.Before(monday) && t.Before(end) }
	if option == nil {
		if !in(first.start) {
			return nil, nil
		}
		return []occasion{{first.start.In(zone), first.length}}, nil
	}
	if option.Freq != rrule.WEEKLY && option.Freq != rrule.DAILY || len(option.Bysetpos)+len(option.Byyearday)+len(option.Byweekno)+
		len(option.Byeaster)+len(option.Byhour)+len(option.Byminute)+len(option.Bysecond)+len(option.Bymonth)+len(option.Bymonthday) > 0 {
		return nil, errors.New("it comes neither daily nor weekly")
	}
	if option.Freq == rrule.DAILY && option.Interval%7 == 0 && option.Interval > 0 || ordinal(option.Byweekday) {
		return nil, errors.New("it comes neither every day nor on days of the week") // the library would look for one until the year 9999
	}
	option.Dtstart = first.start
	if option.Until.IsZero() || option.Until.After(end) {
		option.Until = end
	}
	rule, err := rrule.NewRRule(*option)
	if err != nil {
		return nil, fmt.Errorf("how it comes again is not understood: %w", err)
	}
	left := without(e)
	var list []occasion
	for _, at := range rule.Between(monday, end, true) {
		if in(at) && !left[at.Format(dateOnly)] {
			list = append(list, occasion{at.In(zone), first.length})
		}
	}
	return list, nil
}

// ordinal tells whether days of the week are counted, as in the second Monday.
func ordinal(days []rrule.Weekday) bool {
	return slices.ContainsFunc(days, func(d rrule.Weekday) bool { return d.N() != 0 })
}

// occasionOf is when an event is for the first time.
func occasionOf(e *ics.ComponentBase, zone *time.Location) (occasion, error) {
	start, err := moment(e.GetProperty(ics.ComponentPropertyDtStart), zone)
	if err != nil {
		return occasion{}, err
	}
	if start.Year() < 1970 || start.Year() > 2200 {
		return occasion{}, errors.New("its dates are not between 1970 and 2200")
	}
	whole := !strings.Contains(text(e, ics.ComponentPropertyDtStart), "T")
	switch length := text(e, ics.ComponentPropertyDuration); {
	case e.GetProperty(ics.ComponentPropertyDtEnd) != nil:
		end, err := moment(e.GetProperty(ics.ComponentPropertyDtEnd), zone)
		if err != nil {
			return occasion{}, err
		}
		return occasion{start, shown(end.In(start.Location())).Sub(shown(start))}, nil
	case length != "":
		d, err := readDuration(length)
		return occasion{start, d}, err
	case whole:
		return occasion{start, 24 * time.Hour}, nil
	}
	return occasion{start, 0}, nil
}

// shown is what clocks show at a moment, as if none ever changed.
func shown(t time.Time) time.Time {
	return time.Date(t.Year(), t.Month(), t.Day(), t.Hour(), t.Minute(), t.Second(), 0, time.UTC)
}

// moment reads a date or a time, in its own time zone or else in the one given.
func moment(p *ics.IANAProperty, zone *time.Location) (time.Time, error) {
	if p == nil {
		return time.Time{}, errors.New("it does not say when it begins")
	}
	value := strings.TrimSpace(p.Value)
	if !strings.Contains(value, "T") {
		t, err := time.ParseInLocation(dateOnly, value, zone)
		if err != nil {
			err = fmt.Errorf("no date %q", value)
		}
		return t, err
	}
	if ids := p.ICalParameters["TZID"]; len(ids) > 0 {
		own, err := time.LoadLocation(strings.Trim(ids[0], `"`))
		if err != nil {
			return time.Time{}, fmt.Errorf("its time zone %q is not known", ids[0])
		}
		zone = own
	}
	if utc, ok := strings.CutSuffix(value, "Z"); ok {
		value, zone = utc, time.UTC
	}
	t, err := time.ParseInLocation("20060102T150405", value, zone)
	if err != nil {
		err = fmt.Errorf("no time %q", value)
	}
	return t, err
}

// readDuration reads a duration of RFC 5545, 3.3.6: P1W, P1DT2H, PT45M.
func readDuration(text string) (time.Duration, error) {
	wrong := fmt.Errorf("no length %q", text)
	date, clock, timed := strings.Cut(strings.TrimPrefix(text, "P"), "T")
	if !strings.HasPrefix(text, "P") || date == "" && clock == "" || timed && clock == "" {
		return 0, wrong
	}
	var sum time.Duration
	units := map[string]time.Duration{"W": 7 * 24 * time.Hour, "D": 24 * time.Hour}
	for _, part := range []string{date, clock} {
		for part != "" {
			i := strings.IndexFunc(part, func(r rune) bool { return r < '0' || r > '9' })
			if i <= 0 {
				return 0, wrong
			}
			n, err := strconv.Atoi(part[:i])
			unit, known := units[part[i:i+1]]
			if err != nil || !known || n > 10_000 {
				return 0, wrong
			}
			sum += time.Duration(n) * unit
			part = part[i+1:]
		}
		units = map[string]time.Duration{"H": time.Hour, "M": time.Minute, "S": time.Second}
	}
	return sum, nil
}

// mondayOf is the start of a week at a site.
func mondayOf(d week.Date, zone *time.Location) time.Time {
	return d.Add(-int(d.Weekday())).At(0, zone)
}
