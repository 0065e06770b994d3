package estimate

import (
	"context"
	"errors"
	"math"
	"time"

	"wakefield/core/footage"
	"wakefield/core/plan"
	"wakefield/core/resolve"
	"wakefield/core/storage"
	"wakefield/core/week"
)

// Year is how long footage is kept at every date of a year: special days, more or less
// happening on some dates, and clocks that change.
type Year struct {
	From      week.Date  `json:"from" doc:"First date of the year"`
	Days      *float64   `json:"worstDays" required:"true" doc:"Least days kept of the pool that comes off worst against what is required; null where nothing is overwritten"`
	WorstDate *week.Date `json:"worstDate,omitempty" doc:"When that is"`
	Name      string     `json:"name,omitempty" doc:"The special day that it is, or the last before it within what is kept"`
	Channel   string     `json:"channel,omitempty" doc:"The channel that comes off worst against its days"`
	Pools     []YearPool `json:"pools"`
}

// YearPool is one pool over a year.
type YearPool struct {
	ID        string     `json:"id"`
	Days      *float64   `json:"worstDays" required:"true" doc:"Least days kept; null where the pool is not full within the time looked at"`
	WorstDate *week.Date `json:"worstDate,omitempty"`
	Name      string     `json:"name,omitempty" doc:"The special day that it is, or the last before it within what is kept"`
	FullAfter *float64   `json:"fullAfterDays,omitempty" doc:"Days until the pool is full for the first time, beginning empty with the year; absent where it is not within two years"`
	Required  float64    `json:"requiredDays" doc:"The most that is required of a channel kept on it; 0 for nothing"`
	Short     bool       `json:"short" doc:"Whether it keeps less than that on its worst date"`
	Kept      []float64  `json:"days" doc:"Days kept at every date, at its worst hour; empty where the pool is never full"`
}

// longestLookBack is how far back from the beginning of a year is looked, in days.
const longestLookBack = 3 * 366

// special is how a day differs from an ordinary one. The zero special does not.
type special struct {
	week   string
	useDay int // 1 + the weekday; 0 for its own
	asDay  int // the same of what happens
	factor float64
}

// Year follows every pool through a year that begins at a date, from long enough before
// that it is full. What a channel writes on a date is what it does on that weekday, with
// the duties and the factor of the date; an hour that clocks skip is not written, one that
// comes twice is. It fails for years before 1970 and after 2200.
func (s *Result) Year(ctx context.Context, from week.Date) (*Year, error) {
	if from.Year < 1970 || from.Year > 2200 {
		return nil, errors.New("a year between 1970 and 2200 is wanted")
	}
	zone, err := time.LoadLocation(s.plan.Site.TimeZone)
	if err != nil {
		return nil, err
	}
	out := &Year{From: from, Pools: []YearPool{}}
	days := from.DaysInYear()
	back := s.lookBackDays()
	calendar := newDates(s.plan, from, back, days, zone)
	written := newProfiles(s, calendar)
	least := math.Inf(1)
	at := 0
	for i := range s.plan.Recorders {
		for j := range s.plan.Recorders[i].Pools {
			if ctx.Err() != nil {
				return nil, ctx.Err()
			}
			pool := s.yearOf(&s.plan.Recorders[i].Pools[j], &s.Pools[at], calendar, written)
			at++
			for c := range s.plan.Channels {
				ch := &s.plan.Channels[c]
				if ch.Pool != pool.ID || ch.NoCamera || s.Channels[c].Required == nil {
					continue
				}
				pool.Required = max(pool.Required, *s.Channels[c].Required)
				if pool.Days == nil {
					continue
				}
				if margin := *pool.Days / *s.Channels[c].Required; margin < least {
					least, out.Channel = margin, ch.ID
					out.Days, out.WorstDate, out.Name = pool.Days, pool.WorstDate, pool.Name
				}
			}
			pool.Short = pool.Days != nil && *pool.Days < pool.Required
			out.Pools = append(out.Pools, pool)
			if out.Channel == "" && pool.Days != nil && (out.Days == nil || *pool.Days < *out.Days) {
				out.Days, out.WorstDate, out.Name = pool.Days, pool.WorstDate, pool.Name
			}
		}
	}
	return out, nil
}

