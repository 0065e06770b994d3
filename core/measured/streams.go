package measured

import (
	"math"

	"gonum.org/v1/gonum/mat"

	"wakefield.example/core/activity"
	"wakefield.example/core/doubt"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/core/resolve"
	"wakefield.example/core/week"
)

// meterOff is how far a bitrate may be off that was read from a recorder, four times out of five: a factor.
const meterOff = 1.05

// costs are what a stream costs, kbit/s, as it is planned or as it was found; found and how far each may be off, as the standard
// deviation of its logarithm.
type costs struct{ still, moving, night float64 }

// stream is the main stream of a channel, measured.
type stream struct {
	channel        int
	planned, found costs // night is a factor; 0 where nobody tells of darkness
	off            costs // by the meter and its noise, for the plan: if more moves than is thought, each of it costs less
	chance         costs // and by how often something moves, for who asks of the figure alone
	hours          [24]hourOfDay
}

// hourOfDay is what was planned and found in an hour of the day, kbit/s.
type hourOfDay struct {
	n              int
	planned, found float64
	off            float64 // standard deviation of what is found
}

// measuredStream finds what a stream costs while nothing moves, and while something does, by least squares over the hours of the
// week: a mean of an hour is (1 − p)·still + p·moving, times the night's factor, where something moves p of the time. It is nil
// where the channel has no such stream.
func measuredStream(site *resolve.Site, i int, r *Rates, moved *moved) *stream {
	moves := &moved.share
	c := &site.Plan.Channels[i]
	if c.NoCamera || c.Streams.Main == nil || len(r.Hours) == 0 {
		return nil
	}
	main := c.Streams.Main
	cost := resolve.Encoded(main).Cost()
	s := &stream{channel: i, planned: costs{still: float64(cost.Idle), moving: float64(cost.Active)}}
	dark := darkness(main)
	if main.Rate.Night != nil {
		s.planned.night = main.Rate.Night.Factor
	}
	day := s.fit(r, moves, func(h int) bool { return dark.At(week.Minute(h*60 + 30)) })
	s.chance = s.off
	if s.found.moving > 0 && s.found.still > 0 { // of which so much is by how often something moves
		s.chance.moving = math.Hypot(s.off.moving, moved.off*math.Abs(1-s.found.still/s.found.moving))
		days := dayFactor / math.Sqrt(max(1, float64(r.To.Since(r.From)+1))) // by which hours of one day are off together
		share := 0.0
		for _, p := range moves {
			share += p / hoursOfWeek
		}
		s.chance.still = math.Hypot(s.off.still, days*share*math.Abs(s.found.moving/s.found.still-1))
		s.chance.moving = math.Hypot(s.chance.moving, days*math.Abs(1-s.found.still/s.found.moving)/2)
	}
	if s.planned.night > 0 || resolve.RateKnownOf(main).NightUnsaid {
		s.nights(r, moves, dark, day)
	}
	s.byHour(r, moves, dark)
	return s
}

// darkness is when the plan takes a stream's picture for dark.
func darkness(s *plan.Stream) week.Steps[bool] {
	if s.Rate.Night != nil {
		return s.Rate.Night.Steps()
	}
	if resolve.RateKnownOf(s).NightUnsaid {
		return doubt.Darkness()
	}
	return week.Constant(false)
}

// fit fits what the stream costs by day, and tells whether it could. Where too little moves for it, only what is still is told, and
// where the encoder sends the same always it is one figure.
func (s *stream) fit(r *Rates, moves *[hoursOfWeek]float64, dark func(int) bool) bool {
	var n, p, pp, y, py, yy float64
	for _, h := range r.Hours {
		if dark(h.Hour) {
			continue
		}
		w, share, mean := float64(h.N), moves[h.Hour], h.Kbps/float64(h.N)
		n, p, pp = n+w, p+w*share, pp+w*share*share
		y, py, yy = y+w*mean, py+w*share*mean, yy+h.Squares
	}
	if n < 3 {
		return false
	}
	if s.planned.still == s.planned.moving {
		mean := y / n
		s.found.moving = mean
		s.off.moving = s.error(math.Sqrt(max(0, yy/n-mean*mean)/n), mean)
		s.found.still, s.off.still = s.found.moving, s.off.moving
		return true
	}
	normal := mat.NewDense(2, 2, []float64{n - 2*p + pp, p - pp, p - pp, pp})
	right := mat.NewVecDense(2, []float64{y - py, py})
	var inverse mat.Dense
	if inverse.Inverse(normal) != nil {
		mean := (y - py) / max(n-2*p+pp, 1e-9)
		s.found.still, s.off.still = mean, s.error(math.Sqrt(max(0, yy/n-(y/n)*(y/n))/n), mean)
		return true
	}
	var at mat.VecDense
	at.MulVec(&inverse, right)
	still, moving := at.AtVec(0), at.AtVec(1)
	rest := max(0, yy-still*(y-py)-moving*py) / max(1, n-2)
	if still > 0 {
		s.found.still, s.off.still = still, s.error(math.Sqrt(rest*inverse.At(0, 0)), still)
	}
	if moving > 0 {
		s.found.moving, s.off.moving = moving, s.error(math.Sqrt(rest*inverse.At(1, 1)), moving)
	}
	return true
}

