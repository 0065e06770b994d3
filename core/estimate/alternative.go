package estimate

import (
	"wakefield.example/core/doubt"
	"wakefield.example/core/footage"
	"wakefield.example/core/plan"
	"wakefield.example/core/resolve"
	"wakefield.example/core/storage"
	"wakefield.example/core/week"
)

// Alternative is what a channel would write, and what would be kept, under other settings.
type Alternative struct {
	Daily    storage.Bytes // written in a mean day, stills among them
	Evidence footage.Evidence
	// Frames that are left out of a modelled stream may save more or less than the model says, so that Daily lies between these
	// four times out of five; both are Daily where no such frames are left out.
	Least, Most storage.Bytes
}

// Alternatives tries other settings of single channels of a plan that was estimated.
type Alternatives struct {
	of   *Result
	site *resolve.Site
}

// Alternatives are those of the plan with more duties to choose from than it has.
func (s *Result) Alternatives(more []plan.Duty) *Alternatives {
	return &Alternatives{s, s.site.With(more)}
}

// Profile is what channel i would write bin by bin, and what would become of its wanted events, if it were c and one duty held
// all week. c may differ from the channel as for [Alternatives.Of].
func (a *Alternatives) Profile(i int, c *plan.Channel, duty string) footage.Week {
	in := a.site.InputOf(i, c, week.Constant(duty))
	return resolve.NewPlayed(&in, in.Play(nil)).Week
}

// Of tries channel i as if it were c, with other duties. c may differ from the channel in nothing that others hear of: in its
// streams, audio, seconds kept, limits and week alone.
func (a *Alternatives) Of(i int, c *plan.Channel, duties week.Steps[string]) Alternative {
	s := a.of
	in := a.site.InputOf(i, c, duties)
	played := resolve.NewPlayed(&in, in.Play(nil))
	out := Alternative{Daily: s.stillBytes(i), Evidence: played.Evidence()}
	for _, written := range played.Hourly {
		out.Daily += written / 7
	}
	if gone := s.effects.Away[i]; gone != nil {
		out.Evidence = gone.Missing(played)
	}
	less, more := doubt.FewerFrames(&in, played)
	out.Least, out.Most = out.Daily-storage.Bytes(less*1000/8*86400), out.Daily+storage.Bytes(more*1000/8*86400)
	return out
}
