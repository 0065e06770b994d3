package rehearse

import (
	"context"
	"fmt"
	"math"
	"path/filepath"
	"testing"

	"gonum.org/v1/gonum/stat"

	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
	"wakefield.example/core/week"
)

// rounds of two weeks are played of every plan.
const rounds = 40

// TestPlayedWeeksAgree plays every test plan many times, and holds all that is counted against the estimate.
func TestPlayedWeeksAgree(t *testing.T) {
	files, err := filepath.Glob("../estimate/testdata/plans/*.json")
	if err != nil || len(files) < 20 {
		t.Fatal(len(files), err)
	}
	for _, file := range files {
		t.Run(filepath.Base(file), func(t *testing.T) {
			t.Parallel()
			p := plantest.Read(t, file)
			p.Site.SpecialDays, p.Site.TimeZone = nil, "UTC"
			agree(t, estimate.Figures(p, nil), p)
		})
	}
}

// agree collects the same figures from played weeks and from the estimate.
func agree(t *testing.T, site *estimate.Result, p *plan.Plan) {
	t.Helper()
	played := make(map[string][]float64)
	want := make(map[string]float64)
	tell := func(name string, value, expected float64) {
		played[name] = append(played[name], value)
		want[name] = expected
	}
	for seed := range uint64(rounds) {
		r, err := Play(context.Background(), site, Ask{From: week.Date{Year: 2026, Month: 6, Day: 1}, Days: 14, Seed: seed})
		if err != nil {
			t.Fatal(err)
		}
		inside := func(at Ms) bool { return at >= 0 && at < r.Length }
		share := func(list []Span) (part float64) {
			for _, s := range list {
				part += max(0, float64(min(s.To, r.Length)-max(s.From, 0))) / float64(r.Length)
			}
			return part
		}
		for i := range p.Channels {
			c, f := &p.Channels[i], &site.Channels[i]
			if c.NoCamera {
				continue
			}
			var written, event, kbit float64
			for _, s := range r.Segments[i] {
				part := float64(s.To-s.From) / float64(r.Length)
				written += part
				if s.Event {
					event += part
				}
				kbit += s.Kbit
			}
			tell(c.ID+" written", 100*written, f.WrittenPercent)
			tell(c.ID+" event", 100*event, f.EventPercent)
			tell(c.ID+" kbit/s", kbit/float64(r.Length/Second), float64(f.AverageKbps))
			triggers, fates := 0.0, map[Fate]float64{}
			for _, n := range r.own[i] {
				e := &r.Events[n]
				if !inside(e.Start) {
					continue
				}
				if e.Gate == Passed {
					triggers++
				}
				if e.Source == Wanted {
					fates[e.Fate]++
				}
			}
			tell(c.ID+" triggers", triggers/14, f.TriggersPerDay)
			tell(c.ID+" full", fates[Full]/14, f.Evidence.FullPerDay)
			tell(c.ID+" low", fates[Low]/14, f.Evidence.LowPerDay)
			tell(c.ID+" missed", fates[Missed]/14, f.Evidence.MissedPerDay)
			if c.Stills != nil {
				n := 0.0
				for _, at := range r.Stills[i] {
					if inside(at) {
						n++
					}
				}
				tell(c.ID+" stills", n/14, *f.StillsPerDay)
			}
			if c.Movable != nil {
				tell(c.ID+" away", 100*share(r.Away[i]), *f.AwayPercent)
			}
		}
		count := func(list []int) (n float64) {
			for _, k := range list {
				if inside(r.Events[k].Trigger) {
					n++
				}
			}
			return n / 14
		}
		for k, m := range r.Told {
			f := site.Messages[k]
			tell(m.ID+" goes out", count(m.Went), f.PerDay)
			tell(m.ID+" held back", count(m.Held), f.HeldBackPerDay)
			tell(m.ID+" quiet", count(m.Quiet), f.QuietPerDay)
		}
		for k, o := range r.Outputs {
			tell(o.ID+" on", 100*share(o.On), site.Outputs[k].OnPercent)
			n := 0.0
			for _, s := range o.On {
				if inside(s.From) {
					n++
				}
			}
			tell(o.ID+" times", n/14, site.Outputs[k].PerDay)
		}
		for k, m := range r.Monitors {
			shown, cut := 0.0, 0.0
			var list []Span
			for _, s := range m.Showings {
				list = append(list, Span{s.From, s.To})
				if !inside(s.From) {
					continue
				}
				if shown++; s.Cut {
					cut++
				}
			}
			tell(m.ID+" showings", shown/14, site.Monitors[k].PerDay)
			tell(m.ID+" on", 100*share(union(list)), site.Monitors[k].OnPercent)
			tell(m.ID+" cut", cut/14, site.Monitors[k].CutShortPercent*site.Monitors[k].PerDay/100)
		}
	}
	for name, values := range played {
		mean, deviation := stat.MeanStdDev(values, nil)
		// As many as expected vary like their root; what is rare needs that, as few rounds show it.
		sampling := max(deviation/math.Sqrt(rounds), math.Sqrt(math.Abs(want[name])/(14*rounds))/3)
		if off := math.Abs(want[name] - mean); off > 4.5*sampling+0.02*math.Abs(want[name])+1e-9 {
			t.Errorf("%s: %.5f in the estimate, played %.5f ± %.5f", name, want[name], mean, sampling)
		}
	}
	if len(played) < 5 {
		t.Error(fmt.Sprint("only ", len(played), " figures were held against each other"))
	}
}
