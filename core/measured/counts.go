package measured

import (
	"math"
	"slices"
	"strings"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
)

// bunch are logs of channels that hear of the same, compared as one.
type bunch struct {
	list           []*seen
	alone          bool // a channel that differs from others that hear of the same
	planned, found float64
	variance       float64 // of what is found, but for what days differ by
	days           float64 // of all channels
}

// lines is how many lines of the log the plan has, and what of each activity.
func (s *seen) lines() (all float64, by []float64) {
	by = make([]float64, len(s.from))
	for k := range s.from {
		sum := 0.0
		for h := range s.hours {
			sum += s.expected(k, h)
		}
		if s.joined {
			f := &s.from[k]
			sum *= kept(f, 1, 1, max(1, f.Group.Size), s.clip, s.thick(k))
		}
		by[k] = sum
		all += sum
	}
	return all, by
}

// counted is what a log has, of hours that count.
func (s *seen) counted() float64 {
	_, found := s.total()
	return found
}

func newBunch(list []*seen, alone bool) *bunch {
	b := &bunch{list: list, alone: alone}
	for _, s := range list {
		planned, _ := s.lines()
		b.planned += planned
		b.found += s.counted()
		b.variance += planned * s.dispersed()
		b.days += s.days()
	}
	return b
}

// key is what a channel hears of.
func (s *seen) key() string {
	ids := []string{s.log.Kind}
	for k := range s.from {
		ids = append(ids, s.from[k].ID)
	}
	slices.Sort(ids[1:])
	return strings.Join(ids, "\n")
}

// apartFrom is how many standard deviations a channel must differ from others that hear of the same to be told by itself.
const apartFrom = 4.5

// bunches puts logs together that hear of the same, but for channels that differ from the others.
func bunches(list []*seen, spread map[string]float64) (out []*bunch) {
	var keys []string
	by := make(map[string][]*seen)
	for _, s := range list {
		if len(s.from) == 0 || s.days() == 0 {
			continue
		}
		k := s.key()
		if by[k] == nil {
			keys = append(keys, k)
		}
		by[k] = append(by[k], s)
	}
	for _, k := range keys {
		rest := by[k]
		for len(rest) > 1 {
			worst, at := 0.0, -1
			for i := range rest {
				others := newBunch(slices.Delete(slices.Clone(rest), i, i+1), false)
				own := newBunch(rest[i:i+1], false)
				if others.planned == 0 || own.planned == 0 || others.found == 0 {
					continue
				}
				pace := others.found / others.planned
				expected := own.planned * pace
				off := own.variance*pace + expected*expected*(others.variance*pace/(others.found*others.found)+
					math.Pow(daysApart(own, spread), 2)+0.0025)
				// Of those that differ the one furthest from the plan: of two, each differs from the other.
				far := math.Abs(math.Log((own.found + 0.5) / (own.planned + 0.5)))
				if z := math.Abs(own.found-expected) / math.Sqrt(off); z > apartFrom && far > worst {
					worst, at = far, i
				}
			}
			if at < 0 {
				break
			}
			out = append(out, newBunch(rest[at:at+1:at+1], true))
			rest = slices.Delete(slices.Clone(rest), at, at+1)
		}
		out = append(out, newBunch(rest, false))
	}
	return out
}

// daysApart is by how much the days that were looked at may differ from others, as the standard deviation of a logarithm.
func daysApart(b *bunch, spread map[string]float64) float64 {
	k := b.list[0].main()
	if k < 0 {
		return 0
	}
	longest := 0.0
	for _, s := range b.list {
		longest = max(longest, s.days())
	}
	return spread[b.list[0].from[k].ID] / math.Sqrt(max(1, longest))
}

// chance is that of what was found if the plan is right: of all of it, or of that part of the hours which is least likely, each
// counted as one of several that were looked at. Where a channel hears of several activities, one that happens more often than
// planned may hardly be seen in the whole.
func (b *bunch) chance(spread map[string]float64) float64 {
	days := daysApart(b, spread)
	of := func(found, planned, variance float64) float64 {
		return countChance(found, planned, variance+planned*planned*days*days)
	}
	least := of(b.found, b.planned, b.variance)
	var parts [mostParts]struct{ found, planned, variance float64 }
	n := 0
	for _, s := range b.list {
		lines, _ := s.lines()
		stated := sum(s.stated())
		for k, p := range s.parts() {
			planned := sum(p.expected) * lines / max(stated, 1e-9)
			parts[k].found += p.found
			parts[k].planned += planned
			parts[k].variance += planned * s.dispersed()
			n = max(n, k+1)
		}
	}
	if n < 2 {
		return least
	}
	for _, p := range parts[:n] {
		least = min(least, of(p.found, p.planned, p.variance))
	}
	return min(1, least*float64(n+1))
}

