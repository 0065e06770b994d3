// Package year follows footage date by date: what a site writes and keeps over a year with its special days, busier or quieter
// seasons and the nights on which clocks change, and what was written from one moment to another.
package year

import (
	"context"
	"errors"
	"math"
	"slices"
	"sync/atomic"
	"time"

	"wakefield.example/core/effect"
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

	earlier  *pass // before a change
	followed atomic.Pointer[pass]
}

// pass is a year that was followed, for the one after the next change.
type pass struct {
	dates   *dates
	written *profiles
	pools   map[string]filled
}

// After lets a site take what it can from the same site before a change, which may be nil: what those channels write on
// special days that write and hear of the same as they did, and pools on which all of that is as it was.
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
	if e := s.earlier; e != nil && e.dates.like(calendar) {
		calendar = e.dates
	} else {
		calendar.layOut()
	}
	written := newProfiles(s, calendar)
	done := &pass{dates: calendar, written: written, pools: make(map[string]filled)}
	least := math.Inf(1)
	at := 0
	for i := range p.Recorders {
		for j := range p.Recorders[i].Pools {
			if ctx.Err() != nil {
				return nil, ctx.Err()
			}
			id := p.Recorders[i].Pools[j].ID
			done.pools[id] = s.yearOf(id, s.Pools[at].Usable, calendar, written)
			pool := done.pools[id].year
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
	s.followed.Store(done)
	return out, nil
}

// lookBackDays is how long before the year pools begin to fill: what the slowest needs,
// and half as much again; in steps, so that a small change of that makes no other calendar.
func (s *Site) lookBackDays() int {
	const step = 32
	longest := 14.0
	for _, p := range s.Pools {
		if p.Days.Bounded() {
			longest = max(longest, float64(p.Days))
		}
	}
	return int(min(math.Ceil((longest*1.5+7)/step)*step, longestLookBack))
}

// filled is a pool over a year, with what it was found from: it is the same as long as all of that is the very same.
type filled struct {
	usable storage.Bytes
	from   []share
	year   PoolYear
}

// share is what a channel writes to a pool on days of a kind, and how long that may stay.
type share struct {
	limits
	hourly *[storage.HoursOfWeek]storage.Bytes
	stills *effect.Stills
}

// limits are those of a channel.
type limits struct {
	age   storage.Days
	quota storage.Bytes
	alone string // the channel, where it has a quota
}

// yearOf follows one pool.
func (s *Site) yearOf(id string, usable storage.Bytes, d *dates, written *profiles) filled {
	out := filled{usable: usable}
	for i := range s.Site.Plan.Channels {
		c := &s.Site.Plan.Channels[i]
		if c.Pool != id || c.NoCamera {
			continue
		}
		key := limits{age: storage.Days(c.Keep.AtMostDays), quota: storage.Bytes(c.Keep.QuotaGB) * storage.GB}
		if key.quota > 0 {
			key.alone = c.ID
		}
		for _, kind := range d.different {
			out.from = append(out.from, share{key, written.of(i, kind), s.Stills[i]})
		}
	}
	if e := s.earlier; e != nil && e.dates == d {
		if before, ok := e.pools[id]; ok && before.usable == usable && slices.Equal(before.from, out.from) {
			return before
		}
	}
	out.follow(id, d)
	return out
}

// follow finds the year of what a pool is filled from: for each channel in turn, what it writes on days of each kind.
func (f *filled) follow(id string, d *dates) {
	// Channels that share their limits are added up by the hour of the week, before these
	// are laid out over the dates.
	weekly := make(map[limits]map[special]*[storage.HoursOfWeek]storage.Bytes)
	var order []limits
	for n, from := range f.from {
		kind := d.different[n%len(d.different)]
		if weekly[from.limits] == nil {
			weekly[from.limits] = make(map[special]*[storage.HoursOfWeek]storage.Bytes, len(d.different))
			for _, kind := range d.different {
				weekly[from.limits][kind] = new([storage.HoursOfWeek]storage.Bytes)
			}
			order = append(order, from.limits)
		}
		sum := weekly[from.limits][kind]
		for h, b := range from.hourly {
			sum[h] += b
		}
		if from.stills != nil {
			factor := 1.0
			if kind.factor != 0 {
				factor = max(kind.factor, 0)
			}
			for h := range sum {
				sum[h] += from.stills.Times(h, factor)
			}
		}
	}
	all := make([]storage.Series, 0, len(order))
	for _, key := range order {
		all = append(all, storage.Series{AtMost: key.age, Quota: key.quota, Hourly: d.lay(weekly[key])})
	}
	f.year = PoolYear{ID: id, Days: []float64{}}
	f.year.fill(d, storage.Follow(f.usable, all))
	f.year.FullAfterDays = d.filling(f.usable, all)
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
	// Of dates that come to the same it is the first: what is added up in another order differs in its last digits.
	const same = 1e-9
	least := 0
	for i := range kept {
		if kept[i] < kept[least]*(1-same) {
			least = i
		}
	}
	y.WorstDays = &kept[least]
	date, name := d.dateOf(d.back+least, kept[least])
	y.WorstDate, y.Name = &date, name
}
