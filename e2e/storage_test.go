package e2e

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp/kb"

	"wakefield.example/core/estimate"
	"wakefield.example/core/storage"
)

// TestATargetIsReached asks for more days, drags along the frontier, makes the changes, and takes them back.
func TestATargetIsReached(t *testing.T) {
	s, p := quayAt(t, "/storage", `[data-test="do-it"]`)
	p.shows(`[data-band="array"]`, "days")
	p.shows(`[data-test="answer"]`, "40") // what the booth lacks is asked for first
	before := s.plan(t)
	p.number(`[data-test="target"]`, "target", "45")
	p.shows(`[data-test="answer"]`, "45")
	words := p.text(`[data-test="changes"]`)
	p.focus(`[data-test="frontier"]`)
	p.keys(kb.ArrowRight)
	p.shows(`[data-test="answer"]`, "46")
	box := eval[[]float64](p,
		`(({left, top, width, height}) => [left, top, width, height])(document.querySelector('[data-test="frontier"]').getBoundingClientRect())`)
	at := func(share float64) point { return point{box[0] + share*box[2], box[1] + box[3]/2} }
	p.drag(at(0.2), at(0.7))
	p.until(`document.querySelector('[data-test="changes"]').innerText !== ` + quoted(words))
	p.number(`[data-test="target"]`, "target", "45")
	p.until(`document.querySelector('[data-test="changes"]').innerText.trim() === ` + quoted(words))
	p.click(`[data-test="do-it"]`)
	p.revision(2)
	p.until(`parseFloat(document.querySelector('` + verdict + `').innerText) >= 44.95`)
	p.shows(`[data-test="answer"]`, "That many days are kept already")
	p.keys("z", kb.ModifierCtrl)
	p.revision(3)
	if a, b := before, s.plan(t); len(a.Duties) != len(b.Duties) || a.Channels[0].Week != b.Channels[0].Week &&
		a.Channels[0].Week.Named != b.Channels[0].Week.Named {
		t.Error("it was not taken back")
	}
}

// TestDaysByAnotherMeasure asks for days at the worst hour and with a chance, and does what is found: what was asked stays asked.
func TestDaysByAnotherMeasure(t *testing.T) {
	_, p := quayAt(t, "/storage", `[data-test="do-it"]`)
	p.number(`[data-test="target"]`, "target", "38")
	p.pick(`[data-choice="Held against"]`, "at its worst hour")
	p.shows(`[data-test="answer"]`, "in an ordinary week")
	p.until(`parseFloat(document.querySelector('[data-test="target-kept"]')?.innerText.match(/, ([\d.]+) at the worst hour/)?.[1]) >= 38`)
	p.click(`[data-test="do-it"]`)
	p.revision(2)
	p.shows(`[data-test="answer"]`, "That many days are kept already")
	if got := eval[string](p, `document.querySelector('[data-field="target"] input, input[data-field="target"]').value`); got != "38" {
		t.Errorf("38 days were asked for, %s stand there after it was done", got)
	}
	p.pick(`[data-choice="Held against"]`, "with a chance of")
	p.number(`[data-test="target"]`, "target", "20")
	p.shows(`[data-test="target-kept"]`, "that all keep 20.0 days")
	p.until(`parseInt(document.querySelector('[data-test="target-kept"]').innerText.match(/chance of (\d+) %/)[1]) >= 80`)
	p.number(`[data-test="target"]`, "chance", "99")
	p.shows(`[data-test="target-kept"]`, "chance of 99 %")
}

