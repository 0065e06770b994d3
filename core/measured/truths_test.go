package measured

import (
	"context"
	"errors"
	"flag"
	"math"
	"math/rand/v2"
	"testing"

	"wakefield.example/core/doubt"
	"wakefield.example/core/estimate"
	"wakefield.example/core/parallel"
	"wakefield.example/core/plan"
	"wakefield.example/core/resolve"
	"wakefield.example/core/week"
)

// truths is how many sites are drawn to see whether ranges hold; more of them with -truths 1000.
var truths = flag.Int("truths", 80, "how many sites are drawn to see whether ranges hold")

// yard is a small site of which much is uncertain.
func yard() *plan.Plan {
	rate := func(idle, active float64, known string) plan.Streams {
		return plan.Streams{Main: &plan.Stream{Codec: "h265", Width: 1920, Height: 1080, FPS: 12, GOPSeconds: 2,
			Rate: plan.Rate{Kind: "variable", IdleKbps: idle, ActiveKbps: active, Known: known}}}
	}
	work := []plan.RateBlock{{Hours: plan.Hours{Days: []week.Weekday{0, 1, 2, 3, 4}, From: 7 * 60, To: 18 * 60}, PerHour: 30}}
	p := &plan.Plan{
		Format: plan.Format, Name: "Yard", Site: plan.Site{Name: "Yard", TimeZone: "UTC"},
		Duties: []plan.Duty{
			{ID: "motion", Name: "Motion only", Event: &plan.Event{Stream: plan.Main, On: []plan.Trigger{plan.Motion}}},
			{ID: "clock", Name: "Round the clock", Base: &plan.Base{Stream: plan.Main}},
		},
		Activities: []plan.Activity{
			{ID: "carts", Name: "Carts", Known: "guess", MeanSeconds: 20, OtherwisePerHour: 1, Blocks: work,
				Groups: &plan.Groups{Size: 3, WithinSeconds: 40}},
			{ID: "people", Name: "People", Known: "surveyed", MeanSeconds: 30, OtherwisePerHour: 2, Blocks: work,
				Groups: &plan.Groups{Size: 1, WithinSeconds: 60}},
			{ID: "birds", Name: "Birds", Known: "guess", MeanSeconds: 5, OtherwisePerHour: 6, Groups: &plan.Groups{Size: 1, WithinSeconds: 60}},
			{ID: "vans", Name: "Vans", Known: "surveyed", MeanSeconds: 60, OtherwisePerHour: 0.5,
				Blocks: []plan.RateBlock{{Hours: plan.Hours{From: 5 * 60, To: 9 * 60}, PerHour: 12}}, Groups: &plan.Groups{Size: 2, WithinSeconds: 90}},
		},
		Recorders: []plan.Recorder{{ID: "r", Name: "R", Channels: 16, IngestMbps: 500,
			Pools: []plan.Pool{{ID: "p", Name: "P", Layout: "span", Drives: []plan.DriveGroup{{Count: 1, Terabytes: 4}}}}}},
	}
	add := func(id, activity, nuisance, duty string, s plan.Streams) {
		p.Channels = append(p.Channels, plan.Channel{ID: id, Number: len(p.Channels) + 1, Name: id, Recorder: "r", Pool: "p", PreSeconds: 5,
			PostSeconds: 20, Activity: activity, Nuisance: nuisance, Detection: plan.Detection{On: true, MinSeconds: 1}, Streams: s,
			Week: plan.WeekRef{Own: &plan.OwnWeek{Otherwise: duty}}})
	}
	add("gate", "carts", "", "motion", rate(1500, 4000, "datasheet"))
	add("dock", "carts", "", "motion", rate(1500, 5000, "guess"))
	add("door", "people", "", "motion", rate(1000, 3000, "surveyed"))
	add("fence", "people", "birds", "motion", rate(1200, 4500, "guess"))
	add("ramp", "vans", "", "motion", rate(1000, 6000, "datasheet"))
	add("hall", "vans", "", "clock", rate(700, 2500, "datasheet"))
	return p
}

