package handover

import (
	"fmt"
	"math"
	"slices"
	"sort"

	"wakefield.example/core/estimate"
	"wakefield.example/core/footage"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// Enter makes of a plan the plan as its recorders take it. s is its estimate, which tells what each duty keeps and writes. With
// kinds named, all that is of others is entered as planned.
func Enter(p *plan.Plan, s *estimate.Result, only ...Kind) *Entered { return Of(p, s).Enter(only...) }

// Entry is a plan that is to be entered, in one way and another: what duties keep and write on its channels is worked out once
// for all of them.
type Entry struct {
	plan    *plan.Plan
	figures *estimate.Result
	known   map[profile]footage.Week
}

// profile is what a duty writes on a channel.
type profile struct {
	channel int
	layers  string
}

// Of is a plan with its estimate; see [Enter].
func Of(p *plan.Plan, s *estimate.Result) *Entry {
	return &Entry{p, s, make(map[profile]footage.Week)}
}

// Enter is [Enter] for the plan.
func (y *Entry) Enter(only ...Kind) *Entered { return y.enter(Least, only) }

// Lean is another way to enter what cannot be entered as it is than that with the least loss.
type Lean int

// Ways to lean.
const (
	Least Lean = iota
	Lower      // earlier times, fewer seconds, frames and steps of sensitivity; of two layers the base layer
	Upper      // later times; of two layers the event layer
)

// EnterOtherwise is Enter leaning to one side, for one kind.
func (y *Entry) EnterOtherwise(lean Lean, kind Kind) *Entered { return y.enter(lean, []Kind{kind}) }

func (y *Entry) enter(lean Lean, only []Kind) *Entered {
	p, s := y.plan, y.figures
	e := &Entered{Plan: p, weeks: make(map[string]map[string]dayWeek)}
	if !slices.ContainsFunc(p.Recorders, func(r plan.Recorder) bool { return r.Takes != nil }) {
		return e
	}
	next := *p
	next.Duties, next.Channels = slices.Clone(p.Duties), slices.Clone(p.Channels)
	e.Plan = &next
	entries := make(map[string]*entering)
	for i := range p.Recorders {
		if r := &p.Recorders[i]; r.Takes != nil {
			entries[r.ID] = &entering{Entered: e, planned: p, recorder: r, takes: r.Takes, only: only, lean: lean, known: y.known,
				duties: make(map[string]string)}
		}
	}
	// Duties come first, as what each keeps is asked of all of them at once.
	for i := range next.Channels {
		if n := entries[next.Channels[i].Recorder]; n != nil {
			for _, duty := range p.WeekOf(&p.Channels[i]).Steps() {
				n.duty(duty.Value)
			}
		}
	}
	for _, d := range p.Site.SpecialDays {
		if w := p.Week(d.Week); w != nil {
			for i := range p.Recorders {
				if n := entries[p.Recorders[i].ID]; n != nil {
					for _, duty := range w.Steps() {
						n.duty(duty.Value)
					}
				}
			}
		}
	}
	var try *estimate.Alternatives
	if s != nil {
		try = s.Alternatives(next.Duties[len(p.Duties):])
	}
	for i := range next.Channels {
		if n := entries[next.Channels[i].Recorder]; n != nil {
			n.try = try
			n.channel(i, &next.Channels[i])
		}
	}
	e.specialWeeks(entries)
	if !e.Differs() && len(next.Duties) == len(p.Duties) {
		e.Plan = p
	}
	return e
}

// entering is how a plan is entered at one recorder.
type entering struct {
	*Entered
	planned  *plan.Plan
	recorder *plan.Recorder
	takes    *plan.Takes
	only     []Kind
	lean     Lean
	duties   map[string]string // entered, by the planned
	try      *estimate.Alternatives
	known    map[profile]footage.Week
}

// profile is what a duty writes on channel i, which is c as entered but for its week.
func (n *entering) profile(i int, c *plan.Channel, duty string) footage.Week {
	d := n.Plan.Duty(duty)
	if n.try == nil || d == nil {
		return nil
	}
	of := profile{i, layersInWords(d)}
	w, ok := n.known[of]
	if !ok {
		w = n.try.Profile(i, c, duty)
		n.known[of] = w
	}
	return w
}

// layersInWords tells duties apart by what they write.
func layersInWords(d *plan.Duty) string {
	text := ""
	if d.Base != nil {
		text += fmt.Sprintf("%+v", *d.Base)
	}
	if d.Event != nil {
		text += fmt.Sprintf(" on %+v", *d.Event)
	}
	return text
}

// asks tells whether a kind of departure is made.
func (n *entering) asks(kind Kind) bool { return len(n.only) == 0 || slices.Contains(n.only, kind) }

func (n *entering) depart(kind Kind, c *plan.Channel, planned, entered string) {
	n.Departures = append(n.Departures, Departure{kind, n.recorder.ID, c.ID, planned, entered})
}

// departOnce is depart, for what holds of several parts of a channel.
func (n *entering) departOnce(kind Kind, c *plan.Channel, planned, entered string) {
	if d := (Departure{kind, n.recorder.ID, c.ID, planned, entered}); !slices.Contains(n.Departures, d) {
		n.Departures = append(n.Departures, d)
	}
}

// channel enters channel i, which is c in the plan as entered.
func (n *entering) channel(i int, c *plan.Channel) {
	n.week(i, c)
	if c.NoCamera {
		return
	}
	n.seconds(c)
	n.frames(c)
	n.areas(c)
}

// week enters the week of a channel.
func (n *entering) week(i int, c *plan.Channel) {
	planned := n.planned.WeekOf(c).Steps()
	var told []string
	for _, step := range planned {
		if slices.Contains(told, step.Value) {
			continue
		}
		told = append(told, step.Value)
		was, is := n.planned.Duty(step.Value), n.Plan.Duty(n.duty(step.Value))
		if was == nil || is == nil || was.ID == is.ID {
			continue
		}
		kind := Layers
		if (was.Base == nil) == (is.Base == nil) && (was.Event == nil) == (is.Event == nil) {
			kind = Frames
		}
		n.depart(kind, c, was.Name, is.Name)
	}
	mapped := week.Map(planned, n.duty)
	mine := make(map[string]footage.Week)
	entered := n.stepped(mapped, func(duty string) footage.Week {
		w, ok := mine[duty]
		if !ok {
			w = n.profile(i, c, duty)
			mine[duty] = w
		}
		return w
	})
	n.edges(c, mapped, entered)
	if !slices.Equal(planned, entered) {
		c.Week = plan.WeekRef{Own: plan.WeekOf(entered)}
	}
}

// stepped puts a week on the recorder's step, in as many periods a day as it takes.
func (n *entering) stepped(planned week.Steps[string], keeps func(duty string) footage.Week) week.Steps[string] {
	step, most := week.Minute(n.takes.Step()), n.takes.PeriodsPerDay
	if !n.asks(Times) {
		step = 1
	}
	if !n.asks(Periods) || most == 0 {
		most = int(week.Day)
	}
	out := planned
	for day := range week.Minute(7) {
		begin := day * week.Day
		periods := periodsOf(planned, week.Weekday(day))
		fits := len(periods) <= most
		for _, p := range periods {
			fits = fits && (p.from%step == 0)
		}
		if fits {
			continue
		}
		if n.lean != Least && n.asks(Times) {
			out = snapped(out, begin, periods, step, n.lean == Upper)
			continue
		}
		var duties []string
		for _, p := range periods {
			if !slices.Contains(duties, p.duty) {
				duties = append(duties, p.duty)
			}
		}
		cells := int((week.Day + step - 1) / step)
		cost := make([][]loss, cells)
		for c := range cells {
			from, to := week.Minute(c)*step, min(week.Minute(c+1)*step, week.Day)
			cost[c] = make([]loss, len(duties))
			for d, duty := range duties {
				for _, p := range periods {
					if a, b := max(from, p.from), min(to, p.to); a < b && duty != p.duty {
						over := week.Span{From: begin + a, To: begin + b}
						cost[c][d] = cost[c][d].plus(worse(keeps(p.duty), keeps(duty), over))
					}
				}
			}
		}
		for c, d := range leastLoss(cost, min(most, 2*len(periods)+1)) {
			from, to := week.Minute(c)*step, min(week.Minute(c+1)*step, week.Day)
			out = out.Paint(week.Span{From: begin + from, To: begin + to}, duties[d])
		}
	}
	return out
}

// snapped is a day with all its times on the step before, or on the one after.
func snapped(s week.Steps[string], begin week.Minute, periods []period, step week.Minute, later bool) week.Steps[string] {
	at := func(m week.Minute) week.Minute {
		if later {
			m += step - 1
		}
		return min(m/step*step, week.Day)
	}
	for _, p := range periods {
		if from, to := at(p.from), at(p.to); from < to {
			s = s.Paint(week.Span{From: begin + from, To: begin + to}, p.duty)
		}
	}
	return s
}

// worse is what is lost over a stretch where one week is entered in place of another.
func worse(planned, entered footage.Week, over week.Span) loss {
	was, is := weigh(planned, over), weigh(entered, over)
	return loss{evidence: int64(math.Round(1e9 * max(0, was.events-is.events))), bytes: int64(max(0, is.bytes-was.bytes)),
		minutes: int(over.Minutes())}
}

// weight is what a week keeps and writes over a stretch.
type weight struct{ events, bytes float64 }

// halfKept is what an event counts that is kept low.
const halfKept = 0.5

func weigh(w footage.Week, over week.Span) (out weight) {
	first := sort.Search(len(w), func(i int) bool { return w[i].Span.To > over.From })
	for _, b := range w[first:] {
		if b.Span.From >= over.To {
			break
		}
		part := float64(min(b.Span.To, over.To)-max(b.Span.From, over.From)) / float64(b.Span.Minutes())
		out.events += part * (b.Full + halfKept*b.Low)
		out.bytes += part * float64(b.Total()) * 1000 / 8 * 60 * float64(b.Span.Minutes())
	}
	return out
}

// edges tells what is entered otherwise than planned, by the duties that change places.
func (n *entering) edges(c *plan.Channel, planned, entered week.Steps[string]) {
	type pair struct{ planned, entered string }
	off := make(map[week.Minute]bool) // cells in which a planned time stands between steps
	step := week.Minute(n.takes.Step())
	for _, s := range planned {
		if s.From%week.Day%step != 0 {
			off[s.From/week.Day*week.Day+s.From%week.Day/step*step] = true
		}
	}
	both := week.Both(planned, entered)
	var pairs []pair
	where := make(map[pair]week.Steps[bool])
	kinds := make(map[pair]Kind)
	for run, at := range both.Runs() {
		if at.A == at.B {
			continue
		}
		p := pair{at.A, at.B}
		if where[p] == nil {
			pairs = append(pairs, p)
			where[p], kinds[p] = week.Constant(false), Periods
		}
		where[p] = where[p].Paint(run, true)
		if run.Minutes() < step && off[run.From/week.Day*week.Day+run.From%week.Day/step*step] {
			kinds[p] = Times
		}
	}
	for _, p := range pairs {
		at := plan.HoursInWords(plan.HoursWhere(where[p]))
		n.depart(kinds[p], c, n.Plan.Duty(p.planned).Name+" "+at, n.Plan.Duty(p.entered).Name)
	}
}

// specialWeeks enters the weeks of special days. A plan has one for all recorders, so that it becomes what they take only where
// all of them take the same; the sheet of each says what is typed there.
func (e *Entered) specialWeeks(entries map[string]*entering) {
	p := e.Plan
	used := make(map[string]bool)
	for i := range p.Channels {
		used[p.Channels[i].Recorder] = true
	}
	cloned := false
	for _, d := range p.Site.SpecialDays {
		w := p.Week(d.Week)
		if w == nil {
			continue
		}
		same, agree := week.Steps[string](nil), true
		for i := range p.Recorders {
			id := p.Recorders[i].ID
			if !used[id] {
				continue
			}
			steps := w.Steps()
			if n := entries[id]; n != nil {
				steps = n.stepped(week.Map(steps, n.duty), func(string) footage.Week { return nil })
			}
			if e.weeks[id] == nil {
				e.weeks[id] = make(map[string]dayWeek)
			}
			e.weeks[id][d.Week] = daysOf(steps)
			if same == nil {
				same = steps
			}
			agree = agree && slices.Equal(same, steps)
		}
		if same == nil || !agree || slices.Equal(same, w.Steps()) {
			continue
		}
		if !cloned {
			p.Weeks, cloned = slices.Clone(p.Weeks), true
			w = p.Week(d.Week)
		}
		// Channels that follow the week have one of their own by now, as they are entered otherwise too.
		w.OwnWeek = *plan.WeekOf(same)
	}
}
