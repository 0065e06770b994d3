package api

import (
	"context"
	"math"

	"wakefield.example/core/edit"
	"wakefield.example/core/estimate"
	"wakefield.example/core/footage"
	"wakefield.example/core/week"
	"wakefield.example/internal/store"
)

// Draft is what a change would change, if it were kept.
type Draft struct {
	Sentence              string           `json:"sentence"`
	GigabytesPerDay       float64          `json:"gigabytesPerDay" doc:"Of the whole site, with the change"`
	GigabytesPerDayChange float64          `json:"gigabytesPerDayChange"`
	Verdict               estimate.Verdict `json:"verdict"`
	EvidenceChange        footage.Evidence `json:"evidenceChange" doc:"Change of events a day by fate"`
	Channels              int              `json:"channels" doc:"Channels that would do something else at some time"`
	Minutes               week.Minute      `json:"minutes" doc:"Minutes of the week over which they would, added up"`
	Pools                 []DraftPool      `json:"pools" doc:"Those that would keep footage for longer or shorter"`
	Ribbons               []Ribbon         `json:"ribbons" doc:"Of the first channels whose ribbon would change, 40 at most"`
	Tide                  Tide             `json:"tide"`
}

// mostDrafted is of how many channels a draft has the ribbon: more than a window shows.
const mostDrafted = 40

// DraftPool is what a change would do to a pool.
type DraftPool struct {
	ID      string   `json:"id"`
	Days    *float64 `json:"days" required:"true" doc:"Typically kept, with the change; null where it is never full"`
	DaysNow *float64 `json:"daysNow" required:"true"`
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
		Sentence:              done.Sentence,
		GigabytesPerDay:       next.Verdict.GigabytesPerDay,
		GigabytesPerDayChange: next.Verdict.GigabytesPerDay - before.site.Verdict.GigabytesPerDay,
		Verdict:               next.Verdict,
		EvidenceChange:        next.Verdict.Evidence.Minus(before.site.Verdict.Evidence),
		Pools:                 []DraftPool{},
		Ribbons:               []Ribbon{},
		Tide:                  tide(entry{head: &store.Head{Plan: done.Plan}, site: next}, []week.Span{week.Whole}),
	}
	for _, then := range next.Pools {
		for _, now := range before.site.Pools {
			if now.ID == then.ID && !closeTo(now.RetentionDays, then.RetentionDays) {
				d.Pools = append(d.Pools, DraftPool{then.ID, then.RetentionDays, now.RetentionDays})
			}
		}
	}
	for i, changed := range next.Changed(before.site) {
		if changed.Week && len(d.Ribbons) < mostDrafted {
			d.Ribbons = append(d.Ribbons, ribbon(next, i))
		}
	}
	d.Channels, d.Minutes = edit.Repainted(before.head.Plan, done.Plan)
	return d, nil
}

// closeTo tells whether two numbers of days are the same to what is ever shown of them.
func closeTo(a, b *float64) bool {
	if a == nil || b == nil {
		return a == b
	}
	return math.Abs(*a-*b) < 0.005
}
