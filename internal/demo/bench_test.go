package demo

import (
	"testing"

	"wakefield/core/check"
	"wakefield/core/estimate"
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
