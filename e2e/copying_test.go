package e2e

import (
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"wakefield.example/internal/demo"
)

// copied is what Ctrl+C takes along: the copy event as a browser makes it.
const copied = `(() => {
	const event = new ClipboardEvent('copy', { clipboardData: new DataTransfer(), bubbles: true, cancelable: true })
	document.activeElement.dispatchEvent(event)
	return [event.defaultPrevented ? event.clipboardData.getData('text/plain') : '', event.clipboardData.getData('text/html')]
})()`

// TestFiguresAreCopiedAsCells copies the verdict and a table, and leaves what is marked, and fields, to the browser.
func TestFiguresAreCopiedAsCells(t *testing.T) {
	s := serve(t, "quay", demo.PennywhistleQuay())
	p := browser(t, s, 1280, 800)
	p.open("/sites/quay/storage", `[data-test="levers"]`)
	p.shows(verdict, "37.2 days")
	p.until(`!!document.querySelector('.verdict') && (document.querySelector('.verdict').dispatchEvent(new PointerEvent('pointerdown', { bubbles: true })), ` +
		copied + `[0].includes('37.2 days'))`)
	got := eval[[]string](p, copied)
	lines := strings.Split(got[0], "\n")
	if len(lines) != 6 || !strings.HasPrefix(lines[0], "37.2 days\t\tof 40 required") || !strings.HasPrefix(lines[3], "5.70 TB\t") {
		t.Errorf("%q", got[0])
	}
	if !strings.HasPrefix(got[1], "<table><tr><td>37.2 days</td><td></td><td>of 40 required") {
		t.Errorf("%q", got[1])
	}
	eval[bool](p, `document.querySelector('[data-test="levers"] td').dispatchEvent(new PointerEvent('pointerdown', { bubbles: true }))`)
	got = eval[[]string](p, copied)
	if rows := strings.Split(got[0], "\n"); !strings.HasPrefix(rows[0], "Channel or pool\tchange\tdays") || len(rows) < 4 ||
		strings.Count(rows[1], "\t") < 5 {
		t.Errorf("%q", got[0])
	}
	p.shows(".el-message", "The table was copied")
	eval[bool](p, `(getSelection().selectAllChildren(document.querySelector('h1, h2')), true)`)
	if got = eval[[]string](p, copied); got[0] != "" {
		t.Errorf("what is marked is copied otherwise: %q", got[0])
	}
	eval[bool](p, `(getSelection().removeAllRanges(), document.querySelector('input').focus(), true)`)
	if got = eval[[]string](p, copied); got[0] != "" {
		t.Errorf("of a field: %q", got[0])
	}
}

// TestALinkBringsBackWhatIsInHand copies the link of channels and a time, and opens it in another window.
func TestALinkBringsBackWhatIsInHand(t *testing.T) {
	s := serve(t, "quay", demo.PennywhistleQuay())
	p := browser(t, s, 1280, 800)
	p.open("/sites/quay", gangwayA+" canvas")
	eval[bool](p, `(navigator.clipboard.writeText = (text) => (window.link = text, Promise.resolve()), true)`)
	p.choose("gangway-a")
	p.keys("L", kb.ModifierAlt, kb.ModifierShift)
	p.until(`!!document.dispatchEvent(new KeyboardEvent('keydown', { altKey: true, shiftKey: true, code: 'KeyL' })) && window.link?.includes('channels=gangway-a') || !!window.link?.includes('channels=gangway-a')`)
	link := eval[string](p, `window.link`)
	if !strings.HasPrefix(link, s.url+"/sites/quay?") || strings.Contains(link, "time=") {
		t.Fatal(link)
	}
	q := p.another()
	q.open(strings.TrimPrefix(link, s.url)+"&time=1440-2880", gangwayA+`[aria-selected="true"]`)
	q.until(`document.querySelector('.times, [data-test="axis"], main').innerText.includes('Tue') && !document.querySelector('main').innerText.includes('Sun')`)
	q.open("/sites/quay?channels=nothing&time=9-3", gangwayA+" canvas")
	q.do(chromedp.WaitVisible(chromedp.CSS(gangwayA + `[aria-selected="false"]`)))
}
