package handover

import (
	"slices"

	"wakefield.example/core/edit"
	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// EditsTo are the edits that make of a plan the plan as entered: q has the same channels, and beside them duties that p does not
// have. A named week is changed where all that follow it are entered alike; else channels depart from it.
func EditsTo(p, q *plan.Plan) (out []edit.Edit) {
	for i := range q.Duties {
		if d := q.Duties[i]; p.Duty(d.ID) == nil {
			out = append(out, edit.Edit{SetDuty: &edit.SetDuty{Duty: d}})
		}
	}
	out = append(out, weekEdits(p, q)...)
	for i := range p.Channels {
		out = append(out, channelEdits(&p.Channels[i], &q.Channels[i])...)
	}
	return out
}

// weekEdits make weeks what they are in q.
func weekEdits(p, q *plan.Plan) (out []edit.Edit) {
	done := make([]bool, len(p.Channels))
	for i := range p.Weeks {
		w := &p.Weeks[i]
		var followers []int
		for k := range p.Channels {
			if p.Channels[k].Week.Follows(w.ID) {
				followers = append(followers, k)
			}
		}
		if len(followers) == 0 {
			continue
		}
		then := q.WeekOf(&q.Channels[followers[0]]).Steps()
		alike := !slices.ContainsFunc(followers, func(k int) bool { return !slices.Equal(q.WeekOf(&q.Channels[k]).Steps(), then) })
		if alike && !slices.Equal(then, w.Steps()) {
			next := *w
			next.OwnWeek = *plan.WeekOf(then)
			out = append(out, edit.Edit{SetWeek: &edit.SetWeek{Week: next}})
			for _, k := range followers {
				done[k] = true
			}
		}
	}
	for i := range p.Channels {
		was, is := p.WeekOf(&p.Channels[i]).Steps(), q.WeekOf(&q.Channels[i]).Steps()
		if done[i] || slices.Equal(was, is) {
			continue
		}
		var same []string
		for k := i; k < len(p.Channels); k++ {
			if !done[k] && slices.Equal(p.WeekOf(&p.Channels[k]).Steps(), was) && slices.Equal(q.WeekOf(&q.Channels[k]).Steps(), is) {
				same, done[k] = append(same, p.Channels[k].ID), true
			}
		}
		var told []string
		for _, s := range is {
			if slices.Contains(told, s.Value) {
				continue
			}
			told = append(told, s.Value)
			where := week.Map(week.Both(was, is), func(at week.Pair[string, string]) bool { return at.A != at.B && at.B == s.Value })
			if hours := plan.HoursWhere(where); len(hours) > 0 {
				out = append(out, edit.Edit{Paint: &edit.Paint{Channels: same, Hours: hours, Duty: s.Value}})
			}
		}
	}
	return out
}

// channelEdits make the settings of a channel what they are in another plan, but for its week.
func channelEdits(c, to *plan.Channel) (out []edit.Edit) {
	ids := []string{c.ID}
	times := edit.SetTimes{Channels: ids}
	if c.PreSeconds != to.PreSeconds {
		times.PreSeconds = &to.PreSeconds
	}
	if c.PostSeconds != to.PostSeconds {
		times.PostSeconds = &to.PostSeconds
	}
	if to.AlarmPreSeconds != nil && *to.AlarmPreSeconds != *c.AlarmPreSeconds {
		times.AlarmPreSeconds = to.AlarmPreSeconds
	}
	if to.AlarmPostSeconds != nil && *to.AlarmPostSeconds != *c.AlarmPostSeconds {
		times.AlarmPostSeconds = to.AlarmPostSeconds
	}
	if times.PreSeconds != nil || times.PostSeconds != nil || times.AlarmPreSeconds != nil || times.AlarmPostSeconds != nil {
		out = append(out, edit.Edit{SetTimes: &times})
	}
	for _, which := range []plan.StreamName{plan.Main, plan.Sub, plan.Third} {
		if was, is := c.Streams.Get(which), to.Streams.Get(which); was != nil && is != nil && *was != *is {
			out = append(out, edit.Edit{SetStream: &edit.SetStream{Channels: ids, Stream: which, Settings: is}})
		}
	}
	if c.Detection.Areas != to.Detection.Areas || c.Detection.MinSeconds != to.Detection.MinSeconds {
		out = append(out, edit.Edit{SetDetection: &edit.SetDetection{Channels: ids, Detection: to.Detection}})
	}
	return out
}
