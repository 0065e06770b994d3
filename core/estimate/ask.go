package estimate

import (
	"wakefield/core/effect"
	"wakefield/core/footage"
	"wakefield/core/storage"
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
