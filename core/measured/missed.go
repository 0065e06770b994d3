package measured

import (
	"cmp"
	"context"
	"math"
	"slices"

	"wakefield.example/core/check"
	"wakefield.example/core/edit"
	"wakefield.example/core/estimate"
	"wakefield.example/core/picture"
	"wakefield.example/core/plan"
	"wakefield.example/core/resolve"
	"wakefield.example/core/week"
)

// Told is an event that somebody tells of.
type Told struct {
	Channel string
	Minute  week.Minute // of the week
	Seconds float64     // it lasted; 0 where nobody knows
	AgeDays float64     // how long ago it was
	Walk    string      // id of the walk that it took; empty where nobody knows
}

// Loss is where it may have been lost.
type Loss struct {
	Gate   string  `json:"gate" enum:"overwritten,on,hours,tied,duty,long,area,detector,fault,kept" doc:"kept: by the plan it is there"`
	Chance float64 `json:"chance" doc:"That it was lost here, given that it is not there"`
	Words  string  `json:"words"`
	Mends  []Mend  `json:"mends" doc:"What would mend it"`
}

// Mend is a change that mends a loss.
type Mend struct {
	Words string      `json:"words"`
	Edits []edit.Edit `json:"edits"`
}

// fault is how often footage is lost by what no plan knows of: a camera that was off, a cable, a recorder that hung.
const fault = 0.02

// Missed puts an event that is not there through all gates, at the figures of a plan that was estimated: where it was lost, most
// likely first. The chance of a gate is that of passing those before it and being lost there, over that of being lost at all.
func Missed(ctx context.Context, est *estimate.Result, told Told) ([]Loss, error) {
	i, ok := est.Site().Channels[told.Channel]
	if !ok {
		return nil, nil
	}
	g := &gatesOf{est: est, i: i, c: &est.Plan().Channels[i], told: told, left: 1}
	g.found = check.Findings(est.Plan(), est)
	if ctx.Err() != nil {
		return nil, ctx.Err()
	}
	g.overwritten()
	g.add("fault", fault, "Lost by something that no plan knows of: a camera that was off, a cable, a recorder that hung")
	regime := est.Input(i).Regimes.At(told.Minute)
	whole := regime.HasBase
	if !whole {
		g.certain()
		g.chances()
	}
	total := 0.0
	for _, gate := range g.list {
		total += gate.Chance
	}
	if whole {
		g.list = append(g.list, Loss{Gate: "kept", Chance: 1 - total, Mends: []Mend{},
			Words: plan.Say("By the plan %s is written then, whatever happens: look at another time, or at whether the recorder does as planned.",
				g.c.Name)})
		total = 1
	}
	for k := range g.list {
		g.list[k].Chance /= max(total, 1e-9)
	}
	slices.SortStableFunc(g.list, func(a, b Loss) int { return cmp.Compare(b.Chance, a.Chance) })
	return slices.DeleteFunc(g.list, func(g Loss) bool { return g.Chance < 0.005 }), nil
}

// gatesOf are the gates that an event came to, one after another.
type gatesOf struct {
	est   *estimate.Result
	i     int
	c     *plan.Channel
	told  Told
	found []check.Finding
	left  float64 // chance that it came so far
	list  []Loss
}

// add says that of what came so far a share is lost here.
func (g *gatesOf) add(gate string, share float64, words string, mends ...Mend) {
	if share <= 0 || g.left <= 0 {
		return
	}
	g.list = append(g.list, Loss{gate, g.left * share, words, append(mends, g.fixes(gate)...)})
	g.left *= 1 - share
}

// fixes are those of findings about the channel and the gate.
func (g *gatesOf) fixes(gate string) (out []Mend) {
	out = []Mend{}
	for _, f := range g.found {
		if f.Fix == nil || f.Gate == "" || f.Channel != g.c.ID && !slices.Contains(f.Channels, g.c.ID) {
			continue
		}
		if name := string(f.Gate); name == gate || gate == "area" && (f.Gate == estimate.GateLarge || f.Gate == estimate.GateArea) {
			out = append(out, Mend{f.Fix.Label, f.Fix.Edits})
		}
	}
	return out
}

