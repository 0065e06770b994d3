package storage

import "slices"

// Series is what one channel, or several with the same limits, write hour after hour.
type Series struct {
	Hourly []Bytes // in each hour, from some moment on
	AtMost Days    // age limit; 0 for none
	Quota  Bytes   // most that it may hold; 0 for none
}

// LookBack is the ring of a pool looked back on from every hour.
type LookBack struct {
	// Days kept at the end of each hour. Where the pool was never full until then it is
	// as long as there is anything to look back on.
	Days []Days
	Full int // the first hour at whose end the pool is full, -1 for never
}

// Follow fills a pool hour by hour: the oldest footage of any channel goes first, and
// what went does not come back. All series have as many hours.
func Follow(usable Bytes, all []Series) LookBack {
	hours := 0
	for _, s := range all {
		hours = max(hours, len(s.Hourly))
	}
	out := LookBack{Days: make([]Days, hours), Full: -1}
	rings := make([]ring, 0, len(all))
	for _, group := range together(all) {
		rings = append(rings, newRing(group, hours))
	}
	held := func(now, since float64) Bytes {
		sum := Bytes(0)
		for i := range rings {
			sum += rings[i].held(now, since)
		}
		return sum
	}
	oldest := 0.0 // hours since the beginning at which the oldest footage was written
	for h := range hours {
		now := float64(h + 1)
		for held(now, oldest) > usable {
			if out.Full < 0 {
				out.Full = h
			}
			next := float64(int(oldest) + 1)
			if before, after := held(now, oldest), held(now, next); after <= usable && before > after {
				oldest += (next - oldest) * float64((before-usable)/(before-after))
				break
			}
			oldest = next
		}
		out.Days[h] = Days(now-oldest) / 24
	}
	return out
}

// together adds up series without a quota that have the same age limit.
func together(all []Series) []Series {
	var out []Series
	for _, s := range all {
		i := slices.IndexFunc(out, func(o Series) bool { return s.Quota == 0 && o.Quota == 0 && s.AtMost == o.AtMost })
		if i < 0 {
			s.Hourly = slices.Clone(s.Hourly)
			out = append(out, s)
			continue
		}
		for h, b := range s.Hourly {
			out[i].Hourly[h] += b
		}
	}
	return out
}

// ring is a series by what was written until each hour.
type ring struct {
	until []Bytes
	age   float64 // hours; 0 for no limit
	quota Bytes
}

func newRing(s Series, hours int) ring {
	r := ring{until: make([]Bytes, hours+1), age: float64(s.AtMost) * 24, quota: s.Quota}
	for h := range hours {
		r.until[h+1] = r.until[h]
		if h < len(s.Hourly) {
			r.until[h+1] += s.Hourly[h]
		}
	}
	return r
}

func (r *ring) at(hour float64) Bytes {
	i := min(int(hour), len(r.until)-2)
	return r.until[i] + Bytes(hour-float64(i))*(r.until[i+1]-r.until[i])
}

// held is what it holds now of what was written since a moment.
func (r *ring) held(now, since float64) Bytes {
	if r.age > 0 {
		since = max(since, now-r.age)
	}
	b := r.at(now) - r.at(since)
	if r.quota > 0 {
		b = min(b, r.quota)
	}
	return b
}
