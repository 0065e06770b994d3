// Package rehearse plays single weeks of a plan out, event by event, on real dates.
//
// What happens is drawn from the plan's activities by a number: the same number, dates and activities are the same
// happenings, bit for bit on any machine, whatever else differs between two plans. So two variants can be held against each
// other over one week. What the plan does with them follows from its ties (package cause) and from what its duties mean
// (package estimate), by single intervals and no formula: in the long run it agrees with the estimate within sampling error,
// which is a test.
//
// Times are milliseconds since the first midnight, on the clocks of the site; an hour that clocks skip is not there, one that
// comes twice is there twice. Some time before the first midnight is played too, so that its first minutes are like others.
package rehearse

import (
	"cmp"
	"context"
	"slices"
	"time"

	"wakefield.example/core/cause"
	"wakefield.example/core/document"
	"wakefield.example/core/estimate"
	"wakefield.example/core/parallel"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// Ms is a moment or a length of time in milliseconds. Moments count from the first midnight of a rehearsal.
type Ms int64

const (
	Second Ms = 1000
	Minute Ms = 60 * Second
	Hour   Ms = 60 * Minute
	Day    Ms = 24 * Hour
)

// Ask is what is to be rehearsed.
type Ask struct {
	From week.Date // first date
	Days int       // 1 to MostDays
	Seed uint64    // which of all weeks
}

// Source is what an event comes from.
type Source string

const (
	Wanted   Source = "wanted"   // a channel's activity
	Nuisance Source = "nuisance" // a channel's nuisance
	Patch    Source = "patch"    // something that moves in a patch of its picture
	Alarm    Source = "alarm"    // an alarm input
	Button   Source = "button"
	Lost     Source = "lost" // picture lost
	Tampered Source = "tampered"

	UplinkLost Source = "uplinkLost" // of the copy off site
)

// Gate is a place where an event may be lost on the way to a trigger.
type Gate string

const (
	Passed     Gate = ""
	Off        Gate = "off"        // detection is off
	Closed     Gate = "closed"     // detection, or every area, is off at that hour
	TooShort   Gate = "short"      // it was over before the shortest duration
	OutOfSight Gate = "outOfSight" // it is in no watched area, or too small there, for long enough
	Overlooked Gate = "overlooked" // detection did not notice it, by chance
)

// Fate is what became of a wanted event.
type Fate string

const (
	Full   Fate = "full"
	Low    Fate = "low"    // only what is written anyway, which is less
	Missed Fate = "missed" // nothing is on disk
)

// Event is one thing that happened.
type Event struct {
	Source  Source
	Channel int    // place of the channel in the plan; -1 of inputs and buttons
	At      int    // place of the patch, the alarm input or the button
	Walk    int    // place of the way that it took; -1 for none
	Start   Ms     // when it began
	End     Ms     // when it was over
	Trigger Ms     // when detection made a trigger of it, or as it happened; see Gate
	Gate    Gate   // where it was lost on the way to a trigger; Passed where it became one
	Areas   uint64 // watched areas that noticed it, a bit for each

	Fate    Fate  // of wanted events
	Why     Why   // of the fate
	Records []int // channels that write for it, in the order of the plan
}

// Why is the reason for a fate.
type Why string

const (
	ByItself   Why = "itself" // its own trigger was admitted
	ByOthers   Why = "others" // footage was being written for others when it began
	ByButton   Why = "button" // a button had it recorded
	ByBase     Why = "base"   // the base layer writes as much anyway
	LowOnly    Why = "low"    // the base layer alone was written
	NotNoticed Why = "gate"   // it was lost at a gate, and nothing else was written
	NotTied    Why = "untied" // own motion does not record the channel
	Deaf       Why = "deaf"   // the duty does not listen to motion then
	BothNeeded Why = "both"   // the duty wants motion and an alarm at once
	AwayThen   Why = "away"   // the camera looked elsewhere
	TurnedOff  Why = "off"    // the duty is off
)

// Segment is a stretch of one channel's footage in which one layer writes under one duty.
type Segment struct {
	From, To Ms
	Duty     string
	Event    bool  // whether the event layer, or a button, writes; else the base layer
	Button   bool  // whether a button holds it
	Others   bool  // whether only other channels' events, or alarms, hold it there
	Causes   []int // events that hold it there, by their place; none of the base layer
	Kbit     float64
}

// Rehearsal is one played-out stretch of days.
type Rehearsal struct {
	Ask      Ask
	Length   Ms          // of all days; a day may have 23 or 25 hours
	Events   []Event     // in the order in which they begin, from before the first midnight on
	Segments [][]Segment // by channel
	Told     []Told      // by message
	Outputs  []Switched  // by output
	Monitors []Shown     // by monitor
	Away     [][]Span    // by channel: when a movable camera looks elsewhere
	Stills   [][]Ms      // by channel: stills taken

	plan  *plan.Plan
	site  *estimate.Result
	clock *clock
	lead  Ms                 // what is played before the first midnight
	tail  Ms                 // and after the last
	own   [][]int            // by channel: its events
	other map[Source][][]int // events of inputs, buttons, lost pictures and tampering, by place
	areas [][]string         // by channel: ids of the watched areas, in the order of their bits
}

// Span is a stretch of time.
type Span struct{ From, To Ms }

// prepared is a rehearsal of which nothing is played yet. It fails with a [*document.Error] for dates that cannot be rehearsed.
func prepared(site *estimate.Result, ask Ask) (*Rehearsal, error) {
	p := site.Plan()
	if ask.Days < 1 || ask.Days > MostDays {
		return nil, document.Wrong("days", "from 1 to %d days are rehearsed", MostDays)
	}
	if ask.From.Year < 1970 || ask.From.Year > 2200 {
		return nil, document.Wrong("from", "dates from 1970 to 2200 are rehearsed")
	}
	zone, err := time.LoadLocation(p.Site.TimeZone)
	if err != nil {
		return nil, document.Wrong("site.timeZone", "%v", err)
	}
	r := &Rehearsal{Ask: ask, plan: p, site: site, lead: leadOf(p), tail: 2 * Hour}
	r.clock = newClock(p, ask, zone, r.lead, r.tail)
	r.Length, r.areas = r.clock.length, areasOf(p)
	return r, nil
}

// Play plays a plan that was estimated. It fails with a [*document.Error] for dates that cannot be rehearsed, with a
// [*TooManyError] before anything is played, and with the error of the context when that ends, at which it looks every few
// milliseconds.
func Play(ctx context.Context, site *estimate.Result, ask Ask) (*Rehearsal, error) {
	r, err := prepared(site, ask)
	if err != nil {
		return nil, err
	}
	p, causes := site.Plan(), site.Causes()
	d := newDrawing(r)
	if err := d.bounded(d.work(causes, nil)); err != nil {
		return nil, err
	}
	if err := d.draw(ctx); err != nil {
		return nil, err
	}
	r.Segments, r.Away = make([][]Segment, len(p.Channels)), make([][]Span, len(p.Channels))
	r.Stills = make([][]Ms, len(p.Channels))
	r.tell(ctx, causes)
	records := make([][]int, len(p.Channels)) // by channel: the events that record it
	parallel.Do(len(p.Channels), func(i int) {
		if ctx.Err() == nil {
			records[i] = r.channel(ctx, causes, i)
		}
	})
	if err := ctx.Err(); err != nil {
		return nil, err
	}
	for i, list := range records {
		for _, e := range list {
			r.Events[e].Records = append(r.Events[e].Records, i)
		}
	}
	return r, ctx.Err()
}

// areasOf are the ids of the watched areas of every channel.
func areasOf(p *plan.Plan) [][]string {
	out := make([][]string, len(p.Channels))
	for i := range p.Channels {
		for _, a := range p.Channels[i].Detection.List() {
			if !a.Ignore {
				out[i] = append(out[i], a.ID)
			}
		}
	}
	return out
}

// leadOf is how long before the first midnight has to be played: what may cast its shadow on the days.
func leadOf(p *plan.Plan) Ms {
	longest := 86400.0
	for i := range p.Channels {
		c := &p.Channels[i]
		longest = max(longest, c.PostSeconds+3600, plan.Or(c.AlarmPostSeconds, 0)+3600)
	}
	for _, a := range p.Activities {
		longest = max(longest, 12*a.MeanSeconds)
	}
	for _, m := range p.Messages {
		longest = max(longest, 2*m.AtMostEverySeconds)
	}
	for _, b := range p.CallButtons {
		longest = max(longest, b.HoldSeconds+3600)
	}
	return min(Ms(longest)*Second, 14*Day)
}

// triggers are the events that a tie lets through, by their place.
func (r *Rehearsal) triggers(tie *cause.Tie) (out []int) {
	of := r.sourceOf(tie.Cause)
	bit := uint64(0)
	if tie.Cause.Area != "" {
		if k := slices.Index(r.areas[tie.Cause.At], tie.Cause.Area); k >= 0 {
			bit = 1 << k
		}
	}
	always := tie.Always()
	for _, n := range of {
		e := &r.Events[n]
		if e.Gate != Passed || tie.Cause.Area != "" && e.Areas&bit == 0 {
			continue
		}
		if always || tie.Hours.At(r.clock.minute(e.Trigger)) {
			out = append(out, n)
		}
	}
	return out
}

// sourceOf are the events of a cause, whether they became triggers or not.
func (r *Rehearsal) sourceOf(c cause.Cause) []int {
	switch c.Kind {
	case cause.Motion:
		return r.own[c.At]
	case cause.Alarm:
		return r.other[Alarm][c.At]
	case cause.Button:
		return r.other[Button][c.At]
	case cause.Lost:
		return r.other[Lost][c.At]
	}
	if c.Kind == cause.UplinkLost {
		return r.other[UplinkLost][0]
	}
	return r.other[Tampered][c.At]
}

// joined are events of several ties, each once, in order.
func (r *Rehearsal) joined(ties []cause.Tie) (out []int) {
	for k := range ties {
		out = append(out, r.triggers(&ties[k])...)
	}
	slices.SortFunc(out, func(a, b int) int {
		return cmp.Or(cmp.Compare(r.Events[a].Trigger, r.Events[b].Trigger), cmp.Compare(a, b))
	})
	return slices.Compact(out)
}