// overwritten asks whether footage of that age is there any more: by the range of days that its channel is kept.
func (g *gatesOf) overwritten() {
	kept := g.est.Channels[g.i].LikelyDays
	if kept == nil || g.told.AgeDays <= 0 || kept.Likely <= 0 {
		return
	}
	width := math.Log(kept.High/kept.Low) / (2 * 1.2815515655446004)
	if width <= 0 {
		width = 0.01
	}
	gone := 0.5 * math.Erfc(-(math.Log(g.told.AgeDays/kept.Likely))/width/math.Sqrt2)
	g.add("overwritten", gone, plan.Say("It is overwritten: it was %.3g days ago, and %s keeps about %.3g.", g.told.AgeDays,
		g.c.Name, kept.Likely))
}

// certain are the gates that are shut, or open, then.
func (g *gatesOf) certain() {
	d := g.c.Detection
	ids := []string{g.c.ID}
	detection := func(change func(d *plan.Detection)) []edit.Edit {
		next := d
		change(&next)
		return []edit.Edit{{SetDetection: &edit.SetDetection{Channels: ids, Detection: next}}}
	}
	if !g.est.Site().ListensToMotion(g.i).At(g.told.Minute) {
		g.add(string(estimate.GateDuty), 1, "The duty at that hour does not listen to motion.", g.otherDuty()...)
	}
	if !d.On {
		g.add(string(estimate.GateOn), 1, "Detection is off.", Mend{"Detection on", detection(func(d *plan.Detection) { d.On = true })})
	}
	if !resolve.Reporting(g.c).At(g.told.Minute) {
		g.add(string(estimate.GateHours), 1, "Detection does not watch at that hour.",
			Mend{"Detection at all hours", detection(func(d *plan.Detection) { d.Hours = nil })})
	}
	if !plan.Or(d.RecordsSelf, true) {
		g.add(string(estimate.GateTied), 1, "Its own motion records nothing.",
			Mend{"Own motion records it", detection(func(d *plan.Detection) { d.RecordsSelf = nil })})
	}
	if g.told.Seconds > 0 && g.told.Seconds < d.MinSeconds {
		less := math.Max(0, math.Floor(g.told.Seconds*5)/10)
		g.add(string(estimate.GateLong), 1, plan.Say("It was over after %.3g s, before the %.3g s that detection waits for.",
			g.told.Seconds, d.MinSeconds),
			Mend{plan.Say("Shorter motion counts: from %.3g s", less), detection(func(d *plan.Detection) { d.MinSeconds = less })})
	}
}

// otherDuty lets the channel do at that hour what it does elsewhere, or another does, when it listens to motion.
func (g *gatesOf) otherDuty() []Mend {
	p := g.est.Plan()
	for i := range p.Duties {
		d := &p.Duties[i]
		if d.Event == nil || !slices.Contains(d.Event.On, plan.Motion) || d.Event.Match == "all" && len(d.Event.On) > 1 {
			continue
		}
		day, hour := week.Weekday(g.told.Minute/week.Day), g.told.Minute%week.Day/60*60
		hours := plan.Hours{Days: []week.Weekday{day}, From: week.Clock(hour), To: week.Clock(hour + 60)}
		words := plan.Say("%s at that hour", d.Name)
		edits := []edit.Edit{{Paint: &edit.Paint{Channels: []string{g.c.ID}, Duty: d.ID, Hours: []plan.Hours{hours}}}}
		if !g.c.Detection.On {
			on := g.c.Detection
			on.On = true
			words += ", detection on"
			edits = append(edits, edit.Edit{SetDetection: &edit.SetDetection{Channels: []string{g.c.ID}, Detection: on}})
		}
		return []Mend{{words, edits}}
	}
	return nil
}

