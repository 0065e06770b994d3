package measured

import (
	"hash/fnv"
	"math"
	"math/rand/v2"

	"wakefield.example/core/doubt"
)

// latents are the numbers that are to be found out, each standard normal before anything is.
type latents struct {
	columns []doubt.Column
	at      map[doubt.Column]int
}

// of is the place of a column.
func (l *latents) of(c doubt.Column) int {
	if k, ok := l.at[c]; ok {
		return k
	}
	if l.at == nil {
		l.at = make(map[doubt.Column]int)
	}
	l.at[c] = len(l.columns)
	l.columns = append(l.columns, c)
	return len(l.columns) - 1
}

// all are the places of several.
func (l *latents) all(list ...doubt.Column) []int {
	out := make([]int, len(list))
	for k, c := range list {
		out[k] = l.of(c)
	}
	return out
}

// read reads the numbers of a vector; columns that nobody looks at are in the middle.
func (l *latents) read(x []float64) doubt.Latent {
	return func(c doubt.Column) float64 {
		if k, ok := l.at[c]; ok {
			return l.value(k, x[k])
		}
		return 0
	}
}

// noticingUnit is in what the coordinate of how much detectors notice is counted: about its standard deviation.
const noticingUnit = 0.05

// value is the number of a column at a coordinate. That is the number itself, but for how much detectors notice: there it is the
// logarithm of that, as counts tell of it in proportion, far more exactly than a number that bends would follow.
func (l *latents) value(k int, x float64) float64 {
	if l.columns[k] != doubt.Noticing {
		return x
	}
	z, _, ok := doubt.NoticingOf(x * noticingUnit)
	if !ok && x < 0 {
		return 6 // half of everything is overlooked
	}
	if !ok {
		return -6
	}
	return z
}

// coordinates are where numbers lie.
func (l *latents) coordinates(numbers [][]float64) [][]float64 {
	for k, c := range l.columns {
		if c == doubt.Noticing {
			for i := range numbers {
				numbers[i][k] = doubt.Noticed(numbers[i][k]) / noticingUnit
			}
		}
	}
	return numbers
}

// prior is the logarithm of how likely a coordinate is before anything was found, but for a constant.
func (l *latents) prior(k int, x float64) float64 {
	if l.columns[k] != doubt.Noticing {
		return -x * x / 2
	}
	z, slope, ok := doubt.NoticingOf(x * noticingUnit)
	if !ok {
		return math.Inf(-1)
	}
	return -z*z/2 + math.Log(math.Abs(slope))
}

// bend is the slope of that, and how much it bends.
func (l *latents) bend(k int, x float64) (slope, information float64) {
	if l.columns[k] != doubt.Noticing {
		return -x, 1
	}
	const h = 0.02
	low, mid, high := l.prior(k, x-h), l.prior(k, x), l.prior(k, x+h)
	if math.IsInf(low+mid+high, -1) {
		return -5, 1
	}
	return (high - low) / (2 * h), max(0.3, -(high-2*mid+low)/(h*h))
}

// period is by what the days that were looked at differ together from the mean of days like them. It is no part of the site.
var period = doubt.Column{Name: "period", At: 0, Of: 1}

// numbers are independent standard normal numbers of all columns, a row for every draw: those that the site was drawn from
// anyway, so that where nothing was found all is as before.
func (l *latents) numbers(round int) [][]float64 {
	out := make([][]float64, doubt.Draws)
	for i := range out {
		out[i] = make([]float64, len(l.columns))
	}
	for k, c := range l.columns {
		var of func(i int) float64
		if round == 0 && c != period {
			prior := c.Prior()
			of = func(i int) float64 { return prior[i] }
		} else {
			h := fnv.New64a()
			h.Write([]byte(c.Name))
			rng := rand.New(rand.NewPCG(h.Sum64(), uint64(round*16+c.At)))
			of = func(int) float64 { return rng.NormFloat64() }
		}
		for i := range out {
			out[i][k] = of(i)
		}
	}
	return out
}

// world is a world whose columns are those of some draws, and as before where nothing was looked at.
func (l *latents) world(draws [][]float64, shift map[doubt.Column]float64) *doubt.World {
	return doubt.NewWorld(func(name string, columns int) []float64 {
		out := doubt.Columns(name, columns)
		var own []float64
		for at := range columns {
			column := doubt.Column{Name: name, At: at, Of: columns}
			k, ok := l.at[column]
			if !ok {
				continue
			}
			if own == nil {
				own = append(own, out...)
			}
			for i := range draws {
				own[i*columns+at] = l.value(k, draws[i][k]) - shift[column]
			}
		}
		if own != nil {
			return own
		}
		return out
	})
}
