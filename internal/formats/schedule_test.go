package formats

import (
	"slices"
	"strings"
	"testing"
	"time"

	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// TestSchedulesOfDevicesComeBack writes hours as a device has them, and reads them; times with a zone are on the device's clocks.
func TestSchedulesOfDevicesComeBack(t *testing.T) {
	now := time.Date(2026, 11, 30, 12, 0, 0, 0, time.UTC)
	for _, text := range []string{"Mon-Fri 22:00-05:00", "00:00-24:00", "Sun 23:00-24:00, Wed 07:15-09:45", "Sat 18:00-06:00"} {
		hours, err := plan.ReadHours(text)
		if err != nil {
			t.Fatal(err)
		}
		want := plan.HourList{Blocks: hours}.Steps()
		got, err := ReadSchedule(t.Context(), WriteSchedule(hours, "Night"), now)
		if err != nil || !slices.Equal(got, want) {
			t.Errorf("%s comes back as %v, %v", text, got, err)
		}
	}
	zoned := strings.Replace(WriteSchedule([]plan.Hours{{From: 60, To: 120}}, "x"), "DTSTART:", "DTSTART;TZID=Pacific/Auckland:", 1)
	zoned = strings.Replace(zoned, "DTEND:", "DTEND;TZID=Pacific/Auckland:", 1)
	if got, err := ReadSchedule(t.Context(), zoned, now); err != nil || !got.At(90) || got.At(180) {
		t.Errorf("%v, %v", got, err)
	}
	for _, text := range []string{"", "BEGIN:VCALENDAR", strings.Repeat("x", 70_000),
		strings.Replace(WriteSchedule([]plan.Hours{{From: 60, To: 120}}, "x"), "FREQ=WEEKLY", "FREQ=YEARLY", 1)} {
		if got, err := ReadSchedule(t.Context(), text, now); err == nil {
			t.Errorf("%.40q is %v", text, got)
		}
	}
}

// TestNeverIsASchedule comes back as no hours.
func TestNeverIsASchedule(t *testing.T) {
	text := WriteSchedule(nil, "Never")
	got, err := ReadSchedule(t.Context(), text, time.Date(2026, 11, 30, 12, 0, 0, 0, time.UTC))
	if err != nil || !slices.Equal(got, week.Constant(false)) || !strings.Contains(text, "BEGIN:VEVENT") {
		t.Errorf("%v, %v", got, err)
	}
}

// TestDatesOfDevicesComeBack writes dates and reads them; those of others too, with times of midnight and every year.
func TestDatesOfDevicesComeBack(t *testing.T) {
	from := week.Date{Year: 2026, Month: 11, Day: 30}
	want := []week.Date{from, from.Add(1), from.Add(25), from.Add(26), from.Add(400)}
	got, err := ReadDates(t.Context(), WriteDates(want, "Days"), from, 731)
	if err != nil || !slices.Equal(got, want) {
		t.Errorf("%v, %v", got, err)
	}
	const others = "BEGIN:VCALENDAR\nVERSION:2.0\nPRODID:x\nBEGIN:VEVENT\nUID:1\nDTSTART%s\nDTEND%s\n%sEND:VEVENT\nEND:VCALENDAR\n"
	for _, of := range []struct {
		start, end, rule string
		days             int
	}{
		{":20261225T000000", ":20261226T000000", "", 1},
		{":20261225T000000Z", ":20261227T000000Z", "", 2},
		{";VALUE=DATE:20201225", ";VALUE=DATE:20201226", "RRULE:FREQ=YEARLY\n", 2},
		{";TZID=Europe/Berlin:20261225T000000", ";TZID=Europe/Berlin:20261226T000000", "", 1},
		{":20261225T080000", ":20261225T100000", "", -1},
		{":20261225T000000", ":20261226T000000", "RRULE:FREQ=WEEKLY\n", -1},
	} {
		text := strings.Replace(strings.Replace(strings.Replace(others, "%s", of.start, 1), "%s", of.end, 1), "%s", of.rule, 1)
		got, err := ReadDates(t.Context(), text, from, 731)
		if (err != nil) != (of.days < 0) || err == nil && (len(got) != of.days || got[0].Day != 25) {
			t.Errorf("%s: %v, %v", text, got, err)
		}
	}
}

// FuzzReadDates reads whatever devices may say; what it reads is in order and of the stretch that was asked.
func FuzzReadDates(fuzz *testing.F) {
	from := week.Date{Year: 2026, Month: 11, Day: 30}
	fuzz.Add(WriteDates([]week.Date{from, from.Add(7)}, "Days"))
	fuzz.Add("BEGIN:VCALENDAR\nBEGIN:VEVENT\nDTSTART;VALUE=DATE:20201225\nRRULE:FREQ=YEARLY\nEND:VEVENT\nEND:VCALENDAR")
	fuzz.Fuzz(func(t *testing.T, text string) {
		got, err := ReadDates(t.Context(), text, from, 731)
		if err != nil {
			return
		}
		for k, d := range got {
			if n := d.Since(from); n < 0 || n >= 731 || k > 0 && !got[k-1].Before(d) {
				t.Fatalf("%v of %q", got, text)
			}
		}
	})
}
