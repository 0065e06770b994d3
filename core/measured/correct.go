package measured

import (
	"math"
	"slices"

	"wakefield.example/core/doubt"
	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/core/resolve"
	"wakefield.example/core/week"
)

// figuresOf is an activity of the plan that was compared, with how far it may be off.
func (c *comparison) figuresOf(id string) (doubt.Figures, bool) {
	h, ok := c.basis.Site().Activities[id]
	return doubt.Of(h.From), ok
}

// activityEdits write into a plan what was found of an activity: how often it happens, or how long it lasts, or how many come
// together. What remains of the doubt is stated with it; of what was not found it stays.
func (c *comparison) activityEdits(p *plan.Plan, id, kind string) []edit.Edit {
	k := slices.IndexFunc(p.Activities, func(a plan.Activity) bool { return a.ID == id })
	figures, ok := c.figuresOf(id)
	if k < 0 || !ok || !c.fit.told() {
		return nil
	}
	a := p.Activities[k]
	left := doubtOf(&a)
	switch kind {
	case KindRate:
		low, mid, high := c.quantiles(id, kind, figures.RateFactor)
		a.SetRates(c.shaped(id, a.Rates(), mid))
		left.Rate = factorOf(low, high)
	case KindLength:
		low, mid, high := c.quantiles(id, kind, figures.LengthFactor)
		a.MeanSeconds = max(0.1, digits(a.MeanSeconds*mid))
		left.Seconds = factorOf(low, high)
	case KindGroup:
		low, mid, high := c.quantiles(id, kind, figures.GroupSize)
		c.group(&a, mid)
		left.Size = factorOf(max(low-1, 1e-3), max(high-1, 1e-3))
	}
	a.Known, a.Doubt = "measured", &left
	return []edit.Edit{{SetActivity: &edit.SetActivity{Activity: a}}}
}

// quantiles are those of a figure of an activity, found once.
func (c *comparison) quantiles(id, kind string, of func(doubt.Latent) float64) (low, mid, high float64) {
	key := kind + "\n" + id
	if known, ok := c.known.Load(key); ok {
		q := known.([3]float64)
		return q[0], q[1], q[2]
	}
	low, mid, high = c.fit.quantiles(of)
	c.known.Store(key, [3]float64{low, mid, high})
	return low, mid, high
}

// doubtOf is how far the figures of an activity may be off as it stands.
func doubtOf(a *plan.Activity) plan.Doubt {
	f := doubt.Of(resolve.OriginOf(a, false))
	return f.Stated()
}

// factorOf is the factor up and down that makes a range.
func factorOf(low, high float64) float64 {
	return min(100, max(1.01, math.Round(math.Sqrt(high/max(low, 1e-9))*1000)/1000))
}

// group lets so many events of an activity come together, within as many seconds as the logs say, or as before.
func (c *comparison) group(a *plan.Activity, size float64) {
	if size < 1.05 || a.MeanSeconds > plan.MaxGroupedSeconds {
		a.Groups = &plan.Groups{Size: 1, WithinSeconds: 60}
		return
	}
	seconds, n := 0.0, 0.0
	for _, s := range c.seen {
		if k := s.main(); k >= 0 && s.from[k].ID == a.ID && s.log.Group != nil {
			seconds += s.log.Group.Seconds
			n++
		}
	}
	g := plan.Groups{Size: round(size, 0.01), WithinSeconds: 60}
	if a.Groups != nil {
		g.WithinSeconds = a.Groups.WithinSeconds
	}
	if n > 0 {
		g.WithinSeconds = max(1, math.Round(seconds/n))
	}
	a.Groups = &g
}

// classes of hours in which an activity's profile is compared: by hour, working days and weekends apart.
const classes = 48

func classOf(hourOfWeek int) int {
	if hourOfWeek < 5*24 {
		return hourOfWeek % 24
	}
	return 24 + hourOfWeek%24
}

// shaped are rates times a factor, whose profile is changed as far as the logs speak. The ratio of each class of hours to what the
// corrected profile expects is gamma distributed with mean 1 and a strength k that is estimated from the logs, by the variance of
// the counts beyond that of chance, V N = D·M + M²/k; what was counted makes of it (k + N/D)/(k + M/D). Where nothing tells of
// another profile, k is without bound and the profile stays.
func (c *comparison) shaped(id string, rates week.Steps[float64], by float64) week.Steps[float64] {
	var found, expected [classes]float64
	over := 1.0
	for _, s := range c.seen {
		k := s.main()
		if k < 0 || s.from[k].ID != id || s.sharePart(k) < 0.9 {
			continue
		}
		over = max(over, s.dispersed())
		for h := range s.hours {
			if s.hours[h] > 0 {
				found[classOf(s.like[h])] += float64(s.log.Counts[h])
				expected[classOf(s.like[h])] += s.expected(k, h)
			}
		}
	}
	all, sum := 0.0, 0.0
	for k := range found {
		all += found[k]
		sum += expected[k]
	}
	if sum == 0 || all == 0 {
		return week.Map(rates, func(r float64) float64 { return r * by })
	}
	pace, beyond, squares := all/sum, 0.0, 0.0
	for k := range found {
		m := expected[k] * pace
		beyond += (found[k]-m)*(found[k]-m) - over*m
		squares += m * m
	}
	width := max(0, beyond/squares) // 1/k
	ratio := func(k int) float64 {
		m := expected[k] * pace
		if width < 1e-3 || m == 0 {
			return 1
		}
		return (1/width + found[k]/over) / (1/width + m/over)
	}
	out := week.Constant(0.0)
	for h := range hoursOfWeek {
		out = out.Paint(week.Span{From: week.Minute(h) * week.Hour, To: week.Minute(h+1) * week.Hour}, ratio(classOf(h)))
	}
	return week.Map(week.Both(rates, out), func(at week.Pair[float64, float64]) float64 { return at.A * by * at.B })
}

// ownActivity gives a channel an activity of its own, as often as its log tells: others that see the same have another.
func (c *comparison) ownActivity(p *plan.Plan, channel int, id string, times float64) []edit.Edit {
	k := slices.IndexFunc(p.Activities, func(a plan.Activity) bool { return a.ID == id })
	ch := p.Channel(c.id(channel))
	if k < 0 || ch == nil || ch.Activity != id {
		return nil
	}
	a := p.Activities[k]
	a.Name = a.Name + ", " + ch.Name
	if r := []rune(a.Name); len(r) > 100 {
		a.Name = string(r[:100])
	}
	a.ID = plan.FreeID(a.Name, "activity", func(id string) bool {
		return slices.ContainsFunc(p.Activities, func(a plan.Activity) bool { return a.ID == id })
	})
	a.SetRates(week.Map(a.Rates(), func(r float64) float64 { return r * times }))
	left := doubtOf(&a)
	left.Rate = 1.15
	a.Known, a.Doubt = "measured", &left
	changed := *ch
	changed.Activity = a.ID
	return []edit.Edit{{SetActivity: &edit.SetActivity{Activity: a}}, {SetChannel: &edit.SetChannel{Channel: changed}}}
}
