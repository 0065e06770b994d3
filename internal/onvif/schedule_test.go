package onvif

import (
	"reflect"
	"testing"
)

// TestTimetablesComeBack writes a schedule with special days and reads it.
func TestTimetablesComeBack(t *testing.T) {
	s := Timetable{"A", "Week", "hours", "BEGIN:VCALENDAR", []SpecialDays{{"G", []MinuteSpan{{0, 61}, {600, 1440}}}, {"H", nil}}}
	got, err := TimetableOf(s.Element("tsc:Schedule"))
	if err != nil || !reflect.DeepEqual(got, s) {
		t.Errorf("%+v, %v", got, err)
	}
	g := DayGroup{"G", "Days", "some", "BEGIN:VCALENDAR"}
	if got := DayGroupOf(g.Element("tsc:SpecialDayGroup")); got != g {
		t.Errorf("%+v", got)
	}
}

// TestTimesOfDayAreReadAsOthersWriteThem takes fractions and zones, and refuses what is no time.
func TestTimesOfDayAreReadAsOthersWriteThem(t *testing.T) {
	for text, want := range map[string][2]int{"08:30:00": {510, 510}, "08:30:00Z": {510, 510}, "08:30:00.000+01:00": {510, 510},
		"23:59:59": {1439, 1440}, "24:00:00": {1440, 1440}} {
		for k, up := range []bool{false, true} {
			if got, err := minuteOf(text, up); err != nil || got != want[k] {
				t.Errorf("%s is %d, %v", text, got, err)
			}
		}
	}
	for _, text := range []string{"", "8", "08:30", "08:61:00", "-1:00:00", "25:00:00", "aa:bb:cc", "24:00:01", "::"} {
		if got, err := minuteOf(text, true); err == nil {
			t.Errorf("%q is %d", text, got)
		}
	}
	e := E("s", E("tsc:SpecialDays", E("tsc:TimeRange", E("tsc:From", "10:00:00"), E("tsc:Until", "09:00:00"))))
	if got, err := TimetableOf(e); err == nil {
		t.Errorf("%+v", got)
	}
}
