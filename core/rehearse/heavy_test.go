package rehearse

import (
	"context"
	"errors"
	"fmt"
	"testing"

	"wakefield.example/core/estimate"
	"wakefield.example/core/looked"
	"wakefield.example/core/plan"
)

// crowded is a plan in which one contact records all channels so often, for so long each time.
func crowded(channels int, perHour, post float64) *plan.Plan {
	p := busy(channels)
	p.Activities = append(p.Activities, plan.Activity{ID: "crowd", Name: "Crowd", Known: "guess", MeanSeconds: 5, OtherwisePerHour: perHour})
	p.AlarmInputs = append(p.AlarmInputs, plan.AlarmInput{ID: "gate", Name: "Gate", Recorder: p.Recorders[0].ID, Activity: "crowd",
		Contact: "normallyOpen"})
	tie := plan.Effect{When: plan.When{Alarm: "gate"}}
	for i := range p.Channels {
		p.Channels[i].AlarmPostSeconds = &post
		tie.Record = append(tie.Record, p.Channels[i].ID)
	}
	p.Effects = append(p.Effects, tie)
	return p
}

// TestWhatIsTooMuchIsRefusedBeforeItIsPlayed asks for weeks that nobody could wait for. The bound holds for the odds of a
// moment too, and days that are said to be possible are.
func TestWhatIsTooMuchIsRefusedBeforeItIsPlayed(t *testing.T) {
	for name, p := range map[string]*plan.Plan{"holds": crowded(100, 1310, 30), "events": crowded(1, 200_000, 30),
		"held for hours": crowded(20, 400, 3600)} {
		site := estimate.Figures(p, nil)
		ask := Ask{From: june, Days: 7, Seed: 1}
		many := new(TooManyError)
		nobodyWaits, stop := context.WithCancel(context.Background()) // what plays ends with it, and says so
		stop()
		if _, err := Play(nobodyWaits, site, ask); !errors.As(err, &many) {
			t.Errorf("%s: %v", name, err)
			continue
		}
		if many.Days > 0 {
			ask.Days = many.Days
			if _, err := Play(context.Background(), site, ask); err != nil {
				t.Errorf("%s, on %d days: %v", name, ask.Days, err)
			}
		}
		if _, err := OddsOf(context.Background(), site, Ask{From: june, Days: 14, Seed: 1}, 0, 0, 0); name == "events" && !errors.As(err, &many) {
			t.Errorf("%s: odds: %v", name, err)
		}
	}
	// Where two hundred would be too many, fewer are played, and said.
	o, err := OddsOf(context.Background(), estimate.Figures(crowded(1, 300, 30), nil), Ask{From: june, Days: 1, Seed: 1}, 0, Hour, Hour)
	if err != nil || o.Rehearsals < leastOdds || o.Rehearsals >= mostOdds || o.Full+o.Low+o.Gone != o.Rehearsals {
		t.Errorf("%+v, %v", o, err)
	}
}

// TestARehearsalStopsWhenNobodyWaits ends the context in the midst of one.
func TestARehearsalStopsWhenNobodyWaits(t *testing.T) {
	site := estimate.Figures(crowded(20, 200, 30), nil)
	for after := range 5 {
		looks := looked.At(1 << (2 * after))
		if _, err := Play(looks, site, Ask{From: june, Days: 7, Seed: 1}); !errors.Is(err, context.Canceled) {
			t.Errorf("after %d looks: %v", looks.Times(), err)
		}
	}
}

// BenchmarkMost plays what is played at most.
func BenchmarkMost(b *testing.B) {
	for _, test := range []struct {
		channels int
		perHour  float64
		post     float64
	}{{100, 120, 30}, {20, 20, 3600}, {1, 900, 30}} {
		site := estimate.Figures(crowded(test.channels, test.perHour, test.post), nil)
		b.Run(fmt.Sprint(test), func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				r, err := Play(context.Background(), site, Ask{From: june, Days: 7, Seed: 1})
				if err != nil {
					b.Fatal(err)
				}
				n := 0
				for _, list := range r.Segments {
					for _, s := range list {
						n += len(s.Causes)
					}
				}
				b.ReportMetric(float64(n), "causes")
				b.ReportMetric(float64(len(r.Events)), "events")
			}
		})
	}
}
