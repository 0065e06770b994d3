package estimate

import (
	"sync"

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

	mu    sync.Mutex
	alike map[uint64][]playedInput // by fingerprint; at most mostPlayed
	many  int
}

// playedInput is how the time of an input divides.
type playedInput struct {
	in     resolve.Input
	shares []footage.Shares
}

// mostPlayed inputs are remembered, of some 30 kB each.
const mostPlayed = 1000

// play is how the time of an input divides. Many play alike: channels of one activity under one duty, and a channel under duties
// that differ in what they cost alone; they are played once. It may be called by several at once.
func (a *Alternatives) play(in *resolve.Input) *resolve.Played {
	print := in.Fingerprint()
	a.mu.Lock()
	for k := range a.alike[print] {
		if known := &a.alike[print][k]; in.PlaysAlike(&known.in) {
			a.mu.Unlock()
			return resolve.NewPlayed(in, known.shares)
		}
	}
	a.mu.Unlock()
	shares := in.Play(nil)
	a.mu.Lock()
	if a.many < mostPlayed {
		a.alike[print] = append(a.alike[print], playedInput{*in, shares})
		a.many++
	}
	a.mu.Unlock()
	return resolve.NewPlayed(in, shares)
}

// Alternatives are those of the plan with more duties to choose from than it has.
func (s *Result) Alternatives(more []plan.Duty) *Alternatives {
	return &Alternatives{of: s, site: s.site.With(more), alike: make(map[uint64][]playedInput)}
}

// Profile is what channel i would write bin by bin, and what would become of its wanted events, if it were c and one duty held
// all week. c may differ from the channel as for [Alternatives.Of].
func (a *Alternatives) Profile(i int, c *plan.Channel, duty string) footage.Week {
	in := a.site.InputOf(i, c, week.Constant(duty))
	return a.play(&in).Week
}

// Of tries channel i as if it were c, with other duties. c may differ from the channel in nothing that others hear of: in its
// streams, audio, seconds kept, limits and week alone.
func (a *Alternatives) Of(i int, c *plan.Channel, duties week.Steps[string]) Alternative {
	s := a.of
	in := a.site.InputOf(i, c, duties)
	played := a.play(&in)
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
