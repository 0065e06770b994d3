package check

import (
	"context"

	"wakefield/core/edit"
	"wakefield/core/estimate"
	"wakefield/core/plan"
)

// FixEffect is what the fix of a finding does to the site, before it is made.
type FixEffect struct {
	ID              string   `json:"id" doc:"Of the finding"`
	KeptDays        *float64 `json:"keptDays" required:"true" doc:"Days of the verdict afterwards"`
	MoreDays        float64  `json:"moreDays" doc:"Than now, of the channel of the verdict; 0 where there is no limit before or after"`
	MissedPerDay    float64  `json:"missedPerDay" doc:"Change of the wanted events that are missed a day"`
	GigabytesPerDay float64  `json:"gigabytesPerDay" doc:"Change of what is written a day"`
	Mends           Mending  `json:"mends" enum:"gone,less,same" doc:"What becomes of the finding: it goes, there is less of it, or it stays as it is"`
}

// Mending is what a fix makes of its finding.
type Mending string

const (
	Gone Mending = "gone"
	Less Mending = "less" // of fewer places, or by less
	Same Mending = "same"
)

// mending is what became of a finding, by what is found afterwards of the same things.
func mending(f *Finding, after []Finding) Mending {
	here := places(f)
	before, left, cost, found := len(here), 0, 0.0, false
	for k := range after {
		g := &after[k]
		if g.Rule != f.Rule || g.Pool != f.Pool || g.Recorder != f.Recorder {
			continue
		}
		if before == 0 {
			if g.Path == f.Path {
				found, cost = true, max(cost, g.Cost)
			}
			continue
		}
		for id := range places(g) {
			if here[id] {
				found, left, cost = true, left+1, max(cost, g.Cost)
			}
		}
	}
	switch {
	case !found:
		return Gone
	case left < before || cost < 0.99*f.Cost:
		return Less
	}
	return Same
}

// places are the channels that a finding is about.
func places(f *Finding) map[string]bool {
	out := make(map[string]bool)
	for _, id := range append(f.Channels, f.Channel) {
		if id != "" {
			out[id] = true
		}
	}
	return out
}

// mostEffects is how many fixes are tried: those of the first findings.
const mostEffects = 60

// Effects tries the fixes of findings, one at a time. It is given up with the error of the
// context when that ends.
func Effects(ctx context.Context, p *plan.Plan, s *estimate.Result, found []Finding) ([]FixEffect, error) {
	out := []FixEffect{}
	for _, f := range found {
		if f.Fix == nil || f.Accepted != nil || len(out) == mostEffects {
			continue
		}
		mended, err := edit.After(p, f.Fix.Edits...)
		if err != nil {
			continue // it does not fit any more; pressing it says why
		}
		after, err := estimate.FiguresContext(ctx, mended, s)
		if err != nil {
			return nil, err
		}
		e := FixEffect{ID: f.ID, KeptDays: after.Verdict.KeptDays,
			MissedPerDay:    after.Verdict.Evidence.MissedPerDay - s.Verdict.Evidence.MissedPerDay,
			GigabytesPerDay: after.Verdict.GigabytesPerDay - s.Verdict.GigabytesPerDay}
		if kept := daysOf(after, s.Verdict.Channel); kept != nil && s.Verdict.KeptDays != nil {
			e.MoreDays = *kept - *s.Verdict.KeptDays
		}
		e.Mends = mending(&f, Findings(mended, after))
		out = append(out, e)
	}
	return out, nil
}

// daysOf is how long a channel is kept; that of the verdict where it is none.
func daysOf(s *estimate.Result, channel string) *float64 {
	for i := range s.Channels {
		if s.Channels[i].ID == channel {
			return s.Channels[i].RetentionDays
		}
	}
	return s.Verdict.KeptDays
}
