package estimate

import (
	"context"
	"math"
	"slices"

	"wakefield.example/core/plan"
	"wakefield.example/core/resolve"
	"wakefield.example/core/storage"
	"wakefield.example/core/week"
)

// Array translates a pool of the plan.
func Array(p *plan.Pool) storage.Array {
	a := storage.Array{Layout: storage.Layout(p.Layout), HotSpares: p.HotSpares, Reserve: p.ReservePercent / 100}
	for _, g := range p.Drives {
		for range g.Count {
			a.Drives = append(a.Drives, storage.Bytes(g.Terabytes)*storage.TB)
		}
	}
	return a
}

// fillPools fills every pool with its channels.
func (s *Result) fillPools(ctx context.Context, p *plan.Plan) error {
	members := make(map[string][]int)
	for i, c := range p.Channels {
		members[c.Pool] = append(members[c.Pool], i)
	}
	s.Pools = []Pool{}
	for i := range p.Recorders {
		for j := range p.Recorders[i].Pools {
			pool := &p.Recorders[i].Pools[j]
			s.Pools = append(s.Pools, s.fillPool(p, pool, members[pool.ID]))
		}
		if ctx.Err() != nil {
			return ctx.Err()
		}
	}
	return nil
}

func (s *Result) fillPool(p *plan.Plan, pool *plan.Pool, members []int) Pool {
	a := Array(pool)
	usable := a.Usable()
	loads := make([]storage.Load, len(members))
	rates := make([]storage.Rate, len(members))
	daily := storage.Bytes(0)
	for k, i := range members {
		loads[k] = s.load(&p.Channels[i], i)
		day := loads[k].Daily()
		rates[k] = storage.Rate{Daily: day, Limit: storage.Limit(day, loads[k].AtMost, loads[k].Quota)}
		daily += day
	}
	limits := make([]storage.Days, len(members))
	for k := range rates {
		limits[k] = rates[k].Limit
	}
	typical := storage.Typical(usable, rates)
	worst, each := storage.Worst(usable, loads)
	quotas := 0
	for k := range loads {
		if loads[k].Quota > 0 {
			quotas++
		}
	}
	if worst < fineDays && quotas <= mostFine {
		worst = s.worstMinute(p, members, usable)
	}
	for k, i := range members {
		if q := loads[k].Quota; q > 0 && each[k] < fineDays && quotas <= mostFine {
			each[k] = min(each[k], s.worstMinute(p, []int{i}, q))
		}
		each[k] = min(each[k], worst)
	}
	for k, i := range members {
		s.Channels[i].RetentionDays = days(min(typical, limits[k]))
		s.Channels[i].WorstDays = days(each[k])
	}
	// What a limit of its own keeps a channel from is not for want of room.
	required := storage.Days(0)
	for k, i := range members {
		if r := storage.Days(p.Channels[i].Keep.AtLeastDays); r <= limits[k] {
			required = max(required, r)
		}
	}
	return Pool{
		ID:              pool.ID,
		BoughtGB:        float64(a.Bought() / storage.GB),
		UsableGB:        float64(usable / storage.GB),
		SpareGB:         float64(a.Spare() / storage.GB),
		RedundantGB:     float64((a.Bought() - a.Spare() - a.Whole()) / storage.GB),
		ReserveGB:       float64((a.Whole() - usable) / storage.GB),
		GigabytesPerDay: float64(daily / storage.GB),
		ShortGB:         max(0, float64((storage.Held(required, rates)-usable)/storage.GB)),
		RetentionDays:   days(typical),
		WorstDays:       days(worst),
		YearlyTB:        float64(daily/storage.TB) * 365.25,
	}
}

// fineDays is how long a pool may hold at most for parts of an hour to matter: of more they
// are less than a percent.
const fineDays = 3

// mostFine is how many quotas a pool may have to be followed by the minute: each is
// followed by itself.
const mostFine = 100

// worstMinute is the least that is kept of some channels at any minute of the week, where
// that is few days: followed minute by minute, as half an hour of much footage counts then.
func (s *Result) worstMinute(p *plan.Plan, members []int, usable storage.Bytes) storage.Days {
	var all []storage.Series
	for _, i := range members {
		keep := &p.Channels[i].Keep
		limits := storage.Series{AtMost: storage.Days(keep.AtMostDays) * 60} // what goes hour by hour there goes minute by minute here
		if len(members) > 1 {
			limits.Quota = storage.Bytes(keep.QuotaGB) * storage.GB
		}
		at := slices.IndexFunc(all, func(s storage.Series) bool { return s.AtMost == limits.AtMost && s.Quota == 0 && limits.Quota == 0 })
		if at < 0 {
			at = len(all)
			limits.Hourly = make([]storage.Bytes, 2*week.Length) // the first week fills it
			all = append(all, limits)
		}
		for _, b := range s.played[i].Week {
			each := resolve.BytesOver(b.Total(), 1)
			if st := s.effects.Stills[i]; st != nil {
				each += st.Hour(int(b.Span.From/week.Hour)) / 60
			}
			for m := b.Span.From; m < b.Span.To; m++ {
				all[at].Hourly[m] += each
				all[at].Hourly[m+week.Length] += each
			}
		}
	}
	ring := storage.Follow(usable, all)
	if ring.Full < 0 || ring.Full >= int(week.Length) {
		return storage.Forever
	}
	return slices.Min(ring.Days[week.Length:]) / 60
}

