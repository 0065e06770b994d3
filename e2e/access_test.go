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
	pages := []struct{ path, ready string }{
		{"/", "main li"},
		{"/sites/quay", gangwayA + " canvas"},
		{"/sites/quay/findings", ".finding"},
		{"/sites/quay/history", ".history li"},
		{"/sites/quay/weeks", `[data-week="hall"]`},
		{"/sites/quay/kit", cell("hall", "name")},
		{"/sites/quay/kit/recorders", `[data-scenario="more"]`},
		{"/sites/quay/kit/kinds", `[data-kind="lane"]`},
		{"/sites/quay/kit/activities", `[data-test="rate-curve"]`},
		{"/sites/quay/kit/site", ".site"},
		{"/new", `[data-test="make-site"]`},
	}
	for _, theme := range []string{"light", "dark"} {
		for _, page := range pages {
			p.open(page.path, page.ready)
			if page.ready == gangwayA+" canvas" {
				p.choose("booth")
				p.shows(".findings", "records audio")
			}
			p.do(chromedp.Evaluate[chromedp.Void](string(axe)))
			if page.ready == `[data-week="hall"]` { // two parts of one page, and what lies over it
				p.violations(page.path+", named weeks", theme)
				p.click(`[data-tab="days"]`)
				p.until(`!!document.querySelector('.year')`)
			}
			if page.ready == ".history li" {
				p.violations(page.path, theme)
				p.keys("k", kb.ModifierCtrl)
				p.until(`document.activeElement?.dataset.test === 'command' && document.getAnimations().length === 0`)
			}
			p.violations(page.path, theme)
		}
		eval[bool](p, `(localStorage.setItem('wakefield-theme', 'dark'), true)`)
	}
	// What axe is for must be seen, or the check above says nothing.
	eval[bool](p, `(document.body.append(document.createElement('img')), true)`)
	if found := eval[[]string](p, `axe.run(document, { preload: false }).then(r => r.violations.map(v => v.id))`); len(found) == 0 {
		t.Error("a picture without a text passes")
	}
}

// violations reports what axe finds in the page as it is.
func (p *page) violations(where, theme string) {
	p.Helper()
	for _, v := range eval[[]string](p, `axe.run(document, { preload: false }).then(r => r.violations.map(v => v.id + ': ' + v.nodes.map(n => n.target + ' ' + (n.any[0]?.message ?? '')).join(' | ')))`) {
		p.Errorf("%s, %s: %s", where, theme, strings.TrimSpace(v))
	}
}

func TestAFindingIsMended(t *testing.T) {
	s, p := quay(t)
	p.open("/sites/quay/findings", `[data-rule="audio"]`)
	p.click(`[data-rule="audio"] .fix`)
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
