package estimate

import (
	"fmt"
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// depot is a site of n channels, each at bitrates of its own, with twelve activities
// that differ in every hour of the week: the most edges that a plan has.
func depot(n int) *plan.Plan {
	p := &plan.Plan{
		Format: plan.Format, Name: "Depot", Site: plan.Site{Name: "Depot", TimeZone: "UTC"},
		Duties: []plan.Duty{
			{ID: "low", Name: "Low, then full", Base: &plan.Base{Stream: "sub"},
				Event: &plan.Event{Stream: "main", On: []plan.Trigger{"motion", "alarm"}}},
			{ID: "motion", Name: "Motion only", Event: &plan.Event{Stream: "main", On: []plan.Trigger{"motion"}}},
			{ID: "full", Name: "Round the clock", Base: &plan.Base{Stream: "main"}},
		},
		Recorders: []plan.Recorder{{ID: "r", Name: "R", Channels: n, IngestMbps: 1000, Pools: []plan.Pool{{
			ID: "p", Name: "P", Layout: "raid6", Drives: []plan.DriveGroup{{Count: 12, Terabytes: 16}}}}}},
	}
	for a := range 12 {
		act := plan.Activity{ID: fmt.Sprint("a", a), Name: "A", Known: "surveyed", MeanSeconds: 15 + 3*float64(a%4)}
		for d := range week.Weekdays {
			for h := range 24 {
				act.Blocks = append(act.Blocks, plan.RateBlock{
					Hours:   plan.Hours{Days: []week.Weekday{week.Weekday(d)}, From: week.Clock(h * 60), To: week.Clock(h*60 + 60)},
					PerHour: 2 + float64((h*7+d*3+a)%29)})
			}
		}
		p.Activities = append(p.Activities, act)
	}
	for i := range n {
		p.Channels = append(p.Channels, plan.Channel{
			ID: fmt.Sprint("c", i), Number: i + 1, Name: "C", Recorder: "r", Pool: "p",
			Streams: plan.Streams{
				Main: &plan.Stream{Codec: "h265", Width: 2560, Height: 1440, FPS: 15, GOPSeconds: 2,
					Rate: plan.Rate{Kind: "variable", IdleKbps: 1200 + float64(i), ActiveKbps: 3500, Known: "datasheet"}},
				Sub: &plan.Stream{Codec: "h264", Width: 640, Height: 360, FPS: 8, GOPSeconds: 2,
					Rate: plan.Rate{Kind: "constant", Kbps: 384, Known: "datasheet"}},
			},
			PreSeconds: 5, PostSeconds: 20, Activity: fmt.Sprint("a", i%12), Detection: plan.Detection{On: true},
			Keep: plan.Keep{AtLeastDays: 30},
			Week: plan.WeekRef{Own: &plan.OwnWeek{Otherwise: "motion", Blocks: []plan.DutyBlock{
				{Hours: plan.Hours{Days: []week.Weekday{0, 1, 2, 3, 4}, From: 360, To: 1320}, Duty: "low"},
				{Hours: plan.Hours{Days: []week.Weekday{5}, From: 480, To: 960}, Duty: "full"},
			}}},
		})
	}
	return p
}

func BenchmarkFigures(b *testing.B) {
	for _, n := range []int{16, 192, 1000, 5000} {
		p := depot(n)
		b.Run(fmt.Sprint(n, "channels"), func(b *testing.B) {
			for b.Loop() {
				Figures(p, nil)
			}
		})
	}
}

// BenchmarkStroke is the estimate after one channel of many has been repainted.
func BenchmarkStroke(b *testing.B) {
	for _, n := range []int{16, 192} {
		p := depot(n)
		before := Run(p, nil)
		q := *p
		q.Channels = append([]plan.Channel(nil), p.Channels...)
		q.Channels[3].Week = plan.WeekRef{Own: &plan.OwnWeek{Otherwise: "full"}}
		b.Run(fmt.Sprint(n, "channels, figures"), func(b *testing.B) {
			for b.Loop() {
				Figures(&q, before)
			}
		})
		b.Run(fmt.Sprint(n, "channels, with draws"), func(b *testing.B) {
			for b.Loop() {
				Run(&q, before)
			}
		})
	}
}

func BenchmarkDraws(b *testing.B) {
	p := depot(64)
	for b.Loop() {
		Run(p, nil)
	}
}

// alone is a site of n channels that share nothing: each has a week and an activity of
// its own that differs in every hour. grouped says whether their events come in groups.
func alone(n int, grouped bool) *plan.Plan {
	p := depot(n)
	shared := p.Activities
	p.Activities = nil
	for i := range p.Channels {
		a := shared[i%len(shared)]
		a.ID = fmt.Sprint("own", i)
		a.Blocks = append([]plan.RateBlock(nil), a.Blocks...)
		for k := range a.Blocks {
			a.Blocks[k].PerHour += 0.01 * float64(i+1)
		}
		a.MeanSeconds += 0.05 * float64(i)
		if grouped {
			a.Groups = &plan.Groups{Size: 2 + 0.01*float64(i), WithinSeconds: 40 + float64(i%7)}
		}
		p.Activities = append(p.Activities, a)
		c := &p.Channels[i]
		c.Activity = a.ID
		own := *c.Week.Own
		own.Blocks = append([]plan.DutyBlock(nil), own.Blocks...)
		own.Blocks[0].From = week.Clock(300 + i%120)
		c.Week.Own = &own
	}
	return p
}

// BenchmarkGroups is the estimate of a site all of whose events come in groups.
func BenchmarkGroups(b *testing.B) {
	p := depot(192)
	for i := range p.Activities {
		p.Activities[i].Groups = &plan.Groups{Size: 2 + 0.3*float64(i), WithinSeconds: 30 + 5*float64(i)}
	}
	for b.Loop() {
		Figures(p, nil)
	}
}

// BenchmarkAlone is the estimate of channels that share nothing.
func BenchmarkAlone(b *testing.B) {
	for _, grouped := range []bool{false, true} {
		p := alone(192, grouped)
		b.Run(fmt.Sprintf("grouped=%v", grouped), func(b *testing.B) {
			for b.Loop() {
				Figures(p, nil)
			}
		})
	}
}

// tiedDepot is a depot with 40 alarm inputs, 2,000 ties, 20 receivers, outputs, monitors, movable cameras, stills and a copy
// off site.
func tiedDepot() *plan.Plan {
	p := depot(192)
	for i := range 40 {
		p.AlarmInputs = append(p.AlarmInputs, plan.AlarmInput{ID: fmt.Sprint("i", i), Name: "I", Recorder: "r", Activity: fmt.Sprint("a", i%12)})
	}
	for i := range 20 {
		p.Messages = append(p.Messages, plan.Message{ID: fmt.Sprint("m", i), Name: "M", To: "M", AtMostEverySeconds: 60 * float64(1+i)})
	}
	for i := range 8 {
		p.Outputs = append(p.Outputs, plan.Output{ID: fmt.Sprint("o", i), Name: "O", Recorder: "r", Kind: "light",
			HoldSeconds: 30, Prolonged: i%2 == 0})
	}
	p.Monitors = []plan.Monitor{{ID: "v0", Name: "V", DwellSeconds: 15}, {ID: "v1", Name: "V", DwellSeconds: 30}}
	p.Offsite = &plan.Offsite{UplinkKbps: 100_000}
	ties := 0
	add := func(e plan.Effect) {
		ties += e.Ties()
		p.Effects = append(p.Effects, e)
	}
	at := func(i int) string { return fmt.Sprint("c", i%192) }
	for i := range 192 {
		e := plan.Effect{When: plan.When{Motion: at(i)}, Record: []string{at(i + 1), at(i + 2)}, Message: []string{fmt.Sprint("m", i%20),
			fmt.Sprint("m", (i+7)%20)},
			Output: []string{fmt.Sprint("o", i%8)}, Monitor: []string{fmt.Sprint("v", i%2)}}
		if i%16 == 0 {
			p.Channels[(i+3)%192].Movable = &plan.Movable{Home: "h", Presets: []plan.Preset{{ID: "h", Name: "H"}, {ID: "q", Name: "Q"}}}
			e.Preset = []plan.PresetTie{{Channel: at(i + 3), Preset: "q", DwellSeconds: 20}}
		}
		if i%4 == 0 {
			e.Offsite = []string{at(i)}
			p.Channels[i].Stills = &plan.Stills{Mode: "trigger", EverySeconds: 5, Width: 1280, Height: 720, Quality: 3}
		}
		add(e)
		add(plan.Effect{When: plan.When{Lost: at(i), PerMonth: 0.1}, Message: []string{"m0", "m1"}})
	}
	for i := range 40 {
		add(plan.Effect{When: plan.When{Alarm: fmt.Sprint("i", i)}, Record: []string{at(i * 4), at(i*4 + 1), at(i*4 + 2)},
			Message: []string{fmt.Sprint("m", i%20)}, Monitor: []string{"v0"}})
	}
	for i := 0; ties < 2000; i++ {
		add(plan.Effect{When: plan.When{Tampered: at(i), PerMonth: 0.05}, Message: []string{fmt.Sprint("m", i%20)}, Output: []string{"o0"}})
	}
	return p
}

// BenchmarkTies is all that causes do beside recording, and the estimate with and without it.
func BenchmarkTies(b *testing.B) {
	p := tiedDepot()
	plain := *p
	plain.Messages, plain.Outputs, plain.Monitors, plain.Offsite = nil, nil, nil, nil
	plain.Channels = append([]plan.Channel(nil), p.Channels...)
	plain.Effects = nil
	for _, e := range p.Effects {
		if e.Record != nil {
			plain.Effects = append(plain.Effects, plan.Effect{When: e.When, Record: e.Record})
		}
	}
	for i := range plain.Channels {
		plain.Channels[i].Movable, plain.Channels[i].Stills = nil, nil
	}
	b.Run("estimate", func(b *testing.B) {
		for b.Loop() {
			Figures(p, nil)
		}
	})
	b.Run("estimate without", func(b *testing.B) {
		for b.Loop() {
			Figures(&plain, nil)
		}
	})
	before := Figures(p, nil)
	b.Run("ties", func(b *testing.B) {
		for b.Loop() {
			before.findTies()
		}
	})
	q := *p
	q.Messages = append([]plan.Message(nil), p.Messages...)
	q.Messages[3].AtMostEverySeconds = 90
	b.Run("an interval changed", func(b *testing.B) {
		for b.Loop() {
			Figures(&q, before)
		}
	})
}
