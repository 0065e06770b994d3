package activity

import (
	"math"
	"math/rand/v2"
	"slices"
)

// FoundGroup is what a log tells about events that come together.
type FoundGroup struct {
	Group
	SizePercent float64 // standard error of the size, of that size
}

// Lags between the beginnings of two events, in seconds, at which pairs are counted.
var lags = [...]float64{0, 2, 5, 10, 15, 20, 30, 45, 60, 80, 100, 130, 170, 220, 300, 400, 550, 750, 1000, 1400}

// evidenceForGroups is by how much twice the logarithm of the likelihood must be better
// with groups than without. Of logs of independent events fewer than one in a hundred
// gets there.
const evidenceForGroups = 14

// fitGroup finds whether the events of a log come in groups, given the rate by hour of
// the week that was fitted to them; starts are seconds from the beginning of the log,
// ascending, and rate is in events a second at such a second.
//
// Pairs of events are counted by the time between them. Of those that belong to different
// groups as many are expected as the rate tells, times a factor, as rates vary within the
// hour too; each event has besides (F/2)·H(x) others of its group within x after it,
//
//	F = (ν² + 2ν)/(1 + ν)   ν = n − 1      H(x) = 2x/s − (x/s)² up to s
//
// n and s are those under which the counts are likeliest. Where independent events
// explain them as well, there are no groups.
func fitGroup(starts []float64, rate func(float64) float64) *FoundGroup {
	if len(starts) < 30 {
		return nil
	}
	starts = spreadOver(starts)
	counts := countPairs(starts, rate)
	pairs, expected := counts.without(-1)
	n := float64(len(starts))
	best, none := groupFit{}, bestBase(pairs, expected)
	best.score = none
	for s := 4.0; s <= 900; s *= 1.18 {
		if f := fitSpread(pairs, expected, n, s); f.score > best.score {
			best = f
		}
	}
	if best.spread == 0 || 2*(best.score-none) < evidenceForGroups {
		return nil
	}
	size := sizeOf(best.others)
	if size < 1.05 {
		return nil
	}
	return &FoundGroup{Group{Size: min(size, 1000), Seconds: best.spread}, 100 * sizeError(counts, len(starts), best.spread) / size}
}

// spreadOver gives times that are written to the minute a place within it, as whole
// minutes would look like groups; always the same one.
func spreadOver(starts []float64) []float64 {
	for _, t := range starts {
		if math.Mod(t, 60) != 0 {
			return starts
		}
	}
	rng := rand.New(rand.NewPCG(1, 2))
	out := make([]float64, len(starts))
	for i, t := range starts {
		out[i] = t + 60*rng.Float64()
	}
	slices.Sort(out)
	return out
}

// lagCounts are what is counted at each lag.
type lagCounts [len(lags) - 1]float64

// pairCounts are pairs of events by their lag, and how many events by themselves would make. The events are in stretches of the
// log, so that what is counted without one of these need not be counted again.
type pairCounts struct {
	pairs    [parts][parts]lagCounts // by the stretch of the earlier and that of the later
	expected [parts]lagCounts        // by the stretch of the earlier
}

// parts is in how many stretches a log is divided.
const parts = 20

// countPairs counts the pairs of all events.
func countPairs(starts []float64, rate func(float64) float64) *pairCounts {
	c := new(pairCounts)
	for p := range parts {
		from, to := p*len(starts)/parts, (p+1)*len(starts)/parts
		for i := from; i < to; i++ {
			t, q := starts[i], p
			for j := i + 1; j < len(starts) && starts[j]-t < lags[len(lags)-1]; j++ {
				for j >= (q+1)*len(starts)/parts {
					q++
				}
				k, found := slices.BinarySearch(lags[:], starts[j]-t)
				if !found {
					k--
				}
				c.pairs[p][q][k]++
			}
			for k := range c.expected[p] {
				c.expected[p][k] += rate(t+(lags[k]+lags[k+1])/2) * (lags[k+1] - lags[k])
			}
		}
	}
	return c
}

// without are the counts with one of the stretches left out, or with all for one that there is not.
func (c *pairCounts) without(part int) (pairs, expected []float64) {
	pairs, expected = make([]float64, len(lags)-1), make([]float64, len(lags)-1)
	for p := range parts {
		for q := p; q < parts; q++ {
			for k := range pairs {
				if p != part && q != part {
					pairs[k] += c.pairs[p][q][k]
				}
			}
		}
		for k := range expected {
			if p != part {
				expected[k] += c.expected[p][k]
			}
		}
	}
	return pairs, expected
}

// groupFit is how likely counts are, given a spread.
type groupFit struct {
	spread, others float64 // s, and F: how many others of its group an event has
	score          float64 // logarithm of the likelihood
}

func within(x, s float64) float64 {
	if x >= s {
		return 1
	}
	return 2*x/s - x*x/(s*s)
}

// bestBase is the score of independent events, with the factor that suits best.
func bestBase(pairs, expected []float64) float64 {
	return score(pairs, expected, sum(pairs)/max(sum(expected), 1e-9), nil, 0)
}

func sum(v []float64) (s float64) {
	for _, x := range v {
		s += x
	}
	return s
}

// score is the logarithm of the Poisson likelihood, but for a constant.
func score(pairs, expected []float64, base float64, shape []float64, others float64) float64 {
	total := 0.0
	for k, got := range pairs {
		mean := base * expected[k]
		if shape != nil {
			mean += others * shape[k]
		}
		if mean = max(mean, 1e-9); got > 0 {
			total += got * math.Log(mean)
		}
		total -= mean
	}
	return total
}

// fitSpread finds the base and F for a spread, by steps that give each count to what
// explains it.
func fitSpread(pairs, expected []float64, n, s float64) groupFit {
	shape := make([]float64, len(pairs))
	for k := range shape {
		shape[k] = n / 2 * (within(lags[k+1], s) - within(lags[k], s))
	}
	base, others := sum(pairs)/max(sum(expected), 1e-9), 0.5
	for range 60 {
		byBase, byGroup := 0.0, 0.0
		for k, got := range pairs {
			if mean := base*expected[k] + others*shape[k]; mean > 0 {
				byBase += got * base * expected[k] / mean
				byGroup += got * others * shape[k] / mean
			}
		}
		base, others = byBase/max(sum(expected), 1e-9), byGroup/sum(shape)
	}
	return groupFit{s, others, score(pairs, expected, base, shape, others)}
}

// sizeOf is n for F.
func sizeOf(others float64) float64 {
	return 1 + (others-2+math.Sqrt(others*others+4))/2
}

// sizeError is the standard error of the size, from what it would be if a twentieth of
// the log were missing.
func sizeError(counts *pairCounts, events int, spread float64) float64 {
	var sizes []float64
	for p := range parts {
		rest := events - ((p+1)*events/parts - p*events/parts)
		pairs, expected := counts.without(p)
		sizes = append(sizes, sizeOf(fitSpread(pairs, expected, float64(rest), spread).others))
	}
	mean, squares := sum(sizes)/parts, 0.0
	for _, s := range sizes {
		squares += (s - mean) * (s - mean)
	}
	return math.Sqrt(squares * (parts - 1) / parts)
}
