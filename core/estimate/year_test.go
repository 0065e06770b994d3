package estimate

import (
	"context"
	"math"
	"slices"
	"strings"
	"testing"
	"time"

	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
	"wakefield.example/core/week"
	"wakefield.example/core/year"
)

// This file plays whole years out, date by date and event by event, and looks back on
// what is on disk at every first of a month. It shares no code with the year of the
// estimate.

func date(year int, month time.Month, day int) week.Date {
	return week.Date{Year: year, Month: month, Day: day}
}

// yearPlans are plans with special days of all kinds, their disks small enough that
// footage is overwritten within weeks.
func yearPlans(t *testing.T) map[string]*plan.Plan {
	t.Helper()
	sunday := week.Sunday
	f := func(x float64) *float64 { return &x }
	season := plan.SpecialDay{From: date(2025, 7, 10), To: date(2025, 8, 28), Name: "High season", Yearly: true, RateFactor: f(2.2)}
	closed := plan.SpecialDay{From: date(2027, 2, 1), To: date(2027, 2, 28), Name: "Closed", RateFactor: f(0)}
	asSunday := plan.SpecialDay{From: date(2027, 4, 20), To: date(2027, 5, 9), Name: "As on Sundays", UseDay: &sunday, RateFactor: f(1.3)}
	out := map[string]*plan.Plan{}
	for _, test := range []struct {
		file string
		tb   float64
		days []plan.SpecialDay
	}{
		{"testdata/plans/groups-through-every-gate.json", 0.5, []plan.SpecialDay{season, closed, asSunday}},
		{"testdata/plans/rush-hour-hall.json", 0.2, []plan.SpecialDay{season, asSunday}},
		{"testdata/landing-stage.json", 0.4, []plan.SpecialDay{closed, season}},
		{"testdata/yard-and-gate.json", 0.5, []plan.SpecialDay{season,
			{From: date(2026, 12, 20), To: date(2027, 1, 12), Name: "Another week", Week: "?"}}},
	} {
		p := plantest.Read(t, test.file)
		p.Recorders[0].Pools[0].Drives = []plan.DriveGroup{{Count: 2, Terabytes: test.tb}}
		p.Recorders[0].Pools[0].Layout = "raid1"
		for _, d := range test.days {
			if d.Week == "?" {
				d.Week = p.Weeks[0].ID
			}
			p.Site.SpecialDays = append(p.Site.SpecialDays, d)
		}
		if err := p.Check(); err != nil {
			t.Fatalf("%s: %v", test.file, err)
		}
		out[test.file] = p
	}
	return out
}

// playedYear is what all channels of the first pool write in each hour, in bytes, from a
// Monday on.
func playedYear(p *plan.Plan, monday time.Time, weeks int) []float64 {
	days := (weeks + 1) * 7
	holds := make([]*plan.SpecialDay, days)
	factor := make([]float64, days)
	for i := range days {
		factor[i] = 1
		day := monday.AddDate(0, 0, i)
		for k := range p.Site.SpecialDays {
			s := &p.Site.SpecialDays[k]
			from, to := s.From.At(0, time.UTC), s.To.At(0, time.UTC)
			if s.Yearly {
				from, to = from.AddDate(day.Year()-from.Year(), 0, 0), to.AddDate(day.Year()-from.Year(), 0, 0)
			}
			if !day.Before(from) && !day.After(to) {
				holds[i] = s
			}
		}
		if s := holds[i]; s != nil && s.RateFactor != nil {
			factor[i] = *s.RateFactor
		}
	}
	o := draw(p, weeks, 3, factor)
	hours := make([]float64, days*24)
	for i := range p.Channels {
		c := &p.Channels[i]
		if c.NoCamera {
			continue
		}
		motion, alarm := o.footage(c)
		var active []interval
		for _, h := range o.own[c.ID] {
			active = append(active, interval{h.start, h.end})
		}
		states := [4][]interval{union(motion), union(alarm), union(o.calls[c.ID]), union(active)}
		ordinary, byWeek := o.duties(c), map[string][10080]*plan.Duty{}
		dutyAt := func(minute int) *plan.Duty {
			if s := holds[minute/1440]; s != nil && s.Week != "" {
				duties, ok := byWeek[s.Week]
				if !ok {
					other := *c
					other.Week = plan.WeekRef{Named: s.Week}
					duties = o.duties(&other)
					byWeek[s.Week] = duties
				}
				return duties[minute%10080]
			} else if s != nil && s.UseDay != nil {
				return ordinary[int(*s.UseDay)*1440+minute%1440]
			}
			return ordinary[minute%10080]
		}
		layHours(o.buttons(c), c, states, dutyAt, hours)
	}
	return hours
}

