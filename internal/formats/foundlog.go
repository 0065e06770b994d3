package formats

import (
	"bytes"
	"cmp"
	"context"
	"errors"
	"fmt"
	"slices"

	"wakefield.example/core/activity"
	"wakefield.example/core/measured"
	"wakefield.example/core/plan"
)

// log reads events of several channels.
func (r *foundReader) log(ctx context.Context, data []byte, lines []line) error {
	l, heading, err := r.columns(lines)
	if err != nil {
		return err
	}
	each, _, err := logBudget.open(ctx, data)
	if err != nil {
		return err
	}
	var channels, kinds names
	read, err := l.events(each, min(bytes.Count(data, []byte("\n"))+1, logBudget.lines), heading, stampOf(l.Layout), r.ask.Zone, &channels,
		&kinds)
	if err != nil {
		return err
	}
	if l.Kind >= 0 {
		read = l.pair(read, l.kindsOf(&kinds, read, r.ask.Kinds), &kinds)
	}
	r.Kinds, r.Asks, r.Unpaired = append(r.Kinds, l.Kinds...), append(r.Asks, l.Asks...), l.Unpaired
	r.Bad, r.LeftOut = append(r.Bad, l.Bad...), l.LeftOut
	if len(read) == 0 {
		return errors.New("no line of it tells when an event began")
	}
	return r.digest(ctx, read, &channels)
}

// digest adds events up by channel. Lines that stand there twice count once.
func (r *foundReader) digest(ctx context.Context, read []logged, channels *names) error {
	from := dateOf(read[0].start.In(r.ask.Zone))
	to := dateOf(read[len(read)-1].start.In(r.ask.Zone))
	days := to.Since(from) + 1
	if days > 800 {
		return fmt.Errorf("the log reaches from %v to %v; logs of up to 800 days are compared", from, to)
	}
	r.span(from, to)
	by := make([][]activity.Event, len(channels.list))
	for _, e := range read {
		list := by[e.channel]
		if n := len(list); n > 0 && list[n-1].Start.Equal(e.start) && list[n-1].Seconds == e.seconds {
			r.Twice++
			continue
		}
		by[e.channel] = append(list, activity.Event{Start: e.start, Seconds: e.seconds})
	}
	counts := make(map[string][]activity.Event)
	for k, text := range channels.list {
		at := r.channel(text)
		c := &r.Channels[at]
		c.Says = fmt.Sprintf("%s, %.3g a day", plan.Count(len(by[k]), "event"), float64(len(by[k]))/float64(days))
		if c.Channel != "" {
			counts[c.Channel] = append(counts[c.Channel], by[k]...)
		}
	}
	kind := measured.Triggers
	if r.As == FoundRecordings {
		kind = measured.Recordings
	}
	for i := range r.plan.Channels {
		events := counts[r.plan.Channels[i].ID]
		if events == nil {
			continue
		}
		if ctx.Err() != nil {
			return ctx.Err()
		}
		slices.SortStableFunc(events, func(a, b activity.Event) int { return a.Start.Compare(b.Start) })
		r.Data.Logs = append(r.Data.Logs, measured.Digest(r.plan.Channels[i].ID, kind, events, from, days, r.ask.Zone))
	}
	slices.SortStableFunc(r.Channels, func(a, b FoundChannel) int { return cmp.Compare(min(1, len(a.Channel)), min(1, len(b.Channel))) })
	return nil
}
