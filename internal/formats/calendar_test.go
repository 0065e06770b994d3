package formats

import (
	"context"
	"fmt"
	"reflect"
	"strconv"
	"strings"
	"testing"
	"time"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/core/seeded"
	"wakefield.example/core/week"
	"wakefield.example/internal/demo"
)

var written = time.Date(2026, 11, 23, 9, 0, 0, 0, time.UTC)

func TestSpecialDaysComeBack(t *testing.T) {
	p := demo.PennywhistleQuay()
	sunday := week.Sunday
	p.Site.SpecialDays = append(p.Site.SpecialDays,
		plan.SpecialDay{From: week.Date{Year: 2027, Month: 6, Day: 24}, To: week.Date{Year: 2027, Month: 6, Day: 24},
			Name: "Regatta; with, commas", Week: p.Weeks[0].ID, Yearly: true},
		plan.SpecialDay{From: week.Date{Year: 2027, Month: 12, Day: 31}, To: week.Date{Year: 2028, Month: 1, Day: 1}, Name: "Turn of the year",
			UseDay: &sunday, ActivityDay: &sunday},
		plan.SpecialDay{From: week.Date{Year: 2028, Month: 4, Day: 14}, To: week.Date{Year: 2028, Month: 4, Day: 14}, Name: "A quiet Friday",
			ActivityDay: &sunday})
	data := WriteSpecialDays(p, "quay", written)
	if !strings.Contains(string(data), "DTSTART;VALUE=DATE:20271231\r\n") || !strings.Contains(string(data), "DTEND;VALUE=DATE:20280102\r\n") {
		t.Errorf("%s", data)
	}
	got, err := ReadSpecialDays(context.Background(), data, p, week.Saturday)
	if err != nil || len(got.LeftOut) > 0 || !reflect.DeepEqual(got.Days, p.Site.SpecialDays) {
		t.Errorf("%v %+v", err, got)
	}
}

func calendar(events string) []byte {
	return []byte("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//x//y//EN\r\n" + strings.ReplaceAll(events, "\n", "\r\n") + "END:VCALENDAR\r\n")
}

func TestReadSpecialDaysOfOthers(t *testing.T) {
	event := func(lines string) string {
		return "BEGIN:VEVENT\nUID:a" + strconv.Itoa(len(lines)) + "\n" + lines + "END:VEVENT\n"
	}
	data := calendar(
		event("SUMMARY:Feast\\, long\nDTSTART;VALUE=DATE:20270501\nDTEND;VALUE=DATE:20270504\n") +
			event("SUMMARY:Alone\nDTSTART;VALUE=DATE:20270601\n") +
			event("SUMMARY:Three days\nDTSTART;VALUE=DATE:20270701\nDURATION:P3D\n") +
			event("SUMMARY:Always\nDTSTART;VALUE=DATE:20271225\nRRULE:FREQ=YEARLY;BYMONTH=12;BYMONTHDAY=25\n") +
			event("SUMMARY:Twice\nDTSTART;VALUE=DATE:20270805\nRRULE:FREQ=YEARLY;COUNT=2\n") +
			event("SUMMARY:Until\nDTSTART;VALUE=DATE:20270905\nRRULE:FREQ=YEARLY;UNTIL=20290905\nEXDATE;VALUE=DATE:20280905\n") +
			event("SUMMARY:Meeting\nDTSTART:20270601T080000Z\n") +
			event("SUMMARY:Bins\nDTSTART;VALUE=DATE:20270601\nRRULE:FREQ=WEEKLY\n") +
			event("SUMMARY:Movable\nDTSTART;VALUE=DATE:20270603\nRRULE:FREQ=YEARLY;BYMONTH=6;BYDAY=1TH\n"))
	got, err := ReadSpecialDays(context.Background(), data, demo.PennywhistleQuay(), week.Sunday)
	if err != nil {
		t.Fatal(err)
	}
	var lines []string
	for _, d := range got.Days {
		line := d.Name + " " + d.From.String() + " " + d.To.String() + " " + d.UseDay.String()
		if d.Yearly {
			line += " yearly"
		}
		lines = append(lines, line)
	}
	want := []string{
		"Feast, long 2027-05-01 2027-05-03 sun", "Alone 2027-06-01 2027-06-01 sun", "Three days 2027-07-01 2027-07-03 sun",
		"Always 2027-12-25 2027-12-25 sun yearly", "Twice 2027-08-05 2027-08-05 sun", "Twice 2028-08-05 2028-08-05 sun",
		"Until 2027-09-05 2027-09-05 sun", "Until 2029-09-05 2029-09-05 sun",
	}
	if !reflect.DeepEqual(lines, want) {
		t.Errorf("%q", lines)
	}
	if left := strings.Join(got.LeftOut,
		"; "); left != "Meeting: it has a time of day; Bins: it does not come every year; Movable: it comes on another day each year" {
		t.Errorf("%s", left)
	}
	if _, err := ReadSpecialDays(context.Background(), []byte("hello"), demo.PennywhistleQuay(), week.Sunday); err == nil {
		t.Error("a text that is no calendar is read")
	}
}

