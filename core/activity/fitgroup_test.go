package activity

import (
	"cmp"
	"math"
	"math/rand/v2"
	"slices"
	"testing"
	"time"

	"wakefield.example/core/week"
)

// drawLog draws the events of some weeks, busier by day, in groups of mean size n.
func drawLog(rng *rand.Rand, weeks int, perHour, n, s float64) (events []Event, from, to time.Time) {
	from = time.Date(2026, 3, 2, 0, 0, 0, 0, time.UTC)
	to = from.AddDate(0, 0, 7*weeks)
	end := to.Sub(from).Seconds()
	for at := 0.0; ; {
		at += rng.ExpFloat64() / (perHour / 3600 / n)
		if at > end {
			break
		}
		if hour := int(at/3600) % 24; (hour < 7 || hour > 20) && rng.Float64() > 0.2 {
			continue
		}
		size := 1
		for more := rng.ExpFloat64(); more < n-1; more += rng.ExpFloat64() {
			size++
		}
		for range size {
			offset := 0.0
			if n > 1 {
				offset = rng.Float64() * s
			}
			events = append(events, Event{from.Add(time.Duration((at + offset) * 1e9)), 10})
		}
	}
	slices.SortFunc(events, func(a, b Event) int { return cmp.Compare(a.Start.UnixNano(), b.Start.UnixNano()) })
	return events, from, to
}

// TestGroupsAreFoundWhereThereAreSome draws a hundred logs in groups and a hundred
// without, of three weeks each. Of those without at most two may be found to have groups;
// of those with at most five may be missed.
func TestGroupsAreFoundWhereThereAreSome(t *testing.T) {
	rng := rand.New(rand.NewPCG(11, 12))
	invented, missed, off := 0, 0, 0
	var worst float64
	for range 100 {
		perHour := 2 + 20*rng.Float64()
		f, err := Fit(drawLog(rng, 3, perHour, 1, 0))
		if err != nil {
			t.Fatal(err)
		}
		if f.Group != nil {
			invented++
		}
		n, s := 1.5+4*rng.Float64(), 15+150*rng.Float64()
		if f, err = Fit(drawLog(rng, 3, perHour, n, s)); err != nil {
			t.Fatal(err)
		}
		if f.Group == nil {
			missed++
			continue
		}
		wrong := math.Abs(f.Group.Size/n - 1)
		worst = max(worst, wrong)
		if wrong > 3*f.Group.SizePercent/100+0.05 || f.Group.Seconds < s/1.6 || f.Group.Seconds > s*1.6 {
			off++
		}
	}
	t.Logf("%d of 100 invented, %d of 100 missed, %d of those found are off, at worst by %.0f %%", invented, missed, off, 100*worst)
	if invented > 2 || missed > 5 || off > 8 {
		t.Errorf("%d invented, %d missed, %d off", invented, missed, off)
	}
}

func TestTimesWrittenToTheMinuteAreNoGroups(t *testing.T) {
	rng := rand.New(rand.NewPCG(5, 6))
	for range 20 {
		events, from, to := drawLog(rng, 3, 15, 1, 0)
		for i := range events {
			events[i].Start = events[i].Start.Truncate(time.Minute)
		}
		f, err := Fit(events, from, to)
		if err != nil {
			t.Fatal(err)
		}
		if f.Group != nil {
			t.Errorf("groups of %.2f within %.0f s", f.Group.Size, f.Group.Seconds)
		}
	}
}

// TestSamplesAreLikeTheirActivity draws many hours: as many events as the rate says, in
// groups as large as they should be.
func TestSamplesAreLikeTheirActivity(t *testing.T) {
	p := New(week.Constant(12.0).Paint(week.Span{From: 600, To: 660}, 40), 20)
	if p.BusiestHour() != 36000 {
		t.Errorf("the busiest hour is at %v", p.BusiestHour())
	}
	for _, g := range []Group{{}, {Size: 4, Seconds: 60}} {
		p.Group = g
		n, near, length := 0, 0, 0.0
		for seed := range uint64(400) {
			events := p.Sample(36000, seed)
			for i, e := range events {
				n++
				length += e.Seconds
				if i > 0 && e.Start-events[i-1].Start < 30 {
					near++
				}
			}
		}
		if mean := float64(n) / 400; math.Abs(mean-40) > 3 || math.Abs(length/float64(n)-20) > 1 {
			t.Errorf("%+v: %v events of %v s", g, mean, length/float64(n))
		}
		if share := float64(near) / float64(n); g.Grouped() != (share > 0.5) {
			t.Errorf("%+v: %v follow within half a minute", g, share)
		}
	}
	if a, b := p.Sample(0, 7), p.Sample(0, 7); !slices.Equal(a, b) {
		t.Error("the same seed gives another hour")
	}
	if none := New(week.Constant(0.0), 20).Sample(0, 1); len(none) != 0 {
		t.Errorf("%v", none)
	}
}

// TestRatesThatSwingByTheQuarterAreNoGroups draws events that are frequent for a quarter of every hour, as around departures, and
// independent of each other.
func TestRatesThatSwingByTheQuarterAreNoGroups(t *testing.T) {
	rng := rand.New(rand.NewPCG(21, 22))
	for k := range 12 {
		from := time.Date(2026, 3, 2, 0, 0, 0, 0, time.UTC)
		to := from.AddDate(0, 0, 21)
		var events []Event
		for at := from; at.Before(to); at = at.Add(time.Duration(rng.ExpFloat64() / 80 * float64(time.Hour))) {
			quarter := (at.Minute()/15 + k) % 4
			if rng.Float64() < []float64{1, 0.1, 0.1, 0.1}[quarter]*[]float64{0.2, 1}[index(at.Hour() > 6 && at.Hour() < 21)] {
				events = append(events, Event{at, 10})
			}
		}
		f, err := Fit(events, from, to)
		if err != nil {
			t.Fatal(err)
		}
		if f.Group != nil {
			t.Errorf("log %d of %d events: groups of %.2f within %.0f s", k, len(events), f.Group.Size, f.Group.Seconds)
		}
	}
}

func index(on bool) int {
	if on {
		return 1
	}
	return 0
}
