package alert

import "math"

// isolated is how many stills are taken of a group that comes by itself. With m the mean number of triggers beside its first
// event, E(m) how many are taken of Poisson(m) triggers, and q the chance of the first event: E(m) + q·E′(m).
func (k *loneKey) isolated() float64 {
	if k.mean == 0 { // moments, as messages are sent of
		return (&Stream{Group: k.group, Chance: k.chance}).isolated(k.interval)
	}
	m := max(1e-6, (k.group.Size-1)*k.chance)
	const small = 1e-2
	slope := (k.of(m*(1+small)) - k.of(m*(1-small))) / (2 * small * m)
	return k.of(m) + k.chance*slope
}

// of is how many stills are taken of m triggers spread evenly over the group's length. It is played in cells of an eighth of
// the interval or of a trigger's mean length: how many triggers last, and how long ago the last still was.
func (k *loneKey) of(m float64) float64 {
	spread, mean := k.group.Seconds, k.mean
	rate := m / spread
	cell := min(k.interval, mean) / 8
	if spread > 4000*cell || k.interval > 400*cell { // the group is a steady stream for so long, or a trigger but a moment
		return k.steady(rate)
	}
	waits := max(1, int(math.Ceil(k.interval/cell)))
	cell = k.interval / float64(waits)
	most := int(3*rate*mean) + 6
	if most > 40 {
		return k.steady(rate)
	}
	stays := math.Exp(-cell / mean)
	// share[i][j] is the chance that of i that last j still do a cell later.
	share := make([][]float64, most+1)
	for i := range share {
		share[i] = make([]float64, i+1)
		for j := range share[i] {
			share[i][j] = choose(i, j) * math.Pow(stays, float64(j)) * math.Pow(1-stays, float64(i-j))
		}
	}
	free := make([]float64, most+1) // chance that so many last, the interval being over
	free[0] = 1
	waiting := make([][]float64, waits) // the same while it is not, by when it will be
	for i := range waiting {
		waiting[i] = make([]float64, most+1)
	}
	next := make([]float64, most+1)
	step := func(v []float64, comes [3]float64) {
		clear(next)
		for i, p := range v {
			if p < 1e-13 {
				continue
			}
			for j, q := range share[i] {
				for n, c := range comes {
					next[min(most, j+n)] += p * q * c
				}
			}
		}
		copy(v, next)
	}
	total := 0.0
	for n := 0; ; n++ {
		t := float64(n) * cell
		if t >= spread+8*mean {
			break
		}
		b := rate * max(0, min(cell, spread-t))
		comes := [3]float64{math.Exp(-b), b * math.Exp(-b)}
		comes[2] = 1 - comes[0] - comes[1]
		for i := range waiting {
			step(waiting[i], comes)
		}
		step(free, comes)
		due := waiting[n%waits]
		for i := range due {
			both := due[i] + free[i]
			if i == 0 {
				free[0], due[0] = both, 0
				continue
			}
			due[i], free[i] = both, 0
			total += both
		}
	}
	return total
}

// steady is the same of a stream that goes on evenly.
func (k *loneKey) steady(rate float64) float64 {
	a := math.Exp(-k.interval / k.mean)
	busy := rate * k.mean
	goes := 0.0
	if idle := -math.Expm1(-busy); idle > 0 {
		goes = 1 - (math.Exp(-busy)-math.Exp(-busy*(2-a)))/idle
	}
	return k.group.Seconds / (k.interval + (1-goes)/rate)
}

func choose(n, k int) float64 {
	c := 1.0
	for i := range k {
		c = c * float64(n-i) / float64(i+1)
	}
	return math.Round(c)
}
