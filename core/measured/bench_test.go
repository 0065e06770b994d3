package measured

import (
	"fmt"
	"math/rand/v2"
	"testing"
	"time"

	"gonum.org/v1/gonum/stat/distuv"

	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
)

// depot is as many yards beside each other, each with activities of its own, on a pool for all.
func depot(yards int) *plan.Plan {
	p := yard()
	channels, activities := p.Channels, p.Activities
	p.Channels, p.Activities = nil, nil
	p.Recorders[0].Channels = 6 * yards
	p.Recorders[0].IngestMbps = 10_000
	p.Recorders[0].Pools[0].Drives[0].Count = 16 * yards
	for y := range yards {
		for _, a := range activities {
			a.ID = fmt.Sprintf("%s%d", a.ID, y)
			p.Activities = append(p.Activities, a)
		}
		for _, c := range channels {
			c.ID, c.Number = fmt.Sprintf("%s%d", c.ID, y), len(p.Channels)+1
			c.Activity = fmt.Sprintf("%s%d", c.Activity, y)
			if c.Nuisance != "" {
				c.Nuisance = fmt.Sprintf("%s%d", c.Nuisance, y)
			}
			p.Channels = append(p.Channels, c)
		}
	}
	return p
}

// counted are logs of so many days, drawn hour by hour.
func counted(est *estimate.Result, days int, rng *rand.Rand) (logs []Log) {
	for i := range est.Plan().Channels {
		l := Log{Channel: est.Plan().Channels[i].ID, Kind: Triggers, From: october, Days: days, Counts: make([]int, 24*days)}
		s := look(est.Site(), &l, i, time.UTC)
		for h := range l.Counts {
			l.Counts[h] = int(distuv.Poisson{Lambda: s.all(h) * 1.1, Src: rng}.Rand())
		}
		l.Lengths = l.N()
		l.Seconds, l.Squares = 25*float64(l.Lengths), 1250*float64(l.Lengths)
		l.Overlaps = l.Lengths / 9
		logs = append(logs, l)
	}
	return logs
}

// BenchmarkDepot compares 192 channels with six weeks of logs, bitrates and oldest footage.
func BenchmarkDepot(b *testing.B) {
	est := estimate.Run(depot(32), nil)
	rng := rand.New(rand.NewPCG(1, 2))
	logs := counted(est, 42, rng)
	d := &Data{Logs: logs, Rates: meterOut(est, logs, rng), Oldest: ageOut(est, rng)}
	for b.Loop() {
		r := compared(b, est, d)
		b.ReportMetric(float64(len(r.Figures)), "figures")
		b.ReportMetric(r.Worth, "draws'-worth")
	}
}
