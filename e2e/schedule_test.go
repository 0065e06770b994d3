package e2e

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"wakefield.example/core/week"
)

// name is the point on a channel's name.
func (p *page) name(channel string) point {
	p.Helper()
	box := eval[[]float64](p,
		fmt.Sprintf(`(() => { const b = document.querySelector('[data-channel=%q] .name').getBoundingClientRect(); return [b.left + 5, b.top + 8] })()`, channel))
	return point{box[0], box[1]}
}

func (p *page) double(at point) {
	p.Helper()
	p.do(chromedp.MouseClickXY(at.x, at.y), chromedp.MouseClickXY(at.x, at.y, chromedp.ClickCount(2)))
}

func TestWholeDayAndWholeWeekInOneAct(t *testing.T) {
	s, p := quay(t)
	p.click(`[data-duty="off"]`)
	p.double(p.on("booth", 2*1440+600))
	p.revision(2)
	for at, want := range map[week.Minute]string{2*week.Day - 1: "clock", 2 * week.Day: "off", 3*week.Day - 1: "off", 3 * week.Day: "clock"} {
		if got := s.duty(t, "booth", at); got != want {
			t.Errorf("booth at %v: %s, want %s", at, got, want)
		}
	}
	p.double(p.name("kiosk"))
	p.revision(3)
	if own := s.plan(t).Channel("kiosk").Week.Own; own == nil || own.Otherwise != "off" || len(own.Blocks) != 0 {
		t.Errorf("kiosk: %+v", own)
	}
	// A single click still paints its half hour, also when another follows at once elsewhere.
	fuel, slipway := p.on("fuel", 600), p.on("slipway", 600)
	p.do(chromedp.MouseClickXY(fuel.x, fuel.y), chromedp.MouseClickXY(slipway.x, slipway.y))
	p.revision(5)
	if got := s.duty(t, "slipway", 600); got != "off" {
		t.Errorf("the second click painted %s", got)
	}
	if s.duty(t, "fuel", 600) != "off" || s.duty(t, "fuel", 660) == "off" {
		t.Errorf("a click painted %s, %s", s.duty(t, "fuel", 600), s.duty(t, "fuel", 660))
	}
}

func TestCopyByKeysIsCountedFirst(t *testing.T) {
	s, p := quay(t)
	p.choose("kiosk")
	p.keys("c", kb.ModifierCtrl)
	p.choose("booth", "waiting")
	p.shows(`[data-test="stroke"]`, "The week of Kiosk front onto Ticket booth, Waiting room")
	p.shows(`[data-test="draft"]`, "on 2 channels")
	p.keys("v", kb.ModifierCtrl)
	p.revision(2)
	if a, b := s.plan(t).WeekOf(s.plan(t).Channel("kiosk")).Steps(),
		s.plan(t).WeekOf(s.plan(t).Channel("booth")).Steps(); fmt.Sprint(a) != fmt.Sprint(b) {
		t.Errorf("the booth's week is %v, not %v", b, a)
	}
	p.keys("z", kb.ModifierCtrl)
	p.revision(3)
	p.keys(kb.Escape)
	// A day under the cursor, onto another day of another channel.
	eval[bool](p, `(document.querySelector('[role="grid"]').focus(), true)`)
	p.keys(kb.ArrowDown) // Monday of the hall
	p.keys("c", kb.ModifierCtrl)
	p.keys(kb.ArrowDown)
	p.keys(kb.ArrowRight, kb.ModifierCtrl) // Tuesday of the booth
	p.shows(`[data-test="stroke"]`, "Monday of Ticket hall onto Tue, on Ticket booth")
	p.keys("v", kb.ModifierCtrl)
	p.revision(4)
	if got := s.duty(t, "booth", week.Day+23*60); got != s.duty(t, "hall", 23*60) || s.duty(t, "booth", 23*60) != "clock" {
		t.Errorf("Tuesday night of the booth: %s", got)
	}
}

func TestDaysAndWeeksAreDraggedOntoOthers(t *testing.T) {
	s, p := quay(t)
	p.click(`[data-duty="off"]`)
	p.double(p.on("booth", 600))
	p.revision(2)
	p.choose("booth")
	heading := func(day int) point {
		box := eval[[]float64](p,
			fmt.Sprintf(`(() => { const b = document.querySelector('[data-day-heading="%d"]').getBoundingClientRect(); return [b.left + 60, b.top + 8] })()`, day))
		return point{box[0], box[1]}
	}
	p.press(heading(0), heading(2))
	p.shows(`[data-test="stroke"]`, "Monday onto Tue, Wed, on Ticket booth")
	p.shows(`[data-test="draft"]`, "48.0 h a week")
	p.mouse(input.DispatchMouseEventTypeMouseReleased, heading(2), chromedp.ButtonLeft)
	p.revision(3)
	if s.duty(t, "booth", 2*week.Day+60) != "off" || s.duty(t, "booth", 3*week.Day+60) != "clock" {
		t.Errorf("Wednesday %s, Thursday %s", s.duty(t, "booth", 2*week.Day+60), s.duty(t, "booth", 3*week.Day+60))
	}
	p.press(p.name("booth"), p.name("waiting"))
	p.shows(`[data-test="stroke"]`, "The week of Ticket booth onto Waiting room")
	p.keys(kb.Escape)
	p.until(`!document.querySelector('[data-test="stroke"]')`)
	p.mouse(input.DispatchMouseEventTypeMouseReleased, p.name("waiting"), chromedp.ButtonLeft)
	p.drag(p.name("booth"), p.name("waiting"))
	p.revision(4)
	if s.duty(t, "waiting", 60) != "off" {
		t.Errorf("the waiting room's Monday: %s", s.duty(t, "waiting", 60))
	}
}

