package e2e

import (
	"testing"

	"github.com/chromedp/chromedp"

	"wakefield.example/internal/demo"
)

// TestWhoElseIsHere has two people look at one site: each sees the other's initials, in which page and at which channel, until
// the other leaves; a further tab of one's own is nobody else.
func TestWhoElseIsHere(t *testing.T) {
	s := serveAccounts(t, "pennywhistle-quay", demo.PennywhistleQuay())
	p := browser(t, s, 1280, 800)
	ines := p.as("Ines Marrow", "/sites/pennywhistle-quay", gangwayA+" canvas")
	tobias := p.as("Tobias Fenn", "/sites/pennywhistle-quay", gangwayA+" canvas")
	ines.shows(`[data-test="others"]`, "TF")
	tobias.shows(`[data-test="others"]`, "IM")
	tobias.choose("gangway-a")
	ines.shows(gangwayA+` [data-test="here"]`, "TF")
	if eval[bool](ines, `(() => {
		const [row, kept] = ['', ' .kept'].map((of) => document.querySelector('[data-channel="gangway-a"]' + of).getBoundingClientRect())
		return kept.top < row.top || kept.bottom > row.bottom
	})()`) {
		t.Error("initials push the figures out of their row")
	}
	ines.until(`document.querySelector('[data-test="others"] li')?.title === 'Tobias Fenn: Week, Gangway A'`)
	tobias.do(chromedp.Navigate(p.url + "/sites/pennywhistle-quay/storage"))
	ines.until(`document.querySelector('[data-test="others"] li')?.title === 'Tobias Fenn: Storage'`)
	ines.until(`!document.querySelector('[data-test="here"]')`)

	own := ines.tab()
	own.open("/sites/pennywhistle-quay", gangwayA+" canvas")
	own.shows(`[data-test="others"]`, "TF")
	if n := eval[float64](ines, `document.querySelectorAll('[data-test="others"] li').length`); n != 1 {
		t.Errorf("%v are here", n)
	}
	tobias.do(chromedp.Navigate("about:blank"))
	ines.until(`!document.querySelector('[data-test="others"]')`)
	own.until(`!document.querySelector('[data-test="others"]')`)
}
