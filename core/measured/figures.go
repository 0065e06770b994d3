package measured

import (
	"cmp"
	"context"
	"math"
	"slices"

	"wakefield.example/core/edit"
	"wakefield.example/core/estimate"
	"wakefield.example/core/parallel"
	"wakefield.example/core/plan"
)

// figures tell what was planned and found: which of it is more than chance, what it costs, and how it is written into the plan.
func (c *comparison) figures(ctx context.Context) error {
	list := c.settingFigures()
	bunches := bunches(c.seen, c.spread)
	factors := explain(bunches, c.spread)
	for _, b := range bunches {
		list = append(list, c.rateFigure(b, factors))
	}
	for _, s := range c.seen {
		if f := c.seconds(s); f != nil {
			list = append(list, *f)
		}
	}
	list = append(list, c.lengthFigures(factors)...)
	list = append(list, c.groupFigures()...)
	list = append(list, c.streamFigures()...)
	chances := make([]float64, len(list))
	for k := range list {
		chances[k] = list[k].Chance // of what was read, none
		if list[k].MoreThanChance {
			chances[k] = 0
		}
	}
	for k, more := range holm(chances) {
		list[k].MoreThanChance = more
	}
	list = append(list, c.silenceFigures()...)
	if err := c.price(ctx, list); err != nil {
		return err
	}
	slices.SortStableFunc(list, func(a, b Figure) int {
		return cmp.Or(cmp.Compare(urgency(&a), urgency(&b)), cmp.Compare(-math.Abs(a.DaysWon), -math.Abs(b.DaysWon)))
	})
	for k := range list {
		list[k].apply = nil // it holds all that was drawn
	}
	c.out.Figures = append(c.out.Figures, list...)
	c.out.Corrections = Together(c.est.Plan(), slices.DeleteFunc(slices.Clone(list), func(f Figure) bool { return !f.MoreThanChance }))
	return nil
}

// urgency orders what is footage that does not exist before what differs, and that before what is as planned.
func urgency(f *Figure) int {
	switch {
	case f.Kind == KindSilence:
		return 0
	case f.Kind == KindSeconds && f.MoreThanChance, f.Kind == KindSetting:
		return 1
	case f.MoreThanChance:
		return 2
	}
	return 3
}

// price finds the edits of each figure, and what they would make of the days.
func (c *comparison) price(ctx context.Context, list []Figure) error {
	notes, errs := make([]string, len(list)), make([]error, len(list))
	parallel.Do(len(list), func(k int) {
		f := &list[k]
		f.Edits = []edit.Edit{}
		f.Planned, f.Found, f.Low, f.High = digits(f.Planned), digits(f.Found), digits(f.Low), digits(f.High)
		if f.apply == nil || ctx.Err() != nil {
			return
		}
		f.Edits = append(f.Edits, f.apply(c.est.Plan())...)
		if len(f.Edits) > 0 && f.MoreThanChance {
			notes[k], errs[k] = c.daysWon(ctx, f)
		}
	})
	for k := range list {
		if errs[k] != nil {
			return errs[k]
		}
		if notes[k] != "" {
			c.out.Notes = append(c.out.Notes, notes[k])
		}
	}
	return ctx.Err()
}

// daysWon finds what the edits of a figure make of the days. A note says that the plan cannot say it.
func (c *comparison) daysWon(ctx context.Context, f *Figure) (note string, err error) {
	next, err := edit.After(c.est.Plan(), f.Edits...)
	if err != nil {
		f.Edits = []edit.Edit{}
		return plan.Say("What was found of %s cannot be written into the plan: %v", f.Name, err), nil
	}
	then, err := estimate.FiguresContext(ctx, next, c.est)
	if err != nil {
		return "", err
	}
	for i := range then.Pools {
		now, then := c.est.Pools[i].RetentionDays, then.Pools[i].RetentionDays
		if now != nil && then != nil && math.Abs(*then-*now) > math.Abs(f.DaysWon) {
			f.DaysWon = math.Round((*then-*now)*100) / 100
		}
	}
	return "", nil
}

