package demo

import (
	"context"
	_ "embed"
	"encoding/json"
	"math"
	"math/rand/v2"
	"slices"
	"time"

	"wakefield.example/core/activity"
	"wakefield.example/core/estimate"
	"wakefield.example/core/measured"
	"wakefield.example/core/plan"
	"wakefield.example/core/rehearse"
	"wakefield.example/core/resolve"
	"wakefield.example/core/week"
)

//go:embed pennywhistle-found.json
var pennywhistleFound []byte

// QuayFrom is the first date of what was found at Pennywhistle Quay, and QuayDays how many there are.
var QuayFrom = week.Date{Year: 2026, Month: 10, Day: 5}

const QuayDays = 42

// QuayTruth is what is true of Pennywhistle Quay, other than planned: waves are more, the vehicle lanes cost more while something
// moves, more board at a time, and the recorder keeps more seconds of the kiosk.
func QuayTruth() *plan.Plan {
	p := PennywhistleQuay()
	for k := range p.Activities {
		switch a := &p.Activities[k]; a.ID {
		case "waves":
			a.SetRates(week.Map(a.Rates(), func(r float64) float64 { return 2.7 * r }))
		case "gangway":
			a.Groups = &plan.Groups{Size: 6.5, WithinSeconds: a.Groups.WithinSeconds}
		}
	}
	for i := range p.Channels {
		switch c := &p.Channels[i]; c.ID {
		case "lane-1", "lane-2":
			main := *c.Streams.Main
			main.Rate.ActiveKbps = 11900
			c.Streams.Main = &main
		case "kiosk":
			c.PostSeconds = 30
		}
	}
	return p
}

// Found is a file that was brought in of a sample site.
type Found struct {
	ID, Kind, Name string
	Data           measured.Data
}

// QuayFound is what was found at Pennywhistle Quay in six weeks, as files of it say.
func QuayFound() []Found {
	var out []Found
	if err := json.Unmarshal(pennywhistleFound, &out); err != nil {
		panic("demo: " + err.Error())
	}
	return out
}

// PlayQuay plays the six weeks out, event by event, and makes of them what files would say. It fails with the error of the context.
func PlayQuay(ctx context.Context) ([]Found, error) {
	truth := estimate.Figures(QuayTruth(), nil)
	p := truth.Plan()
	zone, err := time.LoadLocation(p.Site.TimeZone)
	if err != nil {
		return nil, err
	}
	rng := rand.New(rand.NewPCG(2026, 11))
	logs, err := playLogs(ctx, truth, zone)
	if err != nil {
		return nil, err
	}
	var rates []measured.Rates
	for i := range p.Channels {
		if c := &p.Channels[i]; !c.NoCamera && len(rates) < 12 {
			rates = append(rates, playRates(truth, i, zone, rng))
		}
	}
	return []Found{
		{"events", measured.Triggers, "events of six weeks.csv", measured.Data{Logs: logs}},
		{"bitrates", "rates", "bitrates.csv", measured.Data{Rates: rates}},
		{"settings", "settings", "settings of the recorder.csv", measured.Data{Settings: []measured.Setting{
			{Channel: "kiosk", Column: "pre", Text: "5"}, {Channel: "kiosk", Column: "post", Text: "30"},
			{Channel: "hall", Column: "pre", Text: "5"}, {Channel: "hall", Column: "post", Text: "20"}}}},
		{"oldest", "oldest", "oldest footage", measured.Data{Oldest: playOldest(truth, zone, rng)}},
	}, nil
}

// playLogs are the logs of all channels whose detection is on.
func playLogs(ctx context.Context, truth *estimate.Result, zone *time.Location) (logs []measured.Log, err error) {
	p := truth.Plan()
	events := make([][]activity.Event, len(p.Channels))
	for from := 0; from < QuayDays; from += 7 {
		date := QuayFrom.Add(from)
		r, err := rehearse.Play(ctx, truth, rehearse.Ask{From: date, Days: 7, Seed: uint64(400 + from)})
		if err != nil {
			return nil, err
		}
		for _, e := range r.Events {
			if e.Channel < 0 || e.Gate != rehearse.Passed || e.Trigger < 0 || e.Trigger >= r.Length ||
				!slices.Contains([]rehearse.Source{rehearse.Wanted, rehearse.Nuisance, rehearse.Patch}, e.Source) {
				continue
			}
			start := date.At(0, zone).Add(time.Duration(e.Trigger) * time.Millisecond).Truncate(time.Second)
			events[e.Channel] = append(events[e.Channel], activity.Event{Start: start,
				Seconds: math.Round(float64(e.End-e.Trigger) / 1000)})
		}
	}
	for i, list := range events {
		if len(list) == 0 {
			continue
		}
		slices.SortStableFunc(list, func(a, b activity.Event) int { return a.Start.Compare(b.Start) })
		logs = append(logs, measured.Digest(p.Channels[i].ID, measured.Triggers, list, QuayFrom, QuayDays, zone))
	}
	return logs, nil
}

// playRates are means of hours of one channel's main stream over two weeks.
func playRates(truth *estimate.Result, i int, zone *time.Location, rng *rand.Rand) measured.Rates {
	c := &truth.Plan().Channels[i]
	cost := resolve.Encoded(c.Streams.Main).Cost()
	moves := measured.Moving(truth, i)
	r := measured.Rates{Channel: c.ID}
	meter := 1 + 0.02*rng.NormFloat64()
	for h := range 14 * 24 {
		share := moves[h%168]
		kbps := meter * (float64(cost.Idle)*(1-share) + float64(cost.Active)*share) * (1 + 0.03*rng.NormFloat64())
		if n := c.Streams.Main.Rate.Night; n != nil && n.Steps().At(week.Minute(h%168*60)) {
			kbps *= n.Factor
		}
		r.AddRates(QuayFrom.Add(h/24).At(week.Clock(h%24*60), zone), math.Round(kbps), zone)
	}
	for k := range r.Hours {
		r.Hours[k].Squares = math.Round(r.Hours[k].Squares)
	}
	return r
}

// playOldest is the oldest footage of every channel on the day after the last.
func playOldest(truth *estimate.Result, zone *time.Location, rng *rand.Rand) (out []measured.Oldest) {
	on := QuayFrom.Add(QuayDays).At(12*60, zone)
	for i := range truth.Plan().Channels {
		days := truth.Channels[i].RetentionDays
		if truth.Plan().Channels[i].NoCamera || days == nil {
			continue
		}
		back := on.Add(-time.Duration(*days * (1 + 0.004*rng.NormFloat64()) * float64(24*time.Hour))).Truncate(time.Minute)
		out = append(out, measured.Oldest{Channel: truth.Plan().Channels[i].ID, On: on, Oldest: back, Within: 1.0 / 24})
	}
	return out
}
