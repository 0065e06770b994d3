package e2e

import (
	"fmt"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"

	"wakefield.example/internal/demo"
)

// TestAllGrowsOnALargeScreen paints, points, drags and opens menus where everything is drawn larger than it is written:
// what is under the pointer is meant, nothing is cut off, and letters are larger.
func TestAllGrowsOnALargeScreen(t *testing.T) {
	s := serve(t, "quay", demo.PennywhistleQuay())
	for _, screen := range []struct {
		width, height int
		grown         float64
	}{{1920, 1080, 1}, {2560, 1440, 1.25}, {3840, 2160, 1.75}} {
		p := browser(t, s, screen.width, screen.height)
		p.open("/sites/quay", gangwayA+" canvas")
		p.until(fmt.Sprintf(`document.querySelector('.where b').currentCSSZoom === %v`, screen.grown))
		if over := eval[[]float64](p, `[document.documentElement.scrollHeight - innerHeight, document.documentElement.scrollWidth - innerWidth,
			Math.abs(document.querySelector('.body').getBoundingClientRect().bottom - innerHeight)]`); over[0] > 0 || over[1] > 0 || over[2] > 1 {
			t.Errorf("%d wide: the page does not end with the window: %v", screen.width, over)
		}
		p.click(`[data-duty="off"]`)
		p.mouse(input.DispatchMouseEventTypeMousePressed, p.on("slipway", 2*1440+600), chromedp.ButtonLeft)
		p.mouse(input.DispatchMouseEventTypeMouseMoved, p.on("slipway", 2*1440+720), chromedp.ButtonLeft)
		p.shows(`[data-test="stroke"]`, "Wed 10:00–12:00")
		p.keys("\u001b")
		p.mouse(input.DispatchMouseEventTypeMouseReleased, p.on("slipway", 2*1440+720), chromedp.ButtonLeft)
		p.click(`[data-menu="booth"]`)
		opensAt(p, `[role="menu"]`, `[data-menu="booth"]`)
		p.keys("\u001b")

		p.open("/sites/quay/rehearse?from=2026-12-07&number=4", `[data-test="sums"]`)
		line := eval[[]float64](p, `(({ left, top, width }) => [left, top, width])(document.querySelector('[data-test="timeline"]').getBoundingClientRect())`)
		names, row := 148*screen.grown, 28*screen.grown
		// Below the booth's events, at noon.
		p.clickAt(point{line[0] + names + (line[2]-names)*0.5, line[1] + 34*screen.grown + row + 20*screen.grown})
		p.shows(`[data-test="answer"]`, "Ticket booth is on disk")
		p.shows(`[data-test="ask"]`, "Mon 7 Dec 1")

		p.open("/sites/quay/kit/activities", `[data-test="rate-curve"]`)
		p.click(`[data-test="template"]`)
		opensAt(p, `.el-dropdown__popper`, `[data-test="template"]`)
		if size := eval[float64](p, `parseFloat(getComputedStyle(document.querySelector('.el-dropdown-menu__item')).fontSize)`); size < 13*screen.grown {
			t.Errorf("%d wide: a menu's letters are %v high", screen.width, size)
		}
		if !strings.HasPrefix(p.text(`.where b`), "Pennywhistle") {
			t.Error("the name is cut")
		}
	}
}

// opensAt waits until what has opened begins where what it was opened by ends, or at it.
func opensAt(p *page, opened, by string) {
	p.Helper()
	p.until(fmt.Sprintf(`[...document.querySelectorAll(%q)].some((e) => {
		const menu = e.getBoundingClientRect(), at = document.querySelector(%q).getBoundingClientRect()
		const apart = (a, b, c, d) => Math.max(c - b, a - d, 0)
		return e.checkVisibility() && menu.width > 0 && apart(menu.left, menu.right, at.left, at.right) < 24 && apart(menu.top, menu.bottom, at.top, at.bottom) < 24
	})`, opened, by))
}
