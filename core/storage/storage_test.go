package storage

import (
	"math"
	"math/rand/v2"
	"testing"
)

func near(t *testing.T, what string, got, want float64) {
	t.Helper()
	if math.Abs(got-want) > 1e-5*max(1, math.Abs(want)) {
		t.Errorf("%s: %v, want %v", what, got, want)
	}
}

func drives(sizes ...Bytes) []Bytes {
	for i := range sizes {
		sizes[i] *= TB
	}
	return sizes
}

func TestUsable(t *testing.T) {
	tests := []struct {
		name  string
		array Array
		want  Bytes
	}{
		{"span", Array{Drives: drives(2, 4, 6), Layout: Span}, 12},
		{"RAID 0 takes the smallest", Array{Drives: drives(2, 4, 6), Layout: RAID0}, 6},
		{"RAID 1", Array{Drives: drives(4, 4), Layout: RAID1}, 4},
		{"RAID 5", Array{Drives: drives(4, 4, 4, 4), Layout: RAID5}, 12},
		{"RAID 6", Array{Drives: drives(8, 8, 8, 8, 8), Layout: RAID6}, 24},
		{"RAID 10 of an odd number", Array{Drives: drives(4, 4, 4, 4, 4), Layout: RAID10}, 8},
		{"hot spare", Array{Drives: drives(4, 4, 4, 4), Layout: RAID5, HotSpares: 1}, 8},
		{"the largest of a span is the spare", Array{Drives: drives(2, 4, 6), Layout: Span, HotSpares: 1}, 6},
		{"reserve", Array{Drives: drives(4, 4, 4, 4), Layout: RAID5, Reserve: 0.07}, 11.16},
		{"nothing", Array{Layout: RAID5}, 0},
		{"too few for RAID 6", Array{Drives: drives(4), Layout: RAID6}, 0},
	}
	for _, test := range tests {
		near(t, test.name, float64(test.array.Usable()/TB), float64(test.want))
	}
	if RAID5.FewestDrives() != 3 || RAID6.FewestDrives() != 4 || Span.FewestDrives() != 1 {
		t.Error("fewest drives")
	}
}

func flat(perDay Bytes) Load {
	var l Load
	for i := range l.Hourly {
		l.Hourly[i] = perDay / 24
	}
	return l
}

func TestTypical(t *testing.T) {
	rate := func(daily Bytes, limit Days) Rate { return Rate{daily * GB, limit} }
	tests := []struct {
		name  string
		rates []Rate
		want  Days
	}{
		{"two channels", []Rate{rate(10, Forever), rate(30, Forever)}, 25},
		{"one stops growing", []Rate{rate(10, Forever), rate(30, 10)}, 70},
		{"a limit beyond the end", []Rate{rate(10, Forever), rate(30, 26)}, 25},
		{"limits keep it from filling", []Rate{rate(10, 20), rate(30, 20)}, Forever},
		{"nothing is written", []Rate{rate(0, Forever)}, Forever},
		{"no channels", nil, Forever},
	}
	for _, test := range tests {
		if got := Typical(1000*GB, test.rates); got != test.want && math.Abs(float64(got-test.want)) > 1e-9 {
			t.Errorf("%s: %v, want %v", test.name, got, test.want)
		}
		if test.want.Bounded() {
			if held := Held(test.want, test.rates); math.Abs(float64(held/GB)-1000) > 1e-6 {
				t.Errorf("%s: after %v days %v GB are held, want 1000", test.name, test.want, held/GB)
			}
		}
	}
	if Forever.Bounded() || !Days(3).Bounded() {
		t.Error("Bounded")
	}
}

// slowest looks back hour by hour, for every hour of the week.
func slowest(usable Bytes, loads []Load) Days {
	worst := Forever
	for now := range HoursOfWeek {
		held := make([]Bytes, len(loads))
		for back := 1; back < 24*400; back++ {
			sum, before := Bytes(0), Bytes(0)
			for i := range loads {
				before += held[i]
				l := &loads[i]
				if l.AtMost == 0 || Days(back) <= l.AtMost*24 {
					held[i] += l.Hourly[((now-back)%HoursOfWeek+HoursOfWeek)%HoursOfWeek]
				}
				if l.Quota > 0 {
					held[i] = min(held[i], l.Quota)
				}
				sum += held[i]
			}
			if sum >= usable {
				part := float64((usable - before) / (sum - before))
				worst = min(worst, Days((float64(back-1)+part)/24))
				break
			}
		}
	}
	return worst
}

