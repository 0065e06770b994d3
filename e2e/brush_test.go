package e2e

import (
	"fmt"
	"math"
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"wakefield.example/core/plan"
	"wakefield.example/internal/demo"
)

// cider is the small sample site, of which no picture is known.
func cider(t *testing.T) (*site, *page) {
	t.Helper()
	s := serve(t, "cider", demo.BrackenhallCiderWorks())
	return s, browser(t, s, 1280, 800)
}

// focus moves the keyboard to something.
func (p *page) focus(css string) {
	p.Helper()
	eval[bool](p, fmt.Sprintf(`(document.querySelector(%q).focus(), true)`, css))
}

// TestAnAreaIsPainted paints an area with the brush, takes a part away, gives up a stroke, and goes on by keyboard.
func TestAnAreaIsPainted(t *testing.T) {
	s, p := picturePage(t, "yard")
	covers := func(id string) float64 {
		t.Helper()
		a := area(s.plan(t), "yard", id)
		if a == nil || a.Cells == nil {
			t.Fatalf("%+v", a)
		}
		total := 0.0
		for _, polygon := range a.Shape() {
			total += (polygon[2].X - polygon[0].X) * (polygon[2].Y - polygon[0].Y)
		}
		return math.Abs(total)
	}
	p.click(`[data-tool="brush"]`)
	p.drag(p.in(0.1, 0.2), p.in(0.4, 0.2))
	p.revision(2)
	wide := covers("area-1")
	// Three of 18 rows, and some 12 of 32 columns.
	if wide < 0.05 || wide > 0.08 {
		t.Errorf("the stroke covers %.3f of the picture", wide)
	}
	p.shows(`[data-test="thing"] h2`, "Painted 1")
	p.drag(p.in(0.3, 0.2), p.in(0.4, 0.2)) // from painted cells it takes away
	p.revision(3)
	if less := covers("area-1"); less > 0.75*wide || less < 0.3*wide {
		t.Errorf("%.3f is left of %.3f", less, wide)
	}
	p.press(p.in(0.5, 0.6), p.in(0.9, 0.6))
	p.until(`document.querySelector('[data-thing="area area-1"] .cells').getBoundingClientRect().width > 440`)
	p.keys(kb.Escape)
	p.until(`document.querySelector('[data-thing="area area-1"] .cells').getBoundingClientRect().width < 300`)
	p.mouse(input.DispatchMouseEventTypeMouseReleased, p.in(0.9, 0.6), chromedp.ButtonLeft)
	before := covers("area-1")

	p.focus(`[data-test="board"]`)
	p.keys(kb.ArrowUp, kb.ModifierShift)
	p.keys(" ")
	p.revision(4)
	if more := covers("area-1"); math.Abs(more-before-9.0/(32*18)) > 1e-9 {
		t.Errorf("a dab of nine cells makes %.4f of %.4f", more, before)
	}
	p.keys(kb.Enter)
	p.until(`!document.querySelector('[data-tool][aria-pressed="true"]')`)
	p.click(`[data-field="ignore"]`)
	p.revision(5)
	if a := area(s.plan(t), "yard", "area-1"); !a.Ignore {
		t.Errorf("%+v", a)
	}
}

// TestTheSmallestSizeIsStood stands a person where one should just be noticed.
func TestTheSmallestSizeIsStood(t *testing.T) {
	s, p := picturePage(t, "yard")
	p.click(`[data-pick="area foot"]`)
	p.click(`[data-stand="child"]`)
	p.shows(`[data-test="stand-says"]`, "% of the picture")
	p.drag(p.in(0.45, 0.9), p.in(0.45, 0.7))
	p.until(`document.querySelector('[data-test="stand-keep"]').innerText !== ''`)
	p.focus(`[data-test="stand"]`)
	near := p.text(`[data-test="stand-keep"]`)
	p.keys(kb.ArrowUp, kb.ModifierShift)
	p.until(fmt.Sprintf(`document.querySelector('[data-test="stand-keep"]').innerText !== %q`, near))
	p.click(`[data-test="stand-keep"]`)
	p.revision(2)
	smallest := area(s.plan(t), "yard", "foot").Smallest
	if smallest == nil || smallest.Of != "picture" || smallest.Percent >= 0.6 || smallest.Percent < 0.05 {
		t.Errorf("%+v", smallest)
	}
	if p.until(`!document.querySelector('[data-test="standing"]')`); near == "" {
		t.Error("nothing was offered")
	}
}

// TestTheGroundIsTyped says how a camera hangs, without any picture, and gets a ground to work on.
func TestTheGroundIsTyped(t *testing.T) {
	s, p := cider(t)
	p.open("/sites/cider/triggers", `[data-test="course"]`)
	p.click(`[data-line="yard"]`)
	p.shows(`[data-test="camera"]`, "type how the camera")
	p.number(`[data-test="camera"]`, "tilt", "15")
	p.shows(`[data-test="picture-problem"]`, "tells nothing before the vertical angle of view and the height of the camera are known")
	p.number(`[data-test="camera"]`, "degrees", "50")
	p.revision(2)
	p.number(`[data-test="camera"]`, "metres", "3,5")
	p.revision(3)
	p.number(`[data-test="camera"]`, "tilt", "15")
	p.revision(4)
	p.shows(`[data-test="ground"]`, "The camera hangs 3.50 m high")
	p.until(`document.querySelectorAll('[data-test="board"] .far').length > 10`)
	g, known, err := s.plan(t).Channel("yard").Ground()
	if !known || err != nil || math.Abs(g.Tilt()-15) > 1e-3 || g.Camera != 3.5 {
		t.Errorf("%+v, %v", g, err)
	}
}

