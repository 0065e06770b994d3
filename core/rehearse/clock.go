package rehearse

import (
	"time"

	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// clock knows which minute of which day the clocks of a site show at a moment.
type clock struct {
	begin, end Ms // what is played
	length     Ms // of the days asked for
	minutes    []week.Minute
	stretches  []stretch
	midnight   time.Time // the first
	zone       *time.Location
}

// stretch is a time over which clocks run on without a jump, within one date.
type stretch struct {
	from, to Ms
	minute   week.Minute // of the week, at its beginning
	special  *plan.SpecialDay
}

func newClock(p *plan.Plan, ask Ask, zone *time.Location, lead, tail Ms) *clock {
	c := &clock{zone: zone, midnight: ask.From.At(0, zone)}
	last := ask.From.At(0, time.UTC).AddDate(0, 0, ask.Days)
	c.length = Ms(dateOf(last).At(0, zone).Sub(c.midnight).Milliseconds())
	c.begin, c.end = -lead, c.length+tail
	first := dateOf(c.at(c.begin))
	days := int(c.at(c.end).Sub(first.At(0, zone)).Hours()/24) + 3
	special := p.Site.SpecialDaysFrom(first, days)
	date, before := 0, dateOf(c.at(c.begin))
	for at := c.begin; at < c.end; at += Minute {
		local := c.at(at)
		minute := week.Minute((int(local.Weekday())+6)%7)*week.Day + week.Minute(60*local.Hour()+local.Minute())
		if now := dateOf(local); now != before {
			before = now
			date++
		}
		c.minutes = append(c.minutes, minute)
		if n := len(c.stretches); n > 0 && c.stretches[n-1].special == special[date] && c.stretches[n-1].minute+
			week.Minute((at-c.stretches[n-1].from)/Minute) == minute {
			c.stretches[n-1].to = min(at+Minute, c.end)
			continue
		}
		c.stretches = append(c.stretches, stretch{at, min(at+Minute, c.end), minute, special[date]})
	}
	return c
}

func dateOf(t time.Time) (d week.Date) {
	d.Year, d.Month, d.Day = t.Date()
	return d
}

// at is a moment on the clocks of the site.
func (c *clock) at(m Ms) time.Time {
	return c.midnight.Add(time.Duration(m) * time.Millisecond).In(c.zone)
}

// minute is which minute of the week the clocks show at a moment; before and after what is played the first and the last.
func (c *clock) minute(m Ms) week.Minute {
	k := int((m - c.begin) / Minute)
	return c.minutes[max(0, min(k, len(c.minutes)-1))]
}

// over calls f with every stretch of time over which steps of the week have one value.
func over[T comparable](c *clock, steps func(*plan.SpecialDay) week.Steps[T], f func(from, to Ms, v T, special *plan.SpecialDay)) {
	for _, s := range c.stretches {
		of := steps(s.special)
		last := s.minute + week.Minute((s.to-s.from+Minute-1)/Minute)
		for at := s.minute; at < last; {
			now := at % week.Length
			next, v := untilChange(of, now)
			from := s.from + Ms(at-s.minute)*Minute
			at += next - now
			f(from, min(s.to, s.from+Ms(at-s.minute)*Minute), v, s.special)
		}
	}
}

// untilChange is until when steps keep the value that they have at a minute of the week.
func untilChange[T comparable](s week.Steps[T], at week.Minute) (until week.Minute, v T) {
	until = week.Length
	for k := len(s) - 1; k >= 0; k-- {
		if s[k].From <= at {
			return until, s[k].Value
		}
		until = s[k].From
	}
	return until, v
}