// TestWhatCannotBeHad locks every channel and asks for far too much; then makes a single change.
func TestWhatCannotBeHad(t *testing.T) {
	s, p := quayAt(t, "/storage", `[data-test="do-it"]`)
	p.number(`[data-test="target"]`, "target", "0")
	p.shows(`[data-test="target"]`, "at least 0.1")
	p.number(`[data-test="target"]`, "target", "9000")
	p.shows(`[data-test="answer"]`, "Not possible.")
	p.number(`[data-test="target"]`, "target", "44")
	p.shows(`[data-test="answer"]`, "GB a day")
	lever := eval[string](p, `document.querySelector('[data-lever]').dataset.lever`)
	p.click(`[data-lever="` + lever + `"] [data-test="try"]`)
	p.shows(`[data-test="tried"]`, "Nothing is changed yet")
	p.click(`[data-test="keep-lever"]`)
	p.revision(2)
	if s.plan(t).Channel(lever) == nil {
		t.Error(lever)
	}
	p.click(`[data-test="disk-list"] [data-way="group"]`)
	p.until(`document.querySelectorAll('[data-test="disk-list"] tbody tr').length === 4`)
	p.click(`[data-test="disk-list"] [data-way="hour"]`)
	p.until(`document.querySelectorAll('[data-test="disk-list"] tbody tr').length === 24`)
	p.click(`[data-test="disk-list"] [data-way="duty"]`)
	p.shows(`[data-test="disk-list"]`, "Round the clock")
}

// TestALockThatMakesItImpossible locks the ticket booth, then its whole group; which lock costs most is told.
func TestALockThatMakesItImpossible(t *testing.T) {
	_, p := quayAt(t, "/storage", `[data-test="do-it"]`)
	p.number(`[data-test="target"]`, "target", "46")
	p.shows(`[data-test="answer"]`, "the best there is")
	p.click(`[data-choice="locked"] .el-select__wrapper`)
	for _, name := range []string{"2 Ticket booth", "1 Ticket hall"} {
		p.until(`(() => {
			const option = [...document.querySelectorAll('.el-select-dropdown__item')].find((e) => e.innerText === ` + quoted(name) + ` && e.offsetParent)
			if (option) option.click()
			return !!option
		})()`)
	}
	p.shows(`[data-test="answer"]`, "Not possible.")
	p.shows(`[data-test="answer"]`, "costs most")
	p.until(`!document.querySelector('[data-test="changes"]').innerText.includes('Ticket')`)
}

// TestDrivesForASum allows a drive more, gives one size a price, and asks for a sum.
func TestDrivesForASum(t *testing.T) {
	s, p := quayAt(t, "/storage", `[data-test="do-it"]`)
	p.number(`[data-test="target"]`, "target", "60")
	p.number(`[data-test="target"]`, "drives", "4")
	p.shows(`[data-test="changes"]`, "more drive")
	p.shows(`[data-test="levers"]`, "not known")
	p.number(`[data-test="target"]`, "money", "500")
	p.shows(`[data-test="unpriced"]`, "2.00 TB")
	p.until(`!document.querySelector('[data-test="changes"]').innerText.includes('more drive')`)
	p.click(`[data-test="prices"] .acts button`)
	p.number(`[data-test="prices"]`, "price", "90")
	p.revision(2)
	p.shows(`[data-test="changes"]`, "more drive")
	p.shows(`[data-test="answer"]`, "EUR")
	p.until(`!document.querySelector('[data-test="unpriced"]')`)
	p.click(`[data-test="do-it"]`)
	p.revision(3)
	if now := s.plan(t); now.Pool("array").Drives[0].Count <= 4 {
		t.Errorf("%+v", now.Pool("array").Drives)
	}
}