func TestEdgesAreDraggedToTheMinute(t *testing.T) {
	s, p := quay(t)
	p.item(`[data-day="tue"]`, "Look closer at Tuesday")
	p.until(`!!document.querySelector('[data-test="whole-week"]')`)
	// The ticket booth is painted from 06:00 to 22:00 first; a day is 1,440 minutes wide.
	on := func(channel string, minute int) point { return p.on(channel, 7*minute) }
	p.click(`[data-duty="off"]`)
	p.drag(on("booth", 360), on("booth", 1320))
	p.revision(2)
	p.mouse(input.DispatchMouseEventTypeMouseMoved, on("booth", 360))
	p.until(`!!document.querySelector('.rows.edge')`)
	p.press(on("booth", 360), on("booth", 447))
	p.shows(`[data-test="stroke"]`, "Edge in hand")
	p.shows(`[data-test="stroke"]`, "Round the clock")
	p.mouse(input.DispatchMouseEventTypeMouseReleased, on("booth", 447), chromedp.ButtonLeft)
	p.revision(3)
	edge := 0
	painted := s.plan(t)
	steps := painted.WeekOf(painted.Channel("booth")).Steps()
	for m := 360; m < 600; m++ {
		if steps.At(week.Day+week.Minute(m)) == "off" {
			edge = m
			break
		}
	}
	// Where the pointer was let go, to the minute: a pixel is less than two.
	box := eval[[]float64](p,
		`(({left, width}) => [left, width])(document.querySelector('[data-channel="booth"] .time').getBoundingClientRect())`)
	want := int(math.Round((math.Floor(on("booth", 447).x) - box[0]) / box[1] * 1440))
	if edge != want && edge != 447 || math.Abs(float64(want)-447) > 2 {
		t.Errorf("the edge is at minute %d, dragged to 447, on a pixel at %d", edge, want)
	}
}

// wheel turns the wheel while Ctrl is held.
func (p *page) wheel(at point, by float64) {
	p.Helper()
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseWheel, at.x, at.y, func(e *input.DispatchMouseEventParams) {
		e.DeltaX, e.DeltaY, e.Modifiers = 0.001, by, int64(kb.ModifierCtrl)
	}))
}

func TestZoomByWheelAndKeys(t *testing.T) {
	_, p := quay(t)
	at := p.on("booth", 3*1440)
	p.mouse(input.DispatchMouseEventTypeMouseMoved, at)
	for range 6 {
		p.wheel(at, -300)
	}
	p.until(`!!document.querySelector('[data-test="whole-week"]') && [...document.querySelectorAll('.hour')].some(e => e.innerText.includes(':'))`)
	p.mouse(input.DispatchMouseEventTypeMouseMoved, at) // the moment under the pointer stayed where it was
	p.until(`/Thu 00:0|Wed 23:5/.test(document.querySelector('.look').innerText)`)
	p.keys("0")
	p.until(`!document.querySelector('[data-test="whole-week"]')`)
	p.keys("+")
	p.until(`!!document.querySelector('[data-test="whole-week"]')`)
	p.click(`[data-test="whole-week"]`)
	p.until(`document.querySelectorAll('[data-day]').length === 7`)
}

func TestRowsAreFoundOrderedAndInked(t *testing.T) {
	_, p := quay(t)
	shown := func() string {
		return eval[string](p,
			`[...document.querySelectorAll('[data-channel]')].sort((a, b) => a.getBoundingClientRect().top - b.getBoundingClientRect().top).map(e => e.dataset.channel).join(' ')`)
	}
	p.click(`[data-test="find-channels"]`)
	p.keys("lane")
	p.until(`document.querySelectorAll('[data-channel]').length === 4`)
	for range 4 {
		p.keys(kb.Backspace)
	}
	p.click(`[data-test="arrange"]`)
	p.click(`[data-test="grouped"]`)
	p.click(`[data-sort="gigabytes"]`)
	p.until(`!document.querySelector('.group')`)
	if got := shown(); !strings.HasPrefix(got, "booth hall") {
		t.Errorf("by GB a day: %s", got)
	}
	p.click(`[data-test="only-findings"]`)
	p.until(`document.querySelectorAll('[data-channel]').length < 12`)
	ink := func() string {
		return eval[string](p, `document.querySelector('[data-channel="booth"] canvas').toDataURL()`)
	}
	before := ink()
	p.click(`[data-ink="disk"]`)
	p.until(`document.querySelector('[data-channel="booth"] canvas').toDataURL() !== '` + before + `'`)
}

