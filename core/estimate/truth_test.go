package estimate

import (
	"maps"
	"math"
	"math/rand/v2"
	"path/filepath"
	"slices"
	"testing"

	"wakefield/core/plan"
	"wakefield/core/plan/plantest"
)

// truth is a site as it might turn out to be: every figure of a plan that is not certain
// is off as docs/method.md says. It goes by the plan alone and computes everything anew.
type truth struct {
	*rand.Rand
	site [4]float64 // what the site shares: rates, lengths, groups, bitrates
}

func newTruth(rng *rand.Rand) truth {
	t := truth{Rand: rng}
	for i := range t.site {
		t.site[i] = rng.NormFloat64()
	}
	return t
}

// normal is a standard normal number, half of its variance common to the site.
func (t truth) normal(what int) float64 {
	return math.Sqrt(CommonShare)*t.site[what] + math.Sqrt(1-CommonShare)*t.NormFloat64()
}

// factor is off by ×/÷ wide four times out of five; its own part has a mean of 1.
func (t truth) factor(what int, wide float64) float64 {
	sigma := math.Log(wide) / 1.2815515655446004
	return math.Exp(sigma*t.normal(what) - sigma*sigma*(1-CommonShare)/2)
}

func (t truth) of(p *plan.Plan) *plan.Plan {
	out := *p
	out.Activities = nil
	for _, a := range p.Activities {
		rate, length, size := 2.0, 1.5, 2.0
		switch a.Known {
		case "surveyed":
			rate, length, size = 1.4, 1.25, 1.4
		case "measured":
			rate, length, size = 1.15, 1.1, 1.15
		}
		f := t.factor(0, rate)
		a.OtherwisePerHour *= f
		a.Blocks = append([]plan.RateBlock(nil), a.Blocks...)
		for i := range a.Blocks {
			a.Blocks[i].PerHour *= f
		}
		a.MeanSeconds *= t.factor(1, length)
		switch {
		case a.Groups != nil && a.Groups.Size > 1:
			a.Groups = &plan.Groups{Size: 1 + (a.Groups.Size-1)*t.factor(2, size), WithinSeconds: a.Groups.WithinSeconds}
		case a.Groups == nil && a.Known != "surveyed" && a.Known != "measured":
			if z := t.normal(2); z > 0 {
				a.Groups = &plan.Groups{Size: 1 + 1.5*z, WithinSeconds: 60}
			}
		}
		out.Activities = append(out.Activities, a)
	}
	out.Channels = append([]plan.Channel(nil), p.Channels...)
	for i := range out.Channels {
		common, own := t.site[3], t.NormFloat64()
		c := &out.Channels[i]
		for _, which := range streams {
			s := c.Streams.Get(which)
			if s == nil {
				continue
			}
			sigma := rateSpread(s.Rate)
			f := math.Exp(sigma*(math.Sqrt(CommonShare)*common+math.Sqrt(1-CommonShare)*own) - sigma*sigma*(1-CommonShare)/2)
			next := *s
			next.KeyframeKB *= f
			next.Rate.Kbps, next.Rate.IdleKbps, next.Rate.ActiveKbps = f*s.Rate.Kbps, f*s.Rate.IdleKbps, f*s.Rate.ActiveKbps
			if s.Rate.Kind == "modelled" {
				next.Width = int(f * float64(s.Width)) // bits go by pixels
			}
			c.Streams = c.Streams.With(which, &next)
		}
	}
	return &out
}

// TestFourTimesInFive draws truths and counts how many lie in the likely range.
func TestFourTimesInFive(t *testing.T) {
	files, err := filepath.Glob("testdata/plans/*.json")
	if err != nil || len(files) == 0 {
		t.Fatal(err, len(files))
	}
	plans := map[string]*plan.Plan{"a depot": depot(24)}
	for _, file := range append(files, "testdata/yard-and-gate.json", "testdata/landing-stage.json") {
		plans[filepath.Base(file)] = plantest.Read(t, file)
		guessed := plantest.Read(t, file)
		for i := range guessed.Activities {
			guessed.Activities[i].Known, guessed.Activities[i].Groups = "guess", nil
		}
		plans[filepath.Base(file)+", guessed"] = guessed
	}
	const truths = 150
	inside, all := 0, 0
	for i, name := range slices.Sorted(maps.Keys(plans)) {
		p := plans[name]
		s := Run(p, nil)
		rng := rand.New(rand.NewPCG(7, uint64(i)))
		here, n := 0, 0
		for range truths {
			came := Figures(newTruth(rng).of(p), nil)
			for k := range s.Pools {
				if s.Pools[k].Sure == nil || came.Pools[k].RetentionDays == nil {
					continue
				}
				n++
				if d := *came.Pools[k].RetentionDays; d >= s.Pools[k].Sure.Low && d <= s.Pools[k].Sure.High {
					here++
				}
			}
		}
		inside, all = inside+here, all+n
		t.Logf("%s: %.0f %% of %d", name, 100*float64(here)/float64(max(n, 1)), n)
	}
	share := 100 * float64(inside) / float64(all)
	if share < 78 || share > 82 {
		t.Errorf("%.1f %% of %d truths lie in the range", share, all)
	}
	t.Logf("%.1f %% of %d truths lie in the range", share, all)
}
