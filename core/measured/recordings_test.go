package measured

import (
	"context"
	"slices"
	"testing"
	"time"

	"wakefield.example/core/activity"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
	"wakefield.example/core/rehearse"
	"wakefield.example/core/week"
)

// recordedOut plays what is true at a site, and tells what a recorder's list of recordings would.
func recordedOut(t *testing.T, truth *plan.Plan, days int) (logs []Log) {
	t.Helper()
	est := estimate.Figures(truth, nil)
	events := make([][]activity.Event, len(truth.Channels))
	for from := 0; from < days; from += 7 {
		date := october.Add(from)
		r, err := rehearse.Play(context.Background(), est, rehearse.Ask{From: date, Days: 7, Seed: uint64(60 + from)})
		if err != nil {
			t.Fatal(err)
		}
		for i, list := range r.Segments {
			for _, s := range list {
				if !s.Event || s.From <= 0 || s.From >= r.Length { // one that went on at midnight is cut there
					continue
				}
				start := date.At(0, time.UTC).Add(time.Duration(s.From) * time.Millisecond)
				events[i] = append(events[i], activity.Event{Start: start, Seconds: float64(s.To-s.From) / 1000})
			}
		}
	}
	for i, list := range events {
		if len(list) > 0 {
			logs = append(logs, Digest(truth.Channels[i].ID, Recordings, list, october, days, time.UTC))
		}
	}
	return logs
}

// TestRecordingsThatAreJoinedAreNotCalledFewer compares what a recorder joins, of events alone and in groups, with how many the plan
// has of it, and how long they are.
func TestRecordingsThatAreJoinedAreNotCalledFewer(t *testing.T) {
	p := yard()
	est := estimate.Run(p, nil)
	c := comparisonOf(t, est, &Data{Logs: recordedOut(t, p, 28)})
	if len(c.seen) < 5 {
		t.Fatal(len(c.seen))
	}
	for _, s := range c.seen {
		planned, _ := s.lines()
		if ratio := s.counted() / planned; ratio < 0.88 || ratio > 1.12 {
			t.Errorf("%s: %.0f recordings, the plan has %.0f", c.name(s.channel), s.counted(), planned)
		}
		lasts := s.lasts(s.stated(), s.thick(max(0, s.main())), s.asStated())
		if mean := s.log.Seconds / float64(s.log.Lengths); mean/lasts < 0.8 || mean/lasts > 1.25 {
			t.Errorf("%s: a recording lasts %.0f s, by the plan %.0f s", c.name(s.channel), mean, lasts)
		}
	}
	r := compared(t, est, &Data{Logs: recordedOut(t, p, 28)})
	for _, f := range r.Figures {
		if f.MoreThanChance {
			t.Errorf("%s of %s is called different: planned %.3g, found %.3g", f.Kind, f.Name, f.Planned, f.Found)
		}
	}
}

// TestSecondsAreToldByTheShortestRecording lets a recorder keep ten seconds more after an event than planned.
func TestSecondsAreToldByTheShortestRecording(t *testing.T) {
	truth := yard()
	truth.Channels[2].PostSeconds = 30
	r := compared(t, estimate.Run(yard(), nil), &Data{Logs: recordedOut(t, truth, 28)})
	told := false
	for _, f := range r.Figures {
		if f.Kind != KindSeconds || !f.MoreThanChance {
			continue
		}
		told = true
		if f.ID != "door" || f.Found < 34 || f.Found > 36.5 || f.Planned != 25 || *f.Edits[0].SetTimes.PostSeconds != 30 {
			t.Errorf("%+v", f)
		}
	}
	if !told {
		t.Error("the seconds are not told")
	}
}

// TestALogOfAChannelAtWhichNothingIsPlanned compares what nobody expects, offers no edit for it, and goes on.
func TestALogOfAChannelAtWhichNothingIsPlanned(t *testing.T) {
	p := plantest.Read(t, "../../internal/demo/pennywhistle-quay.json")
	p.Channels = slices.Clone(p.Channels)
	c := &p.Channels[5]
	c.Activity, c.Nuisance = "never", ""
	p.Activities = append(slices.Clone(p.Activities), plan.Activity{ID: "never", Name: "Never", Known: "guess", MeanSeconds: 9})
	p.Effects = nil
	counts := make([]int, 24*14)
	for h := range counts {
		counts[h] = 3
	}
	data := Data{Logs: []Log{{Channel: c.ID, Kind: Triggers, From: week.Date{Year: 2026, Month: 11, Day: 2}, Days: 14, Counts: counts}}}
	r, err := Of(t.Context(), estimate.Run(p, nil), &data)
	if err != nil || len(r.Figures) == 0 || len(r.Figures[0].Edits) > 0 {
		t.Errorf("%+v, %v", r, err)
	}
}
