package e2e

import (
	"testing"

	"github.com/chromedp/chromedp/kb"
)

// TestAFindingIsAccepted accepts a finding with a reason: it stands apart and is not
// counted, comes back when its figures change, and can be opened again.
func TestAFindingIsAccepted(t *testing.T) {
	s, p := quayAt(t, "/findings", `[data-rule="audio"]`)
	p.shows(`[data-test="verdict-findings"]`, "2 · ")
	before := p.text(`[data-test="verdict-findings"] b`)
	// Misses of several channels are one finding, each told.
	p.shows(`[data-rule="likely-misses"]`, "4 channels miss many wanted events")
	p.shows(`[data-rule="likely-misses"] [data-test="effect"]`, "missed events a day")
	p.shows(`[data-rule="below-at-least"] [data-test="effect"]`, "days, ")
	p.shows(`[data-rule="mostly-held-back"] [data-test="decision"]`, "For you to decide: ")
	p.click(`[data-rule="audio"] [data-test="accept"]`)
	p.keys("the customer has put up a notice")
	p.keys(kb.Enter)
	p.revision(2)
	p.until(`document.querySelector('[data-test="verdict-findings"] b').innerText !== '` + before + `'`)
	a := s.plan(t).Accepted
	if len(a) != 1 || a[0].Finding != "audio: Ticket booth records audio." || a[0].Reason != "the customer has put up a notice" ||
		a[0].By != "Planner" || a[0].On == nil {
		t.Fatalf("%+v", a)
	}
	p.click(`[data-test="accepted-findings"] summary`)
	p.shows(`[data-test="accepted-findings"]`, "the customer has put up a notice")
	p.shows(`[data-test="accepted-findings"] summary`, "1 accepted")
	p.click(`[data-test="accepted-findings"] [data-test="reopen"]`)
	p.revision(3)
	p.until(`!document.querySelector('[data-test="accepted-findings"]') && document.querySelector('[data-test="verdict-findings"] b').innerText === '` + before + `'`)
}
