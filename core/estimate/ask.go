package estimate

import (
	"wakefield.example/core/effect"
	"wakefield.example/core/footage"
	"wakefield.example/core/plan"
	"wakefield.example/core/storage"
	"wakefield.example/core/week"
)

// AlertHours are the figures of alerts hour by hour.
func (s *Result) AlertHours() effect.AlertHours { return s.effects.Hours() }

// SentAt is how often a message would go out a day if at most one did in so many seconds.
func (s *Result) SentAt(message string, seconds float64) float64 {
	return s.effects.SentAt(message, seconds)
}

// SentAway are the movable cameras that something sends.
func (s *Result) SentAway() []effect.Away { return s.effects.Sent() }

// CopyByHour is the copy off site by hour; nil where nothing is copied.
func (s *Result) CopyByHour() *effect.CopyHours { return s.effects.CopyByHour() }

// CopyAt is what of channel i is copied while it does something: the Event of it, where Admit lets it. The play-out of single
// weeks asks it too.
func (s *Result) CopyAt(i int, g footage.Regime) footage.Regime {
	return effect.Copying(&s.plan.Channels[i], g, effect.CopyOf(s.plan.Offsite))
}

// stillBytes is what channel i writes a day in stills.
func (s *Result) stillBytes(i int) storage.Bytes { return s.effects.Stills[i].Day() }

// Week is what channel i writes, bin by bin.
func (s *Result) Week(i int) footage.Week { return s.played[i].Week }

// Duties is the duty of channel i at each minute, by its id.
func (s *Result) Duties(i int) week.Steps[string] { return s.inputs[i].Duties }

// DutyAt is what a duty means on channel i in every minute of the week: which layers write what, and which triggers count.
// The play-out of single weeks asks it too, so that a duty means the same to both.
func (s *Result) DutyAt(i int, duty string) week.Steps[footage.Regime] {
	return s.site.Regimes(&s.plan.Channels[i], week.Constant(duty))
}

// WeekOf are the duties of a named week.
func (s *Result) WeekOf(id string) week.Steps[string] { return s.site.Weeks[id] }

// Plan is the plan that was estimated.
func (s *Result) Plan() *plan.Plan { return s.plan }