// SpecialYear is the year in which the first special day lies, nil where there is none.
// It is found once.
func (s *Result) SpecialYear() *Year {
	s.special.Do(func() {
		if list := s.plan.Site.SpecialDays; len(list) > 0 {
			// The years that special days may lie in can all be followed.
			s.year, _ = s.Year(context.Background(), week.Date{Year: list[0].From.Year, Month: time.January, Day: 1})
		}
	})
	return s.year
}

// lookBackDays is how long before the year pools begin to fill: what the slowest needs,
// and half as much again.
func (s *Result) lookBackDays() int {
	longest := 14.0
	for _, p := range s.Pools {
		if p.RetentionDays != nil {
			longest = max(longest, *p.RetentionDays)
		}
	}
	return int(min(longest*1.5+7, longestLookBack))
}

// dates are the dates that a year is followed over, and the hours there are in them.
type dates struct {
	from    week.Date // the first
	back    int       // days before the year
	days    int       // of the year
	special []*plan.SpecialDay
	kinds   []special // of each date
	hours   []hourOf
}

// hourOf is an hour of clocks: which date it belongs to, and which hour of a week it is
// like.
type hourOf struct {
	date int
	hour int // of the week
}

func newDates(p *plan.Plan, from week.Date, back, days int, zone *time.Location) *dates {
	begin := from.At(0, time.UTC).AddDate(0, 0, -back)
	d := &dates{back: back, days: days}
	d.from.Year, d.from.Month, d.from.Day = begin.Date()
	d.special = p.Site.SpecialDaysFrom(d.from, back+days)
	d.kinds = make([]special, back+days)
	for i, s := range d.special {
		if s == nil {
			continue
		}
		d.kinds[i] = special{week: s.Week}
		if s.UseDay != nil {
			d.kinds[i].useDay = 1 + int(*s.UseDay)
		}
		if s.ActivityDay != nil {
			d.kinds[i].asDay = 1 + int(*s.ActivityDay)
		}
		if s.RateFactor != nil && *s.RateFactor != 1 {
			d.kinds[i].factor = *s.RateFactor
			if *s.RateFactor == 0 {
				d.kinds[i].factor = -1 // nothing happens; 0 is an ordinary day
			}
		}
	}
	first := d.from.At(0, zone)
	last := d.from.Add(back+days).At(0, zone)
	weekday := int(d.from.Weekday())
	date, day := 0, first.Day()
	for t := first; t.Before(last); t = t.Add(time.Hour) {
		local := t.In(zone)
		if local.Day() != day {
			date, day = date+1, local.Day()
		}
		d.hours = append(d.hours, hourOf{min(date, back+days-1), (weekday+date)%7*24 + local.Hour()})
	}
	return d
}

// dateOf is the date of an index, and the special day that is felt then: its own, or the
// last within some days before.
func (d *dates) dateOf(i int, felt float64) (week.Date, string) {
	var date week.Date
	date.Year, date.Month, date.Day = d.from.At(0, time.UTC).AddDate(0, 0, i).Date()
	for k := i; k >= 0 && float64(i-k) <= felt; k-- {
		if s := d.special[k]; s != nil {
			return date, s.Name
		}
	}
	return date, ""
}

// profiles are what channels write in each hour of a week on special days of a kind.
type profiles struct {
	site  *Result
	kinds map[special]bool
	made  map[profileOf]*[storage.HoursOfWeek]storage.Bytes
	play  map[playOf][]footage.Shares

	inputs []resolve.Input
	played []*resolve.Played
	events bool // whether only what events make them write

	likeDay map[week.Weekday][]resolve.Input // channels to which every day happens what happens on one
}

// on are the channels with what happens on one day of the week on all of them.
func (p *profiles) on(day week.Weekday) []resolve.Input {
	if p.likeDay[day] == nil {
		like := *p.site.plan
		like.Activities = make([]plan.Activity, len(like.Activities))
		for i, a := range p.site.plan.Activities {
			like.Activities[i] = a.As(day)
		}
		p.likeDay[day] = resolve.Of(&like, nil).Inputs
	}
	return p.likeDay[day]
}

type profileOf struct {
	channel int
	kind    special
}

// playOf tells plays apart that channels which see the same may share.
type playOf struct {
	seen  *footage.Shares
	kind  special
	shape string
}

func newProfiles(s *Result, d *dates) *profiles {
	p := &profiles{site: s, kinds: make(map[special]bool), made: make(map[profileOf]*[storage.HoursOfWeek]storage.Bytes), play: make(map[playOf][]footage.Shares), likeDay: make(map[week.Weekday][]resolve.Input), inputs: s.inputs, played: s.played}
	for _, kind := range d.kinds {
		p.kinds[kind] = true
	}
	return p
}

