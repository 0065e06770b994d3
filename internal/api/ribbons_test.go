package api

import (
	"math"
	"testing"

	"wakefield.example/core/estimate"
	"wakefield.example/internal/demo"
)

// TestTheInkIsWhatIsWritten holds every step of every ribbon against the estimate's bins, in all that is drawn of them.
func TestTheInkIsWhatIsWritten(t *testing.T) {
	result := estimate.Figures(demo.PennywhistleQuay(), nil)
	steps, bins := 0, 0
	for i := range result.Channels {
		r := ribbon(result, i)
		at := 0
		for _, b := range result.Week(i) {
			for at+1 < len(r.Ink.From) && r.Ink.From[at+1] <= b.Span.From {
				at++
			}
			bins++
			for what, pair := range map[string][2]float64{
				"base": {float64(r.Ink.Base[at]), float64(b.Base)}, "motion": {float64(r.Ink.Motion[at]), float64(b.Motion)},
				"alarm": {float64(r.Ink.Alarm[at]), float64(b.Alarm)}, "written": {float64(r.Ink.Written[at]), 1000 * b.Written},
			} {
				if math.Abs(pair[0]-pair[1]) > 0.5 {
					t.Fatalf("%s, %s at %v: drawn %v, written %v", r.ID, what, b.Span, pair[0], pair[1])
				}
			}
		}
		steps += len(r.Ink.From)
	}
	if steps >= bins/2 {
		t.Errorf("%d steps for %d bins: equal neighbours are not drawn as one", steps, bins)
	}
}
