package e2e

import (
	"testing"

	"github.com/chromedp/chromedp/kb"

	"wakefield.example/core/week"
	"wakefield.example/internal/demo"
)

// TestAMagnifiedDeskIsStillADesk looks at the week as a window of 1280×800 at 200 %: the
// shelf, the state and the pane are there, and it can be painted.
func TestAMagnifiedDeskIsStillADesk(t *testing.T) {
	s := serve(t, "quay", demo.PennywhistleQuay())
	p := browser(t, s, 640, 400)
	p.open("/sites/quay", `[data-channel="booth"] canvas`)
	for _, css := range []string{`[data-duty="motion"]`, `[data-test="state"]`, `[data-test="painting"]`, `[data-test="undo"]`,
		`[data-test="kept"]`, `[data-test="tide"]`} {
		if !eval[bool](p, `(() => { const b = document.querySelector('`+css+
			`').getBoundingClientRect(); return b.width > 0 && b.top < 400 && b.left < 640 })()`) {
			t.Errorf("%s cannot be seen", css)
		}
	}
	if wide := eval[float64](p, `document.documentElement.scrollWidth`); wide > 640 {
		t.Errorf("the page is %v wide", wide)
	}
	if rows := eval[int](p, `Math.floor(document.querySelector('.rows').clientHeight / 27)`); rows < 3 {
		t.Errorf("%d rows are seen", rows)
	}
	p.drag(p.on("hall", 600), p.on("hall", 4000))
	p.revision(2)
	if eval[bool](p, `document.querySelector('.pane').offsetWidth > 0`) {
		t.Error("the pane lies over the week before it is asked for")
	}
	p.click(`[data-test="fold"]`)
	p.until(`document.querySelector('.pane').offsetWidth > 200`)
}

// TestRibbonsGrowWithTheRoom looks at sixteen channels on a large screen.
func TestRibbonsGrowWithTheRoom(t *testing.T) {
	s := serve(t, "quay", demo.PennywhistleQuay())
	p := browser(t, s, 2560, 1440)
	p.open("/sites/quay", `[data-channel="booth"] canvas`)
	p.until(`document.querySelector('[data-channel="booth"]').getBoundingClientRect().height > 55`)
	if tall := eval[int](p, `document.querySelector('[data-channel="booth"]').offsetHeight`); tall > 64 {
		t.Errorf("a row is %d tall", tall)
	}
	p.until(`Math.abs(document.querySelector('[data-channel="booth"] canvas').offsetHeight - document.querySelector('[data-channel="booth"]').offsetHeight + 3) < 1`)
	// The row under the pointer is the one that is painted.
	p.click(`[data-duty="off"]`)
	p.drag(p.on("booth", 600), p.on("booth", 1200))
	p.revision(2)
	if s.duty(t, "booth", 660) != "off" {
		t.Error("another row was painted")
	}
}

// TestHoursAreTyped paints what is too small to be hit: to the minute, several days, and
// over Sunday midnight, in one act.
func TestHoursAreTyped(t *testing.T) {
	s, p := quay(t)
	typed := `[data-test="typed-hours"]`
	p.click(`[data-duty="off"]`)
	p.click(typed + " input")
	p.keys("Mon-Fri 07:45-16:10")
	p.keys(kb.Enter)
	p.shows(typed, "Select the channels first.")
	p.click(`[data-channel="booth"] .name`)
	p.click(typed + " input")
	p.keys(kb.Enter)
	p.revision(2)
	for minute, want := range map[week.Minute]bool{464: false, 465: true, 969: true, 970: false, 4*week.Day + 465: true,
		5*week.Day + 600: false} {
		if off := s.duty(t, "booth", minute) == "off"; off != want {
			t.Errorf("at minute %d off is %v", minute, off)
		}
	}
	p.click(typed + " input")
	p.keys("Sun 22-Mon 6")
	p.keys(kb.Enter)
	p.shows(typed, "write them like Mon-Fri 07:45-16:10")
	p.click(typed + " input")
	eval[bool](p, `(document.querySelector('`+typed+` input').select(), true)`)
	p.keys("Sun 22:00-06:00")
	p.keys(kb.Enter)
	p.revision(3)
	if s.duty(t, "booth", 6*week.Day+1325) != "off" || s.duty(t, "booth", 300) != "off" {
		t.Error("Sunday night does not run into Monday")
	}
}
