// Package solve says what it would take to keep footage longer, and what would be lost.
//
// A [Choice] is one way of setting a channel: duties replaced by others, fewer frames, fewer seconds kept after an event, a
// lower quality. Each has what the channel writes a day then, and what is lost of the evidence: of the wanted events a day
// those that are missed, and [Ask.LowCounts] of those that are kept low, times how much the channel matters. [Prepare]
// estimates all of them once. [Prepared.Frontier] goes from the plan as it is to the most that can be kept, always by the
// change that loses least for what it saves; [Prepared.Answer] finds the least that must be lost for a number of days: a
// multiple-choice knapsack for each pool (see [Least]).
package solve

import (
	"context"
	"math"
	"slices"
	"sync/atomic"

	"wakefield.example/core/estimate"
	"wakefield.example/core/parallel"
	"wakefield.example/core/plan"
	"wakefield.example/core/storage"
)

// Ask is what is wanted, and what may not be touched.
type Ask struct {
	Days          float64            // that every pool shall typically keep which has channels with a requirement; all pools where none has
	By            Measure            // what the days are held against; see [Prepared.Reach]
	Percent       float64            // of draws in which they are to be kept, where By is Chance; above 0, below 100
	Locked        map[string]bool    // ids of channels that stay as they are
	KeepFrames    bool               // whether no channel may have fewer frames
	WorsePictures bool               // whether pictures may be worse, which no evidence counts
	Matters       map[string]float64 // how much channels matter, by id, 1 to 3; for others as the plan says
	MoreDrives    int                // how many more drives a pool may be given, or larger ones in their place; 0 for none
	Money         *float64           // most that drives may cost, in the plan's currency; nil where nobody says
	LowCounts     float64            // what an event that is kept low counts as, of one that is missed, 0 to 1; see DefaultLow
}

// DefaultLow is what an event that is kept low counts as where nothing is said.
const DefaultLow = 0.5

// Prepared is a plan with what every channel could be.
type Prepared struct {
	plan    *plan.Plan
	site    *estimate.Result
	choices [][]Choice        // of each channel; the first is as it is
	duties  []plan.Duty       // that choices may need, beside the plan's
	lower   map[string]string // of those with lower settings: the duty that each is of
}

// Prepare estimates all choices of a plan, over all cores. earlier, which may be nil, is an earlier preparation of the same
// site: channels that are as they were there are not estimated anew. told is called with how many channels are done; it may be
// nil. It is given up with the error of the context when that ends.
func Prepare(ctx context.Context, p *plan.Plan, site *estimate.Result, earlier *Prepared, told func(done, all int)) (*Prepared, error) {
	out := &Prepared{plan: p, site: site, choices: make([][]Choice, len(p.Channels))}
	out.duties = fewerFrames(p)
	lower, of := lowerQuality(p, out.duties)
	out.duties, out.lower = append(out.duties, lower...), of
	try := site.Alternatives(out.duties)
	var done atomic.Int64
	parallel.Do(len(p.Channels), func(i int) {
		if ctx.Err() != nil {
			return
		}
		if kept := earlier.of(p, site, i); kept != nil {
			out.choices[i] = kept
		} else {
			out.choices[i] = out.choicesOf(ctx, try, i)
		}
		if n := int(done.Add(1)); told != nil {
			told(n, len(p.Channels))
		}
	})
	return out, ctx.Err()
}

// of are the choices of channel i where they are those of an earlier preparation.
func (e *Prepared) of(p *plan.Plan, site *estimate.Result, i int) []Choice {
	if e == nil || i >= len(e.plan.Channels) || p.Channels[i] != e.plan.Channels[i] ||
		site.Channels[i].Evidence != e.site.Channels[i].Evidence ||
		site.Channels[i].GigabytesPerDay != e.site.Channels[i].GigabytesPerDay || !sameList(p.Duties, e.plan.Duties) ||
		!sameList(p.Weeks, e.plan.Weeks) || !p.SharesWhatChannelsHear(e.plan) {
		return nil
	}
	return e.choices[i]
}

func sameList[T any](a, b []T) bool { return len(a) == len(b) && (len(a) == 0 || &a[0] == &b[0]) }

// leastLoss is how many events a day a choice loses or wins at least: less is rounding, and loses nothing.
const leastLoss = 1e-6

// loss is what a choice of channel i loses against the plan as it is, in missed events a day.
func (p *Prepared) loss(ask *Ask, i int, c *Choice) float64 {
	now := p.choices[i][0].evidence
	matters := p.plan.Channels[i].Weight()
	if m, ok := ask.Matters[p.plan.Channels[i].ID]; ok {
		matters = m
	}
	lost := c.evidence.MissedPerDay - now.MissedPerDay + ask.LowCounts*(c.evidence.LowPerDay-now.LowPerDay)
	if math.Abs(lost) < leastLoss {
		return 0
	}
	return matters / plan.MattersUsually * lost
}

// allowed tells whether an ask lets a channel be so.
func (p *Prepared) allowed(ask *Ask, i, k int) bool {
	c := &p.choices[i][k]
	return k == 0 || !c.alone && p.free(ask, i, k)
}

// free tells whether no lock is on a choice.
func (p *Prepared) free(ask *Ask, i, k int) bool {
	c := &p.choices[i][k]
	return !ask.Locked[p.plan.Channels[i].ID] && !(ask.KeepFrames && c.frames) && (ask.WorsePictures || !c.quality)
}

// pool is one pool with its channels.
type pool struct {
	id       string
	usable   storage.Bytes
	channels []int
	required bool // whether footage on it must be kept
}

// pools are those in question: where footage must be kept, or all where none must.
func (p *Prepared) pools() (out []pool) {
	out = p.all()
	required := slices.ContainsFunc(out, func(x pool) bool { return x.required })
	return slices.DeleteFunc(out, func(x pool) bool { return len(x.channels) == 0 || required && !x.required })
}

// all are all pools with their channels.
func (p *Prepared) all() (out []pool) {
	at := make(map[string]int)
	for _, f := range p.site.Pools {
		at[f.ID] = len(out)
		out = append(out, pool{id: f.ID, usable: storage.Bytes(f.UsableGB) * storage.GB})
	}
	for i := range p.plan.Channels {
		c := &p.plan.Channels[i]
		if c.NoCamera {
			continue
		}
		k := at[c.Pool]
		out[k].channels = append(out[k].channels, i)
		if c.Keep.AtLeastDays > 0 {
			out[k].required = true
		}
	}
	return out
}

// rate is what a channel asks of its pool if it is so.
func (p *Prepared) rate(i, k int) storage.Rate {
	keep := &p.plan.Channels[i].Keep
	if other := p.choices[i][k].keep; other != nil {
		keep = other
	}
	daily := p.choices[i][k].Daily
	return storage.Rate{Daily: daily, Limit: storage.Limit(daily, storage.Days(keep.AtMostDays), storage.Bytes(keep.QuotaGB)*storage.GB)}
}

// days is how long a pool typically keeps, its channels being as picked.
func (p *Prepared) days(of *pool, picks []int) storage.Days {
	rates := make([]storage.Rate, len(of.channels))
	for n, i := range of.channels {
		rates[n] = p.rate(i, picks[i])
	}
	return storage.Typical(of.usable, rates)
}
