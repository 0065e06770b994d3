package alert

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/mat"

	"wakefield.example/core/week"
)

// ShortestInterval and LongestInterval bound how often something may go out, seconds.
const ShortestInterval, LongestInterval = 1, week.Seconds

// Sent is how often something goes out in each hour that goes out at most once in an interval, seconds. Of single triggers,
//
//	s(t) = τ(t)·(1 − ∫ from t−T to t of s)
//
// exactly, solved over the periodic week in cells of about T/32, of a quarter of an hour or T/200 where that is longer,
// of T/16 below half an hour and T/8 below five minutes, so long that whole ones make the week. Triggers that come in
// groups are no strangers to each other. Who is free since x seconds has had none of a group for x seconds: what comes
// then is the first of its group, at the rate τ(t) times the chance that none of its group came in the x seconds
// before. And where the interval is shorter than a group, more of the group that went out last may come after it: as
// many as make an isolated group go out as often as it does.
//
// What is found repeats every week, so that no more goes out than there are intervals: 86400/T a day.
func Sent(streams []Stream, interval float64) (h Hours) {
	interval = max(ShortestInterval, min(LongestInterval, interval))
	p := newPlay(streamsOf(flows(streams)), interval)
	switch warm := 12*interval + 6*p.longest; {
	case warm < week.Seconds:
		p.stretch(p.cells-int(warm/p.cell), nil) // what comes before the week forgets how it began
		p.stretch(0, &h)
	case p.states()*p.states()*p.cells < mostSolved:
		p.repeat()
		p.stretch(0, &h)
	default:
		for before, week := -1.0, 0; week < 8; week++ {
			h = Hours{}
			p.stretch(0, &h)
			all := h.PerDay()
			if math.Abs(all-before) <= 1e-5*all {
				break
			}
			before = all
		}
	}
	// What little the cells make too much of never goes out.
	came := 0.0
	for i := range p.streams {
		came += p.streams[i].Rate.Total() / 7
	}
	if went, most := h.PerDay(), min(came, 86400/interval); went > most {
		for k := range h {
			h[k] *= most / went
		}
	}
	return h
}

// mostSolved bounds the work by which the state is found that a week ends in where it began: some tens of milliseconds.
const mostSolved = 30_000_000

