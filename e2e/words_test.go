package e2e

import (
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp/kb"

	"wakefield.example/internal/demo"
)

// TestCommandsAreFoundByWhatPeopleCallThings types words of the trade that stand on no page.
func TestCommandsAreFoundByWhatPeopleCallThings(t *testing.T) {
	_, p := quay(t)
	for word, name := range map[string]string{
		"retention": "Required days", "holiday": "Named weeks and special days", "pre-record": "Seconds before and after an event",
		"licence": "Recorders and drives",
		"disk":    "Recorders and drives", "schedule": "Week", "errors": "Findings", "codec": "Channels and cameras", "log": "Activities",
	} {
		p.keys("k", kb.ModifierCtrl)
		p.until(`document.activeElement === document.querySelector('[data-test="command"]')`)
		p.keys(word)
		p.shows(`#commands`, name)
		p.keys(kb.Escape)
		p.until(`!document.querySelector('[data-test="command"]') || document.querySelector('[data-test="command"]').offsetWidth === 0`)
		eval[bool](p,
			`(() => { const f = document.querySelector('[data-test="command"]'); if (f) { f.value = ''; f.dispatchEvent(new Event('input')) } return true })()`)
	}
}

// TestSecondsAroundAnAlarmAreSetInThePane sets them for one channel that an alarm records,
// and takes them back.
func TestSecondsAroundAnAlarmAreSetInThePane(t *testing.T) {
	s, p := quay(t)
	p.click(`[data-channel="booth"] .name`)
	p.shows(".pane", "Pre-event")
	if eval[bool](p, `!!document.querySelector('.pane [data-field="alarm-pre"]')`) {
		t.Error("no alarm records the booth")
	}
	id := s.plan(t).Effects[0].Record[0]
	p.click(`[data-channel="` + id + `"] .name`)
	p.number(".pane", "alarm-post", "45")
	p.revision(2)
	if post := s.plan(t).Channel(id).AlarmPostSeconds; post == nil || *post != 45 {
		t.Errorf("%v s after an alarm", post)
	}
	p.number(".pane", "alarm-post", kb.Backspace)
	p.revision(3)
	if post := s.plan(t).Channel(id).AlarmPostSeconds; post != nil {
		t.Errorf("%v s after an alarm", *post)
	}
}

// TestTheHistoryIsSearched looks for changes of a person, and of a channel.
func TestTheHistoryIsSearched(t *testing.T) {
	_, p := quay(t)
	p.click(`[data-duty="off"]`)
	p.drag(p.on("booth", 600), p.on("booth", 1200))
	p.revision(2)
	p.open("/sites/quay/history", ".history ol > li")
	p.click(`[data-name-revision="2"]`)
	p.keys("As offered" + kb.Enter)
	p.shows(".history .named", "As offered")
	p.until(`document.querySelectorAll('.history ol > li').length === 2`)
	p.click(`[data-test="history-words"]`)
	p.keys("ticket BOOTH")
	p.until(`document.querySelectorAll('.history ol > li').length === 1`)
	p.click(`[data-test="history-person"]`)
	p.keys("nobody")
	p.until(`document.querySelectorAll('.history ol > li').length === 0`)
	p.shows(".history", "No change is like that.")
}

// TestASettingGoesToAllRecorders changes the bandwidth of one and gives it to the others.
func TestASettingGoesToAllRecorders(t *testing.T) {
	s := serve(t, "depot", demo.SaltmarshTramDepot())
	p := browser(t, s, 1280, 800)
	p.open("/sites/depot/kit/recorders", `[data-recorder="nvr-1"]`)
	p.number(`[data-recorder="nvr-1"]`, "ingest", "320")
	p.revision(2)
	p.shows(`[data-recorder="nvr-1"]`, "Same limits for 5 other recorders")
	p.click(`[data-recorder="nvr-1"] [data-test="to-all-recorders"]`)
	p.revision(3)
	for _, r := range s.plan(t).Recorders {
		if r.IngestMbps != 320 || r.Name == "Recorder 1, Fan" && r.ID != "nvr-1" {
			t.Errorf("%s takes %v Mbps", r.Name, r.IngestMbps)
		}
	}
	p.until(`!document.querySelector('[data-test="to-all-recorders"]')`)
}

// TestNoticesCanBeReadAndCoverNoFigure holds a notice's ink against its ground in both
// themes, by the formula of WCAG 2.2 for contrast, and its place against the verdict's.
func TestNoticesCanBeReadAndCoverNoFigure(t *testing.T) {
	_, p := quay(t)
	for _, theme := range []string{"Dark", "Light"} {
		p.click(`[data-test="theme"]`)
		p.click(`[data-duty="off"]`)
		p.drag(p.on("booth", 600), p.on("booth", 1200))
		p.until(`!document.querySelector('[data-test="undo"]').disabled`)
		p.click(`[data-test="undo"]`)
		p.shows(".el-message", "Undone: Ticket booth")
		got := eval[float64](p, `(() => {
			const light = (color) => {
				const [r, g, b] = color.match(/[\d.]+/g).map((v) => v / 255).map((v) => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4))
				return 0.2126 * r + 0.7152 * g + 0.0722 * b + 0.05
			}
			const [a, b] = [getComputedStyle(document.querySelector('.el-message__content')).color, getComputedStyle(document.querySelector('.el-message')).backgroundColor].map(light)
			return Math.max(a, b) / Math.min(a, b)
		})()`)
		if got < 4.5 {
			t.Errorf("%s: the contrast of a notice is %.1f", theme, got)
		}
		if eval[bool](p,
			`document.querySelector('.el-message').getBoundingClientRect().top < document.querySelector('.verdict').getBoundingClientRect().bottom`) {
			t.Errorf("%s: a notice covers the verdict", theme)
		}
		p.until(`!document.querySelector('.el-message')`)
	}
}

// TestOurWordsAreExplained where they first appear, and all of them in the help.
func TestOurWordsAreExplained(t *testing.T) {
	_, p := quay(t)
	for _, word := range []string{"duty", "tide", "ink"} {
		at := eval[[]float64](p, `(({x, y, width, height}) => [x + width / 2, y + height / 2])(document.querySelector('[data-term="`+word+
			`"]').getBoundingClientRect())`)
		p.mouse(input.DispatchMouseEventTypeMouseMoved, point{at[0], at[1]})
		p.until(`[...document.querySelectorAll('.term-tip')].some((e) => e.offsetWidth > 0 && e.innerText.length > 40)`)
		p.mouse(input.DispatchMouseEventTypeMouseMoved, point{640, 20})
		p.until(`![...document.querySelectorAll('.term-tip')].some((e) => e.offsetWidth > 0)`)
	}
	p.keys("?")
	for _, word := range []string{"base layer", "duty", "finding", "ink", "nuisance", "tide", "verdict"} {
		p.shows(`[data-test="words"]`, word)
	}
}

// TestEveryPageExplainsItsWords looks on each page of a site for one of our words that says what it means.
func TestEveryPageExplainsItsWords(t *testing.T) {
	_, p := quay(t)
	for _, path := range []string{"", "/kit/recorders", "/kit/kinds", "/kit/activities", "/kit/site", "/weeks", "/triggers",
		"/triggers/causes", "/triggers/messages",
		"/triggers/stills", "/triggers/offsite", "/storage", "/rehearse", "/compare", "/findings", "/history"} {
		p.goes("/sites/quay"+path, "main")
		p.until(`[...document.querySelectorAll('main [data-term]')].some((e) => e.offsetParent && e.innerText.trim())`)
	}
}
