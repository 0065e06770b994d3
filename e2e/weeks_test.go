package e2e

import (
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"wakefield.example/core/week"
)

func TestNamedWeeks(t *testing.T) {
	s, p := quay(t)
	eval[bool](p, `(document.querySelector('[data-menu="kiosk"]').click(), true)`)
	p.click(`[data-test="keep-week"]`)
	p.keys("Kiosk hours")
	p.keys(kb.Enter)
	p.revision(2)
	if w := s.plan(t).Channel("kiosk").Week.Named; w != "kiosk-hours" {
		t.Errorf("the kiosk follows %q", w)
	}
	p.choose("booth")
	p.open("/sites/quay/weeks", `[data-week="kiosk-hours"]`)
	p.click(`[data-duty="off"]`)
	box := eval[[]float64](p,
		`(() => { const b = document.querySelector('[data-week="kiosk-hours"] .ribbon').getBoundingClientRect(); return [b.left, b.top + 8, b.width] })()`)
	at := func(minute float64) point { return point{box[0] + box[2]*minute/10080, box[1]} }
	p.drag(at(6*1440), at(6*1440+1440))
	p.revision(3)
	if got := s.duty(t, "kiosk", 6*week.Day+600); got != "off" {
		t.Errorf("Sunday at the kiosk: %s", got)
	}
	p.click(`[data-week="kiosk-hours"] [data-test="depart-all"]`)
	p.revision(4)
	if s.plan(t).Channel("kiosk").Week.Own == nil {
		t.Error("the kiosk did not depart")
	}
	p.click(`[data-week="hall"] [data-test="remove-week"]`)
	p.revision(5)
	p.until(`!document.querySelector('[data-week="hall"]')`)
	if s.plan(t).Channel("hall").Week.Own == nil {
		t.Error("the hall lost its week with the name")
	}
	p.click(`[data-test="new-week"]`)
	p.revision(6)
	calendar := eval[string](p, `fetch('/api/plans/quay/weeks/lanes/calendar').then(r => r.text())`)
	if !strings.Contains(calendar, "RRULE:FREQ=WEEKLY") || !strings.Contains(calendar, "TZID:Europe/Dublin") {
		t.Errorf("%.300s", calendar)
	}
}

// TestAWeekIsTypedAndMadeOfACalendar types hours into a named week, and makes another of
// the hours that a calendar has.
func TestAWeekIsTypedAndMadeOfACalendar(t *testing.T) {
	s, p := quayAt(t, "/weeks", `[data-week="lanes"]`)
	p.click(`[data-duty="off"]`)
	p.click(`[data-week="lanes"] [data-test="typed-hours"] input`)
	p.keys("sun 7.45-9" + kb.Enter)
	p.revision(2)
	if w := s.plan(t).Weeks[2].Steps(); w.At(6*week.Day+7*60+45) != "off" || w.At(6*week.Day+7*60+44) == "off" {
		t.Errorf("%+v", w)
	}
	p.click(`[data-week="lanes"] [data-test="typed-hours"] input`)
	p.keys("sun 25-9" + kb.Enter)
	p.shows(`[data-week="lanes"] [role="alert"]`, "25")

	p.click(`[data-duty="motion"]`)
	file := filepath.Join(t.TempDir(), "Opening hours.ics")
	os.WriteFile(file, []byte("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\n"+
		"BEGIN:VEVENT\r\nUID:1\r\nSUMMARY:Open\r\nDTSTART:20260105T074500\r\nDTEND:20260105T161000\r\nRRULE:FREQ=WEEKLY;BYDAY=MO,TU\r\nEND:VEVENT\r\n"+
		"BEGIN:VEVENT\r\nUID:2\r\nSUMMARY:Round the clock\r\nDTSTART:20260103T220000\r\nDURATION:PT6H\r\nRRULE:FREQ=WEEKLY\r\nEND:VEVENT\r\n"+
		"BEGIN:VEVENT\r\nUID:3\r\nSUMMARY:Fair\r\nDTSTART:20250709T100000\r\nDTEND:20250709T180000\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"), 0o644)
	p.do(chromedp.SetUploadFiles(chromedp.CSS(`[data-test="week-file"] input`), []string{file}, chromedp.NodeReady))
	p.shows(`[data-test="week-says"]`, "Mon-Tue 07:45-16:10")
	p.shows(`[data-test="week-says"]`, "Fair: it is not in the week from")
	p.isClean("a week from a calendar")
	p.click(`[data-test="create-week"]`)
	p.revision(3)
	made := s.plan(t).Weeks[len(s.plan(t).Weeks)-1]
	for at, duty := range map[week.Minute]string{7*60 + 44: "off", 7*60 + 45: "motion", week.Day + 16*60 + 9: "motion", 5*week.Day +
		22*60: "clock", 6*week.Day + 4*60: "off"} {
		if got := made.Steps().At(at); got != duty {
			t.Errorf("%s at %s, want %s", got, at, duty)
		}
	}
	if made.Name != "Opening hours" {
		t.Errorf("named %q", made.Name)
	}
}

