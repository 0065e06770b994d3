package solve

import (
	"cmp"
	"slices"

	"wakefield/core/edit"
	"wakefield/core/plan"
	"wakefield/core/storage"
)

// Lever is one change by itself.
type Lever struct {
	Channel string      // id; empty for one of a pool
	Pool    string      // id of the pool that wins days
	Words   []string    // as a fitter would enter it, without the channel's name
	Edits   []edit.Edit // that make it so
	More    float64     // days of the pool
	Saves   float64     // GB a day
	Range   *Saving     // how much of what the channel writes is saved; nil where that is not doubtful
	Loss    float64
	Price   float64
	Priced  bool // whether the price is known, 0 for what costs nothing
}

// Saving is between how many percent of what channels write is saved, four times out of five.
type Saving struct {
	Least float64 `json:"leastPercent"`
	Most  float64 `json:"mostPercent"`
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
				l := Lever{Channel: p.plan.Channels[i].ID, Words: c.Words, Edits: c.Edits, Saves: float64((p.choices[i][0].Daily - c.Daily) / storage.GB), Loss: p.loss(ask, i, c), Priced: true}
				if least, most, ok := c.saves(p.choices[i][0].Daily); ok {
					l.Range = &Saving{least, most}
				}
				add(l, then)
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
