package walktest

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"wakefield.example/core/plan/plantest"
)

// TestWhatWalksShow holds the walks of the cameras of several plans to what they should show at each hour, and what they would
// show instead to its sum.
func TestWhatWalksShow(t *testing.T) {
	var text strings.Builder
	for _, s := range plantest.Samples(t) {
		cameras, err := Of(t.Context(), s.Plan)
		if err != nil {
			t.Fatal(err)
		}
		for _, c := range cameras[:min(len(cameras), 8)] {
			fmt.Fprintf(&text, "%s: %d %s, %s%d cases, %d hours\n", s.Name, c.Number, c.Name, c.None, len(c.Cases), len(c.Week))
			for _, w := range c.Walks {
				fmt.Fprintf(&text, "  %s: %s %.4g s, %t %t\n", w.Name, w.Do, w.Seconds, w.Free, w.Optional)
				for k, e := range w.Expected {
					fmt.Fprintf(&text, "    %s| shows %s| %s %v %s | otherwise %s\n", e.Words, shown(e.Shown), e.Always, e.Records,
						strings.Join(e.Does, "; "), sum(w.Shows[k]))
				}
			}
		}
	}
	plantest.Said(t, "walks", text.String())
}

// shown are the seconds of what is shown.
func shown(s Shown) (text string) {
	for _, at := range s {
		if at == nil {
			text += "nothing "
		} else {
			text += fmt.Sprintf("%.4g ", *at)
		}
	}
	return text
}

// sum is how much all cases show, of each of sign, first and last second.
func sum(list []Shown) string {
	var all [3]float64
	var how [3]int
	for _, s := range list {
		for k, at := range s {
			if at != nil {
				all[k], how[k] = all[k]+*at, how[k]+1
			}
		}
	}
	return fmt.Sprintf("%d %.4g, %d %.4g, %d %.4g", how[0], all[0], how[1], all[1], how[2], all[2])
}

// TestOneFaultOrNone: a camera has one of the faults or none, so the chances are those of all there can be.
func TestOneFaultOrNone(t *testing.T) {
	all := 0.0
	for _, p := range Priors {
		all += p.Chance
	}
	if math.Abs(all-1) > 1e-12 {
		t.Errorf("the chances are %v in all", all)
	}
}