// TestPoolsAndLimits splits a pool, drags a channel onto the new one, sets a limit and what matters, and takes footage off.
func TestPoolsAndLimits(t *testing.T) {
	s, p := quayAt(t, "/storage", `[data-test="do-it"]`)
	p.click(`[data-tab="pools"]`)
	p.click(`[data-member="booth"] input`)
	p.number(`[data-test="picked"]`, "most", "62")
	p.revision(2)
	p.click(`[data-test="picked"] [data-way="3"]`)
	p.revision(3)
	if c := s.plan(t).Channel("booth"); c.Keep.AtMostDays != 62 || c.Matters != 3 || c.Keep.AtLeastDays != 40 {
		t.Errorf("%+v", c.Keep)
	}
	p.click(`[data-pool-card="array"] summary`)
	p.click(`[data-split="array"]`)
	p.revision(4)
	p.until(`document.querySelectorAll('[data-pool-card]').length === 2 && document.querySelectorAll('[data-band]').length === 2`)
	second := eval[string](p, `document.querySelectorAll('[data-pool-card]')[1].dataset.poolCard`)
	if c := s.plan(t).Channel("booth"); c.Pool != second {
		t.Errorf("the booth is kept on %s", c.Pool)
	}
	eval[bool](p, `(() => {
		const data = new DataTransfer()
		const fire = (e, type) => e.dispatchEvent(new DragEvent(type, { bubbles: true, cancelable: true, dataTransfer: data }))
		const from = document.querySelector('[data-member="hall"]'), to = document.querySelectorAll('[data-pool-card]')[1]
		fire(from, 'dragstart'); fire(to, 'dragover'); fire(to, 'drop')
		return true
	})()`)
	p.revision(5)
	if c := s.plan(t).Channel("hall"); c.Pool != second {
		t.Errorf("the hall is kept on %s", c.Pool)
	}
	p.click(`[data-tab="off"]`)
	p.shows(`[data-test="taken"]`, "GB")
	all := p.text(`[data-test="taken"]`)
	eval[bool](p,
		`(document.querySelector('[data-field="from-time"]').focus(), document.querySelector('[data-field="from-time"]').select(), true)`)
	p.keys("25:00")
	p.shows(`[data-test="take-off"]`, "A time is written as 08:00.")
	eval[bool](p, `(document.querySelector('[data-field="from-time"]').select(), true)`)
	p.keys("17.30")
	p.until(`document.querySelector('[data-test="taken"]') && document.querySelector('[data-test="taken"]').innerText !== ` + quoted(all))
	p.shows(`[data-test="sentence"]`, "17:30")
	p.shows(`[data-test="sentence"]`, "USB drive")
}

func quoted(text string) string { return "`" + strings.ReplaceAll(text, "`", "") + "`" }

// TestThePastOfThePool reads what is short beside the band, looks at its layers in all ways, and points at one; with
// what is short made up for, nothing is hatched any more.
func TestThePastOfThePool(t *testing.T) {
	s, p := quayAt(t, "/storage", `[data-test="short-gb"]`)
	made := s.plan(t)
	short := estimate.Figures(made, nil).Pools[0].ShortGB
	p.shows(`[data-test="short-gb"]`, three(short)+" GB short")
	groups, cameras := map[string]bool{}, 0
	for _, c := range made.Channels {
		if !c.NoCamera {
			groups[c.Group] = true
			cameras++
		}
	}
	layers := func(n int) { p.until(fmt.Sprintf(`document.querySelectorAll('[data-layer]').length === %d`, n)) }
	layers(len(groups))
	p.click(`[data-way="channels"]`)
	layers(cameras)
	p.click(`[data-way="causes"]`)
	layers(3)
	// The layers together are as large as the disk: their outlines are, in the unit of the picture, of its area.
	area := eval[float64](p, `(() => {
		const size = (path) => {
			const points = path.getAttribute('d').match(/[-0-9.]+ [-0-9.]+/g).map((s) => s.split(' ').map(Number))
			return Math.abs(points.reduce((s, [x, y], i) => {
				const [u, v] = points[(i + 1) % points.length]
				return s + (x * v - u * y) / 2
			}, 0))
		}
		const all = [...document.querySelectorAll('[data-layer]')].map(size)
		const short = document.querySelector('[data-test="short-area"]')
		return all.reduce((a, b) => a + b) / (short.getAttribute('width') * short.getAttribute('height'))
	})()`)
	if disk := made.Recorders[0].Pools[0]; math.Abs(area*short/float64(estimate.Array(&disk).Usable()/storage.GB)-1) > 0.02 {
		t.Errorf("the band is %.2f times as large as what is short, which is %.0f GB", area, short)
	}
	at := eval[[]float64](p,
		`(({left, bottom, width}) => [left + width / 3, bottom - 4])(document.querySelector('[data-layer="base"]').getBoundingClientRect())`)
	p.mouse(input.DispatchMouseEventTypeMouseMoved, point{at[0], at[1]})
	p.shows(`[data-band="array"] .said`, "base layer: ")
	p.click(`[data-test="do-it"]`)
	p.until(`!document.querySelector('[data-test="short-gb"]') && !document.querySelector('[data-test="short-area"]')`)
}
