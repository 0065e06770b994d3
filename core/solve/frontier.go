package solve

import (
	"cmp"
	"slices"

	"wakefield.example/core/storage"
)

// Point is one set of choices, with what it comes to.
type Point struct {
	Days      float64  // typically kept by the pool that keeps least of those in question; see Bounded
	Bounded   bool     // whether it is ever full
	Loss      float64  // missed events a day more, by the ask's weights
	Gigabytes float64  // a day, of all channels
	Price     float64  // of the drives that are bought, as far as prices are known
	picks     []int    // of each channel
	drives    []Drives // that are bought
}

// buys adds what is bought for the pools.
func (at *Point) buys(options [][]Drives, picks []int) {
	for k, n := range picks {
		if d := options[k][n]; len(d.Edits) > 0 {
			at.drives = append(at.drives, d)
			at.Price += d.Price
		}
	}
}

// Frontier is the way from the plan as it is to the most that can be kept: each point has more days than the one before, at
// the least loss that going by slopes finds. Where several pools are in question, the one that keeps least takes the next
// step.
//
// Where more drives may be bought, the pools have as many as the money allows from the second point on.
func (p *Prepared) Frontier(ask *Ask) []Point {
	pools := p.pools()
	asIs := slices.Clone(pools)
	bought := p.largest(ask, pools, p.room(ask, pools))
	drives := p.room(ask, pools).options
	for k := range pools {
		pools[k].usable = drives[k][bought[k]].Usable
	}
	picks := make([]int, len(p.plan.Channels))
	steps := make([][]pick, len(pools))
	loss := 0.0
	for k := range pools {
		gifts, list := p.slopes(ask, &pools[k])
		for i, to := range gifts { // what loses nothing and saves is taken at once
			picks[i] = to
			loss += p.loss(ask, i, &p.choices[i][to])
		}
		steps[k] = list
	}
	out := []Point{p.point(asIs, make([]int, len(picks)), 0)}
	point := func() Point {
		at := p.point(pools, picks, loss)
		at.buys(drives, bought)
		return at
	}
	if first := point(); first.Days > out[0].Days || !first.Bounded && out[0].Bounded {
		out = append(out, first)
	}
	days := make([]storage.Days, len(pools))
	for k := range pools {
		days[k] = p.days(&pools[k], picks)
	}
	for {
		least := -1
		for k := range pools {
			if len(steps[k]) > 0 && (least < 0 || days[k] < days[least]) {
				least = k
			}
		}
		if least < 0 || slices.ContainsFunc(pools, func(x pool) bool {
			k := slices.IndexFunc(pools, func(y pool) bool { return y.id == x.id })
			return len(steps[k]) == 0 && days[k] < days[least] // nothing more can be done for the one that keeps least
		}) {
			return out
		}
		st := steps[least][0]
		steps[least] = steps[least][1:]
		loss += p.loss(ask, st.channel, &p.choices[st.channel][st.to]) - p.loss(ask, st.channel, &p.choices[st.channel][picks[st.channel]])
		picks[st.channel] = st.to
		days[least] = p.days(&pools[least], picks)
		if next := point(); next.Days > out[len(out)-1].Days || !next.Bounded && out[len(out)-1].Bounded {
			out = append(out, next)
		}
	}
}

// pick is a step to another choice of a channel.
type pick struct {
	channel, to int
	slope       float64
}

// slopes are the steps down the hulls of a pool's channels, by what is lost for a byte saved; and choices that lose nothing.
func (p *Prepared) slopes(ask *Ask, of *pool) (gifts map[int]int, steps []pick) {
	gifts = make(map[int]int)
	for _, i := range of.channels {
		var options []Option
		var at []int
		for k := range p.choices[i] {
			if p.allowed(ask, i, k) {
				options, at = append(options, Option{float64(p.choices[i][k].Daily), p.loss(ask, i, &p.choices[i][k])}), append(at, k)
			}
		}
		list := useful(options)
		if first := at[list[0].at]; first != 0 {
			gifts[i] = first
		}
		for _, st := range hull(list) {
			steps = append(steps, pick{i, at[list[st.to].at], st.loses / st.saves})
		}
	}
	slices.SortStableFunc(steps, func(a, b pick) int { return cmp.Compare(a.slope, b.slope) })
	return gifts, steps
}

func (p *Prepared) point(pools []pool, picks []int, loss float64) Point {
	least := storage.Forever
	for k := range pools {
		least = min(least, p.days(&pools[k], picks))
	}
	out := Point{Days: float64(least), Bounded: least.Bounded(), Loss: loss, picks: slices.Clone(picks)}
	for i := range picks {
		out.Gigabytes += float64(p.choices[i][picks[i]].Daily / storage.GB)
	}
	return out
}
