package e2e

import (
	"strings"
)

// tellsTouched has every page that is opened from now on remember when it was first touched.
func (p *page) tellsTouched() {
	p.Helper()
	p.runsFirst(`for (const kind of ['pointerdown', 'keydown']) addEventListener(kind, () => (window.touched ??= performance.now()), true)`)
}

// jumped fails where something that could be seen moved by more than a line since the page was opened, before anybody touched it: what
// comes in late finds its room.
func (p *page) jumped(where string) {
	p.Helper()
	found := eval[[]string](p, `new Promise((done) => {
		const said = new Set(), line = 24
		const observer = new PerformanceObserver((list) => {
			for (const shift of list.getEntries()) {
				if (shift.hadRecentInput || shift.startTime > (window.touched ?? Infinity)) continue
				for (const { node, previousRect: a, currentRect: b } of shift.sources) {
					const e = node?.nodeType === 3 ? node.parentElement : node
					const by = Math.max(Math.abs(a.top - b.top), Math.abs(a.left - b.left))
					if (by > line) said.add((e?.tagName ?? 'gone') + '.' + (e?.className?.baseVal ?? e?.className ?? '') + ' ' + (e?.textContent ?? '').trim().slice(0, 40) +
						' by ' + [b.left - a.left, b.top - a.top].map(Math.round).join(', ') + ' at ' + Math.round(shift.startTime))
				}
			}
		})
		observer.observe({ type: 'layout-shift', buffered: true })
		setTimeout(() => (observer.disconnect(), done([...said])), 50)
	})`)
	if len(found) > 0 {
		p.Errorf("%s jumps:\n%s", where, strings.Join(found, "\n"))
	}
}
