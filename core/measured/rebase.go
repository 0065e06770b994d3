package measured

import (
	"context"
	"math"

	"wakefield.example/core/doubt"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
)

// based is a site estimated around some values of the latents: its figures are as if these were true. What a channel writes is
// followed exactly there only where its figures are as stated, so that narrow ranges far from the plan need a site that is near.
type based struct {
	est   *estimate.Result
	shift map[doubt.Column]float64 // what the latents are less than before
}

// rebase estimates a site around some values.
func (l *latents) rebase(ctx context.Context, est *estimate.Result, z []float64) (*based, error) {
	b := &based{est: est, shift: make(map[doubt.Column]float64)}
	p := est.Plan()
	next := *p
	next.Activities = append([]plan.Activity(nil), p.Activities...)
	read := l.read(z)
	changed := false
	for k := range next.Activities {
		a := &next.Activities[k]
		f := doubt.Of(est.Site().Activities[a.ID].From)
		move := func(c doubt.Column, by, width float64) float64 {
			if _, ok := l.at[c]; !ok || width <= 0 || math.Abs(math.Log(by)) < 0.02 {
				return 1
			}
			b.shift[c] = math.Log(by) / (width * doubt.OfOwn)
			changed = true
			return by
		}
		rate, length, size := f.Widths()
		if by := move(doubt.ActivityRate(a.ID), f.RateFactor(read), rate); by != 1 {
			a.OtherwisePerHour *= by
			a.Blocks = append([]plan.RateBlock(nil), a.Blocks...)
			for i := range a.Blocks {
				a.Blocks[i].PerHour *= by
			}
		}
		a.MeanSeconds *= move(doubt.ActivityLength(a.ID), f.LengthFactor(read), length)
		if f.Group.Grouped() && size > 0 {
			by := move(doubt.ActivityGroup(a.ID), (f.GroupSize(read)-1)/(f.Group.Size-1), size)
			a.Groups = &plan.Groups{Size: 1 + (a.Groups.Size-1)*by, WithinSeconds: a.Groups.WithinSeconds}
		}
	}
	if !changed {
		return b, nil
	}
	var err error
	b.est, err = estimate.FiguresContext(ctx, &next, est)
	return b, err
}

// drawn is the site over some draws.
func (b *based) drawn(ctx context.Context, l *latents, draws [][]float64) (*estimate.Drawn, error) {
	return b.est.In(ctx, l.world(draws, b.shift))
}
