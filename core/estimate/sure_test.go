package estimate

import (
	"math"
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
	"wakefield.example/core/week"
)

// TestEachStreamHasADoubtOfItsOwn writes two streams of the same bitrate, and a button
// that writes the main one.
func TestEachStreamHasADoubtOfItsOwn(t *testing.T) {
	p := plantest.Read(t, "testdata/plans/rush-hour-hall.json")
	p.Channels = p.Channels[:1]
	c := &p.Channels[0]
	same := func(known string) *plan.Stream {
		return &plan.Stream{Codec: "h264", Width: 640, Height: 360, FPS: 8, GOPSeconds: 2, Rate: plan.Rate{Kind: "constant",
			Kbps: 1000, Known: known}}
	}
	c.Streams = plan.Streams{Main: same("measured"), Sub: same("guess")}
	c.AudioKbps = 0
	p.Duties = []plan.Duty{{ID: "main", Name: "Main", Base: &plan.Base{Stream: "main"}}, {ID: "sub", Name: "Sub",
		Base: &plan.Base{Stream: "sub"}}}
	c.Week = plan.WeekRef{Own: &plan.OwnWeek{Otherwise: "main",
		Blocks: []plan.DutyBlock{{Hours: plan.Hours{Days: []week.Weekday{0, 1}, From: 0, To: 1440}, Duty: "sub"}}}}
	s := Figures(p, nil)
	got := s.inputs[0].ByStream(s.played[0].Shares)
	if math.Abs(got[0]-1000*5.0/7) > 1e-6 || math.Abs(got[1]-1000*2.0/7) > 1e-6 {
		t.Errorf("%v kbit/s of each stream", got)
	}
	p.CallButtons = []plan.CallButton{{ID: "b", Name: "B", PressesPerWeek: 1000, HoldSeconds: 604800, Records: []string{c.ID}}}
	s = Figures(p, nil)
	if got := s.inputs[0].ByStream(s.played[0].Shares); math.Abs(got[0]-1000) > 1e-6 || got[1] > 1e-6 {
		t.Errorf("a button that is always pressed writes %v kbit/s of each stream", got)
	}
}

// TestLikelyIsTypical asks that what is stated lies in the middle of what is drawn, where
// there are many channels.
func TestLikelyIsTypical(t *testing.T) {
	for _, n := range []int{32, 96} {
		p := depot(n)
		for i := range p.Channels {
			main := *p.Channels[i].Streams.Main
			main.Rate.Night = &plan.Night{Factor: 1} // an unsaid night is likely to cost more
			p.Channels[i].Streams.Main = &main
		}
		s := Run(p, nil)
		for _, pool := range s.Pools {
			if pool.LikelyDays == nil {
				continue
			}
			if off := pool.LikelyDays.Likely / *pool.RetentionDays - 1; math.Abs(off) > 0.02 {
				t.Errorf("%d channels: likely %v, typically %v", n, pool.LikelyDays.Likely, *pool.RetentionDays)
			}
		}
	}
}

// TestRequirementsAreHeldAgainstTheWorst requires what is kept typically, and what is
// kept at the worst moment.
func TestRequirementsAreHeldAgainstTheWorst(t *testing.T) {
	p := plantest.Read(t, "testdata/yard-and-gate.json")
	holds := func(required float64) float64 {
		for i := range p.Channels {
			p.Channels[i].Keep.AtLeastDays = 0
		}
		p.Channels[0].Keep = plan.Keep{AtLeastDays: required}
		return Run(p, nil).Verdict.HoldsPercent
	}
	p.Channels[0].Keep = plan.Keep{}
	s := Run(p, nil)
	low := s.Pools[0].LikelyDays.Low
	ordinary := holds(low)
	if ordinary < 80 || ordinary > 90.5 {
		t.Errorf("%v %% keep what nine in ten keep typically", ordinary)
	}
	f := 3.0
	p.Site.SpecialDays = []plan.SpecialDay{{From: date(2027, 6, 1), To: date(2027, 9, 30), Name: "Season", RateFactor: &f}}
	if season := holds(low); season > ordinary-10 {
		t.Errorf("%v %% with a season, %v %% without", season, ordinary)
	}
}

