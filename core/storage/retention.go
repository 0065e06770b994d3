package storage

import (
	"cmp"
	"math"
	"slices"
)

// HoursOfWeek is the number of hours in the week.
const HoursOfWeek = 168

// Load is what one channel asks of a pool.
type Load struct {
	Hourly [HoursOfWeek]Bytes // written in each hour of the week, from Monday 00:00
	AtMost Days               // age limit; 0 for none
	Quota  Bytes              // most that the channel may hold; 0 for none
}

// Daily is the mean written in a day.
func (l *Load) Daily() Bytes { return l.weekly() / 7 }

func (l *Load) weekly() Bytes {
	sum := Bytes(0)
	for _, b := range l.Hourly {
		sum += b
	}
	return sum
}

// age is the age limit, Forever where there is none.
func (l *Load) age() Days {
	if l.AtMost > 0 {
		return l.AtMost
	}
	return Forever
}

// cap is when the load stops growing at its mean rate: at its age limit or when its
// quota is full.
func (l *Load) cap() Days { return Limit(l.Daily(), l.AtMost, l.Quota) }

// Limit is how long a channel's own limits let footage live, at a mean rate.
func Limit(daily Bytes, atMost Days, quota Bytes) Days {
	limit := Forever
	if atMost > 0 {
		limit = atMost
	}
	if quota > 0 && daily > 0 {
		limit = min(limit, Days(quota/daily))
	}
	return limit
}

// Rate is a load by its mean alone.
type Rate struct {
	Daily Bytes
	Limit Days // see Limit; Forever for none
}

// Typical is the number of days H that a pool holds: the oldest footage of any
// channel goes first, so
//
//	Σ over channels daily · min(H, limit) = usable
//
// It is Forever where the limits keep the pool from filling. The rates are sorted
// in place by limit.
func Typical(usable Bytes, rates []Rate) Days {
	slices.SortFunc(rates, func(a, b Rate) int { return cmp.Compare(a.Limit, b.Limit) })
	growing, held := Bytes(0), Bytes(0)
	for _, r := range rates {
		growing += r.Daily
	}
	for _, r := range rates {
		if growing <= 0 {
			break
		}
		if h := Days((usable - held) / growing); h <= r.Limit {
			return h
		}
		growing -= r.Daily
		held += r.Daily * Bytes(r.Limit)
	}
	return Forever
}

// Held is what channels hold when all footage that their own limits let live is h days old:
//
//	Σ over channels daily · min(h, limit)
//
// It is the usable space at which [Typical] is h, where no limit keeps the pool from filling.
func Held(h Days, rates []Rate) Bytes {
	held := Bytes(0)
	for _, r := range rates {
		if r.Daily > 0 {
			held += r.Daily * Bytes(min(h, r.Limit))
		}
	}
	return held
}

// Worst is the shortest retention over all "now"s of the week: looking back from
// Sunday night is not looking back from Friday noon. perChannel holds what each
// load's own limits and the pool leave it at worst.
func Worst(usable Bytes, loads []Load) (pool Days, perChannel []Days) {
	perChannel = make([]Days, len(loads))
	rates := make([]Rate, len(loads))
	pasts := make([]past, len(loads))
	for i := range loads {
		rates[i] = Rate{loads[i].Daily(), loads[i].cap()}
		pasts[i] = newPast(&loads[i].Hourly)
		perChannel[i] = loads[i].age()
		if q := loads[i].Quota; q > 0 {
			perChannel[i] = min(perChannel[i], pasts[i].shortest(q))
		}
	}
	pool = worstOf(usable, loads, pasts, Typical(usable, rates))
	for i := range perChannel {
		perChannel[i] = min(perChannel[i], pool)
	}
	return pool, perChannel
}

// worstOf searches every full hour for the shortest look back that fills the pool.
// A limit further away than two weeks from the typical figure cannot bind, nor
// a nearer one be left; such loads are added up once.
func worstOf(usable Bytes, loads []Load, pasts []past, typical Days) Days {
	if !typical.Bounded() {
		return worstWhereTypicalIsForever(usable, loads, pasts)
	}
	var free [HoursOfWeek]Bytes
	var bound []int
	for i := range loads {
		if loads[i].cap() > typical+14 && loads[i].Quota == 0 {
			for h, b := range loads[i].Hourly {
				free[h] += b
			}
		} else {
			bound = append(bound, i)
		}
	}
	total := newPast(&free)
	worst := Forever
	for now := range HoursOfWeek {
		worst = min(worst, lookBack(usable, typical, func(h Days) Bytes {
			sum := total.back(now, h)
			for _, i := range bound {
				sum += loads[i].held(&pasts[i], now, h)
			}
			return sum
		}))
	}
	return worst
}

// worstWhereTypicalIsForever finds whether the pool fills at the worst moment all
// the same, when the limits leave it just large enough on average.
func worstWhereTypicalIsForever(usable Bytes, loads []Load, pasts []past) Days {
	worst := Forever
	for now := range HoursOfWeek {
		bytes := func(h Days) Bytes {
			sum := Bytes(0)
			for i := range loads {
				sum += loads[i].held(&pasts[i], now, h)
			}
			return sum
		}
		if longest := longestLimit(loads) + 14; bytes(longest) > usable {
			worst = min(worst, lookBack(usable, longest, bytes))
		}
	}
	return worst
}

func longestLimit(loads []Load) Days {
	longest := Days(0)
	for i := range loads {
		if c := loads[i].cap(); c.Bounded() {
			longest = max(longest, c)
		}
	}
	return longest
}

// held is what the load holds of the last h days.
func (l *Load) held(p *past, now int, h Days) Bytes {
	b := p.back(now, min(h, l.age()))
	if l.Quota > 0 {
		b = min(b, l.Quota)
	}
	return b
}

// lookBack finds h with bytes(h) = usable. bytes rises, and departs from its mean
// by a week's worth at most, so a bracket about the guess is soon found.
func lookBack(usable Bytes, guess Days, bytes func(Days) Bytes) Days {
	low, high := max(0, guess-1), guess+1
	for step := Days(1); bytes(low) > usable && low > 0; step *= 2 {
		low = max(0, low-step)
	}
	for step := Days(1); bytes(high) < usable; step *= 2 {
		if step > 1e7 {
			return Forever
		}
		high += step
	}
	atLow, atHigh := bytes(low), bytes(high)
	side := 0
	for range 100 {
		if high-low < 1e-7*max(1, high) || atHigh <= atLow {
			break
		}
		// The secant, with the Illinois rule against an end that never moves.
		at := low + (high-low)*Days((usable-atLow)/(atHigh-atLow))
		b := bytes(at)
		switch {
		case math.Abs(float64(b-usable)) <= 1e-12*float64(usable):
			return at
		case b < usable:
			low, atLow = at, b
			if side == -1 {
				atHigh = usable + (atHigh-usable)/2
			}
			side = -1
		default:
			high, atHigh = at, b
			if side == 1 {
				atLow = usable + (atLow-usable)/2
			}
			side = 1
		}
	}
	return (low + high) / 2
}
