package alert

import (
	"math"
	"slices"

	"wakefield/core/week"
)

// ShortestInterval and LongestInterval bound how often something may go out, seconds.
const ShortestInterval, LongestInterval = 1, week.Seconds

// Sent is how often something goes out in each hour that goes out at most once in an interval, seconds. Of single triggers,
//
//	s(t) = τ(t)·(1 − ∫ from t−T to t of s)
//
// exactly, solved over the periodic week in cells of T/32, of T/16 below half an hour and T/8 below five minutes. Triggers that come in groups are no strangers to each other. Who is
// free since x seconds has had none of a group for x seconds: what comes then is the first of its group, at the rate τ(t)
// times the chance that none of its group came in the x seconds before. And where the interval is shorter than a group,
// more of the group that went out last may come after it: as many as make an isolated group go out as often as it does.
func Sent(streams []Stream, interval float64) (h Hours) {
	interval = max(ShortestInterval, min(LongestInterval, interval))
	p := newPlay(streamsOf(flows(streams)), interval)
	// What comes before the week forgets how it began; where that is long, more weeks are taken until two are alike.
	before := -1.0
	if warm := 12*interval + 6*p.longest; warm < week.Seconds {
		p.over = week.Seconds - warm
		p.week(&h)
		before = math.NaN()
	}
	for range 8 {
		h = Hours{}
		p.week(&h)
		all := h.PerDay()
		if all == 0 || math.IsNaN(before) || math.Abs(all-before) < 1e-5*all {
			break
		}
		before = all
	}
	// What little the cells make too much of never goes out.
	came := 0.0
	for i := range p.streams {
		came += p.streams[i].Rate.Total() / 7
	}
	if went := h.PerDay(); went > came {
		for k := range h {
			h[k] *= came / went
		}
	}
	return h
}

// play goes through the week cell by cell.
type play struct {
	streams        []Stream
	edges          []float64
	interval, cell float64
	follow         []float64   // for each stream, how many more of a group go out after its first, where there is nothing else
	ages           int         // classes of how long it has been free, the last for all longer
	fresh          [][]float64 // for each stream and age, the chance that none of its group came since
	more           [][]float64 // for each stream and age, how soon more comes of the group that went out last, a second

	sent   []float64 // chance that it went out in each cell of the last interval
	oldest int
	free   []float64 // chance to be free, by age
	over   float64   // how far the last cell reached into the week to come

	longest float64 // over how long a group is spread at most
}

func newPlay(streams []Stream, interval float64) *play {
	longest := 0.0
	for i := range streams {
		longest = max(longest, streams[i].spread())
	}
	parts := 32
	switch {
	case longest > 8*interval || longest == 0 && interval < 300:
		parts = 8 // what happens within so short an interval is hardly seen in an hour
	case longest == 0 && interval < 1800:
		parts = 16
	}
	p := &play{longest: longest, streams: streams, interval: interval, cell: interval / float64(parts), ages: 1, sent: make([]float64, parts)}
	p.edges = append(changes(streams, func(*Stream) []float64 { return nil }), 0)
	slices.Sort(p.edges)
	p.edges = append(slices.Compact(p.edges), week.Seconds)
	byAge := longest <= 32*interval
	if byAge {
		p.ages = 1 + int(math.Ceil(longest/p.cell))
	}
	for i := range streams {
		s := &streams[i]
		fresh, more := make([]float64, p.ages), make([]float64, p.ages)
		follow, again := s.again(interval)
		for j := range fresh {
			fresh[j] = 1
			if !byAge && s.grouped() {
				fresh[j] = s.isolated(interval) / (s.Group.Size * s.Chance)
			}
			if byAge {
				age := p.cell * (float64(j) + 0.5)
				fresh[j] = s.alone(age)
				if left := s.spread() - interval - age; left > 0 {
					more[j] = again * left
				}
			}
		}
		p.fresh, p.more, p.follow = append(p.fresh, fresh), append(p.more, more), append(p.follow, follow)
	}
	p.free = make([]float64, p.ages)
	p.settle(len(p.edges)-2, interval)
	return p
}

// settle begins as after a long time of the rates of a piece.
func (p *play) settle(piece int, interval float64) {
	rate := 0.0
	for i := range p.streams {
		rate += p.streams[i].Rate.At(p.edges[piece]) * p.fresh[i][p.ages-1]
	}
	out := rate / (1 + rate*interval)
	for i := range p.sent {
		p.sent[i] = out * p.cell
	}
	p.free[p.ages-1] = 1 - out*interval
}

