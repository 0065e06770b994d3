package solve

import (
	"cmp"
	"slices"
	"strings"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/core/storage"
)

// Lever is one change by itself: of a channel, of all channels of a group for which it reads the same, or of a pool. What it
// promises is for all its channels together.
type Lever struct {
	Channels []string    // ids; empty for one of a pool
	Pool     string      // id of the pool that wins days
	Words    []string    // as a fitter would enter it, without the channel's name
	Edits    []edit.Edit // that make it so
	More     float64     // days of the pool
	Saves    float64     // GB a day
	Range    *Saving     // how much of what the channels write is saved; nil where that is not doubtful
	Loss     float64
	Price    float64
	Priced   bool // whether the price is known, 0 for what costs nothing
}

// Saving is between how many percent of what channels write is saved, four times out of five.
type Saving struct {
	LeastPercent float64 `json:"leastPercent"`
	MostPercent  float64 `json:"mostPercent"`
}

// leastWon is how many days a lever wins at least.
const leastWon = 0.05

// like are the channels of one pool for which a change reads the same.
type like struct {
	words string
	group string
	picks map[int]int // choices by channel; nil for a move
	moved []int       // channels that go to another pool
	to    pool
}

// Levers are the changes that win days one by one, most days for what is lost first. Of equal gain those that lose nothing come
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
		for _, l := range p.alike(ask, of) {
			add(p.lever(ask, of, &l))
		}
		for _, d := range p.drivesOf(of.id, ask.MoreDrives)[1:] {
			if ask.Money != nil && (!d.Priced || d.Price > *ask.Money) {
				continue
			}
			larger := *of
			larger.usable = d.Usable
			add(Lever{Words: []string{d.Words}, Edits: d.Edits, Price: d.Price, Priced: d.Priced}, p.days(&larger, picks))
		}
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

// alike are the changes of a pool's channels: those that read the same in one group of channels are one.
func (p *Prepared) alike(ask *Ask, of *pool) (out []like) {
	at := make(map[[2]string]int)
	find := func(i int, words string) *like {
		group := p.plan.Channels[i].Group
		if group == "" {
			group = "\x00" + p.plan.Channels[i].ID // by itself
		}
		key := [2]string{group, words}
		k, ok := at[key]
		if !ok {
			k = len(out)
			at[key] = k
			out = append(out, like{words: words, group: group})
		}
		return &out[k]
	}
	for _, i := range of.channels {
		for k := 1; k < len(p.choices[i]); k++ {
			if p.free(ask, i, k) {
				l := find(i, strings.Join(p.choices[i][k].Words, "; "))
				if l.picks == nil {
					l.picks = make(map[int]int)
				}
				l.picks[i] = k
			}
		}
	}
	for _, to := range p.all() {
		if to.id == of.id || p.plan.Pool(to.id) == nil {
			continue
		}
		for _, i := range of.channels {
			c := &p.plan.Channels[i]
			r := p.plan.Recorder(c.Recorder)
			if !ask.Locked[c.ID] && slices.ContainsFunc(r.Pools, func(x plan.Pool) bool { return x.ID == to.id }) {
				l := find(i, "stored on "+p.plan.Pool(to.id).Name+"\x00")
				l.moved, l.to = append(l.moved, i), to
			}
		}
	}
	return out
}

// lever is what a change comes to for all its channels, and the days that the pool keeps then.
func (p *Prepared) lever(ask *Ask, of *pool, l *like) (Lever, storage.Days) {
	if l.picks == nil {
		return p.moveLever(of, l)
	}
	at := Point{picks: make([]int, len(p.plan.Channels))}
	out := Lever{Priced: true}
	for _, i := range of.channels {
		k, ok := l.picks[i]
		if !ok {
			continue
		}
		at.picks[i] = k
		c := &p.choices[i][k]
		out.Channels, out.Words = append(out.Channels, p.plan.Channels[i].ID), c.Words
		out.Saves += float64((p.choices[i][0].Daily - c.Daily) / storage.GB)
		out.Loss += p.loss(ask, i, c)
	}
	edits, changes := p.edits(&at)
	out.Edits = edits
	for _, c := range changes {
		if c.Range != nil {
			out.Range = c.Range
		}
	}
	return out, p.days(of, at.picks)
}

// moveLever keeps channels of a pool on another of their recorder: as many as leave that one keeping longer afterwards than this one
// does, and what is required on it. The days are 0 where that is none.
func (p *Prepared) moveLever(of *pool, l *like) (out Lever, then storage.Days) {
	none := make([]int, len(p.plan.Channels))
	left, joined := *of, l.to
	var moved []string
	for _, i := range l.moved {
		fewer, more := left, joined
		fewer.channels = slices.DeleteFunc(slices.Clone(left.channels), func(k int) bool { return k == i })
		more.channels = append(slices.Clone(joined.channels), i)
		needs := 0.0
		for _, k := range more.channels {
			needs = max(needs, p.plan.Channels[k].Keep.AtLeastDays)
		}
		there, here := p.days(&more, none), p.days(&fewer, none)
		if float64(there) < needs || there < here {
			break
		}
		left, joined, then = fewer, more, here
		moved = append(moved, p.plan.Channels[i].ID)
	}
	return Lever{Channels: moved, Words: []string{"stored on " + p.plan.Pool(l.to.id).Name}, Priced: true,
		Edits: []edit.Edit{{KeepOn: &edit.KeepOn{Channels: moved, Pool: l.to.id}}}}, then
}