// best is the activity of a bunch whose factor moves what is expected there most.
func (b *bunch) best(factors map[string]float64) (id string) {
	most := 0.0
	for _, s := range b.list {
		_, by := s.lines()
		for k := range s.from {
			if f := factors[s.from[k].ID]; f != 0 && math.Abs(by[k]*(f-1)) > most {
				most, id = math.Abs(by[k]*(f-1)), s.from[k].ID
			}
		}
	}
	return id
}

// namesOf are the names of a bunch's channels.
func (c *comparison) namesOf(list []*seen) (names string, ids []string) {
	var all []string
	for _, s := range list {
		all, ids = append(all, c.name(s.channel)), append(ids, c.id(s.channel))
	}
	if len(all) > 3 {
		return strings.Join(all[:2], ", ") + " and " + plan.Count(len(all)-2, "other"), ids
	}
	return strings.Join(all, ", "), ids
}

// rateFigure tells how many events a day there are.
func (c *comparison) rateFigure(b *bunch, factors map[string]float64) Figure {
	f := Figure{Kind: KindRate, What: "triggers a day", Chance: b.chance(c.spread)}
	if b.list[0].log.Kind == Recordings {
		f.What = "recordings a day"
	}
	f.Name, f.Channels = c.namesOf(b.list)
	if len(b.list) > 1 {
		f.What += ", together"
	}
	days := b.days / float64(len(b.list))
	f.Planned, f.Found = b.planned/days, b.found/days
	wide := math.Sqrt(b.variance/max(1, b.planned)/max(1, b.found)+math.Pow(daysApart(b, c.spread), 2)) * 1.2815515655446004
	f.Low, f.High = f.Found*math.Exp(-wide), f.Found*math.Exp(wide)
	f.Hours = b.hours()
	id := b.best(factors)
	if b.alone || id == "" {
		k := b.list[0].main()
		f.ID = c.id(b.list[0].channel)
		if k < 0 {
			f.Words = "nothing that the plan knows of happens there"
			return f
		}
		if !b.alone {
			f.ID = b.list[0].from[k].ID
		}
		times := f.Found / max(f.Planned, 1e-9)
		f.Words = "as planned"
		if b.alone {
			f.Words = plan.Say("×%.3g of what others have that hear of the same", times)
			activity := b.list[0].from[k].ID
			f.apply = func(p *plan.Plan) []edit.Edit { return c.ownActivity(p, b.list[0].channel, activity, times) }
		} else {
			activity := b.list[0].from[k].ID
			f.apply = func(p *plan.Plan) []edit.Edit { return c.activityEdits(p, activity, KindRate) }
		}
		return f
	}
	f.ID = id
	f.Words = plan.Say("%s ×%.3g", c.activityName(id), factors[id])
	f.apply = func(p *plan.Plan) []edit.Edit { return c.activityEdits(p, id, KindRate) }
	return f
}

func (c *comparison) activityName(id string) string {
	for i := range c.est.Plan().Activities {
		if a := &c.est.Plan().Activities[i]; a.ID == id {
			return a.Name
		}
	}
	return id
}

// hours are what was planned and found by hour of the day, a channel and an hour.
func (b *bunch) hours() []Hour {
	out := make([]Hour, 24)
	for h := range out {
		var planned, found, hours, over float64
		for _, s := range b.list {
			lines, by := s.lines()
			stated := 0.0
			for k := range by {
				for x := range s.hours {
					stated += s.expected(k, x)
				}
			}
			for x := h; x < len(s.hours); x += 24 {
				if s.hours[x] > 0 {
					planned += s.all(x) * lines / max(stated, 1e-9)
					found += float64(s.log.Counts[x])
					hours += s.hours[x]
				}
			}
			over = max(over, s.dispersed())
		}
		if hours == 0 {
			continue
		}
		off := math.Sqrt(over * max(found, 1))
		out[h] = Hour{planned / hours, found / hours, max(0, found-off) / hours, (found + off) / hours}
	}
	return out
}
