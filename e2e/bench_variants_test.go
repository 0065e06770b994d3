package e2e

import (
	"fmt"
	"net/http"
	"strings"
	"testing"

	"wakefield.example/internal/demo"
)

// BenchmarkCompare measures how long it takes from the step Compare to the verdicts and differences of four variants of the
// depot on the page, and frames a second while dragging along the frontier of one.
func BenchmarkCompare(b *testing.B) {
	s := serve(b, "depot", demo.SaltmarshTramDepot())
	for n := range 3 {
		body := fmt.Sprintf(`{"like":"depot","name":"Variant %d","edits":[{"setTimes":{"channels":["c1-1","c2-%d"],"postSeconds":%d}}]}`, n, n+
			1, 10+n)
		answer, err := http.Post(s.url+"/api/sites/depot/plans", "application/json", strings.NewReader(body))
		if err != nil || answer.StatusCode != 201 {
			b.Fatal(err, answer.Status)
		}
		answer.Body.Close()
	}
	p := browser(b, s, 1280, 800)
	p.open("/sites/depot/storage", `[data-test="frontier"]`)
	var took []float64
	for b.Loop() {
		p.until(`!!document.querySelector('[data-page="storage"]')`)
		took = append(took, eval[float64](p, `new Promise((done) => {
			const begun = performance.now()
			const seen = new MutationObserver(() => {
				if (document.querySelectorAll('[data-test="verdicts"] thead th').length < 5 || !document.querySelector('[data-difference]')) return
				seen.disconnect()
				requestAnimationFrame(() => done(performance.now() - begun))
			})
			seen.observe(document.body, { childList: true, subtree: true })
			document.querySelector('nav.rail a[href*="/compare"]').click()
		})`))
		eval[bool](p, `(document.querySelector('nav.rail a[href*="/storage"]').click(), true)`)
	}
	p.until(`!!document.querySelector('[data-test="frontier"]')`)
	frames := eval[float64](p, `new Promise((done) => {
		const chart = document.querySelector('[data-test="frontier"]')
		const box = chart.getBoundingClientRect()
		const fire = (type, share) => chart.dispatchEvent(new PointerEvent(type, { bubbles: true, button: 0, pointerId: 1, clientX: box.left + share * box.width, clientY: box.top + 60 }))
		chart.setPointerCapture = () => {}
		const times = []
		fire('pointerdown', 0.2)
		requestAnimationFrame(function step(t) {
			times.push(t)
			fire('pointermove', 0.2 + 0.6 * times.length / 120)
			if (times.length < 120) return requestAnimationFrame(step)
			fire('pointerup', 0.8)
			const spent = times.slice(1).map((v, i) => v - times[i]).sort((a, b) => a - b)
			done(1000 / spent[59])
		})
	})`)
	promised(b, "click on Compare to four variants and what differs", median(took), "ms")
	promised(b, "frames a second while dragging along the frontier", frames, "")
}
