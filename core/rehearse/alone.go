package rehearse

import (
	"context"

	"wakefield.example/core/cause"
	"wakefield.example/core/estimate"
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
	base, err := prepared(site, ask)
	if err != nil {
		return nil, err
	}
	o := &one{base: base, channel: channel, hears: map[int]bool{channel: true}, inputs: make(map[int]bool)}
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

// draws tells whether what a source does concerns the channel.
func (o *one) draws(s source) bool {
	if s.channel >= 0 {
		return o.hears[s.channel]
	}
	return o.inputs[s.at]
}

// again plays the channel with another number.
func (o *one) again(ctx context.Context, ask Ask) (*Rehearsal, error) {
	if err := ctx.Err(); err != nil {
		return nil, err
	}
	r := *o.base
	r.Ask = ask
	d := newDrawing(&r)
	d.only = o.draws
	if err := d.draw(ctx); err != nil {
		return nil, err
	}
	causes := r.site.Causes()
	r.Segments, r.Away, r.Stills = make([][]Segment, len(r.plan.Channels)), make([][]Span,
		len(r.plan.Channels)), make([][]Ms, len(r.plan.Channels))
	r.away(causes, o.channel)
	r.channel(ctx, causes, o.channel)
	return &r, ctx.Err()
}
