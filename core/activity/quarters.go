package activity

import (
	"math"
	"time"
)

// quarters is how often events begin in each quarter of each hour of the week, where a rate that changes by the quarter tells
// more than one by the hour, by the same criterion as hours are held against each other; nil where it does not. A lesson that
// ends, or a train that leaves, at a quarter past is no group.
func (f *Fitted) quarters(events []Event, from, to time.Time, counts, exposure *[hours]float64) func(t time.Time) float64 {
	var byQuarter [4][hours]float64
	for _, e := range events {
		if !e.Start.Before(from) && e.Start.Before(to) {
			at := e.Start.In(from.Location())
			byQuarter[at.Minute()/15][hourOfWeek(at)]++
		}
	}
	best, pattern := f.Pattern.score(counts, exposure), Pattern("")
	for _, p := range []Pattern{Constant, DaysAlike, WorkAndRest, EveryHour} {
		k, total, likelihood := 0.0, 0.0, 0.0
		for q := range byQuarter {
			n, t := p.sums(&byQuarter[q], exposure)
			for c := range n {
				if t[c] > 0 {
					k++
					total += t[c] / 4
					if n[c] > 0 {
						likelihood += n[c] * math.Log(4*n[c]/t[c])
					}
				}
			}
		}
		if score := -2*likelihood + k*math.Log(max(total, 2)); score < best {
			best, pattern = score, p
		}
	}
	if pattern == "" {
		return nil
	}
	var rates [4][hours]float64
	for q := range rates {
		n, t := pattern.sums(&byQuarter[q], exposure)
		for h := range rates[q] {
			if c := pattern.cell(h); t[c] > 0 {
				rates[q][h] = 4 * n[c] / t[c]
			}
		}
	}
	return func(t time.Time) float64 { return rates[t.Minute()/15][hourOfWeek(t)] }
}
