package rehearse

import (
	"context"
	"testing"

	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// busy is a plan of many channels that a hundred thousand events a week happen on.
func busy(channels int) *plan.Plan {
	p := &plan.Plan{
		Format: plan.Format, Name: "Busy", Site: plan.Site{Name: "Busy", TimeZone: "UTC"},
		Duties: []plan.Duty{
			{ID: "motion", Name: "Motion only", Event: &plan.Event{Stream: plan.Main, On: []plan.Trigger{plan.Motion}}},
			{ID: "clock", Name: "Round the clock", Base: &plan.Base{Stream: plan.Main}},
		},
		Activities: []plan.Activity{{ID: "a", Name: "Carts", Known: "surveyed", MeanSeconds: 20,
			OtherwisePerHour: 100000 / 168.0 / float64(channels)}},
		Recorders: []plan.Recorder{{ID: "r", Name: "R", Channels: 5000, IngestMbps: 5000,
			Pools: []plan.Pool{{ID: "p", Name: "P", Layout: "span", Drives: []plan.DriveGroup{{Count: 40, Terabytes: 10}}}}}},
	}
	for i := range channels {
		id := string(rune('a'+i%26)) + string(rune('a'+i/26%26)) + string(rune('a'+i/676))
		p.Channels = append(p.Channels, plan.Channel{
			ID: id, Number: i + 1, Name: id, Recorder: "r", Pool: "p", PreSeconds: 5, PostSeconds: 20, Activity: "a",
			Detection: plan.Detection{On: true},
			Streams: plan.Streams{Main: &plan.Stream{Codec: "h265", Width: 1920, Height: 1080, FPS: 12, GOPSeconds: 2,
				Rate: plan.Rate{Kind: "constant", Kbps: 2000, Known: "datasheet"}}},
			Week: plan.WeekRef{Own: &plan.OwnWeek{Otherwise: "motion",
				Blocks: []plan.DutyBlock{{Hours: plan.Hours{From: 480, To: 1080}, Duty: "clock"}}}},
		})
	}
	return p
}

// BenchmarkWeek plays a week of 192 channels with 100,000 events.
func BenchmarkWeek(b *testing.B) {
	site := estimate.Figures(busy(192), nil)
	n := 0
	for b.Loop() {
		r, err := Play(context.Background(), site, Ask{From: week.Date{Year: 2026, Month: 6, Day: 1}, Days: 7, Seed: 1})
		if err != nil {
			b.Fatal(err)
		}
		n = len(r.Events)
	}
	b.ReportMetric(float64(n), "events")
}
