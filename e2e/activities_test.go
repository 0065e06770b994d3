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

func TestAnEventLogMeasuresAnActivity(t *testing.T) {
	s, p := kit(t, "activities", `[data-activity="passengers"]`)
	p.click(`[data-activity="kiosk"]`)
	var log strings.Builder
	log.WriteString("camera,begin,end\n")
	for day := 1; day <= 28; day++ {
		for hour := 9; hour < 18; hour++ {
			fmt.Fprintf(&log, "Kiosk front,2026-09-%02d %02d:10:00,2026-09-%02d %02d:10:45\n", day, hour, day, hour)
		}
	}
	log.WriteString("Kiosk front,yesterday,today\n")
	file := filepath.Join(t.TempDir(), "events.csv")
	os.WriteFile(file, []byte(log.String()), 0o644)
	p.do(chromedp.SetUploadFiles(chromedp.CSS(`[data-test="log-file"] input`), []string{file}, chromedp.NodeReady))
	p.shows(`[data-test="log-says"]`, "252 events")
	p.shows(`[data-test="log-says"]`, "9.00 a day")
	p.shows(".el-dialog", "1 line left out")
	// Kept for twice as long, the same events happen half as often.
	until := func(date string) {
		eval[bool](p, `(document.querySelector('[data-test="log-to"] input').select(), true)`)
		p.keys(date + kb.Enter)
	}
	until("2026-10-26")
	p.shows(`[data-test="log-says"]`, "4.50 a day")
	until("soon")
	p.shows(`[data-test="log-to"]`, "is not a date")
	until("2026-08-01")
	p.shows(`[data-test="log-to"]`, "before its first date")
	p.shows(`[data-test="log-says"]`, "4.50 a day")
	until("2026-09-28")
	p.shows(`[data-test="log-says"]`, "9.00 a day")
	p.isClean("the import of a log")
	p.click(`[data-test="accept-log"]`)
	p.revision(2)
	a := s.plan(t).Activity("kiosk")
	if a.Known != "measured" || a.MeanSeconds != 45 || a.Name != "Kiosk" || a.Process().PerDay() < 8.9 || a.Process().PerDay() > 9.1 {
		t.Errorf("%+v", a)
	}
}

func TestAnEventLogIsPasted(t *testing.T) {
	s, p := kit(t, "activities", `[data-activity="passengers"]`)
	var log strings.Builder
	for day := 1; day <= 20; day++ {
		fmt.Fprintf(&log, "%02d.09.2026 08:00:00\t00:01:30\n", day)
	}
	p.click(`[data-activity="workshop"]`)
	p.paste("when\tlasted\n" + log.String())
	p.shows(`[data-test="log-says"]`, "20 events")
	p.shows(`[data-test="log-says"]`, "90.0 s")
	p.click(`[data-test="accept-log"]`)
	p.revision(2)
	if a := s.plan(t).Activity("workshop"); a.Known != "measured" || a.MeanSeconds != 90 {
		t.Errorf("%+v", a)
	}
}

