package resolve

import (
	"math/bits"
	"slices"

	"wakefield.example/core/activity"
	"wakefield.example/core/picture"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// Reliability is the chance that detection notices what is in sight of an area, where nothing is said.
const Reliability = plan.GuessedReliability

// Noticing is what the detection of a channel makes of what happens before it. Each process has one detection for each
// chance that holds at some hours, with those hours; together they cover no hour twice.
type Noticing struct {
	Catch    *float64 // see catchPercent
	Wanted   []activity.Detection
	nuisance []activity.Detection // of what has no place in the picture
	Patches  [][]activity.Detection
}

// openAt says which of the watched areas are watching, a bit for each.
type openAt = uint64

// Notices works out what a channel notices. Activities are asked for how long their events last.
func Notices(p *plan.Plan, c *plan.Channel, process func(id string) activity.Process) Noticing {
	d := &c.Detection
	var out Noticing
	if c.Scene != nil {
		out.Patches = make([][]activity.Detection, len(c.Scene.Patches))
	}
	if c.NoCamera || !d.On {
		return out
	}
	if !d.Drawn() {
		catch := plan.Or(d.Catch, plan.Or(d.Reliability, 1))
		all := []activity.Detection{{Hours: d.Steps(), MinSeconds: d.MinSeconds, Catch: catch}}
		out.Wanted, out.nuisance = all, all
		for i := range out.Patches {
			out.Patches[i] = all
		}
		return out
	}
	watching := Watched(c)
	reliability := plan.Or(d.Reliability, Reliability)
	ground, known, _ := c.Ground()
	walks := walksOf(p, c)
	byOpen := func(chance func(areas []picture.Watch) float64) []activity.Detection {
		held := make(map[openAt]float64)
		chances := week.Map(watching.Open, func(open openAt) float64 {
			if open == 0 {
				return 0
			}
			f, ok := held[open]
			if !ok {
				f = chance(watching.areas(open))
				held[open] = f
			}
			return f
		})
		return split(chances, d.MinSeconds)
	}
	out.Wanted = byOpen(func(areas []picture.Watch) float64 {
		switch {
		case d.Catch != nil:
			return *d.Catch
		case known && len(walks) > 0:
			return reliability * picture.Catch(ground, areas, walks)
		}
		return reliability
	})
	out.nuisance = byOpen(func([]picture.Watch) float64 { return plan.Or(d.Catch, reliability) })
	for i := range out.Patches {
		patch := &c.Scene.Patches[i]
		mean := process(patch.Activity).Mean
		out.Patches[i] = byOpen(func(areas []picture.Watch) float64 {
			return reliability * picture.Passes(areas, patch.Outline(), patch.BlobPercent/100, c.Aspect(), mean, d.MinSeconds)
		})
	}
	return out
}

// split makes a detection of every chance above 0, with the hours in which it holds.
func split(chances week.Steps[float64], minSeconds float64) (out []activity.Detection) {
	for _, step := range chances {
		if step.Value == 0 {
			continue
		}
		if !slices.ContainsFunc(out, func(d activity.Detection) bool { return d.Catch == step.Value }) {
			hours := week.Map(chances, func(f float64) bool { return f == step.Value })
			out = append(out, activity.Detection{Hours: hours, MinSeconds: minSeconds, Catch: step.Value})
		}
	}
	return out
}

// Watching are the watched areas of a channel, with what is ignored taken out, and when each watches.
type Watching struct {
	All  []picture.Watch
	IDs  []string
	Open week.Steps[openAt]
}

// Watched compiles the drawn areas of a channel.
func Watched(c *plan.Channel) Watching {
	d := &c.Detection
	var ignored []picture.Shape
	list := d.List()
	for i := range list {
		if list[i].Ignore {
			ignored = append(ignored, list[i].Shape())
		}
	}
	w := Watching{Open: week.Constant(openAt(0))}
	for i := range list {
		a := &list[i]
		if a.Ignore {
			continue
		}
		region := picture.NewRegion(a.Shape(), ignored)
		watch := picture.Watch{Region: region, Seconds: plan.Or(a.MinSeconds, d.MinSeconds)}
		if a.Smallest != nil {
			watch.Smallest = a.Smallest.Percent / 100
			if a.Smallest.Of == "area" {
				watch.Smallest *= region.Area()
			}
		}
		bit := openAt(1) << len(w.All)
		w.All, w.IDs = append(w.All, watch), append(w.IDs, a.ID)
		w.Open = week.Map(week.Both(w.Open, d.Watching(a)), func(p week.Pair[openAt, bool]) openAt {
			if p.B && region.Area() > 0 { // else it watches nothing
				return p.A | bit
			}
			return p.A
		})
	}
	return w
}

// At are the areas that watch at a minute of the week.
func (w *Watching) At(m week.Minute) []picture.Watch { return w.areas(w.Open.At(m)) }

// areas are the areas that watch.
func (w *Watching) areas(open openAt) []picture.Watch {
	if bits.OnesCount64(open) == len(w.All) {
		return w.All
	}
	var out []picture.Watch
	for i := range w.All {
		if open>>i&1 == 1 {
			out = append(out, w.All[i])
		}
	}
	return out
}

// walksOf are the walks of a channel.
func walksOf(p *plan.Plan, c *plan.Channel) []picture.Walk {
	if c.Scene == nil {
		return nil
	}
	out := make([]picture.Walk, len(c.Scene.Walks))
	for i := range out {
		out[i] = p.WalkOf(&c.Scene.Walks[i])
	}
	return out
}

// catchPercent is the share of the wanted events begun while detection is on that are noticed, in %, as far as place and
// size and the detector's reliability go; nil where detection is off.
func (r *Site) catchPercent(i int) *float64 {
	c := &r.Plan.Channels[i]
	if c.NoCamera || !c.Detection.On {
		return nil
	}
	if !c.Detection.Drawn() { // the same at every hour
		percent := 100 * r.Noticing[i].Wanted[0].Catch
		return &percent
	}
	on := activity.Detection{Hours: c.Detection.Steps(), Catch: 1}
	events := func(d activity.Detection) float64 {
		p, ok := r.Activities[c.Activity]
		if !ok {
			return d.Hours.Share(func(on bool) bool { return on })
		}
		d.MinSeconds = 0
		return d.Triggers(p.Process).PerDay() / d.Catch
	}
	noticed, all := 0.0, events(on)
	for _, d := range r.Noticing[i].Wanted {
		noticed += d.Catch * events(d)
	}
	if all == 0 {
		all = 1
	}
	percent := 100 * noticed / all
	return &percent
}

// Reporting is when the detection of a channel could report anything.
func Reporting(c *plan.Channel) week.Steps[bool] {
	if c.NoCamera || !c.Detection.On {
		return week.Constant(false)
	}
	if !c.Detection.Drawn() {
		return c.Detection.Steps()
	}
	return week.Map(Watched(c).Open, func(open openAt) bool { return open != 0 })
}