// drawnTruth is a site as it may be, if the plan is as uncertain as it says: every figure off by a factor of its own.
func drawnTruth(p *plan.Plan, rng *rand.Rand) (*plan.Plan, doubt.Latent) {
	drawn := make(map[doubt.Column]float64)
	z := func(c doubt.Column) float64 {
		if _, ok := drawn[c]; !ok {
			drawn[c] = rng.NormFloat64()
		}
		return drawn[c]
	}
	next := *p
	next.Activities, next.Channels = append([]plan.Activity(nil), p.Activities...), append([]plan.Channel(nil), p.Channels...)
	for k := range next.Activities {
		a := &next.Activities[k]
		f := doubt.Of(resolve.OriginOf(a, true))
		by := f.RateFactor(z)
		a.OtherwisePerHour *= by
		a.Blocks = append([]plan.RateBlock(nil), a.Blocks...)
		for b := range a.Blocks {
			a.Blocks[b].PerHour *= by
		}
		a.MeanSeconds *= f.LengthFactor(z)
		if a.Groups.Size > 1 {
			a.Groups = &plan.Groups{Size: f.GroupSize(z), WithinSeconds: a.Groups.WithinSeconds}
		}
	}
	for i := range next.Channels {
		c := &next.Channels[i]
		s := *c.Streams.Main
		by := doubt.StreamFactor(c.ID, doubt.RateSpread(resolve.RateKnownOf(&s)), z)
		s.Rate.IdleKbps *= by
		s.Rate.ActiveKbps *= by
		c.Streams = plan.Streams{Main: &s}
	}
	return &next, z
}

// playedSite draws a site as it may be and plays two weeks of it out, event by event, on days of which each is off by a factor of its
// own. It gives the site with these days and without, what was drawn for it, and what its logs and bitrates say; those of one in
// three, and how old its oldest footage is.
func playedSite(t *testing.T, p *plan.Plan, seed uint64) (truth *estimate.Result, ordinary *plan.Plan, z doubt.Latent, d *Data) {
	rng := rand.New(rand.NewPCG(8, seed))
	ordinary, z = drawnTruth(p, rng)
	odd := *ordinary
	for day := range 14 {
		by := math.Exp(dayFactor*rng.NormFloat64() - dayFactor*dayFactor/2)
		date := october.Add(day)
		odd.Site.SpecialDays = append(odd.Site.SpecialDays, plan.SpecialDay{From: date, To: date, Name: date.String(), RateFactor: &by})
	}
	truth = estimate.Figures(&odd, nil)
	logs := playOut(t, truth, 14, seed)
	d = &Data{Logs: logs, Rates: meterOut(truth, logs, rng)}
	if seed%3 == 0 {
		d.Oldest = ageOut(truth, rng)
	}
	return truth, ordinary, z, d
}

