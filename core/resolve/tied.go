package resolve

import (
	"cmp"
	"slices"

	"wakefield.example/core/activity"
	"wakefield.example/core/alert"
	"wakefield.example/core/cause"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// Tied is what of a channel's motion some ties let count.
type Tied struct {
	Noticing Noticing
	Triggers []*Trigger
	Part     bool // whether that is not all of it, or none
}

// tie finds what records each channel.
func (r *Site) tie() {
	// Ties of one effect have their triggers in common.
	type once struct {
		cause cause.Cause
		hours *week.Step[bool]
		len   int
	}
	made := make(map[once]*Trigger)
	for i, ties := range r.Causes.Records {
		for _, of := range ByChannel(ties) {
			counts := r.MotionOf(of.At, of.Ties)
			r.motion[i] = append(r.motion[i], counts.Triggers...)
			r.ToMotion[i] = append(r.ToMotion[i], of.At)
			if of.At == i {
				r.self[i] = counts
			}
		}
		for k := range ties {
			if t := &ties[k]; t.Cause.Kind != cause.Motion {
				key := once{t.Cause, &t.Hours[0], len(t.Hours)}
				if made[key] == nil {
					made[key] = r.Elsewhere(t)
				}
				r.toAlarm[i] = append(r.toAlarm[i], made[key])
			}
		}
		for k := range r.Causes.Held[i] {
			t := &r.Causes.Held[i][k]
			b := &r.Plan.CallButtons[t.Cause.At]
			r.call[i] += b.PressesPerWeek * b.HoldSeconds / week.Seconds * t.Hours.Share(func(on bool) bool { return on })
		}
	}
}

// ChannelTies are ties to the motion of one channel.
type ChannelTies struct {
	At   int
	Ties []*cause.Tie
}

// ByChannel puts ties to motion together that are to one channel, in the order in which channels come first.
func ByChannel(ties []cause.Tie) (out []ChannelTies) {
	at := make(map[int]int)
	for i := range ties {
		t := &ties[i]
		if t.Cause.Kind != cause.Motion {
			continue
		}
		k, ok := at[t.Cause.At]
		if !ok {
			k = len(out)
			at[t.Cause.At] = k
			out = append(out, ChannelTies{At: t.Cause.At})
		}
		out[k].Ties = append(out[k].Ties, t)
	}
	return out
}

// mostTies of one channel's motion to one thing are told apart: one for each area that can be drawn. A tie to all of its motion
// at some hours is the one more that there can be, and is told first.
const mostTies = 64

// MotionOf is what of a channel's motion some ties let count: that in any of the areas that they name, at their hours.
func (r *Site) MotionOf(from int, ties []*cause.Tie) Tied {
	for _, t := range ties {
		if t.Cause.Area == "" && t.Always() {
			return Tied{Noticing: r.Noticing[from], Triggers: r.Triggers[from]}
		}
	}
	ties = slices.Clone(ties)
	slices.SortStableFunc(ties, func(a, b *cause.Tie) int { return cmp.Compare(a.Cause.Area, b.Cause.Area) })
	ties = ties[:min(len(ties), mostTies)]
	holds := week.Constant(uint64(0))
	for k, t := range ties {
		holds = week.Map(week.Both(holds, t.Hours), func(p week.Pair[uint64, bool]) uint64 {
			if p.B {
				p.A |= 1 << k
			}
			return p.A
		})
	}
	out := Tied{Part: true}
	seen := make(map[uint64]bool)
	for _, step := range holds {
		which := step.Value
		if which == 0 || seen[which] {
			continue
		}
		seen[which] = true
		areas, all := make(map[string]bool), false
		for k, t := range ties {
			if which>>k&1 == 1 {
				areas[t.Cause.Area] = true
				all = all || t.Cause.Area == ""
			}
		}
		by := r.Noticing[from]
		if !all {
			by = r.inAreas(from, areas)
		}
		out.Noticing.add(by.during(week.Map(holds, func(v uint64) bool { return v == which })))
	}
	out.Triggers = r.detected(from, &out.Noticing)
	return out
}

// RecordingTies are the ties by which the motion of a channel records any channel that has a camera, each cause once.
func (r *Site) RecordingTies(from int) (out []*cause.Tie) {
	at := make(map[cause.Cause]*cause.Tie)
	for i, ties := range r.Causes.Records {
		for k := range ties {
			t := &ties[k]
			if t.Cause.Kind != cause.Motion || t.Cause.At != from || r.Plan.Channels[i].NoCamera {
				continue
			}
			if known := at[t.Cause]; known != nil {
				known.Hours = week.Or(known.Hours, t.Hours)
				continue
			}
			one := *t
			at[t.Cause] = &one
			out = append(out, &one)
		}
	}
	return out
}

// Hours is when anything is noticed.
func (n *Noticing) Hours() week.Steps[bool] {
	out := week.Constant(false)
	for _, list := range append([][]activity.Detection{n.Wanted, n.nuisance}, n.Patches...) {
		for _, d := range list {
			out = week.Or(out, d.Hours)
		}
	}
	return out
}

// inAreas is what a channel notices in some of its watched areas.
func (r *Site) inAreas(i int, areas map[string]bool) Noticing {
	c := r.Plan.Channels[i]
	var list []plan.Area
	for _, a := range c.Detection.List() {
		if a.Ignore || areas[a.ID] {
			list = append(list, a)
		}
	}
	c.Detection.Areas = &plan.Areas{List: list}
	return Notices(r.Plan, &c, func(id string) activity.Process { return r.Activities[id].Process })
}

// during is what is noticed in some hours.
func (n *Noticing) during(hours week.Steps[bool]) (out Noticing) {
	part := func(list []activity.Detection) (out []activity.Detection) {
		for _, d := range list {
			d.Hours = week.And(d.Hours, hours)
			out = append(out, d)
		}
		return out
	}
	out.Wanted, out.nuisance = part(n.Wanted), part(n.nuisance)
	for _, p := range n.Patches {
		out.Patches = append(out.Patches, part(p))
	}
	return out
}

// add adds what is noticed at other hours.
func (n *Noticing) add(m Noticing) {
	n.Wanted, n.nuisance = append(n.Wanted, m.Wanted...), append(n.nuisance, m.nuisance...)
	if n.Patches == nil {
		n.Patches = make([][]activity.Detection, len(m.Patches))
	}
	for i := range m.Patches {
		n.Patches[i] = append(n.Patches[i], m.Patches[i]...)
	}
}

// momentSeconds stands for the length of what is over at once.
const momentSeconds = 1e-3

// Elsewhere are the triggers of a tie to another cause than motion.
func (r *Site) Elsewhere(t *cause.Tie) *Trigger {
	d := activity.Detection{Hours: t.Hours, Catch: 1}
	if t.Cause.Kind == cause.Alarm {
		return r.Activities[r.Plan.AlarmInputs[t.Cause.At].Activity].detected(d)
	}
	perHour := t.Cause.PerMonth / plan.SecondsAMonth * 3600
	if t.Cause.Kind == cause.Button {
		perHour = r.Plan.CallButtons[t.Cause.At].PressesPerWeek / 168
	}
	return Happening{Process: activity.New(week.Constant(perHour), momentSeconds), From: Origin{ID: t.Cause.Key()}}.detected(d)
}

// Heard are the triggers of some ties.
func (r *Site) Heard(ties []cause.Tie) (out []*Trigger) {
	for _, of := range ByChannel(ties) {
		counts := r.MotionOf(of.At, of.Ties)
		out = append(out, counts.Triggers...)
	}
	for k := range ties {
		if ties[k].Cause.Kind != cause.Motion {
			out = append(out, r.Elsewhere(&ties[k]))
		}
	}
	return out
}

// Stream is a trigger as messages and outputs have it, as far as it falls into some hours.
func (t *Trigger) Stream(hours week.Steps[bool]) alert.Stream {
	s := alert.Stream{Rate: t.Stated.Intensity, Group: t.Group, Chance: t.By.Notices(t.Mean)}
	if len(hours) != 1 || !hours[0].Value {
		s.Rate = activity.Detection{Hours: hours, Catch: 1}.Triggers(t.Stated).Intensity
	}
	return s
}

func StreamsOf(list []*Trigger, hours week.Steps[bool]) []alert.Stream {
	out := make([]alert.Stream, len(list))
	for i, t := range list {
		out[i] = t.Stream(hours)
	}
	return out
}

// RecordedBy are the channels that the motion of channel i records.
func (r *Site) RecordedBy(i int) (out []int) {
	for j, from := range r.ToMotion {
		for _, k := range from {
			if k == i && !r.Plan.Channels[j].NoCamera {
				out = append(out, j)
			}
		}
	}
	return out
}
