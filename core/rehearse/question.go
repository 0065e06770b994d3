package rehearse

import (
	"context"
	"slices"
	"sort"

	"wakefield.example/core/estimate"
	"wakefield.example/core/parallel"
	"wakefield.example/core/storage"
)

// Have is what is on disk of a channel at a moment, or of a stretch of time.
type Have struct {
	Fate    Fate    // of a stretch the least there is of it
	Share   float64 // of the stretch that is on disk at all; 0 or 1 at a moment
	Full    float64 // of the stretch in full
	Segment int     // place of the segment at the beginning; -1 for none
	Why     Why
}

// Have tells whether there is footage of a channel from one moment to another, which may be the same.
func (r *Rehearsal) Have(channel int, from, to Ms) Have {
	if to <= from {
		to = from + 1
	}
	out := Have{Segment: -1, Fate: Missed}
	list := r.Segments[channel]
	k := sort.Search(len(list), func(i int) bool { return list[i].To > from })
	var some, full Ms
	for at := k; at < len(list) && list[at].From < to; at++ {
		s := &list[at]
		if at == k && s.From <= from {
			out.Segment = k
		}
		part := min(s.To, to) - max(s.From, from)
		some += part
		if s.Event || r.whole(channel, s) {
			full += part
		}
	}
	if of := within(r.Away[channel], from); of {
		out.Why = AwayThen // there is footage, of another place
		some, full = 0, 0
	}
	out.Share, out.Full = float64(some)/float64(to-from), float64(full)/float64(to-from)
	switch {
	case full == to-from:
		out.Fate = Full
	case some == to-from:
		out.Fate = Low
	}
	if out.Why == "" {
		out.Why = r.whyHave(channel, from, out)
	}
	return out
}

// whole tells whether a segment of the base layer is as much as the event layer would write.
func (r *Rehearsal) whole(channel int, s *Segment) bool {
	g := r.site.DutyAt(channel, s.Duty).At(r.clock.minute(s.From))
	return g.Whole
}

func (r *Rehearsal) whyHave(channel int, at Ms, h Have) Why {
	if h.Segment >= 0 {
		switch s := &r.Segments[channel][h.Segment]; {
		case s.Button:
			return ByButton
		case s.Event && s.Others:
			return ByOthers
		case s.Event:
			return ByItself
		case r.whole(channel, s):
			return ByBase
		}
		return LowOnly
	}
	for _, d := range r.runs(channel) {
		if d.From <= at && at < d.To && (d.regime.Admit != 0 || d.regime.HasBase) {
			return Deaf // it waits for something, and nothing came
		}
	}
	return TurnedOff
}

// DutyAt is the duty of a channel at a moment, by its id.
func (r *Rehearsal) DutyAt(channel int, at Ms) string {
	return runAt(r.runs(channel), at).duty
}

// Odds are how often there is footage of a channel in many rehearsals.
type Odds struct {
	Rehearsals      int
	Full, Low, Gone int
}

// OddsOf plays many weeks, as the one that was asked about but with other numbers, and counts in how many there is footage of a
// channel from one moment to another. It fails as [Play] does.
func OddsOf(ctx context.Context, site *estimate.Result, ask Ask, channel int, from, to Ms) (o Odds, err error) {
	first, err := alone(ctx, site, ask, channel)
	if err != nil {
		return o, err
	}
	d := newDrawing(first.base)
	work := d.work(site.Causes(), first)
	times := min(mostOdds, int(oddsBudget/max(1, work.Events+work.Holds)))
	if times < leastOdds {
		return o, &TooManyError{work, ask.Days * times / leastOdds}
	}
	fates := make([]Fate, times)
	parallel.Do(times, func(k int) {
		if ctx.Err() != nil {
			return
		}
		other := ask
		other.Seed = ask.Seed + uint64(k) + 1
		if r, err := first.again(ctx, other); err == nil {
			fates[k] = r.Have(channel, from, to).Fate
		}
	})
	if err := ctx.Err(); err != nil {
		return o, err
	}
	for _, f := range fates {
		switch f {
		case Full:
			o.Full++
		case Low:
			o.Low++
		case Missed:
			o.Gone++
		}
	}
	o.Rehearsals = o.Full + o.Low + o.Gone
	return o, ctx.Err()
}

// KeptUntil is for how many days after it was written the footage of a channel is kept typically; infinite where nothing takes
// it away.
func KeptUntil(site *estimate.Result, channel int) storage.Days {
	if d := site.Channels[channel].RetentionDays; d != nil {
		return storage.Days(*d)
	}
	return storage.Forever
}

// Gap is a stretch without any picture.
type Gap struct {
	Channel int
	Span
}

// LongestGaps are for every channel the longest stretch without any picture, longest first; channels that always have one are
// left out.
func (r *Rehearsal) LongestGaps() (out []Gap) {
	for i := range r.Segments {
		if r.plan.Channels[i].NoCamera {
			continue
		}
		longest := Span{}
		at := Ms(0)
		for _, s := range append(slices.Clone(r.Segments[i]), Segment{From: r.Length, To: r.Length}) {
			if s.From-at > longest.To-longest.From {
				longest = Span{at, s.From}
			}
			at = max(at, s.To)
		}
		if longest.To > longest.From {
			out = append(out, Gap{i, longest})
		}
	}
	slices.SortStableFunc(out, func(a, b Gap) int { return int((b.To - b.From) - (a.To - a.From)) })
	return out
}

// WorstHour is the hour in which most wanted events are missed, and how many; its beginning.
func (r *Rehearsal) WorstHour() (at Ms, missed int) {
	by := make(map[Ms]int)
	for k := range r.Events {
		if e := &r.Events[k]; e.Source == Wanted && e.Fate == Missed && e.Start >= 0 && e.Start < r.Length {
			by[e.Start/Hour*Hour]++
		}
	}
	for hour, n := range by {
		if n > missed || n == missed && hour < at {
			at, missed = hour, n
		}
	}
	return at, missed
}
