package estimate

import (
	"math"
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
	"wakefield.example/core/week"
)

// burst is a plan of one channel that writes much in some minutes of every day, and little
// otherwise, on a pool that holds some minutes of it.
func burst(t *testing.T, from, to week.Clock, usableGB float64) *plan.Plan {
	p := plantest.Read(t, "testdata/plans/rush-hour-hall.json")
	p.Channels = p.Channels[:1]
	c := &p.Channels[0]
	c.AudioKbps, c.Keep = 0, plan.Keep{}
	rate := func(kbps float64) *plan.Stream {
		return &plan.Stream{Codec: "h264", Width: 640, Height: 360, FPS: 8, GOPSeconds: 2, Rate: plan.Rate{Kind: "constant",
			Kbps: kbps, Known: "measured"}}
	}
	c.Streams = plan.Streams{Main: rate(30000), Sub: rate(1000)}
	p.Duties = []plan.Duty{{ID: "main", Name: "Main", Base: &plan.Base{Stream: "main"}}, {ID: "sub", Name: "Sub",
		Base: &plan.Base{Stream: "sub"}}}
	c.Week = plan.WeekRef{Own: &plan.OwnWeek{Otherwise: "sub", Blocks: []plan.DutyBlock{{Hours: plan.Hours{From: from, To: to},
		Duty: "main"}}}}
	pool := &p.Recorders[0].Pools[0]
	pool.Layout, pool.HotSpares, pool.ReservePercent = "span", 0, 0
	pool.Drives = []plan.DriveGroup{{Count: 1, Terabytes: usableGB / 1000}}
	if err := p.Check(); err != nil {
		t.Fatal(err)
	}
	return p
}

// TestPartsOfAnHourCount asks for the worst minute of a pool that holds little.
func TestPartsOfAnHourCount(t *testing.T) {
	const perMinute = 30000.0 * 1000 / 8 * 60 / 1e9 // GB of the main stream
	for _, test := range []struct {
		name     string
		from, to week.Clock
		minutes  float64 // of the main stream that fit
		want     float64 // minutes kept at worst
	}{
		{"all of it is busy", 485, 505, 10, 10},
		{"half an hour, within the hour", 490, 520, 10, 10},
		{"twenty busy minutes and ten like 300 quiet ones", 490, 510, 30, 20 + 300},
	} {
		p := burst(t, test.from, test.to, test.minutes*perMinute)
		s := Figures(p, nil)
		if got := *s.Pools[0].WorstDays * 1440; math.Abs(got-test.want) > 0.5 {
			t.Errorf("%s: %v minutes are kept at worst, want %v", test.name, got, test.want)
		}
		if got := *s.Channels[0].WorstDays * 1440; math.Abs(got-test.want) > 0.5 {
			t.Errorf("%s: the channel is kept for %v minutes at worst", test.name, got)
		}
		p.Recorders[0].Pools[0].Drives[0].Terabytes = 10
		p.Channels[0].Keep.QuotaGB = test.minutes * perMinute
		if got := *Figures(p, nil).Channels[0].WorstDays * 1440; math.Abs(got-test.want) > 0.5 {
			t.Errorf("%s: by its quota the channel is kept for %v minutes at worst", test.name, got)
		}
	}
}

// TestAnAgeLimitHoldsByTheMinute keeps a small pool's footage for an hour and a half at most.
func TestAnAgeLimitHoldsByTheMinute(t *testing.T) {
	p := depot(2)
	for i := range p.Channels {
		p.Channels[i].Week = plan.WeekRef{Own: &plan.OwnWeek{Otherwise: "full"}}
		p.Channels[i].Streams.Main.Rate = plan.Rate{Kind: "constant", Kbps: 8000, Known: "measured"}
	}
	p.Recorders[0].Pools[0].Drives = []plan.DriveGroup{{Count: 1, Terabytes: 0.02}}
	p.Recorders[0].Pools[0].Layout, p.Recorders[0].Pools[0].ReservePercent = "span", 0
	free := *Figures(p, nil).Pools[0].WorstDays
	p.Channels[0].Keep.AtMostDays = 1.5 / 24
	s := Figures(p, nil)
	// The other channel has what the first one leaves: 20 GB less an hour and a half of 3.6 GB an hour.
	if want := (20 - 1.5*3.6) / 3.6 / 24; math.Abs(*s.Pools[0].WorstDays/want-1) > 0.01 || math.Abs(*s.Channels[0].WorstDays-1.5/24) > 1e-6 ||
		free > want {
		t.Errorf("worst %v days, want %v; without a limit %v; the channel %v", *s.Pools[0].WorstDays, want, free, *s.Channels[0].WorstDays)
	}
}
