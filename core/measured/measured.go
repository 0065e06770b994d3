// Package measured holds what really happened against what was planned: events of logs, measured bitrates, the oldest footage,
// settings read back.
//
// Each of these is compared with the plan as it stands, by chance alone ([Figure.MoreThanChance]); what they say together of all
// that is uncertain is found by Bayes' rule over the site's draws (see [fit]); docs/method.md has the formulas.
package measured

import (
	"context"
	"fmt"
	"slices"
	"sync"
	"time"

	"wakefield.example/core/doubt"
	"wakefield.example/core/edit"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// Format is the name and version of what a comparison is written as.
const Format = "wakefield-measured/1"

// Result is what was found.
type Result struct {
	Format      string      `json:"format"`
	From        *week.Date  `json:"from,omitempty" doc:"First date of any log"`
	To          *week.Date  `json:"to,omitempty" doc:"Last one"`
	Days        []PoolDays  `json:"days"`
	Figures     []Figure    `json:"figures" doc:"What differs first, by the days it costs"`
	Corrections []edit.Edit `json:"corrections" doc:"All that differs, as edits that can be made one after another"`
	Gaps        []Stretch   `json:"gaps" doc:"Times of which there is no log of a recorder"`
	Silences    []Stretch   `json:"silences" doc:"Times at which a channel recorded nothing while others did"`
	OddDays     []OddDay    `json:"oddDays"`
	Logs        []string    `json:"logs" doc:"Channels of which there is a log, by id"`
	Rates       []string    `json:"rates" doc:"Channels whose bitrates were measured"`
	Oldest      []string    `json:"oldest" doc:"Channels whose oldest footage is known"`
	Worth       float64     `json:"worth" doc:"How many draws' worth of weight the ranges rest on; none are told below 100"`
	Notes       []string    `json:"notes" doc:"What could not be compared, and why"`
}

// PoolDays is how long a pool keeps footage.
type PoolDays struct {
	Pool       string       `json:"pool" doc:"Id"`
	Name       string       `json:"name"`
	Required   float64      `json:"required,omitempty" doc:"The most days that any of its channels must be kept"`
	Planned    *doubt.Range `json:"planned,omitempty"`
	Found      *doubt.Range `json:"found,omitempty" doc:"After what was found; absent where nothing can be said"`
	Oldest     float64      `json:"oldest,omitempty" doc:"Days to the oldest footage"`
	InTwoWeeks *doubt.Range `json:"inTwoWeeks,omitempty" doc:"How far the range would narrow if two weeks more were logged"`
}

// Kinds of figures.
const (
	KindRate    = "rate"    // events a day
	KindGroup   = "group"   // events at a time
	KindLength  = "length"  // s
	KindStill   = "still"   // kbit/s while nothing moves
	KindMoving  = "moving"  // kbit/s while something does
	KindNight   = "night"   // what darkness multiplies a bitrate by
	KindSeconds = "seconds" // before and after an event
	KindSetting = "setting" // another setting that stands otherwise in the recorder
	KindSilence = "silence" // a channel that recorded nothing
)

// Figure is one thing that was planned and found.
type Figure struct {
	Kind           string      `json:"kind" enum:"rate,group,length,still,moving,night,seconds,setting,silence"`
	ID             string      `json:"id" doc:"Of the activity, or of the channel where it is of one"`
	Name           string      `json:"name" doc:"Where it was found"`
	Channels       []string    `json:"channels" doc:"Ids"`
	What           string      `json:"what" doc:"What it is, with its unit"`
	Planned        float64     `json:"planned"`
	Found          float64     `json:"found"`
	Low            float64     `json:"low" doc:"Within which the truth lies four times out of five, of groups and lengths more often, after all that was found"`
	High           float64     `json:"high"`
	PlannedText    string      `json:"plannedText,omitempty" doc:"Of a setting"`
	FoundText      string      `json:"foundText,omitempty" doc:"Of a setting"`
	Chance         float64     `json:"chance" doc:"Probability that chance alone brings it so far from the plan"`
	MoreThanChance bool        `json:"moreThanChance"`
	DaysWon        float64     `json:"daysWon" doc:"What the days become more if the plan says so; below 0 less"`
	Words          string      `json:"words" doc:"What explains it best"`
	Edits          []edit.Edit `json:"edits" doc:"That write it into the plan"`
	Hours          []Hour      `json:"hours,omitempty" doc:"By hour of the day"`
	Since          *time.Time  `json:"since,omitempty" doc:"Of a silence: when it began"`

	apply func(p *plan.Plan) []edit.Edit // makes them
}

// Hour is one hour of the day.
type Hour struct {
	Planned float64 `json:"planned"`
	Found   float64 `json:"found"`
	Low     float64 `json:"low" doc:"What is found, less one standard deviation of chance"`
	High    float64 `json:"high"`
}

// comparison is what is compared, step by step.
type comparison struct {
	est    *estimate.Result // of the plan as it is
	basis  *estimate.Result // with settings and bitrates as they were found
	data   *Data
	zone   *time.Location
	seen   []*seen
	spread map[string]float64
	stream []*stream
	fit    *fitted
	known  sync.Map // quantiles that were asked for
	out    *Result
}

// Of holds what was brought in against a plan that was estimated with its draws. It fails with the error of the context when that
// ends, at which it looks between steps of some ten milliseconds.
func Of(ctx context.Context, est *estimate.Result, d *Data) (*Result, error) {
	c, err := compare(ctx, est, d)
	if err != nil {
		return nil, err
	}
	c.days()
	if err := c.figures(ctx); err != nil {
		return nil, err
	}
	c.has()
	return c.out, nil
}

// compare finds what was found, before it is told.
func compare(ctx context.Context, est *estimate.Result, d *Data) (*comparison, error) {
	zone, err := time.LoadLocation(est.Plan().Site.TimeZone)
	if err != nil {
		return nil, fmt.Errorf("site.timeZone: %w", err)
	}
	c := &comparison{est: est, data: d, zone: zone, out: &Result{Format: Format, Days: []PoolDays{}, Figures: []Figure{},
		Corrections: []edit.Edit{}, Gaps: []Stretch{}, Silences: []Stretch{}, OddDays: []OddDay{}, Logs: []string{}, Rates: []string{},
		Oldest: []string{}, Notes: []string{}}}
	if err := c.basisOf(ctx); err != nil {
		return nil, err
	}
	c.lay()
	for _, r := range d.Rates {
		if i, ok := est.Site().Channels[r.Channel]; ok {
			moves := moving(est.Site(), i, c.seen, r.From, r.To)
			if s := measuredStream(est.Site(), i, &r, &moves); s != nil {
				c.stream = append(c.stream, s)
			}
		}
	}
	if err := c.measureBasis(ctx); err != nil {
		return nil, err
	}
	return c, c.find(ctx)
}

// basisOf estimates the plan with the settings that stand in the recorder.
func (c *comparison) basisOf(ctx context.Context) (err error) {
	c.basis = c.est
	if edits := c.settingEdits(); len(edits) > 0 {
		p, err := edit.After(c.est.Plan(), edits...)
		if err != nil {
			return fmt.Errorf("settings that were read back: %w", err)
		}
		c.basis, err = estimate.RunContext(ctx, p, c.est)
		return err
	}
	return nil
}

// lay lays the logs over the plan, and sets aside what is no log, or not like other days.
func (c *comparison) lay() {
	c.seen = looked(c.basis, c.data.Logs, c.zone)
	c.out.Gaps, c.out.Silences = gaps(c.est.Plan(), c.seen, c.zone)
	c.out.Gaps, c.out.Silences = append([]Stretch{}, c.out.Gaps...), append([]Stretch{}, c.out.Silences...)
	odd, spread := odd(c.est.Plan(), c.seen)
	c.out.OddDays, c.spread = append(c.out.OddDays, odd...), spread
	for _, s := range c.seen {
		if len(s.from) == 0 && s.log.N() > 0 {
			c.note("The log of %s tells of %s, but nothing in the plan makes any there: it counts for nothing.",
				c.name(s.channel), plan.Count(s.log.N(), "event"))
		}
	}
}

// measureBasis lets streams cost what they were found to.
func (c *comparison) measureBasis(ctx context.Context) (err error) {
	var edits []edit.Edit
	for _, s := range c.stream {
		ch := &c.est.Plan().Channels[s.channel]
		if rate, ok := s.rate(ch.Streams.Main.Rate); ok {
			edits = append(edits, edit.Edit{SetRate: &edit.SetRate{Channels: []string{ch.ID}, Stream: plan.Main, Rate: rate}})
		}
	}
	if len(edits) == 0 {
		return nil
	}
	p, err := edit.After(c.basis.Plan(), edits...)
	if err != nil {
		return err
	}
	c.basis, err = estimate.RunContext(ctx, p, c.basis)
	return err
}

// find finds the draws after what was found.
func (c *comparison) find(ctx context.Context) (err error) {
	l := new(latents)
	var rows []row
	for _, s := range c.seen {
		if len(s.from) == 0 {
			continue
		}
		rows = append(rows, s.counts(l, c.spread)...)
		for _, r := range []*row{s.length(l), s.grouped(l)} {
			if r != nil {
				rows = append(rows, *r)
			}
		}
	}
	c.fit, err = fit(ctx, c.basis, l, rows, poolRows(c.basis, c.data.Oldest))
	if err == nil {
		c.out.Worth = c.fit.worth
	}
	return err
}

// days tells how long pools keep footage.
func (c *comparison) days() {
	p := c.est.Plan()
	for k := range c.est.Pools {
		pool := &c.est.Pools[k]
		d := PoolDays{Pool: pool.ID, Planned: pool.LikelyDays}
		for i := range p.Recorders {
			for j := range p.Recorders[i].Pools {
				if p.Recorders[i].Pools[j].ID == pool.ID {
					d.Name = p.Recorders[i].Pools[j].Name
				}
			}
		}
		for i := range p.Channels {
			if p.Channels[i].Pool == pool.ID && !p.Channels[i].NoCamera {
				d.Required = max(d.Required, p.Channels[i].Keep.AtLeastDays)
			}
		}
		if c.fit.told() {
			d.Found = c.fit.drawn.Pools[pool.ID].Likely
			d.InTwoWeeks = c.narrower(pool.ID, d.Found)
		}
		for _, l := range c.fit.lines {
			if l.pool == pool.ID {
				d.Oldest = l.days
			}
		}
		c.out.Days = append(c.out.Days, d)
	}
}

// has tells of what there is anything.
func (c *comparison) has() {
	for _, s := range c.seen {
		to := s.log.To().Add(-1)
		if c.out.From == nil || s.log.From.Before(*c.out.From) {
			c.out.From = &s.log.From
		}
		if c.out.To == nil || c.out.To.Before(to) {
			c.out.To = &to
		}
		c.out.Logs = append(c.out.Logs, c.id(s.channel))
	}
	for _, s := range c.stream {
		c.out.Rates = append(c.out.Rates, c.id(s.channel))
	}
	for _, o := range c.data.Oldest {
		c.out.Oldest = append(c.out.Oldest, o.Channel)
	}
	for _, list := range []*[]string{&c.out.Logs, &c.out.Rates, &c.out.Oldest} {
		slices.Sort(*list)
		*list = slices.Compact(*list)
	}
}

func (c *comparison) id(channel int) string   { return c.est.Plan().Channels[channel].ID }
func (c *comparison) name(channel int) string { return c.est.Plan().Channels[channel].Name }

func (c *comparison) note(format string, args ...any) {
	c.out.Notes = append(c.out.Notes, plan.Say(format, args...))
}
