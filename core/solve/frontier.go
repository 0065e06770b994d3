package solve

import (
	"cmp"
	"context"
	"maps"
	"slices"

	"wakefield/core/edit"
	"wakefield/core/plan"
	"wakefield/core/storage"
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

// Lever is one change by itself.
type Lever struct {
	Channel string      // id; empty for one of a pool
	Pool    string      // id of the pool that wins days
	Words   []string    // as a fitter would enter it, without the channel's name
	Edits   []edit.Edit // that make it so
	More    float64     // days of the pool
	Saves   float64     // GB a day
	Loss    float64
	Price   float64
	Priced  bool // whether the price is known, 0 for what costs nothing
}

// leastWon is how many days a lever wins at least.
const leastWon = 0.05

// Levers are the single changes that win days, most days for what is lost first. Of equal gain those that lose nothing come
// first, of these what costs nothing, most days first.
func (p *Prepared) Levers(ask *Ask) (out []Lever) {
	pools := p.pools()
	for k := range pools {
		of := &pools[k]
		picks := make([]int, len(p.plan.Channels))
		now := p.days(of, picks)
		if !now.Bounded() {
			continue
		}
		add := func(l Lever, then storage.Days) {
			if float64(then-now) < leastWon || !then.Bounded() {
				return
			}
			l.Pool, l.More = of.id, float64(then-now)
			out = append(out, l)
		}
		for _, i := range of.channels {
			for k := 1; k < len(p.choices[i]); k++ {
				if !p.free(ask, i, k) {
					continue
				}
				picks[i] = k
				then := p.days(of, picks)
				picks[i] = 0
				c := &p.choices[i][k]
				add(Lever{Channel: p.plan.Channels[i].ID, Words: c.Words, Edits: c.Edits, Saves: float64((p.choices[i][0].Daily - c.Daily) / storage.GB), Loss: p.loss(ask, i, c), Priced: true}, then)
			}
		}
		for _, d := range p.drivesOf(of.id, ask.MoreDrives)[1:] {
			if ask.Money != nil && (!d.Priced || d.Price > *ask.Money) {
				continue
			}
			larger := *of
			larger.usable = d.Usable
			add(Lever{Words: []string{d.Words}, Edits: d.Edits, Price: d.Price, Priced: d.Priced}, p.days(&larger, picks))
		}
		p.moves(ask, of, add)
	}
	slices.SortStableFunc(out, func(a, b Lever) int {
		rank := func(l *Lever) int {
			switch {
			case l.Loss > 0:
				return 2
			case l.Price > 0 || !l.Priced:
				return 1
			}
			return 0
		}
		if c := cmp.Compare(rank(&a), rank(&b)); c != 0 {
			return c
		}
		if a.Loss > 0 {
			return cmp.Compare(b.More/b.Loss, a.More/a.Loss)
		}
		return cmp.Compare(b.More, a.More)
	})
	return out
}

// moves are channels of a pool that could be kept on another of their recorder, which keeps longer afterwards than this one
// does, and what is required on it.
func (p *Prepared) moves(ask *Ask, of *pool, add func(Lever, storage.Days)) {
	none := make([]int, len(p.plan.Channels))
	for _, to := range p.all() {
		if to.id == of.id || p.plan.Pool(to.id) == nil {
			continue
		}
		for _, i := range of.channels {
			c := &p.plan.Channels[i]
			r := p.plan.Recorder(c.Recorder)
			if ask.Locked[c.ID] || !slices.ContainsFunc(r.Pools, func(x plan.Pool) bool { return x.ID == to.id }) {
				continue
			}
			left, joined := *of, to
			left.channels = slices.DeleteFunc(slices.Clone(of.channels), func(k int) bool { return k == i })
			joined.channels = append(slices.Clone(to.channels), i)
			there, needs := p.days(&joined, none), 0.0
			for _, k := range joined.channels {
				needs = max(needs, p.plan.Channels[k].Keep.AtLeastDays)
			}
			if then := p.days(&left, none); float64(there) >= needs && there >= then {
				add(Lever{Channel: c.ID, Words: []string{"kept on " + p.plan.Pool(to.id).Name}, Edits: []edit.Edit{{KeepOn: &edit.KeepOn{Channels: []string{c.ID}, Pool: to.id}}}, Priced: true}, then)
			}
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
}

// mostNodes of a search for the least loss.
const mostNodes = 20_000

// Answer finds it. It is given up with the error of the context when that ends.
func (p *Prepared) Answer(ctx context.Context, ask *Ask) (Answer, error) {
	out := Answer{Reached: true, Exact: true}
	pools := p.pools()
	drives := p.room(ask, pools)
	out.Unpriced = drives.unpriced
	ways := make([][]poolWay, len(pools))
	for k := range pools {
		for n, d := range drives.options[k] {
			if ctx.Err() != nil {
				return Answer{}, ctx.Err()
			}
			of := pools[k]
			of.usable = d.Usable
			if w, ok := p.leastOf(ask, &of); ok {
				w.drives = n
				ways[k] = append(ways[k], w)
			}
		}
		out.Reached = out.Reached && len(ways[k]) > 0
	}
	if out.Reached {
		out.Reached = p.settle(ask, pools, drives, ways, &out)
	}
	if !out.Reached {
		frontier := p.Frontier(ask)
		out.Point, out.Exact = frontier[len(frontier)-1], true
		p.costliestLock(ask, &out)
	}
	out.Edits, out.Changes = p.edits(&out.Point)
	return out, ctx.Err()
}

// poolWay is the least loss of a pool with some drives.
type poolWay struct {
	drives int
	picks  map[int]int // of its channels
	loss   float64
	exact  bool
}

// leastOf finds what a pool's channels must lose for the days asked.
func (p *Prepared) leastOf(ask *Ask, of *pool) (w poolWay, ok bool) {
	things, at := p.things(ask, of, storage.Days(ask.Days))
	found, exact, ok := Least(things, float64(of.usable), mostNodes)
	if !ok {
		return w, false
	}
	w = poolWay{exact: exact, picks: make(map[int]int)}
	for n, i := range of.channels {
		w.picks[i] = at[n][found[n]]
		w.loss += p.loss(ask, i, &p.choices[i][w.picks[i]])
	}
	return w, true
}

// settle picks the drives of all pools together: of what the money allows the least loss, of these the cheapest.
func (p *Prepared) settle(ask *Ask, pools []pool, drives room, ways [][]poolWay, out *Answer) bool {
	things := make([][]Option, len(pools))
	budget := 0.0
	for k, list := range ways {
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
		w := ways[k][found[k]]
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
			options = append(options, Option{float64(r.Daily) * float64(min(days, r.Limit)), p.loss(ask, i, &p.choices[i][k]) + little*float64(len(p.choices[i][k].Words))})
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
		}
	}
	slices.SortStableFunc(changes, func(a, b Change) int { return cmp.Compare(len(b.Channels), len(a.Channels)) })
	for k := range at.drives {
		changes = slices.Insert(changes, k, Change{Words: at.drives[k].Words})
	}
	return out, changes
}
