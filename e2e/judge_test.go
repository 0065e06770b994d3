package e2e

import (
	"encoding/json"
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"wakefield.example/core/walktest"
	"wakefield.example/internal/demo"
)

// TestThePhoneJudgesAsTheCore holds the phone's own judgement against the core's: for walks with faults of all kinds the chances
// of cases, what is told, and the walk that tells most.
func TestThePhoneJudgesAsTheCore(t *testing.T) {
	cameras, err := walktest.Of(t.Context(), demo.PennywhistleQuay())
	if err != nil {
		t.Fatal(err)
	}
	p := modules(t)
	var faults []walktest.Fault
	for _, f := range walktest.Priors {
		faults = append(faults, f.Fault)
	}
	random := rand.New(rand.NewPCG(7, 31))
	nexts := make(map[string]int)
	for i := range cameras {
		c := &cameras[i]
		if len(c.Walks) == 0 || i%3 != 0 && !c.Walks[0].Free {
			continue
		}
		minute := c.Week[len(c.Week)/2].From
		var seen []walktest.Seen
		for k := range 6 {
			w := &c.Walks[k%len(c.Walks)]
			shown := w.Shows[c.At(minute)][random.IntN(len(c.Cases))]
			s := walktest.Seen{Walk: w.ID, Minute: minute, NoSign: shown[walktest.Sign] == nil, NoShot: k%2 == 0 && shown[walktest.First] == nil}
			off := func(t *float64) *float64 {
				if t == nil {
					return nil
				}
				at := math.Round((*t+random.NormFloat64())*100) / 100
				return &at
			}
			out := 12.5
			s.Sign, s.First, s.Last, s.Out = off(shown[walktest.Sign]), off(shown[walktest.First]), off(shown[walktest.Last]), &out
			seen = append(seen[:k%2], s)
			args := fmt.Sprintf("%s, %s", asJSON(t, c), asJSON(t, seen))
			for n, chance := range eval[[]float64](p, "m.judge.posterior("+args+")") {
				if want := c.Posterior(seen)[n]; math.Abs(chance-want) > 1e-9 {
					t.Fatalf("%s: %s is %v, the core has %v", c.Name, c.Cases[n].Words, chance, want)
				}
			}
			told := eval[[]walktest.Likely](p, fmt.Sprintf("m.judge.judge(%s, %s, %v)", args, asJSON(t, faults), walktest.Told))
			want := c.Judge(seen)
			if len(told) != len(want) || told[0].Fault != want[0].Fault || told[0].Words != want[0].Words {
				t.Errorf("%s: %+v, the core has %+v", c.Name, told, want)
			}
			next := eval[string](p, fmt.Sprintf("m.judge.nextWalk(%s, %s, %d)?.id ?? ''", args, asJSON(t, faults), minute))
			id := ""
			if w, _ := c.Next(seen, minute); w != nil {
				id = w.ID
			}
			if next != id {
				t.Errorf("%s: next is %q, the core has %q", c.Name, next, id)
			}
			nexts[id]++
		}
	}
	if len(nexts) < 3 {
		t.Errorf("always the same is next: %v", nexts)
	}
}

func asJSON(t *testing.T, v any) string {
	t.Helper()
	data, err := json.Marshal(v)
	if err != nil {
		t.Fatal(err)
	}
	return string(data)
}

// TestTimesOfThePhone reads clocks as people type them, and goes round midnight and the changes of clocks.
func TestTimesOfThePhone(t *testing.T) {
	p := modules(t)
	holds(p, "clocks", []row{
		{`m.moment.readClock('14:03:07')`, `50587`}, {`m.moment.readClock(' 140307 ')`, `50587`}, {`m.moment.readClock('14.03.07')`, `50587`},
		{`m.moment.readClock('14:03:07.5')`, `50587.5`}, {`m.moment.readClock('4:03:07,25')`, `14587.25`},
		{`m.moment.readClock('24:00:00')`, `null`},
		{`m.moment.readClock('14:60:00')`, `null`}, {`m.moment.readClock('soon')`, `null`}, {`m.moment.readClock('')`, `null`},
		{`m.moment.clockOf(50587)`, `"14:03:07"`}, {`m.moment.clockOf(-1)`, `"23:59:59"`}, {`m.moment.clockOf(86400)`, `"00:00:00"`},
		{`m.moment.apart(10, 86390)`, `20`}, {`m.moment.apart(86390, 10)`, `-20`}, {`m.moment.apart(43200, 0)`, `-43200`},
		{`m.moment.seconds(-0.84)`, `"−0.8 s"`}, {`m.moment.seconds(12)`, `"12.0 s"`},
		{`m.moment.minuteOf('Europe/Dublin', Date.UTC(2026, 10, 30, 0, 0))`, `0`},
		{`m.moment.minuteOf('Europe/Dublin', Date.UTC(2026, 6, 5, 23, 30))`, `30`},
		{`m.moment.minuteOf('Pacific/Auckland', Date.UTC(2026, 10, 29, 12, 0))`, `60`},
		{`m.moment.secondOfDay('Europe/Dublin', Date.UTC(2026, 6, 5, 12, 0, 1) + 500)`, `46801.5`},
		{`m.judge.situationAt({ week: [{ from: 0, situation: 1 }, { from: 60, situation: 0 }] }, 59)`, `1`},
		{`m.judge.situationAt({ week: [{ from: 0, situation: 1 }, { from: 60, situation: 0 }] }, 60)`, `0`},
	})
}
