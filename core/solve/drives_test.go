package solve

import (
	"context"
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"wakefield.example/core/edit"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/core/storage"
)

// priced is a random plan of few channels, with drives that have prices, some of them.
func priced(rng *rand.Rand, channels int) *plan.Plan {
	p := small(rng, channels)
	p.Prices = &plan.Prices{Currency: "EUR", Drives: []plan.DrivePrice{{Terabytes: 2, Each: 80}, {Terabytes: 3, Each: 110}}}
	for k := range p.Recorders[0].Pools {
		if size := &p.Recorders[0].Pools[k].Drives[0].Terabytes; rng.IntN(3) > 0 {
			*size = math.Round(*size*100) / 100
			p.Prices.Drives = append(p.Prices.Drives, plan.DrivePrice{Terabytes: *size, Each: 40 + 20*math.Round(rng.Float64()*3)})
		}
	}
	return p
}

// dearest tries every set of drives with every set of choices: the least loss within the money, and of equals the least price.
func (p *Prepared) dearest(ask *Ask) (loss, price float64, ok bool) {
	pools := p.pools()
	options := make([][]Drives, len(pools))
	for k := range pools {
		for _, d := range p.drivesOf(pools[k].id, ask.MoreDrives) {
			if ask.Money == nil || d.Priced {
				options[k] = append(options[k], d)
			}
		}
	}
	loss, price = math.Inf(1), math.Inf(1)
	at := make([]int, len(pools))
	var buy func(k int)
	buy = func(k int) {
		if k < len(pools) {
			for n := range options[k] {
				at[k] = n
				buy(k + 1)
			}
			return
		}
		sum := 0.0
		for k, n := range at {
			sum += options[k][n].Price
		}
		if ask.Money != nil && sum > *ask.Money {
			return
		}
		picks := make([]int, len(p.choices))
		var try func(i int, lost float64)
		try = func(i int, lost float64) {
			if i < len(picks) {
				for n := range p.choices[i] {
					if p.allowed(ask, i, n) {
						picks[i] = n
						try(i+1, lost+p.loss(ask, i, &p.choices[i][n]))
					}
				}
				return
			}
			if lost > loss+1e-9 || lost > loss-1e-9 && sum >= price {
				return
			}
			for k := range pools {
				of := pools[k]
				of.usable = options[k][at[k]].Usable
				if float64(p.days(&of, picks)) < ask.Days*(1-1e-12) {
					return
				}
			}
			loss, price = lost, sum
		}
		try(0, 0)
	}
	buy(0)
	return loss, price, !math.IsInf(loss, 1)
}

// TestDrivesAsBruteForceFinds asks for many days, with drives that may be bought and a sum that they may cost.
func TestDrivesAsBruteForceFinds(t *testing.T) {
	rng := rand.New(rand.NewPCG(41, 12))
	bought, beyond := 0, 0
	for round := range 30 {
		site := priced(rng, 2)
		p := prepared(t, site)
		ask := &Ask{LowCounts: DefaultLow, MoreDrives: 1 + rng.IntN(2)}
		if round%4 > 0 {
			money := 30 + 200*rng.Float64()
			ask.Money = &money
		}
		now := p.Frontier(&Ask{LowCounts: DefaultLow})[0].Days
		ask.Days = now * (1.2 + 2*rng.Float64())
		loss, price, possible := p.dearest(ask)
		got, err := p.Answer(context.Background(), ask)
		if err != nil || got.Reached != possible {
			t.Fatalf("%d: reached %t, possible %t, %v", round, got.Reached, possible, err)
		}
		if !possible {
			beyond++
			continue
		}
		if !got.Exact || math.Abs(got.Loss-loss) > 1e-5 || math.Abs(got.Price-price) > 1e-9 {
			t.Errorf("%d: %v lost at %v, want %v at %v", round, got.Loss, got.Price, loss, price)
		}
		if got.Price == 0 {
			continue
		}
		bought++
		next, err := edit.After(site, got.Edits...)
		if err != nil {
			t.Fatal(err)
		}
		for _, pool := range estimate.Figures(next, nil).Pools {
			if pool.RetentionDays != nil && pool.GigabytesPerDay > 0 && *pool.RetentionDays < ask.Days*(1-1e-3) {
				t.Errorf("%d: %v: %v days, promised %v", round, got.Changes, *pool.RetentionDays, ask.Days)
			}
		}
	}
	if bought < 8 || beyond == 0 {
		t.Errorf("drives were bought %d times, %d times it was not to be had", bought, beyond)
	}
}