// TestHoursOfDetectionArePainted paints hours off and on, by pointer and by keyboard, and sees what is deaf then on both pages.
func TestHoursOfDetectionArePainted(t *testing.T) {
	s, p := picturePage(t, "yard")
	const strip = `[data-test="strip-detection"] .grid`
	cell := func(day int, hour float64) point {
		t.Helper()
		box := eval[[]float64](p, `(({left, top, width, height}) => [left, top, width, height])(document.querySelector('`+strip+
			`').getBoundingClientRect())`)
		return point{box[0] + hour/24*box[2], box[1] + (float64(day)+0.5)/7*box[3]}
	}
	p.drag(cell(0, 0.1), cell(4, 5.9))
	p.revision(2)
	on := s.plan(t).Channel("yard").Detection.Steps()
	if on.At(3*60) || !on.At(7*60) || on.At(4*1440+60) || !on.At(5*1440+60) {
		t.Errorf("%v", s.plan(t).Channel("yard").Detection.Hours)
	}
	p.shows(`[data-test="deaf"]`, "waits for motion then, and nothing reports any")
	p.until(`document.querySelectorAll('[data-test="strip-detection"] .deaf').length === 5`)
	p.open("/sites/yard", `[data-channel="yard"] canvas`)
	// The ribbon is ringed from its first minute on, and not on Saturday.
	ringed := func(day float64) string {
		return fmt.Sprintf(`(() => {
			const canvas = document.querySelector('[data-channel="yard"] canvas')
			const [r, g, b] = canvas.getContext('2d').getImageData(Math.round(%v / 7 * canvas.width), 1, 1, 1).data
			return r > 130 && g < 90 && b < 110
		})()`, day)
	}
	p.until(ringed(2.1))
	p.until(`[...document.querySelectorAll('[data-channel="yard"], [data-channel="yard"] *')].some(e => e.getAttribute('aria-label')?.includes('For 30 hours a week it waits for motion that nothing reports'))`)
	if eval[bool](p, ringed(5.1)) || eval[bool](p, ringed(2.6)) {
		t.Error("hours are ringed in which detection works")
	}

	p.open("/sites/yard/triggers", `[data-test="course"]`)
	p.click(`[data-line="yard"]`)
	p.until(`document.querySelectorAll('[data-test="strip-detection"] .deaf').length === 5`)
	p.focus(strip) // Monday 00:00
	p.keys(kb.ArrowRight, kb.ModifierShift)
	p.keys(kb.ArrowDown, kb.ModifierShift)
	p.keys(" ")
	p.revision(3)
	on = s.plan(t).Channel("yard").Detection.Steps()
	if !on.At(59) || on.At(61) || !on.At(1440+30) || on.At(2*1440+30) {
		t.Errorf("%v", s.plan(t).Channel("yard").Detection.Hours)
	}
	p.drag(cell(0, 0.1), cell(6, 23.9)) // from an hour that is on: none would be left
	p.shows(`[data-test="picture-problem"]`, "Switch it off instead")
	p.drag(cell(0, 3.1), cell(6, 3.4)) // from one that is off
	p.revision(4)
	if on = s.plan(t).Channel("yard").Detection.Steps(); !on.At(3*60+10) || on.At(4*60) {
		t.Errorf("%v", s.plan(t).Channel("yard").Detection.Hours)
	}
	// The gate that loses says what would mend it.
	p.shows(`[data-lost="in hours"] [data-mend]`, "Let detection work all week")
	p.click(`[data-lost="in hours"] [data-mend]`)
	p.revision(5)
	if d := s.plan(t).Channel("yard").Detection; d.Hours != nil {
		t.Errorf("%v", d.Hours)
	}
	p.until(`!document.querySelector('[data-test="deaf"]') && !document.querySelector('[data-lost="in hours"] [data-mend]')`)
}

// TestTheCourseByHour asks for the course of one day and one hour, and what a patch costs before it is ignored.
func TestTheCourseByHour(t *testing.T) {
	s, p := picturePage(t, "yard")
	p.click(`[data-test="by-hour"]`)
	p.click(`[data-when="1 14"]`)
	p.shows(`[data-test="course"] h2`, "on a Tuesday, 14:00 to 15:00")
	if got := p.passes("happens"); got != "22.0" { // as the activity says
		t.Errorf("%s happen in that hour", got)
	}
	p.click(`[data-day="6"]`)
	p.shows(`[data-test="course"] h2`, "on a Sunday")
	p.click(`[data-hour="3"]`)
	p.shows(`[data-test="course"] h2`, "a day, 3:00 to 4:00")
	if got := p.passes("happens"); got != "2.00" {
		t.Errorf("%s happen in that hour", got)
	}
	p.focus(`[data-test="when"]`)
	p.keys(kb.ArrowDown)
	p.keys(kb.Enter)
	p.shows(`[data-test="course"] h2`, "on a Tuesday, 0:00 to 1:00")
	p.click(`[data-test="by-hour"]`)
	p.until(`document.querySelector('[data-test="course"] h2').innerText.includes(', a day')`)

	p.click(`[data-pick="patch reeds"]`)
	p.until(`document.querySelectorAll('[data-test="patch-cost"] tbody tr').length === 3`)
	// What moves reaches a little beyond the patch, so that a little still passes.
	const now = `Number(document.querySelector('[data-test="patch-cost"] tbody tr:nth-child(2) td').innerText)`
	before := eval[float64](p, now)
	p.click(`[data-test="mask"]`)
	p.revision(2)
	p.until(fmt.Sprintf(`%s < %v`, now, before/2))
	if a := area(s.plan(t), "yard", "area-1"); a == nil || !a.Ignore || a.Points[0] != (plan.Point{0.6, 0.35}) {
		t.Errorf("%+v", a)
	}
}
