package uplink

import (
	"cmp"
	"hash/fnv"
	"math/rand/v2"
	"slices"

	"wakefield.example/core/activity"
	"wakefield.example/core/week"
)

// event is something that happens; chance decides whether detection notices it.
type event struct{ from, to, chance float64 }

// drawn is what a process does in so many weeks, in order; many times as often where often is above 1.
func drawn(p activity.Process, name string, weeks int, often float64) (out []event) {
	h := fnv.New64a()
	h.Write([]byte(name))
	rng := rand.New(rand.NewPCG(h.Sum64(), 0x75706c696e6b))
	size := 1.0
	if p.Group.Grouped() {
		size = p.Group.Size
	}
	add := func(at float64) {
		out = append(out, event{at, at + rng.ExpFloat64()*p.Mean, rng.Float64()})
	}
	left := rng.ExpFloat64() // until the next one, in expected numbers
	for w := range weeks {
		for i := range p.Intensity.Len() {
			from, rate := p.Intensity.Piece(i)
			room := p.Intensity.End(i) - from
			if rate *= often / size; rate <= 0 {
				continue
			}
			at := 0.0
			for ; left <= (room-at)*rate; left = rng.ExpFloat64() {
				at += left / rate
				begin := float64(w)*week.Seconds + from + at
				if size == 1 {
					add(begin)
					continue
				}
				events := 1
				for more := rng.ExpFloat64(); more < size-1; more += rng.ExpFloat64() {
					events++
				}
				for range events {
					add(begin + rng.Float64()*p.Group.Seconds)
				}
			}
			left -= (room - at) * rate
		}
	}
	if size > 1 {
		slices.SortFunc(out, func(a, b event) int { return cmp.Compare(a.from, b.from) })
	}
	return out
}

// trigger is when an event becomes a trigger; ok is false where it does not.
func trigger(e event, by []activity.Detection) (at float64, ok bool) {
	for k := range by {
		d := &by[k]
		at = e.from + d.MinSeconds
		if e.chance < d.Catch && at < e.to && d.Hours.At(minute(at)) {
			return at, true
		}
	}
	return 0, false
}

// minute is the minute of the week at a moment of any week.
func minute(at float64) week.Minute { return week.Minute(int(at/60)) % week.Length }
