package formats

import (
	"context"
	"slices"
	"strings"
	"testing"

	"wakefield.example/core/edit"
	"wakefield.example/core/seeded"
	"wakefield.example/core/week"
	"wakefield.example/internal/demo"
)

var today = week.Date{Year: 2026, Month: 11, Day: 25} // a Wednesday

// TestWeeksComeBack writes named weeks as calendars and makes weeks of them again.
func TestWeeksComeBack(t *testing.T) {
	p := demo.PennywhistleQuay()
	for _, w := range p.Weeks {
		data, err := WriteWeek(p, &w, "quay", week.Date{Year: 2026, Month: 1, Day: 7}, written)
		if err != nil {
			t.Fatal(err)
		}
		read, err := ReadWeek(context.Background(), data, p, nil, today)
		if err != nil || len(read.LeftOut) > 0 {
			t.Fatalf("%s: %v, left out %v", w.ID, err, read.LeftOut)
		}
		back := week.Constant("")
		for _, events := range read.Events {
			for _, h := range events.Hours {
				for _, span := range (week.Hours{Days: h.Days, From: h.From, To: h.To}).Spans() {
					back = back.Paint(span, events.Duty)
				}
			}
		}
		if !slices.Equal(back, w.Steps()) {
			t.Errorf("%s comes back as %v, was %v", w.ID, back, w.Steps())
		}
		if !strings.HasSuffix(read.Name, ", "+w.Name) {
			t.Errorf("named %q", read.Name)
		}
	}
}

// TestReadWeekOfOthers reads what other programs write: zones, ends, exceptions.
func TestReadWeekOfOthers(t *testing.T) {
	p := demo.PennywhistleQuay()
	p.Site.TimeZone = "Europe/Berlin"
	event := func(name, lines string) string {
		return "BEGIN:VEVENT\nUID:" + name + "\nSUMMARY:" + name + "\n" + lines + "END:VEVENT\n"
	}
	data := calendar(
		event("Open",
			"DTSTART;TZID=Europe/Berlin:20260105T074500\nDTEND;TZID=Europe/Berlin:20260105T161000\nRRULE:FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR\nEXDATE;TZID=Europe/Berlin:20261124T074500\n") +
			event("OPEN", "DTSTART:20261128T080000Z\nDURATION:PT3H30M\n") +
			event("Night watch", "DTSTART:20260104T220000\nDURATION:PT8H\nRRULE:FREQ=WEEKLY;BYDAY=SA,SU\n") +
			event("Every other", "DTSTART:20261116T100000\nDTEND:20261116T110000\nRRULE:FREQ=WEEKLY;INTERVAL=2\n") +
			event("Cleaning", "DTSTART;VALUE=DATE:20261126\n") +
			event("Ended", "DTSTART:20260105T100000\nDURATION:PT1H\nRRULE:FREQ=DAILY;UNTIL=20260401T000000Z\n") +
			event("Monthly", "DTSTART:20260105T100000\nDURATION:PT1H\nRRULE:FREQ=MONTHLY\n") +
			event("Never", "DTSTART:20260105T100000\nDURATION:PT1H\nRRULE:FREQ=DAILY;INTERVAL=14;BYDAY=SU\n") +
			event("Nowhere", "DTSTART;TZID=Mars/Base:20260105T100000\nDURATION:PT1H\n") +
			event("Instant", "DTSTART:20261125T100000\n"))
	read, err := ReadWeek(context.Background(), data, p, nil, today)
	if err != nil {
		t.Fatal(err)
	}
	var lines []string
	for _, e := range read.Events {
		lines = append(lines, e.Name+" "+e.Text)
	}
	want := []string{"Open Mon, Wed, Thu, Fri 07:45-16:10", "OPEN Sat 09:00-12:30", "Night watch Sat-Sun 22:00-06:00", "Cleaning Thu"}
	if read.Monday.String() != "2026-11-23" || !slices.Equal(lines, want) {
		t.Errorf("%s: %q", read.Monday, lines)
	}
	wantOut := []string{
		"Every other: it is not in the week from 2026-11-23", "Ended: it is not in the week from 2026-11-23",
		"Monthly: it comes neither daily nor weekly",
		"Never: it comes neither every day nor on days of the week", `Nowhere: its time zone "Mars/Base" is not known`,
		"Instant: it is shorter than a minute",
	}
	if !slices.Equal(read.LeftOut, wantOut) {
		t.Errorf("left out %q", read.LeftOut)
	}
	for _, part := range []string{"BYSETPOS=1;BYDAY=MO", "BYYEARDAY=100", "BYWEEKNO=20", "BYHOUR=9", "BYMINUTE=5", "BYSECOND=5",
		"BYMONTH=11", "BYMONTHDAY=25"} {
		odd := calendar(event("Odd", "DTSTART:20260105T100000\nDURATION:PT1H\nRRULE:FREQ=DAILY;"+part+"\n") +
			event("Fair", "DTSTART:20261125T100000\nDURATION:PT1H\n"))
		if read, err := ReadWeek(context.Background(), odd, p, nil, today); err != nil || len(read.LeftOut) != 1 || len(read.Events) != 1 {
			t.Errorf("%s: %v, %+v", part, err, read)
		}
	}
	of := week.Date{Year: 2026, Month: 12, Day: 6}
	if read, err = ReadWeek(context.Background(), data, p, &of, today); err != nil || read.Monday.String() != "2026-11-30" ||
		read.Events[len(read.Events)-1].Name != "Every other" {
		t.Errorf("%v, %+v", err, read)
	}
	once := calendar(event("Fair", "DTSTART:20250709T100000\nDTEND:20250709T180000\n"))
	if read, err = ReadWeek(context.Background(), once, p, nil, today); err != nil || read.Monday.String() != "2025-07-07" ||
		read.Events[0].Text != "Wed 10:00-18:00" {
		t.Errorf("%v, %+v", err, read)
	}
	if _, err = ReadWeek(context.Background(), []byte("Mon 8-17"), p, nil, today); err == nil {
		t.Error("what is no calendar is read")
	}
}

func FuzzReadWeek(fuzz *testing.F) {
	f := seeded.Of(fuzz, 600)
	p := demo.PennywhistleQuay()
	data, err := WriteWeek(p, &p.Weeks[0], "quay", today, written)
	if err != nil {
		f.Fatal(err)
	}
	f.Add(data)
	f.Add(calendar("BEGIN:VEVENT\nDTSTART:20261123T220000\nDURATION:P1DT8H\nRRULE:FREQ=DAILY;INTERVAL=7;BYDAY=SU\nEND:VEVENT\n"))
	f.Fuzz(func(t *testing.T, data []byte) {
		read, err := ReadWeek(context.Background(), data, p, nil, today)
		if err != nil {
			return
		}
		for _, e := range read.Events {
			if _, err := edit.After(p, edit.Edit{Paint: &edit.Paint{Weeks: []string{p.Weeks[0].ID}, Hours: e.Hours,
				Duty: p.Duties[0].ID}}); err != nil {
				t.Errorf("what was read cannot be painted: %v", err)
			}
		}
	})
}
