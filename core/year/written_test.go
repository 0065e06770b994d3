package year

import (
	"context"
	"math"
	"reflect"
	"slices"
	"testing"
	"time"

	"wakefield.example/core/effect"
	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
	"wakefield.example/core/resolve"
	"wakefield.example/core/storage"
	"wakefield.example/core/week"
)

// followed is a plan as it is followed, on pools of so many terabytes.
func followed(t *testing.T, p *plan.Plan, terabytes float64) *Site {
	t.Helper()
	site := resolve.Of(p, nil)
	s := &Site{Site: site, Stills: make([]*effect.Stills, len(p.Channels))}
	for i := range p.Channels {
		in := &site.Inputs[i]
		s.Played = append(s.Played, resolve.NewPlayed(in, in.Play(nil)))
	}
	for _, r := range p.Recorders {
		for range r.Pools {
			s.Pools = append(s.Pools, Pool{storage.Bytes(terabytes) * storage.TB, 10})
		}
	}
	return s
}

// TestWhatIsWrittenAddsUp adds a week, its days and their halves, and holds them against the hours of an ordinary week.
func TestWhatIsWrittenAddsUp(t *testing.T) {
	p := plantest.Read(t, "../estimate/testdata/plans/boats.json")
	p.Site.TimeZone, p.Site.SpecialDays = "Europe/Dublin", nil
	s := followed(t, p, 1)
	zone, err := time.LoadLocation(p.Site.TimeZone)
	if err != nil {
		t.Fatal(err)
	}
	monday := time.Date(2026, 11, 23, 0, 0, 0, 0, zone)
	written := func(from, to time.Time, eventsOnly bool) storage.Bytes {
		t.Helper()
		list, err := s.Written([]int{0}, from, to, eventsOnly)
		if err != nil {
			t.Fatal(err)
		}
		return list[0]
	}
	same := func(what string, got, want storage.Bytes) {
		t.Helper()
		if math.Abs(float64(got/want)-1) > 1e-9 {
			t.Errorf("%s: %.0f, want %.0f", what, got, want)
		}
	}
	hours := s.Played[0].Hourly
	all := storage.Bytes(0)
	for _, b := range hours {
		all += b
	}
	same("a week", written(monday, monday.AddDate(0, 0, 7), false), all)
	same("an hour", written(monday.Add(30*time.Hour), monday.Add(31*time.Hour), false), hours[30])
	same("half of one and half of the next", written(monday.Add(30*time.Hour+30*time.Minute), monday.Add(31*time.Hour+30*time.Minute), false),
		(hours[30]+hours[31])/2)
	if events := written(monday, monday.AddDate(0, 0, 7), true); events <= 0 || events > all*(1+1e-9) {
		t.Errorf("events alone write %.0f of %.0f", events, all)
	}
	// The night on which an hour comes twice has 25 hours, the hour from one to two twice.
	night := time.Date(2026, 10, 25, 0, 0, 0, 0, zone)
	day := storage.Bytes(0)
	for h := 144; h < 168; h++ {
		day += hours[h]
	}
	same("the day of 25 hours", written(night, night.AddDate(0, 0, 1), false), day+hours[145])
	for what, to := range map[string]time.Time{"nothing": monday, "backwards": monday.Add(-time.Hour),
		"too long": monday.Add(LongestStretch + time.Hour)} {
		if _, err := s.Written([]int{0}, monday, to, false); err == nil {
			t.Errorf("%s is added up", what)
		}
	}
}

// TestAHighSeasonIsFelt follows a year in which ten days have twice as much happening.
func TestAHighSeasonIsFelt(t *testing.T) {
	p := plantest.Read(t, "../estimate/testdata/plans/boats.json")
	p.Site.SpecialDays = nil
	calm := followed(t, p, 0.5)
	from := week.Date{Year: 2027, Month: time.January, Day: 1}
	without, err := calm.Follow(context.Background(), from)
	if err != nil {
		t.Fatal(err)
	}
	twice, last := 2.0, week.Date{Year: 2027, Month: time.June, Day: 10}
	p.Site.SpecialDays = []plan.SpecialDay{{Name: "Regatta", From: week.Date{Year: 2027, Month: time.June,
		Day: 1}, To: last, RateFactor: &twice}}
	busy := followed(t, p, 0.5)
	with, err := busy.Follow(context.Background(), from)
	if err != nil || with.WorstDays == nil || without.WorstDays == nil {
		t.Fatalf("%+v, %v", with, err)
	}
	if *with.WorstDays >= *without.WorstDays || with.Name != "Regatta" || with.WorstDate == nil || with.WorstDate.Month != time.June {
		t.Errorf("%v days at worst, on %v (%s); %v without it", *with.WorstDays, with.WorstDate, with.Name, *without.WorstDays)
	}
	if n := len(with.Pools[0].Days); n != 365 {
		t.Errorf("%d dates", n)
	}
	if _, err := busy.Follow(context.Background(), week.Date{Year: 1969, Month: time.January, Day: 1}); err == nil {
		t.Error("a year before 1970 is followed")
	}
	gone, cancel := context.WithCancel(context.Background())
	cancel()
	if _, err := busy.Follow(gone, from); err != context.Canceled {
		t.Error(err)
	}
}

