package measured

import (
	"cmp"
	"math"
	"slices"
	"time"

	"wakefield.example/core/plan"
	"wakefield.example/core/week"
)

// Stretch is a stretch of hours of which nothing is logged, though more than chance would leave was expected.
type Stretch struct {
	Channels []string  `json:"channels" doc:"Ids; of a gap all that the recorder's log has"`
	From     time.Time `json:"from"`
	To       time.Time `json:"to"`
	Expected float64   `json:"expected" doc:"How many events there would have been"`
	ToTheEnd bool      `json:"toTheEnd" doc:"Whether nothing came after it"`
}

// OddDay is a date on which something happened far more or less often than on all others. It is told by itself, and counts for
// nothing else.
type OddDay struct {
	Date     week.Date `json:"date"`
	Activity string    `json:"activity" doc:"Id"`
	Times    float64   `json:"times" doc:"How many times as often"`
	Channels []string  `json:"channels" doc:"Ids"`
}

// tooQuiet is how many events, or groups of them, must be expected in a stretch without any before it is taken for one in which
// nothing could be logged: e^−tooQuiet, times some thousand stretches that are looked at, is below one in a thousand.
const tooQuiet = 16

// pace is how much more a log has than the plan expects, but for the hours from one to another.
func (s *seen) pace(from, to int) float64 {
	found, expected := 0.0, 0.0
	for h := range s.hours {
		if s.hours[h] > 0 && (h < from || h >= to) {
			found += float64(s.log.Counts[h])
			expected += s.all(h)
		}
	}
	if found == 0 || expected == 0 {
		return 0.3 // of a log without anything: less than the plan has by as much as a guess may well be off
	}
	return found / expected
}

// gaps finds stretches in which all logs of a recorder have nothing, and takes them for times at which none was kept; then such
// of single channels, which recorded nothing while others did.
func gaps(p *plan.Plan, list []*seen, zone *time.Location) (gaps, silences []Stretch) {
	byRecorder := make(map[string][]*seen)
	for _, s := range list {
		r := p.Channels[s.channel].Recorder
		byRecorder[r] = append(byRecorder[r], s)
	}
	for i := range p.Recorders {
		all := byRecorder[p.Recorders[i].ID]
		if len(all) > 0 { // of a single log nobody can tell which it is, and nothing of it counts either way
			gaps = append(gaps, quiet(p, all, zone)...)
		}
	}
	for _, s := range list {
		silences = append(silences, quiet(p, []*seen{s}, zone)...)
	}
	return gaps, silences
}

// quiet finds stretches in which none of some logs has anything, and lets them count no more. Logs are on one axis of dates.
func quiet(p *plan.Plan, list []*seen, zone *time.Location) (out []Stretch) {
	first, end := list[0].log.From, list[0].log.To()
	for _, s := range list {
		if s.log.From.Before(first) {
			first = s.log.From
		}
		if end.Before(s.log.To()) {
			end = s.log.To()
		}
	}
	hours := 24 * end.Since(first)
	empty := func(h int) bool {
		for _, s := range list {
			if at := h - 24*s.log.From.Since(first); at >= 0 && at < len(s.hours) && s.log.Counts[at] > 0 {
				return false
			}
		}
		return true
	}
	for h := 0; h < hours; h++ {
		if !empty(h) {
			continue
		}
		to := h
		for to < hours && empty(to) {
			to++
		}
		if st, ok := stretch(p, list, first, h, to); ok {
			at := func(h int) time.Time { return first.Add(h/24).At(week.Clock(h%24*60), zone) }
			st.From, st.To, st.ToTheEnd = at(h), at(to), to == hours
			out = append(out, st)
		}
		h = to
	}
	return out
}

// stretch tells whether hours without events are more than chance, and lets them count no more where they are.
func stretch(p *plan.Plan, list []*seen, first week.Date, from, to int) (st Stretch, ok bool) {
	groups := 0.0
	for _, s := range list {
		shift := 24 * s.log.From.Since(first)
		pace, sum := s.pace(from-shift, to-shift), 0.0
		for h := max(0, from-shift); h < min(len(s.hours), to-shift); h++ {
			if s.hours[h] > 0 {
				sum += s.all(h)
			}
		}
		st.Expected += pace * sum
		groups += pace * sum / s.dispersed()
	}
	if groups < tooQuiet {
		return st, false
	}
	for _, s := range list {
		shift := 24 * s.log.From.Since(first)
		for h := max(0, from-shift); h < min(len(s.hours), to-shift); h++ {
			s.hours[h] = 0
		}
		st.Channels = append(st.Channels, p.Channels[s.channel].ID)
	}
	return st, true
}

