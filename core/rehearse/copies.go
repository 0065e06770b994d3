package rehearse

import (
	"cmp"
	"context"
	"math"
	"slices"
	"sort"

	"wakefield.example/core/cause"
	"wakefield.example/core/effect"
	"wakefield.example/core/footage"
	"wakefield.example/core/uplink"
)

// Safety is when the footage of an event is safe off site.
type Safety struct {
	Event   int
	Channel int
	Safe    Ms // when; see Waits
	Waits   Ms // after the event was over
}

// SlowestToSafety are those copies of events of the days that take longest to reach safety, longest first.
func (r *Rehearsal) SlowestToSafety(ctx context.Context, most int) ([]Safety, error) {
	out, err := r.Copies(ctx)
	if err != nil {
		return nil, err
	}
	slices.SortStableFunc(out, func(a, b Safety) int { return cmp.Compare(b.Waits, a.Waits) })
	return out[:min(most, len(out))], nil
}

// Copies is when the footage of each event of the days is safe off site, by the same queue as that of the estimate (see
// [uplink]); what waits from before the days is among it. Of stills it is when each that is taken is safe. Nothing where nothing
// is copied, or the uplink is never open.
func (r *Rehearsal) Copies(ctx context.Context) (out []Safety, err error) {
	o := r.plan.Offsite
	if o == nil {
		return nil, nil
	}
	carrier := newUplinkCarrier(r, o.UplinkKbps)
	if carrier.after.Carries() == 0 {
		return nil, nil
	}
	causes := r.site.Causes()
	var clips []uplink.Clip
	for i := range r.plan.Channels {
		if stopped(ctx, 0) {
			return nil, ctx.Err()
		}
		if len(causes.Offsite[i]) > 0 && !r.plan.Channels[i].NoCamera {
			clips = append(clips, r.clips(causes.Offsite[i], i)...)
		}
	}
	uplink.Sort(clips)
	uplink.Send(clips, carrier, func(k int, _, safe float64) bool {
		c := &clips[k]
		if done := r.clock.ms(c.Done); done >= 0 && r.clock.ms(c.Over) < r.Length {
			out = append(out, Safety{c.Event, c.Channel, r.clock.ms(safe), r.clock.ms(safe) - r.clock.ms(c.Over)})
		}
		return !stopped(ctx, k)
	})
	return out, ctx.Err()
}

// seconds is a moment since the begin of what is played; ms is the moment again.
func (c *clock) seconds(m Ms) float64  { return float64(m-c.begin) / float64(Second) }
func (c *clock) ms(seconds float64) Ms { return c.begin + Ms(math.Round(seconds*float64(Second))) }

// clips are what a channel sends.
func (r *Rehearsal) clips(ties []cause.Tie, i int) []uplink.Clip {
	c, copies := &r.plan.Channels[i], r.plan.Offsite.Copy
	var holds []uplink.Hold
	add := func(tied func(cause.Kind) bool, pre, post float64, alarm bool) {
		var list []cause.Tie
		for _, t := range ties {
			if tied(t.Cause.Kind) {
				list = append(list, t)
			}
		}
		for _, n := range r.joined(list) {
			e := &r.Events[n]
			trigger, over := r.clock.seconds(e.Trigger), r.clock.seconds(e.End)
			holds = append(holds, uplink.Hold{From: max(0, trigger-pre), To: over + post, Trigger: trigger, Over: over, Alarm: alarm, Event: n})
		}
	}
	add(func(k cause.Kind) bool { return k == cause.Motion }, c.PreSeconds, c.PostSeconds, false)
	add(func(k cause.Kind) bool { return k != cause.Motion }, c.AlarmPreEvent(), c.AlarmPostEvent(), true)
	if copies == effect.CopyStills {
		return r.copiedStills(holds, i)
	}
	f := uplink.Footage{At: r.copied(i)}
	for _, n := range r.own[i] {
		f.Active = append(f.Active, uplink.Span{From: r.clock.seconds(r.Events[n].Start), To: r.clock.seconds(r.Events[n].End)})
	}
	f.Active = uplink.Union(f.Active)
	return f.Clips(i, holds)
}

// copied is what is copied of a channel at a moment.
func (r *Rehearsal) copied(i int) func(float64) (*footage.Regime, float64) {
	runs := r.runs(i)
	for k := range runs {
		runs[k].regime = r.site.CopyAt(i, runs[k].regime)
	}
	return func(moment float64) (*footage.Regime, float64) {
		at := r.clock.ms(moment)
		k := sort.Search(len(runs), func(k int) bool { return runs[k].To > at })
		if k >= len(runs)-1 {
			return &runs[len(runs)-1].regime, math.Inf(1)
		}
		return &runs[k].regime, r.clock.seconds(runs[k].To)
	}
}

// copiedStills are the stills of a channel that go in the place of footage. Of each it is known which event it is of.
func (r *Rehearsal) copiedStills(holds []uplink.Hold, i int) []uplink.Clip {
	s := r.plan.Channels[i].Stills
	if s == nil {
		return nil
	}
	hours := s.Hours.Holding()
	out := uplink.StillsOf(i, holds, s.EverySeconds, s.Bytes()*8/1000,
		func(at float64) bool { return hours.At(r.clock.minute(r.clock.ms(at))) })
	slices.SortFunc(holds, func(a, b uplink.Hold) int { return cmp.Compare(a.Trigger, b.Trigger) })
	for k := range out {
		n := sort.Search(len(holds), func(n int) bool { return holds[n].Trigger > out[k].Done })
		for n--; n > 0 && holds[n].Over <= out[k].Done; n-- {
		}
		out[k].Event = holds[n].Event
	}
	return out
}

// uplinkCarrier is the uplink on the dates that are played; after them as in any week.
type uplinkCarrier struct {
	kbps  float64
	open  []float64 // seconds open from the begin to each minute
	after *uplink.Line
	week  float64 // second of the week at which what is played ends
}

func newUplinkCarrier(r *Rehearsal, kbps float64) *uplinkCarrier {
	hours := r.plan.Offsite.Hours.Holding()
	minutes := r.clock.minutes
	w := &uplinkCarrier{kbps: kbps, open: make([]float64, len(minutes)+1), after: uplink.NewLine(kbps,
		hours), week: 60 * float64(minutes[len(minutes)-1]+1)}
	for m, of := range minutes {
		w.open[m+1] = w.open[m]
		if hours.At(of) {
			w.open[m+1] += 60
		}
	}
	return w
}

// After is when an amount that begins to be sent at a moment has left.
func (w *uplinkCarrier) After(at float64, amount uplink.Kbit) float64 {
	last := len(w.open) - 1
	end := 60 * float64(last)
	m := int(at / 60)
	if m >= last {
		return end + w.after.After(w.week+at-end, amount) - w.week
	}
	before := w.open[m]
	if w.open[m+1] > before {
		before += at - 60*float64(m)
	}
	want := before + amount/w.kbps
	if amount <= 0 {
		return at
	}
	if rest := want - w.open[last]; rest > 0 {
		return end + w.after.After(w.week, rest*w.kbps) - w.week
	}
	k := sort.Search(last, func(k int) bool { return w.open[k+1] >= want })
	return max(at, 60*float64(k)+want-w.open[k])
}
