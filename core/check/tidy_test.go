package check

import "testing"

// TestSizesOfFixesAreTidy writes percentages as a person would type them.
func TestSizesOfFixesAreTidy(t *testing.T) {
	for percent, want := range map[float64]float64{12.345: 12, 3: 3, 0.1249: 0.12, 0.01256: 0.013, 0.00002: 0.001, 0: 0, -1: 0, 99.6: 100} {
		if got := tidy(percent); got-want > 1e-12 || want-got > 1e-12 {
			t.Errorf("%v %% is %v, want %v", percent, got, want)
		}
	}
}
