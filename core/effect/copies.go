package effect

import (
	"math"
	"slices"

	"wakefield.example/core/alert"
	"wakefield.example/core/cause"
	"wakefield.example/core/footage"
	"wakefield.example/core/parallel"
	"wakefield.example/core/plan"
	"wakefield.example/core/resolve"
	"wakefield.example/core/uplink"
	"wakefield.example/core/video"
	"wakefield.example/core/week"
)

// Copied is the copy of footage off site.
type Copied struct {
	GigabytesPerDay  float64  `json:"gigabytesPerDay" doc:"Copied"`
	WorstWaitSeconds *float64 `json:"worstWaitSeconds" required:"true" doc:"How long 99 of 100 copies wait at most before they begin; null where the uplink never catches up"`
	UplinkPercent    float64  `json:"uplinkPercent" doc:"Of what the uplink carries in a week, how much the copies take; above 100 they never catch up"`
	LateChannels     int      `json:"lateChannels" doc:"Channels of which more than one event in a hundred is safe later than a person needs to take the recorder"`
}

// What of an event is copied.
const (
	CopyRecorded = "recorded" // as it is written
	CopySub      = "sub"      // the sub stream
	CopyStills   = "stills"
)

// copies are what all channels send off site.
type copies struct {
	what    string
	channel []*copied
	line    *uplink.Line
	kbps    [168]float64 // copied, by hour
	grows   bool         // whether the uplink never catches up
	played  *uplink.Played
}

// copied is what one channel sends off site.
type copied struct {
	week  footage.Week // nil for stills
	hours alert.Hours  // kbit an hour, of stills
	after float64      // seconds from the end of an event until the last of it is recorded
	whole float64      // seconds from the first of its footage to the last

	plays   uplink.Channel // by places in the sources
	sources []uplink.Source
}

// findCopies finds what is sent off site, and when it is safe there.
func (e *Effects) findCopies(earlier *Effects) {
	o := e.site.Plan.Offsite
	if o == nil {
		return
	}
	e.copies = e.copiesOf(CopyOf(o), earlier)
	if e.copies == nil {
		return
	}
	e.Offsite = e.copies.figures(o)
	for i := range e.copies.channel {
		if safe := e.Safe(i); safe != nil && safe.LatePercent != nil && isLate(*safe.LatePercent) {
			e.Offsite.LateChannels++
		}
	}
}

// CopyOf is what of an event is copied.
func CopyOf(o *plan.Offsite) string {
	if o == nil || o.Copy == "" {
		return CopyRecorded
	}
	return o.Copy
}

func (c *copies) figures(o *plan.Offsite) *Copied {
	out := new(Copied)
	week := 0.0
	for _, kbps := range c.kbps {
		week += kbps * 3600
	}
	out.GigabytesPerDay = week / 7 * 1000 / 8 / 1e9
	if carries := c.line.Carries(); carries > 0 {
		out.UplinkPercent = 100 * week / carries
	} else if week > 0 {
		out.UplinkPercent = math.MaxFloat32
	}
	if !c.grows {
		out.WorstWaitSeconds = &c.played.Waits
	}
	return out
}

// copiesOf is what is sent off site if so much of each event is; nil where nothing is.
func (e *Effects) copiesOf(what string, earlier *Effects) *copies {
	p, r := e.site.Plan, e.site
	out := &copies{what: what, channel: make([]*copied, len(p.Channels))}
	var anew []int
	any := false
	for i := range p.Channels {
		if len(r.Causes.Offsite[i]) == 0 || p.Channels[i].NoCamera {
			continue
		}
		any = true
		j, ok := e.before(earlier, p.Channels[i].ID)
		if ok && earlier.copies != nil && earlier.copies.what == what && earlier.played[j] == e.played[i] &&
			earlier.site.Plan.Channels[j].Stills == p.Channels[i].Stills {
			out.channel[i] = earlier.copies.channel[j]
			continue
		}
		anew = append(anew, i)
	}
	if !any {
		return nil
	}
	e.copyAll(out, anew, what)
	total := 0.0
	for _, c := range out.channel {
		if c == nil {
			continue
		}
		kbit := c.byHour()
		for h := range kbit {
			out.kbps[h] += kbit[h] / 3600
			total += kbit[h]
		}
	}
	out.line = uplink.NewLine(p.Offsite.UplinkKbps, p.Offsite.Hours.Holding())
	out.grows = total > out.line.Carries()*(1+1e-12)
	if len(anew) == 0 && out.asBefore(p, earlier) {
		out.played = earlier.copies.played
	} else {
		out.played = uplink.Play(out.demand())
	}
	return out
}

