package plan

import (
	"math"
	"slices"

	"wakefield/core/activity"
	"wakefield/core/week"
)

func (h Hours) week() week.Hours { return week.Hours{Days: h.Days, From: h.From, To: h.To} }

// Steps is the duty that holds at each minute, by its id.
func (w *OwnWeek) Steps() week.Steps[string] {
	blocks := make([]week.Block[string], len(w.Blocks))
	for i, b := range w.Blocks {
		blocks[i] = week.Block[string]{Hours: b.week(), Value: b.Duty}
	}
	return week.FromBlocks(w.Otherwise, blocks)
}

// WeekOf writes steps as a week, with the duty that holds longest as the one that
// holds otherwise.
func WeekOf(steps week.Steps[string]) *OwnWeek {
	held := make(map[string]week.Minute)
	otherwise := steps.At(0)
	for run, duty := range steps.Runs() {
		if held[duty] += run.Minutes(); held[duty] > held[otherwise] {
			otherwise = duty
		}
	}
	w := &OwnWeek{Otherwise: otherwise}
	for _, b := range steps.Blocks(otherwise) {
		w.Blocks = append(w.Blocks, DutyBlock{hoursOf(b.Hours), b.Value})
	}
	return w
}

// HoursWhere writes the hours in which steps hold true, as a person would.
func HoursWhere(steps week.Steps[bool]) []Hours {
	var out []Hours
	for _, b := range steps.Blocks(false) {
		out = append(out, hoursOf(b.Hours))
	}
	return out
}

// hoursOf leaves out the days where they are all seven.
func hoursOf(h week.Hours) Hours {
	if len(h.Days) == len(week.Weekdays) {
		h.Days = nil
	}
	return Hours{h.Days, h.From, h.To}
}

// Process is the activity as a weekly stream of events.
func (a *Activity) Process() activity.Process {
	p := activity.New(a.Rates(), a.MeanSeconds)
	if a.Groups != nil {
		p.Group = activity.Group{Size: a.Groups.Size, Seconds: a.Groups.WithinSeconds}
	}
	return p
}

// Steps is when the detection is on.
func (d Detection) Steps() week.Steps[bool] {
	if !d.On || d.Hours == nil {
		return week.Constant(d.On)
	}
	return d.Hours.steps()
}

// steps is when the hours hold.
func (h HourList) steps() week.Steps[bool] {
	blocks := make([]week.Block[bool], len(h.Blocks))
	for i, b := range h.Blocks {
		blocks[i] = week.Block[bool]{Hours: b.week(), Value: true}
	}
	return week.FromBlocks(false, blocks)
}

// WeekOf returns the week a channel follows.
func (p *Plan) WeekOf(c *Channel) *OwnWeek {
	if c.Week.Own != nil {
		return c.Week.Own
	}
	if i := p.weekIndex(c.Week.Named); i >= 0 {
		return &p.Weeks[i].OwnWeek
	}
	return &OwnWeek{}
}

// Duty finds a duty by its id, nil where there is none.
func (p *Plan) Duty(id string) *Duty {
	return find(p.Duties, func(d *Duty) bool { return d.ID == id })
}

// Activity finds an activity by its id, nil where there is none.
func (p *Plan) Activity(id string) *Activity {
	return find(p.Activities, func(a *Activity) bool { return a.ID == id })
}

// Channel finds a channel by its id, nil where there is none.
func (p *Plan) Channel(id string) *Channel {
	return find(p.Channels, func(c *Channel) bool { return c.ID == id })
}

// Recorder finds a recorder by its id, nil where there is none.
func (p *Plan) Recorder(id string) *Recorder {
	return find(p.Recorders, func(r *Recorder) bool { return r.ID == id })
}

// Pool finds a pool by its id, nil where there is none.
func (p *Plan) Pool(id string) *Pool {
	for i := range p.Recorders {
		if pool := find(p.Recorders[i].Pools, func(pool *Pool) bool { return pool.ID == id }); pool != nil {
			return pool
		}
	}
	return nil
}

func (p *Plan) weekIndex(id string) int {
	return slices.IndexFunc(p.Weeks, func(w Week) bool { return w.ID == id })
}

func find[T any](list []T, is func(*T) bool) *T {
	for i := range list {
		if is(&list[i]) {
			return &list[i]
		}
	}
	return nil
}

// SetRates gives the activity a rate for every minute of the week, written as a
// person would, with the rate that holds longest as the one that holds otherwise.
// Rates are rounded to four digits.
func (a *Activity) SetRates(rates week.Steps[float64]) {
	rounded := week.Map(rates, func(r float64) float64 {
		if r <= 0 {
			return 0
		}
		digits := math.Pow(10, 3-math.Floor(math.Log10(r)))
		return math.Round(r*digits) / digits
	})
	held := make(map[float64]week.Minute)
	otherwise := rounded.At(0)
	for run, r := range rounded.Runs() {
		if held[r] += run.Minutes(); held[r] > held[otherwise] {
			otherwise = r
		}
	}
	a.OtherwisePerHour, a.Blocks = otherwise, nil
	for _, b := range rounded.Blocks(otherwise) {
		a.Blocks = append(a.Blocks, RateBlock{hoursOf(b.Hours), b.Value})
	}
}