func TestWorstIsThatOfLookingBackHourByHour(t *testing.T) {
	rng := rand.New(rand.NewPCG(3, 4))
	for round := range 30 {
		loads := make([]Load, 1+round%4)
		for i := range loads {
			for h := range loads[i].Hourly {
				if h%24 > 6 && h < 24*(3+i) {
					loads[i].Hourly[h] = Bytes(rng.Float64()) * 4 * GB
				}
			}
			if round%3 == 1 {
				loads[i].AtMost = Days(5 + 10*i)
			}
			if round%5 == 2 {
				loads[i].Quota = Bytes(100+80*i) * GB
			}
		}
		usable := Bytes(200+50*rng.IntN(8)) * GB
		got, each := Worst(usable, loads)
		want := slowest(usable, loads)
		if got.Bounded() != want.Bounded() || got.Bounded() && math.Abs(float64(got/want)-1) > 0.003 {
			t.Errorf("round %d: %v, hour by hour %v", round, got, want)
		}
		for i, d := range each {
			if d > got || loads[i].AtMost > 0 && d > loads[i].AtMost {
				t.Errorf("round %d: channel %d keeps %v, the pool %v", round, i, d, got)
			}
		}
	}
}

func TestWorstOfASteadyLoadIsTypical(t *testing.T) {
	pool, each := Worst(1000*GB, []Load{flat(10 * GB), flat(30 * GB)})
	near(t, "pool", float64(pool), 25)
	near(t, "channel", float64(each[0]), 25)
}

func TestQuotaAtWorst(t *testing.T) {
	// Everything is written on Mondays, 100 GB at a time.
	var l Load
	for h := range 24 {
		l.Hourly[h] = 100 * GB / 24
	}
	l.Quota = 150 * GB
	_, each := Worst(10000*GB, []Load{l})
	near(t, "a Monday and a half", float64(each[0]), 7.5)
}

func BenchmarkWorst(b *testing.B) {
	loads := make([]Load, 192)
	for i := range loads {
		loads[i] = flat(Bytes(10+i%7) * GB)
		if i%3 == 0 {
			loads[i].AtMost = 31
		}
	}
	for b.Loop() {
		Worst(100*TB, loads)
	}
}

// TestLooksBackBeyondCountingEnd asks of pools that would take ages to fill, and of
// quotas of next to nothing.
func TestLooksBackBeyondCountingEnd(t *testing.T) {
	for _, bytes := range []Bytes{1e-300, 1e-10, 1, 1e9} {
		for _, quota := range []Bytes{0, 0.1, 1e-9, 1e12} {
			var load Load
			for h := range load.Hourly {
				load.Hourly[h] = bytes * Bytes(1+h%5)
			}
			load.Quota = quota
			for _, usable := range []Bytes{0.1, 1e12, 1e18} {
				pool, each := Worst(usable, []Load{load, {Hourly: load.Hourly}})
				if pool < 0 || math.IsNaN(float64(pool)) || each[0] < 0 || math.IsNaN(float64(each[0])) || each[0] > each[1] {
					t.Errorf("%v an hour, quota %v on %v: %v, %v", bytes, quota, usable, pool, each)
				}
			}
		}
	}
}

// TestWorstWhereTypicallyNothingGoes writes on Mondays alone, under an age limit that mostly keeps the pool from filling:
// looking back from a Monday evening it holds one Monday more.
func TestWorstWhereTypicallyNothingGoes(t *testing.T) {
	monday := Load{AtMost: 60.5}
	for h := range 24 {
		monday.Hourly[h] = 100 * GB / 24
	}
	if typical := Typical(880*GB, []Rate{{Daily: monday.Daily(), Limit: 60.5}}); typical.Bounded() {
		t.Fatalf("typically %v days", typical)
	}
	pool, _ := Worst(880*GB, []Load{monday})
	if !pool.Bounded() || pool < 56 || pool > 60.5 {
		t.Errorf("at worst %v days", pool)
	}
	if pool, _ := Worst(901*GB, []Load{monday}); pool.Bounded() {
		t.Errorf("with room for nine Mondays %v days", pool)
	}
}
