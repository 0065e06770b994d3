package e2e

import (
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/internal/demo"
)

// rushedDepot is the tram depot with a hundred thousand events a week.
func rushedDepot() *plan.Plan {
	p := demo.SaltmarshTramDepot()
	for i := range p.Activities {
		a := &p.Activities[i]
		a.Blocks, a.OtherwisePerHour, a.Groups = nil, 100_000/168.0/float64(len(p.Channels)), nil
	}
	return p
}

// BenchmarkRehearse measures how long a week of 192 channels takes to come into view, the frames a second while it is
// scrubbed and while it is dragged along, and the memory that the page takes.
func BenchmarkRehearse(b *testing.B) {
	s := serve(b, "depot", rushedDepot())
	p := browser(b, s, 1280, 800)
	p.open("/sites/depot/rehearse?from=2026-12-07", `[data-test="sums"]`)
	var took, frames []float64
	for b.Loop() {
		took = append(took, eval[float64](p, `new Promise((done) => {
			const before = document.querySelector('[data-test="sums"]').innerText
			const begun = performance.now()
			const seen = new MutationObserver(() => {
				const text = document.querySelector('[data-test="sums"]').innerText
				if (text === before || text.includes('playing')) return
				seen.disconnect()
				requestAnimationFrame(() => done(performance.now() - begun))
			})
			seen.observe(document.querySelector('[data-test="sums"]'), { childList: true, subtree: true, characterData: true })
			document.querySelector('[data-test="another"]').click()
		})`))
		eval[bool](p, `(document.querySelector('[data-tab="watch"]').click(), true)`)
		p.until(`!!document.querySelector('[data-test="scrub"]')`)
		frames = append(frames, eval[float64](p, `new Promise((done) => {
			const scrub = document.querySelector('[data-test="scrub"]')
			const times = []
			requestAnimationFrame(function step(t) {
				times.push(t)
				scrub.value = 2000 + 4000 * times.length
				scrub.dispatchEvent(new Event('input'))
				if (times.length < 100) return requestAnimationFrame(step)
				const spent = times.slice(1).map((v, i) => v - times[i]).sort((a, b) => a - b)
				done(1000 / spent[49])
			})
		})`))
	}
	promised(b, "another week of 100,000 events, from the click to its sums", median(took), "ms")
	promised(b, "frames a second while such a week is scrubbed, with a tile for each channel", median(frames), "")
	promised(b, "memory of the page then", eval[float64](p, `performance.memory.usedJSHeapSize / 1e6`), "MB")
}