// property reads the value of a line of a calendar, with its parameters left out.
func property(component, name string) string {
	for _, line := range strings.Split(component, "\r\n") {
		head, value, ok := strings.Cut(line, ":")
		if head, _, _ = strings.Cut(head, ";"); ok && head == name {
			return value
		}
	}
	return ""
}

func components(text, name string) []string {
	var out []string
	for _, part := range strings.Split(text, "BEGIN:"+name+"\r\n")[1:] {
		inside, _, _ := strings.Cut(part, "END:"+name)
		out = append(out, inside)
	}
	return out
}

// offsetAt evaluates a VTIMEZONE as a calendar program does: the latest observance
// that began at or before a local time holds.
func offsetAt(t *testing.T, zone string, local time.Time) time.Duration {
	t.Helper()
	var latest time.Time
	result := ""
	for _, kind := range []string{"STANDARD", "DAYLIGHT"} {
		for _, o := range components(zone, kind) {
			start, err := time.Parse("20060102T150405", property(o, "DTSTART"))
			if err != nil {
				t.Fatal(err)
			}
			for year := start.Year(); year <= local.Year(); year++ {
				at := start
				if rule := property(o, "RRULE"); rule != "" {
					month, _ := strconv.Atoi(strings.Split(strings.Split(rule, "BYMONTH=")[1], ";")[0])
					by := strings.Split(rule, "BYDAY=")[1]
					nth, _ := strconv.Atoi(by[:len(by)-2])
					at = time.Date(year, time.Month(month), 1, start.Hour(), start.Minute(), 0, 0, time.UTC)
					if nth < 0 {
						at = at.AddDate(0, 1, -1)
						for at.Weekday() != time.Sunday {
							at = at.AddDate(0, 0, -1)
						}
					} else {
						for at.Weekday() != time.Sunday {
							at = at.AddDate(0, 0, 1)
						}
						at = at.AddDate(0, 0, 7*(nth-1))
					}
				} else if year > start.Year() {
					break
				}
				if !at.After(local) && at.After(latest) {
					latest, result = at, property(o, "TZOFFSETTO")
				}
			}
		}
	}
	hours, _ := strconv.Atoi(result[1:3])
	minutes, _ := strconv.Atoi(result[3:5])
	d := time.Duration(hours)*time.Hour + time.Duration(minutes)*time.Minute
	if result[0] == '-' {
		d = -d
	}
	return d
}

