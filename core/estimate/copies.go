package estimate

import (
	"math"
	"slices"

	"wakefield/core/alert"
	"wakefield/core/cause"
	"wakefield/core/footage"
	"wakefield/core/parallel"
	"wakefield/core/plan"
	"wakefield/core/uplink"
	"wakefield/core/video"
	"wakefield/core/week"
)

// Copied is the copy of footage off site.
type Copied struct {
	GigabytesPerDay  float64  `json:"gigabytesPerDay" doc:"Copied"`
	WorstWaitSeconds *float64 `json:"worstWaitSeconds" required:"true" doc:"Longest that a copy waits before it begins; null where the uplink never catches up"`
	UplinkPercent    float64  `json:"uplinkPercent" doc:"Of what the uplink carries in a week, how much the copies take; above 100 they never catch up"`
	LateChannels     int      `json:"lateChannels" doc:"Channels that are not safe, at the worst minute, within the time a person needs to take the recorder"`
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
	queue   *uplink.Queue
	kbps    [168]float64 // copied, by hour
}

// copied is what one channel sends off site.
type copied struct {
	week  footage.Week // nil for stills
	hours alert.Hours  // kbit an hour, of stills
	size  uplink.Kbits // of one event
	after float64      // seconds from the end of an event until the last of it is recorded
	whole float64      // seconds from the first of its footage to the last
}

// copy finds what is sent off site, and when it is safe there.
func (s *Result) copy(p *plan.Plan, earlier *Result) {
	if p.Offsite == nil {
		return
	}
	what := p.Offsite.Copy
	if what == "" {
		what = CopyRecorded
	}
	s.copies = s.copiesOf(what, earlier)
	if s.copies == nil {
		return
	}
	s.Offsite = s.copies.figures(p.Offsite)
	for i, c := range s.copies.channel {
		if c == nil {
			continue
		}
		safe, worst := s.copies.safe(c, p.Offsite.UplinkKbps)
		s.Channels[i].SafeSeconds = &safe
		if !math.IsInf(worst, 1) {
			s.Channels[i].WorstSafeSeconds = &worst
		}
		if limit := p.Offsite.TakenWithinSeconds; limit > 0 && worst > limit {
			s.Offsite.LateChannels++
		}
	}
}

// safe is how many seconds after the end of an event a channel's footage of it is off site, idle and at worst.
func (c *copies) safe(of *copied, kbps float64) (idle, worst float64) {
	wait, _ := c.queue.Worst(of.size)
	return of.after + uplink.Idle(of.size, kbps), of.after + wait
}

func (c *copies) figures(o *plan.Offsite) *Copied {
	out := new(Copied)
	week := 0.0
	for _, kbps := range c.kbps {
		week += kbps * 3600
	}
	out.GigabytesPerDay = week / 7 * 1000 / 8 / 1e9
	if carries := c.queue.Carries(); carries > 0 {
		out.UplinkPercent = 100 * week / carries
	} else if week > 0 {
		out.UplinkPercent = math.MaxFloat32
	}
	if wait, _ := c.queue.Worst(0); !math.IsInf(wait, 1) {
		out.WorstWaitSeconds = &wait
	}
	return out
}

// copiesOf is what is sent off site if so much of each event is; nil where nothing is.
func (s *Result) copiesOf(what string, earlier *Result) *copies {
	p, r := s.plan, s.resolver
	out := &copies{what: what, channel: make([]*copied, len(p.Channels))}
	before := earlier.byID()
	var anew []int
	any := false
	for i := range p.Channels {
		if len(r.causes.Offsite[i]) == 0 || p.Channels[i].NoCamera {
			continue
		}
		any = true
		if j, ok := before[p.Channels[i].ID]; ok && earlier.copies != nil && earlier.copies.what == what && earlier.resolver.hearing == r.hearing && earlier.played[j] == s.played[i] && earlier.plan.Channels[j].Stills == p.Channels[i].Stills {
			out.channel[i] = earlier.copies.channel[j]
			continue
		}
		anew = append(anew, i)
	}
	if !any {
		return nil
	}
	s.copyAll(out, anew, what)
	arrives := make([]float64, week.Length)
	for _, c := range out.channel {
		if c == nil {
			continue
		}
		for _, b := range c.week {
			for m := b.Span.From; m < b.Span.To; m++ {
				arrives[m] += float64(b.Total())
			}
		}
		if c.week == nil {
			for m := range arrives {
				arrives[m] += c.hours[m/60] / 3600
			}
		}
	}
	for m, kbps := range arrives {
		out.kbps[m/60] += kbps / 60
	}
	out.queue = uplink.New(arrives, p.Offsite.UplinkKbps, p.Offsite.Hours.Holding())
	return out
}

