package handover

import (
	"slices"

	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// Standing is what stands at a recorder of a channel's week.
type Standing struct {
	Channel string
	Week    week.Steps[string] // duties by their ids; empty where recorders record round the clock as they are delivered
}

// After is, for every step of a sheet by its place, what stands of the week of the channel that it is about once it is done;
// nil for a step that changes no week.
func After(s *Sheet) []*Standing {
	out := make([]*Standing, len(s.Steps))
	weeks := make(map[string]dayWeek)
	of := func(channel string) dayWeek {
		w, ok := weeks[channel]
		if !ok {
			for d := range w {
				w[d] = []period{{0, week.Day, ""}}
			}
		}
		return w
	}
	for i := range s.Steps {
		channel := ""
		switch d := &s.Steps[i].Do; {
		case d.Set != nil && d.Set.Day != nil:
			channel = d.Set.Channel
			w := of(channel)
			w[*d.Set.Day] = nil
			for _, p := range d.Set.Periods {
				w[*d.Set.Day] = append(w[*d.Set.Day], period{week.Minute(p.From), week.Minute(p.To), p.Duty})
			}
			weeks[channel] = w
		case d.CopyDay != nil:
			channel = d.CopyDay.Channel
			w := of(channel)
			for _, to := range d.CopyDay.To {
				w[to] = slices.Clone(w[d.CopyDay.Day])
			}
			weeks[channel] = w
		case d.Copy != nil && d.Copy.Section == string(plan.CopiesWeek):
			channel = d.Copy.Channel
			for _, to := range d.Copy.To {
				weeks[to] = of(channel)
			}
		}
		if channel != "" {
			out[i] = &Standing{channel, of(channel).steps()}
		}
	}
	return out
}

// steps are the days as a week.
func (w dayWeek) steps() week.Steps[string] {
	steps := week.Constant("")
	for d, day := range w {
		for _, p := range day {
			begin := week.Minute(d) * week.Day
			steps = steps.Paint(week.Span{From: begin + p.from, To: begin + p.to}, p.duty)
		}
	}
	return steps
}
