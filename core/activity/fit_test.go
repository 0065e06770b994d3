package activity

import (
	"math"
	"math/rand/v2"
	"testing"
	"time"

	"wakefield.example/core/week"
)

func zone(t testing.TB, name string) *time.Location {
	t.Helper()
	loc, err := time.LoadLocation(name)
	if err != nil {
		t.Fatal(err)
	}
	return loc
}

// logged draws events of a weekly process over some weeks from a Monday on.
func logged(from time.Time, weeks int, perHour func(hour int) float64, mean float64) []Event {
	random := rand.New(rand.NewPCG(3, 9))
	var events []Event
	end := from.AddDate(0, 0, 7*weeks)
	for t := from; t.Before(end); t = t.Add(time.Minute) {
		if random.Float64() < perHour(hourOfWeek(t))/60 {
			events = append(events, Event{t, mean * random.ExpFloat64()})
		}
	}
	return events
}

func TestFitFindsTheRatesAgain(t *testing.T) {
	from := time.Date(2026, 3, 2, 0, 0, 0, 0, zone(t, "Europe/Dublin")) // clocks change within
	perHour := func(h int) float64 {
		switch {
		case h < 5*24 && h%24 >= 7 && h%24 < 18:
			return 20
		case h%24 >= 9 && h%24 < 14:
			return 8
		}
		return 1
	}
	f, err := Fit(logged(from, 8, perHour, 40), from, from.AddDate(0, 0, 56))
	if err != nil {
		t.Fatal(err)
	}
	if f.Pattern != WorkAndRest {
		t.Errorf("hours alike: %s", f.Pattern)
	}
	for h, off := range map[int]float64{10: 20, 24*5 + 10: 8, 3: 1} {
		if got := f.Rate.At(week.Minute(h*60 + 30)); math.Abs(got-off) > 0.35*off {
			t.Errorf("hour %d: %.3g an hour, drawn with %v", h, got, off)
		}
	}
	if math.Abs(f.MeanSeconds-40) > 4 || f.RatePercent > 3 || f.MeanPercent > 4 || math.Abs(f.Weeks-8) > 0.01 || f.Unseen != 0 {
		t.Errorf("%+v", f)
	}
	// What was fitted happens as often as it did.
	if got, want := New(f.Rate, 40).PerDay()*56, float64(f.Events); math.Abs(got-want) > 0.005*want {
		t.Errorf("%.1f events in eight weeks of the fit, %v in the log", got, want)
	}
}

func TestFitDoesNotReadMuchIntoLittle(t *testing.T) {
	from := time.Date(2026, 5, 4, 0, 0, 0, 0, time.UTC)
	f, err := Fit(logged(from, 1, func(int) float64 { return 0.3 }, 10), from, from.AddDate(0, 0, 7))
	if err != nil || f.Pattern != Constant || len(f.Rate) != 1 {
		t.Errorf("%v %+v", err, f)
	}
	// Two days of a log: the rest of the week is taken to be like them.
	f, err = Fit(logged(from, 1, func(h int) float64 { return 60 * float64(h%24/12) }, 10), from, from.AddDate(0, 0, 2))
	if err != nil || f.Unseen != 120 || f.Rate.At(5*week.Day+13*60) < 30 || f.Rate.At(5*week.Day+60) > 5 {
		t.Errorf("%v %+v", err, f)
	}
}

func TestFitCountsTheHoursOfTheClock(t *testing.T) {
	// On the last Sunday of March the clocks of Dublin skip the hour from 01:00.
	dublin := zone(t, "Europe/Dublin")
	from := time.Date(2026, 3, 29, 0, 0, 0, 0, dublin)
	exposure := observed(from, from.AddDate(0, 0, 1))
	if exposure[6*24] != 1 || exposure[6*24+1] != 0 || exposure[6*24+2] != 1 {
		t.Errorf("%v", exposure[6*24:6*24+4])
	}
	exposure = observed(from.AddDate(0, 7, -4), from.AddDate(0, 7, -3)) // 25 October
	if exposure[6*24+1] != 2 {
		t.Errorf("%v", exposure[6*24:6*24+4])
	}
	total := 0.0
	for _, h := range observed(time.Date(2026, 3, 29, 4, 20, 10, 5, zone(t, "Asia/Kolkata")),
		time.Date(2026, 4, 7, 4, 50, 0, 0, zone(t, "Asia/Kolkata"))) {
		total += h
	}
	if math.Abs(total-(9*24+0.5-10.0/3600)) > 1e-6 {
		t.Errorf("%v hours", total)
	}
}

func TestFitRefuses(t *testing.T) {
	from := time.Date(2026, 5, 4, 0, 0, 0, 0, time.UTC)
	if _, err := Fit(nil, from, from.AddDate(0, 0, 7)); err == nil {
		t.Error("no events")
	}
	if _, err := Fit([]Event{{from, 3}}, from, from); err == nil {
		t.Error("no time")
	}
	f, err := Fit([]Event{{from, -1}}, from, from.AddDate(0, 0, 1))
	if err != nil || f.MeanSeconds != 0 || f.Lengths != 0 {
		t.Errorf("%v %+v", err, f)
	}
}

// TestWhichHoursAreAlike numbers every hour of the week in every pattern.
func TestWhichHoursAreAlike(t *testing.T) {
	for hour := range hours {
		weekend := 0
		if hour >= 120 {
			weekend = 24
		}
		for pattern, want := range map[Pattern]int{EveryHour: hour, WorkAndRest: weekend + hour%24, DaysAlike: hour % 24, Constant: 0} {
			if got := pattern.cell(hour); got != want {
				t.Errorf("%s, hour %d: %d, want %d", pattern, hour, got, want)
			}
		}
	}
}
