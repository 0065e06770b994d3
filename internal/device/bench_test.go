package device

import (
	"fmt"
	"testing"
	"time"

	"golang.org/x/sync/errgroup"

	"wakefield.example/core/plan"
	"wakefield.example/core/readout"
	"wakefield.example/internal/standin"
)

// BenchmarkTwelveRecorders reads twelve recorders of 16 channels at once, and holds each against its plan.
func BenchmarkTwelveRecorders(b *testing.B) {
	p, err := plan.Opening{Name: "Twelve", TimeZone: "UTC", Recorder: "Recorder", Recorders: 12, Channels: 16, IngestMbps: 400, Drives: 4,
		Terabytes: 8, Layout: "raid5", Cameras: 192, Codec: "h265", Width: 2560, Height: 1440, FPS: 15, Activity: plan.ActivityTemplates()[0].ID,
		Duty: plan.ReadyMade()[0].ID}.Plan()
	if err != nil {
		b.Fatal(err)
	}
	var clients []*Client
	for i := range p.Recorders {
		d, err := standin.Start(b.Context(), standin.Options{Listen: "127.0.0.1:0", User: "fitter", Password: "secret", Plan: p,
			Recorder: p.Recorders[i].ID})
		if err != nil {
			b.Fatal(err)
		}
		b.Cleanup(d.Close)
		clients = append(clients, mustOpen(b, d))
	}
	planned := entered(p)
	b.ResetTimer()
	began := time.Now()
	for b.Loop() {
		var g errgroup.Group
		for i, c := range clients {
			g.Go(func() error {
				d, err := c.Read(b.Context(), nil)
				if err != nil {
					return err
				}
				if h := readout.Hold(p, planned, readout.Target{Recorder: p.Recorders[i].ID}, d); h.Same != 16 {
					return fmt.Errorf("%s: %+v", p.Recorders[i].Name, h.Lines)
				}
				return nil
			})
		}
		if err := g.Wait(); err != nil {
			b.Fatal(err)
		}
	}
	b.ReportMetric(time.Since(began).Seconds()/float64(b.N), "s/192-channels")
}