// layHours adds up what a channel writes in each hour.
func layHours(buttons []plan.CallButton, c *plan.Channel, states [4][]interval, dutyAt func(int) *plan.Duty, hours []float64) {
	var cuts []float64
	for _, list := range states {
		for _, v := range list {
			cuts = append(cuts, v.from, v.to)
		}
	}
	for h := range hours {
		cuts = append(cuts, float64(h)*3600)
	}
	for m := 1; m < len(hours)*60; m++ {
		if dutyAt(m) != dutyAt(m-1) {
			cuts = append(cuts, float64(m)*60)
		}
	}
	slices.Sort(cuts)
	var at [4]int
	for i := 0; i+1 < len(cuts); i++ {
		from, to := cuts[i], cuts[i+1]
		h := int(from / 3600)
		if from < 0 || to <= from || h >= len(hours) {
			continue
		}
		middle := (from + to) / 2
		var on [4]bool
		for k, list := range states {
			for at[k] < len(list) && list[at[k]].to <= middle {
				at[k]++
			}
			on[k] = at[k] < len(list) && list[at[k]].from <= middle
		}
		d := dutyAt(min(int(middle/60), len(hours)*60-1))
		hours[h] += (to - from) * spent(c, d, on, on[2] || admitted(d, on[0], on[1]), -1, buttons) * 1000 / 8
	}
}

// TestYearsAgreeWithPlayedOnes holds the days kept at every first of a month against one
// played year, to 2 %.
func TestYearsAgreeWithPlayedOnes(t *testing.T) {
	for name, p := range yearPlans(t) {
		t.Run(name[strings.LastIndex(name, "/")+1:], func(t *testing.T) {
			t.Parallel()
			site := Figures(p, nil)
			year, err := site.Year(context.Background(), date(2027, 1, 1))
			if err != nil {
				t.Fatal(err)
			}
			back := 26 // weeks before the year
			monday := time.Date(2027, 1, 4, 0, 0, 0, 0, time.UTC).AddDate(0, 0, -7*back)
			hours := playedYear(p, monday, back+52)
			usable := site.Pools[0].UsableGB * 1e9
			seen := false
			for month := time.January; month <= time.December; month++ {
				first := time.Date(2027, month, 1, 0, 0, 0, 0, time.UTC)
				at := int(first.Sub(monday).Hours())
				// As the estimate has it: at the worst hour of the date.
				want := math.Inf(1)
				for now := at + 1; now <= at+24; now++ {
					left, h := usable, now
					for h > 0 && left > hours[h-1] {
						h--
						left -= hours[h]
					}
					want = min(want, float64(now-h)/24)
				}
				got := year.Pools[0].Days[first.YearDay()-1]
				if math.Abs(got/want-1) > 0.02+1.0/24/want {
					t.Errorf("%v: %.2f days, played %.2f", first.Format(time.DateOnly), got, want)
				}
				seen = seen || math.Abs(got/(*site.Pools[0].RetentionDays)-1) > 0.1
			}
			if !seen {
				t.Error("no date differs from the ordinary week; the test sees nothing")
			}
			if year.Pools[0].Name == "" || *year.Pools[0].WorstDays >= *site.Pools[0].WorstDays {
				t.Errorf("worst %v on %v, %s; in an ordinary week %v", *year.Pools[0].WorstDays, year.Pools[0].WorstDate, year.Pools[0].Name,
					*site.Pools[0].WorstDays)
			}
		})
	}
}

