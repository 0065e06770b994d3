package e2e

import (
	"fmt"
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/internal/demo"
)

// tiedDepot is the tram depot with 40 alarm inputs, 20 receivers and 2,000 ties.
func tiedDepot(t testing.TB) *plan.Plan {
	p := demo.SaltmarshTramDepot()
	for i := range 20 {
		p.Messages = append(p.Messages, plan.Message{ID: fmt.Sprint("m", i), Name: fmt.Sprint("Receiver ", i), To: "Somebody",
			AtMostEverySeconds: 60 * float64(1+i)})
	}
	for i := range 40 {
		p.AlarmInputs = append(p.AlarmInputs, plan.AlarmInput{ID: fmt.Sprint("i", i), Name: fmt.Sprint("Contact ", i),
			Recorder: p.Recorders[i%6].ID, Activity: p.Activities[i%4].ID})
	}
	at := func(i int) string { return p.Channels[i%len(p.Channels)].ID }
	ties := 0
	add := func(e plan.Effect) {
		ties += e.Ties()
		p.Effects = append(p.Effects, e)
	}
	for i := range p.Channels {
		add(plan.Effect{When: plan.When{Motion: at(i)}, Record: []string{at(i + 1), at(i + 2)},
			Message: []string{fmt.Sprint("m", i%20), fmt.Sprint("m", (i+7)%20)}})
		add(plan.Effect{When: plan.When{Lost: at(i), PerMonth: 0.1}, Message: []string{"m0", "m1"}})
	}
	for i := 0; ties < 2000; i++ {
		add(plan.Effect{When: plan.When{Alarm: fmt.Sprint("i", i%40)}, Record: []string{at(5 * i), at(5*i + 1)},
			Hours: &plan.HourList{Blocks: []plan.Hours{{From: 0, To: 60 + 15}}}})
	}
	if err := p.Check(); err != nil {
		t.Fatal(err)
	}
	return p
}

// BenchmarkTies measures how long it takes from a tie made to its figures on the page, and the frames a second while the
// causes are scrolled.
func BenchmarkTies(b *testing.B) {
	s := serve(b, "depot", tiedDepot(b))
	p := browser(b, s, 1280, 800)
	p.open("/sites/depot/triggers/causes", `[data-pick="motion c1-1"]`)
	var took, rates []float64
	for b.Loop() {
		p.click(`[data-pick="motion c1-1"]`)
		p.until(`document.querySelectorAll('[data-tie]').length > 0`)
		p.click(`[data-test="targets"] [data-pick="message m5"]`)
		took = append(took, eval[float64](p, `new Promise((done) => {
			const begun = performance.now()
			const box = document.querySelector('.pane')
			const seen = new MutationObserver(() => {
				if (!document.querySelector('[data-tie$="message m5"]')) return
				seen.disconnect()
				done(performance.now() - begun)
			})
			seen.observe(box, { childList: true, subtree: true })
			document.querySelector('[data-test="tie"]').click()
		})`))
		p.click(`[data-test="untie-all"]`)
		p.until(`!document.querySelector('[data-tie]')`)
		rates = append(rates, eval[float64](p, `new Promise((done) => {
			const list = document.querySelector('[data-test="causes"] [role=listbox]')
			const times = []
			requestAnimationFrame(function step(t) {
				times.push(t)
				list.scrollTop = 60 * times.length
				if (times.length < 100) requestAnimationFrame(step)
				else {
					list.scrollTop = 0
					const spent = times.slice(1).map((v, i) => v - times[i]).sort((a, b) => a - b)
					done(1000 / spent[49])
				}
			})
		})`))
		eval[bool](p, `(document.querySelector('[data-test="targets"] [role=listbox]').focus(), true)`)
		p.keys("\u001b")
		p.focus(`[data-test="causes"] [role="listbox"]`)
		p.keys("\u001b")
		p.until(`!!document.querySelector('[data-test="nothing-picked"]')`)
	}
	promised(b, "a tie made to its figures, 2,000 ties", median(took), "ms")
	promised(b, "frames a second while causes are scrolled", median(rates), "")
}
