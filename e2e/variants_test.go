package e2e

import (
	"strconv"
	"strings"
	"testing"

	"github.com/chromedp/chromedp/kb"
)

// TestATargetAsAVariant asks for more days, makes a variant of the answer, compares the two, carries a difference over,
// adopts the variant, and takes that back.
func TestATargetAsAVariant(t *testing.T) {
	s, p := quayAt(t, "/storage", `[data-test="make-it-a-variant"]`)
	p.number(`[data-test="target"]`, "target", "45")
	p.shows(`[data-test="answer"]`, "45")
	first := p.text(`[data-test="variant"]`)
	p.click(`[data-test="make-it-a-variant"]`)
	p.until(`document.querySelector('[data-test="variant"]').dataset.variant !== 'quay'`)
	p.shows(`[data-test="variant"]`, "days")
	p.until(`document.querySelector('[data-page="storage"]') && parseFloat(document.querySelector('` + verdict + `').innerText) >= 44.95`)
	if now := s.plan(t); len(now.Duties) != len(s.plan(t).Duties) || p.text(`[data-test="state"]`) != "saved · revision 1" {
		t.Error("the adopted variant was changed, or this one is not new")
	}
	made := eval[string](p, `document.querySelector('[data-test="variant"]').dataset.variant`)

	// One key leads to the other, on the same page.
	p.keys("V", kb.ModifierAlt, kb.ModifierShift)
	p.until(`document.querySelector('[data-test="variant"]').dataset.variant === 'quay' && !!document.querySelector('[data-page="storage"]')`)
	p.keys("C", kb.ModifierAlt, kb.ModifierShift)
	p.until(`document.querySelectorAll('[data-test="verdicts"] thead th').length === 3`)
	p.shows(`[data-test="verdicts"] .best`, "45.0 d of 40 required")
	p.shows(`[data-test="differences"]`, "instead of")
	p.until(`document.querySelectorAll('[data-two] canvas').length > 0`)
	p.until(`document.querySelectorAll("[data-test=years] [data-curve]").length === 2`)
	count := eval[int](p, `document.querySelectorAll('[data-difference]').length`)
	last := eval[string](p, `[...document.querySelectorAll('[data-difference] span')].find((e) => /instead of/.test(e.innerText)).innerText`)
	eval[bool](p,
		`([...document.querySelectorAll('[data-difference]')].find((e) => /instead of/.test(e.innerText)).querySelector('[data-test="also"]').click(), true)`)
	p.until(`document.querySelectorAll('[data-difference]').length < ` + strconv.Itoa(count))
	p.revision(2)
	if strings.Contains(p.text(`[data-test="differences"]`), last) {
		t.Errorf("%q differs still", last)
	}
	p.click(`[data-test="notice-act"]`)
	p.until(`document.querySelectorAll('[data-difference]').length === ` + strconv.Itoa(count))

	p.click(`[data-column-menu="` + made + `"]`)
	p.click(`[data-adopt="` + made + `"]`)
	p.shows(`[data-column="`+made+`"]`, "adopted")
	p.click(`[data-test="notice-act"]`)
	p.until(`!document.querySelector('[data-column="` + made + `"] i')`)
	if text := p.text(`[data-test="variant"]`); !strings.HasPrefix(text, strings.TrimRight(first, " ▾")) {
		t.Errorf("%q is open, not %q", text, first)
	}
}

// TestVariantsAreTakenAwayAndOut makes one by the menu, renames it, takes it away and out again.
func TestVariantsAreTakenAwayAndOut(t *testing.T) {
	_, p := quayAt(t, "/compare", `[data-test="lonely"]`)
	p.click(`[data-test="variant"]`)
	p.click(`[data-field="new-variant"]`)
	p.keys("Fewer drives" + kb.Enter + kb.Enter) // a second Enter makes no second one
	p.shows(`[data-test="variant"]`, "Fewer drives")
	p.shows(`[data-test="differences"]`, "planned alike")
	p.until(`!document.querySelector('[data-test="variants"]')?.offsetParent`)
	p.click(`[data-test="variant"]`)
	p.until(`document.querySelectorAll('[data-variant-row]').length === 2`)
	p.click(`[data-test="remove-variant"]`)
	p.until(`document.querySelector('[data-test="variant"]').dataset.variant === 'quay'`)
	p.until(`!!document.querySelector('[data-test="lonely"]')`)
	p.click(`[data-test="variant"]`)
	p.click(`[data-restore]`)
	p.until(`document.querySelectorAll('[data-variant-row]').length === 2`)
}
