// Package estimate turns a plan into figures: what every channel writes over the
// week, how long every pool keeps it, and how sure that is. It is the one door
// through which the server and the command line ask.
//
// Estimates are incremental: [Run] given the estimate of an earlier plan computes anew
// only the channels whose footage can have changed. [RunContext] gives up when its
// context ends.
package estimate

import (
	"context"

	"wakefield.example/core/plan"
)

// Run estimates a plan. earlier, which may be nil, is an estimate of the same site
// before a change, and is left alone.
func Run(p *plan.Plan, earlier *Result) *Result {
	s, _ := run(context.Background(), p, earlier, options{draw: true})
	return s
}

// RunContext is [Run], given up with the error of the context when that ends.
func RunContext(ctx context.Context, p *plan.Plan, earlier *Result) (*Result, error) {
	return run(ctx, p, earlier, options{draw: true})
}

// Figures estimates a plan without the draws that tell how sure the figures are.
func Figures(p *plan.Plan, earlier *Result) *Result {
	s, _ := run(context.Background(), p, earlier, options{})
	return s
}

// FiguresContext is [Figures], given up with the error of the context when that ends.
func FiguresContext(ctx context.Context, p *plan.Plan, earlier *Result) (*Result, error) {
	return run(ctx, p, earlier, options{})
}