// TestAYearAfterAChangeIsThatYear changes one channel after another, and what all hear of, and follows the year with and
// without what was found before: a stream that only a special day's week writes is no exception.
func TestAYearAfterAChangeIsThatYear(t *testing.T) {
	p := plantest.Read(t, "../estimate/testdata/plans/boats.json")
	twice := 2.0
	low := plan.Duty{ID: "sub-only", Name: "Sub only", Base: &plan.Base{Stream: plan.Sub}}
	p.Duties = append(p.Duties, low, plan.Duty{ID: "main-only", Name: "Main only", Base: &plan.Base{Stream: plan.Main}})
	p.Channels[0].Week = plan.WeekRef{Own: &plan.OwnWeek{Otherwise: "main-only"}}
	sub := *p.Channels[0].Streams.Main
	sub.Rate = plan.Rate{Kind: "constant", Kbps: 400, Known: "datasheet"}
	p.Channels[0].Streams.Sub = &sub
	p.Weeks = append(p.Weeks, plan.Week{ID: "feast", Name: "Feast", OwnWeek: plan.OwnWeek{Otherwise: low.ID}})
	p.Site.SpecialDays = []plan.SpecialDay{
		{Name: "Feast", From: week.Date{Year: 2027, Month: time.June, Day: 1}, To: week.Date{Year: 2027, Month: time.June, Day: 20},
			Week: "feast"},
		{Name: "Regatta", From: week.Date{Year: 2027, Month: time.August, Day: 1}, To: week.Date{Year: 2027, Month: time.August, Day: 9},
			RateFactor: &twice},
	}
	from := week.Date{Year: 2027, Month: time.January, Day: 1}
	year := func(s *Site) *Year {
		t.Helper()
		y, err := s.Follow(context.Background(), from)
		if err != nil {
			t.Fatal(err)
		}
		return y
	}
	before := followed(t, p, 0.5)
	was := year(before)
	changes := map[string]func(q *plan.Plan){
		"a stream of the feast alone": func(q *plan.Plan) {
			more := sub
			more.Rate.Kbps = 30000
			q.Channels[0].Streams.Sub = &more
		},
		"seconds after an event": func(q *plan.Plan) { q.Channels[0].PostSeconds += 30 },
		"a name":                 func(q *plan.Plan) { q.Channels[0].Name += "!" },
		"what happens": func(q *plan.Plan) {
			q.Activities = slices.Clone(q.Activities)
			q.Activities[0].OtherwisePerHour += 30
		},
		"the feast's week": func(q *plan.Plan) {
			q.Weeks = slices.Clone(q.Weeks)
			q.Weeks[len(q.Weeks)-1].Otherwise = q.Duties[0].ID
		},
	}
	different := 0
	for what, change := range changes {
		q := *p
		q.Channels = slices.Clone(p.Channels)
		change(&q)
		site := resolve.Of(&q, before.Site)
		s := &Site{Site: site, Stills: before.Stills, Pools: before.Pools}
		for i := range q.Channels {
			played := before.Played[i]
			if !site.Inputs[i].Equal(&before.Site.Inputs[i]) {
				played = resolve.NewPlayed(&site.Inputs[i], site.Inputs[i].Play(nil))
			}
			s.Played = append(s.Played, played)
		}
		anew := year(&Site{Site: site, Stills: s.Stills, Pools: s.Pools, Played: s.Played})
		if got := year(s.After(before)); !reflect.DeepEqual(got, anew) {
			t.Errorf("%s: %+v after what was before, %+v anew", what, got.WorstDays, anew.WorstDays)
		}
		if !reflect.DeepEqual(anew, was) {
			different++
		}
	}
	if different != len(changes)-1 {
		t.Errorf("%d changes are felt in the year", different)
	}
}