// copyAll finds what some channels send off site. Those whose copies divide the time in the same way are played once.
func (s *Result) copyAll(out *copies, which []int, what string) {
	inputs := make([]*input, len(which))
	parallel.Do(len(which), func(k int) { out.channel[which[k]], inputs[k] = s.copyOf(which[k], what) })
	alike := make(map[uint64]int)
	like := make([]int, len(which))
	var distinct []int
	for k, in := range inputs {
		if in == nil {
			continue
		}
		print := in.fingerprint()
		if first, ok := alike[print]; ok && in.playsAlike(inputs[first]) {
			like[k] = first
			continue
		}
		alike[print], like[k] = k, k
		distinct = append(distinct, k)
	}
	shares := make([][]footage.Shares, len(which))
	parallel.Do(len(distinct), func(n int) {
		k := distinct[n]
		shares[k] = footage.Play(inputs[k].scene, inputs[k].regimes)
	})
	parallel.Do(len(which), func(k int) {
		if inputs[k] != nil {
			out.channel[which[k]].week = footage.Price(shares[like[k]], inputs[k].regimes)
		}
	})
}

// copyOf is what channel i sends off site: the footage that its duty writes of the causes that are tied to the copy, be it
// the event layer's or, where the duty does not listen, the base layer's.
// It is played yet from the input that comes with it; stills are not.
func (s *Result) copyOf(i int, what string) (*copied, *input) {
	c, r, in := &s.plan.Channels[i], s.resolver, &s.inputs[i]
	var motion, other []cause.Tie
	for _, t := range r.causes.Offsite[i] {
		if t.Cause.Kind == cause.Motion {
			motion = append(motion, t)
		} else {
			other = append(other, t)
		}
	}
	h := heard{pre: c.PreSeconds, post: c.PostSeconds, alarmPre: c.AlarmPreEvent(), alarmPost: c.AlarmPostEvent(),
		own: in.heard.own, caught: r.triggers[i], motion: r.heard(motion), alarm: r.heard(other)}
	regimes := week.Map(in.regimes, func(g footage.Regime) footage.Regime { return copying(c, g, what) })
	tied := false
	for _, of := range byChannel(motion) {
		if tied = of.at == i; tied {
			h.caught = r.motionOf(i, of.ties).triggers
			break
		}
	}
	scene := h.scene(footage.Scene{Tied: tied}, nil)
	out := new(copied)
	// One event: before it, while it lasts, after it.
	var cost video.Cost
	for _, g := range regimes {
		if g.Value.Admit != footage.Nothing && g.Value.Event.Active >= cost.Active {
			cost = g.Value.Event
		}
	}
	var all, seconds float64
	size := 0.0
	weigh := func(list []*trigger, pre, post float64) {
		for _, t := range list {
			n := t.stated.PerDay()
			all += n
			seconds += n * (pre + t.Mean + post)
			out.after += n * post
			size += n * (float64(cost.Idle)*(pre+post) + float64(cost.Active)*t.Mean)
		}
	}
	weigh(h.motion, h.pre, h.post)
	weigh(h.alarm, h.alarmPre, h.alarmPost)
	if all == 0 || cost.Active == 0 && what != CopyStills {
		return nil, nil
	}
	out.after, out.size, out.whole = out.after/all, size/all, seconds/all
	if what == CopyStills {
		return r.copyStills(c, &h, out, all), nil
	}
	h.findCauses()
	return out, &input{regimes: regimes, scene: scene, heard: h}
}

// copyStills is the copy of stills alone: they are there as soon as they are taken.
func (r *resolver) copyStills(c *plan.Channel, h *heard, out *copied, all float64) *copied {
	if c.Stills == nil {
		return nil
	}
	var list []alert.Lasting
	mean := 0.0
	for _, t := range append(slices.Clone(h.motion), h.alarm...) {
		list = append(list, alert.Lasting{Stream: t.stream(c.Stills.Hours.Holding()), Mean: t.Mean})
		mean += t.stated.PerDay() * t.Mean / all
	}
	kbit := c.Stills.Bytes() * 8 / 1000
	out.hours = alert.Stills(list, c.Stills.EverySeconds)
	for k := range out.hours {
		out.hours[k] *= kbit
	}
	out.size, out.after = kbit, 0 // each goes by itself
	out.whole = mean
	return out
}

