package estimate

import (
	"context"
	"sync"

	"wakefield.example/core/doubt"
	"wakefield.example/core/effect"
	"wakefield.example/core/parallel"
	"wakefield.example/core/plan"
	"wakefield.example/core/resolve"
	"wakefield.example/core/storage"
	"wakefield.example/core/year"
)

// engine is what the figures were made from, for what is asked of them later, and for the estimate after the next change.
type engine struct {
	plan     *plan.Plan
	site     *resolve.Site
	inputs   []resolve.Input
	played   []*resolve.Played
	doubts   []doubt.Drawn
	nights   []*night
	pooled   map[string]*doubt.Pool
	effects  *effect.Effects
	tiesOnce sync.Once
	ties     []TieFigures
	calendar *year.Site
	special  sync.Once
	year     *year.Year
}

// options say what an estimate is for.
type options struct {
	draw    bool
	assured string // the channel whose bitrates are taken for measured, whatever the plan says
	night   string // the channel of which it is taken for known what its streams cost in the dark
	bend    func(i int, in *resolve.Input)

	noticing bool // whether it is taken for known how reliably cameras notice what is in sight
}

func run(ctx context.Context, p *plan.Plan, earlier *Result, o options) (*Result, error) {
	p = p.Connected()
	s := &Result{Format: Format, engine: engine{plan: p}}
	s.site = resolve.Of(p, earlier.resolved())
	s.inputs = s.site.Inputs
	for i := range p.Channels {
		s.inputs[i].Guessed = s.inputs[i].Guessed && !o.noticing
		if p.Channels[i].ID == o.assured {
			s.inputs[i].Assure()
		}
		if p.Channels[i].ID == o.night {
			s.inputs[i].AssureNight()
		}
		if o.bend != nil {
			o.bend(i, &s.inputs[i])
		}
	}
	s.played = make([]*resolve.Played, len(p.Channels))
	s.doubts = make([]doubt.Drawn, len(p.Channels))
	s.nights = make([]*night, len(p.Channels))
	s.Channels = make([]Channel, len(p.Channels))
	if err := s.playChannels(ctx, p, earlier); err != nil {
		return nil, err
	}
	s.applyEffects(earlier)
	if err := s.fillPools(ctx, p); err != nil {
		return nil, err
	}
	s.calendar = s.newCalendar(earlier)
	s.addUpRecorders(p)
	if o.draw {
		if err := s.drawRanges(ctx, p, earlier); err != nil {
			return nil, err
		}
	}
	s.findVerdict(p)
	return s, nil
}

// playChannels finds what every channel writes. What an earlier estimate found is taken from
// there, and settings copied to many channels are played once.
func (s *Result) playChannels(ctx context.Context, p *plan.Plan, earlier *Result) error {
	before := earlier.byID()
	alike := make(map[uint64]int) // channels played here, by fingerprint
	like := make([]int, len(p.Channels))
	var distinct, copies []int
	for i := range p.Channels {
		in := &s.inputs[i]
		if j, ok := before[p.Channels[i].ID]; ok && in.Equal(&earlier.inputs[j]) {
			s.played[i], s.doubts[i], s.nights[i] = earlier.played[j], earlier.doubts[j], earlier.nights[j]
			s.inputs[i] = earlier.inputs[j]
			continue
		}
		s.nights[i] = new(night)
		print := in.Fingerprint()
		if j, ok := alike[print]; ok && in.PlaysAlike(&s.inputs[j]) {
			like[i] = j
			copies = append(copies, i)
			continue
		}
		alike[print] = i
		distinct = append(distinct, i)
	}
	parallel.Do(len(distinct), func(k int) {
		if ctx.Err() == nil {
			in := &s.inputs[distinct[k]]
			s.played[distinct[k]] = resolve.NewPlayed(in, in.Play(nil))
		}
	})
	if ctx.Err() != nil {
		return ctx.Err()
	}
	for _, i := range copies {
		s.played[i] = resolve.NewPlayed(&s.inputs[i], s.played[like[i]].Shares)
	}
	for i := range p.Channels {
		s.Channels[i] = describe(&p.Channels[i], &s.inputs[i], s.played[i])
		s.Channels[i].CatchPercent = s.site.Noticing[i].Catch
		for _, t := range s.site.Triggers[i] {
			s.Channels[i].TriggersPerDay += t.Stated.PerDay()
		}
	}
	return nil
}

// applyEffects finds what causes do beside recording, and what that does to channels.
func (s *Result) applyEffects(earlier *Result) {
	var before *effect.Effects
	if earlier != nil {
		before = earlier.effects
	}
	e := effect.Of(s.site, s.played, before)
	s.effects = e
	s.Messages, s.Outputs, s.Monitors, s.Offsite = e.Messages, e.Outputs, e.Monitors, e.Offsite
	for i := range s.Channels {
		c := &s.Channels[i]
		if a := e.Away[i]; a != nil {
			percent := 100 * a.Share.Mean()
			c.AwayPercent, c.Evidence = &percent, a.Missing(s.played[i])
		}
		if st := e.Stills[i]; st != nil {
			perDay := st.PerDay()
			c.StillsPerDay = &perDay
			c.GigabytesPerDay += float64(st.Day()) / 1e9
		}
		if safe := e.Safe(i); safe != nil {
			c.SafeSeconds, c.MeanSafeSeconds, c.NinetySafeSeconds, c.WorstSafeSeconds = &safe.IdleSeconds, safe.MeanSeconds,
				safe.NinetySeconds, safe.WorstSeconds
			c.LatePercent = safe.LatePercent
		}
	}
}

// resolved is what the plan of an estimate, which may be nil, means for its channels.
func (s *Result) resolved() *resolve.Site {
	if s == nil {
		return nil
	}
	return s.site
}

// byID finds the channels of an estimate.
func (s *Result) byID() map[string]int {
	if s == nil {
		return nil
	}
	at := make(map[string]int, len(s.Channels))
	for i := range s.Channels {
		at[s.Channels[i].ID] = i
	}
	return at
}

// describe writes the figures of a channel that need nothing but itself.
func describe(c *plan.Channel, in *resolve.Input, played *resolve.Played) Channel {
	mean := played.Mean
	out := Channel{
		ID:              c.ID,
		WrittenPercent:  100 * mean.Written,
		EventPercent:    100 * mean.Event,
		AverageKbps:     float64(mean.Total()),
		GigabytesPerDay: mean.Total().GigabytesPerDay(),
		FullKbps:        float64(in.Full),
		HoldsPercent:    100,
		Evidence:        played.Evidence(),
	}
	if c.Keep.AtLeastDays > 0 && !c.NoCamera {
		out.RequiredDays = &c.Keep.AtLeastDays
	}
	return out
}

// load is what a channel asks of its pool, hour by hour.
func (s *Result) load(c *plan.Channel, i int) storage.Load {
	hourly := s.played[i].Hourly
	if st := s.effects.Stills[i]; st != nil {
		for h := range hourly {
			hourly[h] += st.Hour(h)
		}
	}
	return storage.Load{Hourly: hourly, AtMost: storage.Days(c.Keep.AtMostDays), Quota: storage.Bytes(c.Keep.QuotaGB) * storage.GB}
}

func days(d storage.Days) *float64 {
	if !d.Bounded() {
		return nil
	}
	f := float64(d)
	return &f
}
