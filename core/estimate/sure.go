package estimate

import (
	"context"
	"hash/fnv"
	"math"
	"math/rand/v2"
	"slices"
	"sync"

	"wakefield/core/footage"
	"wakefield/core/plan"
	"wakefield/core/storage"
)

// Draws is how many sites are drawn to tell how sure a figure is.
const Draws = 2000

// seed makes the draws the same every time.
const seed = 0x57616b65

// spread is the standard deviation of the logarithm of a figure whose 80 % range is
// ×/÷ factor: ln(factor) over the 90th percentile of the normal distribution.
func spread(factor float64) float64 { return math.Log(factor) / 1.2815515655446004 }

// activitySpread tells how far a rate of events may be off.
func activitySpread(known string) float64 {
	switch known {
	case "measured":
		return spread(1.15)
	case "surveyed":
		return spread(1.4)
	}
	return spread(2)
}

// rateSpread tells how far a bitrate may be off. A figure typed as a guess is
// trusted more than the model, which knows nothing of the scene, one read off a camera
// on site a little less than a measured one.
func rateSpread(r plan.Rate) float64 {
	switch {
	case r.Kind == "modelled":
		return spread(1.8)
	case r.Known == "measured":
		return spread(1.05)
	case r.Known == "surveyed":
		return spread(1.1)
	case r.Known == "datasheet":
		return spread(1.2)
	}
	return spread(1.5)
}

// doubt is one channel over all draws.
type doubt struct {
	kbps []float32 // mean bitrate in each draw; of thousands of channels half the memory matters
}

// knots are where a channel's bitrates are computed, in standard deviations of its
// activity; between them they are interpolated.
var knots = [...]float64{-4, -2.8, -2, -1.4, -0.9, -0.45, 0, 0.45, 0.9, 1.4, 2, 2.8, 4}

// common draws what the channels of a site share: half of the log variance.
var common = sync.OnceValue(func() [Draws][2]float64 { return normals("") })

// normals are two standard normal numbers a draw, of activity and of bitrate, that
// depend on nothing but the name.
func normals(name string) (out [Draws][2]float64) {
	h := fnv.New64a()
	h.Write([]byte(name))
	rng := rand.New(rand.NewPCG(seed, h.Sum64()))
	for i := range out {
		out[i] = [2]float64{rng.NormFloat64(), rng.NormFloat64()}
	}
	return out
}

// response is the mean bitrate a channel writes from each stream, by how far its
// activity is off, in standard deviations.
type response [3]spline

// responses finds how channels that play alike respond. Each knot is played once for
// all of them, priced for each, and let go: a multiplier of activity changes coverage,
// and all activities of a channel move together.
func responses(in []*input, typical []footage.Shares) []response {
	values := make([][3][len(knots)]float64, len(in))
	for k, z := range knots {
		shares := typical
		if z != 0 && in[0].moves() {
			shares = in[0].play(z)
		}
		for i := range in {
			for s, kbps := range in[i].byStream(shares) {
				values[i][s][k] = kbps
			}
		}
	}
	out := make([]response, len(in))
	for i := range out {
		for s := range out[i] {
			out[i][s] = newSpline(values[i][s])
		}
	}
	return out
}

// drawChannel draws the bitrates of one channel. Its streams are off together, each
// as far as it is known.
//
// What is stated is what a site comes to: of its channels some write more and some less,
// and the factors of their own have a mean of 1, while that of the site as a whole has a
// median of 1. Hence σ²/4, half of the own half of the log variance.
func drawChannel(id string, in *input, r *response) doubt {
	site, own, centre := common(), normals(id), in.activityDoubt()/4
	d := doubt{kbps: make([]float32, Draws)}
	for i := range d.kbps {
		sum := 0.0
		z := math.Sqrt2/2*(site[i][0]+own[i][0]) - centre
		y := math.Sqrt2 / 2 * (site[i][1] + own[i][1])
		for s := range r {
			if kbps := r[s].at(z); kbps > 0 {
				sum += kbps * math.Exp(in.doubt[s]*y-in.doubt[s]*in.doubt[s]/4)
			}
		}
		d.kbps[i] = float32(sum)
	}
	return d
}

