package handover

import (
	"math/rand/v2"
	"slices"
	"testing"
)

// TestLeastLossIsThatOfTryingAll holds the dynamic program against every way to give a day's cells duties.
func TestLeastLossIsThatOfTryingAll(t *testing.T) {
	random := rand.New(rand.NewPCG(17, 1))
	for range 400 {
		cells, duties, most := 1+random.IntN(6), 1+random.IntN(3), 1+random.IntN(4)
		cost := make([][]loss, cells)
		for c := range cost {
			cost[c] = make([]loss, duties)
			for d := range duties {
				cost[c][d] = loss{evidence: int64(random.IntN(3)), bytes: int64(random.IntN(3)), minutes: random.IntN(3)}
			}
		}
		sum := func(days []int) (l loss) {
			for c, d := range days {
				l = l.plus(cost[c][d])
				if c == 0 || days[c-1] != d {
					l.periods++
				}
			}
			return l
		}
		best := never
		var try func(days []int)
		try = func(days []int) {
			if len(days) == cells {
				if l := sum(days); l.periods <= most && l.less(best) {
					best = l
				}
				return
			}
			for d := range duties {
				try(append(slices.Clone(days), d))
			}
		}
		try(nil)
		got := leastLoss(cost, most)
		if l := sum(got); l != best {
			t.Fatalf("%d cells, %d duties, %d periods: %+v of %v, want %+v\n%+v", cells, duties, most, l, got, best, cost)
		}
	}
}

// TestADayTakesTheFewestEntries holds the moves of one channel against a search over all states of four days.
func TestADayTakesTheFewestEntries(t *testing.T) {
	const days, kinds = 4, 4 // the kind 0 stands for how recorders are delivered
	periods := [kinds]int{1, 1, 2, 3}
	from := func(n int) (out [7]string) {
		for d := range out {
			if d < days {
				out[d] = string(rune('a' + n%kinds))
				n /= kinds
			}
		}
		return out
	}
	states := 1
	for range days {
		states *= kinds
	}
	digit := func(n, d int) int {
		for range d {
			n /= kinds
		}
		return n % kinds
	}
	with := func(n, d, kind int) int {
		place := 1
		for range d {
			place *= kinds
		}
		return n + (kind-digit(n, d))*place
	}
	for begin := range states {
		if begin%7 != 0 && begin != 0 {
			continue
		}
		least := make([]int, states)
		for i := range least {
			least[i] = 1 << 20
		}
		least[begin] = 0
		for cost := 0; cost < 14; cost++ {
			for s := range states {
				if least[s] != cost {
					continue
				}
				for d := range days {
					for k := range kinds {
						n := with(s, d, k)
						least[n] = min(least[n], cost+periods[k])
					}
					for set := 1; set < 1<<days; set++ {
						n := s
						for o := range days {
							if set>>o&1 == 1 {
								n = with(n, o, digit(s, d))
							}
						}
						least[n] = min(least[n], cost+1)
					}
				}
			}
		}
		for end := range states {
			list, got := moves(from(begin), from(end), func(d int) int { return periods[digit(end, d)] }, true)
			if got != least[end] {
				t.Fatalf("%v to %v: %d entries (%v), want %d", from(begin), from(end), got, list, least[end])
			}
			now := from(begin)
			for _, m := range list {
				if len(m.to) == 0 {
					now[m.day] = from(end)[m.day]
				}
				for _, d := range m.to {
					now[d] = now[m.day]
				}
			}
			if now != from(end) {
				t.Fatalf("%v to %v: %v comes to %v", from(begin), from(end), list, now)
			}
		}
	}
}