func TestSpecialDays(t *testing.T) {
	s, p := quayAt(t, "/weeks", `[data-tab="days"]`)
	p.click(`[data-tab="days"]`)
	p.until(`!!document.querySelector('[data-date$="-03-17"]')`)
	p.still(`[data-date$="-03-17"]`)
	year := eval[string](p, `document.querySelector('.year b').innerText`)
	place := func(date string) point {
		box := eval[[]float64](p,
			fmt.Sprintf(`(() => { const b = document.querySelector('[data-date="%s-%s"]').getBoundingClientRect(); return [b.left + 5, b.top + 5] })()`, year, date))
		return point{box[0], box[1]}
	}
	p.drag(place("03-17"), place("03-19"))
	p.revision(2)
	days := s.plan(t).Site.SpecialDays
	if len(days) != 4 || days[0].From.String() != year+"-03-17" || days[0].To.String() != year+"-03-19" || *days[0].UseDay != week.Sunday {
		t.Errorf("%+v", days)
	}
	row := fmt.Sprintf(`[data-special="%s-03-17"]`, year)
	p.click(row + ` .el-switch__core`)
	p.revision(3)
	p.pick(row+` [data-choice]`, "the week “Open hours full")
	p.revision(4)
	if d := s.plan(t).Site.SpecialDays[0]; d.Week != "hall" || d.UseDay != nil || !d.Yearly {
		t.Errorf("%+v", d)
	}
	file := filepath.Join(t.TempDir(), "dates.ics")
	os.WriteFile(file,
		[]byte("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:1\r\nSUMMARY:Regatta\r\nDTSTART;VALUE=DATE:20270612\r\nEND:VEVENT\r\n"+
			"BEGIN:VEVENT\r\nUID:2\r\nSUMMARY:Meeting\r\nDTSTART:20270612T080000Z\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"), 0o644)
	p.do(chromedp.SetUploadFiles(chromedp.CSS(`[data-test="calendar-file"] input`), []string{file}, chromedp.NodeReady))
	p.shows(`[data-test="calendar-says"]`, "1 special day")
	p.shows(`[data-test="calendar-says"]`, "Meeting: it has a time of day")
	p.click(`[data-test="accept-calendar"]`)
	p.revision(5)
	if days := s.plan(t).Site.SpecialDays; len(days) != 5 || days[4].Name != "Regatta" {
		t.Errorf("%+v", days)
	}
	p.pick(row+` [data-test="happens"] [data-choice]`, "as on a Friday")
	p.revision(6)
	if d := s.plan(t).Site.SpecialDays[0]; d.Week != "hall" || d.ActivityDay == nil || *d.ActivityDay != week.Friday {
		t.Errorf("%+v", d)
	}
}

// TestDatesAreTypedAsPeopleWriteThem types dates into special days: each is one edit once
// it is complete, and one that is refused stays with its reason.
func TestDatesAreTypedAsPeopleWriteThem(t *testing.T) {
	s, p := quayAt(t, "/weeks", `[data-tab="days"]`)
	p.click(`[data-tab="days"]`)
	field := func(which string) string { return `[data-special="2026-12-25"] [data-test="` + which + `"] input` }
	enter := func(which, text string) {
		t.Helper()
		p.until(`!!document.querySelector('` + field(which) + `')`)
		eval[bool](p, `(document.querySelector('`+field(which)+`').focus(), document.querySelector('`+field(which)+`').select(), true)`)
		p.keys(text)
		p.keys(kb.Enter)
	}
	for text, why := range map[string]string{
		"24.12.26": "the year has four digits", "soon": "is not a date", "02/30/2027": "there is no 30. of month 02 in 2027",
		"2026-12-20": "before its first date", "2026-13-01": "there is no",
	} {
		enter("to", text)
		p.shows(`[data-special="2026-12-25"] [role="alert"]`, why)
	}
	revision := 1
	// The browser of the test writes month, day, year.
	for _, test := range []struct{ text, want string }{{"01022027", "2027-01-02"}, {"2027-01-05", "2027-01-05"}, {"1/6/2027", "2027-01-06"},
		{"7 Jan 2027", "2027-01-07"}} {
		enter("to", test.text)
		revision++
		p.revision(revision)
		if got := s.plan(t).Site.SpecialDays[1].To.String(); got != test.want {
			t.Errorf("%q is %s, want %s", test.text, got, test.want)
		}
	}
	enter("to", "2027-01-07") // which it is already
	enter("from", "2027-02-01")
	p.shows(`[data-special="2026-12-25"] [role="alert"]`, "after its last date")
	if v, err := s.store.Version(t.Context(), "quay"); err != nil || v.Version != int64(revision) {
		t.Errorf("version %d after %d changes", v.Version, revision-1)
	}
}

// TestASeasonIsFeltInTheYear types how much more happens in a season, as people write
// numbers, and reads the worst date of the year.
func TestASeasonIsFeltInTheYear(t *testing.T) {
	s, p := quay(t)
	p.shows(".verdict", "28.4 on 7 Aug, High season")
	p.open("/sites/quay/weeks", `[data-tab="days"]`)
	p.click(`[data-tab="days"]`)
	p.shows(`[data-test="year-line"]`, "Array: at worst 28.4 days on 7 Aug, High season")
	p.shows(`[data-special="2026-07-10"] [data-choice]`, "its own duties")
	set := func(text string) {
		t.Helper()
		eval[bool](p,
			fmt.Sprintf(`(() => { const e = document.querySelector('[data-special="2026-07-10"] [data-test="rate-factor"]'); e.value = %q; e.dispatchEvent(new Event('change')); return true })()`, text))
	}
	set("much more")
	p.shows(`[role="alert"]`, "“much more” is not a number. 1.5 means half as much again")
	set("101")
	p.shows(`[role="alert"]`, "at most 100")
	set("2,5")
	p.revision(2)
	if f := s.plan(t).Site.SpecialDays[0].RateFactor; f == nil || *f != 2.5 {
		t.Errorf("the factor is %v", f)
	}
	p.until(`!document.querySelector('.verdict').innerText.includes('28.1 on') && document.querySelector('.verdict').innerText.includes('High season')`)
	set("1")
	p.revision(3)
	p.until(`!document.querySelector('.verdict').innerText.includes('High season')`)
}