// activityDoubt is the mean doubt of the activities that reach the channel.
func (in *input) activityDoubt() float64 {
	sum, n := 0.0, 0
	for _, list := range [][]float64{in.motion, in.alarm, in.own} {
		for _, s := range list {
			sum += s
			n++
		}
	}
	return sum / float64(max(n, 1))
}

// moves tells whether anything about the channel depends on activity.
func (in *input) moves() bool {
	return len(in.motion)+len(in.alarm)+len(in.own) > 0
}

// byStream is the mean bitrate of a week from each stream.
func (in *input) byStream(shares []footage.Shares) (out [3]float64) {
	var from layerStreams
	next := 0
	for _, b := range in.price(shares) {
		for next < len(in.layers) && in.layers[next].From <= b.Span.From {
			from = in.layers[next].Value
			next++
		}
		part := float64(b.Span.Minutes()) / 10080
		out[from.base] += part * float64(b.Base)
		out[from.event] += part * float64(b.Motion+b.Alarm-b.Call)
		out[0] += part * float64(b.Call) // buttons write the main stream
	}
	return out
}

// draw fills in how sure the figures are.
func (s *Site) draw(ctx context.Context, p *plan.Plan, earlier *Site) error {
	// Channels that play alike are played once at every knot.
	at := make(map[*footage.Shares]int)
	var alike [][]int
	for i := range s.doubts {
		if s.doubts[i].kbps != nil {
			continue
		}
		if s.inputs[i].empty {
			s.doubts[i] = doubt{kbps: make([]float32, Draws)}
			continue
		}
		first := &s.played[i].shares[0]
		k, ok := at[first]
		if !ok {
			k = len(alike)
			at[first] = k
			alike = append(alike, nil)
		}
		alike[k] = append(alike[k], i)
	}
	parallel(len(alike), func(k int) {
		if ctx.Err() != nil {
			return
		}
		in := make([]*input, len(alike[k]))
		for j, i := range alike[k] {
			in[j] = &s.inputs[i]
		}
		for j, r := range responses(in, s.played[alike[k][0]].shares) {
			i := alike[k][j]
			s.doubts[i] = drawChannel(s.Channels[i].ID, in[j], &r)
		}
	})
	if ctx.Err() != nil {
		return ctx.Err()
	}
	holds := make([]bool, Draws)
	for i := range holds {
		holds[i] = true
	}
	members := make(map[string][]int)
	for i, c := range p.Channels {
		members[c.Pool] = append(members[c.Pool], i)
	}
	s.pooled = make(map[string]*poolDraw, len(s.Pools))
	for k := range s.Pools {
		s.drawPool(p, &s.Pools[k], members[s.Pools[k].ID], holds, earlier)
		if ctx.Err() != nil {
			return ctx.Err()
		}
	}
	s.Verdict.HoldsPercent = 100 * share(holds)
	return nil
}

// poolDraw is one pool over all draws, with what it was drawn from.
type poolDraw struct {
	usable  float64
	atWorst float64 // days kept at the worst moment, of those typically kept
	from    []drawnFrom
	sure    *Range
	members []memberDraw
	holds   []bool // whether all members keep their days, by draw
}

// drawnFrom is what the draws of a pool take of a member. Bitrates that were not
// drawn anew are the very same ones.
type drawnFrom struct {
	kbps *float32
	keep plan.Keep
}

// memberDraw is what the draws tell of a member.
type memberDraw struct {
	sure  *Range
	holds float64
}

// drawPool finds the days a pool and its channels keep in every draw, unless they
// were found before for the same channels on the same drives.
func (s *Site) drawPool(p *plan.Plan, pool *Pool, members []int, holds []bool, earlier *Site) {
	d := &poolDraw{usable: pool.UsableGB, atWorst: s.worstShare(pool)}
	for _, m := range members {
		d.from = append(d.from, drawnFrom{&s.doubts[m].kbps[0], p.Channels[m].Keep})
	}
	if earlier != nil {
		if before := earlier.pooled[pool.ID]; before != nil && before.usable == d.usable && before.atWorst == d.atWorst && slices.Equal(before.from, d.from) {
			d = before
		}
	}
	if d.holds == nil {
		d.draw(s, p, members)
	}
	s.pooled[pool.ID] = d
	pool.Sure = d.sure
	for k, m := range members {
		s.Channels[m].Sure = d.members[k].sure
		if s.Channels[m].Required != nil {
			s.Channels[m].HoldsShare = d.members[k].holds
		}
	}
	for i := range holds {
		holds[i] = holds[i] && d.holds[i]
	}
}