// main is the activity that most of a channel's events are expected to come from; -1 where none is.
func (s *seen) main() int {
	best, at := 0.0, -1
	for k := range s.from {
		sum := 0.0
		for h := range s.hours {
			sum += s.expected(k, h)
		}
		if sum > best {
			best, at = sum, k
		}
	}
	return at
}

// byMain are the logs by the activity that most of their events come from, in the order of its id.
func byMain(list []*seen) (ids []string, by map[string][]*seen) {
	by = make(map[string][]*seen)
	for _, s := range list {
		k := s.main()
		if k < 0 {
			continue
		}
		id := s.from[k].ID
		if by[id] == nil {
			ids = append(ids, id)
		}
		by[id] = append(by[id], s)
	}
	slices.Sort(ids)
	return ids, by
}

// daily is a date of all logs of an activity.
type daily struct {
	date            week.Date
	found, expected float64
	variance        float64 // of what is found, of groups
}

// dailies adds logs up by date; what is expected is so at their own pace.
func dailies(list []*seen) (out []daily) {
	at := make(map[week.Date]int)
	for _, s := range list {
		pace, d := s.pace(0, 0), s.dispersed()
		for day := range s.log.Days {
			expected, found := 0.0, 0.0
			for h := 24 * day; h < 24*day+24; h++ {
				if s.hours[h] > 0 {
					expected += pace * s.all(h)
					found += float64(s.log.Counts[h])
				}
			}
			if expected == 0 {
				continue
			}
			date := s.log.From.Add(day)
			k, ok := at[date]
			if !ok {
				k = len(out)
				at[date] = k
				out = append(out, daily{date: date})
			}
			out[k].found += found
			out[k].expected += expected
			out[k].variance += expected * d
		}
	}
	slices.SortFunc(out, func(a, b daily) int { return cmp.Compare(a.date.Since(b.date), 0) })
	return out
}

// Days differ by a factor of their own with so large a standard deviation of its logarithm, as if that had been seen on so many
// days, until the log says otherwise.
const (
	dayFactor = 0.25
	dayWeight = 5
)

// oddOut is how many standard deviations a day is off that is told by itself, and by what factor at the least.
const (
	oddOut   = 4.5
	oddTimes = 1.7
)

// between is the standard deviation of the logarithm by which days differ beyond chance.
func between(days []daily) float64 {
	sum := dayWeight * dayFactor * dayFactor
	for _, d := range days {
		off := d.found - d.expected
		sum += max(-0.5*dayFactor*dayFactor, (off*off-d.variance)/(d.expected*d.expected+d.variance))
	}
	return math.Sqrt(max(0.0004, sum/(dayWeight+float64(len(days)))))
}

// odd finds dates on which something happened far more or less often, lets them count no more, and tells by how much other days
// differ, by activity.
func odd(p *plan.Plan, list []*seen) (out []OddDay, spread map[string]float64) {
	spread = make(map[string]float64)
	ids, by := byMain(list)
	for _, id := range ids {
		for range 6 { // the worst first, as it hides the others
			days := dailies(by[id])
			worst, at := oddOut, -1
			for k, d := range days {
				rest := slices.Delete(slices.Clone(days), k, k+1)
				sd := math.Sqrt(d.variance/(d.expected*d.expected) + math.Pow(between(rest), 2))
				off := math.Abs(math.Log((d.found + 0.5) / (d.expected + 0.5)))
				if off/sd > worst && off > math.Log(oddTimes) {
					worst, at = off/sd, k
				}
			}
			if len(days) < 7 || at < 0 {
				break
			}
			out = append(out, setAside(p, by[id], id, days[at]))
		}
		spread[id] = between(dailies(by[id]))
	}
	return out, spread
}

// setAside lets a date count no more.
func setAside(p *plan.Plan, list []*seen, id string, d daily) OddDay {
	o := OddDay{Date: d.date, Activity: id}
	var rest, expected float64
	for _, s := range list {
		day := d.date.Since(s.log.From)
		if day < 0 || day >= s.log.Days {
			continue
		}
		for h := 24 * day; h < 24*day+24; h++ {
			expected += s.all(h)
			s.hours[h] = 0
		}
		pace := s.pace(0, 0)
		rest += pace
		o.Channels = append(o.Channels, p.Channels[s.channel].ID)
	}
	o.Times = d.found / max(0.5, expected*rest/float64(max(1, len(o.Channels))))
	return o
}
