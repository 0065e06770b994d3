package solve

import (
	"math"
	"slices"

	"wakefield.example/core/edit"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/core/storage"
)

// Drives is one way of giving a pool more room.
type Drives struct {
	Words  string      // what is bought, as a fitter would say it; empty as it is
	Edits  []edit.Edit // that make it so
	Usable storage.Bytes
	Price  float64
	Priced bool // whether its price is known; as it is costs nothing

	terabytes float64 // size of what is bought
}

// drivesOf are the ways of a pool: as it is, up to so many more drives like its smallest, and its drives replaced by as many
// of a larger size that has a price.
func (p *Prepared) drivesOf(id string, more int) []Drives {
	pool, recorder := p.plan.Pool(id), ""
	for i := range p.plan.Recorders {
		if slices.ContainsFunc(p.plan.Recorders[i].Pools, func(x plan.Pool) bool { return x.ID == id }) {
			recorder = p.plan.Recorders[i].ID
		}
	}
	out := []Drives{{Usable: estimate.Array(pool).Usable(), Priced: true}}
	if len(pool.Drives) == 0 || more <= 0 {
		return out
	}
	smallest := slices.MinFunc(pool.Drives, func(a, b plan.DriveGroup) int {
		if a.Terabytes < b.Terabytes {
			return -1
		}
		return 1
	})
	add := func(words string, drives []plan.DriveGroup, count int, terabytes float64) {
		next := *pool
		next.Drives = drives
		usable := estimate.Array(&next).Usable()
		if usable <= out[0].Usable {
			return // one mirror more, or a half pair
		}
		each, known := p.plan.Prices.Of(terabytes)
		out = append(out, Drives{words, []edit.Edit{{SetPool: &edit.SetPool{Recorder: recorder, Pool: next}}}, usable,
			float64(count) * each, known, terabytes})
	}
	for n := 1; n <= more; n++ {
		drives := slices.Clone(pool.Drives)
		k := slices.Index(drives, smallest)
		drives[k].Count += n
		word := "drives"
		if n == 1 {
			word = "drive"
		}
		add(plan.Say("%s: %d more %s of %v TB", pool.Name, n, word, smallest.Terabytes), drives, n, smallest.Terabytes)
	}
	if p.plan.Prices == nil {
		return out
	}
	count := 0
	for _, d := range pool.Drives {
		count += d.Count
	}
	for _, size := range p.plan.Prices.Drives {
		if size.Terabytes > 1.001*smallest.Terabytes {
			add(plan.Say("%s: %s of %v TB in place of its %d", pool.Name, plan.Count(count, "drive"), size.Terabytes, count),
				[]plan.DriveGroup{{Count: count, Terabytes: size.Terabytes}}, count, size.Terabytes)
		}
	}
	return out
}

// room is what every pool in question can be given, with what is affordable.
type room struct {
	options  [][]Drives // of each pool
	unpriced []float64  // sizes of drives without a price, where money counts
}

func (p *Prepared) room(ask *Ask, pools []pool) room {
	r := room{options: make([][]Drives, len(pools))}
	for k := range pools {
		for _, d := range p.drivesOf(pools[k].id, ask.MoreDrives) {
			switch {
			case ask.Money != nil && !d.Priced:
				if !slices.Contains(r.unpriced, d.terabytes) {
					r.unpriced = append(r.unpriced, d.terabytes)
				}
			case ask.Money == nil || d.Price <= *ask.Money*(1+1e-12):
				r.options[k] = append(r.options[k], d)
			}
		}
	}
	return r
}

// largest gives pools as much room as the money allows, always to the one that keeps least at its most.
func (p *Prepared) largest(ask *Ask, pools []pool, r room) []int {
	at := make([]int, len(pools))
	left := math.Inf(1)
	if ask.Money != nil {
		left = *ask.Money
	}
	full := make([]bool, len(pools))
	for {
		least, days := -1, storage.Forever
		for k := range pools {
			if full[k] {
				continue
			}
			of := pools[k]
			of.usable = r.options[k][at[k]].Usable
			if d := p.most(ask, &of); least < 0 || d < days {
				least, days = k, d
			}
		}
		if least < 0 {
			return at
		}
		next := -1
		now := r.options[least][at[least]]
		for n, d := range r.options[least] {
			if d.Usable > now.Usable && d.Price-now.Price <= left && (next < 0 || d.Usable < r.options[least][next].Usable) {
				next = n
			}
		}
		if next < 0 {
			full[least] = true
			continue
		}
		left -= r.options[least][next].Price - now.Price
		at[least] = next
	}
}

// most is how long a pool can typically keep, by what may be changed of its channels.
func (p *Prepared) most(ask *Ask, of *pool) storage.Days {
	picks := make([]int, len(p.plan.Channels))
	for _, i := range of.channels {
		for k := range p.choices[i] {
			if p.allowed(ask, i, k) && p.choices[i][k].Daily < p.choices[i][picks[i]].Daily {
				picks[i] = k
			}
		}
	}
	return p.days(of, picks)
}