// worstShare is the least that a pool keeps, at the worst hour of the week and on the
// worst date of the year, as a share of what it keeps typically. What is required must be
// kept then too.
func (s *Site) worstShare(pool *Pool) float64 {
	if pool.RetentionDays == nil || pool.WorstDays == nil || *pool.RetentionDays <= 0 {
		return 1
	}
	worst := *pool.WorstDays
	if year := s.SpecialYear(); year != nil {
		for _, p := range year.Pools {
			if p.ID == pool.ID && p.Days != nil {
				worst = min(worst, *p.Days)
			}
		}
	}
	return min(1, worst / *pool.RetentionDays)
}

func (d *poolDraw) draw(s *Site, p *plan.Plan, members []int) {
	usable := storage.Bytes(d.usable) * storage.GB
	kept := make([]float64, Draws)
	// What has no limit of its own is kept as long as the pool holds.
	each := make([][]float64, len(members))
	var limited []int
	for k, m := range members {
		each[k] = kept
		if keep := &p.Channels[m].Keep; keep.AtMostDays > 0 || keep.QuotaGB > 0 {
			each[k] = make([]float64, Draws)
			limited = append(limited, k)
		}
	}
	d.holds = make([]bool, Draws)
	const chunk = 125
	held := make([][]int, Draws/chunk) // draws in which each member keeps its days, by part
	parallel(Draws/chunk, func(part int) {
		rates := make([]storage.Rate, len(members))
		limits := make([]storage.Days, len(members))
		held[part] = make([]int, len(members))
		for i := part * chunk; i < (part+1)*chunk; i++ {
			for k, m := range members {
				keep := &p.Channels[m].Keep
				day := storage.Bytes(float64(s.doubts[m].kbps[i]) * 1000 / 8 * 86400)
				limits[k] = storage.Limit(day, storage.Days(keep.AtMostDays), storage.Bytes(keep.QuotaGB)*storage.GB)
				rates[k] = storage.Rate{Daily: day, Limit: limits[k]}
			}
			h := storage.Typical(usable, rates)
			kept[i] = float64(h)
			for _, k := range limited {
				each[k][i] = float64(min(h, limits[k]))
			}
			d.holds[i] = true
			for k, m := range members {
				required := s.Channels[m].Required
				if required == nil {
					continue
				}
				if float64(min(h*storage.Days(d.atWorst), limits[k])) >= *required {
					held[part][k]++
				} else {
					d.holds[i] = false
				}
			}
		}
	})
	d.sure = rangeOf(slices.Clone(kept))
	d.members = make([]memberDraw, len(members))
	parallel(len(members), func(k int) {
		for _, part := range held {
			d.members[k].holds += 100 * float64(part[k]) / Draws
		}
		d.members[k].sure = d.sure // with no limit of its own it is kept as long as the pool holds
		if keep := &p.Channels[members[k]].Keep; keep.AtMostDays > 0 || keep.QuotaGB > 0 {
			d.members[k].sure = rangeOf(slices.Clone(each[k]))
		}
	})
}

// rangeOf is the median and the 80 % range of values, which it sorts; nil where the
// upper end is not bounded.
func rangeOf(values []float64) *Range {
	slices.Sort(values)
	at := func(share float64) float64 { return values[int(share*float64(len(values)-1)+0.5)] }
	r := Range{Likely: at(0.5), Low: at(0.1), High: at(0.9)}
	if math.IsInf(r.High, 1) {
		return nil
	}
	return &r
}

func share(list []bool) float64 {
	n := 0
	for _, b := range list {
		if b {
			n++
		}
	}
	return float64(n) / float64(len(list))
}
