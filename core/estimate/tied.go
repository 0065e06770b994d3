package estimate

import (
	"cmp"
	"slices"

	"wakefield/core/activity"
	"wakefield/core/alert"
	"wakefield/core/cause"
	"wakefield/core/plan"
	"wakefield/core/week"
)

// tied is what of a channel's motion some ties let count.
type tied struct {
	noticing noticing
	triggers []*trigger
	part     bool // whether that is not all of it, or none
}

// tie finds what records each channel.
func (r *resolver) tie() {
	// Ties of one effect have their triggers in common.
	type once struct {
		cause cause.Cause
		hours *week.Step[bool]
		len   int
	}
	made := make(map[once]*trigger)
	for i, ties := range r.causes.Records {
		for _, of := range byChannel(ties) {
			counts := r.motionOf(of.at, of.ties)
			r.motion[i] = append(r.motion[i], counts.triggers...)
			r.toMotion[i] = append(r.toMotion[i], of.at)
			if of.at == i {
				r.self[i] = counts
			}
		}
		for k := range ties {
			if t := &ties[k]; t.Cause.Kind != cause.Motion {
				key := once{t.Cause, &t.Hours[0], len(t.Hours)}
				if made[key] == nil {
					made[key] = r.elsewhere(t)
				}
				r.toAlarm[i] = append(r.toAlarm[i], made[key])
			}
		}
		for k := range r.causes.Held[i] {
			t := &r.causes.Held[i][k]
			b := &r.plan.CallButtons[t.Cause.At]
			r.call[i] += b.PressesPerWeek * b.HoldSeconds / week.Seconds * t.Hours.Share(func(on bool) bool { return on })
		}
	}
}

// channelTies are ties to the motion of one channel.
type channelTies struct {
	at   int
	ties []*cause.Tie
}

// byChannel puts ties to motion together that are to one channel, in the order in which channels come first.
func byChannel(ties []cause.Tie) (out []channelTies) {
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
			out = append(out, channelTies{at: t.Cause.At})
		}
		out[k].ties = append(out[k].ties, t)
	}
	return out
}

// mostTies of one channel's motion to one thing are told apart: one for each area that can be drawn. A tie to all of its motion
// at some hours is the one more that there can be, and is told first.
const mostTies = 64

// motionOf is what of a channel's motion some ties let count: that in any of the areas that they name, at their hours.
func (r *resolver) motionOf(from int, ties []*cause.Tie) tied {
	for _, t := range ties {
		if t.Cause.Area == "" && t.Always() {
			return tied{noticing: r.noticing[from], triggers: r.triggers[from]}
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
	out := tied{part: true}
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
		by := r.noticing[from]
		if !all {
			by = r.inAreas(from, areas)
		}
		out.noticing.add(by.during(week.Map(holds, func(v uint64) bool { return v == which })))
	}
	out.triggers = r.detected(from, &out.noticing)
	return out
}

// recordingTies are the ties by which the motion of a channel records any channel that has a camera, each cause once.
func (r *resolver) recordingTies(from int) (out []*cause.Tie) {
	at := make(map[cause.Cause]*cause.Tie)
	for i, ties := range r.causes.Records {
		for k := range ties {
			t := &ties[k]
			if t.Cause.Kind != cause.Motion || t.Cause.At != from || r.plan.Channels[i].NoCamera {
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

// hours is when anything is noticed.
func (n *noticing) hours() week.Steps[bool] {
	out := week.Constant(false)
	for _, list := range append([][]activity.Detection{n.wanted, n.nuisance}, n.patches...) {
		for _, d := range list {
			out = week.Or(out, d.Hours)
		}
	}
	return out
}

// inAreas is what a channel notices in some of its watched areas.
func (r *resolver) inAreas(i int, areas map[string]bool) noticing {
	c := r.plan.Channels[i]
	var list []plan.Area
	for _, a := range c.Detection.List() {
		if a.Ignore || areas[a.ID] {
			list = append(list, a)
		}
	}
	c.Detection.Areas = &plan.Areas{List: list}
	return notices(r.plan, &c, func(id string) activity.Process { return r.processes[id].Process })
}

// during is what is noticed in some hours.
func (n *noticing) during(hours week.Steps[bool]) (out noticing) {
	part := func(list []activity.Detection) (out []activity.Detection) {
		for _, d := range list {
			d.Hours = week.And(d.Hours, hours)
			out = append(out, d)
		}
		return out
	}
	out.wanted, out.nuisance = part(n.wanted), part(n.nuisance)
	for _, p := range n.patches {
		out.patches = append(out.patches, part(p))
	}
	return out
}

// add adds what is noticed at other hours.
func (n *noticing) add(m noticing) {
	n.wanted, n.nuisance = append(n.wanted, m.wanted...), append(n.nuisance, m.nuisance...)
	if n.patches == nil {
		n.patches = make([][]activity.Detection, len(m.patches))
	}
	for i := range m.patches {
		n.patches[i] = append(n.patches[i], m.patches[i]...)
	}
}

// momentSeconds stands for the length of what is over at once.
const momentSeconds = 1e-3

// elsewhere are the triggers of a tie to another cause than motion.
func (r *resolver) elsewhere(t *cause.Tie) *trigger {
	d := activity.Detection{Hours: t.Hours, Catch: 1}
	if t.Cause.Kind == cause.Alarm {
		return r.processes[r.plan.AlarmInputs[t.Cause.At].Activity].detected(d)
	}
	perHour := t.Cause.PerMonth / plan.SecondsAMonth * 3600
	if t.Cause.Kind == cause.Button {
		perHour = r.plan.CallButtons[t.Cause.At].PressesPerWeek / 168
	}
	return process{Process: activity.New(week.Constant(perHour), momentSeconds), from: origin{id: t.Cause.Key()}}.detected(d)
}

// heard are the triggers of some ties.
func (r *resolver) heard(ties []cause.Tie) (out []*trigger) {
	for _, of := range byChannel(ties) {
		counts := r.motionOf(of.at, of.ties)
		out = append(out, counts.triggers...)
	}
	for k := range ties {
		if ties[k].Cause.Kind != cause.Motion {
			out = append(out, r.elsewhere(&ties[k]))
		}
	}
	return out
}

// stream is a trigger as messages and outputs have it, as far as it falls into some hours.
func (t *trigger) stream(hours week.Steps[bool]) alert.Stream {
	s := alert.Stream{Rate: t.stated.Intensity, Group: t.Group, Chance: t.by.Notices(t.Mean)}
	if len(hours) != 1 || !hours[0].Value {
		s.Rate = activity.Detection{Hours: hours, Catch: 1}.Triggers(t.stated).Intensity
	}
	return s
}

func streamsOf(list []*trigger, hours week.Steps[bool]) []alert.Stream {
	out := make([]alert.Stream, len(list))
	for i, t := range list {
		out[i] = t.stream(hours)
	}
	return out
}

// recordedBy are the channels that the motion of channel i records.
func (r *resolver) recordedBy(i int) (out []int) {
	for j, from := range r.toMotion {
		for _, k := range from {
			if k == i && !r.plan.Channels[j].NoCamera {
				out = append(out, j)
			}
		}
	}
	return out
}