// of is what a channel writes in each hour of a week whose days are all of a kind.
func (p *profiles) of(channel int, kind special) *[storage.HoursOfWeek]storage.Bytes {
	if kind == (special{}) {
		return &p.played[channel].Hourly
	}
	key := profileOf{channel, kind}
	if got := p.made[key]; got != nil {
		return got
	}
	in := p.inputs[channel]
	if in.Empty {
		return &p.played[channel].Hourly
	}
	c := &p.site.plan.Channels[channel]
	duties := in.Duties
	switch {
	case kind.week != "":
		duties = p.site.site.Weeks[kind.week]
	case kind.useDay > 0:
		duties = week.Repeated(in.Duties, week.Weekday(kind.useDay-1))
	}
	in.Regimes = p.site.site.Regimes(c, duties)
	if p.events {
		in.Regimes = eventsOnly(in.Regimes)
	}
	if kind.asDay > 0 {
		in.Scene = p.on(week.Weekday(kind.asDay - 1))[channel].Scene
	}
	if kind.factor != 0 {
		in.Scene = in.Scene.Times(max(kind.factor, 0))
	}
	share := playOf{&p.played[channel].Shares[0], kind, shapeOf(&in)}
	shares, ok := p.play[share]
	if !ok {
		shares = footage.Play(in.Scene, in.Regimes)
		p.play[share] = shares
	}
	made := resolve.NewPlayed(&in, shares)
	p.made[key] = &made.Hourly
	return &made.Hourly
}

// shapeOf is the same for regimes under which time divides in the same way.
func shapeOf(in *resolve.Input) string {
	shape := make([]byte, 0, 4*len(in.Regimes))
	for _, r := range in.Regimes {
		bits := byte(r.Value.Admit)
		for i, yes := range []bool{r.Value.HasBase, r.Value.Whole, in.Scene.Moves(r.Value)} {
			if yes {
				bits |= 16 << i
			}
		}
		shape = append(shape, byte(r.From), byte(r.From>>8), bits)
	}
	return string(shape)
}

// yearOf follows one pool.
func (s *Result) yearOf(p *plan.Pool, figures *Pool, d *dates, written *profiles) YearPool {
	out := YearPool{ID: p.ID, Kept: []float64{}}
	usable := storage.Bytes(figures.UsableGB) * storage.GB
	// Channels that share their limits are added up by the hour of the week, before these
	// are laid out over the dates.
	type limits struct {
		age   storage.Days
		quota storage.Bytes
		alone int // 1 + the channel, where it has a quota
	}
	weekly := make(map[limits]map[special]*[storage.HoursOfWeek]storage.Bytes)
	var order []limits
	for i := range s.plan.Channels {
		c := &s.plan.Channels[i]
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
			if st := s.effects.Stills[i]; st != nil {
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
	out.FullAfter = d.filling(usable, all)
	return out
}

// lay lays hours of the week out over the dates, each date being of a kind.
func (d *dates) lay(byKind map[special]*[storage.HoursOfWeek]storage.Bytes) []storage.Bytes {
	out := make([]storage.Bytes, len(d.hours))
	date, profile := -1, (*[storage.HoursOfWeek]storage.Bytes)(nil)
	for h, hour := range d.hours {
		if hour.date != date {
			date, profile = hour.date, byKind[d.kinds[hour.date]]
		}
		out[h] = profile[hour.hour]
	}
	return out
}

// fill reads the days kept at every date off a ring.
func (y *YearPool) fill(d *dates, ring storage.LookBack) {
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
	y.Kept = kept
	least := 0
	for i := range kept {
		if kept[i] < kept[least] {
			least = i
		}
	}
	y.Days = &kept[least]
	date, name := d.dateOf(d.back+least, kept[least])
	y.WorstDate, y.Name = &date, name
}

// filling is how many days it takes to fill an empty pool from the beginning of the year.
func (d *dates) filling(usable storage.Bytes, all []storage.Series) *float64 {
	first := 0
	for first < len(d.hours) && d.hours[first].date < d.back {
		first++
	}
	from := make([]storage.Series, len(all))
	for i, s := range all {
		s.Hourly = s.Hourly[first:]
		from[i] = s
	}
	ring := storage.Follow(usable, from)
	if ring.Full < 0 {
		return nil
	}
	days := float64(ring.Full+1) / 24
	return &days
}
