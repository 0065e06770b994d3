package e2e

import (
	"time"

	"github.com/chromedp/chromedp"
)

// largestBlank is the largest rectangle of a page on which nothing is written or drawn, as its share of the page and where it lies in
// the window. What stands at the edge of something belongs to it for 32 px, and lines of a table and of a list for their whole length.
func (p *page) largestBlank() (b struct {
	Share float64
	Box   [4]int
}) {
	p.Helper()
	b = eval[struct {
		Share float64
		Box   [4]int
	}](p, `(() => {
		const grown = document.querySelector('main').currentCSSZoom ?? 1
		const cell = 16 * grown, near = 32 * grown
		const area = document.querySelector('main').getBoundingClientRect()
		const wide = Math.floor(area.width / cell), high = Math.floor((Math.min(area.bottom, innerHeight) - area.top) / cell)
		const filled = Array.from({ length: high }, () => new Uint8Array(wide))
		const fill = ({ left, top, right, bottom }) => {
			const at = (v, least, most) => Math.min(Math.max(Math.floor((v - least) / cell), 0), most)
			for (let y = at(top - near, area.top, high); y < at(bottom + near, area.top, high - 1) + 1; y++)
				filled[y]?.fill(1, at(left - near, area.left, wide), at(right + near, area.left, wide - 1) + 1)
		}
		const words = document.createTreeWalker(document.querySelector('main'), NodeFilter.SHOW_TEXT)
		for (let n = words.nextNode(); n; n = words.nextNode()) {
			if (!n.textContent.trim() || !n.parentElement.checkVisibility({ visibilityProperty: true })) continue
			const range = document.createRange()
			range.selectNodeContents(n)
			for (const r of range.getClientRects()) fill(r)
		}
		for (const e of document.querySelectorAll('main :is(canvas, img, video, input, select, textarea, button, svg :not(g, defs *), tr, li)'))
			if (e.checkVisibility({ visibilityProperty: true })) fill(e.getBoundingClientRect())
		let best = 0, box = [0, 0, 0, 0]
		const up = new Int32Array(wide)
		for (let y = 0; y < high; y++) {
			for (let x = 0; x < wide; x++) up[x] = filled[y][x] ? 0 : up[x] + 1
			for (let x = 0; x < wide; x++)
				for (let from = x, least = up[x]; from >= 0 && least > 0; from--) {
					least = Math.min(least, up[from])
					if (least * (x - from + 1) > best) {
						best = least * (x - from + 1)
						box = [from * cell + area.left, (y - least + 1) * cell + area.top, (x - from + 1) * cell, least * cell].map(Math.round)
					}
				}
		}
		return { Share: best / (wide * high), Box: box }
	})()`)
	return b
}

// fillsLargeScreens looks at the page on large screens, on which no third of it is blank, and at a small one again.
func (p *page) fillsLargeScreens(where string) {
	p.Helper()
	for _, screen := range [][2]int64{{1920, 1080}, {2560, 1440}} {
		p.do(chromedp.EmulateViewport(screen[0], screen[1]))
		blank := p.largestBlank()
		// What is still being drawn is waited for.
		for begun := time.Now(); blank.Share > 1./3 && time.Since(begun) < patience; blank = p.largestBlank() {
			eval[bool](p, `new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(() => done(true))))`)
		}
		if blank.Share > 1./3 {
			p.Errorf("%s, %d wide: %.0f %% is blank, at %v", where, screen[0], 100*blank.Share, blank.Box)
		}
	}
	p.do(chromedp.EmulateViewport(1280, 800))
}
