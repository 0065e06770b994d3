package solve

import (
	"context"
	"math/rand/v2"
	"slices"
	"testing"

	"wakefield.example/core/edit"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// TestDaysAreAskedByTheirMeasure asks random plans for days at the worst hour, on the worst date and with a chance, makes the
// answer so, and holds the estimate of that plan against what was asked.
func TestDaysAreAskedByTheirMeasure(t *testing.T) {
	rng := rand.New(rand.NewPCG(26, 2))
	reached := make(map[Measure]int)
	for round := range 8 {
		site := small(rng, 5)
		site.Site.SpecialDays = []plan.SpecialDay{{From: week.Date{Year: 2026, Month: 8, Day: 8}, To: week.Date{Year: 2026, Month: 8,
			Day: 16}, Name: "Fair", RateFactor: ptr(3.0)}}
		p := prepared(t, site)
		frontier := p.Frontier(&Ask{LowCounts: DefaultLow})
		for _, by := range []Measure{WorstHour, WorstDate, Chance} {
			ask := &Ask{LowCounts: DefaultLow, By: by, Percent: 80, Days: frontier[0].Days * (0.9 + 0.3*rng.Float64())}
			answer, kept, err := p.WhatItTakes(context.Background(), ask)
			if err != nil {
				t.Fatal(err)
			}
			if !answer.Reached {
				continue
			}
			reached[by]++
			next := site
			if len(answer.Edits) > 0 {
				if next, err = edit.After(site, answer.Edits...); err != nil {
					t.Fatal(err)
				}
			}
			asked := *next
			asked.Channels = slices.Clone(next.Channels)
			next = &asked
			for i := range next.Channels {
				next.Channels[i].Keep.AtLeastDays = ask.Days
				if most := next.Channels[i].Keep.AtMostDays; most > 0 && most < ask.Days {
					next.Channels[i].Keep.AtLeastDays = 0
				}
			}
			then := estimate.Run(next, nil)
			for _, pool := range then.Pools {
				if by != Chance && pool.WorstDays != nil && *pool.WorstDays < ask.Days*(1-1e-6) && p.asked(pool.ID) {
					t.Errorf("%d: %.2f days are kept at the worst hour, asked for %.2f", round, *pool.WorstDays, ask.Days)
				}
			}
			if by == WorstDate {
				for _, pool := range then.SpecialYear().Pools {
					if pool.WorstDays != nil && *pool.WorstDays < ask.Days*(1-1e-6) && p.asked(pool.ID) {
						t.Errorf("%d: %.2f days are kept on the worst date, asked for %.2f", round, *pool.WorstDays, ask.Days)
					}
				}
			}
			if by == Chance && (kept.Percent < 80 || then.Verdict.HoldsPercent < 80) {
				t.Errorf("%d: holds in %.1f %% of draws, told %.1f", round, then.Verdict.HoldsPercent, kept.Percent)
			}
		}
	}
	for _, by := range []Measure{WorstHour, WorstDate, Chance} {
		if reached[by] < 4 {
			t.Errorf("%q was reached %d times only", by, reached[by])
		}
	}
}

func (p *Prepared) asked(id string) bool {
	for _, of := range p.pools() {
		if of.id == id {
			return true
		}
	}
	return false
}

func ptr[T any](v T) *T { return &v }

// TestWhatIsToSpareIsNotMissed makes every change that is offered where there is far more than is required, one by one: it is
// still kept then, at the worst hour too.
func TestWhatIsToSpareIsNotMissed(t *testing.T) {
	rng := rand.New(rand.NewPCG(26, 3))
	kinds := 0
	for range 3 {
		site := small(rng, 6)
		for i := range site.Channels {
			site.Channels[i].Keep = plan.Keep{AtLeastDays: 4}
		}
		for k := range site.Recorders[0].Pools {
			site.Recorders[0].Pools[k].Drives = []plan.DriveGroup{{Count: 3, Terabytes: 2}}
		}
		p := prepared(t, site)
		list, err := p.Spares(context.Background())
		if err != nil {
			t.Fatal(err)
		}
		for _, s := range list {
			kinds++
			next, err := edit.After(site, s.Edits...)
			if err != nil {
				t.Fatal(err)
			}
			then := estimate.Figures(next, nil)
			for _, pool := range then.Pools {
				if pool.ID == s.Pool && (pool.WorstDays != nil && *pool.WorstDays < 4 || (pool.RetentionDays == nil) != (s.Days == nil) ||
					s.Days != nil && *pool.RetentionDays != *s.Days) {
					t.Errorf("%v: %+v, promised %v days", s.Words, pool, *s.Days)
				}
			}
			if then.Verdict.ShortChannels > 0 {
				t.Errorf("%v: a channel is short", s.Words)
			}
		}
		for i := range site.Channels {
			site.Channels[i].Keep.AtLeastDays = *p.site.Pools[0].RetentionDays
		}
		if list, err := prepared(t, site).Spares(context.Background()); err != nil || len(list) > 0 && len(site.Recorders[0].Pools) == 1 {
			t.Errorf("nothing is to spare, offered %v (%v)", list, err)
		}
	}
	if kinds < 10 {
		t.Errorf("%d changes are offered", kinds)
	}
}

// TestTheFullTimeIsThatOfTheWholeMainStream names the duty that writes all of the main stream, whatever else the plan has.
func TestTheFullTimeIsThatOfTheWholeMainStream(t *testing.T) {
	p := small(rand.New(rand.NewPCG(3, 1)), 2)
	layered := plan.Duty{ID: "layered", Name: "Main and events", Base: &plan.Base{Stream: plan.Main},
		Event: &plan.Event{Stream: plan.Main, On: []plan.Trigger{plan.Motion}}}
	p.Duties = append([]plan.Duty{layered}, p.Duties...)
	p.Channels[0].Week.Own = &plan.OwnWeek{Otherwise: "motion"}
	p.Channels[1].Week.Own = &plan.OwnWeek{Otherwise: "clock"}
	made := prepared(t, p)
	if less, full := made.fullTime(0), made.fullTime(1); less != "clock" || full != "" {
		t.Errorf("on motion %q, round the clock %q", less, full)
	}
}

// TestRoomGoesToThePoolThatKeepsLeast gives a sum that buys one drive to two pools of which the second keeps far less.
func TestRoomGoesToThePoolThatKeepsLeast(t *testing.T) {
	p := small(rand.New(rand.NewPCG(3, 2)), 2)
	r := &p.Recorders[0]
	r.Pools = []plan.Pool{{ID: "p0", Name: "P", Layout: "span", Drives: []plan.DriveGroup{{Count: 4, Terabytes: 2}}},
		{ID: "p1", Name: "Q", Layout: "span", Drives: []plan.DriveGroup{{Count: 1, Terabytes: 2}}}}
	p.Prices = &plan.Prices{Currency: "EUR", Drives: []plan.DrivePrice{{Terabytes: 2, Each: 80}}}
	for i, id := range []string{"p0", "p1"} {
		c := &p.Channels[i]
		c.Pool, c.Week.Own, c.Keep.AtMostDays = id, &plan.OwnWeek{Otherwise: "clock"}, 0
	}
	made, money := prepared(t, p), 100.0
	ask := &Ask{LowCounts: DefaultLow, MoreDrives: 2, Money: &money}
	pools := made.pools()
	at := made.largest(ask, pools, made.room(ask, pools))
	for k := range pools {
		if want := map[string]int{"p0": 0, "p1": 1}[pools[k].id]; at[k] != want {
			t.Errorf("%s: choice %d, want %d", pools[k].id, at[k], want)
		}
	}
}
