package api

import (
	"context"
	"fmt"
	"runtime"
	"testing"

	"github.com/jackc/pgx/v5"

	"wakefield.example/core/plan"
	"wakefield.example/internal/demo"
	"wakefield.example/internal/localpg/pgtest"
	"wakefield.example/internal/store"
)

// crowd is a site of many channels, made of copies of the depot's, every third with a
// week and an activity of its own.
func crowd(channels int) *plan.Plan {
	p := demo.SaltmarshTramDepot()
	first := p.Channels
	p.Channels = nil
	for i := range p.Recorders {
		p.Recorders[i].Channels = 5000
	}
	for n := range channels {
		c := first[n%len(first)]
		c.ID, c.Number, c.Name = fmt.Sprint("k", n), n/6+1, fmt.Sprint("Camera ", n)
		if n%3 == 0 {
			a := *p.Activity(c.Activity)
			a.ID, a.Name, a.OtherwisePerHour = fmt.Sprint("a", n), fmt.Sprint("At camera ", n), 0.5+float64(n%50)/10
			p.Activities = append(p.Activities, a)
			c.Activity = a.ID
		}
		p.Channels = append(p.Channels, c)
	}
	return p
}

// BenchmarkCrowd is an edit on the largest site there may be, stored and answered. The
// heap is what the whole process holds after it.
func BenchmarkCrowd(b *testing.B) {
	p := crowd(5000)
	if err := p.Check(); err != nil {
		b.Fatal(err)
	}
	c := start(b, p)
	version := int(call[View](c, "GET", "/api/plans/site", "", 200).Version)
	duties := []string{"off", "clock", "motion"}
	for b.Loop() {
		call[Answer](c, "POST", "/api/plans/site/edits", paint(version, "k17", duties[version%3]), 200)
		version++
	}
	b.StopTimer()
	runtime.GC()
	var m runtime.MemStats
	runtime.ReadMemStats(&m)
	b.ReportMetric(float64(m.HeapAlloc)/1e6, "MB-heap")
	b.ReportMetric(float64(m.Sys)/1e6, "MB-of-the-system")
}

// BenchmarkLookBack shows the depot as it stood 5,000 revisions ago, from a history with
// snapshots and from one that is older than they are.
func BenchmarkLookBack(b *testing.B) {
	c, s := serving(b, demo.SaltmarshTramDepot(), "", Options{})
	ctx := context.Background()
	head, err := s.Load(ctx, "site")
	for err == nil && head.Version <= 5000 {
		next := *head.Plan
		next.Name = fmt.Sprint("Outline ", head.Version)
		var change *store.Change
		if change, err = s.Save(ctx, head, store.Note{Author: "Test", Sentence: next.Name}, &next); err == nil {
			head = change.Head
		}
	}
	if err != nil {
		b.Fatal(err)
	}
	b.Run("with snapshots", func(b *testing.B) {
		for b.Loop() {
			if p, err := s.At(ctx, head, 1); err != nil || p.Name != "Outline" {
				b.Fatal(err)
			}
		}
	})
	b.Run("shown", func(b *testing.B) {
		for b.Loop() {
			call[View](c, "GET", "/api/plans/site/revisions/1", "", 200)
		}
	})
	conn, err := pgx.Connect(ctx, cluster.URL(b.Name())+pgtest.SeesAll)
	if err != nil {
		b.Fatal(err)
	}
	defer conn.Close(ctx)
	b.Run("without", func(b *testing.B) {
		for b.Loop() {
			if _, err := conn.Exec(ctx, `delete from snapshot`); err != nil {
				b.Fatal(err)
			}
			if p, err := s.At(ctx, head, 1); err != nil || p.Name != "Outline" {
				b.Fatal(err)
			}
		}
	})
}
