package measured

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/mat"

	"wakefield.example/core/doubt"
	"wakefield.example/core/estimate"
	"wakefield.example/core/storage"
)

// daysOff is how far days on disk may be off beside what they are exact to: by how the days differ of which they are footage.
const daysOff = 0.02

// poolRow is how long a pool kept its footage, told by the oldest of it.
type poolRow struct {
	row
	pool   string
	days   float64
	at     float64   // logarithm of the days at which it is a line
	middle []float64 // values there
	slopes []float64 // by latent of deps
}

// poolRows are the rows of pools of which somebody looked for the oldest footage. What a limit of its own deletes tells nothing.
// Channels of one ring go back equally far: the middle of them counts.
func poolRows(est *estimate.Result, list []Oldest) (out []*poolRow) {
	type looked struct{ days, within []float64 }
	by := make(map[string]*looked)
	for _, o := range list {
		i, ok := est.Site().Channels[o.Channel]
		if !ok {
			continue
		}
		c := &est.Plan().Channels[i]
		days := o.On.Sub(o.Oldest).Hours() / 24
		if c.NoCamera || c.Keep.AtMostDays > 0 || c.Keep.QuotaGB > 0 || days <= 0 {
			continue
		}
		if by[c.Pool] == nil {
			by[c.Pool] = new(looked)
		}
		by[c.Pool].days = append(by[c.Pool].days, days)
		by[c.Pool].within = append(by[c.Pool].within, o.Within)
	}
	for k := range est.Pools {
		l := by[est.Pools[k].ID]
		if l == nil || est.Pools[k].RetentionDays == nil {
			continue
		}
		slices.Sort(l.days)
		days := l.days[len(l.days)/2]
		off := math.Hypot(daysOff, slices.Min(l.within)*0.29/days) // standard deviation of what is even over a length of 1
		out = append(out, &poolRow{row: row{y: math.Log(days), sd: off}, pool: est.Pools[k].ID, days: days})
	}
	return out
}

// columnsOf are the latents that decide what a channel writes.
func columnsOf(est *estimate.Result, i int) []doubt.Column {
	in, c := est.Input(i), est.Plan().Channels[i].ID
	out := []doubt.Column{doubt.SiteBitrates, doubt.ChannelBitrates(c)}
	for _, r := range in.Rates {
		if r.Modelled {
			out = append(out, doubt.SiteIdle, doubt.ChannelIdle(c))
		}
		if r.NightUnsaid {
			out = append(out, doubt.ChannelNight(c))
		}
	}
	if in.Guessed {
		out = append(out, doubt.Noticing)
	}
	for _, o := range in.Heard.Origins {
		f := doubt.Of(o)
		rate, length, size := f.Uncertain()
		if rate {
			out = append(out, doubt.SiteRate, doubt.ActivityRate(o.ID))
		}
		if rate && o.Season {
			out = append(out, doubt.Season)
		}
		if length {
			out = append(out, doubt.SiteLength, doubt.ActivityLength(o.ID))
		}
		if size {
			out = append(out, doubt.SiteGroup, doubt.ActivityGroup(o.ID))
		}
	}
	return out
}

// members are the channels of the pool that write anything.
func (p *poolRow) members(est *estimate.Result) (out []int) {
	for i := range est.Plan().Channels {
		if c := &est.Plan().Channels[i]; c.Pool == p.pool && !c.NoCamera {
			out = append(out, i)
		}
	}
	return out
}

// depend adds the latents that the pool depends on.
func (p *poolRow) depend(est *estimate.Result, l *latents) {
	for _, i := range p.members(est) {
		p.deps = append(p.deps, l.all(columnsOf(est, i)...)...)
	}
	slices.Sort(p.deps)
	p.deps = slices.Compact(p.deps)
}

