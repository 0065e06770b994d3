package server

import (
	"context"
	"wakefield/core/edit"
	"wakefield/core/estimate"
	"wakefield/core/week"
)

// Draft is what a change would change, if it were kept.
type Draft struct {
	Sentence        string            `json:"sentence"`
	GigabytesPerDay float64           `json:"gigabytesPerDay" doc:"Of the whole site, with the change"`
	Change          float64           `json:"gigabytesPerDayChange"`
	Verdict         estimate.Verdict  `json:"verdict"`
	EvidenceChange  estimate.Evidence `json:"evidenceChange" doc:"Change of events a day by fate"`
	Channels        int               `json:"channels" doc:"Channels that would do something else at some time"`
	Minutes         week.Minute       `json:"minutes" doc:"Minutes of the week over which they would, added up"`
}

func draft(ctx context.Context, before entry, done *edit.Done) (*Draft, error) {
	next, err := estimate.FiguresContext(ctx, done.Plan, before.site)
	if err != nil {
		return nil, err
	}
	if err := next.CheckFinite(); err != nil {
		return nil, err
	}
	d := &Draft{
		Sentence:        done.Sentence,
		GigabytesPerDay: next.Verdict.GigabytesPerDay,
		Change:          next.Verdict.GigabytesPerDay - before.site.Verdict.GigabytesPerDay,
		Verdict:         next.Verdict,
		EvidenceChange:  next.Verdict.Evidence.Minus(before.site.Verdict.Evidence),
	}
	d.Channels, d.Minutes = edit.Repainted(before.head.Plan, done.Plan)
	return d, nil
}
