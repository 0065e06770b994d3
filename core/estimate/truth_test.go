package estimate

import (
	"context"
	"maps"
	"math"
	"math/rand/v2"
	"path/filepath"
	"slices"
	"testing"

	"wakefield.example/core/doubt"
	"wakefield.example/core/footage"
	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
	"wakefield.example/core/resolve"
	"wakefield.example/core/video"
	"wakefield.example/core/week"
)

// truth is a site as it might turn out to be: every figure of a plan that is not certain
// is off as docs/method.md says. It goes by the plan alone and computes everything anew.
type truth struct {
	*rand.Rand
	site [8]float64 // what the site shares: rates, lengths, groups, bitrates, seasons, what does not move, frames, what is noticed
	world
}

// world says what of that which nobody has said is otherwise in it.
type world struct{ season, night, idle, frames, missed bool }

var (
	asSaid     = world{}
	documented = world{true, true, true, true, true}
)

func newTruth(rng *rand.Rand, w world) truth {
	t := truth{Rand: rng, world: w}
	for i := range t.site {
		t.site[i] = rng.NormFloat64()
	}
	return t
}

// normal is a standard normal number, half of its variance common to the site.
func (t truth) normal(what int) float64 {
	return math.Sqrt(doubt.CommonShare)*t.site[what] + math.Sqrt(1-doubt.CommonShare)*t.NormFloat64()
}