// error is a standard error as one of the logarithm, with what the meter may be off.
func (s *stream) error(off, of float64) float64 {
	return math.Hypot(off/of, math.Log(meterOff)/1.2815515655446004)
}

// nights finds what darkness multiplies the stream by.
func (s *stream) nights(r *Rates, moves *[hoursOfWeek]float64, dark week.Steps[bool], day bool) {
	if !day || s.found.still <= 0 {
		return
	}
	moving := s.found.moving
	if moving <= 0 || s.off.moving > tellable {
		moving = s.found.still * s.planned.moving / max(s.planned.still, 1e-9)
	}
	found, expected, squares, n := 0.0, 0.0, 0.0, 0.0
	for _, h := range r.Hours {
		if dark.At(week.Minute(h.Hour*60 + 30)) {
			found += h.Kbps
			squares += h.Squares
			n += float64(h.N)
			expected += float64(h.N) * ((1-moves[h.Hour])*s.found.still + moves[h.Hour]*moving)
		}
	}
	if n < 3 || expected <= 0 {
		return
	}
	mean := found / n
	s.found.night = found / expected
	s.off.night = math.Hypot(math.Sqrt(max(0, squares/n-mean*mean)/n)/mean, 0.02) // the meter is off by day and night alike
}

// byHour adds up by hour of the day.
func (s *stream) byHour(r *Rates, moves *[hoursOfWeek]float64, dark week.Steps[bool]) {
	var squares [24]float64
	for _, h := range r.Hours {
		b := &s.hours[h.Hour%24]
		planned := (1-moves[h.Hour])*s.planned.still + moves[h.Hour]*s.planned.moving
		if s.planned.night > 0 && dark.At(week.Minute(h.Hour*60+30)) {
			planned *= s.planned.night
		}
		b.n += h.N
		b.planned += float64(h.N) * planned
		b.found += h.Kbps
		squares[h.Hour%24] += h.Squares
	}
	for k := range s.hours {
		if b := &s.hours[k]; b.n > 0 {
			n := float64(b.n)
			b.planned, b.found = b.planned/n, b.found/n
			b.off = math.Sqrt(max(0, squares[k]/n-b.found*b.found) / n)
		}
	}
}

// tellable is how far off a figure may be, as the standard deviation of its logarithm, to be told at all: more is as good as a
// guess.
const tellable = 0.2

// apartWide is how far what a stream costs while something moves, over what it costs while nothing does, is taken to be off the
// plan where that alone is asked, as the standard deviation of its logarithm.
const apartWide = 0.1

// together is a figure with what the other one says of it, each by how certain it is.
func together(found, off, other, otherOff float64) (value, sd float64) {
	if found <= 0 || off <= 0 {
		return other, otherOff
	}
	w, v := 1/(off*off), 1/(otherOff*otherOff)
	return math.Exp((w*math.Log(found) + v*math.Log(other)) / (w + v)), math.Sqrt(1 / (w + v))
}

// rate is the stream's rate with what was found in the place of what was planned; ok is false where nothing can be told.
func (s *stream) rate(r plan.Rate) (out plan.Rate, ok bool) {
	still, moving := s.found.still, s.found.moving
	stillTold, movingTold := still > 0 && s.off.still < tellable, moving > 0 && s.off.moving < tellable
	if !stillTold && !movingTold || s.planned.still <= 0 || s.planned.moving <= 0 {
		return r, false
	}
	sd := s.off.moving
	if s.planned.still != s.planned.moving {
		ratio := s.planned.moving / s.planned.still
		var offStill, offMoving float64
		switch {
		case !stillTold:
			still, offMoving = moving/ratio, s.off.moving
			offStill = math.Hypot(s.off.moving, apartWide)
		case !movingTold:
			moving, offStill = still*ratio, s.off.still
			offMoving = math.Hypot(s.off.still, apartWide)
		default:
			byStill, byMoving := still*ratio, moving/ratio
			still, offStill = together(still, s.off.still, byMoving, math.Hypot(s.off.moving, apartWide))
			moving, offMoving = together(moving, s.off.moving, byStill, math.Hypot(s.off.still, apartWide))
		}
		sd = math.Sqrt(offStill * offMoving)
	}
	known := knownAs(sd)
	round := func(v float64) float64 {
		digits := math.Pow(10, max(0, 2-math.Floor(math.Log10(max(v, 1e-3)))))
		return math.Round(v*digits) / digits
	}
	if r.Kind == "constant" {
		return plan.Rate{Kind: "constant", Kbps: round(moving), Known: known}, true
	}
	out = plan.Rate{Kind: "variable", IdleKbps: round(still), ActiveKbps: round(moving), Known: known, Night: r.Night}
	if s.found.night > 0 && s.off.night < tellable {
		night := plan.Night{Factor: math.Round(s.found.night*100) / 100}
		if r.Night != nil {
			night.Hours = r.Night.Hours
		} else {
			night.Hours = plan.HourList{Blocks: doubt.DarkHours()}
		}
		out.Night = &night
	}
	return out, true
}

