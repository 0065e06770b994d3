package alert

import (
	"math"
	"slices"
	"sync"

	"wakefield.example/core/activity"
	"wakefield.example/core/week"
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
// in the steady state of each stretch of constant rates. q is the chance that something lasts at two moments an interval
// apart, given that it does at the first: 1 − (e^−Λ₁ − e^−Λ₂)/(1 − e^−Λ₁) with the exponents of nothing lasting at one and at
// two moments; of single triggers at rate τ, Λ₁ = ρ = τ·d and Λ₂ = ρ(2 − e^(−n/d)). η is such that where little happens each
// group has as many stills as it has by itself; of single triggers that is τ.
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
	once, twice, sparse := 0.0, 0.0, 0.0
	for i := range list {
		rate := list[i].Rate.At(t)
		if rate == 0 {
			continue
		}
		v := &views[i]
		once += rate * v.once
		twice += rate * v.twice
		sparse += rate * v.each
	}
	if sparse == 0 {
		return 0
	}
	// The chance that something lasts an interval after a still, and the same if everything came by itself.
	goes, alone := 0.0, 0.0
	if idle := -math.Expm1(-once); idle > 0 {
		goes = max(0, min(1, 1-(math.Exp(-once)-math.Exp(-twice))/idle))
		alone = max(0, min(1-1e-9, (2*once-twice)/once))
	}
	return 1 / (interval + (1-goes)/(1-alone)/sparse)
}

// lone is what one trigger of a stream adds to how much goes on, and how it goes with its group.
type lone struct {
	once, twice float64 // exponent of the chance that nothing lasts at a moment, and at either of two, for a trigger a second
	each        float64 // stills that are taken for each trigger of a lone group
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
		return lone{s.Mean, s.Mean * (2 - a), 1 / (1 - a)}
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
	made := key.compute()
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

func (k *loneKey) compute() lone {
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
	l.once = (over(func(v float64) float64 { return some(k.lasts(v)) }, 0, s) +
		over(func(v float64) float64 { return some(k.lasts(v)) }, s, end)) / (n * k.chance)
	for _, span := range [][2]float64{{-k.interval, min(0, s-k.interval)}, {min(0, s-k.interval), max(0, s-k.interval)},
		{max(0, s-k.interval), max(s, s-k.interval)}, {s, end}} {
		if span[1] > span[0] {
			l.twice += over(func(v float64) float64 { return some(either(v)) }, span[0], span[1]) / (n * k.chance)
		}
	}
	l.each = k.isolated() / (n * k.chance)
	return l
}