// asBefore tells whether just the same goes over the same uplink as in an earlier plan.
func (c *copies) asBefore(p *plan.Plan, earlier *Effects) bool {
	if earlier == nil || earlier.copies == nil || earlier.copies.what != c.what {
		return false
	}
	now, then := p.Offsite, earlier.site.Plan.Offsite
	return now.UplinkKbps == then.UplinkKbps && now.Hours == then.Hours && slices.Equal(c.channel, earlier.copies.channel)
}

// demand is what is played of it.
func (c *copies) demand() *uplink.Demand {
	out := &uplink.Demand{Channels: make([]uplink.Channel, len(c.channel)), Line: c.line, Grows: c.grows}
	known := make(map[string]int)
	for i, of := range c.channel {
		if of == nil {
			continue
		}
		places := make([]int, len(of.sources))
		for k, source := range of.sources {
			at, ok := known[source.Name]
			if !ok {
				at = len(out.Sources)
				known[source.Name] = at
				out.Sources = append(out.Sources, source)
			}
			places[k] = at
		}
		channel := of.plays
		channel.Weekly = of.mean() * week.Seconds
		channel.Own, channel.Heard = slices.Clone(channel.Own), slices.Clone(channel.Heard)
		for k := range channel.Own {
			channel.Own[k] = places[channel.Own[k]]
		}
		for k := range channel.Heard {
			channel.Heard[k].Source = places[channel.Heard[k].Source]
		}
		out.Channels[i] = channel
	}
	return out
}

// byHour is what a channel sends, kbit in each hour of the week.
func (c *copied) byHour() (out [168]uplink.Kbit) {
	if c.week == nil {
		return c.hours
	}
	for _, b := range c.week {
		for m := b.Span.From; m < b.Span.To; {
			to := min(b.Span.To, (m/60+1)*60)
			out[m/60] += float64(b.Total()) * 60 * float64(to-m)
			m = to
		}
	}
	return out
}

// copyAll finds what some channels send off site. Those whose copies divide the time in the same way are played once.
func (e *Effects) copyAll(out *copies, which []int, what string) {
	inputs := make([]*resolve.Input, len(which))
	parallel.Do(len(which), func(k int) { out.channel[which[k]], inputs[k] = e.copyAt(which[k], what) })
	alike := make(map[uint64]int)
	like := make([]int, len(which))
	var distinct []int
	for k, in := range inputs {
		if in == nil {
			continue
		}
		print := in.Fingerprint()
		if first, ok := alike[print]; ok && in.PlaysAlike(inputs[first]) {
			like[k] = first
			continue
		}
		alike[print], like[k] = k, k
		distinct = append(distinct, k)
	}
	shares := make([][]footage.Shares, len(which))
	parallel.Do(len(distinct), func(n int) {
		k := distinct[n]
		shares[k] = footage.Play(inputs[k].Happening, inputs[k].Regimes)
	})
	parallel.Do(len(which), func(k int) {
		if inputs[k] != nil {
			out.channel[which[k]].week = footage.Price(shares[like[k]], inputs[k].Regimes)
		}
	})
}