// copying is what is copied while a channel does something.
func copying(c *plan.Channel, g footage.Regime, what string) footage.Regime {
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
		out.Event = encoded(s).Written(video.Cut{}, video.Kbps(c.AudioKbps))
	}
	return out
}

// CopyHours is the copy off site by hour of the week, Monday 00:00 to 01:00 first, and what a lower copy would do.
type CopyHours struct {
	Kbps      HourRates     `json:"kbps" doc:"Copied, mean of the hour"`
	BacklogGB HourRates     `json:"backlogGB" doc:"Largest that waits in the hour; empty where it grows without end"`
	Channels  []CopyChannel `json:"channels"`
	Lower     []CopyInstead `json:"instead" doc:"What is copied, and what could be in its place"`
}

// CopyChannel is the copy of one channel.
type CopyChannel struct {
	Channel     string   `json:"channel"`
	Kbps        float64  `json:"kbps" doc:"Mean of the week"`
	EventMB     float64  `json:"eventMB" doc:"Of one event"`
	SafeSeconds float64  `json:"safeSeconds"`
	Worst       *float64 `json:"worstSafeSeconds" required:"true" doc:"Null where the uplink never catches up"`
	OnlyOnSite  *float64 `json:"onlyOnSiteSeconds" required:"true" doc:"From the first of an event's footage until all of it is safe, at worst"`
	Late        bool     `json:"late" doc:"Whether that is later than a person needs to take the recorder"`
}

// CopyInstead is what copying something else would do.
type CopyInstead struct {
	Copy             string   `json:"copy" enum:"recorded,sub,stills"`
	Chosen           bool     `json:"chosen"`
	GigabytesPerDay  float64  `json:"gigabytesPerDay"`
	UplinkPercent    float64  `json:"uplinkPercent"`
	WorstSafeSeconds *float64 `json:"worstSafeSeconds" required:"true" doc:"Of the channel that is safe last; null where the uplink never catches up"`
	Without          int      `json:"without" doc:"Channels of which nothing would be copied, as they have no such stream or no stills"`
}

// CopyByHour is the copy off site by hour; nil where nothing is copied.
func (s *Result) CopyByHour() *CopyHours {
	if s.copies == nil {
		return nil
	}
	o := s.plan.Offsite
	out := &CopyHours{Kbps: s.copies.kbps[:], BacklogGB: HourRates{}, Channels: []CopyChannel{}}
	if !s.copies.queue.Grows {
		by := s.copies.queue.ByHour()
		for _, kbit := range by {
			out.BacklogGB = append(out.BacklogGB, kbit*1000/8/1e9)
		}
	}
	for i, c := range s.copies.channel {
		if c == nil {
			continue
		}
		safe, worst := s.copies.safe(c, o.UplinkKbps)
		one := CopyChannel{Channel: s.Channels[i].ID, Kbps: c.mean(), EventMB: c.size * 1000 / 8 / 1e6, SafeSeconds: safe}
		if !math.IsInf(worst, 1) {
			only := c.whole + worst - c.after
			one.Worst, one.OnlyOnSite = &worst, &only
		}
		one.Late = o.TakenWithinSeconds > 0 && worst > o.TakenWithinSeconds
		out.Channels = append(out.Channels, one)
	}
	for _, what := range []string{CopyRecorded, CopySub, CopyStills} {
		out.Lower = append(out.Lower, s.instead(what))
	}
	return out
}

// mean is the kbit/s copied, mean of the week.
func (c *copied) mean() float64 {
	if c.week != nil {
		mean := c.week.Mean()
		return float64(mean.Total())
	}
	return c.hours.Mean() / 3600
}

func (s *Result) instead(what string) CopyInstead {
	of := s.copies
	if what != of.what {
		of = s.copiesOf(what, nil)
	}
	figures := of.figures(s.plan.Offsite)
	out := CopyInstead{Copy: what, Chosen: what == s.copies.what, GigabytesPerDay: figures.GigabytesPerDay, UplinkPercent: figures.UplinkPercent}
	last := 0.0
	for i, c := range of.channel {
		if c == nil {
			if len(s.resolver.causes.Offsite[i]) > 0 {
				out.Without++
			}
			continue
		}
		_, worst := of.safe(c, s.plan.Offsite.UplinkKbps)
		last = max(last, worst)
	}
	if !math.IsInf(last, 1) {
		out.WorstSafeSeconds = &last
	}
	return out
}
