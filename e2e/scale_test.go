package e2e

import "strings"

// offScale lists what in the page is not of the one scale (web/src/theme/tokens.css). Text is written in 11, 12, 13.5, 16 and 20 px,
// 400 and 600. Fields are 24 px high, as wide as a number (72), a word (120 to 152) or their column; what has an edge or a ground
// to be pressed is 24 high, 28 where it is a row, or holds more than a line; corners are 4 px round, sheets 6, dots wholly.
func (p *page) offScale() []string {
	p.Helper()
	return eval[[]string](p, `(() => {
		const found = new Map()
		const say = (words, e) => found.has(words) || found.set(words, words + ': ' + (e.className?.baseVal ?? e.className ?? '') + ' ' +
			(e.ariaLabel ?? e.textContent.trim()).slice(0, 40))
		const sizes = ['11px', '12px', '13.5px', '16px', '20px']
		const near = (a, b) => Math.abs(a - b) <= 1
		const all = [...document.body.querySelectorAll('*')].filter((e) => e.checkVisibility() && !e.closest('svg[viewBox]'))
		for (const e of all) {
			const s = getComputedStyle(e)
			if (!['0px', '2px', '4px', '6px', '50%', '100%'].includes(s.borderTopLeftRadius) && !e.matches('.el-switch__core')) say('corner ' + s.borderTopLeftRadius, e)
			if (![...e.childNodes].some((n) => n.nodeType === 3 && n.textContent.trim()) && (e.tagName !== 'INPUT' || e.type === 'checkbox')) continue
			if (['SCRIPT', 'STYLE', 'TITLE', 'OPTION'].includes(e.tagName)) continue
			if (!sizes.includes(s.fontSize)) say('size ' + s.fontSize, e)
			if (!['400', '600'].includes(s.fontWeight)) say('weight ' + s.fontWeight, e)
		}
		for (const e of all) {
			if (!e.matches('input:not([type=checkbox], [type=radio], [type=file], [type=range], [class*=el-]), select, textarea, ' +
				'.el-input__wrapper, .el-select__wrapper')) continue
			const { width, height, right } = e.getBoundingClientRect()
			if (e.tagName !== 'TEXTAREA' && !near(height, 24)) say('field ' + Math.round(height) + ' high', e)
			const column = e.parentElement.closest(':not(.el-input, .el-select, label)').getBoundingClientRect()
			const full = width > 152 && (column.right - right < 24 || width > 0.5 * column.width)
			if (!near(width, 72) && !(width >= 119 && width <= 153) && !full) say('field ' + Math.round(width) + ' wide', e)
		}
		for (const e of all) {
			if (!e.matches('button, a.act')) continue
			const s = getComputedStyle(e), { height } = e.getBoundingClientRect()
			if (s.borderTopWidth === '0px' && s.backgroundColor === 'rgba(0, 0, 0, 0)') continue
			if (!near(height, 24) && !near(height, 28) && height < 36) say('control ' + Math.round(height) + ' high', e)
		}
		// A pane at the right is 264 or 360 wide, and a sheet.
		const sheet = getComputedStyle(document.body.appendChild(Object.assign(document.createElement('i'), { className: 'sheet' }))).backgroundColor
		document.body.lastElementChild.remove()
		for (const e of all) {
			const { left, right, width } = e.getBoundingClientRect()
			if (e.tagName !== 'ASIDE' || right < innerWidth - 2 || left < innerWidth / 2) continue
			if (!near(width, 264) && !near(width, 360)) say('pane ' + Math.round(width) + ' wide', e)
			if (getComputedStyle(e).backgroundColor !== sheet) say('pane on paper', e)
		}
		// What stands apart begins with a title, or with what is chosen in it.
		for (const e of all) {
			if (!e.matches('aside, [role=dialog], main .sheet') || e.parentElement.closest('aside, [role=dialog], .sheet')) continue
			const title = [...e.querySelectorAll('h1, h2:not(.soft), .el-dialog__title')].find((h) => h.checkVisibility() && !h.closest('.visually-hidden'))
			if (!title) continue
			const s = getComputedStyle(title)
			if (s.fontSize !== '16px' || s.fontWeight !== '600') say('title ' + s.fontSize + ' ' + s.fontWeight, title)
		}
		return [...found.values()]
	})()`)
}

// onOneScale fails for what is of another size, weight, height or width.
func (p *page) onOneScale(place string) {
	p.Helper()
	if found := p.offScale(); len(found) > 0 {
		p.Errorf("%s is off the scale:\n%s", place, strings.Join(found, "\n"))
	}
}