// TestALogOfSeveralCamerasIsAsked drops starts and stops of two cameras: nothing of it is
// accepted before it is said whose events are wanted.
func TestALogOfSeveralCamerasIsAsked(t *testing.T) {
	s, p := kit(t, "activities", `[data-activity="passengers"]`)
	var log strings.Builder
	log.WriteString("time,camera,event\n")
	for day := 1; day <= 28; day++ {
		fmt.Fprintf(&log, "2026-09-%02d 09:00:00,Shed,Motion start\n2026-09-%02d 09:00:20,Shed,Motion stop\n", day, day)
		fmt.Fprintf(&log,
			"2026-09-%02d 10:00:00,Pier,Motion start\n2026-09-%02d 10:00:40,Pier,Motion stop\n2026-09-%02d 11:00:00,Pier,Motion start\n2026-09-%02d 11:00:40,Pier,Motion stop\n", day, day, day, day)
	}
	file := filepath.Join(t.TempDir(), "cameras.csv")
	os.WriteFile(file, []byte(log.String()), 0o644)
	p.do(chromedp.SetUploadFiles(chromedp.CSS(`[data-test="log-file"] input`), []string{file}, chromedp.NodeReady))
	p.shows(`[data-test="log-channels"]`, "56 events, 2.00 a day")
	p.shows(`[data-test="log-sample"]`, "Shed")
	p.shows(`[data-test="log-sample"]`, "20.0 s")
	p.shows(".el-dialog", "Say whose events are wanted.")
	if !eval[bool](p, `document.querySelector('[data-test="accept-log"]').disabled`) {
		t.Error("it can be accepted before it was said whose events are wanted")
	}
	p.click(`[data-test="log-channels"] .many label:nth-child(1) input`)
	p.until(`!document.querySelector('[data-test="accept-log"]').disabled`)
	p.shows(`[data-test="log-says"]`, "56 events")
	p.click(`[data-test="log-channels"] > label input`)
	p.until(`!document.querySelector('[data-test="accept-log"]').disabled`)
	p.click(`[data-test="accept-log"]`)
	p.revision(2)
	shed, pier := s.plan(t).Activity("shed"), s.plan(t).Activity("pier")
	if shed == nil || pier == nil || shed.Known != "measured" || shed.MeanSeconds != 20 || pier.MeanSeconds != 40 {
		t.Errorf("%+v, %+v", shed, pier)
	}
}

func TestActivitiesAreDrawn(t *testing.T) {
	s, p := kit(t, "activities", `[data-activity="passengers"]`)
	p.click(`[data-activity="gulls"]`)
	box := eval[[]float64](p,
		`(() => { const b = document.querySelector('[data-test="rate-curve"] canvas').getBoundingClientRect(); return [b.left, b.top, b.width, b.height] })()`)
	at := func(hour int, height float64) point {
		return point{box[0] + box[2]*(float64(hour)+0.5)/168, box[1] + box[3]*(1-height)}
	}
	p.drag(at(24+6, 0.5), at(24+9, 0.6)) // Tuesday 06 to 10, meant for all working days
	p.revision(2)
	rates := s.plan(t).Activity("gulls").Rates()
	if rates.At(4*1440+8*60) != rates.At(1440+6*60) || rates.At(4*1440+8*60) == rates.At(5*1440+8*60) {
		t.Errorf("%v", rates)
	}
	before := rates.At(12 * 60)
	eval[bool](p, `(document.querySelector('[data-test="rate-curve"]').focus(), true)`)
	for range 30 - 12 {
		p.keys(kb.ArrowLeft) // from Tuesday 06 to Monday 12
	}
	p.keys(kb.ArrowUp)
	p.revision(3)
	if after := s.plan(t).Activity("gulls").Rates().At(12 * 60); after <= before {
		t.Errorf("%v an hour at Monday noon, before %v", after, before)
	}
	p.item(`[data-test="template"]`, "A lane for vehicles")
	p.revision(4)
	p.shows(".entry.here", "A lane for vehicles")
	p.click(`[data-test="remove-activity"]`)
	p.revision(5)
	p.click(`[data-activity="fuel-door"]`)
	p.click(`[data-test="remove-activity"]`)
	p.shows("main", "name another activity for it")
}

