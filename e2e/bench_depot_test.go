package e2e

import (
	"slices"
	"testing"

	"wakefield.example/internal/demo"
)

// BenchmarkKitScroll scrolls the channel table of 192 channels by a notch of the wheel a frame, down and up, and prints how
// long frames take: the median, and of 95 in 100.
func BenchmarkKitScroll(b *testing.B) {
	s := serve(b, "depot", demo.SaltmarshTramDepot())
	p := browser(b, s, 1280, 800)
	p.open("/sites/depot/kit", cell("c1-1", "name"))
	p.shows(verdict, "days")
	var frames []float64
	for b.Loop() {
		frames = append(frames, eval[[]float64](p, `new Promise((done) => {
			let table = document.querySelector('[data-row]')
			while (table.scrollHeight <= table.clientHeight || getComputedStyle(table).overflowY === 'visible') table = table.parentElement
			table.scrollTop = 0
			const times = []
			let by = 100
			requestAnimationFrame(function step(t) {
				times.push(t)
				table.scrollTop += by
				if (times.length === 60) by = -100
				if (times.length < 120) requestAnimationFrame(step)
				else done(times.slice(1).map((x, i) => x - times[i]))
			})
		})`)...)
	}
	slices.Sort(frames)
	promised(b, "a frame while the table of Kit is scrolled, four rows a frame: median", frames[len(frames)/2], "ms")
	promised(b, "a frame while the table of Kit is scrolled, four rows a frame: 95 in 100 within", frames[len(frames)*95/100], "ms")
}

// BenchmarkStorageSettles measures from the click on Storage until bands, frontier and the answer to its question stand, on
// 192 channels, and the longest task meanwhile.
func BenchmarkStorageSettles(b *testing.B) {
	s := serve(b, "depot", demo.SaltmarshTramDepot())
	p := browser(b, s, 1280, 800)
	var settled, longest []float64
	for b.Loop() {
		p.open("/sites/depot", `[data-channel="c1-1"] canvas`)
		p.shows(verdict, "days")
		eval[bool](p, `(() => {
			window.tasks = []
			new PerformanceObserver((list) => tasks.push(...list.getEntries().map((e) => e.duration))).observe({ type: 'longtask' })
			window.from = performance.now()
			document.querySelector('.rail a[href$="/storage"]').click()
			window.there = new Promise((done) => {
				const look = () => document.querySelector('[data-test="answer"][aria-busy="false"]') && document.querySelector('[data-band]')
					? done(performance.now() - from) : requestAnimationFrame(look)
				look()
			})
			return true
		})()`)
		settled = append(settled, eval[float64](p, `there`))
		longest = append(longest, eval[float64](p, `Math.max(0, ...tasks)`))
	}
	// What the server works out once is among the first.
	promised(b, "click on Storage to bands, frontier and answer, for the first time", settled[0], "ms")
	promised(b, "click on Storage to bands, frontier and answer", median(settled), "ms")
	promised(b, "click on Storage to bands, frontier and answer: longest task", median(longest), "ms")
}
