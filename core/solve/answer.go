package solve

import (
	"cmp"
	"context"
	"maps"
	"slices"

	"wakefield.example/core/edit"
	"wakefield.example/core/storage"
)

// Answer is the least that must be lost to keep footage for a number of days.
type Answer struct {
	Point
	Reached bool
	Exact   bool        // whether nothing less can be lost; else it is the best that was found
	Edits   []edit.Edit // that make it so
	Changes []Change

	Unpriced []float64 // sizes of drives, in TB, that were left out as nobody says what they cost

	// Where it is not reached: the most that can be kept, which the point is, and the channel whose lock costs most days.
	Lock     string
	LockDays float64
}

// Change is a change in words, and which channels it is for.
type Change struct {
	Words    string
	Channels []string // ids
	Range    *Saving  // how much of what they write is saved by fewer frames; nil where that is not doubtful
}

// mostNodes of a search for the least loss.
const mostNodes = 20_000

// Answer finds it. It is given up with the error of the context when that ends.
func (p *Prepared) Answer(ctx context.Context, ask *Ask) (Answer, error) {
	out := Answer{Reached: true, Exact: true}
	pools := p.pools()
	drives := p.room(ask, pools)
	out.Unpriced = drives.unpriced
	losses := make([][]poolLoss, len(pools))
	for k := range pools {
		for n, d := range drives.options[k] {
			if ctx.Err() != nil {
				return Answer{}, ctx.Err()
			}
			of := pools[k]
			of.usable = d.Usable
			if w, ok := p.leastOf(ask, &of); ok {
				w.drives = n
				losses[k] = append(losses[k], w)
			}
		}
		out.Reached = out.Reached && len(losses[k]) > 0
	}
	if out.Reached {
		out.Reached = p.settle(ask, pools, drives, losses, &out)
	}
	if !out.Reached {
		frontier := p.Frontier(ask)
		out.Point, out.Exact = frontier[len(frontier)-1], true
		p.costliestLock(ask, &out)
	}
	out.Edits, out.Changes = p.edits(&out.Point)
	return out, ctx.Err()
}

// poolLoss is the least loss of a pool with some drives.
type poolLoss struct {
	drives int
	picks  map[int]int // of its channels
	loss   float64
	exact  bool
}

// leastOf finds what a pool's channels must lose for the days asked.
func (p *Prepared) leastOf(ask *Ask, of *pool) (w poolLoss, ok bool) {
	things, at := p.things(ask, of, storage.Days(ask.Days))
	found, exact, ok := Least(things, float64(of.usable), mostNodes)
	if !ok {
		return w, false
	}
	w = poolLoss{exact: exact, picks: make(map[int]int)}
	for n, i := range of.channels {
		w.picks[i] = at[n][found[n]]
		w.loss += p.loss(ask, i, &p.choices[i][w.picks[i]])
	}
	return w, true
}

// settle picks the drives of all pools together: of what the money allows the least loss, of these the cheapest.
func (p *Prepared) settle(ask *Ask, pools []pool, drives room, losses [][]poolLoss, out *Answer) bool {
	things := make([][]Option, len(pools))
	budget := 0.0
	for k, list := range losses {
		dearest := 0.0
		for _, w := range list {
			const little = 1e-9 // of an event a day, for each unit of money and each purchase
			price := drives.options[k][w.drives].Price
			if w.drives > 0 {
				things[k] = append(things[k], Option{price, w.loss + little*(price+float64(w.drives))})
			} else {
				things[k] = append(things[k], Option{0, w.loss})
			}
			dearest = max(dearest, price)
		}
		budget += dearest
	}
	if ask.Money != nil {
		budget = min(budget, *ask.Money)
	}
	found, exact, ok := Least(things, budget, mostNodes)
	if !ok {
		return false
	}
	picks, bought := make([]int, len(p.plan.Channels)), make([]int, len(pools))
	loss := 0.0
	out.Exact = exact
	for k := range pools {
		w := losses[k][found[k]]
		out.Exact = out.Exact && w.exact
		loss += w.loss
		bought[k] = w.drives
		pools[k].usable = drives.options[k][w.drives].Usable
		for i, n := range w.picks {
			picks[i] = n
		}
	}
	out.Point = p.point(pools, picks, loss)
	out.Point.buys(drives.options, bought)
	return true
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
			options = append(options, Option{float64(r.Daily) * float64(min(days, r.Limit)), p.loss(ask, i, &p.choices[i][k]) +
				little*float64(len(p.choices[i][k].Words))})
			places = append(places, k)
		}
		things, at = append(things, options), append(at, places)
	}
	return things, at
}

// costliestLock finds the locked channel without whose lock most days could be kept.
func (p *Prepared) costliestLock(ask *Ask, out *Answer) {
	pools := p.pools()
	room := p.room(ask, pools)
	for k, n := range p.largest(ask, pools, room) {
		pools[k].usable = room.options[k][n].Usable
	}
	most := func(ask *Ask) storage.Days {
		least := storage.Forever
		for k := range pools {
			least = min(least, p.most(ask, &pools[k]))
		}
		return least
	}
	now := most(ask)
	free := *ask
	free.Locked = maps.Clone(ask.Locked)
	for i := range p.plan.Channels {
		id := p.plan.Channels[i].ID
		if !ask.Locked[id] {
			continue
		}
		free.Locked[id] = false
		const century = 36_500 // days; what is never full counts as that
		if then := min(most(&free), century); float64(then-now) > out.LockDays {
			out.Lock, out.LockDays = id, float64(then-now)
		}
		free.Locked[id] = true
	}
}

// Edits make a point of the frontier of a plan.
func (p *Prepared) Edits(at *Point) ([]edit.Edit, []Change) { return p.edits(at) }

// edits are those that make picks so, with the changes in words, those of most channels first.
func (p *Prepared) edits(at *Point) (out []edit.Edit, changes []Change) {
	for _, d := range at.drives {
		out = append(out, d.Edits...)
	}
	known := make(map[string]int)
	type sums struct{ now, least, most storage.Bytes }
	saved := make(map[int]*sums)  // by change
	made := make(map[string]bool) // duties that are added
	for i, k := range at.picks {
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
			if now := p.choices[i][0].Daily; c.frames && c.most > c.least {
				if saved[n] == nil {
					saved[n] = new(sums)
				}
				saved[n].now, saved[n].least, saved[n].most = saved[n].now+now, saved[n].least+c.least, saved[n].most+c.most
			}
		}
	}
	for n, s := range saved {
		changes[n].Range = &Saving{max(0, 100*float64(1-s.most/s.now)), max(0, 100*float64(1-s.least/s.now))}
	}
	slices.SortStableFunc(changes, func(a, b Change) int { return cmp.Compare(len(b.Channels), len(a.Channels)) })
	for k := range at.drives {
		changes = slices.Insert(changes, k, Change{Words: at.drives[k].Words})
	}
	return out, changes
}
