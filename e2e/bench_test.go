package e2e

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"

	"wakefield.example/core/plan"
	"wakefield.example/internal/demo"
)

// BenchmarkStroke measures in the browser how long it takes from the release of the
// button until the verdict has changed on screen, until the ink of the stroke is
// drawn, and until the frame with it is out. It prints medians.
func BenchmarkStroke(b *testing.B) {
	for _, site := range []struct {
		name, channel string
		plan          *plan.Plan
	}{{"16 channels", "kiosk", demo.PennywhistleQuay()}, {"192 channels", "c1-1", ownWeeks(demo.SaltmarshTramDepot())}} {
		b.Run(site.name, func(b *testing.B) {
			s := serve(b, "site", site.plan)
			p := browser(b, s, 1280, 800)
			p.open("/sites/site", fmt.Sprintf("[data-channel=%q] canvas", site.channel))
			p.shows(verdict, "days")
			eval[bool](p, `(() => {
				window.took = []; window.echoed = []; window.drawn = []
				let released = 0
				addEventListener('pointerup', () => {
					released = performance.now()
					requestAnimationFrame(() => setTimeout(() => echoed.push(performance.now() - released)))
				}, true)
				// Microtasks run between one listener and the next: by this one the canvas is drawn.
				addEventListener('pointerup', () => drawn.push(performance.now() - released))
				new MutationObserver(() => { if (released) { took.push(performance.now() - released); released = 0 } })
					.observe(document.querySelector('.verdict'), { characterData: true, subtree: true, childList: true })
				return true
			})()`)
			duties := []string{"clock", "off"}
			for n := 0; b.Loop(); n++ {
				p.click(fmt.Sprintf(`[data-duty=%q]`, duties[n%2]))
				p.drag(p.on(site.channel, 1440+360), p.on(site.channel, 4*1440+1320))
				p.until(fmt.Sprintf(`took.length > %d && %s`, n, isSaved))
			}
			promised(b, "release of a stroke to its ink in the canvas", median(eval[[]float64](p, `drawn`)), "ms")
			promised(b, "release of a stroke to the frame that shows it", median(eval[[]float64](p, `echoed`)), "ms")
			promised(b, "release of a stroke to the changed verdict", median(eval[[]float64](p, `took`)), "ms")
		})
	}
}

// ownWeeks lets every channel have a week of its own, so that painting asks nothing.
func ownWeeks(p *plan.Plan) *plan.Plan {
	for i := range p.Channels {
		own := *p.WeekOf(&p.Channels[i])
		p.Channels[i].Week = plan.WeekRef{Own: &own}
	}
	return p
}

func median(values []float64) float64 {
	slices.Sort(values)
	return values[len(values)/2]
}

// promised prints a figure in the words of docs/operation.md, which has all that are printed.
func promised(b *testing.B, words string, value float64, unit string) {
	b.Helper()
	b.ReportMetric(0, "ns/op")
	b.Log(strings.TrimSpace(plan.Say("%s: %.2g %s", words, value, unit)))
}

// BenchmarkFirstInk measures how the large site is opened again: from navigation until
// the first ribbon is drawn.
func BenchmarkFirstInk(b *testing.B) {
	s := serve(b, "depot", demo.SaltmarshTramDepot())
	p := browser(b, s, 1280, 800)
	var times []float64
	for b.Loop() {
		p.open("/sites/depot", `[data-channel="c1-1"] canvas`)
		p.until(`!!document.querySelector('[data-channel="c1-1"] canvas')?.getContext('2d').getImageData(0, 0, 400, 20).data.some(v => v)`)
		times = append(times, eval[float64](p, `performance.now()`))
	}
	promised(b, "first ink of a page that was there before", median(times), "ms")
}

// BenchmarkDraft measures how many times a second the figures of the stroke in hand are answered
// while the pointer keeps moving over the large site.
func BenchmarkDraft(b *testing.B) {
	s := serve(b, "site", ownWeeks(demo.SaltmarshTramDepot()))
	p := browser(b, s, 1280, 800)
	p.open("/sites/site", `[data-channel="c1-1"] canvas`)
	p.shows(verdict, "days")
	p.click(`[data-duty="off"]`)
	from := p.on("c1-1", 400)
	p.mouse(input.DispatchMouseEventTypeMouseMoved, from)
	p.mouse(input.DispatchMouseEventTypeMousePressed, from, chromedp.ButtonLeft)
	began := eval[float64](p, `(performance.clearResourceTimings(), performance.now())`)
	for n := 0; b.Loop(); n++ {
		to := p.on("c1-1", 1000+(n%140)*60)
		p.mouse(input.DispatchMouseEventTypeMouseMoved, to, chromedp.ButtonLeft)
	}
	drafts := eval[float64](p, `performance.getEntriesByType('resource').filter(e => e.name.endsWith('/draft')).length`)
	seconds := (eval[float64](p, `performance.now()`) - began) / 1000
	promised(b, "answers a second to the stroke in hand", drafts/seconds, "")
	p.keys("\x1b")
}

// BenchmarkScroll measures the frames a second while 192 channels are scrolled
// through.
func BenchmarkScroll(b *testing.B) {
	s := serve(b, "depot", demo.SaltmarshTramDepot())
	p := browser(b, s, 1280, 800)
	p.open("/sites/depot", `[data-channel="c1-1"] canvas`)
	p.shows(verdict, "days")
	var rates []float64
	for b.Loop() {
		rates = append(rates, eval[float64](p, `new Promise(done => {
			const rows = document.querySelector('.rows')
			rows.scrollTop = 0
			const times = []
			requestAnimationFrame(function step(t) {
				times.push(t)
				rows.scrollTop += 24
				if (times.length < 120) requestAnimationFrame(step)
				else done(1000 / times.slice(1).map((x, i) => x - times[i]).sort((a, b) => a - b)[59])
			})
		})`))
	}
	promised(b, "frames a second while Week is scrolled", median(rates), "")
}

// BenchmarkSecondPage measures from the release of a stroke on one page until another
// person's page shows the changed verdict.
func BenchmarkSecondPage(b *testing.B) {
	s := serve(b, "site", ownWeeks(demo.SaltmarshTramDepot()))
	p := browser(b, s, 1280, 800)
	p.open("/sites/site", `[data-channel="c1-1"] canvas`)
	q := p.another()
	q.open("/sites/site", `[data-channel="c1-1"] canvas`)
	q.shows(verdict, "days")
	eval[bool](p, `(addEventListener('pointerup', () => { window.released = Date.now() }, true), true)`)
	eval[bool](q, `(() => {
		window.seen = []
		new MutationObserver(() => seen.push(Date.now())).observe(document.querySelector('.verdict'), { characterData: true, subtree: true, childList: true })
		return true
	})()`)
	duties := []string{"off", "clock"}
	var times []float64
	for n := 0; b.Loop(); n++ {
		p.click(fmt.Sprintf(`[data-duty=%q]`, duties[n%2]))
		eval[bool](q, `(seen.length = 0, true)`)
		p.drag(p.on("c1-1", 1440+360), p.on("c1-1", 4*1440+1320))
		q.until(`seen.length > 0`)
		times = append(times, eval[float64](q, `seen[0]`)-eval[float64](p, `released`))
	}
	promised(b, "release of a stroke to the verdict on somebody else’s page", median(times), "ms")
}