// copyAt is what channel i sends off site: the footage that its duty writes of the causes that are tied to the copy, be it
// the event layer's or, where the duty does not listen, the base layer's.
// It is played yet from the input that comes with it; stills are not.
func (e *Effects) copyAt(i int, what string) (*copied, *resolve.Input) {
	c, r, in := &e.site.Plan.Channels[i], e.site, &e.site.Inputs[i]
	var motion, other []cause.Tie
	for _, t := range r.Causes.Offsite[i] {
		if t.Cause.Kind == cause.Motion {
			motion = append(motion, t)
		} else {
			other = append(other, t)
		}
	}
	h := resolve.Heard{Pre: c.PreSeconds, Post: c.PostSeconds, AlarmPre: c.AlarmPreEvent(), AlarmPost: c.AlarmPostEvent(),
		Own: in.Heard.Own, Caught: r.Triggers[i], Motion: r.Heard(motion), Alarm: r.Heard(other)}
	regimes := week.Map(in.Regimes, func(g footage.Regime) footage.Regime { return Copying(c, g, what) })
	tied := false
	for _, of := range resolve.ByChannel(motion) {
		if tied = of.At == i; tied {
			h.Caught = r.MotionOf(i, of.Ties).Triggers
			break
		}
	}
	happening := h.Happening(footage.Happening{Tied: tied}, nil)
	out := new(copied)
	some := slices.ContainsFunc(regimes, func(g week.Step[footage.Regime]) bool {
		return g.Value.Admit != footage.Nothing && g.Value.Event.Active > 0
	})
	var all, seconds float64
	weigh := func(list []*resolve.Trigger, pre, post float64) {
		for _, t := range list {
			n := t.Stated.PerDay()
			all += n
			seconds += n * (pre + t.Mean + post)
			out.after += n * post
		}
	}
	weigh(h.Motion, h.Pre, h.Post)
	weigh(h.Alarm, h.AlarmPre, h.AlarmPost)
	if all == 0 || !some && what != CopyStills {
		return nil, nil
	}
	out.after, out.whole = out.after/all, seconds/all
	happens(r, i, out, motion, other)
	if what == CopyStills {
		return copyStills(c, &h, out, all), nil
	}
	h.FindOrigins()
	out.plays.Copied = regimes
	return out, &resolve.Input{Regimes: regimes, Happening: happening, Heard: h}
}

// copyStills is the copy of stills alone: they are there as soon as they are taken.
func copyStills(c *plan.Channel, h *resolve.Heard, out *copied, all float64) *copied {
	if c.Stills == nil {
		return nil
	}
	var list []alert.Lasting
	mean := 0.0
	for _, t := range append(slices.Clone(h.Motion), h.Alarm...) {
		list = append(list, alert.Lasting{Stream: t.Stream(c.Stills.Hours.Holding()), Mean: t.Mean})
		mean += t.Stated.PerDay() * t.Mean / all
	}
	kbit := c.Stills.Bytes() * 8 / 1000
	out.plays.Stills = &uplink.Stills{EverySeconds: c.Stills.EverySeconds, Amount: kbit, Hours: c.Stills.Hours.Holding()}
	out.hours = alert.Stills(list, c.Stills.EverySeconds)
	for k := range out.hours {
		out.hours[k] *= kbit
	}
	out.after = 0 // each goes by itself
	out.whole = mean
	return out
}

// Copying is what is copied while a channel does something.
func Copying(c *plan.Channel, g footage.Regime, what string) footage.Regime {
	out := footage.Regime{Admit: g.Admit, Event: g.Event}
	if g.HasBase {
		out.Admit = footage.Either
		if g.Admit == footage.Nothing {
			out.Event = g.Base
		}
	}
	if out.Admit == footage.Nothing {
		return footage.Regime{}
	}
	if what == CopySub {
		s := c.Streams.Sub
		if s == nil {
			return footage.Regime{}
		}
		out.Event = resolve.Encoded(s).Written(video.Cut{}, video.Kbps(c.AudioKbps))
	}
	return out
}
