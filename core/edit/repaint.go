package edit

import (
	"reflect"

	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// differing lists the stretches over which two schedules differ.
func differing(a, b week.Steps[string]) (out []week.Span) {
	for run, duty := range a.Runs() {
		for other, theirs := range b.Runs() {
			from, to := max(run.From, other.From), min(run.To, other.To)
			if from < to && duty != theirs {
				out = append(out, week.Span{From: from, To: to})
			}
		}
	}
	return out
}

// Repainted counts what differs between the weeks of two plans: the channels that do
// something else at some time, and the minutes of a week over which they do, all
// added up.
func Repainted(a, b *plan.Plan) (channels int, minutes week.Minute) {
	for i := range b.Channels {
		c := &b.Channels[i]
		was := a.Channel(c.ID)
		if was == nil {
			continue
		}
		before, after := a.WeekOf(was), b.WeekOf(c)
		if before == after || reflect.DeepEqual(before, after) {
			continue
		}
		spans := differing(before.Steps(), after.Steps())
		for _, s := range spans {
			minutes += s.Minutes()
		}
		if spans != nil {
			channels++
		}
	}
	return channels, minutes
}
