package measured

import (
	"hash/fnv"
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
func (l *latents) read(z []float64) doubt.Latent {
	return func(c doubt.Column) float64 {
		if k, ok := l.at[c]; ok {
			return z[k]
		}
		return 0
	}
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
				own[i*columns+at] = draws[i][k] - shift[column]
			}
		}
		if own != nil {
			return own
		}
		return out
	})
}
