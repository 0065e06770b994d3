package e2e

import (
	"fmt"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
)

// TestAnAddressForEverything does something on each page, reads it in the address, opens that address anew and finds it there again; and
// goes back through what is a step of its own.
func TestAnAddressForEverything(t *testing.T) {
	_, p := quay(t)
	p.do(chromedp.WaitReady(chromedp.CSS(gangwayA + " canvas")))
	pressed := func(css string) string { return fmt.Sprintf(`!!document.querySelector(%q)`, css) }
	for _, c := range []struct {
		path, ready string
		act         func()
		says        []string // in the address
		there       string   // what is seen then
		back        string   // what is seen after a step back; empty where it is no step
	}{
		{"/triggers?channel=breakwater", `[data-pick="patch surf"]`, func() { p.click(`[data-pick="patch surf"]`) },
			[]string{"channel=breakwater", "thing=patch"}, pressed(`[data-test="thing"]`), `!document.querySelector('[data-test="thing"]')`},
		{"/triggers/causes", `[data-pick="alarm fuel-contact"]`, func() {
			p.click(`[data-pick="alarm fuel-contact"]`)
			p.until(`document.querySelectorAll('[data-tie]').length > 5`)
		}, []string{"causes=alarm"}, `document.querySelectorAll('[data-tie]').length > 5`, pressed(`[data-test="nothing-picked"]`)},
		{"/storage", `[data-lever]`, func() {
			p.number(`main`, "target", "45")
			p.click(`main .el-switch`)
			p.pick(`[data-choice="Held against"]`, "at its worst hour")
			p.number(`main`, "drives", "2")
			p.number(`main`, "money", "500")
			p.click(`[data-tab="pools"]`)
		}, []string{"days=45", "frames=yes", "by=hour", "drives=2", "money=500", "tab=pools"},
			`!!document.querySelector('.is-active [data-tab="pools"]')`, ""},
		{"", gangwayA + " canvas", func() {
			p.click(`[data-tab="disk"]`)
			p.click(gangwayA + ` .name`)
			p.keys("+")
		}, []string{"channels=gangway-a", "pane=disk", "time="}, `document.querySelector('` + gangwayA + `').ariaSelected === 'true' &&
			!!document.querySelector('[data-test="whole-week"]') && !!document.querySelector('.is-active [data-tab="disk"]')`,
			`!document.querySelector('[data-test="whole-week"]')`},
		{"/kit/kinds", `[data-kind]`, func() { p.click(`[data-kind]:nth-of-type(2)`) }, []string{"kind="},
			pressed(`[data-kind]:nth-of-type(2)[aria-pressed="true"]`), pressed(`[data-kind]:nth-of-type(1)[aria-pressed="true"]`)},
		{"/rehearse?from=2026-12-07&number=4", `[data-test="first-missed"]`, func() {
			p.click(`[data-way="missed"]`)
			p.click(`[data-test="next-missed"]`)
		}, []string{"number=4", "show=missed", "event=", "moment="},
			pressed(`[data-test="story"] [data-test="answer"]`), pressed(`[data-test="nothing-pointed"]`)},
		{"/history", `.history ol > li`, func() { p.click(`.history ol > li [aria-pressed]`) }, []string{"revision=1"},
			pressed(`.history ol > li [aria-pressed="true"]`), `!document.querySelector('.history ol > li [aria-pressed="true"]')`},
		{"/kit/activities", `[data-test="rate-curve"]`, func() {
			eval[bool](p, `([...document.querySelectorAll('.entry')].find((e) => e.innerText.includes('Gulls')).click(), true)`)
		}, []string{"activity=gulls"}, `document.querySelector('.entry.here').innerText.includes('Gulls')`,
			`!document.querySelector('.entry.here').innerText.includes('Gulls')`},
		{"/compare", `[data-test="second-variant"]`, func() {
			p.click(`[data-test="second-variant"]`)
			p.until(`document.querySelectorAll('[data-test="compare"] header input:checked').length === 2`)
			p.click(`[data-compared="quay"]`)
		}, []string{"with="}, `document.querySelectorAll('[data-test="compare"] header input:checked').length === 1`,
			`document.querySelectorAll('[data-test="compare"] header input:checked').length === 2`},
		{"/handover/papers", `[data-paper]`, func() { p.click(`[data-paper="evidence"]`) }, []string{"paper=evidence"},
			pressed(`[data-paper="evidence"].here`), pressed(`[data-paper="customer"].here`)},
	} {
		p.open("/sites/quay"+c.path, c.ready)
		c.act()
		for _, s := range c.says {
			p.until(fmt.Sprintf(`decodeURIComponent(location.search).includes(%q)`, s))
		}
		p.until(c.there)
		address := eval[string](p, `location.pathname + location.search`)
		if c.back != "" {
			eval[bool](p, `(history.back(), true)`)
			p.until(c.back)
			eval[bool](p, `(history.forward(), true)`)
			p.until(c.there)
		}
		p.open(address, "h1")
		p.until(c.there)
		if got := eval[string](p, `location.pathname + location.search`); !strings.HasPrefix(got, strings.SplitN(address, "?", 2)[0]+"?") {
			t.Errorf("%s became %s", address, got)
		}
	}

	// An address of what is not there says so.
	for _, path := range []string{"/kit/activities?activity=nobody", "/kit/kinds?kind=nobody", "/triggers?channel=nobody",
		"/triggers?thing=area%20nobody", "/measured?about=nobody", "/handover/devices?device=nobody", "/handover/walk?about=nobody",
		"/kit/from?from=nobody"} {
		p.open("/sites/quay"+path, "h1")
		p.shows(".el-message", "nobody”. Shown is what there is.")
	}
}
