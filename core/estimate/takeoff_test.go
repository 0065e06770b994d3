package estimate

import (
	"math"
	"testing"
	"time"

	"wakefield.example/core/plan"
	"wakefield.example/core/plan/plantest"
	"wakefield.example/core/week"
)

// TestTakeOff holds a week's footage against seven mean days, with special days, clocks that change, and events only.
func TestTakeOff(t *testing.T) {
	p := plantest.Read(t, "../../internal/demo/pennywhistle-quay.json")
	p.Site.SpecialDays, p.Site.TimeZone = nil, "Europe/Berlin"
	s := Figures(p, nil)
	zone, _ := time.LoadLocation(p.Site.TimeZone)
	monday := time.Date(2026, 6, 1, 0, 0, 0, 0, zone)
	all := make([]int, len(p.Channels))
	daily := 0.0
	for i := range all {
		all[i] = i
		daily += s.Channels[i].GigabytesPerDay
	}
	take := func(channels []int, from, to time.Time, events bool) Taken {
		t.Helper()
		got, ok := s.TakeOff(channels, from, to, events)
		if !ok {
			t.Fatalf("from %v to %v cannot be taken off", from, to)
		}
		return got
	}
	near := func(what string, got, want, within float64) {
		t.Helper()
		if math.Abs(got-want) > within*want {
			t.Errorf("%s: %v, want %v", what, got, want)
		}
	}
	full := take(all, monday, monday.AddDate(0, 0, 7), false)
	near("a week", full.Gigabytes, 7*daily, 1e-4) // stills are no footage
	half := take(all, monday, monday.Add(90*time.Minute), false)
	near("parts of hours add up", half.Gigabytes+take(all, monday.Add(90*time.Minute), monday.AddDate(0, 0, 7), false).Gigabytes, 7*daily,
		1e-4) // stills are no footage
	events := take(all, monday, monday.AddDate(0, 0, 7), true)
	if events.Gigabytes >= full.Gigabytes || events.Gigabytes <= 0 {
		t.Errorf("%v of %v GB are events", events.Gigabytes, full.Gigabytes)
	}
	// The night in which clocks go back has an hour more, that in which they go forward one less.
	long := take(all[:1], time.Date(2026, 10, 25, 0, 0, 0, 0, zone), time.Date(2026, 10, 26, 0, 0, 0, 0, zone), false)
	short := take(all[:1], time.Date(2026, 3, 29, 0, 0, 0, 0, zone), time.Date(2026, 3, 30, 0, 0, 0, 0, zone), false)
	if long.Hours != 25 || short.Hours != 23 || long.Gigabytes <= short.Gigabytes {
		t.Errorf("%v h with %v GB and %v h with %v GB", long.Hours, long.Gigabytes, short.Hours, short.Gigabytes)
	}
	// On a date on which nothing happens, what waits for events writes nothing.
	none := 0.0
	p.Site.SpecialDays = []plan.SpecialDay{{From: week.Date{Year: 2026, Month: 6, Day: 2}, To: week.Date{Year: 2026, Month: 6,
		Day: 2}, Name: "Closed", RateFactor: &none}}
	s = Figures(p, nil)
	if quiet := take(all, monday.AddDate(0, 0, 1), monday.AddDate(0, 0,
		2), true); quiet.Gigabytes > 0.02*events.Gigabytes/7 { // alarms and buttons of no activity are left
		t.Errorf("%v GB of events on a date without any", quiet.Gigabytes)
	}
	for _, span := range [][2]time.Time{{monday, monday}, {monday, monday.AddDate(0, 0, -1)}, {monday, monday.AddDate(3, 0, 0)},
		{monday.AddDate(-100, 0, 0), monday.AddDate(-100, 0, 1)}} {
		if _, ok := s.TakeOff(all, span[0], span[1], false); ok {
			t.Errorf("from %v to %v was taken off", span[0], span[1])
		}
	}
	slow, nothing := 2.0, 0.0
	if m := (&Taken{Gigabytes: 6}).Minutes(10); m == nil || *m != 10 {
		t.Errorf("6 GB at 10 MB/s in %v minutes", m)
	}
	if m := (&Taken{Gigabytes: 6, SpareMBps: &slow}).Minutes(10); m == nil || *m != 50 {
		t.Errorf("6 GB at 2 MB/s in %v minutes", m)
	}
	if m := (&Taken{Gigabytes: 6, SpareMBps: &nothing}).Minutes(10); m != nil {
		t.Errorf("%v minutes of drives that have nothing to spare", *m)
	}
	if rest := take(all, monday, monday.AddDate(0, 0, 1), false).SpareMBps; (rest == nil) != (p.Recorders[0].DriveMBps == 0) {
		t.Errorf("%v to spare of %v", rest, p.Recorders[0].DriveMBps)
	}
}
