package e2e

import (
	"os"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// TestEveryPageIsAccessible runs axe-core over every page, in both themes.
func TestEveryPageIsAccessible(t *testing.T) {
	axe, err := os.ReadFile("../web/node_modules/axe-core/axe.min.js")
	if err != nil {
		t.Fatal(err)
	}
	_, p := quay(t)
	p.tellsTouched()
	// Every page that the program knows of, each of its parts by itself.
	type place struct{ path, ready string }
	pages := []place{{"/", "main li"}, {"/new", `[data-test="make-site"]`}}
	for _, known := range knownPages(t) {
		ready := `[data-page="` + known.Name + `"] h1`
		for _, part := range known.parts() {
			pages = append(pages, place{known.at("/sites/quay", part), ready})
		}
	}
	// What is there only when the page has been answered, or when something has been done on it.
	after := map[string]func(){
		"/sites/quay": func() {
			p.do(chromedp.WaitReady(chromedp.CSS(gangwayA + " canvas")))
			p.choose("booth")
			p.shows(".findings", "records audio")
		},
		"/sites/quay/kit":            func() { p.do(chromedp.WaitReady(chromedp.CSS(cell("hall", "name")))) },
		"/sites/quay/kit/recorders":  func() { p.do(chromedp.WaitReady(chromedp.CSS(`[data-scenario="more"]`))) },
		"/sites/quay/kit/activities": func() { p.do(chromedp.WaitReady(chromedp.CSS(`[data-test="rate-curve"]`))) },
		"/sites/quay/triggers": func() {
			p.click(`[data-line="breakwater"]`)
			p.until(`!!document.querySelector('[data-pick="patch surf"]')`)
			p.click(`[data-pick="patch surf"]`)
			p.click(`[data-test="by-hour"]`)
			p.until(`!!document.querySelector('[data-test="patch-cost"]') && !!document.querySelector('[data-test="when"]')`)
		},
		"/sites/quay/triggers/causes": func() {
			p.find("causes", "fuel store contact")
			p.click(`[data-pick="alarm fuel-contact"]`)
			p.until(`document.querySelectorAll('[data-tie]').length > 5 && !!document.querySelector('[data-test="wrong-way"]')`)
			p.click(`[data-test="tie-hours"]`)
		},
		"/sites/quay/triggers/messages": func() { p.do(chromedp.WaitReady(chromedp.CSS(`[data-card="harbour-screen"] svg`))) },
		"/sites/quay/triggers/stills":   func() { p.do(chromedp.WaitReady(chromedp.CSS(`[data-test="stills-per-day"]`))) },
		"/sites/quay/triggers/offsite":  func() { p.do(chromedp.WaitReady(chromedp.CSS(`[data-safe="fuel"]`))) },
		"/sites/quay/storage":           func() { p.do(chromedp.WaitReady(chromedp.CSS(`[data-lever]`))) },
		"/sites/quay/findings":          func() { p.do(chromedp.WaitReady(chromedp.CSS(".finding"))) },
		"/sites/quay/history":           func() { p.do(chromedp.WaitReady(chromedp.CSS(".history ol > li"))) },
	}
	// Further states of a page, looked at once more.
	then := map[string]func(){
		"/sites/quay/weeks": func() {
			p.click(`[data-tab="days"]`)
			p.until(`!!document.querySelector('.year')`)
		},
		"/sites/quay/triggers": func() {
			p.click(`[data-pick="area wall"]`)
			p.click(`[data-stand="person"]`)
			p.shows(`[data-test="stand-says"]`, "% of the picture")
		},
		"/sites/quay/history": func() {
			p.keys("k", kb.ModifierCtrl)
			p.until(`document.activeElement?.dataset.test === 'command' && document.getAnimations().length === 0`)
		},
	}
	for _, page := range pages {
		p.open(page.path, page.ready)
		if look := after[page.path]; look != nil {
			look()
		}
		p.do(chromedp.Evaluate[chromedp.Void](string(axe)))
		p.violations(page.path)
		p.onOneScale(page.path)
		p.jumped(page.path)
		p.fillsLargeScreens(page.path)
		if more := then[page.path]; more != nil {
			more()
			p.violations(page.path + ", further")
			p.onOneScale(page.path + ", further")
		}
	}
	// What the scale forbids must be seen too.
	eval[bool](p, `(document.body.insertAdjacentHTML('beforeend', '<b style="font-size: 17px; font-weight: 700">x</b>' +
		'<input style="width: 100px; height: 30px; border-radius: 9px">' +
		'<button class="act" style="line-height: 13px">x</button>'), true)`)
	if found := p.offScale(); len(found) != 6 {
		t.Errorf("of a text of another size and weight is said: %q", found)
	}
	// What axe is for must be seen, or the check above says nothing.
	eval[bool](p, `(document.body.append(document.createElement('img')), true)`)
	if found := eval[[]string](p, `axe.run(document, { preload: false }).then(r => r.violations.map(v => v.id))`); len(found) == 0 {
		t.Error("a picture without a text passes")
	}
}

// violations reports what axe finds in the page as it is, and what of its contrasts in the dark.
func (p *page) violations(where string) {
	p.Helper()
	p.violationsIn(where, "document")
}

// violationsIn asks axe about a part of the page, an expression of JavaScript.
func (p *page) violationsIn(where, part string) {
	p.Helper()
	// The options of a list are gone through by the arrows of the field that opened it, which scrolls it.
	eval[bool](p, `(window.reached = (n) => document.querySelector(n.target).matches('.el-select-dropdown__wrap'), true)`)
	for _, look := range []struct{ theme, before, rules string }{
		{"light", "", ""},
		{"dark", `document.documentElement.classList.add('dark')`, `, runOnly: ['color-contrast']`},
	} {
		eval[bool](p, look.before+`
			Promise.all(document.getAnimations().filter((a) => a instanceof CSSTransition).map((a) => a.finished.catch(() => {}))).then(() => true)`)
		for _, v := range eval[[]string](p, `axe.run(`+part+`, { preload: false`+look.rules+
			` }).then(r => r.violations.filter(v => v.id !== 'scrollable-region-focusable' || v.nodes.some(n => !reached(n))).map(v => v.id + ': ' + v.nodes.map(n => n.target + ' ' + (n.any[0]?.message ?? '')).join(' | ')))`) {
			p.Errorf("%s, %s: %s", where, look.theme, strings.TrimSpace(v))
		}
	}
	eval[bool](p, `(document.documentElement.classList.remove('dark'), true)`)
}

func TestAFindingIsMended(t *testing.T) {
	s, p := quayAt(t, "/findings", `[data-rule="audio"]`)
	p.click(`[data-rule="audio"] [data-mend]`)
	p.until(`!document.querySelector('[data-rule="audio"]')`)
	p.click(`[data-rule="likely-misses"] .show`)
	p.shows(painting, "painting 4 channels")
	p.keys("z", 2)
	p.click(`[data-test="verdict-findings"]`)
	p.until(`!!document.querySelector('[data-rule="audio"]')`)
	if s.id != "quay" {
		t.Error(s.id)
	}
}