// TestWeekInACalendar expands the events by hand, across both changes of clocks, and
// asks what holds at every quarter of an hour.
func TestWeekInACalendar(t *testing.T) {
	for _, name := range []string{"Europe/Dublin", "America/Halifax", "Atlantic/Reykjavik", "Australia/Lord_Howe", "UTC"} {
		p := demo.PennywhistleQuay()
		p.Site.TimeZone = name
		w := p.Weeks[0]
		next, err := edit.After(p, edit.Edit{Paint: &edit.Paint{Weeks: []string{w.ID}, Duty: "off",
			Hours: []plan.Hours{{Days: []week.Weekday{week.Sunday}, From: 22*60 + 15, To: 3 * 60}}}})
		if err != nil {
			t.Fatal(err)
		}
		w = next.Weeks[0]
		steps := w.Steps()
		data, err := WriteWeek(next, &w, "quay", week.Date{Year: 2026, Month: 11, Day: 25}, written)
		if err != nil {
			t.Fatal(err)
		}
		text := strings.ReplaceAll(string(data), "\r\n ", "")
		zone, err := time.LoadLocation(name)
		if err != nil {
			t.Fatal(err)
		}
		holds := make(map[int64]string) // by Unix time
		events := components(text, "VEVENT")
		var vtimezone string
		if name != "UTC" {
			vtimezone = components(text, "VTIMEZONE")[0]
		}
		instant := func(local time.Time) int64 {
			if name == "UTC" {
				return local.Unix()
			}
			return local.Add(-offsetAt(t, vtimezone, local)).Unix()
		}
		names := map[string]string{}
		for _, d := range p.Duties {
			names[d.Name] = d.ID
		}
		for _, e := range events {
			start, err := time.Parse("20060102T150405", strings.TrimSuffix(property(e, "DTSTART"), "Z"))
			if err != nil {
				t.Fatal(err)
			}
			end, _ := time.Parse("20060102T150405", strings.TrimSuffix(property(e, "DTEND"), "Z"))
			by := strings.Split(property(e, "RRULE"), "BYDAY=")[1]
			for day := range 50 * 7 {
				at := start.AddDate(0, 0, day)
				if strings.Contains(by, icsDays[(int(at.Weekday())+6)%7]) {
					to := instant(end.AddDate(0, 0, day))
					for s := instant(at); s < to; s += 900 {
						holds[s] = names[property(e, "SUMMARY")]
					}
				}
			}
		}
		wrong := 0
		for at := time.Date(2026, 12, 1, 0, 0, 0, 0, zone); at.Before(time.Date(2027, 11, 1, 0, 0, 0, 0, zone)); at = at.Add(15 * time.Minute) {
			minute := week.Minute((int(at.Weekday())+6)%7)*week.Day + week.Minute(at.Hour()*60+at.Minute())
			if at.Minute()%15 == 0 && holds[at.Unix()] != steps.At(minute) {
				if wrong++; wrong < 4 {
					t.Errorf("%s: at %v the calendar says %q, the week %q", name, at, holds[at.Unix()], steps.At(minute))
				}
			}
		}
	}
}

func FuzzReadSpecialDays(fuzz *testing.F) {
	f := seeded.Of(fuzz, 600)
	p := demo.PennywhistleQuay()
	f.Add(WriteSpecialDays(p, "quay", written))
	f.Add(calendar("BEGIN:VEVENT\nDTSTART;VALUE=DATE:20270501\nRRULE:FREQ=YEARLY;UNTIL=2\nEND:VEVENT\n"))
	f.Fuzz(func(t *testing.T, data []byte) {
		dates, err := ReadSpecialDays(context.Background(), data, p, week.Sunday)
		if err != nil {
			return
		}
		if _, err := edit.After(p, edit.Edit{SetSpecialDays: &edit.SetSpecialDays{Days: dates.Days}}); err != nil {
			t.Errorf("what was read cannot be used: %v", err)
		}
	})
}

// TestAsManySpecialDaysAsAPlanMayHave reads a calendar of as many, and one with one more.
func TestAsManySpecialDaysAsAPlanMayHave(t *testing.T) {
	for n, ok := range map[int]bool{2000: true, 2001: false} {
		var events strings.Builder
		for i := range n {
			date := time.Date(2027, 1, 1+i, 0, 0, 0, 0, time.UTC).Format("20060102")
			fmt.Fprintf(&events, "BEGIN:VEVENT\nUID:%d\nSUMMARY:Day\nDTSTART;VALUE=DATE:%s\nEND:VEVENT\n", i, date)
		}
		got, err := ReadSpecialDays(context.Background(), calendar(events.String()), demo.PennywhistleQuay(), week.Sunday)
		if (err == nil) != ok || ok && len(got.Days)+len(got.LeftOut) != n {
			t.Errorf("%d: %v", n, err)
		}
	}
}
