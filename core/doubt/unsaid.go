package doubt

import (
	"cmp"
	"math"
	"slices"

	"wakefield.example/core/footage"
	"wakefield.example/core/plan"
	"wakefield.example/core/resolve"
	"wakefield.example/core/video"
	"wakefield.example/core/week"
)

// What nobody has said of a stream may make it otherwise than its figures, beside being off as a whole (see [rateSpread]).
const (
	// A bitrate by day that is used at night is off by a factor of its own then, as the noise of a dark picture costs much: by
	// less than the first in one of ten cases, than the second in half of them, than the third in nine.
	nightLeast, nightLikely, nightMost = 0.9, 1.2, 2.2
	// Where nothing moves noise decides a modelled bitrate: all in all it is off ×/÷ so much four times out of five.
	idleWide = 2.5
	// Fewer frames of constant quality save less than the model says, as each grows: off ×/÷ so much a halving.
	framesWide = 1.3
	// A season of which nobody spoke makes all activity of a site busier or quieter ×/÷ so much.
	seasonWide = 1.2
	// A detector of which nobody stated how reliable it is misses [plan.GuessedReliability]'s rest, ×/÷ so much, and never more
	// than half; the cameras of a site are much alike.
	missedWide, missedMost = 3, 0.5
)

// noticed is, for a standard normal number, the logarithm of how much more or less a detector notices whose reliability is a guess.
func noticed(z float64) float64 {
	missed := min(missedMost, (1-plan.GuessedReliability)*math.Exp(spread(missedWide)*z))
	return math.Log((1 - missed) / plan.GuessedReliability)
}

// darkness is when a picture is taken to be dark where nobody says: the mean night of a year, from dusk to dawn.
var darkness = func() week.Steps[bool] {
	out := week.Constant(false)
	for d := range week.Minute(7) {
		out = out.Paint(week.Span{From: d * week.Day, To: d*week.Day + 6*60}, true).Paint(week.Span{From: d*week.Day + 19*60,
			To: (d + 1) * week.Day}, true)
	}
	return out
}()

// Darkness is when a picture is taken to be dark where nobody says.
func Darkness() week.Steps[bool] { return darkness }

// DarkHours is that as it is written in a plan.
func DarkHours() []plan.Hours { return []plan.Hours{{From: 19 * 60, To: 6 * 60}} }

// cell is a part of what a stream writes in a mean week that has the same things unsaid.
type cell struct {
	share       float64 // of the stream's mean bitrate
	night, idle bool
	halvings    float64
}

// cellsOf divides what a channel writes from each stream by what is unsaid of it, at the stated figures; nil where nothing is.
func cellsOf(in *resolve.Input, shares []footage.Shares) (out [3][]cell) {
	if !slices.ContainsFunc(in.Rates[:], func(r resolve.RateKnown) bool { return r.Modelled || r.NightUnsaid }) {
		return out
	}
	still := week.Map(in.Regimes, func(g footage.Regime) footage.Regime {
		for _, c := range []*video.Cost{&g.Base, &g.Event, &g.Call} {
			c.Active = 0
		}
		return g
	})
	var sums [3]map[cell]float64
	add := func(stream int, minutes float64, kbps float64, c cell) {
		if kbps <= 0 || minutes <= 0 {
			return
		}
		of := in.Rates[stream]
		c.night, c.idle = c.night && of.NightUnsaid, c.idle && of.Modelled
		if sums[stream] == nil {
			sums[stream] = make(map[cell]float64)
		}
		sums[stream][c] += minutes * kbps
	}
	idle := footage.Price(shares, still)
	in.EachBin(shares, func(k int, b *footage.Bin, from resolve.LayerStreams) {
		dark := minutesOf(darkness, b.Span)
		for _, part := range []struct {
			minutes float64
			night   bool
		}{{dark, true}, {float64(b.Span.Minutes()) - dark, false}} {
			each := func(stream int, all, still video.Kbps, halvings float64) {
				add(stream, part.minutes, float64(still), cell{night: part.night, idle: true, halvings: halvings})
				add(stream, part.minutes, float64(all-still), cell{night: part.night, halvings: halvings})
			}
			i := idle[k]
			each(from.Base, b.Base, i.Base, from.BaseHalvings)
			each(from.Event, b.Motion+b.Alarm-b.Call, i.Motion+i.Alarm-i.Call, from.EventHalvings)
			each(in.Calls, b.Call, i.Call, 0)
		}
	})
	for s, sum := range sums {
		for c, v := range sum {
			c.share = v
			out[s] = append(out[s], c)
		}
		sortCells(out[s])
		all := 0.0
		for _, c := range out[s] {
			all += c.share
		}
		for k := range out[s] {
			out[s][k].share /= all
		}
		if len(out[s]) == 1 && out[s][0] == (cell{share: 1}) {
			out[s] = nil
		}
	}
	return out
}

