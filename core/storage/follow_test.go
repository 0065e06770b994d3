package storage

import (
	"math"
	"math/rand/v2"
	"testing"
)

// TestFollowingOneRate fills a pool at a constant rate: it is full after as long as it holds, and holds as long from then on.
func TestFollowingOneRate(t *testing.T) {
	hourly := make([]Bytes, 400)
	for h := range hourly {
		hourly[h] = 10 * GB
	}
	ring := Follow(1005*GB, []Series{{Hourly: hourly}})
	if ring.Full != 100 {
		t.Errorf("full in hour %d", ring.Full)
	}
	for h, days := range ring.Days {
		near(t, "days kept", float64(days)*24, min(float64(h+1), 100.5))
	}
	if ring := Follow(1005*GB, []Series{{Hourly: hourly, AtMost: 2}, {Hourly: hourly, Quota: 300 * GB}}); ring.Full != -1 ||
		ring.Days[399] != 400.0/24 {
		t.Errorf("two days and 300 GB of two series fill 1,005 GB: %+v", ring.Full)
	}
	if ring := Follow(0, nil); ring.Full != -1 || len(ring.Days) != 0 {
		t.Errorf("of nothing: %+v", ring)
	}
}

// crate is footage of one hour.
type crate struct {
	hour  int
	bytes Bytes
}

// stack is what one series has on the pool, oldest first, followed without sums: crates are thrown out one by one.
type stack struct {
	Series
	crates []crate
}

// since is what is there of what was written after a moment, in hours since the beginning.
func (s *stack) since(from float64) Bytes {
	sum := Bytes(0)
	for _, c := range s.crates {
		sum += c.bytes * Bytes(min(1, max(0, float64(c.hour+1)-from)))
	}
	if s.Quota > 0 {
		sum = min(sum, s.Quota)
	}
	return sum
}

// TestFollowingThrowsOutTheOldest compares rings with stacks of crates, from which the oldest is thrown out by sixteenths of
// an hour.
func TestFollowingThrowsOutTheOldest(t *testing.T) {
	rng := rand.New(rand.NewPCG(7, 11))
	const fine = 16
	for round := range 40 {
		var all []Series
		var stacks []*stack
		for range 1 + rng.IntN(4) {
			s := Series{Hourly: make([]Bytes, 24*12)}
			for h := range s.Hourly {
				s.Hourly[h] = Bytes(rng.IntN(20)) * GB
			}
			switch rng.IntN(3) {
			case 0:
				s.AtMost = Days(1 + rng.IntN(6))
			case 1:
				s.Quota = Bytes(50+rng.IntN(400)) * GB
			}
			all, stacks = append(all, s), append(stacks, &stack{Series: s})
		}
		usable := Bytes(100+rng.IntN(1500)) * GB
		ring := Follow(usable, all)
		from, full := 0, -1 // from in sixteenths of an hour
		for h := range all[0].Hourly {
			for _, s := range stacks {
				s.crates = append(s.crates, crate{h, s.Hourly[h]})
				for s.AtMost > 0 && float64(h+1-s.crates[0].hour) > float64(s.AtMost)*24 {
					s.crates = s.crates[1:]
				}
			}
			there := func() (sum Bytes) {
				for _, s := range stacks {
					sum += s.since(float64(from) / fine)
				}
				return sum
			}
			for there() > usable {
				if full < 0 {
					full = h
				}
				from++
			}
			kept := float64(h+1) - float64(from)/fine
			// A quota that begins to matter in the midst of an hour makes that hour uneven; what is short is followed by the minute.
			if got := float64(ring.Days[h]) * 24; math.Abs(got-kept) > 0.5 {
				t.Fatalf("round %d, hour %d: %v hours are kept, by crates %v", round, h, got, kept)
			}
		}
		if ring.Full != full {
			t.Errorf("round %d: full in hour %d, by crates %d", round, ring.Full, full)
		}
	}
	if math.IsNaN(float64(Follow(GB, []Series{{Hourly: []Bytes{0, 0, 2 * GB}}}).Days[2])) {
		t.Error("of an hour that is too much for the pool nothing can be told")
	}
}

// TestAPoolTooSmallForAnHourIsFullInTheFirst.
func TestAPoolTooSmallForAnHourIsFullInTheFirst(t *testing.T) {
	if got := Follow(5, []Series{{Hourly: []Bytes{10, 10, 10}}}); got.Full != 0 || got.Days[0] != 0.5/24 || got.Days[2] != 0.5/24 {
		t.Errorf("%+v", got)
	}
}