// TestRangesHold draws sites from what a plan says of itself, plays each out event by event, and looks whether what is true of it
// lies in the ranges that are told of what was found: four times out of five, and as often in each tenth of the draws. Two in three
// are told of by logs and bitrates alone, the others by the oldest footage too.
func TestRangesHold(t *testing.T) {
	p := yard()
	est := estimate.Run(p, nil)
	type one struct {
		days, rank, worth float64
		figures, in       int
		held              bool
	}
	list := make([]one, *truths)
	parallel.Do(len(list), func(k int) {
		truth, _, z, d := playedSite(t, p, uint64(k))
		c := comparisonOf(t, est, d)
		days := *truth.Pools[0].RetentionDays
		o := one{days: days, worth: c.fit.worth}
		if !c.fit.told() {
			list[k] = o
			return
		}
		kept := c.fit.drawn.Pools["p"]
		below := 0.0
		for _, v := range kept.Kept {
			if v < days {
				below++
			}
		}
		o.rank = below / doubt.Draws
		o.held = kept.Likely.Low <= days && days <= kept.Likely.High
		for a := range p.Activities {
			f := doubt.Of(resolve.OriginOf(&p.Activities[a], true))
			for _, of := range []func(doubt.Latent) float64{f.RateFactor, f.LengthFactor} {
				low, _, high := c.fit.quantiles(of)
				o.figures++
				if v := of(z); low <= v && v <= high {
					o.in++
				}
			}
		}
		list[k] = o
	})
	held, told, figures, in := 0, 0, 0, 0
	var tenths [5]float64
	for _, o := range list {
		if o.figures == 0 {
			continue
		}
		told++
		if o.held {
			held++
		}
		figures, in = figures+o.figures, in+o.in
		tenths[min(4, int(o.rank*5))]++
	}
	share := 100 * float64(held) / float64(told)
	off := 100 * math.Sqrt(0.16/float64(told))
	t.Logf("days lie in %.1f %% of %d ranges, figures in %.1f %% of %d; by fifths of the draws %v; %d of %d told", share, told,
		100*float64(in)/float64(figures), figures, tenths, told, len(list))
	if share < 78-2*off || share > 82+2*off {
		t.Errorf("days lie in %.1f %% of their ranges", share)
	}
	if by := 100 * float64(in) / float64(figures); by < 76 || by > 86 {
		t.Errorf("figures lie in %.1f %% of their ranges", by)
	}
	if told < len(list)*9/10 {
		t.Errorf("ranges are told of %d of %d", told, len(list))
	}
}

// TestRangesOfFiguresHold looks whether the range of each figure that is told has the truth in it, four times out of five or more: a
// figure is true as the site that was played out has it, which is what is planned where that site is the plan. Lengths and groups
// allow for what is not quite as the model has it, so that more of theirs hold where all is.
func TestRangesOfFiguresHold(t *testing.T) {
	p := yard()
	est := estimate.Run(p, nil)
	type at struct{ kind, name, what string }
	type sides struct{ below, in, above int }
	told := make([]map[string]sides, *truths/2)
	parallel.Do(len(told), func(k int) {
		_, ordinary, _, d := playedSite(t, p, uint64(2*k))
		c, truth := comparisonOf(t, est, d), comparisonOf(t, estimate.Figures(ordinary, nil), d)
		if err := errors.Join(c.figures(t.Context()), truth.figures(t.Context())); err != nil {
			t.Error(err)
			return
		}
		really := make(map[at]float64)
		for _, f := range truth.out.Figures {
			really[at{f.Kind, f.Name, f.What}] = f.Planned
		}
		told[k] = make(map[string]sides)
		for _, f := range c.out.Figures {
			s, is := told[k][f.Kind], really[at{f.Kind, f.Name, f.What}]
			switch {
			case is < f.Low:
				s.below++
			case is > f.High:
				s.above++
			default:
				s.in++
			}
			told[k][f.Kind] = s
		}
	})
	sum := make(map[string]sides)
	for _, one := range told {
		for kind, s := range one {
			all := sum[kind]
			sum[kind] = sides{all.below + s.below, all.in + s.in, all.above + s.above}
		}
	}
	for kind, most := range map[string]float64{KindRate: 86, KindStill: 92, KindMoving: 90, KindLength: 100, KindGroup: 94} {
		s := sum[kind]
		all := float64(s.below + s.in + s.above)
		t.Logf("%s: %.1f %% of %v lie in their ranges, %d below, %d above", kind, 100*float64(s.in)/all, all, s.below, s.above)
		if share := 100 * float64(s.in) / all; all < 70 || share < 70 || share > most {
			t.Errorf("%s: %.1f %% of %v lie in their ranges", kind, share, all)
		}
		if side := float64(max(s.below, s.above)) / all; side > 0.2 {
			t.Errorf("%s: of %v, %d lie below and %d above", kind, all, s.below, s.above)
		}
	}
}

func comparisonOf(t testing.TB, est *estimate.Result, d *Data) *comparison {
	t.Helper()
	c, err := compare(context.Background(), est, d)
	if err != nil {
		t.Fatal(err)
	}
	return c
}
