// Package year follows footage date by date: what a site writes and keeps over a year with its special days, busier or quieter
// seasons and the nights on which clocks change, and what was written from one moment to another.
package year

import (
	"context"
	"errors"
	"math"
	"sync/atomic"
	"time"

	"wakefield.example/core/effect"
	"wakefield.example/core/plan"
	"wakefield.example/core/resolve"
	"wakefield.example/core/storage"
	"wakefield.example/core/week"
)

// Year is how long footage is kept at every date of a year: special days, more or less
// happening on some dates, and clocks that change.
type Year struct {
	From      week.Date  `json:"from" doc:"First date of the year"`
	WorstDays *float64   `json:"worstDays" required:"true" doc:"Least days kept of the pool that comes off worst against what is required; null where nothing is overwritten"`
	WorstDate *week.Date `json:"worstDate,omitempty" doc:"When that is"`
	Name      string     `json:"name,omitempty" doc:"The special day that it is, or the last before it within what is kept"`
	Channel   string     `json:"channel,omitempty" doc:"The channel that comes off worst against its days"`
	Pools     []PoolYear `json:"pools"`
}

// PoolYear is one pool over a year.
type PoolYear struct {
	ID            string     `json:"id"`
	WorstDays     *float64   `json:"worstDays" required:"true" doc:"Least days kept; null where the pool is not full within the time looked at"`
	WorstDate     *week.Date `json:"worstDate,omitempty"`
	Name          string     `json:"name,omitempty" doc:"The special day that it is, or the last before it within what is kept"`
	FullAfterDays *float64   `json:"fullAfterDays,omitempty" doc:"Days until the pool is full for the first time, beginning empty with the year; absent where it is not within two years"`
	RequiredDays  float64    `json:"requiredDays" doc:"The most that is required of a channel kept on it; 0 for nothing"`
	Short         bool       `json:"short" doc:"Whether it keeps less than that on its worst date"`
	Days          []float64  `json:"days" doc:"Days kept at every date, at its worst hour; empty where the pool is never full"`
}

// Site is what is followed: what channels write in an ordinary week, and the pools on which that is kept.
type Site struct {
	Site   *resolve.Site
	Played []*resolve.Played
	Stills []*effect.Stills // by channel; nil where it takes none
	Pools  []Pool           // in the order of the plan

	earlier  *profiles // what was found before a change
	followed atomic.Pointer[profiles]
}

// After lets a site take what it can from the same site before a change, which may be nil: what those channels write on
// special days that write and hear of the same as they did.
func (s *Site) After(before *Site) *Site {
	if before != nil {
		s.earlier = before.followed.Load()
	}
	return s
}

// Pool is a pool in an ordinary week.
type Pool struct {
	Usable storage.Bytes
	Days   storage.Days // kept typically
}

// longestLookBack is how far back from the beginning of a year is looked, in days.
const longestLookBack = 3 * 366

// Follow follows every pool through a year that begins at a date, from long enough before
// that it is full. What a channel writes on a date is what it does on that weekday, with
// the duties and the factor of the date; an hour that clocks skip is not written, one that
// comes twice is. It fails for years before 1970 and after 2200.
func (s *Site) Follow(ctx context.Context, from week.Date) (*Year, error) {
	p := s.Site.Plan
	if from.Year < 1970 || from.Year > 2200 {
		return nil, errors.New("a year between 1970 and 2200 is wanted")
	}
	zone, err := time.LoadLocation(p.Site.TimeZone)
	if err != nil {
		return nil, err
	}
	out := &Year{From: from, Pools: []PoolYear{}}
	days := from.DaysInYear()
	back := s.lookBackDays()
	calendar := newDates(p, from, back, days, zone)
	written := newProfiles(s, calendar)
	least := math.Inf(1)
	at := 0
	for i := range p.Recorders {
		for j := range p.Recorders[i].Pools {
			if ctx.Err() != nil {
				return nil, ctx.Err()
			}
			pool := s.yearOf(&p.Recorders[i].Pools[j], s.Pools[at].Usable, calendar, written)
			at++
			for c := range p.Channels {
				ch := &p.Channels[c]
				required := ch.Keep.AtLeastDays
				if ch.Pool != pool.ID || ch.NoCamera || required <= 0 {
					continue
				}
				pool.RequiredDays = max(pool.RequiredDays, required)
				if pool.WorstDays == nil {
					continue
				}
				if margin := *pool.WorstDays / required; margin < least {
					least, out.Channel = margin, ch.ID
					out.WorstDays, out.WorstDate, out.Name = pool.WorstDays, pool.WorstDate, pool.Name
				}
			}
			pool.Short = pool.WorstDays != nil && *pool.WorstDays < pool.RequiredDays
			out.Pools = append(out.Pools, pool)
			if out.Channel == "" && pool.WorstDays != nil && (out.WorstDays == nil || *pool.WorstDays < *out.WorstDays) {
				out.WorstDays, out.WorstDate, out.Name = pool.WorstDays, pool.WorstDate, pool.Name
			}
		}
	}
	s.followed.Store(written)
	return out, nil
}

