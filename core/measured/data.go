package measured

import (
	"math"
	"slices"
	"time"

	"wakefield.example/core/activity"
	"wakefield.example/core/week"
)

// Data are all that was brought in of a site.
type Data struct {
	Logs     []Log     `json:"logs,omitempty"`
	Rates    []Rates   `json:"rates,omitempty"`
	Oldest   []Oldest  `json:"oldest,omitempty"`
	Settings []Setting `json:"settings,omitempty"`
}

// What a log has lines of.
const (
	Triggers   = "triggers"   // what detection reported
	Recordings = "recordings" // what was written for it, with the seconds before and after; those that overlap are joined
)

// Log is what was logged of one channel, added up by date and hour of the clocks there.
type Log struct {
	Channel  string    `json:"channel" doc:"Id"`
	Kind     string    `json:"kind" enum:"triggers,recordings"`
	From     week.Date `json:"from" doc:"First date"`
	Days     int       `json:"days"`
	Counts   []int     `json:"counts" doc:"How many began in each hour, from the first midnight on, 24 a date"`
	Lengths  int       `json:"lengths,omitempty" doc:"Of how many the length is known"`
	Seconds  float64   `json:"seconds,omitempty" doc:"Their lengths added up"`
	Squares  float64   `json:"squares,omitempty" doc:"And the squares of them"`
	Shortest float64   `json:"shortest,omitempty" doc:"The shortest of them, s"`
	Overlaps int       `json:"overlaps,omitempty" doc:"How many began before the one before had ended"`
	Group    *Group    `json:"group,omitempty" doc:"How they come together; absent where nothing tells that they do"`
}

// Group is what a log tells of events that come together.
type Group struct {
	Size    float64 `json:"size" doc:"Mean events in a group"`
	Seconds float64 `json:"seconds" doc:"Over how long a group is spread"`
	Percent float64 `json:"percent" doc:"Standard error of the size, of it"`
}

// Rates are measured bitrates of the main stream of one channel, added up by hour of the week.
type Rates struct {
	Channel string      `json:"channel" doc:"Id"`
	From    week.Date   `json:"from"`
	To      week.Date   `json:"to"`
	Hours   []HourRates `json:"hours" doc:"Of hours of the week that there are any of, Monday 00:00 first"`
}

// HourRates are the means of one hour of the week.
type HourRates struct {
	Hour    int     `json:"hour" doc:"0 to 167"`
	N       int     `json:"n"`
	Kbps    float64 `json:"kbps" doc:"Added up"`
	Squares float64 `json:"squares" doc:"And the squares of them"`
}

// Oldest is the oldest footage of a channel on a date.
type Oldest struct {
	Channel string    `json:"channel" doc:"Id"`
	On      time.Time `json:"on" doc:"When it was looked"`
	Oldest  time.Time `json:"oldest"`
	Within  float64   `json:"within" doc:"How many days the two are exact to"`
}

// Setting is a setting of a channel as it stands in its recorder.
type Setting struct {
	Channel string `json:"channel" doc:"Id"`
	Column  string `json:"column" doc:"Of the channel table"`
	Text    string `json:"text" doc:"As it would be typed there"`
}

// To is the date after the last.
func (l *Log) To() week.Date { return l.From.Add(l.Days) }

// N is how many events there are.
func (l *Log) N() (n int) {
	for _, c := range l.Counts {
		n += c
	}
	return n
}

// mostForGroups is how many events are enough to find groups in; the log of a channel has 192 neighbours.
const mostForGroups = 2500

// Digest adds up the events of a channel over so many dates from the first. Events must be in the order in which they begin; those
// outside the dates are left out.
func Digest(channel, kind string, events []activity.Event, from week.Date, days int, zone *time.Location) Log {
	l := Log{Channel: channel, Kind: kind, From: from, Days: days, Counts: make([]int, 24*days)}
	first, end := from.At(0, zone), time.Time{}
	number := make(map[week.Date]int, days)
	for d := range days {
		number[from.Add(d)] = d
	}
	var kept []activity.Event
	if kind == Recordings {
		events = whole(events)
	}
	for _, e := range events {
		local := e.Start.In(zone)
		var date week.Date
		date.Year, date.Month, date.Day = local.Date()
		d, ok := number[date]
		if !ok {
			continue
		}
		kept = append(kept, e)
		l.Counts[24*d+local.Hour()]++
		if e.Start.Before(end) {
			l.Overlaps++
		}
		if e.Seconds < 0 {
			continue
		}
		if l.Lengths == 0 || e.Seconds < l.Shortest {
			l.Shortest = e.Seconds
		}
		l.Lengths++
		l.Seconds += e.Seconds
		l.Squares += e.Seconds * e.Seconds
		if stop := e.Start.Add(time.Duration(e.Seconds * float64(time.Second))); stop.After(end) {
			end = stop
		}
	}
	if kind == Triggers {
		l.Group = groupOf(kept[:min(len(kept), mostForGroups)], first, from.Add(days).At(0, zone))
	}
	return l
}

// whole are recordings of which those that go on where another ends are one: recorders cut them by the hour, by size, or where
// what holds them changes.
func whole(events []activity.Event) []activity.Event {
	var out []activity.Event
	for _, e := range events {
		if n := len(out); n > 0 && out[n-1].Seconds >= 0 && e.Seconds >= 0 {
			gap := e.Start.Sub(out[n-1].Start).Seconds() - out[n-1].Seconds
			if gap < 1 {
				out[n-1].Seconds = max(out[n-1].Seconds, out[n-1].Seconds+gap+e.Seconds)
				continue
			}
		}
		out = append(out, e)
	}
	return out
}

// groupOf finds whether events come together.
func groupOf(events []activity.Event, from, to time.Time) *Group {
	if len(events) == mostForGroups {
		to = events[len(events)-1].Start
	}
	fitted, err := activity.Fit(events, from, to)
	if err != nil || fitted.Group == nil {
		return nil
	}
	round := func(x, to float64) float64 { return math.Round(x/to) * to }
	g := fitted.Group
	return &Group{round(g.Size, 0.001), round(g.Seconds, 0.1), round(g.SizePercent, 0.01)}
}

// AddRates adds a mean of an hour that begins at a moment.
func (r *Rates) AddRates(at time.Time, kbps float64, zone *time.Location) {
	local := at.In(zone)
	var date week.Date
	date.Year, date.Month, date.Day = local.Date()
	if len(r.Hours) == 0 || date.Before(r.From) {
		r.From = date
	}
	if len(r.Hours) == 0 || r.To.Before(date) {
		r.To = date
	}
	hour := int(date.Weekday())*24 + local.Hour()
	k, ok := slices.BinarySearchFunc(r.Hours, hour, func(h HourRates, hour int) int { return h.Hour - hour })
	if !ok {
		r.Hours = slices.Insert(r.Hours, k, HourRates{Hour: hour})
	}
	r.Hours[k].N++
	r.Hours[k].Kbps += kbps
	r.Hours[k].Squares += kbps * kbps
}
