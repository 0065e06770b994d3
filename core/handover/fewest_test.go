package handover

import (
	"math/rand/v2"
	"testing"
)

// TestThreeChannelsTakeTheFewestEntries holds the order that is found against a search over all states of three channels with
// three days each, of three kinds beside the one that recorders are delivered with.
func TestThreeChannelsTakeTheFewestEntries(t *testing.T) {
	const channels, days, kinds = 3, 3, 4
	periods := [kinds]int{1, 1, 2, 3}
	const cells = channels * days
	states := 1
	place := make([]int, cells+1)
	for c := range cells {
		place[c] = states
		states *= kinds
	}
	digit := func(s, c int) int { return s / place[c] % kinds }
	with := func(s, c, kind int) int { return s + (kind-digit(s, c))*place[c] }
	week := place[days]
	least := make([]int, states)
	for i := range least {
		least[i] = 1 << 20
	}
	least[0] = 0
	buckets := [40][]int{0: {0}}
	reach := func(s, cost int) {
		if cost < least[s] {
			least[s] = cost
			buckets[cost] = append(buckets[cost], s)
		}
	}
	for cost := range buckets {
		for _, s := range buckets[cost] {
			if least[s] != cost {
				continue
			}
			for ch := range channels {
				for d := range days {
					c := ch*days + d
					for k := range kinds {
						reach(with(s, c, k), cost+periods[k])
					}
					for set := 1; set < 1<<days; set++ {
						n := s
						for o := range days {
							if set>>o&1 == 1 {
								n = with(n, ch*days+o, digit(s, c))
							}
						}
						reach(n, cost+1)
					}
				}
				own := s / place[ch*days] % week
				for set := 1; set < 1<<channels; set++ {
					n := s
					for o := range channels {
						if set>>o&1 == 1 {
							n += (own - n/place[o*days]%week) * place[o*days]
						}
					}
					reach(n, cost+1)
				}
			}
		}
	}
	random := rand.New(rand.NewPCG(5, 17))
	worse := 0
	for range 400 {
		end := random.IntN(states)
		text := func(ch int) []string {
			out := make([]string, days)
			for d := range out {
				out[d] = string(rune('a' + digit(end, ch*days+d)))
			}
			return out
		}
		s, _ := gather(channels, text)
		s.copies, s.between = true, mixtures
		s.root = []string{"a", "a", "a"}
		s.entries = func(from, to []string) int {
			_, cost := moves(seven(from), seven(to), func(d int) int { return periods[to[d][0]-'a'] }, true)
			return cost
		}
		nodes, got := s.fewest()
		if got != least[end] {
			worse++
			if worse < 12 {
				t.Errorf("%v %v %v: %d entries, want %d: %+v", text(0), text(1), text(2), got, least[end], nodes)
			}
		}
	}
	if worse > 0 {
		t.Errorf("%d of 400", worse)
	}
}

// seven is a week whose other days are as they are.
func seven(days []string) (out [7]string) {
	copy(out[:], days)
	return out
}