// line makes the logarithm of the days a line in the latents, around some draws: of each channel the logarithm of what it writes
// is one, by least squares over the draws, and of these the days are by how much each has to do with them.
func (p *poolRow) line(est *estimate.Result, l *latents, drawn *estimate.Drawn, draws [][]float64) {
	members := p.members(est)
	mean := make([]float64, len(members))
	for k, i := range members {
		for _, v := range drawn.Kbps[i] {
			mean[k] += float64(v) / float64(len(drawn.Kbps[i]))
		}
	}
	shares := p.elasticities(est, members, mean)
	place := make(map[int]int, len(p.deps))
	for a, d := range p.deps {
		place[d] = a
	}
	p.slopes, p.middle = make([]float64, len(p.deps)), make([]float64, len(p.deps))
	for a, d := range p.deps {
		for i := range draws {
			p.middle[a] += draws[i][d] / float64(len(draws))
		}
	}
	for k, i := range members {
		if mean[k] <= 0 || shares[k] == 0 {
			continue
		}
		deps := l.all(columnsOf(est, i)...)
		slices.Sort(deps)
		deps = slices.Compact(deps)
		for a, by := range regress(drawn.Kbps[i], deps, draws) {
			p.slopes[place[deps[a]]] += shares[k] * by
		}
	}
	p.at = middleOf(drawn.Pools[p.pool].Kept)
}

// middleOf is the mean logarithm of days, of draws in which there is an end to them.
func middleOf(days []float64) float64 {
	sum, n := 0.0, 0.0
	for _, d := range days {
		if !math.IsInf(d, 1) && d > 0 {
			sum += math.Log(d)
			n++
		}
	}
	return sum / max(1, n)
}

// elasticities are by how much the logarithm of the days changes with that of what each channel writes.
func (p *poolRow) elasticities(est *estimate.Result, members []int, kbps []float64) []float64 {
	usable := storage.Bytes(0)
	for k := range est.Pools {
		if est.Pools[k].ID == p.pool {
			usable = storage.Bytes(est.Pools[k].UsableGB) * storage.GB
		}
	}
	days := func(more int) float64 {
		rates := make([]storage.Rate, len(members))
		for k, i := range members {
			day := storage.Bytes(kbps[k] * 1000 / 8 * 86400)
			if k == more {
				day *= 1.01
			}
			keep := &est.Plan().Channels[i].Keep
			rates[k] = storage.Rate{Daily: day, Limit: storage.Limit(day, storage.Days(keep.AtMostDays), storage.Bytes(keep.QuotaGB)*storage.GB)}
		}
		return float64(storage.Typical(usable, rates))
	}
	out := make([]float64, len(members))
	now := days(-1)
	if math.IsInf(now, 1) {
		return out
	}
	for k := range members {
		if then := days(k); !math.IsInf(then, 1) {
			out[k] = math.Log(then/now) / math.Log(1.01)
		}
	}
	return out
}

// regress finds by how much the logarithm of what is written changes with each latent, by least squares.
func regress(kbps []float32, deps []int, draws [][]float64) []float64 {
	n := len(deps) + 1
	normal, right := mat.NewSymDense(n, nil), mat.NewVecDense(n, nil)
	x := make([]float64, n)
	for i, v := range kbps {
		if v <= 0 {
			continue
		}
		x[0] = 1
		for a, d := range deps {
			x[a+1] = draws[i][d]
		}
		y := math.Log(float64(v))
		normal.SymRankOne(normal, 1, mat.NewVecDense(n, x))
		right.AddScaledVec(right, y, mat.NewVecDense(n, x))
	}
	for k := range n {
		normal.SetSym(k, k, normal.At(k, k)+1e-6)
	}
	var solver mat.Cholesky
	out := mat.NewVecDense(n, nil)
	if !solver.Factorize(normal) || solver.SolveVecTo(out, right) != nil {
		return make([]float64, len(deps))
	}
	return out.RawVector().Data[1:]
}

// linear is the logarithm of the days at some values.
func (p *poolRow) linear(z []float64) float64 {
	sum := p.at
	for a, d := range p.deps {
		sum += p.slopes[a] * (z[d] - p.middle[a])
	}
	return sum
}
