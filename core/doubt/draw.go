package doubt

import (
	"context"
	"hash/fnv"
	"math"
	"math/rand/v2"

	"wakefield.example/core/footage"
	"wakefield.example/core/parallel"
	"wakefield.example/core/resolve"
)

// Draws is how many sites are drawn to tell how sure a figure is.
const Draws = 2000

// seed makes the draws the same every time.
const seed = 0x57616b65

// Drawn is one channel over all draws.
type Drawn struct {
	Kbps    []float32 // mean bitrate in each draw; of thousands of channels half the memory matters
	Grouped []Gain    // of activities of which it is not known whether their events come in groups
}

// Gain is what a channel writes more, in kbit/s, if the events of an activity come in
// groups; mostly it is below 0.
type Gain struct {
	Activity string
	Kbps     float64
}

// Draw draws the bitrates of the channels of a site that were not drawn before.
func Draw(ctx context.Context, site *resolve.Site, played []*resolve.Played, drawn []Drawn) error {
	return prior().Draw(ctx, site, played, drawn)
}

// Draw is [Draw] in this world.
func (w *World) Draw(ctx context.Context, site *resolve.Site, played []*resolve.Played, drawn []Drawn) error {
	// Channels that play alike are played once at every knot.
	at := make(map[*footage.Shares]int)
	var alike [][]int
	for i := range drawn {
		if drawn[i].Kbps != nil {
			continue
		}
		if site.Inputs[i].Empty {
			drawn[i] = Drawn{Kbps: make([]float32, Draws)}
			continue
		}
		first := &played[i].Shares[0]
		k, ok := at[first]
		if !ok {
			k = len(alike)
			at[first] = k
			alike = append(alike, nil)
		}
		alike[k] = append(alike[k], i)
	}
	parallel.Do(len(alike), func(k int) {
		if ctx.Err() != nil {
			return
		}
		in := make([]*resolve.Input, len(alike[k]))
		for j, i := range alike[k] {
			in[j] = &site.Inputs[i]
		}
		for j, d := range w.drawAlike(in, played[alike[k][0]].Shares, func(j int) string { return site.Plan.Channels[alike[k][j]].ID }) {
			drawn[alike[k][j]] = d
		}
	})
	return ctx.Err()
}

// drawAlike draws the bitrates of channels that play alike. The streams of a channel are
// off together, each as far as it is known.
func (w *World) drawAlike(in []*resolve.Input, typical []footage.Shares, id func(i int) string) []Drawn {
	causes := doubtsOf(in[0].Heard.Origins)
	responses, steps, slopes := responses(in, causes, typical)
	felt := w.feltSteps(causes, steps)
	site := w.common
	out := make([]Drawn, len(in))
	for k := range in {
		own, r := w.columns(ofChannel+id(k), 1), &responses[k]
		var spreads [3]float64
		for s, known := range in[k].Rates {
			spreads[s] = RateSpread(known)
		}
		kbps := make([]float32, Draws)
		cells := cellsOf(in[k], typical)
		var bent func(int) bend
		if cells[0] != nil || cells[1] != nil || cells[2] != nil {
			bent = w.bends(id(k))
		}
		var more []float64
		if in[k].Guessed {
			more = w.noticed
		}
		for i := range kbps {
			var by bend
			notices := 0.0
			if more != nil {
				notices = more[i]
			}
			if bent != nil {
				by = bent(i)
			}
			y, sum := ofSite*site[i*commonColumns+axes]+ofOwn*own[i], 0.0
			for s := range r {
				if v := r.at(s, felt, i, notices); v > 0 {
					sum += v * by.of(cells[s]) * math.Exp(spreads[s]*(y-centre(spreads[s])))
				}
			}
			kbps[i] = float32(sum)
		}
		out[k].Kbps = kbps
		for j, step := range steps {
			if step.oneSided {
				by := slopes[k][j]
				out[k].Grouped = append(out[k].Grouped, Gain{causes[step.cause].ID, by[0] + by[1] + by[2]})
			}
		}
	}
	return out
}

// commonColumns are what a site shares: along each axis, and of bitrates.
const commonColumns = axes + 1

// Columns are columns of standard normal numbers, a row for every draw, that depend on
// nothing but the name.
func Columns(name string, columns int) []float64 {
	h := fnv.New64a()
	h.Write([]byte(name))
	rng := rand.New(rand.NewPCG(seed, h.Sum64()))
	out := make([]float64, Draws*columns)
	for i := range out {
		out[i] = rng.NormFloat64()
	}
	return out
}

// Of a standard normal number these are the weights of what is common to the site and of
// what is not.
var ofSite, ofOwn = math.Sqrt(CommonShare), math.Sqrt(1 - CommonShare)

// centre is how far below its median the own part of a factor lies, in standard
// deviations: what is stated is what a site comes to, of whose channels some write more
// and some less, so the factors of their own have a mean of 1, while that of the site as
// a whole has a median of 1.
func centre(spread float64) float64 { return spread * (1 - CommonShare) / 2 }

// feltSteps draws how far off every step is felt to be: rows by step.
func (w *World) feltSteps(causes []Figures, steps []step) [][]float64 {
	site, season := w.common, w.season
	own := make([][]float64, len(causes))
	for k := range causes {
		own[k] = w.columns(ofActivity+causes[k].ID, axes)
	}
	out := make([][]float64, len(steps))
	for k, s := range steps {
		out[k] = make([]float64, Draws)
		shift, bySeason := centre(causes[s.cause].spreadAlong(s.axis)), 0.0
		if s.axis == rateAxis && causes[s.cause].Season && causes[s.cause].Rate > 0 {
			bySeason = spread(seasonWide) / causes[s.cause].Rate
		}
		for i := range out[k] {
			out[k][i] = s.felt(ofSite*site[i*commonColumns+s.axis] + ofOwn*own[s.cause][i*axes+s.axis] - shift + bySeason*season[i])
		}
	}
	return out
}
