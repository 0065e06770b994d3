package solve

import (
	"context"
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
)

// TestWhatIsAnswered asks of several plans for a third more days than they keep, with drives and without, and holds what is offered
// and what it comes to.
func TestWhatIsAnswered(t *testing.T) {
	var text strings.Builder
	edits := func(list any) string {
		data, err := json.Marshal(list)
		if err != nil {
			t.Fatal(err)
		}
		return string(data)
	}
	for _, s := range plantest.Samples(t) {
		p, err := Prepare(context.Background(), s.Plan, estimate.Figures(s.Plan, nil), nil, nil)
		if err != nil {
			t.Fatal(err)
		}
		for _, more := range []int{0, 2} {
			ask := &Ask{LowCounts: DefaultLow, MoreDrives: more}
			points := p.Frontier(ask)
			ask.Days = points[0].Days * 4 / 3
			answer, err := p.Answer(context.Background(), ask)
			if err != nil {
				t.Fatal(err)
			}
			fmt.Fprintf(&text, "%s, %d drives: %d points, the last %.4g d losing %.4f; %t: %.4g d, losing %.4f, %.4g GB a day, at %.4g %s\n",
				s.Name, more, len(points), points[len(points)-1].Days, points[len(points)-1].Loss, answer.Reached, answer.Days, answer.Loss,
				answer.Gigabytes, answer.Price, answer.Lock)
			for _, c := range answer.Changes {
				fmt.Fprintf(&text, "  change %s: %v\n", c.Words, c.Channels)
			}
			for _, l := range p.Levers(ask) {
				fmt.Fprintf(&text, "  lever %v of %v%s: %.4g d, %.4f GB, losing %.4f, at %.4g (%t)\n", l.Words, l.Channels, l.Pool, l.More, l.Saves,
					l.Loss, l.Price, l.Priced)
			}
		}
		spares, err := p.Spares(context.Background())
		if err != nil {
			t.Fatal(err)
		}
		for _, spare := range spares {
			fmt.Fprintf(&text, "  to spare %v of %v%s: %.4g d, %.4g won, at %.4g (%t) %.200s\n", spare.Words, spare.Channels, spare.Pool,
				plan.Or(spare.Days, -1), spare.Won, spare.Price, spare.Priced, edits(spare.Edits))
		}
	}
	plantest.Said(t, "answers", text.String())
}

// TestWhatLosesNothingStandsFirst asks it of levers: in the order of the days that they win, before what costs money or events.
func TestWhatLosesNothingStandsFirst(t *testing.T) {
	const nothing = 1e-5 // events a day, once in three hundred years
	free := 0
	for _, s := range plantest.Samples(t) {
		levers := prepared(t, s.Plan).Levers(&Ask{LowCounts: DefaultLow, MoreDrives: 2})
		for k, l := range levers {
			if l.Loss > nothing || !l.Priced || l.Price > 0 {
				continue
			}
			free++
			if k > 0 && (levers[k-1].More < l.More || levers[k-1].Loss > nothing || levers[k-1].Price > 0 || !levers[k-1].Priced) {
				t.Errorf("%s: %v wins %.3g d for nothing and stands behind %v, %.3g d", s.Name, l.Words, l.More, levers[k-1].Words, levers[k-1].More)
			}
		}
	}
	if free < 20 {
		t.Errorf("only %d lose nothing", free)
	}
}
