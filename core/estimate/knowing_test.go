package estimate

import (
	"context"
	"testing"

	"wakefield.example/core/plan"
)

// TestWhatIsWorthKnowing asks what to measure on a site of which one camera writes most by
// far, at a bitrate that is a guess.
func TestWhatIsWorthKnowing(t *testing.T) {
	p := depot(32)
	for i := range p.Channels {
		p.Channels[i].Streams.Main.Rate.Known = "measured"
	}
	heavy := *p.Channels[3].Streams.Main
	heavy.Rate = plan.Rate{Kind: "constant", Kbps: 60_000, Known: "guess"}
	p.Channels[3].Streams.Main = &heavy
	p.Duties = append(p.Duties, plan.Duty{ID: "always", Name: "Always", Base: &plan.Base{Stream: "main"}})
	p.Channels[3].Week = plan.WeekRef{Own: &plan.OwnWeek{Otherwise: "always"}}
	if err := p.Check(); err != nil {
		t.Fatal(err)
	}
	s := Run(p, nil)
	unknown, err := s.Knowing(context.Background())
	if err != nil || len(unknown) == 0 {
		t.Fatalf("%v, %v", unknown, err)
	}
	if first := unknown[0]; first.Kind != "bitrate" || first.ID != p.Channels[3].ID || first.Name != p.Channels[3].Name ||
		first.NarrowerDays < 1 {
		t.Errorf("first of all %+v", unknown[:min(3, len(unknown))])
	}
	for i, u := range unknown {
		if u.NarrowerDays < 0.05 || i > 0 && u.NarrowerDays > unknown[i-1].NarrowerDays {
			t.Errorf("%d: %+v", i, u)
		}
		if u.Kind == "bitrate" && u.ID != p.Channels[3].ID && p.Channel(u.ID).Streams.Sub == nil {
			t.Errorf("%s is measured already", u.ID)
		}
	}
	kinds := map[string]int{}
	for _, u := range unknown {
		kinds[u.Kind]++
		if u.Kind != "bitrate" && (p.Activity(u.ID) == nil || p.Activity(u.ID).Known == "measured") {
			t.Errorf("%+v is no activity that could be measured", u)
		}
	}
	// At a bitrate that is certain, what happens is what is not known.
	p.Channels[3].Week = p.Channels[2].Week
	known, err := Run(p, nil).Knowing(context.Background())
	activities := 0
	for _, u := range known {
		if u.Kind == "activity" && p.Activity(u.ID).Known != "measured" {
			activities++
		}
	}
	if err != nil || activities == 0 {
		t.Errorf("%+v, %v; before %v", known, err, kinds)
	}
	gone, cancel := context.WithCancel(context.Background())
	cancel()
	if _, err := s.Knowing(gone); err != context.Canceled {
		t.Errorf("%v", err)
	}
}

// TestWhatIsNoticedIsWorthKnowing says that reliabilities are guesses, and then that they were measured.
func TestWhatIsNoticedIsWorthKnowing(t *testing.T) {
	p := depot(8)
	worth := func(reliability float64) *Unknown {
		t.Helper()
		for i := range p.Channels {
			p.Channels[i].Detection.Reliability = &reliability
		}
		unknown, err := Run(p, nil).Knowing(context.Background())
		if err != nil {
			t.Fatal(err)
		}
		for _, u := range unknown {
			if u.Kind == "noticing" {
				return &u
			}
		}
		return nil
	}
	if u := worth(plan.GuessedReliability); u == nil || u.Name != "8 cameras" {
		t.Errorf("guessed: %+v", u)
	}
	if u := worth(0.9); u != nil {
		t.Errorf("stated: %+v", u)
	}
}