// lookBackDays is how long before the year pools begin to fill: what the slowest needs,
// and half as much again.
func (s *Site) lookBackDays() int {
	longest := 14.0
	for _, p := range s.Pools {
		if p.Days.Bounded() {
			longest = max(longest, float64(p.Days))
		}
	}
	return int(min(longest*1.5+7, longestLookBack))
}

// yearOf follows one pool.
func (s *Site) yearOf(p *plan.Pool, usable storage.Bytes, d *dates, written *profiles) PoolYear {
	out := PoolYear{ID: p.ID, Days: []float64{}}
	// Channels that share their limits are added up by the hour of the week, before these
	// are laid out over the dates.
	type limits struct {
		age   storage.Days
		quota storage.Bytes
		alone int // 1 + the channel, where it has a quota
	}
	weekly := make(map[limits]map[special]*[storage.HoursOfWeek]storage.Bytes)
	var order []limits
	for i := range s.Site.Plan.Channels {
		c := &s.Site.Plan.Channels[i]
		if c.Pool != p.ID || c.NoCamera {
			continue
		}
		key := limits{age: storage.Days(c.Keep.AtMostDays), quota: storage.Bytes(c.Keep.QuotaGB) * storage.GB}
		if key.quota > 0 {
			key.alone = 1 + i
		}
		if weekly[key] == nil {
			weekly[key] = make(map[special]*[storage.HoursOfWeek]storage.Bytes, len(written.kinds))
			for kind := range written.kinds {
				weekly[key][kind] = new([storage.HoursOfWeek]storage.Bytes)
			}
			order = append(order, key)
		}
		for kind, sum := range weekly[key] {
			for h, b := range written.of(i, kind) {
				sum[h] += b
			}
			if st := s.Stills[i]; st != nil {
				factor := 1.0
				if kind.factor != 0 {
					factor = max(kind.factor, 0)
				}
				for h := range sum {
					sum[h] += st.Times(h, factor)
				}
			}
		}
	}
	all := make([]storage.Series, 0, len(order))
	for _, key := range order {
		all = append(all, storage.Series{AtMost: key.age, Quota: key.quota, Hourly: d.lay(weekly[key])})
	}
	ring := storage.Follow(usable, all)
	out.fill(d, ring)
	out.FullAfterDays = d.filling(usable, all)
	return out
}

// fill reads the days kept at every date off a ring.
func (y *PoolYear) fill(d *dates, ring storage.LookBack) {
	if ring.Full < 0 {
		return
	}
	kept := make([]float64, d.days)
	for i := range kept {
		kept[i] = math.Inf(1)
	}
	for h, hour := range d.hours {
		if i := hour.date - d.back; i >= 0 {
			kept[i] = min(kept[i], float64(ring.Days[h]))
		}
	}
	y.Days = kept
	least := 0
	for i := range kept {
		if kept[i] < kept[least] {
			least = i
		}
	}
	y.WorstDays = &kept[least]
	date, name := d.dateOf(d.back+least, kept[least])
	y.WorstDate, y.Name = &date, name
}
