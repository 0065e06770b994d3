package demo

import (
	"context"
	"runtime"
	"testing"

	"wakefield.example/core/check"
	"wakefield.example/core/estimate"
	"wakefield.example/core/looked"
	"wakefield.example/core/rehearse"
	"wakefield.example/core/solve"
	"wakefield.example/core/week"
)

// BenchmarkLooks tells the longest time, in ms, in which long work on the largest sample site does not look whether anybody
// waits for it still: on one core, as what one core does the other cannot stop.
func BenchmarkLooks(b *testing.B) {
	defer runtime.GOMAXPROCS(runtime.GOMAXPROCS(1))
	p := SaltmarshTramDepot()
	site, err := estimate.RunContext(context.Background(), p, nil)
	if err != nil {
		b.Fatal(err)
	}
	prepared, err := solve.Prepare(context.Background(), p, site, nil, nil)
	if err != nil {
		b.Fatal(err)
	}
	from := week.Date{Year: 2026, Month: 11, Day: 23}
	for name, do := range map[string]func(context.Context) error{
		"estimate": func(ctx context.Context) error { _, err := estimate.RunContext(ctx, p, nil); return err },
		"knowing":  func(ctx context.Context) error { _, err := site.Knowing(ctx); return err },
		"year":     func(ctx context.Context) error { _, err := site.Year(ctx, from); return err },
		"prepare":  func(ctx context.Context) error { _, err := solve.Prepare(ctx, p, site, nil, nil); return err },
		"answer": func(ctx context.Context) error {
			_, err := prepared.Answer(ctx, &solve.Ask{Days: 60, WorsePictures: true, LowCounts: 0.5})
			return err
		},
		"fixes": func(ctx context.Context) error {
			_, err := check.Effects(ctx, p, site, check.Findings(p, site))
			return err
		},
		"play": func(ctx context.Context) error {
			_, err := rehearse.Play(ctx, site, rehearse.Ask{From: from, Days: 7, Seed: 1})
			return err
		},
		"odds": func(ctx context.Context) error {
			_, err := rehearse.OddsOf(ctx, site, rehearse.Ask{From: from, Days: 7, Seed: 1}, 3, 0, 1000)
			return err
		},
	} {
		b.Run(name, func(b *testing.B) {
			for b.Loop() {
				ctx := looked.Gaps()
				if err := do(ctx); err != nil {
					b.Fatal(err)
				}
				b.ReportMetric(float64(ctx.Longest().Microseconds())/1000, "ms-unlooked")
			}
		})
	}
}
