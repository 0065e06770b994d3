package estimate

import (
	"cmp"
	"math"
	"slices"

	"wakefield.example/core/doubt"
	"wakefield.example/core/storage"
)

// IfGrouped is what is kept if the events of a guessed activity, of which it is not said
// whether they come in groups, come GroupedSize at a time within GroupedSeconds.
type IfGrouped struct {
	Activity string
	Days     float64 // that the channel of the verdict is kept then
	More     float64 // than it is kept if each event comes by itself; mostly above 0
}

// Groups that [Result.Grouped] tries.
const (
	GroupedSize    = 1 + doubt.UnknownSize
	GroupedSeconds = doubt.UnknownSeconds
)

// Grouped tries every activity of which it is not known whether its events come in groups,
// and tells what changes the days of the verdict, most first. It needs the draws, and is
// empty where the verdict has no days.
func (s *Result) Grouped() []IfGrouped {
	if s.Verdict.KeptDays == nil {
		return nil
	}
	at := slices.IndexFunc(s.Channels, func(c Channel) bool { return c.ID == s.Verdict.Channel })
	pool := ""
	if at >= 0 {
		pool = s.plan.Channels[at].Pool
	} else {
		least := math.Inf(1)
		for _, p := range s.Pools {
			if p.RetentionDays != nil && *p.RetentionDays < least {
				least, pool = *p.RetentionDays, p.ID
			}
		}
	}
	tried := make(map[string]bool)
	var out []IfGrouped
	for i := range s.doubts {
		for _, g := range s.doubts[i].Grouped {
			if s.plan.Channels[i].Pool != pool || tried[g.Activity] {
				continue
			}
			tried[g.Activity] = true
			if days, ok := s.daysIf(g.Activity, pool, at); ok && days != *s.Verdict.KeptDays {
				out = append(out, IfGrouped{g.Activity, days, days - *s.Verdict.KeptDays})
			}
		}
	}
	slices.SortStableFunc(out, func(a, b IfGrouped) int { return cmp.Compare(math.Abs(b.More), math.Abs(a.More)) })
	return out
}

// daysIf is how long a channel, or the pool where it is below 0, is kept if the events of
// an activity come in groups.
func (s *Result) daysIf(activity, pool string, channel int) (float64, bool) {
	var rates []storage.Rate
	limit := storage.Forever
	for i := range s.plan.Channels {
		c := &s.plan.Channels[i]
		if c.Pool != pool {
			continue
		}
		kbps := s.Channels[i].AverageKbps
		for _, g := range s.doubts[i].Grouped {
			if g.Activity == activity {
				kbps += g.Kbps
			}
		}
		day := storage.Bytes(kbps*1000/8*86400) + s.stillBytes(i)
		rate := storage.Rate{Daily: day, Limit: storage.Limit(day, storage.Days(c.Keep.AtMostDays), storage.Bytes(c.Keep.QuotaGB)*storage.GB)}
		if i == channel {
			limit = rate.Limit
		}
		rates = append(rates, rate)
	}
	usable := 0.0
	for _, p := range s.Pools {
		if p.ID == pool {
			usable = p.UsableGB
		}
	}
	days := min(storage.Typical(storage.Bytes(usable)*storage.GB, rates), limit)
	return float64(days), days.Bounded()
}
