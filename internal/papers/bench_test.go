package papers

import (
	"context"
	"io"
	"testing"

	"wakefield.example/core/check"
	"wakefield.example/core/edit"
	"wakefield.example/core/estimate"
	"wakefield.example/core/handover"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
	"wakefield.example/internal/demo"
)

// BenchmarkAllPapers writes sheets and papers of 192 channels on six recorders into one archive.
func BenchmarkAllPapers(b *testing.B) {
	p := demo.SaltmarshTramDepot()
	figures := estimate.Run(p, nil)
	found := check.Findings(p, figures)
	for b.Loop() {
		s, err := New(context.Background(), p, figures, found, week.Date{Year: 2027, Month: 3, Day: 2}, nil)
		if err != nil {
			b.Fatal(err)
		}
		if err := s.Zip(context.Background(), io.Discard, A4, nil); err != nil {
			b.Fatal(err)
		}
	}
}

// BenchmarkChangedSheet makes the sheets after a stroke on one of 192 channels; with recorders that do not take all, too.
func BenchmarkChangedSheet(b *testing.B) {
	for name, takes := range map[string]*plan.Takes{"all": nil,
		"halfHours": {StepMinutes: 30, PeriodsPerDay: 8, Layers: "one", PreSeconds: []float64{0, 10}}} {
		b.Run(name, func(b *testing.B) {
			p := demo.SaltmarshTramDepot()
			for i := range p.Recorders {
				p.Recorders[i].Takes = takes
			}
			figures := estimate.Run(p, nil)
			next, err := edit.After(p, edit.Edit{Paint: &edit.Paint{Channels: []string{p.Channels[5].ID},
				Hours: []plan.Hours{{From: 7*60 + 40, To: 9 * 60}}, Duty: p.Duties[0].ID}})
			if err != nil {
				b.Fatal(err)
			}
			after := estimate.Run(next, figures)
			before, err := New(context.Background(), p, figures, nil, week.Date{Year: 2027, Month: 3, Day: 2}, nil)
			if err != nil {
				b.Fatal(err)
			}
			for b.Loop() {
				if _, err := New(context.Background(), next, after, nil, week.Date{Year: 2027, Month: 3, Day: 2}, before); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
}

// BenchmarkFindingsAsEntered checks a plan whose recorders do not take all.
func BenchmarkFindingsAsEntered(b *testing.B) {
	p := demo.SaltmarshTramDepot()
	for i := range p.Recorders {
		p.Recorders[i].Takes = &plan.Takes{StepMinutes: 30, PeriodsPerDay: 8, Layers: "one", PreSeconds: []float64{0, 10}}
	}
	figures := estimate.Run(p, nil)
	if !handover.Enter(p, figures).Differs() {
		b.Fatal("all can be entered")
	}
	for b.Loop() {
		check.Findings(p, figures)
	}
}
