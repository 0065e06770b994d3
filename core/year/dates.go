package year

import (
	"reflect"
	"slices"
	"time"

	"wakefield.example/core/plan"
	"wakefield.example/core/storage"
	"wakefield.example/core/week"
)

// special is how a day differs from an ordinary one. The zero special does not.
type special struct {
	week   string
	useDay int // 1 + the weekday; 0 for its own
	asDay  int // the same of what happens
	factor float64
}

// dates are the dates that a year is followed over, and the hours there are in them.
type dates struct {
	from    week.Date // the first
	back    int       // days before the year
	days    int       // of the year
	zone    *time.Location
	stated  []plan.SpecialDay // as the plan has them
	special []*plan.SpecialDay

	kinds     []special // of each date
	different []special // of these each once
	hours     []hourOf
}

// hourOf is an hour of clocks: which date it belongs to, and which hour of a week it is
// like.
type hourOf struct {
	date int
	hour int // of the week
}

// newDates are so many days from a date and so many before it, which are not laid out yet.
func newDates(p *plan.Plan, from week.Date, back, days int, zone *time.Location) *dates {
	begin := from.At(0, time.UTC).AddDate(0, 0, -back)
	d := &dates{back: back, days: days, zone: zone, stated: p.Site.SpecialDays}
	d.from.Year, d.from.Month, d.from.Day = begin.Date()
	return d
}

// like tells whether other dates are laid out as these are.
func (d *dates) like(other *dates) bool {
	return d.from == other.from && d.back == other.back && d.days == other.days && d.zone.String() == other.zone.String() &&
		reflect.DeepEqual(d.stated, other.stated)
}

// layOut finds what every date and every hour is like.
func (d *dates) layOut() {
	back, days, zone := d.back, d.days, d.zone
	d.special = (&plan.Site{SpecialDays: d.stated}).SpecialDaysFrom(d.from, back+days)
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
	for _, kind := range d.kinds {
		if !slices.Contains(d.different, kind) {
			d.different = append(d.different, kind)
		}
	}
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
