package rehearse

import (
	"context"

	"wakefield.example/core/cause"
	"wakefield.example/core/plan"
)

// What is rehearsed at most. It is worked out from the rates before anything is played, and the same for whatever is asked
// of a rehearsal: on two cores as much as this is played within some ten seconds and a third of a gigabyte.
const (
	MostDays   = 14        // at once
	MostEvents = 400_000   // expected in them
	MostHolds  = 3_000_000 // times that an event is expected to hold footage, or to cause something else

	// The odds of a moment are those of mostOdds rehearsals, or as many as fit the budget of one, leastOdds at the least.
	mostOdds, leastOdds = 200, 20
	oddsBudget          = 8_000_000 // events and holds of all of them
)

// Work is what is expected of a rehearsal, before it is played.
type Work struct {
	Events float64
	Holds  float64 // see MostHolds
}

// TooManyError says that too much would happen.
type TooManyError struct {
	Work
	Days int // that can be played
}

func (e *TooManyError) Error() string {
	words := plan.Say("about %.3g events would happen, more than the %d that are played", e.Events, MostEvents)
	if e.Events <= MostEvents {
		words = plan.Say("what about %.3g events would cause, on all channels that they record, is more than is played", e.Events)
	}
	if e.Days < 1 {
		return words + ", even on one day"
	}
	return words + "; " + plan.Count(e.Days, "day") + " can be"
}

// bounded refuses what is too much, and says how many days would not be.
func (d *drawing) bounded(w Work) error {
	over := max(w.Events/MostEvents, w.Holds/MostHolds)
	if over <= 1 {
		return nil
	}
	c := d.r.clock
	days := float64(c.end-c.begin)/over - float64(d.r.lead+d.r.tail)
	return &TooManyError{w, int(days / float64(Day))}
}

// work is what is expected where all channels are played, or a single one with those that it hears of.
func (d *drawing) work(causes *cause.Causes, alone *one) (w Work) {
	p, c := d.r.plan, d.r.clock
	motion, inputs := make([]float64, len(p.Channels)), make([]float64, len(p.AlarmInputs))
	means := make(map[string]float64, len(p.Activities))
	for i := range p.Activities {
		means[p.Activities[i].ID] = p.Activities[i].MeanSeconds
	}
	d.each(func(s source) {
		n := d.perActivity[s.activity]
		if alone == nil || alone.draws(s) {
			w.Events += n
		}
		if s.channel >= 0 {
			motion[s.channel] += n
		} else {
			inputs[s.at] += n
		}
	})
	days := float64(c.end-c.begin) / float64(Day)
	for i := range p.CallButtons {
		w.Events += p.CallButtons[i].PressesPerWeek / 7 * days
	}
	of := func(t *cause.Tie) float64 {
		switch t.Cause.Kind {
		case cause.Motion:
			return motion[t.Cause.At]
		case cause.Alarm:
			return inputs[t.Cause.At]
		case cause.Button:
			return p.CallButtons[t.Cause.At].PressesPerWeek / 7 * days
		}
		return t.Cause.PerMonth * 12 / 365.25 * days
	}
	sum := func(ties []cause.Tie) (n float64) {
		for k := range ties {
			n += of(&ties[k])
		}
		return n
	}
	for i := range p.Channels {
		if alone != nil && i != alone.channel {
			continue
		}
		held := sum(causes.Records[i]) + sum(causes.Held[i])
		w.Holds += held + sum(causes.Stills[i]) + sum(causes.Offsite[i])
		for k := range causes.Sends[i] {
			w.Holds += of(&causes.Sends[i][k].Tie)
		}
		// Each of its own events may begin and end a stretch of footage that all others hold which are under way.
		others := 0.0 // seconds held, of all
		for k := range causes.Records[i] {
			if t := &causes.Records[i][k]; t.Cause.Kind != cause.Motion || t.Cause.At != i {
				others += of(t) * holdSeconds(p, i, t, means)
			}
		}
		w.Holds += 2 * motion[i] * others / (days * 86400)
	}
	if alone == nil {
		for _, lists := range [][][]cause.Tie{causes.Messages, causes.Outputs, causes.Monitors} {
			for _, ties := range lists {
				w.Holds += sum(ties)
			}
		}
	}
	return w
}

// holdSeconds is how long an event of a tie holds footage of a channel on average, by the mean lengths of activities.
func holdSeconds(p *plan.Plan, i int, t *cause.Tie, means map[string]float64) float64 {
	c := &p.Channels[i]
	switch t.Cause.Kind {
	case cause.Motion:
		return c.PreSeconds + c.PostSeconds + means[p.Channels[t.Cause.At].Activity]
	case cause.Alarm:
		return c.AlarmPreEvent() + c.AlarmPostEvent() + means[p.AlarmInputs[t.Cause.At].Activity]
	}
	return c.AlarmPreEvent() + c.AlarmPostEvent()
}

// Bytes is about how much memory a rehearsal takes.
func (r *Rehearsal) Bytes() int {
	const event, segment, word = 160, 112, 8
	n := event * len(r.Events)
	for k := range r.Events {
		n += word * cap(r.Events[k].Records)
	}
	for _, list := range r.Segments {
		n += segment * cap(list)
		for k := range list {
			n += word * cap(list[k].Causes)
		}
	}
	return n
}

// stopped looks at a context every so often.
func stopped(ctx context.Context, n int) bool { return n%4096 == 0 && ctx.Err() != nil }
