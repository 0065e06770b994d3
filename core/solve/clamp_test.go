package solve

import "testing"

// TestChancesHaveAPlaceOnTheCurve keeps chances as they are, but for those that have no place on a normal distribution.
func TestChancesHaveAPlaceOnTheCurve(t *testing.T) {
	for chance, want := range map[float64]float64{0: 0.002, 0.001: 0.002, 0.05: 0.05, 0.5: 0.5, 0.9: 0.9, 0.9999: 0.9995, 1: 0.9995} {
		if got := clamp(chance); got != want {
			t.Errorf("%v is %v, want %v", chance, got, want)
		}
	}
}
