package measured

import (
	"context"
	"math"
	"slices"

	"gonum.org/v1/gonum/mat"

	"wakefield.example/core/doubt"
	"wakefield.example/core/estimate"
	"wakefield.example/core/parallel"
)

// The draws of a site are weighted by how likely each makes what was found. Of two thousand that know nothing hardly one comes
// near where much was found; so they are drawn where the likelihood is greatest to begin with: a normal distribution of the
// latents around their likeliest values, with the curvature there. Where so few draws' worth of weight is left as enoughDraws,
// they are drawn anew around the weighted mean, wider; below fewestDraws no range is told.
const (
	enoughDraws = 400
	fewestDraws = 100
	mostRounds  = 4
	widen       = 1.1
)

// fitted are the draws of a site after what was found.
type fitted struct {
	latents   *latents
	draws     [][]float64 // resampled by weight
	worth     float64     // how many draws' worth of weight there was
	drawn     *estimate.Drawn
	curve     *mat.Cholesky // of the information at the likeliest values
	likeliest []float64
	lines     []*poolRow
	rows      []row
}

// fit finds the draws after what was found. pools are told by footage.
func fit(ctx context.Context, est *estimate.Result, l *latents, rows []row, pools []*poolRow) (*fitted, error) {
	f := &fitted{latents: l, rows: rows, lines: pools}
	for _, p := range pools {
		p.depend(est, l)
	}
	for k := range est.Pools { // whose days are told as well
		(&poolRow{pool: est.Pools[k].ID}).depend(est, l)
	}
	before := est.Drawn()
	for _, p := range pools {
		p.line(est, l, before, l.coordinates(l.numbers(0)))
	}
	f.likeliest = make([]float64, len(l.columns))
	wide := 1.0
	var base *based
	for round := range mostRounds + 1 {
		if ctx.Err() != nil {
			return nil, ctx.Err()
		}
		if round < 2 {
			f.climb()
			var err error
			if base, err = l.rebase(ctx, est, f.likeliest); err != nil {
				return nil, err
			}
		}
		numbers := l.numbers(round)
		draws := f.around(numbers, wide)
		drawn, err := base.drawn(ctx, l, draws)
		if err != nil {
			return nil, err
		}
		weights, worth := f.weigh(draws, numbers, drawn, wide)
		if worth > f.worth {
			f.worth = worth
			f.resample(draws, weights, drawn)
		}
		if worth >= enoughDraws || len(l.columns) == 0 {
			break
		}
		for _, p := range pools {
			p.line(est, l, drawn, draws)
		}
		if round > 0 {
			f.recentre(draws, weights)
			wide *= widen
		}
	}
	return f, nil
}

// climb finds the likeliest values, by Fisher's scoring with steps that are halved as long as they go down.
func (f *fitted) climb() {
	z := f.likeliest
	best := f.posterior(z)
	for range 25 {
		information, slope := f.bend(z)
		f.curve = new(mat.Cholesky)
		if len(z) == 0 || !f.curve.Factorize(information) {
			return
		}
		step := mat.NewVecDense(len(z), nil)
		if err := f.curve.SolveVecTo(step, mat.NewVecDense(len(z), slope)); err != nil {
			return
		}
		moved := false
		for size := 1.0; size > 1e-3; size /= 2 {
			next := make([]float64, len(z))
			for k := range next {
				next[k] = max(-8, min(8, z[k]+size*step.AtVec(k)))
			}
			if value := f.posterior(next); value > best+1e-9 {
				moved = value > best+1e-6
				z, best = next, value
				break
			}
		}
		f.likeliest = z
		if !moved {
			return
		}
	}
}

// posterior is the logarithm of how likely values are after what was found, but for a constant.
func (f *fitted) posterior(z []float64) float64 {
	sum := f.likelihood(z)
	for _, p := range f.lines {
		sum += p.likelihood(p.linear(z))
	}
	for k, v := range z {
		sum += f.latents.prior(k, v)
	}
	return sum
}

// likelihood is that of all rows but those of pools.
func (f *fitted) likelihood(z []float64) (sum float64) {
	read := f.latents.read(z)
	for k := range f.rows {
		sum += f.rows[k].likelihood(f.rows[k].mean(read))
	}
	return sum
}

// bend is the information at some values, and the slope there.
func (f *fitted) bend(z []float64) (*mat.SymDense, []float64) {
	n := len(z)
	information, slope := mat.NewSymDense(max(n, 1), nil), make([]float64, n)
	for k, v := range z {
		by, bends := f.latents.bend(k, v)
		information.SetSym(k, k, bends)
		slope[k] = by
	}
	add := func(deps []int, by []float64, score, info float64) {
		for a, i := range deps {
			slope[i] += score * by[a]
			for b, j := range deps[:a+1] {
				information.SetSym(i, j, information.At(i, j)+info*by[a]*by[b])
			}
		}
	}
	const h = 1e-3
	at := slices.Clone(z)
	read := f.latents.read(at)
	for k := range f.rows {
		r := &f.rows[k]
		m := r.mean(read)
		by := make([]float64, len(r.deps))
		for a, i := range r.deps {
			at[i] += h
			by[a] = (r.mean(read) - m) / h
			at[i] -= h
		}
		score, info := r.score(m)
		add(r.deps, by, score, info)
	}
	for _, p := range f.lines {
		score, info := p.score(p.linear(z))
		add(p.deps, p.slopes, score, info)
	}
	return information, slope
}

