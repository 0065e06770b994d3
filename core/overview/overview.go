// Package overview is what is known of many sites at once: each in one line, what of a site can be searched for, what a new method
// moved, and what a company has planned altogether.
package overview

import (
	"cmp"
	"math"
	"slices"

	"wakefield.example/core/check"
	"wakefield.example/core/doubt"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
)

// Line is a site's adopted plan in one line.
type Line struct {
	KeptDays        *float64     `json:"keptDays" required:"true" doc:"Days that the channel nearest to what it must keep is kept; null where nothing takes footage away"`
	RequiredDays    *float64     `json:"requiredDays" required:"true" doc:"Days that it must keep; null where nothing is required"`
	LikelyDays      *doubt.Range `json:"likelyDays,omitempty"`
	Worst           *Worst       `json:"worst,omitempty" doc:"That channel; absent where none is"`
	Short           bool         `json:"short" doc:"Whether that channel typically keeps less than required"`
	ShortChannels   int          `json:"shortChannels" doc:"Channels that typically keep less than required"`
	Channels        int          `json:"channels" doc:"With a camera"`
	Recorders       int          `json:"recorders"`
	GigabytesPerDay float64      `json:"gigabytesPerDay"`
	UsableGB        float64      `json:"usableGB" doc:"Of all pools"`
	Errors          int          `json:"errors" doc:"Findings that nobody accepted"`
	Warnings        int          `json:"warnings"`
	Hints           int          `json:"hints"`
	Trouble         float64      `json:"trouble" doc:"How much trouble the plan is in, to order sites by: the share of the days that is missing first, then errors, then warnings"`
}

// Worst is the channel nearest to what it must keep, or furthest below.
type Worst struct {
	ID     string `json:"id"`
	Number int    `json:"number"`
	Name   string `json:"name"`
}

// Found is how many findings of a rule a plan has.
type Found struct {
	Rule     string         `json:"rule"`
	Severity check.Severity `json:"severity" enum:"error,warning,hint"`
	Open     int            `json:"open" doc:"That nobody accepted"`
	Accepted map[string]int `json:"accepted,omitempty" doc:"By who accepted them"`
}

// Nobody is who accepted a finding where the plan does not say it.
const Nobody = "not said"

// Of is a plan in one line, with its estimate and its findings.
func Of(p *plan.Plan, r *estimate.Result, found []check.Finding) Line {
	v, n := &r.Verdict, check.Count(found)
	l := Line{KeptDays: v.KeptDays, RequiredDays: v.RequiredDays, LikelyDays: v.LikelyDays, Short: v.Short, ShortChannels: v.ShortChannels,
		Recorders: len(p.Recorders), GigabytesPerDay: v.GigabytesPerDay, UsableGB: v.UsableGB,
		Errors: n[check.Error], Warnings: n[check.Warning], Hints: n[check.Hint], Trouble: check.Trouble(r, n)}
	if c := p.Channel(v.Channel); c != nil {
		l.Worst = &Worst{c.ID, c.Number, c.Name}
	}
	for i := range p.Channels {
		if !p.Channels[i].NoCamera {
			l.Channels++
		}
	}
	return l
}

// FoundOf are findings by rule, most severe first.
func FoundOf(found []check.Finding) []Found {
	out := []Found{}
	for i := range found {
		f := &found[i]
		k := slices.IndexFunc(out, func(o Found) bool { return o.Rule == f.Rule && o.Severity == f.Severity })
		if k < 0 {
			k = len(out)
			out = append(out, Found{Rule: f.Rule, Severity: f.Severity})
		}
		if f.Accepted == nil {
			out[k].Open++
			continue
		}
		if out[k].Accepted == nil {
			out[k].Accepted = make(map[string]int)
		}
		out[k].Accepted[cmp.Or(f.Accepted.By, Nobody)]++
	}
	return out
}

// MovedDays is by how much a plan's days have to differ to be said to have moved.
const MovedDays = 1

// Moved tells whether a plan's days, the days of its worst channel or whether it is short, are others by more than a day. That nothing
// takes footage away any more, or does now, is a move too.
func Moved(was, now *Line) bool {
	if was.Short != now.Short || (was.KeptDays == nil) != (now.KeptDays == nil) {
		return true
	}
	return was.KeptDays != nil && math.Abs(*was.KeptDays-*now.KeptDays) > MovedDays
}
