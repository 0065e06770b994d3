package e2e

import (
	"testing"

	"wakefield.example/internal/demo"
)

// onEveryPage goes to every page of the quay and each of its parts, and does something once it is there.
func (p *page) onEveryPage(do func(path string)) {
	p.Helper()
	for _, known := range knownPages(p) {
		for _, part := range known.parts() {
			path := known.at("/sites/quay", part)
			p.goes(path, `[data-page="`+known.Name+`"] h1`)
			p.until(`!document.querySelector('.el-skeleton')`)
			do(path)
		}
	}
}

// TestNothingIsCutAtFourHundredPercent opens every page in the 320 pixels that 400 % leaves of 1280: nothing stands beyond the window
// but what is scrolled by itself (tables, tabs, the grid of channels).
func TestNothingIsCutAtFourHundredPercent(t *testing.T) {
	s := serve(t, "quay", demo.PennywhistleQuay())
	p := browser(t, s, 320, 640)
	p.onEveryPage(func(path string) {
		for _, cut := range eval[[]string](p, `(() => {
				const cut = []
				if (document.documentElement.scrollWidth > innerWidth) cut.push('the page is ' + document.documentElement.scrollWidth + ' wide')
				for (const e of document.querySelectorAll('main *')) {
					if (!e.checkVisibility() || e.closest('svg, canvas, table, nav, .scroller, .verdict, .el-select, .axis')) continue
					const { left, right, width } = e.getBoundingClientRect()
					if (width > 0 && right > innerWidth + 2) cut.push(e.tagName + '.' + e.className + ' ' + Math.round(left) + ' to ' + Math.round(right))
				}
				return cut.slice(0, 5)
			})()`) {
			t.Errorf("%s: %s", path, cut)
		}
	})
}

// TestNothingScrollsTwiceAtTwoHundredPercent opens every page in the 640×400 pixels that 200 % leaves of 1280×800: nothing that is
// scrolled lies in something that is scrolled too, and Week has its rows.
func TestNothingScrollsTwiceAtTwoHundredPercent(t *testing.T) {
	s := serve(t, "quay", demo.PennywhistleQuay())
	p := browser(t, s, 640, 400)
	p.onEveryPage(func(path string) {
		for _, twice := range eval[[]string](p, `(() => {
				const scrolls = (e) => e.checkVisibility() && e.clientHeight > 0 && e.scrollHeight > e.clientHeight + 1 &&
					['auto', 'scroll'].includes(getComputedStyle(e).overflowY)
				const all = [...document.querySelectorAll('body *')].filter(scrolls)
				return all.filter((e) => e.tagName !== 'TEXTAREA' && all.some((o) => o !== e && o.contains(e))).map((e) => e.tagName + '.' + e.className)
			})()`) {
			t.Errorf("%s: %s scrolls in what scrolls", path, twice)
		}
	})
	p.open("/sites/quay", gangwayA+" canvas")
	p.until(`(({ top, bottom }) => [...document.querySelectorAll('[data-channel]')].filter((e) => {
		const row = e.getBoundingClientRect()
		return row.top >= top - 1 && row.bottom <= bottom + 1
	}).length >= 6)(document.querySelector('.rows').getBoundingClientRect())`)
}

// TestAPhoneHasAMenuOfTheBar finds on a phone what the bar has no room for.
func TestAPhoneHasAMenuOfTheBar(t *testing.T) {
	s := serve(t, "quay", demo.PennywhistleQuay())
	p := browser(t, s, 390, 844)
	p.open("/sites/quay/findings", `[data-rule]`)
	p.item(`[data-test="export"]`, "Find or do")
	p.until(`document.activeElement?.dataset.test === 'command'`)
	p.keys("\u001b")
	p.until(`document.activeElement?.dataset.test !== 'command' && document.getAnimations().length === 0`)
	p.item(`[data-test="export"]`, "Dark")
	p.until(`document.documentElement.classList.contains('dark')`)
	p.item(`[data-test="export"]`, "Light")
	p.until(`!document.documentElement.classList.contains('dark')`)
	p.item(`[data-test="export"]`, "Words and keys")
	p.until(`[...document.querySelectorAll('[role="dialog"]')].some((e) => e.checkVisibility())`)
	p.keys("\u001b")
	p.until(`![...document.querySelectorAll('[role="dialog"]')].some((e) => e.checkVisibility()) && document.getAnimations().length === 0`)
	p.item(`[data-test="export"]`, "History")
	p.until(`location.pathname.endsWith('/history')`)
}
