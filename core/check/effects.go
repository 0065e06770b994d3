package check

import (
	"context"
	"slices"

	"wakefield.example/core/edit"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
)

// FixEffect is what the fix of a finding does to the site, before it is made.
type FixEffect struct {
	ID              string   `json:"id" doc:"Of the finding"`
	Choice          int      `json:"choice,omitempty" doc:"Which of its other ways to mend it, from 1; 0 for its fix"`
	KeptDays        *float64 `json:"keptDays" required:"true" doc:"Days of the verdict afterwards"`
	MoreDays        float64  `json:"moreDays" doc:"Than now, of the channel of the verdict; 0 where there is no limit before or after"`
	MissedPerDay    float64  `json:"missedPerDay" doc:"Change of the wanted events that are missed a day"`
	GigabytesPerDay float64  `json:"gigabytesPerDay" doc:"Change of what is written a day"`
	Mends           Mending  `json:"mends" enum:"gone,less,same" doc:"What becomes of the finding: it goes, there is less of it, or it stays as it is"`
	Left            int      `json:"left,omitempty" doc:"Of its channels, how many it is still found on"`
	Then            string   `json:"then,omitempty" doc:"What is found then, where there is less of it"`
}

// Mending is what a fix makes of its finding.
type Mending string

const (
	Gone Mending = "gone"
	Less Mending = "less" // of fewer places, or by less
	Same Mending = "same"
)

// mending is what became of a finding, by what is found afterwards of the same things, on how
// many of its channels it is found still, and the worst of what is found there.
func mending(f *Finding, after []Finding) (became Mending, left int, worst *Finding) {
	here := places(f)
	before, cost := len(here), 0.0
	for k := range after {
		g := &after[k]
		if g.Rule != f.Rule || g.Pool != f.Pool || g.Recorder != f.Recorder {
			continue
		}
		if before == 0 {
			if g.Path == f.Path {
				worst, cost = g, max(cost, g.amount())
			}
			continue
		}
		if f.cause == "" && g.Path != f.Path {
			continue // of another patch, area or tie of its channel
		}
		for id := range places(g) {
			if here[id] {
				worst, left, cost = g, left+1, max(cost, g.amount())
			}
		}
	}
	switch {
	case worst == nil:
		return Gone, 0, nil
	case left < before || cost < 0.99*f.amount():
		return Less, left, worst
	}
	return Same, left, worst
}

// amount is how much there is of what a finding finds: what it costs, or how often it happens.
func (f *Finding) amount() float64 {
	if f.Cost > 0 {
		return f.Cost
	}
	return f.worse
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

// MostEffects is how many fixes are tried together: those of the first findings.
const MostEffects = 60

// Effects tries the fixes of findings, one at a time: of those that are named, or of all where
// none is. It is given up with the error of the context when that ends.
func Effects(ctx context.Context, p *plan.Plan, s *estimate.Result, found []Finding, named ...string) ([]FixEffect, error) {
	out := []FixEffect{}
	for i := range found {
		f := &found[i]
		if f.Fix == nil || f.Accepted != nil || len(out) >= MostEffects || len(named) > 0 && !slices.Contains(named, f.ID) {
			continue
		}
		for choice, fix := range append([]Fix{*f.Fix}, f.Choices...) {
			e, err := effect(ctx, p, s, f, fix.Edits)
			if err != nil {
				return nil, err
			}
			if e != nil {
				e.Choice = choice
				out = append(out, *e)
			}
		}
	}
	return out, nil
}

// effect is what edits do that are to mend a finding; nil where they do not fit any more, as pressing them says why.
func effect(ctx context.Context, p *plan.Plan, s *estimate.Result, f *Finding, edits []edit.Edit) (*FixEffect, error) {
	mended, err := edit.After(p, edits...)
	if err != nil {
		return nil, nil
	}
	after, err := estimate.FiguresContext(ctx, mended, s)
	if err != nil {
		return nil, err
	}
	e := &FixEffect{ID: f.ID, KeptDays: after.Verdict.KeptDays,
		MissedPerDay:    after.Verdict.Evidence.MissedPerDay - s.Verdict.Evidence.MissedPerDay,
		GigabytesPerDay: after.Verdict.GigabytesPerDay - s.Verdict.GigabytesPerDay}
	if kept := daysOf(after, s.Verdict.Channel); kept != nil && s.Verdict.KeptDays != nil {
		e.MoreDays = *kept - *s.Verdict.KeptDays
	}
	var then *Finding
	if e.Mends, e.Left, then = mending(f, findingsLike(f.Rule, mended, after)); e.Mends == Less {
		e.Then = then.Sentence
	}
	return e, nil
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
