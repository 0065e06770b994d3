package activity

import (
	"errors"
	"math"
	"slices"
	"time"

	"wakefield.example/core/week"
)

// Event is one event of a log. Start is in the time zone of the site; Seconds is how
// long it lasted, negative where the log does not say.
type Event struct {
	Start   time.Time
	Seconds float64
}

// Fitted is what a log of events tells about an activity.
type Fitted struct {
	Rate        week.Steps[PerHour]
	MeanSeconds float64     // 0 where no event has a length
	Events      int         // within the time observed
	Lengths     int         // events whose length is known
	Weeks       float64     // time observed
	Pattern     Pattern     // which hours were taken to be alike
	RatePercent float64     // standard error of the number of events, of that number
	MeanPercent float64     // standard error of the mean length, of that length
	Unseen      int         // hours of the week that the log does not cover
	Group       *FoundGroup // nil where nothing tells that events come together
}

// Pattern says which hours of the week are taken to be alike.
type Pattern string

const (
	EveryHour   Pattern = "every hour of the week by itself"
	WorkAndRest Pattern = "working days alike, and the weekend, hour by hour"
	DaysAlike   Pattern = "every day alike, hour by hour"
	Constant    Pattern = "the same all week"
)

// cell numbers the hours that a pattern takes to be alike.
func (p Pattern) cell(hour int) int {
	switch p {
	case EveryHour:
		return hour
	case WorkAndRest:
		if hour < 5*24 {
			return hour % 24
		}
		return 24 + hour%24
	case DaysAlike:
		return hour % 24
	}
	return 0
}

const hours = 7 * 24

// Fit finds the rate by hour of the week and the mean length of the events of a log
// that was kept from one moment to another.
//
// Which hours are alike is chosen from four patterns by the Bayesian information
// criterion, −2 ln L + k ln n, with Poisson counts, k rates and n hours observed: a
// few weeks do not tell Tuesday 14:00 from Wednesday 14:00, and are not made to.
// Hours are those of the clocks in from's time zone, so a day on which clocks change
// has 23 or 25. The error says that there is nothing to fit.
func Fit(events []Event, from, to time.Time) (*Fitted, error) {
	if !from.Before(to) {
		return nil, errors.New("the log ends before it begins")
	}
	if to.Sub(from) > 20*366*24*time.Hour {
		return nil, errors.New("the log covers more than twenty years")
	}
	exposure := observed(from, to)
	var counts [hours]float64
	f := &Fitted{Weeks: to.Sub(from).Hours() / hours}
	var sum, squares float64
	for _, e := range events {
		if e.Start.Before(from) || !e.Start.Before(to) {
			continue
		}
		f.Events++
		counts[hourOfWeek(e.Start.In(from.Location()))]++
		if e.Seconds >= 0 {
			f.Lengths++
			sum += e.Seconds
			squares += e.Seconds * e.Seconds
		}
	}
	if f.Events == 0 {
		return nil, errors.New("no event lies in the time observed")
	}
	f.RatePercent = 100 / math.Sqrt(float64(f.Events))
	if f.Lengths > 0 {
		n := float64(f.Lengths)
		f.MeanSeconds = sum / n
		variance := max(0, squares/n-f.MeanSeconds*f.MeanSeconds)
		f.MeanPercent = 100 * math.Sqrt(variance/n) / max(f.MeanSeconds, 1e-9)
	}
	best := math.Inf(1)
	for _, p := range []Pattern{Constant, DaysAlike, WorkAndRest, EveryHour} {
		if score := p.score(&counts, &exposure); score < best {
			best, f.Pattern = score, p
		}
	}
	f.Rate = f.rates(&counts, &exposure)
	f.Group = f.group(events, from, to, f.quarters(events, from, to, &counts, &exposure))
	return f, nil
}

// mostForGroups is how many events are enough to find groups in.
const mostForGroups = 20_000

// mostTogether is how many events may begin within the longest lag that is looked at.
const mostTogether = 300

// group finds whether the events come together, beyond what rates by the hour, or by the quarter where there are such, tell.
func (f *Fitted) group(events []Event, from, to time.Time, quarters func(time.Time) float64) *FoundGroup {
	var starts []float64
	for _, e := range events {
		if !e.Start.Before(from) && e.Start.Before(to) {
			starts = append(starts, e.Start.Sub(from).Seconds())
		}
	}
	slices.Sort(starts)
	starts = starts[:min(len(starts), mostForGroups)]
	if span := starts[len(starts)-1] - starts[0]; float64(len(starts))*lags[len(lags)-1] > mostTogether*span {
		return nil // so many at once that no group can be told from the next
	}
	return fitGroup(starts, func(second float64) float64 {
		if quarters != nil {
			return quarters(from.Add(time.Duration(second*float64(time.Second)))) / 3600
		}
		return f.Rate.At(week.Minute(hourOfWeek(from.Add(time.Duration(second*float64(time.Second)))))*week.Hour) / 3600
	})
}

func hourOfWeek(t time.Time) int { return (int(t.Weekday())+6)%7*24 + t.Hour() }

// observed is how many hours of each hour of the week lie between two moments.
func observed(from, to time.Time) (exposure [hours]float64) {
	for t := from; t.Before(to); {
		next := t.Truncate(time.Hour).Add(time.Hour)
		// Zones that are off by half an hour change the hour in the middle of it.
		if offset := time.Duration(t.Minute())*time.Minute + time.Duration(t.Second())*time.Second + time.Duration(t.Nanosecond()); offset > 0 ||
			!t.Add(time.Hour).Equal(next) {
			next = t.Add(time.Hour - offset)
		}
		if next.After(to) {
			next = to
		}
		exposure[hourOfWeek(t)] += next.Sub(t).Hours()
		t = next
	}
	return exposure
}

// sums adds counts and hours up by cell.
func (p Pattern) sums(counts, exposure *[hours]float64) (n, t [hours]float64) {
	for h := range hours {
		n[p.cell(h)] += counts[h]
		t[p.cell(h)] += exposure[h]
	}
	return n, t
}

// score is the information criterion: less is better.
func (p Pattern) score(counts, exposure *[hours]float64) float64 {
	n, t := p.sums(counts, exposure)
	k, total, likelihood := 0.0, 0.0, 0.0
	for c := range n {
		if t[c] > 0 {
			k++
			total += t[c]
			if n[c] > 0 {
				likelihood += n[c] * math.Log(n[c]/t[c])
			}
		}
	}
	return -2*likelihood + k*math.Log(max(total, 2))
}

// rates are the events an hour of each hour of the week. An hour that was never
// observed has the rate of the same hour on other days, or of all.
func (f *Fitted) rates(counts, exposure *[hours]float64) week.Steps[PerHour] {
	rate := func(p Pattern, hour int) (float64, bool) {
		n, t := p.sums(counts, exposure)
		c := p.cell(hour)
		return n[c] / t[c], t[c] > 0
	}
	steps := week.Constant(0.0)
	for h := range hours {
		if exposure[h] == 0 {
			f.Unseen++
		}
		for _, p := range []Pattern{f.Pattern, DaysAlike, Constant} {
			if perHour, ok := rate(p, h); ok {
				steps = steps.Paint(week.Span{From: week.Minute(h) * week.Hour, To: week.Minute(h+1) * week.Hour}, perHour)
				break
			}
		}
	}
	return steps
}