// hazards are what can happen in the cells of one piece.
type hazards struct {
	stay []float64 // for each age, the chance to stay free over a cell
	kept float64   // the same of what becomes free in the cell
	none bool      // whether nothing comes at all
}

// hazards are those from a piece on.
func (p *play) hazards(piece int) hazards {
	stay := make([]float64, p.ages)
	rates, first := make([]float64, len(p.streams)), 0.0
	for i := range p.streams {
		rates[i] = p.streams[i].Rate.At(p.edges[piece])
		first += rates[i] * p.fresh[i][p.ages-1]
	}
	// What goes out first begins, of each stream so often, what may follow of its group. Which stream it was is not known
	// any more when more may follow, so that the mean of what follows is given to all.
	weights, sum, follow := make([]float64, len(p.streams)), 0.0, 0.0
	for i, r := range rates {
		if r == 0 || p.follow[i] == 0 {
			continue
		}
		weights[i] = r * p.fresh[i][p.ages-1] / first
		sum += weights[i] * math.Log1p(p.follow[i])
		follow += weights[i] * p.follow[i]
	}
	for j := range stay {
		hazard := 0.0
		for i, r := range rates {
			if r == 0 {
				continue
			}
			hazard += r * p.fresh[i][j]
			if p.more[i][j] > 0 {
				// What went out within a group's length of being free was rarely a group's first, and less of that is left: the
				// longer the interval is, the less.
				spread := p.streams[i].spread()
				part := p.interval / spread
				left := max(0, 1-3*part*part*(1-p.fresh[i][p.ages-1])*-math.Expm1(-first*spread))
				hazard += weights[i] * p.more[i][j] * left * math.Log1p(follow) / sum
			}
		}
		stay[j] = math.Exp(-hazard * p.cell)
	}
	kept := 1.0
	if a := -math.Log(stay[0]); a > 1e-9 {
		kept = (1 - stay[0]) / a
	}
	return hazards{stay, kept, first == 0}
}

// step goes through a cell and returns the chance that something goes out in it.
func (p *play) step(h *hazards) (out float64) {
	stay, kept := h.stay, h.kept
	freed := p.sent[p.oldest] // free again, evenly over the cell
	left := p.free[p.ages-1] * stay[p.ages-1]
	out = p.free[p.ages-1] - left
	p.free[p.ages-1] = left
	for j := p.ages - 2; j >= 0; j-- {
		left := p.free[j] * stay[j]
		out += p.free[j] - left
		p.free[j] = 0
		p.free[j+1] += left
	}
	p.free[0] += freed * kept
	out += freed * (1 - kept)
	p.sent[p.oldest] = out
	if p.oldest++; p.oldest == len(p.sent) {
		p.oldest = 0
	}
	return out
}

func (p *play) week(h *Hours) {
	at, piece := p.over, 0
	now := p.hazards(piece)
	still, last := 0, -1.0
	for at < week.Seconds {
		if p.edges[piece+1] <= at {
			for p.edges[piece+1] <= at {
				piece++
			}
			now = p.hazards(piece)
			still = 0
		}
		out := p.step(&now)
		if hour := int(at / 3600); at+p.cell <= float64(hour+1)*3600 {
			h[hour] += out
		} else {
			add(h, at, at+p.cell, out)
		}
		at += p.cell
		if math.Abs(out-last) <= 1e-9*out || now.none && out == 0 {
			still++
		} else {
			still = 0
		}
		last = out
		// Where nothing has changed for longer than anything is remembered, all cells are like the last.
		if still > len(p.sent)+p.ages {
			if n := math.Floor((p.edges[piece+1] - at) / p.cell); n > 1 {
				add(h, at, at+n*p.cell, n*out)
				at += n * p.cell
			}
			still = 0
		}
	}
	p.over = at - week.Seconds
}

// add spreads what went out over the hours of a stretch.
func add(h *Hours, from, to, amount float64) {
	if amount == 0 {
		return
	}
	for at := from; at < to-1e-9; {
		k := int(at / 3600)
		end := min(to, 3600*float64(k+1))
		h[k%168] += amount * (end - at) / (to - from)
		at = end
	}
}