// TestDrivesWithoutAPrice says which sizes are left out where money counts.
func TestDrivesWithoutAPrice(t *testing.T) {
	site := small(rand.New(rand.NewPCG(3, 3)), 4)
	p := prepared(t, site)
	money := 1000.0
	a, err := p.Answer(context.Background(), &Ask{Days: 10_000, MoreDrives: 2, Money: &money, LowCounts: DefaultLow})
	if err != nil || len(a.Unpriced) == 0 || a.Price != 0 {
		t.Errorf("%+v, %v", a, err)
	}
	if a, err = p.Answer(context.Background(), &Ask{Days: 1.5 * p.Frontier(&Ask{})[0].Days, MoreDrives: 4,
		LowCounts: DefaultLow}); err != nil || !a.Reached || a.Loss > 1e-5 || !strings.Contains(a.Changes[0].Words, "more drive") {
		t.Errorf("%+v, %v", a, err)
	}
}

// TestLeversOfEveryKind looks for each kind of single change, and holds what it promises against the estimate.
func TestLeversOfEveryKind(t *testing.T) {
	rng := rand.New(rand.NewPCG(8, 8))
	seen := map[string]int{}
	for range 12 {
		site := priced(rng, 6)
		p := prepared(t, site)
		poolDays := func(s *estimate.Result, id string) float64 {
			for _, pool := range s.Pools {
				if pool.ID == id && pool.RetentionDays != nil {
					return *pool.RetentionDays
				}
			}
			return math.NaN()
		}
		for k, lever := range p.Levers(&Ask{LowCounts: DefaultLow, MoreDrives: 1, WorsePictures: true}) {
			words := strings.Join(lever.Words, "; ")
			for _, kind := range []string{"instead of", "H.265", "a keyframe every", "the days required", "stored on", "more drive",
				"in place of", "quality"} {
				if strings.Contains(words, kind) {
					seen[kind]++
				}
			}
			if k%5 > 0 {
				continue
			}
			next, err := edit.After(site, lever.Edits...)
			if err != nil {
				t.Fatalf("%s: %v", words, err)
			}
			if won := poolDays(estimate.Figures(next, nil), lever.Pool) - poolDays(p.site,
				lever.Pool); math.Abs(won-lever.More) > 1e-3*(1+lever.More) {
				t.Errorf("%s: %v days more, promised %v", words, won, lever.More)
			}
		}
	}
	for _, kind := range []string{"instead of", "a keyframe every", "the days required", "stored on", "more drive", "in place of"} {
		if seen[kind] == 0 {
			t.Errorf("no lever was of the kind %q: %v", kind, seen)
		}
	}
}

// TestAMaskedPatchIsALever draws areas on a channel with a patch, whose nuisance then goes.
func TestAMaskedPatchIsALever(t *testing.T) {
	site := small(rand.New(rand.NewPCG(6, 6)), 3)
	c := &site.Channels[1]
	c.Detection.Catch = nil
	c.Detection.Areas = &plan.Areas{List: []plan.Area{{ID: "yard", Name: "Yard", Points: []plan.Point{{0, 0}, {1, 0}, {1, 1}, {0, 1}}}}}
	c.Scene = &plan.Scene{Patches: []plan.Patch{{ID: "reeds", Name: "Reeds", Activity: "b", BlobPercent: 2, Points: []plan.Point{{0.1, 0.1},
		{0.4, 0.1}, {0.4, 0.4}, {0.1, 0.4}}}}}
	p := prepared(t, site)
	found := 0
	for i, list := range p.choices {
		for _, c := range list[1:] {
			if !strings.Contains(c.Words[0], " ignored") {
				continue
			}
			found++
			next, err := edit.After(site, c.Edits...)
			if err != nil {
				t.Fatal(err)
			}
			if then := estimate.Figures(next, nil).Channels[i]; !c.alone || c.Daily > list[0].Daily*1.000001 ||
				math.Abs(then.GigabytesPerDay-float64(c.Daily/storage.GB)) > 1e-6 {
				t.Errorf("%s: %v GB a day, promised %v, now %v", c.Words[0], then.GigabytesPerDay, c.Daily/storage.GB, list[0].Daily/storage.GB)
			}
		}
	}
	if found == 0 {
		t.Error("there is none")
	}
}