// around are draws around the likeliest values: z = m + L⁻ᵀ ε, so that where nothing was found they are ε.
func (f *fitted) around(numbers [][]float64, wide float64) [][]float64 {
	n := len(f.likeliest)
	out := make([][]float64, len(numbers))
	if n == 0 {
		for i := range out {
			out[i] = nil
		}
		return out
	}
	var lower mat.TriDense
	f.curve.LTo(&lower)
	const chunk = 125
	parallel.Do((len(numbers)+chunk-1)/chunk, func(part int) {
		from, to := part*chunk, min(len(numbers), (part+1)*chunk)
		right := mat.NewDense(n, to-from, nil)
		for i := from; i < to; i++ {
			right.SetCol(i-from, numbers[i])
		}
		var solved mat.Dense
		if err := solved.Solve(lower.T(), right); err != nil {
			solved.CloneFrom(right)
		}
		for i := from; i < to; i++ {
			z := make([]float64, n)
			for k := range z {
				z[k] = f.likeliest[k] + wide*solved.At(k, i-from)
			}
			out[i] = z
		}
	})
	return out
}

// weigh tells by how much each draw counts, and how many draws' worth of weight there is.
func (f *fitted) weigh(draws, numbers [][]float64, drawn *estimate.Drawn, wide float64) (weights []float64, worth float64) {
	logs := make([]float64, len(draws))
	const chunk = 50
	parallel.Do((len(draws)+chunk-1)/chunk, func(part int) {
		for i := part * chunk; i < min(len(draws), (part+1)*chunk); i++ {
			sum := f.likelihood(draws[i])
			for _, p := range f.lines {
				if days := drawn.Pools[p.pool].Kept[i]; !math.IsInf(days, 1) {
					sum += p.likelihood(math.Log(days))
				} else {
					sum -= 50
				}
			}
			for k, z := range draws[i] {
				sum += numbers[i][k]*numbers[i][k]/2 + f.latents.prior(k, z)
			}
			logs[i] = sum
		}
	})
	top := slices.Max(logs)
	weights = make([]float64, len(logs))
	sum, squares := 0.0, 0.0
	for i, v := range logs {
		weights[i] = math.Exp(v - top)
		sum += weights[i]
		squares += weights[i] * weights[i]
	}
	for i := range weights {
		weights[i] /= sum
	}
	return weights, sum * sum / squares
}

// recentre moves the middle of the next draws to the weighted mean of these; where few carry all the weight it is spread first.
func (f *fitted) recentre(draws [][]float64, weights []float64) {
	tempered := slices.Clone(weights)
	for range 12 {
		sum, squares := 0.0, 0.0
		for _, w := range tempered {
			sum += w
			squares += w * w
		}
		if sum*sum/squares >= fewestDraws {
			break
		}
		for i := range tempered {
			tempered[i] = math.Sqrt(tempered[i])
		}
	}
	total := 0.0
	mean := make([]float64, len(f.likeliest))
	for i, w := range tempered {
		total += w
		for k, z := range draws[i] {
			mean[k] += w * z
		}
	}
	for k := range mean {
		mean[k] /= total
	}
	f.likeliest = mean
}

// resample keeps each draw as often as its weight tells, at even steps of the weights added up.
func (f *fitted) resample(draws [][]float64, weights []float64, drawn *estimate.Drawn) {
	order := make([]int, len(draws))
	f.draws = make([][]float64, len(draws))
	at, sum := 0, weights[0]
	for i := range order {
		for want := (float64(i) + 0.5) / float64(len(draws)); sum < want && at < len(draws)-1; {
			at++
			sum += weights[at]
		}
		order[i], f.draws[i] = at, draws[at]
	}
	f.drawn = drawn.Resampled(order)
}

// told tells whether there is enough weight for a range.
func (f *fitted) told() bool { return f.worth >= fewestDraws }

// quantiles are the tenth, fiftieth and ninetieth percentile of something over the draws.
func (f *fitted) quantiles(of func(z doubt.Latent) float64) (low, mid, high float64) {
	values := make([]float64, len(f.draws))
	for i, z := range f.draws {
		values[i] = of(f.latents.read(z))
	}
	slices.Sort(values)
	at := func(share float64) float64 { return values[int(share*float64(len(values)-1)+0.5)] }
	return at(0.1), at(0.5), at(0.9)
}
