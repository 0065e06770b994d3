package rehearse

import (
	"context"
	"time"

	"wakefield/core/cause"
	"wakefield/core/estimate"
)

// one is what is needed to play a single channel again and again.
type one struct {
	base    *Rehearsal
	channel int
	hears   map[int]bool // channels whose motion it hears of, itself among them
	inputs  map[int]bool
}

// alone prepares a channel for being played by itself, with those that it hears of.
func alone(ctx context.Context, site *estimate.Result, ask Ask, channel int) (*one, error) {
	if err := ctx.Err(); err != nil {
		return nil, err
	}
	p := site.Plan()
	zone, err := time.LoadLocation(p.Site.TimeZone)
	if err != nil {
		return nil, err
	}
	o := &one{base: &Rehearsal{Ask: ask, plan: p, site: site, lead: leadOf(p), tail: 2 * Hour}, channel: channel,
		hears: map[int]bool{channel: true}, inputs: make(map[int]bool)}
	o.base.clock = newClock(p, ask, zone, o.base.lead, o.base.tail)
	o.base.Length, o.base.areas = o.base.clock.length, areasOf(p)
	causes := site.Causes()
	hear := func(c cause.Cause) {
		switch c.Kind {
		case cause.Motion, cause.Lost, cause.Tampered:
			o.hears[c.At] = true
		case cause.Alarm:
			o.inputs[c.At] = true
		} // buttons are few, and drawn for all
	}
	for _, ties := range [][]cause.Tie{causes.Records[channel], causes.Held[channel]} {
		for k := range ties {
			hear(ties[k].Cause)
		}
	}
	for k := range causes.Sends[channel] {
		hear(causes.Sends[channel][k].Cause)
	}
	return o, nil
}

// again plays the channel with another number.
func (o *one) again(ctx context.Context, ask Ask) (*Rehearsal, error) {
	if err := ctx.Err(); err != nil {
		return nil, err
	}
	r := *o.base
	r.Ask = ask
	d := newDrawing(&r)
	d.only = func(s source) bool {
		if s.channel >= 0 {
			return o.hears[s.channel]
		}
		return o.inputs[s.at]
	}
	d.draw()
	causes := r.site.Causes()
	r.Segments, r.Away, r.Stills = make([][]Segment, len(r.plan.Channels)), make([][]Span, len(r.plan.Channels)), make([][]Ms, len(r.plan.Channels))
	r.away(causes, o.channel)
	r.channel(causes, o.channel)
	return &r, nil
}
