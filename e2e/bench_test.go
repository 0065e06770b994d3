package e2e

import (
	"fmt"
	"slices"
	"testing"

	"wakefield/core/plan"
	"wakefield/internal/demo"
)

// BenchmarkStroke measures in the browser how long it takes from the release of the
// button until the verdict has changed on screen, and until the ink of the stroke
// is drawn. It prints medians.
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
				window.took = []; window.echoed = []
				let released = 0
				addEventListener('pointerup', () => {
					released = performance.now()
					requestAnimationFrame(() => setTimeout(() => echoed.push(performance.now() - released)))
				}, true)
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
			b.ReportMetric(median(eval[[]float64](p, `took`)), "ms-to-verdict")
			b.ReportMetric(median(eval[[]float64](p, `echoed`)), "ms-to-ink")
			b.ReportMetric(0, "ns/op")
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

// BenchmarkFirstInk measures a cold load of the large site: from navigation until
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
	b.ReportMetric(median(times), "ms-to-ink")
	b.ReportMetric(0, "ns/op")
}
