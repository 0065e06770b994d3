package estimate

import (
	"context"

	"wakefield.example/core/doubt"
	"wakefield.example/core/resolve"
)

// Drawn is a site over all draws of a world.
type Drawn struct {
	Kbps  [][]float32            // what channels write, by channel and draw
	Pools map[string]*doubt.Pool // by id
}

// Drawn is the site as it was drawn; nil where it was not.
func (s *Result) Drawn() *Drawn {
	if s.pooled == nil {
		return nil
	}
	return s.drawnOf(s.doubts, s.pooled)
}

// In is the site in another world than that of its plan: as it is after something was found out about it. It fails with the
// error of the context when that ends.
func (s *Result) In(ctx context.Context, w *doubt.World) (*Drawn, error) {
	drawn := make([]doubt.Drawn, len(s.plan.Channels))
	if err := w.Draw(ctx, s.site, s.played, drawn); err != nil {
		return nil, err
	}
	pools := make(map[string]*doubt.Pool, len(s.Pools))
	for k := range s.Pools {
		if ctx.Err() != nil {
			return nil, ctx.Err()
		}
		pool := &s.Pools[k]
		var list []doubt.Member
		for i := range s.plan.Channels {
			if s.plan.Channels[i].Pool == pool.ID {
				list = append(list, s.member(i, &drawn[i]))
			}
		}
		pools[pool.ID] = doubt.DrawPool(pool.UsableGB, s.worstShare(pool), list, nil)
	}
	return s.drawnOf(drawn, pools), nil
}

func (s *Result) drawnOf(doubts []doubt.Drawn, pools map[string]*doubt.Pool) *Drawn {
	out := &Drawn{Kbps: make([][]float32, len(doubts)), Pools: pools}
	for i := range doubts {
		out.Kbps[i] = doubts[i].Kbps
	}
	return out
}

// Resampled are some of the draws, by their numbers.
func (d *Drawn) Resampled(order []int) *Drawn {
	out := &Drawn{Kbps: make([][]float32, len(d.Kbps)), Pools: make(map[string]*doubt.Pool, len(d.Pools))}
	for i, kbps := range d.Kbps {
		out.Kbps[i] = make([]float32, len(order))
		for k, n := range order {
			out.Kbps[i][k] = kbps[n]
		}
	}
	for id, pool := range d.Pools {
		out.Pools[id] = pool.Resampled(order)
	}
	return out
}

// Site is what the plan means for its channels.
func (s *Result) Site() *resolve.Site { return s.site }

// Input is all that decides what channel i writes.
func (s *Result) Input(i int) *resolve.Input { return &s.inputs[i] }
