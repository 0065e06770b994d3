package video

import (
	"slices"
	"testing"
)

// TestWhatFramesTakeIsSpreadOverTheirSeconds: in proportion to the part of each, and at once where a frame takes no time.
func TestWhatFramesTakeIsSpreadOverTheirSeconds(t *testing.T) {
	for _, test := range []struct {
		from, to float64
		want     []float64
	}{{0.5, 2.25, []float64{2, 4, 1}}, {1.25, 1.75, []float64{0, 7, 0}}, {1, 1, []float64{0, 7, 0}}, {3, 3, []float64{0, 0, 7}},
		{2.5, 3, []float64{0, 0, 7}}, {2, 4, []float64{0, 0, 3.5}}} {
		seconds := make([]float64, 3)
		spread(seconds, test.from, test.to, 7)
		if !slices.Equal(seconds, test.want) {
			t.Errorf("from %v to %v: %v, want %v", test.from, test.to, seconds, test.want)
		}
	}
}