func TestAYearWithoutSpecialDaysIsTheOrdinaryWeek(t *testing.T) {
	p := plantest.Read(t, "testdata/yard-and-gate.json")
	p.Site.TimeZone = "Europe/Lisbon"
	p.Recorders[0].Pools[0].Drives[0].Terabytes /= 4
	site := Figures(p, nil)
	year, err := site.Year(context.Background(), date(2027, 1, 1))
	if err != nil {
		t.Fatal(err)
	}
	pool := year.Pools[0]
	// But for the hour that the clocks skip and the one that comes twice.
	if off := *pool.WorstDays - *site.Pools[0].WorstDays; math.Abs(off) > 0.1 || pool.Name != "" || len(pool.Days) != 365 {
		t.Errorf("worst %v, in the ordinary week %v", *pool.WorstDays, *site.Pools[0].WorstDays)
	}
	if pool.FullAfterDays == nil || math.Abs(*pool.FullAfterDays / *site.Pools[0].RetentionDays - 1) > 0.05 {
		t.Errorf("full after %v days, of %v", pool.FullAfterDays, *site.Pools[0].RetentionDays)
	}
	for _, bad := range []int{1969, 2201} {
		if _, err := site.Year(context.Background(), date(bad, 1, 1)); err == nil {
			t.Errorf("the year %d", bad)
		}
	}
}

// BenchmarkYear is the year of 192 channels on 12 pools, a season and a week of their own
// for some dates.
func BenchmarkYear(b *testing.B) {
	p := depot(192)
	r := p.Recorders[0]
	pool := r.Pools[0]
	p.Recorders[0].Pools = nil
	for i := range 12 {
		pool.ID = string(rune('a' + i))
		p.Recorders[0].Pools = append(p.Recorders[0].Pools, pool)
	}
	for i := range p.Channels {
		p.Channels[i].Pool = string(rune('a' + i%12))
	}
	factor, sunday := 2.0, week.Sunday
	p.Site.SpecialDays = []plan.SpecialDay{
		{From: date(2027, 7, 1), To: date(2027, 8, 31), Name: "Season", Yearly: true, RateFactor: &factor},
		{From: date(2027, 12, 24), To: date(2027, 12, 26), Name: "Rest", Yearly: true, UseDay: &sunday}}
	site := Figures(p, nil)
	for b.Loop() {
		if _, err := site.Year(context.Background(), date(2027, 1, 1)); err != nil {
			b.Fatal(err)
		}
	}
}

// TestADayLikeAnotherIsThatDay lets every date be as one day of the week, and that day is always recorded or never.
func TestADayLikeAnotherIsThatDay(t *testing.T) {
	p := plantest.Read(t, "testdata/yard-and-gate.json")
	p.Recorders[0].Pools[0].Drives[0].Terabytes /= 4
	p.Duties = append(p.Duties, plan.Duty{ID: "clock", Name: "Round the clock", Base: &plan.Base{Stream: "main"}}, plan.Duty{ID: "none",
		Name: "Off"})
	for i := range p.Channels {
		p.Channels[i].Week = plan.WeekRef{Own: &plan.OwnWeek{Otherwise: "none",
			Blocks: []plan.DutyBlock{{Hours: plan.Hours{Days: []week.Weekday{week.Wednesday}, To: 1440}, Duty: "clock"}}}}
	}
	days := func(like week.Weekday) *float64 {
		p.Site.SpecialDays = []plan.SpecialDay{{From: date(2025, 1, 1), To: date(2029, 12, 31), Name: "Always", UseDay: &like}}
		year, err := Figures(p, nil).Year(context.Background(), date(2027, 1, 1))
		if err != nil {
			t.Fatal(err)
		}
		return year.Pools[0].WorstDays
	}
	if kept := days(week.Tuesday); kept != nil {
		t.Errorf("nothing is written on days like Tuesday, and kept for %v days", *kept)
	}
	if kept := days(week.Wednesday); kept == nil || *kept > 400 {
		t.Errorf("all is written on days like Wednesday, and kept for %v days", kept)
	}
}

