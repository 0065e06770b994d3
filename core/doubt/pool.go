package doubt

import (
	"slices"

	"wakefield.example/core/parallel"
	"wakefield.example/core/plan"
	"wakefield.example/core/storage"
)

// Member is a channel of a pool, as far as the draws of the pool go by it.
type Member struct {
	Drawn    *Drawn
	Stills   storage.Bytes // a day
	Keep     plan.Keep
	Required *float64 // days; nil where nothing is
}

// Pool is one pool over all draws, with what it was drawn from.
type Pool struct {
	usable  float64 // GB
	atWorst float64 // days kept at the worst moment, of those typically kept
	From    []drawnFrom
	Likely  *Range
	Members []MemberLikely
	Holds   []bool    // whether all members keep their days, by draw
	Kept    []float64 // days that it keeps, by draw; infinite where nothing fills it
}

// drawnFrom is what the draws of a pool take of a member. Bitrates that were not
// drawn anew are the very same ones.
type drawnFrom struct {
	kbps   *float32
	stills storage.Bytes
	keep   plan.Keep
}

// MemberLikely is what the draws tell of a member.
type MemberLikely struct {
	Likely       *Range
	HoldsPercent float64
}

// DrawPool finds the days a pool of so many usable GB and its channels keep in every draw, unless they
// were found before, which may be nil, for the same channels on the same drives. At the worst moment atWorst of what is
// kept typically is left.
func DrawPool(usable, atWorst float64, members []Member, before *Pool) *Pool {
	d := &Pool{usable: usable, atWorst: atWorst}
	for _, m := range members {
		d.From = append(d.From, drawnFrom{&m.Drawn.Kbps[0], m.Stills, m.Keep})
	}
	if before != nil && before.usable == d.usable && before.atWorst == d.atWorst && slices.Equal(before.From, d.From) {
		return before
	}
	d.draw(members)
	return d
}

// Resampled is what is told of the pool as a whole of some of its draws, by their numbers.
func (d *Pool) Resampled(order []int) *Pool {
	out := &Pool{usable: d.usable, atWorst: d.atWorst, Kept: make([]float64, len(order)), Holds: make([]bool, len(order))}
	for k, i := range order {
		out.Kept[k], out.Holds[k] = d.Kept[i], d.Holds[i]
	}
	out.Likely = rangeOf(out.Kept)
	return out
}

func (d *Pool) draw(members []Member) {
	usable := storage.Bytes(d.usable) * storage.GB
	kept := make([]float64, Draws)
	d.Kept = kept
	// What has no limit of its own is kept as long as the pool holds.
	each := make([][]float64, len(members))
	var limited []int
	for k := range members {
		each[k] = kept
		if keep := &members[k].Keep; keep.AtMostDays > 0 || keep.QuotaGB > 0 {
			each[k] = make([]float64, Draws)
			limited = append(limited, k)
		}
	}
	d.Holds = make([]bool, Draws)
	const chunk = 125
	held := make([][]int, Draws/chunk) // draws in which each member keeps its days, by part
	parallel.Do(Draws/chunk, func(part int) {
		rates := make([]storage.Rate, len(members))
		limits := make([]storage.Days, len(members))
		held[part] = make([]int, len(members))
		for i := part * chunk; i < (part+1)*chunk; i++ {
			for k := range members {
				m := &members[k]
				day := storage.Bytes(float64(m.Drawn.Kbps[i])*1000/8*86400) + m.Stills
				limits[k] = storage.Limit(day, storage.Days(m.Keep.AtMostDays), storage.Bytes(m.Keep.QuotaGB)*storage.GB)
				rates[k] = storage.Rate{Daily: day, Limit: limits[k]}
			}
			h := storage.Typical(usable, rates)
			kept[i] = float64(h)
			for _, k := range limited {
				each[k][i] = float64(min(h, limits[k]))
			}
			d.Holds[i] = true
			for k := range members {
				required := members[k].Required
				if required == nil {
					continue
				}
				if float64(min(h*storage.Days(d.atWorst), limits[k])) >= *required {
					held[part][k]++
				} else {
					d.Holds[i] = false
				}
			}
		}
	})
	d.Likely = rangeOf(kept)
	d.Members = make([]MemberLikely, len(members))
	parallel.Do(len(members), func(k int) {
		for _, part := range held {
			d.Members[k].HoldsPercent += 100 * float64(part[k]) / Draws
		}
		d.Members[k].Likely = d.Likely // with no limit of its own it is kept as long as the pool holds
		if keep := &members[k].Keep; keep.AtMostDays > 0 || keep.QuotaGB > 0 {
			d.Members[k].Likely = rangeOf(each[k])
		}
	})
}