// knownAs is as how well a bitrate is known that may be off so far, as the standard deviation of its logarithm.
func knownAs(sd float64) string {
	for _, known := range []string{"measured", "surveyed", "datasheet"} {
		if sd <= doubt.RateSpread(resolve.RateKnown{Known: known})*1.2 {
			return known
		}
	}
	return "guess"
}

// moved is the share of each hour of the week in which something moves before a channel, and by how much that may be off, as the
// standard deviation of its logarithm.
type moved struct {
	share [hoursOfWeek]float64
	off   float64
}

// moving is that as the plan has it; where there is a log of it, as much more often and longer as that tells, and with as many at a
// time. What detection does not notice moves as well. Where the log has the days on which bitrates were measured, those days count;
// else they differ as days do.
func moving(site *resolve.Site, i int, list []*seen, from, to week.Date) (out moved) {
	in := &site.Inputs[i]
	out.off = dayFactor / math.Sqrt(max(1, float64(to.Since(from)+1)))
	for _, o := range in.Heard.Origins {
		if f := doubt.Of(o); in.Heard.Moves(o.ID) {
			rate, length, _ := f.Widths()
			out.off = math.Hypot(out.off, math.Hypot(rate, length))
		}
	}
	more, main, group := 1.0, "", activity.Group{}
	for _, s := range list {
		if s.channel != i || s.log.Kind != Triggers || len(s.from) == 0 || s.log.N() <= enough {
			continue
		}
		more, out.off = s.paceIn(from, to)
		k := s.main()
		if k >= 0 && s.log.Lengths >= enough && !s.joined && s.log.Seconds > 0 && s.sharePart(k) >= 0.9 {
			more *= s.log.Seconds / float64(s.log.Lengths) / s.lasts(s.stated(), s.thick(k), s.asStated())
		}
		if g := s.log.Group; k >= 0 && g != nil && s.sharePart(k) >= 0.9 {
			main, group = s.from[k].ID, activity.Group{Size: 1 + (g.Size-1)/max(s.from[k].notices, 0.05), Seconds: g.Seconds}
		}
	}
	for _, own := range in.Heard.Own {
		together := own.Group
		if own.From.ID == main {
			together = group
		}
		each := more * own.Mean / 3600 * union(together, 0, own.Mean)
		for h := range out.share {
			out.share[h] += own.Intensity.Count(float64(h)*3600, float64(h+1)*3600) * each
		}
	}
	for h, busy := range out.share {
		out.share[h] = -math.Expm1(-busy)
	}
	return out
}

// paceIn is how much more a log has than the plan expects on some dates, and by how much that may be off, as the standard deviation
// of its logarithm; of all its dates where it has not these.
func (s *seen) paceIn(from, to week.Date) (pace, off float64) {
	first, last := 24*from.Since(s.log.From), 24*(to.Since(s.log.From)+1)
	found, expected := 0.0, 0.0
	for h := max(0, first); h < min(len(s.hours), last); h++ {
		if s.hours[h] > 0 {
			found += float64(s.log.Counts[h])
			expected += s.all(h)
		}
	}
	if first >= 0 && last <= len(s.hours) && found > enough && expected > 0 {
		return found / expected, math.Sqrt(s.dispersed() / found)
	}
	return s.pace(0, 0), math.Hypot(math.Sqrt(s.dispersed()/float64(s.log.N())), dayFactor/math.Sqrt(max(1, float64(to.Since(from)+1))))
}

// Moving is the share of each hour of the week in which something moves before channel i of a site, as its plan has it.
func Moving(est *estimate.Result, i int) [hoursOfWeek]float64 {
	return moving(est.Site(), i, nil, week.Date{}, week.Date{}).share
}
