package solve

import (
	"cmp"
	"context"
	"slices"

	"wakefield/core/edit"
	"wakefield/core/storage"
)

// Point is one set of choices, with what it comes to.
type Point struct {
	Days      float64 // typically kept by the pool that keeps least of those in question; see Bounded
	Bounded   bool    // whether it is ever full
	Loss      float64 // missed events a day more, by the ask's weights
	Gigabytes float64 // a day, of all channels
	picks     []int   // of each channel
}

// Lever is one choice of one channel by itself.
type Lever struct {
	Channel string
	Choice  *Choice
	More    float64 // days of the channel's pool
	Loss    float64
}

// leastWon is how many days a lever wins at least.
const leastWon = 0.05

// Levers are the single changes that win days, most days for what is lost first. Of equal gain those that lose nothing come
// first, most days first.
func (p *Prepared) Levers(ask *Ask) (out []Lever) {
	for _, of := range p.pools() {
		picks := make([]int, len(p.plan.Channels))
		now := p.days(&of, picks)
		if !now.Bounded() {
			continue
		}
		for _, i := range of.channels {
			for k := 1; k < len(p.choices[i]); k++ {
				if !p.allowed(ask, i, k) {
					continue
				}
				picks[i] = k
				then := p.days(&of, picks)
				picks[i] = 0
				if float64(then-now) < leastWon || !then.Bounded() {
					continue
				}
				out = append(out, Lever{p.plan.Channels[i].ID, &p.choices[i][k], float64(then - now), p.loss(ask, i, &p.choices[i][k])})
			}
		}
	}
	slices.SortStableFunc(out, func(a, b Lever) int {
		free := func(l *Lever) bool { return l.Loss <= 0 }
		switch {
		case free(&a) != free(&b):
			if free(&a) {
				return -1
			}
			return 1
		case free(&a):
			return cmp.Compare(b.More, a.More)
		}
		return cmp.Compare(b.More/b.Loss, a.More/a.Loss)
	})
	return out
}

// Frontier is the way from the plan as it is to the most that can be kept: each point has more days than the one before, at
// the least loss that going by slopes finds. Where several pools are in question, the one that keeps least takes the next
// step.
func (p *Prepared) Frontier(ask *Ask) []Point {
	pools := p.pools()
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
	out := []Point{p.point(pools, make([]int, len(picks)), 0)}
	if first := p.point(pools, picks, loss); first.Days > out[0].Days || !first.Bounded && out[0].Bounded {
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
		if next := p.point(pools, picks, loss); next.Days > out[len(out)-1].Days || !next.Bounded && out[len(out)-1].Bounded {
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

// Answer is the least that must be lost to keep footage for a number of days.
type Answer struct {
	Point
	Reached bool
	Exact   bool        // whether nothing less can be lost; else it is the best that was found
	Edits   []edit.Edit // that make it so
	Changes []Change

	// Where it is not reached: the most that can be kept, which the point is, and the channel whose lock costs most days.
	Lock     string
	LockDays float64
}

// Change is a change in words, and which channels it is for.
type Change struct {
	Words    string
	Channels []string // ids
}

// mostNodes of a search for the least loss.
const mostNodes = 20_000

// Answer finds it. It is given up with the error of the context when that ends.
func (p *Prepared) Answer(ctx context.Context, ask *Ask) (Answer, error) {
	picks := make([]int, len(p.plan.Channels))
	out := Answer{Reached: true, Exact: true}
	pools := p.pools()
	loss := 0.0
	for k := range pools {
		if ctx.Err() != nil {
			return Answer{}, ctx.Err()
		}
		of := &pools[k]
		things, at := p.things(ask, of, storage.Days(ask.Days))
		found, exact, ok := Least(things, float64(of.usable), mostNodes)
		out.Exact = out.Exact && exact
		if !ok {
			out.Reached = false
			break
		}
		for n, i := range of.channels {
			picks[i] = at[n][found[n]]
			loss += p.loss(ask, i, &p.choices[i][picks[i]])
		}
	}
	if !out.Reached {
		frontier := p.Frontier(ask)
		out.Point, out.Exact = frontier[len(frontier)-1], true
		p.costliestLock(ask, &out)
		out.Edits, out.Changes = p.edits(out.picks)
		return out, ctx.Err()
	}
	out.Point = p.point(pools, picks, loss)
	out.Edits, out.Changes = p.edits(picks)
	return out, nil
}

// things are the options of a pool's channels for a number of days: what each takes of the pool, and loses. Among equals
// fewer changes are better.
func (p *Prepared) things(ask *Ask, of *pool, days storage.Days) (things [][]Option, at [][]int) {
	for _, i := range of.channels {
		var options []Option
		var places []int
		for k := range p.choices[i] {
			if !p.allowed(ask, i, k) {
				continue
			}
			r := p.rate(i, k)
			const little = 1e-7 // of an event a day, for each change
			options = append(options, Option{float64(r.Daily) * float64(min(days, r.Limit)), p.loss(ask, i, &p.choices[i][k]) + little*float64(len(p.choices[i][k].Words))})
			places = append(places, k)
		}
		things, at = append(things, options), append(at, places)
	}
	return things, at
}

// costliestLock finds the locked channel without whose lock most days could be kept.
func (p *Prepared) costliestLock(ask *Ask, out *Answer) {
	for i := range p.plan.Channels {
		id := p.plan.Channels[i].ID
		if !ask.Locked[id] {
			continue
		}
		free := *ask
		free.Locked = make(map[string]bool)
		for other := range ask.Locked {
			free.Locked[other] = other != id
		}
		frontier := p.Frontier(&free)
		if most := frontier[len(frontier)-1]; most.Days-out.Days > out.LockDays {
			out.Lock, out.LockDays = id, most.Days-out.Days
		}
	}
}

// Edits make a point of the frontier of a plan.
func (p *Prepared) Edits(at *Point) ([]edit.Edit, []Change) { return p.edits(at.picks) }

// edits are those that make picks so, with the changes in words, those of most channels first.
func (p *Prepared) edits(picks []int) (out []edit.Edit, changes []Change) {
	known := make(map[string]int)
	made := make(map[string]bool) // duties that are added
	for i, k := range picks {
		c := &p.choices[i][k]
		for _, e := range c.Edits {
			if e.SetDuty != nil {
				if made[e.SetDuty.Duty.ID] {
					continue
				}
				made[e.SetDuty.Duty.ID] = true
			}
			out = append(out, e)
		}
		for _, words := range c.Words {
			n, ok := known[words]
			if !ok {
				n = len(changes)
				known[words] = n
				changes = append(changes, Change{Words: words})
			}
			changes[n].Channels = append(changes[n].Channels, p.plan.Channels[i].ID)
		}
	}
	slices.SortStableFunc(changes, func(a, b Change) int { return cmp.Compare(len(b.Channels), len(a.Channels)) })
	return out, changes
}
