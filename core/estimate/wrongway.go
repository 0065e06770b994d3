package estimate

import (
	"slices"

	"wakefield.example/core/cause"
	"wakefield.example/core/plan"
)

// WrongWay is what an alarm input would do if its contact were set the wrong way round: it would be in alarm whenever it is
// not now.
type WrongWay struct {
	Channels            []string `json:"channels" doc:"Those that it would keep recording"`
	MoreGigabytesPerDay float64  `json:"moreGigabytesPerDay" doc:"Than now"`
	KeptDays            *float64 `json:"keptDays" required:"true" doc:"Of the channel of the verdict, then"`
	KeptDaysNow         *float64 `json:"keptDaysNow" required:"true"`
}

// WrongWayOf tries an alarm input of the plan the wrong way round.
func (s *Result) WrongWayOf(id string) WrongWay {
	p := *s.plan
	out := WrongWay{Channels: []string{}, KeptDaysNow: s.Verdict.KeptDays}
	at := slices.IndexFunc(p.AlarmInputs, func(a plan.AlarmInput) bool { return a.ID == id })
	for i, ties := range s.site.Causes.Records {
		for _, t := range ties {
			if t.Cause.Kind == cause.Alarm && t.Cause.At == at && !p.Channels[i].NoCamera &&
				s.Listens(i, plan.When{Alarm: id}).Share(func(on bool) bool { return on }) > 0 {
				out.Channels = append(out.Channels, p.Channels[i].ID)
			}
		}
	}
	// An alarm that is as good as always there.
	always := plan.Activity{ID: "wrong way round", Name: "Wrong way round", Known: "measured", MeanSeconds: 3600, OtherwisePerHour: 60}
	for p.Activity(always.ID) != nil {
		always.ID += "'"
	}
	p.Activities = append(p.Activities[:len(p.Activities):len(p.Activities)], always)
	p.AlarmInputs = slices.Clone(p.AlarmInputs)
	p.AlarmInputs[at].Activity = always.ID
	then := Figures(&p, s)
	out.MoreGigabytesPerDay = then.Verdict.GigabytesPerDay - s.Verdict.GigabytesPerDay
	out.KeptDays = then.Verdict.KeptDays
	for i := range then.Channels {
		if then.Channels[i].ID == s.Verdict.Channel {
			out.KeptDays = then.Channels[i].RetentionDays
		}
	}
	return out
}
