package solve

import (
	"math"
	"math/rand/v2"
	"testing"

	"wakefield.example/core/seeded"
)

// brute tries everything.
func brute(things [][]Option, budget float64) (loss float64, ok bool) {
	loss = math.Inf(1)
	var try func(i int, cost, lost float64)
	try = func(i int, cost, lost float64) {
		if i == len(things) {
			if cost <= budget+tolerance(budget) {
				loss = min(loss, lost)
			}
			return
		}
		for _, o := range things[i] {
			try(i+1, cost+o.Cost, lost+o.Loss)
		}
	}
	try(0, 0, 0)
	return loss, !math.IsInf(loss, 1)
}

func random(rng *rand.Rand, things, options int) (out [][]Option) {
	for range things {
		var list []Option
		for range 1 + rng.IntN(options) {
			list = append(list, Option{10 * rng.Float64(), math.Round(8*rng.Float64()) / 2})
		}
		out = append(out, list)
	}
	return out
}

func total(things [][]Option, picks []int) (cost, loss float64) {
	for i, p := range picks {
		cost += things[i][p].Cost
		loss += things[i][p].Loss
	}
	return cost, loss
}

func TestLeastIsWhatBruteForceFinds(t *testing.T) {
	rng := rand.New(rand.NewPCG(1, 2))
	met := 0
	for range 400 {
		things := random(rng, 1+rng.IntN(6), 5)
		budget := 40 * rng.Float64()
		want, possible := brute(things, budget)
		picks, exact, ok := Least(things, budget, 100_000)
		if ok != possible || !exact {
			t.Fatalf("possible %t, found %t, exact %t", possible, ok, exact)
		}
		if !ok {
			continue
		}
		met++
		if cost, loss := total(things, picks); cost > budget+tolerance(budget) || math.Abs(loss-want) > 1e-9 {
			t.Fatalf("%v of %v: loses %v at %v, want %v at most %v", picks, things, loss, cost, want, budget)
		}
	}
	if met < 100 {
		t.Errorf("only %d could be met", met)
	}
}

// TestGivenUpItIsStillGood gives the search no room: what is found obeys the budget, and more room never finds worse.
func TestGivenUpItIsStillGood(t *testing.T) {
	rng := rand.New(rand.NewPCG(3, 4))
	for n := range 30 {
		things := random(rng, 60, 12)
		for _, list := range things {
			for k := range list {
				list[k].Loss /= []float64{1, 1000}[n%2] // of events that are rare, too
			}
		}
		cheapest, dearest := 0.0, 0.0
		for _, list := range things {
			least, most := math.Inf(1), 0.0
			for _, o := range list {
				least, most = min(least, o.Cost), max(most, o.Cost)
			}
			cheapest += least
			dearest += most
		}
		budget := cheapest + (dearest-cheapest)*rng.Float64()
		before := math.Inf(1)
		for _, nodes := range []int{0, 100, 5000} {
			picks, _, ok := Least(things, budget, nodes)
			cost, loss := total(things, picks)
			if !ok || cost > budget+tolerance(budget) || loss > before+1e-9 {
				t.Fatalf("%d nodes: %t, %v at %v of %v; %v with fewer", nodes, ok, loss, cost, budget, before)
			}
			before = loss
			for i, list := range things {
				for _, o := range list { // what is left of the budget gives no thing a better option
					if is := list[picks[i]]; nodes == 0 && o.Loss < is.Loss && cost-is.Cost+o.Cost < budget {
						t.Fatalf("with %v of %v, thing %d loses %v and could lose %v", cost, budget, i, is.Loss, o.Loss)
					}
				}
			}
		}
	}
	if _, _, ok := Least([][]Option{{{5, 0}}}, 4, 10); ok {
		t.Error("what costs 5 is had for 4")
	}
	if picks, exact, ok := Least(nil, 0, 10); !ok || !exact || len(picks) != 0 {
		t.Error("nothing costs something")
	}
}

// FuzzLeast asks that what is picked obeys the budget, whatever the options are.
func FuzzLeast(fuzz *testing.F) {
	f := seeded.Of(fuzz, 2000)
	f.Add(uint64(1), 5, 4, 20.0)
	f.Add(uint64(9), 1, 1, 0.0)
	f.Fuzz(func(t *testing.T, seed uint64, things, options int, budget float64) {
		if things < 0 || things > 8 || options < 1 || options > 5 || !(budget >= 0 && budget < 1e6) {
			t.Skip()
		}
		list := random(rand.New(rand.NewPCG(seed, 1)), things, options)
		picks, _, ok := Least(list, budget, 1000)
		if cost, _ := total(list, picks); ok && (len(picks) != things || cost > budget+tolerance(budget)) {
			t.Errorf("%v costs %v of %v", picks, cost, budget)
		}
	})
}