// chances are the gates that let some through: length, place and size, and the detector's own.
func (g *gatesOf) chances() {
	own := g.est.Site().Own(g.c)
	d := g.c.Detection
	if len(own) > 0 && g.told.Seconds == 0 && d.MinSeconds > 0 {
		g.add(string(estimate.GateLong), -math.Expm1(-d.MinSeconds/own[0].Mean),
			plan.Say("It was over before the %.3g s that detection waits for.", d.MinSeconds))
	}
	catch, reliable := g.caught()
	if d.Drawn() {
		g.add("area", 1-min(1, catch/max(reliable, 1e-9)), "It was outside of the watched areas, or too small there.", g.smaller()...)
	}
	g.add(string(estimate.GateDetector), 1-reliable, plan.Say("The detector overlooked it, as it does %.3g of 100.", 100*(1-reliable)),
		g.base()...)
}

// caught is the chance to be noticed then, and the detector's part of it.
func (g *gatesOf) caught() (catch, reliable float64) {
	d := g.c.Detection
	reliable = plan.Or(d.Reliability, 1)
	if d.Drawn() {
		reliable = plan.Or(d.Reliability, resolve.Reliability)
	}
	if d.Catch != nil {
		reliable = *d.Catch
	}
	for _, by := range g.est.Site().Noticing[g.i].Wanted {
		if by.Hours.At(g.told.Minute) {
			catch = max(catch, by.Catch)
		}
	}
	ground, known, _ := g.c.Ground()
	if g.told.Walk == "" || g.c.Scene == nil || !known || !d.Drawn() || d.Catch != nil {
		return catch, reliable
	}
	for k := range g.c.Scene.Walks {
		if w := &g.c.Scene.Walks[k]; w.ID == g.told.Walk {
			watching := resolve.Watched(g.c)
			walk := g.est.Plan().WalkOf(w)
			return reliable * picture.Catch(ground, watching.At(g.told.Minute), []picture.Walk{walk}), reliable
		}
	}
	return catch, reliable
}

// smaller halves the smallest sizes of the areas.
func (g *gatesOf) smaller() []Mend {
	d := g.c.Detection
	if !d.Drawn() {
		return nil
	}
	areas := *d.Areas
	areas.List = slices.Clone(areas.List)
	before, after := 0.0, 0.0
	for k := range areas.List {
		a := &areas.List[k]
		if a.Ignore || a.Smallest == nil || a.Smallest.Percent <= 0.1 {
			continue
		}
		s := *a.Smallest
		before = max(before, s.Percent)
		s.Percent = max(0.1, math.Round(s.Percent*6.7)/10)
		after = max(after, s.Percent)
		a.Smallest = &s
	}
	if before == 0 {
		return nil
	}
	d.Areas = &areas
	return []Mend{{plan.Say("Smallest size %.3g %% for %.3g %%", after, before),
		[]edit.Edit{{SetDetection: &edit.SetDetection{Channels: []string{g.c.ID}, Detection: d}}}}}
}

// base writes something at that hour whatever happens.
func (g *gatesOf) base() []Mend {
	p := g.est.Plan()
	for i := range p.Duties {
		d := &p.Duties[i]
		if d.Base == nil || d.Event == nil || !slices.Contains(d.Event.On, plan.Motion) || g.c.Streams.Get(d.Base.Stream) == nil {
			continue
		}
		day, hour := week.Weekday(g.told.Minute/week.Day), g.told.Minute%week.Day/60*60
		hours := plan.Hours{Days: []week.Weekday{day}, From: week.Clock(hour), To: week.Clock(hour + 60)}
		return []Mend{{plan.Say("%s at that hour, so that something is there", d.Name), []edit.Edit{{Paint: &edit.Paint{
			Channels: []string{g.c.ID}, Duty: d.ID, Hours: []plan.Hours{hours}}}}}}
	}
	return nil
}