// lengthFigures tell how long events last, by activity.
func (c *comparison) lengthFigures(factors map[string]float64) (out []Figure) {
	ids, by := byMain(c.seen)
	for _, id := range ids {
		var list []*seen
		var weight, planned, found float64
		for _, s := range by[id] {
			k := s.main()
			if s.log.Kind != Triggers || s.log.Lengths < enough || s.sharePart(k) < 0.9 || s.log.Seconds <= 0 {
				continue
			}
			w := 1 / (s.lengthError() * s.lengthError())
			list = append(list, s)
			weight += w
			planned += w * math.Log(s.lasts(s.stated(), s.thick(k), s.asExplained(factors)))
			found += w * math.Log(s.log.Seconds/float64(s.log.Lengths))
		}
		if len(list) == 0 {
			continue
		}
		off := math.Hypot(math.Sqrt(1/weight), 0.01)
		f := Figure{Kind: KindLength, ID: id, What: "length of an event, s", Planned: math.Exp(planned / weight), Words: "as planned"}
		f.Name, f.Channels = c.namesOf(list)
		f.Found = math.Exp(found / weight)
		f.Chance = normalChance((math.Log(f.Found / f.Planned)) / off)
		f.Low, f.High = f.Found*math.Exp(-off*1.28), f.Found*math.Exp(off*1.28)
		if ratio := f.Found / f.Planned; math.Abs(math.Log(ratio)) > 0.05 {
			f.Words = plan.Say("%s: events last ×%.3g", c.activityName(id), ratio)
		}
		f.apply = func(p *plan.Plan) []edit.Edit { return c.activityEdits(p, id, KindLength) }
		out = append(out, f)
	}
	return out
}

// groupFigures tell how many events come together, by activity.
func (c *comparison) groupFigures() (out []Figure) {
	ids, by := byMain(c.seen)
	for _, id := range ids {
		var list []*seen
		var weight, found, planned float64
		for _, s := range by[id] {
			k := s.main()
			if s.log.Group == nil || s.joined || s.sharePart(k) < 0.9 || s.log.Group.Size < 1.05 {
				continue
			}
			w := 1 / (s.groupError() * s.groupError())
			list = append(list, s)
			weight += w
			found += w * math.Log((s.log.Group.Size-1)/max(s.from[k].notices, 0.05))
			planned = max(1, s.from[k].Group.Size)
		}
		if len(list) == 0 {
			continue
		}
		off := math.Sqrt(1 / weight)
		f := Figure{Kind: KindGroup, ID: id, What: "events at a time", Planned: planned, Found: 1 + math.Exp(found/weight), Words: "as planned"}
		f.Name, f.Channels = c.namesOf(list)
		f.Low, f.High = 1+(f.Found-1)*math.Exp(-off*1.28), 1+(f.Found-1)*math.Exp(off*1.28)
		if planned > 1 {
			f.Chance = normalChance(math.Log((f.Found-1)/(planned-1)) / off)
		} else {
			f.Chance = normalChance((f.Found - 1) / (f.Found * off))
		}
		if math.Abs(f.Found-planned) > 0.1*planned {
			f.Words = plan.Say("%s come %.3g at a time", c.activityName(id), f.Found)
		}
		f.apply = func(p *plan.Plan) []edit.Edit { return c.activityEdits(p, id, KindGroup) }
		out = append(out, f)
	}
	return out
}

// silenceFigures tell of channels that recorded nothing.
func (c *comparison) silenceFigures() (out []Figure) {
	for _, st := range c.out.Silences {
		i := c.est.Site().Channels[st.Channels[0]]
		days := st.To.Sub(st.From).Hours() / 24
		f := Figure{Kind: KindSilence, ID: st.Channels[0], Name: c.name(i), Channels: st.Channels, What: "triggers a day",
			Planned: st.Expected / max(days, 1e-9), MoreThanChance: true, Since: &st.From}
		f.Words = plan.Say("nothing for %.3g days from %s", days, st.From.In(c.zone).Format("2 Jan 15:04"))
		if days < 2 {
			f.Words = plan.Say("nothing for %.3g hours from %s", 24*days, st.From.In(c.zone).Format("2 Jan 15:04"))
		}
		out = append(out, f)
	}
	return out
}

// edits write into a plan what a stream was found to cost.
func (s *stream) edits(p *plan.Plan, channel string) []edit.Edit {
	ch := p.Channel(channel)
	if ch == nil || ch.Streams.Main == nil {
		return nil
	}
	rate, ok := s.rate(ch.Streams.Main.Rate)
	if !ok {
		return nil
	}
	return []edit.Edit{{SetRate: &edit.SetRate{Channels: []string{channel}, Stream: plan.Main, Rate: rate}}}
}