// TestEventsComeInGroups makes and unmakes groups, and reads what they do to the days.
func TestEventsComeInGroups(t *testing.T) {
	s, p := quayAt(t, "/kit/activities", `[data-activity="booth"]`)
	p.click(`[data-activity="gangway"]`)
	p.shows(`[data-test="groups"]`, "about 4 at a time, within 90 s")
	p.shows(`[data-test="without-groups"]`, "If each came by itself: 35.4 days kept (−1.7")
	if n := eval[int](p, `document.querySelectorAll('[data-test="sample"] rect').length`); n < 20 || n > 150 {
		t.Errorf("%d events in the busiest hour", n)
	}
	before := p.text(verdict)
	p.click(`[data-test="ungroup"]`)
	p.revision(2)
	p.shows(`[data-test="groups"]`, "each by itself")
	if g := s.plan(t).Activity("gangway").Groups; g == nil || g.Size != 1 {
		t.Errorf("%+v", g)
	}
	p.shows(`[data-test="without-groups"]`, "If they came about 3 at a time, within 60 s: ")
	if after := p.text(verdict); after != "35.4 days" || after == before {
		t.Errorf("the verdict was %s and is %s", before, after)
	}
	p.click(`[data-test="group"]`)
	p.revision(3)
	if g := s.plan(t).Activity("gangway").Groups; g == nil || g.Size != 3 || g.WithinSeconds != 60 {
		t.Errorf("%+v", g)
	}
	p.click(`[data-activity="kiosk"]`)
	p.shows(`[data-test="groups"]`, "each by itself, as far as is known")
	p.click(`[data-test="ungroup"]`)
	p.revision(4)
	p.until(`document.querySelector('[data-test="groups"]').innerText === 'each by itself'`)
	p.click(`[data-test="leave-open"]`)
	p.revision(5)
	p.shows(`[data-test="groups"]`, "as far as is known")
	if g := s.plan(t).Activity("kiosk").Groups; g != nil {
		t.Errorf("%+v", g)
	}
}

// TestWhatIsWorthMeasuringIsListed reads which unknowns matter most; once one is measured
// it is not listed any more.
func TestWhatIsWorthMeasuringIsListed(t *testing.T) {
	_, p := quayAt(t, "/kit/site", `[data-test="knowing"]`)
	p.until(`document.querySelectorAll('[data-test="knowing"] li').length > 2`)
	first := p.text(`[data-test="knowing"] li span`)
	p.shows(`[data-test="common"]`, "% of the doubt is common to the site")
	if !strings.HasPrefix(first, "how often and how long “") && !strings.HasPrefix(first, "whether events of “") &&
		!strings.HasPrefix(first, "the bitrates of ") {
		t.Errorf("first of all %q", first)
	}
	p.open("/sites/quay/kit/activities", `[data-activity="vehicles"]`)
	p.click(`[data-activity="vehicles"]`)
	p.pick(`[data-choice="Known as"]`, "measured")
	p.revision(2)
	p.open("/sites/quay/kit/site", `[data-test="knowing"]`)
	p.until(`document.querySelectorAll('[data-test="knowing"] li').length > 2`)
	if all := p.text(`[data-test="knowing"]`); strings.Contains(all, "Vehicles in the lanes") {
		t.Error("what is measured is still worth measuring")
	}
}

// TestARateIsTypedForTypedHours sets a rate to the minute, and refuses one that is none.
func TestARateIsTypedForTypedHours(t *testing.T) {
	s, p := kit(t, "activities", `[data-activity="kiosk"]`)
	p.click(`[data-activity="kiosk"]`)
	p.click(`[data-field="typed-rate"]`)
	p.keys("12,5")
	p.click(`[data-test="typed-hours"] label:last-of-type input`)
	p.keys("Mon-Tue 06:10-06:50" + kb.Enter)
	p.revision(2)
	for at, want := range map[week.Minute]float64{6*60 + 10: 12.5, week.Day + 6*60 + 49: 12.5} {
		if got := s.plan(t).Activity("kiosk").Rates().At(at); got != want {
			t.Errorf("%v an hour at %s", got, at)
		}
	}
	if got := s.plan(t).Activity("kiosk").Rates().At(6*60 + 50); got == 12.5 {
		t.Error("the rate goes on")
	}
	p.click(`[data-field="typed-rate"]`)
	p.keys("1,500")
	p.click(`[data-test="typed-hours"] label:last-of-type input`)
	p.keys("Mon 06:10-06:50" + kb.Enter)
	p.shows(`[data-test="typed-hours"]`, "can mean two numbers")
}
