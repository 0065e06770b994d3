package demo

import (
	"fmt"

	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// SaltmarshTramDepot is the large sample: 192 channels on six recorders.
func SaltmarshTramDepot() *plan.Plan {
	quay := PennywhistleQuay()
	p := &plan.Plan{
		Format: plan.Format,
		Name:   "Outline",
		Site:   plan.Site{Name: "Saltmarsh Tram Depot", Customer: "Saltmarsh Light Railway", TimeZone: "Europe/London"},
		Duties: quay.Duties,
	}
	weekdays := []week.Weekday{week.Monday, week.Tuesday, week.Wednesday, week.Thursday, week.Friday}
	hours := func(days []week.Weekday, from, to int) plan.Hours {
		return plan.Hours{Days: days, From: week.Clock(from * 60), To: week.Clock(to * 60)}
	}
	p.Weeks = []plan.Week{
		{ID: "traffic", Name: "Traffic hours", OwnWeek: plan.OwnWeek{Otherwise: "motion", Blocks: []plan.DutyBlock{
			{Hours: hours(nil, 4, 8), Duty: "low"}, {Hours: hours(nil, 19, 1), Duty: "low"}}}},
		{ID: "shop", Name: "Workshop hours", OwnWeek: plan.OwnWeek{Otherwise: "motion", Blocks: []plan.DutyBlock{
			{Hours: hours(weekdays, 6, 22), Duty: "keyframes"}}}},
		{ID: "quiet", Name: "Motion, all week", OwnWeek: plan.OwnWeek{Otherwise: "motion"}},
	}
	rates := func(pairs ...plan.RateBlock) []plan.RateBlock { return pairs }
	p.Activities = []plan.Activity{
		{ID: "trams", Name: "Trams in and out", Known: "surveyed", Groups: &plan.Groups{Size: 1.5, WithinSeconds: 120}, MeanSeconds: 55,
			OtherwisePerHour: 0.5, Blocks: rates(
				plan.RateBlock{Hours: hours(nil, 4, 8), PerHour: 26}, plan.RateBlock{Hours: hours(nil, 8, 19), PerHour: 7},
				plan.RateBlock{Hours: hours(nil, 19, 1), PerHour: 21})},
		{ID: "hands", Name: "Fitters at work", Known: "guess", Groups: &plan.Groups{Size: 2, WithinSeconds: 180}, MeanSeconds: 140,
			OtherwisePerHour: 0.2, Blocks: rates(
				plan.RateBlock{Hours: hours(weekdays, 6, 14), PerHour: 12}, plan.RateBlock{Hours: hours(weekdays, 14, 22), PerHour: 9})},
		{ID: "yard", Name: "Staff in the yard", Known: "guess", Groups: &plan.Groups{Size: 3, WithinSeconds: 90}, MeanSeconds: 40,
			OtherwisePerHour: 1, Blocks: rates(
				plan.RateBlock{Hours: hours(nil, 4, 7), PerHour: 18}, plan.RateBlock{Hours: hours(nil, 13, 15), PerHour: 15})},
		{ID: "reeds", Name: "Wind in the reeds", Known: "guess", MeanSeconds: 10, OtherwisePerHour: 5},
	}
	guessed := plan.GuessedReliability
	areas := []struct{ group, camera, activity, nuisance, week string }{
		{"Fan", "Points", "trams", "", "traffic"},
		{"Sheds", "Shed road", "trams", "", "traffic"},
		{"Workshop", "Pit", "hands", "", "shop"},
		{"Stores", "Aisle", "hands", "", "quiet"},
		{"Yard", "Yard", "yard", "reeds", "quiet"},
		{"Fence", "Fence post", "yard", "reeds", "quiet"},
	}
	for r, area := range areas {
		recorder := fmt.Sprintf("nvr-%d", r+1)
		pool := fmt.Sprintf("array-%d", r+1)
		p.Recorders = append(p.Recorders, plan.Recorder{
			ID: recorder, Name: fmt.Sprintf("Recorder %d, %s", r+1, area.group), Channels: 32, IngestMbps: 256, PreSecondsLimit: 30,
			Pools: []plan.Pool{{ID: pool, Name: fmt.Sprintf("Array %d", r+1), Layout: "raid6",
				Drives: []plan.DriveGroup{{Count: 8, Terabytes: 2, YearlyTB: 180}}, HotSpares: 1, ReservePercent: 5}},
		})
		for n := range 32 {
			step := float64(n%4) * 150
			p.Channels = append(p.Channels, plan.Channel{
				ID: fmt.Sprintf("c%d-%d", r+1, n+1), Number: n + 1, Name: fmt.Sprintf("%s %d", area.camera, n+1), Group: area.group,
				Recorder: recorder, Pool: pool,
				Streams: plan.Streams{
					Main: &plan.Stream{Codec: "h265", Width: 2688, Height: 1520, FPS: 15, GOPSeconds: 2,
						Rate: plan.Rate{Kind: "variable", IdleKbps: 1200 + step, ActiveKbps: 3600 + 2*step, Known: "datasheet"}},
					Sub: &plan.Stream{Codec: "h264", Width: 704, Height: 576, FPS: 8, GOPSeconds: 2,
						Rate: plan.Rate{Kind: "constant", Kbps: 384, Known: "datasheet"}},
				},
				PreSeconds: 5, PostSeconds: 20, Activity: area.activity, Nuisance: area.nuisance,
				Detection: plan.Detection{On: true, By: "camera", MinSeconds: 1, Reliability: &guessed},
				Keep:      plan.Keep{AtLeastDays: 30},
				Week:      plan.WeekRef{Named: area.week},
			})
		}
	}
	return p
}
