package onvif

import (
	"fmt"
	"math"
	"regexp"
	"strconv"
	"strings"
	"time"
)

// Seconds writes a duration of XML Schema, such as PT5S.
func Seconds(s float64) string { return "PT" + strconv.FormatFloat(s, 'f', -1, 64) + "S" }

var durationLike = regexp.MustCompile(`^(-)?P(?:(\d+)Y)?(?:(\d+)M)?(?:(\d+)D)?(?:T(?:(\d+)H)?(?:(\d+)M)?(?:(\d+(?:\.\d+)?)S)?)?$`)

// SecondsOf reads a duration of XML Schema as seconds; a year is taken as 365 days, a month as 30.
func SecondsOf(text string) (float64, error) {
	m := durationLike.FindStringSubmatch(text)
	if m == nil || text == "P" || strings.HasSuffix(text, "T") {
		return 0, fmt.Errorf("no duration %q", shortened(text))
	}
	total := 0.0
	for k, each := range []float64{365 * 86400, 30 * 86400, 86400, 3600, 60, 1} {
		if m[k+2] != "" {
			n, err := strconv.ParseFloat(m[k+2], 64)
			if err != nil {
				return 0, fmt.Errorf("no duration %q", shortened(text))
			}
			total += n * each
		}
	}
	if m[1] != "" {
		total = -total
	}
	if math.IsInf(total, 0) || math.Abs(total) > 1e12 {
		return 0, fmt.Errorf("no duration %q", shortened(text))
	}
	return total, nil
}

// Number reads a number on a path; ok is false where there is none.
func Number(e *Element, path string) (n float64, ok bool) {
	n, err := strconv.ParseFloat(Text(e, path), 64)
	return n, err == nil && !math.IsNaN(n) && !math.IsInf(n, 0)
}

// Whole reads a whole number on a path; 0 where there is none.
func Whole(e *Element, path string) int {
	n, ok := Number(e, path)
	if !ok || math.Abs(n) > 1e9 {
		return 0
	}
	return int(math.Round(n))
}

// Truth reads what XML Schema writes as a boolean.
func Truth(text string) bool { return text == "true" || text == "1" }

// Moment reads a date and time of XML Schema. One without a zone is on the clocks of zone.
func Moment(text string, zone *time.Location) (time.Time, error) {
	text = strings.TrimSpace(text)
	if t, err := time.Parse(time.RFC3339Nano, text); err == nil {
		return t, nil
	}
	t, err := time.ParseInLocation("2006-01-02T15:04:05.999999999", text, zone)
	if err != nil {
		return t, fmt.Errorf("no date and time %q", shortened(text))
	}
	return t, nil
}

// dateTime writes tt:DateTime.
func dateTime(name string, t time.Time) *Element {
	whole := func(n int) string { return strconv.Itoa(n) }
	return E(name, E("tt:Time", E("tt:Hour", whole(t.Hour())), E("tt:Minute", whole(t.Minute())), E("tt:Second", whole(t.Second()))),
		E("tt:Date", E("tt:Year", whole(t.Year())), E("tt:Month", whole(int(t.Month()))), E("tt:Day", whole(t.Day()))))
}

// SystemTime writes what a device says of its clock; zone is a POSIX time zone.
func SystemTime(t time.Time, zone string) *Element {
	return E("tds:SystemDateAndTime", E("tt:DateTimeType", "Manual"), E("tt:DaylightSavings", "false"),
		E("tt:TimeZone", E("tt:TZ", zone)), dateTime("tt:UTCDateTime", t.UTC()))
}

// SystemTimeOf reads what a device's clock shows.
func SystemTimeOf(e *Element) (time.Time, error) {
	d := At(e, "SystemDateAndTime/UTCDateTime")
	if d == nil {
		return time.Time{}, fmt.Errorf("the device does not say what its clock shows in UTC")
	}
	n := func(path string) int { return Whole(d, path) }
	t := time.Date(n("Date/Year"), time.Month(n("Date/Month")), n("Date/Day"), n("Time/Hour"), n("Time/Minute"), n("Time/Second"), 0, time.UTC)
	if t.Year() < 1970 || t.Year() > 2200 {
		return t, fmt.Errorf("the device's clock shows the year %d", t.Year())
	}
	return t, nil
}
