package e2e

import (
	"strings"
	"testing"

	"github.com/chromedp/chromedp/kb"
)

// TestNumbersAreNeverChangedWithoutAWord types numbers as people do into a field of the
// pane: what is refused stays with its reason, and nothing is clamped.
func TestNumbersAreNeverChangedWithoutAWord(t *testing.T) {
	s, p := quay(t)
	p.choose("booth")
	css := `[data-field="pre"] input`
	pre := func() float64 { return s.plan(t).Channel("booth").PreSeconds }
	before := pre()
	for text, why := range map[string]string{
		"-5": "at least 0", "99999": "at most 3600", "soon": "“soon” is not a number", "1,234": "can mean two numbers: write “1234” or “1.234”",
		"7..5": "is not a number",
	} {
		p.field("pre", text)
		p.shows(`[data-field="pre"] [role="alert"]`, why)
		if shown := eval[string](p, `document.querySelector('`+css+`').value`); shown != text {
			t.Errorf("%q became %q", text, shown)
		}
	}
	if got := pre(); got != before {
		t.Errorf("a refused number was kept: %v", got)
	}
	revision := 1
	for text, want := range map[string]float64{"7,5": 7.5, "12.25": 12.25, "1 234": 1234, " 8 ": 8} {
		revision++
		p.field("pre", text)
		p.revision(revision)
		if got := pre(); got != want {
			t.Errorf("%q is %v, want %v", text, got, want)
		}
	}
	if n := eval[int](p, `document.querySelectorAll('[data-field="pre"] [role="alert"]').length`); n != 0 {
		t.Error("a reason is left beside a number that was taken")
	}
	// A requirement of −3 days is none that is removed.
	p.field("keep", "-3")
	p.shows(`[data-field="keep"] [role="alert"]`, "at least 0; unchanged: 40")
	p.keys(kb.Escape)
	if got := s.plan(t).Channel("booth").Keep.AtLeastDays; got != 40 {
		t.Errorf("the requirement is %v days", got)
	}
	p.open("/sites/quay/kit/recorders", `[data-field="count"]`)
	p.field("count", "3,5")
	p.shows(`[data-field="count"] [role="alert"]`, "a whole number")
	if body := p.text("body"); strings.Contains(body, "0 for all") || strings.Contains(body, "0 unknown") {
		t.Error("0 stands for something else")
	}
}