// TestAYearCanBeStopped is asked for by somebody who has gone.
func TestAYearCanBeStopped(t *testing.T) {
	gone, cancel := context.WithCancel(context.Background())
	cancel()
	if year, err := Figures(plantest.Read(t, "testdata/yard-and-gate.json"), nil).Year(gone, date(2027, 1, 1)); err != context.Canceled {
		t.Errorf("%+v, %v", year, err)
	}
}

// TestTheLastDayOfALeapYear has a special day on it, which is the worst of the year.
func TestTheLastDayOfALeapYear(t *testing.T) {
	p := plantest.Read(t, "testdata/yard-and-gate.json")
	p.Recorders[0].Pools[0].Drives[0].Terabytes /= 60
	factor := 20.0
	p.Site.SpecialDays = []plan.SpecialDay{{Name: "New Year's Eve", From: date(2032, 12, 31), To: date(2032, 12, 31), RateFactor: &factor}}
	year := Figures(p, nil).SpecialYear()
	if year == nil || len(year.Pools[0].Days) != 366 {
		t.Fatalf("%+v", year)
	}
	if kept := year.Pools[0].Days; kept[365] >= 0.98*kept[364] || year.Pools[0].Name != "New Year's Eve" {
		t.Errorf("%v and %v days, worst on %v (%s)", kept[364], kept[365], year.Pools[0].WorstDate, year.Pools[0].Name)
	}
}

// TestWhatHappensAsOnAnotherDay lets on every date happen what happens on one day of the week, under duties that stay: that is a
// site to which it happens every day.
func TestWhatHappensAsOnAnotherDay(t *testing.T) {
	p := plantest.Read(t, "testdata/yard-and-gate.json")
	p.Recorders[0].Pools[0].Drives[0].Terabytes /= 400
	p.Duties = append(p.Duties, plan.Duty{ID: "waits", Name: "Motion only",
		Event: &plan.Event{Stream: "main", On: []plan.Trigger{plan.Motion}}}, plan.Duty{ID: "none", Name: "Off"})
	for i := range p.Channels {
		p.Channels[i].Week = plan.WeekRef{Own: &plan.OwnWeek{Otherwise: "none",
			Blocks: []plan.DutyBlock{{Hours: plan.Hours{Days: []week.Weekday{week.Monday, week.Friday}, To: 1440}, Duty: "waits"}}}}
	}
	p.CallButtons = nil
	happens := func(days ...week.Weekday) {
		for i := range p.Activities {
			p.Activities[i].OtherwisePerHour = 0
			p.Activities[i].Blocks = []plan.RateBlock{{Hours: plan.Hours{Days: days, From: 480, To: 1200}, PerHour: 30}}
		}
	}
	year := func(like *week.Weekday) year.PoolYear {
		p.Site.SpecialDays = nil
		if like != nil {
			p.Site.SpecialDays = []plan.SpecialDay{{From: date(2024, 1, 1), To: date(2029, 12, 31), Name: "Always", ActivityDay: like}}
		}
		if err := p.Check(); err != nil {
			t.Fatal(err)
		}
		year, err := Figures(p, nil).Year(context.Background(), date(2027, 1, 1))
		if err != nil {
			t.Fatal(err)
		}
		return year.Pools[0]
	}
	tuesday, wednesday := week.Tuesday, week.Wednesday
	happens(week.Wednesday)
	if pool := year(&tuesday); pool.WorstDays != nil {
		t.Errorf("nothing happens on days like Tuesday, and %v days are kept", *pool.WorstDays)
	}
	got := year(&wednesday)
	happens()
	want := year(nil)
	if got.WorstDays == nil || want.WorstDays == nil || !slices.EqualFunc(got.Days, want.Days,
		func(a, b float64) bool { return math.Abs(a-b) < 1e-6*b }) {
		t.Errorf("%v days at worst, want %v", plan.Or(got.WorstDays, -1), plan.Or(want.WorstDays, -1))
	}
}
