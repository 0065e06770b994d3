package measured

import (
	"math"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
)

// costOf is one of the costs of a stream: planned, found, how far it may be off by its meter, and by all there is.
type costOf struct {
	kind, what                    string
	planned, found, meter, chance float64
}

// costs are those that are told of a stream.
func (s *stream) costs() (out []costOf) {
	if s.planned.still != s.planned.moving {
		out = append(out, costOf{KindStill, "kbit/s while nothing moves", s.planned.still, s.found.still, s.off.still, s.chance.still},
			costOf{KindMoving, "kbit/s while something moves", s.planned.moving, s.found.moving, s.off.moving, s.chance.moving})
	} else {
		out = append(out, costOf{KindMoving, "kbit/s", s.planned.moving, s.found.moving, s.off.moving, s.chance.moving})
	}
	if s.planned.night > 0 {
		out = append(out, costOf{KindNight, "times as much at night", s.planned.night, s.found.night, s.off.night, s.off.night})
	}
	return out
}

// apartWhere is how many standard deviations streams that are planned alike may differ to be told as one.
const apartWhere = 3.5

// alikeStreams are streams that are planned alike and see the same.
func (c *comparison) alikeStreams() (out [][]*stream) {
	type like struct {
		costs
		activity, nuisance, kind string
	}
	at := make(map[like]int)
	for _, s := range c.stream {
		ch := &c.est.Plan().Channels[s.channel]
		key := like{s.planned, ch.Activity, ch.Nuisance, ch.Streams.Main.Rate.Kind}
		k, ok := at[key]
		if !ok {
			k = len(out)
			at[key] = k
			out = append(out, nil)
		}
		out[k] = append(out[k], s)
	}
	return out
}

// streamFigures tell what streams cost, those that are alike as one.
func (c *comparison) streamFigures() (out []Figure) {
	for _, list := range c.alikeStreams() {
		for k := range list[0].costs() {
			var one []*stream // those that are told of together
			for _, s := range list {
				if of := s.costs(); k < len(of) && of[k].found > 0 && of[k].planned > 0 && of[k].chance <= tellable {
					one = append(one, s)
				}
			}
			if len(one) == 0 {
				continue
			}
			if f, alike := c.costFigure(one, k); alike {
				out = append(out, f)
				continue
			}
			for i := range one {
				f, _ := c.costFigure(one[i:i+1], k)
				out = append(out, f)
			}
		}
	}
	return out
}

// costFigure tells of a cost of several streams; alike is false where they differ. Their meters err each by itself, how often
// something moves is off for all of them.
func (c *comparison) costFigure(list []*stream, k int) (f Figure, alike bool) {
	n := float64(len(list))
	mean, meters, common := 0.0, 0.0, 0.0
	for _, s := range list {
		of := s.costs()[k]
		mean += math.Log(of.found) / n
		meters += of.meter * of.meter / (n * n)
		common += math.Sqrt(max(0, of.chance*of.chance-of.meter*of.meter)) / n
	}
	alike = true
	f = Figure{Hours: make([]Hour, 24), Words: "as planned"}
	var names []*seen
	for _, s := range list {
		of := s.costs()[k]
		f.Kind, f.What, f.Planned = of.kind, of.what, of.planned
		alike = alike && math.Abs(math.Log(of.found)-mean) < apartWhere*of.chance
		for h := range f.Hours {
			hour := &s.hours[h]
			f.Hours[h].Planned += hour.planned / n
			f.Hours[h].Found += hour.found / n
			f.Hours[h].Low += max(0, hour.found-hour.off) / n
			f.Hours[h].High += (hour.found + hour.off) / n
		}
		names = append(names, &seen{channel: s.channel})
	}
	f.ID = c.id(list[0].channel)
	f.Name, f.Channels = c.namesOf(names)
	off := math.Sqrt(meters + common*common)
	f.Found = math.Exp(mean)
	f.Low, f.High = f.Found*math.Exp(-1.28*off), f.Found*math.Exp(1.28*off)
	f.Chance = normalChance(math.Log(f.Found/f.Planned) / off)
	if ratio := f.Found / f.Planned; math.Abs(math.Log(ratio)) > 0.1 {
		f.Words = plan.Say("×%.3g", ratio)
	}
	f.apply = func(p *plan.Plan) (out []edit.Edit) {
		for _, s := range list {
			out = append(out, s.edits(p, c.id(s.channel))...)
		}
		return out
	}
	return f, alike
}
