package e2e

import "strings"

// offScale lists what text in the page is written in that is no size and no weight of the one scale (web/src/theme/tokens.css):
// 11, 12, 13.5, 16 and 20 px, 400 and 600. Buttons and fields are 4 px round, sheets 6 px.
func (p *page) offScale() []string {
	p.Helper()
	return eval[[]string](p, `(() => {
		const found = new Map()
		const say = (words, e) => found.has(words) || found.set(words, words + ': ' + (e.className?.baseVal ?? e.className ?? '') + ' ' +
			e.textContent.trim().slice(0, 40))
		const sizes = ['11px', '12px', '13.5px', '16px', '20px']
		for (const e of document.body.querySelectorAll('*')) {
			if (![...e.childNodes].some((n) => n.nodeType === 3 && n.textContent.trim()) && (e.tagName !== 'INPUT' || e.type === 'checkbox')) continue
			if (['SCRIPT', 'STYLE', 'TITLE', 'OPTION'].includes(e.tagName) || !e.checkVisibility()) continue
			if (e.closest('svg[viewBox]')) continue // text that is part of a picture grows with it
			const s = getComputedStyle(e)
			if (!sizes.includes(s.fontSize)) say('size ' + s.fontSize, e)
			if (!['400', '600'].includes(s.fontWeight)) say('weight ' + s.fontWeight, e)
		}
		return [...found.values()]
	})()`)
}

// onOneScale fails for text that is written in another size or weight.
func (p *page) onOneScale(place string) {
	p.Helper()
	if found := p.offScale(); len(found) > 0 {
		p.Errorf("%s is off the scale:\n%s", place, strings.Join(found, "\n"))
	}
}