// factor is off by ×/÷ wide four times out of five; its own part has a mean of 1.
func (t truth) factor(what int, wide float64) float64 {
	sigma := math.Log(wide) / 1.2815515655446004
	return math.Exp(sigma*t.normal(what) - sigma*sigma*(1-doubt.CommonShare)/2)
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
		if t.season && !slices.ContainsFunc(p.Site.SpecialDays, func(d plan.SpecialDay) bool { return d.RateFactor != nil }) {
			f *= math.Exp(math.Log(1.2) / 1.2815515655446004 * t.site[4])
		}
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
		said := c.Detection.Reliability
		if t.missed && c.Detection.On && c.Detection.Catch == nil && (said != nil && *said == 0.95 || said == nil && c.Detection.Drawn()) {
			r := 1 - min(0.5, 0.05*math.Exp(math.Log(3)/1.2815515655446004*t.site[7]))
			c.Detection.Reliability = &r
		}
		for _, which := range resolve.Streams {
			s := c.Streams.Get(which)
			if s == nil {
				continue
			}
			sigma := doubt.RateSpread(resolve.RateKnownOf(s))
			f := math.Exp(sigma*(math.Sqrt(doubt.CommonShare)*common+math.Sqrt(1-doubt.CommonShare)*own) - sigma*sigma*(1-doubt.CommonShare)/2)
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

// unsaid makes the bitrates of an input, minute by minute, what they come to for what nobody has said of them.
func (t truth) unsaid(p *plan.Plan) func(i int, in *resolve.Input) {
	const ninth = 1.2815515655446004
	normal := func(what int) float64 { return math.Sqrt(0.5)*t.site[what] + math.Sqrt(0.5)*t.NormFloat64() }
	var dark [10080]bool
	for m := range dark {
		dark[m] = m%1440 < 6*60 || m%1440 >= 19*60
	}
	return func(i int, in *resolve.Input) {
		night, idle, frames := 1.2, 1.0, 1.0
		if z := t.NormFloat64(); z < 0 {
			night *= math.Exp(z * math.Log(1.2/0.9) / ninth)
		} else {
			night *= math.Exp(z * math.Log(2.2/1.2) / ninth)
		}
		// All in all what does not move is off by 2.5, of which the stream as a whole is by 1.8.
		sigma := math.Sqrt(math.Pow(math.Log(2.5)/ninth, 2) - math.Pow(math.Log(1.8)/ninth, 2))
		idle = math.Exp(sigma*normal(5) - sigma*sigma/4)
		sigma = math.Log(1.3) / ninth
		frames = math.Exp(sigma*normal(6) - sigma*sigma/4)
		c := &p.Channels[i]
		if in.Empty {
			return
		}
		bent := func(cost video.Cost, which plan.StreamName, fps float64, keyframes bool, m week.Minute) video.Cost {
			s := c.Streams.Get(which)
			if s == nil {
				return cost
			}
			modelled := s.Rate.Kind == "modelled"
			if t.night && dark[m] && s.Rate.Night == nil && (modelled || s.Rate.Kind == "variable" && s.Rate.Known == "datasheet") {
				cost = cost.Scale(night)
			}
			if t.idle && modelled {
				cost.Idle *= video.Kbps(idle)
			}
			if t.frames && modelled && fps > 0 && fps < s.FPS && !keyframes {
				cost = cost.Scale(math.Pow(frames, math.Log2(s.FPS/fps)))
			}
			return cost
		}
		nights := week.Constant(false)
		for d := range week.Minute(7) {
			nights = nights.Paint(week.Span{From: d * 1440, To: d*1440 + 360}, true).Paint(week.Span{From: d*1440 + 1140, To: d*1440 + 1440}, true)
		}
		duties := week.Both(week.Both(in.Duties, nights), in.Regimes)
		at := week.Minute(0)
		regimes := week.Steps[footage.Regime]{}
		for run, step := range duties.Runs() {
			at = run.From
			g, d := step.B, p.Duty(step.A.A)
			if d != nil && d.Base != nil {
				g.Base = bent(g.Base, d.Base.Stream, d.Base.FPS, d.Base.KeyframesOnly, at)
			}
			if d != nil && d.Event != nil {
				g.Event = bent(g.Event, d.Event.Stream, d.Event.FPS, false, at)
			}
			g.Call = bent(g.Call, plan.Main, 0, false, at)
			regimes = append(regimes, week.Step[footage.Regime]{From: at, Value: g})
		}
		in.Regimes = regimes
	}
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
		modelled := plantest.Read(t, file)
		for i := range modelled.Channels {
			c := &modelled.Channels[i]
			for k, which := range resolve.Streams {
				if s := c.Streams.Get(which); s != nil && s.Codec != "mjpeg" {
					next := *s
					next.Rate, next.KeyframeKB = plan.Rate{Kind: "modelled", Quality: 3, Scene: []string{"still", "moderate", "busy"}[(i+k)%3]}, 0
					c.Streams = c.Streams.With(which, &next)
				}
			}
		}
		plans[filepath.Base(file)+", modelled"] = modelled
	}
	for _, w := range []struct {
		name        string
		world       world
		truths      int
		least, most float64
	}{
		{"as documented", documented, 30, 78, 84},
		{"all as said", asSaid, 6, 74, 95}, {"nights alone", world{night: true}, 6, 74, 95},
		{"what does not move alone", world{idle: true}, 12, 74, 95},
		{"frames alone", world{frames: true}, 6, 74, 95}, {"seasons alone", world{season: true}, 12, 74, 95},
		{"what is noticed alone", world{missed: true}, 6, 74, 95},
	} {
		t.Run(w.name, func(t *testing.T) { t.Parallel(); fourTimesInFive(t, plans, w.world, w.truths, w.least, w.most) })
	}
}

func fourTimesInFive(t *testing.T, plans map[string]*plan.Plan, w world, truths int, least, most float64) {
	inside, all := 0, 0
	for i, name := range slices.Sorted(maps.Keys(plans)) {
		p := plans[name]
		s := Run(p, nil)
		rng := rand.New(rand.NewPCG(7, uint64(i)))
		here, n := 0, 0
		for range truths {
			truth := newTruth(rng, w)
			came, _ := run(context.Background(), truth.of(p), nil, options{bend: truth.unsaid(p)})
			for k := range s.Pools {
				if s.Pools[k].LikelyDays == nil || came.Pools[k].RetentionDays == nil {
					continue
				}
				n++
				if d := *came.Pools[k].RetentionDays; d >= s.Pools[k].LikelyDays.Low && d <= s.Pools[k].LikelyDays.High {
					here++
				}
			}
		}
		inside, all = inside+here, all+n
		t.Logf("%s: %.0f %% of %d", name, 100*float64(here)/float64(max(n, 1)), n)
	}
	share := 100 * float64(inside) / float64(all)
	if share < least || share > most {
		t.Errorf("%.1f %% of %d truths lie in the range", share, all)
	}
	t.Logf("%.1f %% of %d truths lie in the range", share, all)
}