// addUpRecorders adds up what every recorder takes in and writes.
func (s *Result) addUpRecorders(p *plan.Plan) {
	s.Recorders = make([]Recorder, len(p.Recorders))
	hours := make([][storage.HoursOfWeek]storage.Bytes, len(p.Recorders))
	at := make(map[string]int)
	for i, r := range p.Recorders {
		s.Recorders[i].ID = r.ID
		at[r.ID] = i
	}
	for i, c := range p.Channels {
		k := at[c.Recorder]
		r := &s.Recorders[k]
		if c.NoCamera {
			continue
		}
		r.Channels++
		r.IntakeMbps += s.inputs[i].Full.Mbps()
		r.AverageMbps += s.Channels[i].AverageKbps / 1000
		for h, written := range s.played[i].Hourly {
			hours[k][h] += written
		}
	}
	for k := range hours {
		for _, written := range hours[k] {
			s.Recorders[k].BusiestMbps = max(s.Recorders[k].BusiestMbps, resolve.Mbps(written))
		}
	}
}

// findVerdict picks the figures of the verdict. The channel it names is the one with the least room for each day required: a channel
// that is deleted after as many days as it must be kept has the room that its pool has, see [Result.daysBesideLimit].
func (s *Result) findVerdict(p *plan.Plan) {
	v := &s.Verdict
	least := math.Inf(1)
	for i := range s.Channels {
		c := &s.Channels[i]
		v.GigabytesPerDay += c.GigabytesPerDay
		v.Evidence = v.Evidence.Plus(c.Evidence)
		if c.RequiredDays == nil {
			continue
		}
		c.Short = c.RetentionDays != nil && *c.RetentionDays < *c.RequiredDays
		if c.Short {
			v.ShortChannels++
		}
		if margin := s.daysBesideLimit(p, i) / *c.RequiredDays; v.RequiredDays == nil || margin < least {
			least = margin
			v.Channel, v.RequiredDays, v.Short = c.ID, c.RequiredDays, c.Short
			v.KeptDays, v.WorstDays, v.LikelyDays = c.RetentionDays, c.WorstDays, c.LikelyDays
		}
	}
	for i := range s.Pools {
		pool := &s.Pools[i]
		v.UsableGB += pool.UsableGB
		if v.RequiredDays == nil && pool.RetentionDays != nil && (v.KeptDays == nil || *pool.RetentionDays < *v.KeptDays) {
			v.KeptDays, v.WorstDays, v.LikelyDays = pool.RetentionDays, pool.WorstDays, pool.LikelyDays
		}
	}
	for i := range s.Channels { // where nothing is required, a quota may be what takes footage away first
		c := &s.Channels[i]
		if v.RequiredDays == nil && c.RetentionDays != nil && p.Channels[i].Keep.AtMostDays == 0 &&
			(v.KeptDays == nil || *c.RetentionDays < *v.KeptDays) {
			v.Channel, v.KeptDays, v.WorstDays, v.LikelyDays = c.ID, c.RetentionDays, c.WorstDays, c.LikelyDays
		}
	}
	for _, r := range s.Recorders {
		v.AverageMbps += r.AverageMbps
	}
}

// daysBesideLimit is for how many days channel i would be kept if its age limit did not delete it before that, as far as the limit leaves
// it the days that are required; infinite where nothing else takes its footage away.
func (s *Result) daysBesideLimit(p *plan.Plan, i int) float64 {
	c, keep := &s.Channels[i], &p.Channels[i].Keep
	if c.RetentionDays == nil {
		return math.Inf(1)
	}
	if keep.AtMostDays < keep.AtLeastDays { // so it is where it has no age limit
		return *c.RetentionDays
	}
	room := math.Inf(1)
	for k := range s.Pools {
		if pool := &s.Pools[k]; pool.ID == p.Channels[i].Pool && pool.RetentionDays != nil {
			room = *pool.RetentionDays
		}
	}
	if keep.QuotaGB > 0 && c.GigabytesPerDay > 0 {
		room = min(room, keep.QuotaGB/c.GigabytesPerDay)
	}
	return room
}
