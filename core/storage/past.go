package storage

import "math"

// past answers how much was written in the time before a full hour of the week.
type past struct {
	until  [HoursOfWeek + 1]Bytes // written since Monday 00:00
	weekly Bytes
}

func newPast(hourly *[HoursOfWeek]Bytes) past {
	var p past
	for i, b := range hourly {
		p.until[i+1] = p.until[i] + b
	}
	p.weekly = p.until[HoursOfWeek]
	return p
}

// back is what was written in the last h days before hour now.
func (p *past) back(now int, h Days) Bytes {
	if p.weekly == 0 {
		return 0
	}
	return p.until[now] - p.since(float64(now)-float64(h)*24)
}

// since is what was written from Monday 00:00 of this week to an hour, negative for
// earlier weeks.
func (p *past) since(hour float64) Bytes {
	weeks := math.Floor(hour / HoursOfWeek)
	// Of hours beyond counting the rest is rounding, which may lie outside the week.
	hour = min(max(hour-weeks*HoursOfWeek, 0), HoursOfWeek)
	i := min(int(hour), HoursOfWeek-1)
	part := Bytes(hour - float64(i))
	return Bytes(weeks)*p.weekly + p.until[i] + part*(p.until[i+1]-p.until[i])
}

// shortest is the least time in which the load writes b, over all full hours.
func (p *past) shortest(b Bytes) Days {
	if p.weekly <= 0 {
		return Forever
	}
	weeks := math.Floor(float64(b / p.weekly))
	rest := b - Bytes(weeks)*p.weekly
	worst := Forever
	for now := range HoursOfWeek {
		left, hour := rest, now
		for left > 0 {
			hour = (hour + HoursOfWeek - 1) % HoursOfWeek
			written := p.until[hour+1] - p.until[hour]
			hours := float64((now - hour + HoursOfWeek) % HoursOfWeek)
			if hours == 0 {
				hours = HoursOfWeek
			}
			if written >= left {
				worst = min(worst, Days(weeks*7+(hours-1+float64(left/written))/24))
				break
			}
			left -= written
			if hours == HoursOfWeek {
				worst = min(worst, Days(weeks*7+7))
				break
			}
		}
		if rest <= 0 {
			worst = min(worst, Days(weeks*7))
		}
	}
	return worst
}
