package alert

import (
	"math"
	"slices"
	"sync"

	"wakefield/core/activity"
	"wakefield/core/week"
)

// A Lasting stream is one whose triggers last an exponential time; while any does, stills are taken.
type Lasting struct {
	Stream
	Mean float64 // seconds a trigger lasts on average, ≥ 0
}

// Stills is how many are taken in each hour: one as soon as a trigger begins, and further ones at an interval, seconds, while
// any trigger lasts, never two closer together. With q the chance that something lasts when the interval after a still is
// over, and η the rate at which something begins where nothing lasts, there are
//
//	1/(n + (1 − q)/η) a second
//
// in the steady state of each stretch of constant rates. Of single triggers at rate τ, η = τ, ρ = τ·d and
// q = 1 − (e^−ρ − e^(−ρ(2 − e^(−n/d))))/(1 − e^−ρ). Of groups, q and η come from the same two chances, that nothing lasts at
// one moment and at two an interval apart; what that misses, as a still is no moment like another, is taken from how many
// are taken of a group that comes by itself.
func Stills(list []Lasting, interval float64) (h Hours) {
	streams := make([]Stream, len(list))
	views := make([]lone, len(list))
	for i := range list {
		streams[i] = list[i].Stream
		views[i] = loneOf(&list[i], interval)
	}
	edges := append(changes(streams, func(*Stream) []float64 { return nil }), 0)
	slices.Sort(edges)
	edges = slices.Compact(edges)
	for k, from := range edges {
		to := float64(week.Seconds)
		if k+1 < len(edges) {
			to = edges[k+1]
		}
		add(&h, from, to, (to-from)*stillRate(list, views, from, interval))
	}
	return h
}

// stillRate is how many stills are taken a second at the rates that hold at t.
func stillRate(list []Lasting, views []lone, t, interval float64) float64 {
	once, twice, starts, mended := 0.0, 0.0, 0.0, 0.0
	for i := range list {
		rate := list[i].Rate.At(t)
		if rate == 0 {
			continue
		}
		v := &views[i]
		once += rate * v.once
		twice += rate * v.twice
		starts += rate * v.first
		mended += rate * v.first * v.mend
	}
	if starts == 0 {
		return 0
	}
	goes := 0.0 // chance that something lasts an interval after a still
	if idle := -math.Expm1(-once); idle > 0 {
		goes = max(0, min(1, 1-(math.Exp(-once)-math.Exp(-twice))/idle))
	}
	return 1 / (interval + (1-goes)/starts*mended/starts)
}

// lone is what one trigger of a stream adds to how much goes on, and how it goes with its group.
type lone struct {
	once, twice float64 // exponent of the chance that nothing lasts at a moment, and at either of two, for a trigger a second
	first       float64 // chance that a trigger finds nothing of its group going on, nor an interval before
	mend        float64 // how much longer than it seems it takes until something begins
}

// loneKey is all that a lone depends on.
type loneKey struct {
	group          activity.Group
	chance         float64
	mean, interval float64
}

var lones struct {
	sync.Mutex
	made map[loneKey]lone
}

// mostLones are remembered; if somebody tries more, it begins anew.
const mostLones = 2000

func loneOf(s *Lasting, interval float64) lone {
	a := 0.0
	if s.Mean > 0 {
		a = math.Exp(-interval / s.Mean)
	}
	if !s.grouped() {
		return lone{s.Mean, s.Mean * (2 - a), 1, 1}
	}
	key := loneKey{s.Group, s.Chance, s.Mean, interval}
	lones.Lock()
	defer lones.Unlock()
	if got, ok := lones.made[key]; ok {
		return got
	}
	if len(lones.made) >= mostLones || lones.made == nil {
		lones.made = make(map[loneKey]lone)
	}
	made := key.make()
	lones.made[key] = made
	return made
}

// lasts is the chance that an event of the group lasts v seconds after the group began.
func (k *loneKey) lasts(v float64) float64 {
	if v <= 0 || k.mean == 0 {
		return 0
	}
	return k.chance * (math.Exp(-(v-min(v, k.group.Seconds))/k.mean) - math.Exp(-v/k.mean)) * k.mean / k.group.Seconds
}

func (k *loneKey) make() lone {
	n, s := k.group.Size, k.group.Seconds
	a := 0.0
	if k.mean > 0 {
		a = math.Exp(-k.interval / k.mean)
	}
	some := func(m float64) float64 { return 1 - (1-m)*math.Exp(-(n-1)*m) }
	either := func(v float64) float64 { return k.lasts(v)*(1-a) + k.lasts(v+k.interval) } // at v or an interval later
	over := func(f func(float64) float64, from, to float64) (sum float64) {
		const parts = 24
		width := (to - from) / parts
		for p := range parts {
			for _, g := range gauss {
				sum += g[1] * width * f(from+(float64(p)+g[0])*width)
			}
		}
		return sum
	}
	end := s + 14*k.mean
	l := lone{}
	l.once = (over(func(v float64) float64 { return some(k.lasts(v)) }, 0, s) + over(func(v float64) float64 { return some(k.lasts(v)) }, s, end)) / (n * k.chance)
	for _, span := range [][2]float64{{-k.interval, min(0, s-k.interval)}, {min(0, s-k.interval), max(0, s-k.interval)}, {max(0, s-k.interval), max(s, s-k.interval)}, {s, end}} {
		if span[1] > span[0] {
			l.twice += over(func(v float64) float64 { return some(either(v)) }, span[0], span[1]) / (n * k.chance)
		}
	}
	l.first = over(func(o float64) float64 {
		m := either(o - k.interval)
		return math.Exp(-(n-1)*m) * (1 + (n-1)*(1-m)) / n
	}, 0, s) / s
	// Of a lone group so many stills would be taken, and are.
	goes := 0.0
	if l.once > 0 {
		goes = max(0, (2*l.once-l.twice)/l.once)
	}
	l.mend = 1
	if seems, are := n*k.chance*l.first/(1-goes), k.isolated(); are > 0 && goes < 1 {
		l.mend = seems / are
	}
	return l
}
