package measured

import (
	"math"

	"gonum.org/v1/gonum/mat"

	"wakefield.example/core/doubt"
)

// moreDays is how much longer it is asked what would be known then.
const moreDays = 14

// narrower is the range of days that would be told if two weeks more were logged like those that were: what was found bends the
// likelihood by so much more. It is nil where nothing was logged.
func (c *comparison) narrower(pool string, found *doubt.Range) *doubt.Range {
	logged := 0.0
	for _, s := range c.seen {
		logged = max(logged, s.days())
	}
	if found == nil || logged == 0 || len(c.fit.likeliest) == 0 {
		return nil
	}
	line := &poolRow{pool: pool}
	line.depend(c.basis, c.fit.latents)
	line.line(c.basis, c.fit.latents, c.fit.drawn, c.fit.draws)
	slopes := mat.NewVecDense(len(c.fit.likeliest), nil)
	for a, d := range line.deps {
		slopes.SetVec(d, line.slopes[a])
	}
	information, _ := c.fit.bend(c.fit.likeliest)
	now := variance(information, slopes)
	more := 1 + moreDays/logged
	n := len(c.fit.likeliest)
	for i := range n {
		for j := i; j < n; j++ {
			v := information.At(i, j)
			if i == j {
				v = 1 + (v-1)*more
			} else {
				v *= more
			}
			information.SetSym(i, j, v)
		}
	}
	then := variance(information, slopes)
	if now <= 0 || then <= 0 {
		return nil
	}
	by := math.Sqrt(then / now)
	return &doubt.Range{Likely: found.Likely, Low: found.Likely * math.Pow(found.Low/found.Likely, by),
		High: found.Likely * math.Pow(found.High/found.Likely, by), CommonPercent: found.CommonPercent}
}

// variance is that of what is so steep along the latents.
func variance(information *mat.SymDense, slopes *mat.VecDense) float64 {
	var solver mat.Cholesky
	if !solver.Factorize(information) {
		return 0
	}
	out := mat.NewVecDense(slopes.Len(), nil)
	if solver.SolveVecTo(out, slopes) != nil {
		return 0
	}
	return mat.Dot(slopes, out)
}
