package e2e

import (
	"math"
	"testing"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
)

// BenchmarkDragCorner measures the frames a second while a corner of an area of 40 is dragged, and how many answers of the
// core come in a second meanwhile.
func BenchmarkDragCorner(b *testing.B) {
	p := plantest.Read(b, "../core/estimate/testdata/plans/watched-yard.json")
	round := plan.Area{ID: "round", Name: "Round"}
	for i := range 40 {
		sin, cos := math.Sincos(2 * math.Pi * float64(i) / 40)
		round.Points = append(round.Points, plan.Point{0.5 + 0.3*cos, 0.6 + 0.3*sin})
	}
	p, err := edit.After(p, edit.Edit{SetArea: &edit.SetArea{Channel: "yard", Area: round}})
	if err != nil {
		b.Fatal(err)
	}
	s := serve(b, "yard", p)
	page := browser(b, s, 1280, 800)
	page.open("/sites/yard/triggers", `[data-test="course"]`)
	page.click(`[data-pick="area round"]`)
	page.until(`document.querySelectorAll('.corner').length >= 40`)
	var rates, answers []float64
	for b.Loop() {
		got := eval[[]float64](page, `new Promise(done => {
			const corner = document.querySelector('[data-corner="area round 0"]')
			const box = corner.getBoundingClientRect()
			const [x, y] = [box.left + box.width / 2, box.top + box.height / 2]
			corner.setPointerCapture = () => {}
			const send = (kind, to, dx) => to.dispatchEvent(new PointerEvent(kind, { bubbles: true, button: 0, pointerId: 1, clientX: x + dx, clientY: y }))
			const fetched = performance.getEntriesByType('resource').length
			performance.setResourceTimingBufferSize(100000)
			send('pointerdown', corner, 0)
			const times = []
			requestAnimationFrame(function step(t) {
				times.push(t)
				send('pointermove', corner, 40 * Math.sin(times.length / 12))
				if (times.length < 120) requestAnimationFrame(step)
				else {
					document.querySelector('[data-test="board"]').dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape', bubbles: true }))
					send('pointerup', corner, 0)
					const took = times.slice(1).map((v, i) => v - times[i]).sort((a, b) => a - b)
					done([1000 / took[59], (performance.getEntriesByType('resource').length - fetched) / ((t - times[0]) / 1000), took[113]])
				}
			})
		})`)
		rates, answers = append(rates, got[0]), append(answers, got[1])
	}
	promised(b, "frames a second while a corner of an area of 40 is dragged, of one channel", median(rates), "")
	promised(b, "answers a second to it", median(answers), "")
}