func TestTideOfASelectionAndATime(t *testing.T) {
	s, p := quay(t)
	whole := p.text(`[data-test="tide-says"] dd`)
	p.choose("booth")
	p.click(`[data-test="tide-of"]`)
	p.until(`document.querySelector('[data-test="tide-says"] dd').innerText !== '` + whole + `'`)
	box := eval[[]float64](p,
		`(() => { const b = document.querySelector('[data-test="tide"]').getBoundingClientRect(); return [b.left, b.top + 40, b.width] })()`)
	at := func(minute float64) point { return point{box[0] + box[2]*minute/10080, box[1]} }
	p.drag(at(1440+480), at(1440+960))
	p.shows(".tide", "Tue 08:00 to Tue 16:00")
	p.shows(`[data-test="tide-says"]`, "written in it")
	p.click(`[data-duty="off"]`)
	p.click(`[data-test="brush-paint"]`)
	p.revision(2)
	if s.duty(t, "booth", week.Day+600) != "off" || s.duty(t, "booth", week.Day+1000) != "clock" {
		t.Errorf("%s, %s", s.duty(t, "booth", week.Day+600), s.duty(t, "booth", week.Day+1000))
	}
	p.click(`[data-test="brush-zoom"]`)
	p.until(`!!document.querySelector('[data-test="whole-week"]')`)
}

func TestHistoryIsLookedAtBeforeReturning(t *testing.T) {
	s, p := quay(t)
	p.click(`[data-duty="off"]`)
	p.double(p.on("booth", 600))
	p.revision(2)
	p.open("/sites/quay/history", ".history ol > li")
	p.click(`[data-preview="1"]`)
	p.shows(`[data-test="preview"]`, "Revision 1")
	p.shows(`[data-test="preview"]`, "1 channel")
	if n := eval[int](p, `document.querySelectorAll('[data-test="preview"] .row.other').length`); n != 1 {
		t.Errorf("%d channels stand out", n)
	}
	if v := s.plan(t).Channel("booth").Week.Own; v == nil || s.duty(t, "booth", 600) != "off" {
		t.Error("looking at a revision changed the plan")
	}
	p.click(`[data-return="1"]`)
	p.shows(".history", "Back to revision 1")
}

func TestCommandBoxAndShortcuts(t *testing.T) {
	_, p := quay(t)
	p.keys("k", kb.ModifierCtrl)
	p.until(`document.activeElement?.dataset.test === 'command'`)
	p.keys("gangway b")
	p.shows(`[role="option"]`, "Gangway B")
	p.keys(kb.Enter)
	p.shows(painting, "painting 1 channel")
	p.keys("k", kb.ModifierCtrl)
	p.until(`document.activeElement?.dataset.test === 'command'`)
	p.keys("recorders")
	p.keys(kb.Enter)
	p.until(`location.pathname.endsWith('/kit/recorders')`)
	p.keys("?")
	p.shows(`.el-dialog`, "Keys, gestures and words")
	p.keys(kb.Escape)
	p.until(`[...document.querySelectorAll('.el-dialog')].every(e => !e.offsetParent)`)
}

func TestReadyMadeDuties(t *testing.T) {
	s, p := quay(t)
	p.click(`[data-test="new-duty"]`)
	p.click(`[data-ready="keyframes"]`)
	p.shows(".says", "Idle: keyframes of the main stream. On motion: the main stream.")
	p.pick(`[data-layer="event"] [data-choice="Frames"]`, "fewer frames")
	p.shows(".says", "at 10 frames a second")
	p.pick(`[data-layer="event"] [data-choice="Bitrate"]`, "a share of it")
	p.pick(`[data-layer="base"] [data-choice="Bitrate"]`, "better or worse pictures")
	p.fill(`[data-layer="base"]`, "Steps of quality, −4 to 4", "-2")
	p.shows(".says",
		"keyframes of the main stream, quality 2 steps lower. On motion: the main stream at 10 frames a second, 50 % of the bitrate")
	p.click(`[data-test="duty-keep"]`)
	p.revision(2)
	if d := s.plan(t).Duty("keyframes-then-full"); d == nil || !d.Base.KeyframesOnly || d.Event.FPS != 10 ||
		d.Event.Percent != 50 || d.Base.Quality != -2 {
		t.Errorf("%+v", d)
	}
	p.until(`[...document.querySelectorAll('.el-overlay')].every(e => !e.offsetParent && getComputedStyle(e).display === 'none')`)
	p.click(`[data-test="edit-duty"]`) // what it asks for is there when it is opened again
	p.shows(".says", "quality 2 steps lower. On motion: the main stream at 10 frames a second, 50 % of the bitrate")
}