// TestHowOftenItHolds requires the ends and the middle of the range of one channel, of whose doubt nothing else is
// part, and of one that requires nothing.
func TestHowOftenItHolds(t *testing.T) {
	p := depot(1)
	p.Channels[0].Week = plan.WeekRef{Own: &plan.OwnWeek{Otherwise: "full"}}
	p.Channels[0].Streams.Main.Rate = plan.Rate{Kind: "constant", Kbps: 4000, Known: "datasheet"}
	p.Channels[0].Keep = plan.Keep{}
	s := Run(p, nil)
	if s.Channels[0].HoldsPercent != 100 || s.Verdict.HoldsPercent != 100 {
		t.Errorf("nothing is required, and holds in %v and %v %%", s.Channels[0].HoldsPercent, s.Verdict.HoldsPercent)
	}
	sure := s.Pools[0].LikelyDays
	for required, want := range map[float64]float64{sure.Low: 90, sure.Likely: 50, sure.High: 10, 2 * sure.High: 0, sure.Low / 2: 100} {
		p.Channels[0].Keep.AtLeastDays = required
		s := Run(p, nil)
		for what, holds := range map[string]float64{"channel": s.Channels[0].HoldsPercent, "site": s.Verdict.HoldsPercent} {
			if math.Abs(holds-want) > 0.5 {
				t.Errorf("%s: %.1f days hold in %.2f %% of draws, want %v", what, required, holds, want)
			}
		}
	}
}

// TestHowFarEachFigureMayBeOff holds the factors against the documented ones.
// TestEachLimitIsTheChannelsOwn gives one channel an age limit and another a quota: neither is kept longer in any draw.
func TestEachLimitIsTheChannelsOwn(t *testing.T) {
	p := depot(3)
	for i := range p.Channels {
		p.Channels[i].Keep = plan.Keep{}
	}
	p.Channels[0].Keep.AtMostDays = 2
	p.Channels[1].Keep.QuotaGB = 1
	s := Run(p, nil)
	pool := s.Pools[0].LikelyDays
	age, quota, free := s.Channels[0].LikelyDays, s.Channels[1].LikelyDays, s.Channels[2].LikelyDays
	if age.Low != 2 || age.High != 2 {
		t.Errorf("at most 2 days are %+v", age)
	}
	if quota.High >= pool.Low || quota.Low >= quota.High {
		t.Errorf("1 GB is %+v, the pool %+v", quota, pool)
	}
	if *free != *pool {
		t.Errorf("without a limit %+v, the pool %+v", free, pool)
	}
	if before := *s.Channels[1].RetentionDays; math.Abs(quota.Likely/before-1) > 0.1 {
		t.Errorf("likely %v, typically %v", quota.Likely, before)
	}
}

// TestHowMuchOfTheDoubtIsCommon correlates nothing, half and all of a figure with what the whole site has in common.
// TestEachRecorderHasItsOwnFigures puts one of two channels on a recorder of its own.
func TestEachRecorderHasItsOwnFigures(t *testing.T) {
	p := depot(2)
	second := p.Recorders[0]
	second.ID, second.Name = "second", "Second"
	second.Pools = append([]plan.Pool{}, second.Pools[0])
	second.Pools[0].ID = "second-pool"
	p.Recorders = append(p.Recorders, second)
	p.Channels[1].Recorder, p.Channels[1].Pool = "second", "second-pool"
	if err := p.Check(); err != nil {
		t.Fatal(err)
	}
	s := Figures(p, nil)
	for i, r := range s.Recorders {
		if c := s.Channels[i]; r.Channels != 1 || math.Abs(r.AverageMbps*1000-c.AverageKbps) > 1e-3 ||
			math.Abs(s.Pools[i].GigabytesPerDay-c.GigabytesPerDay) > 1e-9 {
			t.Errorf("%+v, its channel %+v", r, c)
		}
	}
}

// TestTheVerdictIsOfTheWorstChannel requires other days of three channels: the one that is furthest from its own is named.
func TestTheVerdictIsOfTheWorstChannel(t *testing.T) {
	p := depot(3)
	for worst := range p.Channels {
		for i := range p.Channels {
			p.Channels[i].Keep = plan.Keep{AtLeastDays: 10}
		}
		p.Channels[worst].Keep.AtLeastDays = 100000
		s := Figures(p, nil)
		v, c := s.Verdict, s.Channels[worst]
		if v.Channel != c.ID || *v.RequiredDays != 100000 || *v.KeptDays != *c.RetentionDays || !v.Short || s.Channels[(worst+1)%3].Short {
			t.Errorf("%+v, the worst is %s", v, c.ID)
		}
	}
}

// TestAlongMovesAsOne asks that what each step moves of a stream adds up to one along their direction, and that a stream
// that hardly changes goes its own way.
