package e2e

import (
	"fmt"
	"testing"

	"wakefield.example/internal/demo"
)

// BenchmarkKitOpens measures from the click on Kit until the channel table of 192
// channels is there, what is fetched included.
func BenchmarkKitOpens(b *testing.B) {
	s := serve(b, "depot", demo.SaltmarshTramDepot())
	p := browser(b, s, 1280, 800)
	var times []float64
	for b.Loop() {
		p.open("/sites/depot", `[data-channel="c1-1"] canvas`)
		p.shows(verdict, "days")
		eval[bool](p, `(() => {
			window.from = performance.now()
			document.querySelector('.rail a').click()
			return true
		})()`)
		p.until(`!!document.querySelector('[data-row="c1-1"]')`)
		times = append(times, eval[float64](p, `performance.now() - from`))
	}
	promised(b, "click on Kit to the table, what is fetched included", median(times), "ms")
}

// BenchmarkCell measures from Enter in a cell until the verdict has changed.
func BenchmarkCell(b *testing.B) {
	s := serve(b, "depot", demo.SaltmarshTramDepot())
	p := browser(b, s, 1280, 800)
	p.open("/sites/depot/kit", cell("c1-1", "main.fps"))
	eval[bool](p, `(() => {
		window.took = []
		let kept = 0
		addEventListener('keydown', e => { if (e.key === 'Enter') kept = performance.now() }, true)
		new MutationObserver(() => { if (kept) { took.push(performance.now() - kept); kept = 0 } })
			.observe(document.querySelector('.verdict'), { characterData: true, subtree: true, childList: true })
		return true
	})()`)
	rates := []string{"9000", "12000"}
	for n := 0; b.Loop(); n++ {
		p.typed(cell("c1-1", "main.rate"), rates[n%2])
		p.until(fmt.Sprintf(`took.length > %d && %s`, n, isSaved))
	}
	promised(b, "Enter in a cell to the changed verdict", median(eval[[]float64](p, `took`)), "ms")
}
