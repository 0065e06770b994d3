package e2e

import (
	"strings"
	"testing"

	"github.com/chromedp/chromedp/kb"
)

// TestATargetIsReached asks for more days, drags along the frontier, makes the changes, and takes them back.
func TestATargetIsReached(t *testing.T) {
	s, p := quay(t)
	p.open("/sites/quay/storage", `[data-test="do-it"]`)
	p.shows(`[data-band="array"]`, "days")
	p.shows(`[data-test="answer"]`, "40") // what the booth lacks is asked for first
	before := s.plan(t)
	p.number(`[data-test="reach"]`, "target", "45")
	p.shows(`[data-test="answer"]`, "45")
	words := p.text(`[data-test="changes"]`)
	p.focus(`[data-test="frontier"]`)
	p.keys(kb.ArrowRight)
	p.shows(`[data-test="answer"]`, "46")
	box := eval[[]float64](p, `(({left, top, width, height}) => [left, top, width, height])(document.querySelector('[data-test="frontier"]').getBoundingClientRect())`)
	at := func(share float64) point { return point{box[0] + share*box[2], box[1] + box[3]/2} }
	p.drag(at(0.2), at(0.7))
	p.until(`document.querySelector('[data-test="changes"]').innerText !== ` + quoted(words))
	p.number(`[data-test="reach"]`, "target", "45")
	p.until(`document.querySelector('[data-test="changes"]').innerText.trim() === ` + quoted(words))
	p.click(`[data-test="do-it"]`)
	p.revision(2)
	p.until(`parseFloat(document.querySelector('` + verdict + `').innerText) >= 44.95`)
	p.shows(`[data-test="answer"]`, "That many days are kept already")
	p.keys("z", kb.ModifierCtrl)
	p.revision(3)
	if a, b := before, s.plan(t); len(a.Duties) != len(b.Duties) || a.Channels[0].Week != b.Channels[0].Week && a.Channels[0].Week.Named != b.Channels[0].Week.Named {
		t.Error("it was not taken back")
	}
}

// TestWhatCannotBeHad locks every channel and asks for far too much; then makes a single change.
func TestWhatCannotBeHad(t *testing.T) {
	s, p := quay(t)
	p.open("/sites/quay/storage", `[data-test="do-it"]`)
	p.number(`[data-test="reach"]`, "target", "0")
	p.shows(`[data-test="reach"]`, "at least 0.1")
	p.number(`[data-test="reach"]`, "target", "9000")
	p.shows(`[data-test="answer"]`, "Not to be had.")
	p.number(`[data-test="reach"]`, "target", "44")
	p.shows(`[data-test="answer"]`, "GB a day")
	lever := eval[string](p, `document.querySelector('[data-lever]').dataset.lever`)
	p.click(`[data-lever="` + lever + `"] button`)
	p.revision(2)
	if s.plan(t).Channel(lever) == nil {
		t.Error(lever)
	}
	p.click(`[data-test="disk-list"] [data-way="group"]`)
	p.until(`document.querySelectorAll('[data-test="disk-list"] tbody tr').length === 4`)
}

func quoted(text string) string { return "`" + strings.ReplaceAll(text, "`", "") + "`" }
