package demo

import (
	"testing"

	"wakefield.example/core/check"
	"wakefield.example/core/edit"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// BenchmarkDepot is the estimate of the 192 channels of Saltmarsh Tram Depot from
// nothing, with and without the draws, and its checks.
func BenchmarkDepot(b *testing.B) {
	p := SaltmarshTramDepot()
	b.Run("figures", func(b *testing.B) {
		for b.Loop() {
			estimate.Figures(p, nil)
		}
	})
	b.Run("with draws", func(b *testing.B) {
		for b.Loop() {
			estimate.Run(p, nil)
		}
	})
	site := estimate.Run(p, nil)
	b.Run("checks", func(b *testing.B) {
		for b.Loop() {
			check.Findings(p, site)
		}
	})
}

// BenchmarkRepaint is the estimate after one channel has been repainted, everything
// else being as it was.
func BenchmarkRepaint(b *testing.B) {
	for _, site := range []struct {
		name, channel string
		plan          *plan.Plan
	}{{"16 channels", "kiosk", PennywhistleQuay()}, {"192 channels", "c1-1", SaltmarshTramDepot()}} {
		before := estimate.Figures(site.plan, nil)
		painted, err := edit.After(site.plan, edit.Edit{Paint: &edit.Paint{Channels: []string{site.channel}, Duty: "motion",
			Hours: []plan.Hours{{Days: []week.Weekday{1, 2, 3, 4}, From: 360, To: 1320}}}})
		if err != nil {
			b.Fatal(err)
		}
		b.Run(site.name, func(b *testing.B) {
			for b.Loop() {
				estimate.Figures(painted, before)
			}
		})
	}
}