// play goes through the week cell by cell.
type play struct {
	streams        []Stream
	edges          []float64
	interval, cell float64
	cells          int             // of the week
	known          map[int]hazards // by cell, or below 0 by piece
	rest           float64         // of the oldest cell that is remembered, the share that is not free yet when a cell ends
	follow         []float64       // for each stream, how many more of a group go out after its first, where there is nothing else
	ages           int             // classes of how long it has been free, the last for all longer
	fresh          [][]float64     // for each stream and age, the chance that none of its group came since
	more           [][]float64     // for each stream and age, how soon more comes of the group that went out last, a second

	sent   []float64 // chance that it went out in each cell of the last interval
	oldest int
	free   []float64 // chance to be free, by age

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
	// Where an interval is long, what comes in some hours of the day must not be spread over others.
	parts = max(parts, min(200, int(math.Ceil(interval/900))))
	cells := int(math.Ceil(week.Seconds * float64(parts) / interval))
	p := &play{longest: longest, streams: streams, interval: interval, cells: cells, cell: week.Seconds / float64(cells), ages: 1,
		known: make(map[int]hazards)}
	whole := math.Floor(interval / p.cell)
	p.rest = interval/p.cell - whole
	p.sent = make([]float64, int(whole)+1)
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

// states is how many chances are remembered from cell to cell.
func (p *play) states() int { return len(p.sent) + p.ages }

// state are those chances, what went out longest ago first.
func (p *play) state(into []float64) {
	n := copy(into, p.sent[p.oldest:])
	n += copy(into[n:], p.sent[:p.oldest])
	copy(into[n:], p.free)
}

func (p *play) setState(from []float64) {
	p.oldest = 0
	copy(p.free, from[copy(p.sent, from):])
}

// repeat finds the chances that are after a week what they were before it. A week makes of them a linear function of
// theirs, a matrix M, so that they are the solution of x = (1-ε)·M·x + ε·x₀: what begins anew from x₀ once in some
// ten million weeks. There is exactly one, of chances that are not below 0, however long a week is remembered.
func (p *play) repeat() {
	const anew = 1e-7
	n := p.states()
	begin, column := make([]float64, n), make([]float64, n)
	p.state(begin)
	m, right := mat.NewDense(n, n, nil), mat.NewVecDense(n, nil)
	for j := range n {
		clear(column)
		column[j] = 1
		p.setState(column)
		p.stretch(0, nil)
		p.state(column)
		for i, v := range column {
			m.Set(i, j, -(1-anew)*v)
		}
		m.Set(j, j, m.At(j, j)+1)
		right.SetVec(j, anew*begin[j])
	}
	var x mat.VecDense
	if err := x.SolveVec(m, right); err != nil && math.IsInf(mat.Norm(&x, 1), 0) {
		p.setState(begin) // not to be expected: the matrix is never singular
		return
	}
	for i := range column {
		column[i] = max(0, x.AtVec(i))
	}
	p.setState(column)
}

// hazards are what can happen in the cells of one piece.
type hazards struct {
	stay []float64 // for each age, the chance to stay free over a cell
	kept float64   // the same of what becomes free in the cell
}

// hazards are those of a cell in which streams come at these mean rates.
func (p *play) hazards(rates []float64) hazards {
	stay := make([]float64, p.ages)
	first := 0.0
	for i := range p.streams {
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
	return hazards{stay, kept}
}

// hazardsOf are those of a cell. Cells that lie within a piece are all alike; one that reaches into others has the mean of
// what comes in it.
func (p *play) hazardsOf(cell, piece int) hazards {
	at, key := float64(cell)*p.cell, -1-piece
	end := at + p.cell
	if end > p.edges[piece+1]+1e-6 {
		key = cell
	}
	h, ok := p.known[key]
	if ok {
		return h
	}
	rates := make([]float64, len(p.streams))
	for i := range p.streams {
		if key == cell {
			rates[i] = p.streams[i].Rate.Count(at, end) / p.cell
		} else {
			rates[i] = p.streams[i].Rate.At(p.edges[piece])
		}
	}
	h = p.hazards(rates)
	p.known[key] = h
	return h
}

// step goes through a cell and returns the chance that something goes out in it.
func (p *play) step(h *hazards) (out float64) {
	stay, kept := h.stay, h.kept
	next := p.oldest + 1
	if next == len(p.sent) {
		next = 0
	}
	freed := p.rest*p.sent[p.oldest] + (1-p.rest)*p.sent[next] // free again, evenly over the cell
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
	p.oldest = next
	return out
}

// stretch goes from a cell to the end of the week, and adds what goes out to h, which may be nil.
func (p *play) stretch(first int, h *Hours) {
	piece, still, last := 0, 0, -1.0
	var now hazards
	inside := -1 // the piece that the hazards are of, wholly
	for k := first; k < p.cells; k++ {
		at := float64(k) * p.cell
		for p.edges[piece+1] <= at+1e-6 {
			piece++
			still = 0
		}
		within := at+p.cell <= p.edges[piece+1]+1e-6
		if !within || piece != inside {
			now, inside = p.hazardsOf(k, piece), -1
			if within {
				inside = piece
			}
		}
		out := p.step(&now)
		if hour := int(at / 3600); h == nil {
		} else if at+p.cell <= float64(hour+1)*3600 {
			h[hour] += out
		} else {
			add(h, at, at+p.cell, out)
		}
		if math.Abs(out-last) <= 1e-9*out {
			still++
		} else {
			still = 0
		}
		last = out
		// Where nothing has changed for longer than anything is remembered, all cells are like the last.
		if still > p.states() {
			if n := int((p.edges[piece+1]-at)/p.cell) - 1; n > 1 {
				if h != nil {
					add(h, at+p.cell, at+float64(n+1)*p.cell, float64(n)*out)
				}
				k += n
			}
			still = 0
		}
	}
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
