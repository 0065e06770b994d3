package estimate

import (
	"wakefield.example/core/alert"
	"wakefield.example/core/cause"
	"wakefield.example/core/effect"
	"wakefield.example/core/footage"
	"wakefield.example/core/parallel"
	"wakefield.example/core/plan"
	"wakefield.example/core/resolve"
	"wakefield.example/core/week"
)

// Causes are what causes what in the plan that was estimated.
func (s *Result) Causes() *cause.Causes { return s.site.Causes }

// TieFigures is how often one tie of the plan's effects acts, and why it does not.
type TieFigures struct {
	Effect        int     `json:"effect" doc:"Place among the plan's effects"`
	Does          string  `json:"does" enum:"record,message,output,monitor,preset,still,offsite"`
	To            string  `json:"to" doc:"Id of what does it: a channel, message, output or monitor"`
	Preset        string  `json:"preset,omitempty" doc:"Id of the preset that a camera is sent to"`
	HappensPerDay float64 `json:"happensPerDay" doc:"Triggers of the cause, in the hours of the tie"`
	ActsPerDay    float64 `json:"actsPerDay" doc:"Of these, those at which what is tied listens, is not quiet, has what it needs"`
	Why           WhyNot  `json:"why,omitempty" enum:"off,never,hours,deaf,quiet,empty,nothing" doc:"Why it never acts; absent where it does"`
	Hours         string  `json:"hours,omitempty" doc:"When what is tied listens, where that is not always"`
}

// WhyNot is why a tie never acts.
type WhyNot string

const (
	WhyOff     WhyNot = "off"     // detection of the channel is off, or it has no camera
	WhyNever   WhyNot = "never"   // the cause never happens
	WhyHours   WhyNot = "hours"   // the cause does not happen in the hours of the tie
	WhyDeaf    WhyNot = "deaf"    // the duty does not listen then
	WhyQuiet   WhyNot = "quiet"   // the receiver is quiet then, or the output off
	WhyEmpty   WhyNot = "empty"   // the channel has no camera
	WhyNothing WhyNot = "nothing" // no stills are set up, no uplink is, or the duty writes nothing then
)

// Ties are the figures of every tie of the plan's effects, effect by effect. They are found once.
func (s *Result) Ties() []TieFigures {
	s.tiesOnce.Do(func() { s.ties = s.findTies() })
	return s.ties
}

func (s *Result) findTies() []TieFigures {
	by := make([][]TieFigures, len(s.plan.Effects))
	parallel.Do(len(by), func(i int) { by[i] = s.tiesOf(i) })
	out := []TieFigures{}
	for _, list := range by {
		out = append(out, list...)
	}
	return out
}

// tiesOf are the figures of the ties of effect i.
func (s *Result) tiesOf(i int) (out []TieFigures) {
	index := s.site.Channels
	e := &s.plan.Effects[i]
	if e.Idle() {
		return nil
	}
	causes := s.causesOf(i)
	holds := e.Hours.Holding()
	happens := causes.PerDay(holds)
	add := func(does, to, preset string, listens week.Steps[bool], not WhyNot) {
		f := TieFigures{Effect: i, Does: does, To: to, Preset: preset, HappensPerDay: happens}
		if f.ActsPerDay = happens; len(listens) != 1 || !listens[0].Value {
			f.ActsPerDay = causes.PerDay(week.And(holds, listens))
		}
		if f.ActsPerDay < 1e-9 {
			f.ActsPerDay = 0
		}
		switch {
		case f.ActsPerDay > 0:
		case happens == 0:
			f.Why = s.whyNot(e, causes)
		default:
			f.Why = not
		}
		if len(listens) > 1 && f.ActsPerDay < f.HappensPerDay {
			f.Hours = plan.HoursInWords(plan.HoursWhere(listens))
		}
		out = append(out, f)
	}
	always := week.Constant(true)
	for _, id := range e.Record {
		k := index[id]
		not := WhyDeaf
		if s.plan.Channels[k].NoCamera {
			not = WhyEmpty
		}
		add("record", id, "", s.Listens(k, e.When), not)
	}
	for _, id := range e.Message {
		add("message", id, "", s.plan.Message(id).Hours.Holding(), WhyQuiet)
	}
	for _, id := range e.Output {
		add("output", id, "", s.plan.Output(id).Hours.Holding(), WhyQuiet)
	}
	for _, id := range e.Monitor {
		add("monitor", id, "", always, WhyNothing)
	}
	for _, sent := range e.Preset {
		add("preset", sent.Channel, sent.Preset, week.Constant(!s.plan.Channels[index[sent.Channel]].NoCamera), WhyEmpty)
	}
	for _, id := range e.Still {
		add("still", id, "", s.takesStills(index[id]), WhyNothing)
	}
	for _, id := range e.Offsite {
		add("offsite", id, "", s.copiesWhen(index[id]), WhyNothing)
	}
	return out
}

// causesOf are the triggers of the cause of effect i, at any hour.
func (s *Result) causesOf(i int) *alert.Counter {
	return s.counterOf(s.plan.Effects[i].When)
}

func (s *Result) counterOf(w plan.When) *alert.Counter {
	always := week.Constant(true)
	return alert.NewCounter(resolve.StreamsOf(s.site.Heard([]cause.Tie{{Cause: s.site.Causes.CauseOf(&w), Hours: always}}), always))
}

func (s *Result) whyNot(e *plan.Effect, causes *alert.Counter) WhyNot {
	if causes.PerDay(week.Constant(true)) > 0 {
		return WhyHours
	}
	if c := s.plan.Channel(e.When.Motion); c != nil && (c.NoCamera || !c.Detection.On) {
		return WhyOff
	}
	return WhyNever
}

// Listens is when the duty of channel i records for a cause alone: motion, or an alarm, as which all other causes count. A
// button is always listened to.
func (s *Result) Listens(i int, w plan.When) week.Steps[bool] {
	if s.plan.Channels[i].NoCamera {
		return week.Constant(false)
	}
	if w.Button != "" {
		return week.Constant(true)
	}
	return week.Map(s.Duties(i), func(id string) bool {
		d := s.site.Duties[id]
		if d == nil || d.Event == nil {
			return false
		}
		by := resolve.Admits(d.Event)
		if w.Motion != "" {
			return by == footage.Motion || by == footage.Either
		}
		return by == footage.Alarm || by == footage.Either
	})
}

// takesStills is when channel i takes stills of what is tied to them.
func (s *Result) takesStills(i int) week.Steps[bool] {
	c := &s.plan.Channels[i]
	if c.Stills == nil || c.NoCamera {
		return week.Constant(false)
	}
	return c.Stills.Hours.Holding()
}

// copiesWhen is when there is something of channel i to copy.
func (s *Result) copiesWhen(i int) week.Steps[bool] {
	if s.plan.Offsite == nil || s.plan.Channels[i].NoCamera {
		return week.Constant(false)
	}
	if s.plan.Offsite.Copy == effect.CopyStills {
		return s.takesStills(i)
	}
	what := effect.CopyOf(s.plan.Offsite)
	return week.Map(s.inputs[i].Regimes, func(g footage.Regime) bool {
		return effect.Copying(&s.plan.Channels[i], g, what).Admit != footage.Nothing
	})
}
