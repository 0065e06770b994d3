package e2e

import (
	"fmt"
	"os"
	"testing"

	"github.com/chromedp/chromedp"
)

// openers marks what on the page opens a menu, a list, a dialog or more of itself, one of each kind, and says which.
// Of those that stand on every page those that are on said already are left out.
func (p *page) openers(said map[string]bool) []string {
	p.Helper()
	kinds := eval[[]string](p, `(() => {
		const kinds = new Map()
		for (const e of document.querySelectorAll('[aria-haspopup], button[aria-expanded="false"]')) {
			if (!e.checkVisibility({ visibilityProperty: true }) || e.disabled) continue
			const frame = e.closest('header, nav') ? 'bar' : document.querySelector('[data-page]')?.dataset.page + ' ' + location.pathname
			const kind = [frame, e.dataset.test ?? e.dataset.choice ?? '', e.role ?? '', [...e.classList].join('.'), e.ariaHasPopup].join(' ')
			if (!kinds.has(kind)) kinds.set(kind, e.closest('.el-select') ?? e)
		}
		for (const [kind, e] of kinds) e.dataset.opens = kind
		return [...kinds.keys()]
	})()`)
	var fresh []string
	for _, k := range kinds {
		if !said[k] {
			said[k] = true
			fresh = append(fresh, k)
		}
	}
	return fresh
}

// TestWhatOpensIsAccessible opens every menu, list, dialog and pane that a page has, and asks axe and the one scale about it.
// What opens says so (aria-haspopup, aria-expanded); nobody keeps a list.
func TestWhatOpensIsAccessible(t *testing.T) {
	axe, err := os.ReadFile("../web/node_modules/axe-core/axe.min.js")
	if err != nil {
		t.Fatal(err)
	}
	_, p := quay(t)
	p.do(chromedp.Evaluate[chromedp.Void](string(axe)))
	said, lists := map[string]bool{}, 0
	for _, known := range knownPages(t) {
		for _, part := range known.parts() {
			path := known.at("/sites/quay", part)
			p.goes(path, `[data-page="`+known.Name+`"] h1`)
			p.until(`document.querySelectorAll('[data-page] button, [data-page] .field').length > 0 || document.querySelector('[data-page] p')`)
			for _, kind := range p.openers(said) {
				p.opens(path, kind)
				lists++
			}
		}
	}
	if lists < 20 {
		t.Errorf("only %d things open", lists)
	}
}

// opens opens one thing, looks at it and closes it with Esc.
func (p *page) opens(path, kind string) {
	p.Helper()
	css := fmt.Sprintf(`[data-opens=%q]`, kind)
	if !eval[bool](p, `!!document.querySelector(`+"`"+css+"`"+`)?.checkVisibility()`) {
		return // it went when something else was opened
	}
	const count = `[...document.querySelectorAll('.el-popper, [role=dialog], [role=menu], [role=listbox]')].filter((e) => e.checkVisibility()).length`
	before := eval[int](p, count)
	eval[bool](p, `(document.querySelector(`+"`"+css+"`"+`).scrollIntoView({ block: 'center' }), true)`)
	p.click(css)
	p.until(count + ` > ` + fmt.Sprint(before) + ` || document.querySelector(` + "`" + css + "`" + `)?.ariaExpanded === 'true'`)
	p.until(`document.getAnimations().every((a) => !(a instanceof CSSTransition)) && !document.querySelector('[class*="-enter-active"]')`)
	p.violationsIn(path+", "+kind, `[...document.querySelectorAll('.el-popper, [role=dialog], [role=menu]')].filter((e) => e.checkVisibility())
		.concat(document.querySelector('[data-opens][aria-expanded="true"]')?.parentElement ?? [])`)
	p.onOneScale(path + ", " + kind)
	p.keys("\u001b")
	p.until(count + ` <= ` + fmt.Sprint(before))
}
