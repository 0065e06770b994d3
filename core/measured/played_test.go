package measured

import (
	"context"
	"math"
	"math/rand/v2"
	"slices"
	"testing"
	"time"

	"wakefield.example/core/activity"
	"wakefield.example/core/estimate"
	"wakefield.example/core/rehearse"
	"wakefield.example/core/resolve"
	"wakefield.example/core/week"
)

var october = week.Date{Year: 2026, Month: 10, Day: 5}

// playOut plays what is true at a site, event by event, and tells what logs of it would.
func playOut(t testing.TB, truth *estimate.Result, days int, seed uint64) (logs []Log) {
	t.Helper()
	p := truth.Plan()
	zone, err := time.LoadLocation(p.Site.TimeZone)
	if err != nil {
		t.Fatal(err)
	}
	events := make([][]activity.Event, len(p.Channels))
	for from := 0; from < days; from += 7 {
		date := october.Add(from)
		r, err := rehearse.Play(context.Background(), truth, rehearse.Ask{From: date, Days: min(7, days-from), Seed: seed + uint64(from)})
		if err != nil {
			t.Fatal(err)
		}
		midnight := date.At(0, zone)
		for _, e := range r.Events {
			if e.Channel < 0 || e.Gate != rehearse.Passed || e.Trigger < 0 || e.Trigger >= r.Length {
				continue
			}
			switch e.Source {
			case rehearse.Wanted, rehearse.Nuisance, rehearse.Patch:
				events[e.Channel] = append(events[e.Channel], activity.Event{Start: midnight.Add(time.Duration(e.Trigger) * time.Millisecond),
					Seconds: float64(e.End-e.Trigger) / 1000})
			}
		}
	}
	for i, list := range events {
		if p.Channels[i].NoCamera || !p.Channels[i].Detection.On {
			continue
		}
		sortEvents(list)
		logs = append(logs, Digest(p.Channels[i].ID, Triggers, list, october, days, zone))
	}
	return logs
}

// meterOut reads bitrates of the main streams for a week, each with an error of its own: of what moved in each hour, by its log.
func meterOut(truth *estimate.Result, logs []Log, rng *rand.Rand) (out []Rates) {
	for i := range truth.Plan().Channels {
		c := &truth.Plan().Channels[i]
		at := slices.IndexFunc(logs, func(l Log) bool { return l.Channel == c.ID })
		if c.NoCamera || c.Streams.Main == nil || at < 0 {
			continue
		}
		s := look(truth.Site(), &logs[at], i, time.UTC)
		cost := resolve.Encoded(c.Streams.Main).Cost()
		off := math.Exp(math.Log(meterOff) / 1.2816 * rng.NormFloat64())
		r := Rates{Channel: c.ID}
		covers := make([]float64, len(s.from))
		for k := range s.from {
			f := &s.from[k]
			covers[k] = f.mean * union(f.Group, 0, f.mean) / 3600 * math.Exp(f.least/f.mean)
		}
		for h := range hoursOfWeek {
			busy := 0.0
			for k := range s.from {
				if s.all(h) > 0 { // its part of what was counted, and what was too short to be
					busy += float64(s.log.Counts[h]) * s.expected(k, h) / s.all(h) * covers[k]
				}
			}
			share := -math.Expm1(-busy)
			kbps := off * (float64(cost.Idle)*(1-share) + float64(cost.Active)*share) * (1 + 0.02*rng.NormFloat64())
			r.AddRates(october.Add(h/24).At(week.Clock(h%24*60), time.UTC), kbps, time.UTC)
		}
		out = append(out, r)
	}
	return out
}

// ageOut looks for the oldest footage of every channel.
func ageOut(truth *estimate.Result, rng *rand.Rand) (out []Oldest) {
	off := make(map[string]float64)
	for k := range truth.Pools {
		off[truth.Pools[k].ID] = math.Exp(daysOff * rng.NormFloat64())
	}
	on := october.Add(42).At(720, time.UTC)
	for i := range truth.Plan().Channels {
		c := &truth.Plan().Channels[i]
		days := truth.Channels[i].RetentionDays
		if c.NoCamera || days == nil {
			continue
		}
		out = append(out, Oldest{c.ID, on, on.Add(-time.Duration(*days * off[c.Pool] * float64(24*time.Hour))), 0.04})
	}
	return out
}

func compared(t testing.TB, est *estimate.Result, d *Data) *Result {
	t.Helper()
	r, err := Of(context.Background(), est, d)
	if err != nil {
		t.Fatal(err)
	}
	return r
}