// minutesOf is for how many minutes of a span steps hold.
func minutesOf(steps week.Steps[bool], over week.Span) (n float64) {
	for run, on := range steps.Runs() {
		if from, to := max(run.From, over.From), min(run.To, over.To); on && from < to {
			n += float64(to - from)
		}
	}
	return n
}

// bend is what a draw multiplies the bitrate of a stream by for what is unsaid.
type bend struct{ night, idle, frames float64 }

// of is the factor of a stream with such cells.
func (b bend) of(cells []cell) float64 {
	if cells == nil {
		return 1
	}
	sum := 0.0
	for _, c := range cells {
		f := c.share
		if c.night {
			f *= b.night
		}
		if c.idle {
			f *= b.idle
		}
		if c.halvings > 0 {
			f *= math.Pow(b.frames, c.halvings)
		}
		sum += f
	}
	return sum
}

// ofNight is the factor of an unsaid night for a standard normal number.
func ofNight(z float64) float64 {
	if z < 0 {
		return nightLikely * math.Exp(z*spread(nightLikely/nightLeast))
	}
	return nightLikely * math.Exp(z*spread(nightMost/nightLikely))
}

// idleSpread is the deviation of what is not moving beside that of the whole stream, which the model has anyway.
var idleSpread = math.Sqrt(math.Pow(spread(idleWide), 2) - math.Pow(RateSpread(resolve.RateKnown{Known: "guess", Modelled: true}), 2))

// bends draws what is unsaid of a channel, common parts as of the site.
func (w *World) bends(channel string) func(i int) bend {
	site, own := w.unsaid, w.columns(unsaidOf+channel, unsaidColumns)
	frames := spread(framesWide)
	return func(i int) bend {
		z := func(column int) float64 {
			return ofSite*site[i*unsaidColumns+column] + ofOwn*own[i*unsaidColumns+column]
		}
		return bend{
			night:  ofNight(own[i*unsaidColumns]),
			idle:   math.Exp(idleSpread*z(1) - centre(idleSpread)*idleSpread),
			frames: math.Exp(frames*z(2) - centre(frames)*frames),
		}
	}
}

const unsaidColumns = 3

// sortCells puts cells into one order, whatever map they come from.
func sortCells(list []cell) {
	slices.SortFunc(list, func(a, b cell) int {
		flag := func(on bool) int {
			if on {
				return 1
			}
			return 0
		}
		return cmp.Or(cmp.Compare(flag(a.night), flag(b.night)), cmp.Compare(flag(a.idle), flag(b.idle)), cmp.Compare(a.halvings, b.halvings))
	})
}

// UnsaidNight is what a channel writes in the dark by bitrates of the day, GB a day: nobody has said what they come to then.
func UnsaidNight(in *resolve.Input, played *resolve.Played) float64 {
	kbps := 0.0
	by := in.ByStream(played.Shares)
	for stream, cells := range cellsOf(in, played.Shares) {
		for _, c := range cells {
			if c.night {
				kbps += c.share * by[stream]
			}
		}
	}
	return video.Kbps(kbps).GigabytesPerDay()
}

// NightRange is by what such bitrates are to be multiplied in the dark: in one of ten cases by less, in half of them, in nine by
// less.
func NightRange() (least, likely, most float64) { return nightLeast, nightLikely, nightMost }

// FewerFrames is by how much less or more than the model says a channel writes, kbit/s, four times out of five, of streams of
// which frames are left out.
func FewerFrames(in *resolve.Input, played *resolve.Played) (less, more float64) {
	if !in.FewerFrames() {
		return 0, 0
	}
	by := in.ByStream(played.Shares)
	for stream, cells := range cellsOf(in, played.Shares) {
		for _, c := range cells {
			wide := math.Pow(framesWide, c.halvings)
			less += c.share * by[stream] * (1 - 1/wide)
			more += c.share * by[stream] * (wide - 1)
		}
	}
	return less, more
}
