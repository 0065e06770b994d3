package measured

import (
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"
	"time"

	"wakefield.example/core/activity"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
	"wakefield.example/core/week"
)

// heard are logs, bitrates and the oldest footage of a site of which nothing is quite as planned: each channel has events at a rate
// of its own, by day more, some of them in pairs; one has a day without any, and of recordings every other day has three times as many.
func heard(p *plan.Plan, days int) *Data {
	rng := rand.New(rand.NewPCG(21, 7))
	d := &Data{}
	for i := range p.Channels {
		c := &p.Channels[i]
		if c.NoCamera {
			continue
		}
		var events []activity.Event
		for h := range days * 24 {
			rate := 1 + float64(i%3)
			if h%24 >= 7 && h%24 < 19 {
				rate *= 6
			}
			switch {
			case i == 1 && h/24 == 5:
				rate = 0
			case i%4 == 1 && h/24%2 == 0:
				rate *= 3
			}
			for at := rng.ExpFloat64() / rate; at < 1; at += rng.ExpFloat64() / rate {
				start := october.At(0, time.UTC).Add(time.Duration((float64(h) + at) * float64(time.Hour)))
				events = append(events, activity.Event{Start: start, Seconds: 4 + 20*rng.ExpFloat64()})
				if i%2 == 0 && rng.Float64() < 0.4 {
					events = append(events, activity.Event{Start: start.Add(25 * time.Second), Seconds: 6})
				}
			}
		}
		sortEvents(events)
		kind := Triggers
		if i%4 == 1 {
			kind = Recordings
		}
		d.Logs = append(d.Logs, Digest(c.ID, kind, events, october, days, time.UTC))
		r := Rates{Channel: c.ID}
		for h := range 7 * 24 {
			kbps := 1500.0 + 100*float64(i)
			if h%24 >= 7 && h%24 < 19 {
				kbps *= 1.5
			}
			r.AddRates(october.Add(h/24).At(week.Clock(h%24*60), time.UTC), kbps*(1+0.1*rng.NormFloat64()), time.UTC)
		}
		d.Rates = append(d.Rates, r)
		on := october.Add(40).At(720, time.UTC)
		d.Oldest = append(d.Oldest, Oldest{c.ID, on, on.Add(-time.Duration(20+i) * 24 * time.Hour), 0.5})
	}
	return d
}

// TestWhatIsFound holds all that is made of logs, bitrates and the oldest footage of several plans to four digits, and all that
// is said of events that are not there or should not be.
func TestWhatIsFound(t *testing.T) {
	dark := yard()
	night := plan.HourList{Blocks: []plan.Hours{{From: 20 * 60, To: 6 * 60}}}
	for i := range dark.Channels {
		if s := dark.Channels[i].Streams.Main; i%2 == 0 {
			s.Rate.Night = &plan.Night{Hours: night, Factor: 1.6}
		}
	}
	var text strings.Builder
	samples := append([]plantest.Sample{{Name: "yard", Plan: yard()}, {Name: "dark yard", Plan: dark}}, plantest.Samples(t)[:3]...)
	var sums []Summary
	for _, s := range samples {
		est := estimate.Run(s.Plan, nil)
		found := compared(t, est, heard(s.Plan, 14))
		sums = append(sums, Sum(est, found))
		text.WriteString(plantest.Figures(t, sums[len(sums)-1]))
		fmt.Fprintf(&text, "%s\n%s%s", s.Name, plantest.Figures(t, found), plantest.Figures(t, Together(s.Plan, found.Figures)))
		for _, about := range []Told{{Minute: 9 * 60, Seconds: 15, AgeDays: 3}, {Minute: 26 * 60, AgeDays: 45}} {
			about.Channel = s.Plan.Channels[1].ID
			missed, err := Missed(t.Context(), est, about)
			if err != nil {
				t.Fatal(err)
			}
			fmt.Fprintf(&text, "missed\n%sunwanted\n%s", plantest.Figures(t, missed), plantest.Figures(t, Unwanted(est, about)))
		}
	}
	right := RightOf(sums)
	learns := yard()
	learned := right.Learned(learns)
	fmt.Fprintf(&text, "right\n%slearned\n%s%s", plantest.Figures(t, right), plantest.Figures(t, learned),
		plantest.Figures(t, learns.Activities))
	plantest.Said(t, "found", text.String())
}
