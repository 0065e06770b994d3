package measured

import (
	"math"
	"slices"
	"time"

	"wakefield.example/core/activity"
	"wakefield.example/core/doubt"
	"wakefield.example/core/estimate"
	"wakefield.example/core/plan"
	"wakefield.example/core/resolve"
	"wakefield.example/core/week"
)

const hoursOfWeek = 168

// seen is the log of one channel, laid over what the plan expects there.
type seen struct {
	channel int
	log     *Log
	from    []from    // what its events come from, by activity
	hours   []float64 // of each hour of the log, how much of it counts: 0 where there is no log of it
	like    []int     // which hour of a week it is like
	factor  []float64 // how much more happens on its date than in a mean week
	clip    float64   // seconds that an event is written beside its own length; of recordings
	joined  bool      // whether events that overlap are one line of the log
	guessed bool      // whether it is a guess how much detection notices
}

// from is an activity of which a channel's events come.
type from struct {
	doubt.Figures
	mean    float64 // seconds that an event of it lasts
	least   float64 // seconds that it must last to be noticed
	notices float64 // share that is noticed
	own     bool    // whether it is before the channel itself
	hourly  [hoursOfWeek]float64
}

// look lays a log over the plan. It is nil where nothing of the plan makes such lines.
func look(site *resolve.Site, l *Log, i int, zone *time.Location) *seen {
	c := &site.Plan.Channels[i]
	s := &seen{channel: i, log: l, guessed: site.Inputs[i].Guessed}
	triggers := site.Triggers[i]
	in := &site.Inputs[i]
	if l.Kind == Recordings {
		s.clip = c.PreSeconds + c.PostSeconds
		triggers = slices.Concat(in.Heard.Motion, in.Heard.Alarm)
	}
	for _, t := range triggers {
		s.add(t, in, l.Kind == Recordings)
	}
	s.lay(&site.Plan.Site, zone)
	s.joined = l.Kind == Recordings || s.isJoined()
	return s
}

// add adds what comes of a trigger.
func (s *seen) add(t *resolve.Trigger, in *resolve.Input, admitted bool) {
	k := slices.IndexFunc(s.from, func(f from) bool { return f.ID == t.From.ID })
	if k < 0 {
		k = len(s.from)
		s.from = append(s.from, from{Figures: doubt.Of(t.From), mean: t.Mean, least: t.By.MinSeconds, notices: t.By.Catch,
			own: in.Heard.Moves(t.From.ID)})
	}
	f := &s.from[k]
	f.notices = max(f.notices, t.By.Catch)
	for h := range f.hourly {
		if admitted && in.Regimes.At(week.Minute(h*60+30)).Admit == 0 {
			continue
		}
		f.hourly[h] += t.Stated.Intensity.Count(float64(h)*3600, float64(h+1)*3600)
	}
}

// lay finds for each hour of the log which hour of a week it is like, and how long it is: where clocks change none or two.
func (s *seen) lay(site *plan.Site, zone *time.Location) {
	n := 24 * s.log.Days
	s.hours, s.like, s.factor = make([]float64, n), make([]int, n), make([]float64, n)
	special := site.SpecialDaysFrom(s.log.From, s.log.Days)
	for d := range s.log.Days {
		date := s.log.From.Add(d)
		day, factor := int(date.Weekday()), 1.0
		if sp := special[d]; sp != nil {
			if sp.ActivityDay != nil {
				day = int(*sp.ActivityDay)
			}
			factor = plan.Or(sp.RateFactor, 1)
		}
		for h := range 24 {
			s.like[24*d+h], s.factor[24*d+h] = 24*day+h, factor
		}
		for t, end := date.At(0, zone), date.Add(1).At(0, zone); t.Before(end); t = t.Add(30 * time.Minute) {
			s.hours[24*d+t.In(zone).Hour()] += 0.5
		}
	}
}

// isJoined tells whether the log has one line for events that overlap: none does, though several would.
func (s *seen) isJoined() bool {
	if s.log.Overlaps > 0 || s.log.Lengths == 0 {
		return false
	}
	over, length := 0.0, s.log.Seconds/float64(s.log.Lengths)
	n := float64(s.log.N())
	for k := range s.from {
		over += 1 - apart(s.from[k].Group, length)
	}
	together := 0.0
	for h, c := range s.log.Counts {
		if s.hours[h] > 0 {
			together += float64(c) * float64(c) * length / 3600 / s.hours[h]
		}
	}
	return n*over/float64(max(1, len(s.from)))+together > 8
}

// expected is how many events of an activity the plan has in an hour of the log.
func (s *seen) expected(k, hour int) float64 {
	return s.from[k].hourly[s.like[hour]] * s.factor[hour] * s.hours[hour]
}

// all is how many of all.
func (s *seen) all(hour int) (sum float64) {
	for k := range s.from {
		sum += s.expected(k, hour)
	}
	return sum
}

// total is how many events the plan has over all hours that count, and how many there were.
func (s *seen) total() (expected, found float64) {
	for h := range s.hours {
		if s.hours[h] > 0 {
			expected += s.all(h)
			found += float64(s.log.Counts[h])
		}
	}
	return expected, found
}

// days is how long the log is that counts.
func (s *seen) days() (sum float64) {
	for _, h := range s.hours {
		sum += h / 24
	}
	return sum
}

// dispersed is the variance of a count over its mean, of groups: as the plan has them, or as the log shows, whichever is more.
func (s *seen) dispersed() float64 {
	d := 1.0
	for k := range s.from {
		d = max(d, dispersion(s.from[k].Group, s.from[k].notices))
	}
	if g := s.log.Group; g != nil {
		d = max(d, dispersion(activity.Group{Size: g.Size, Seconds: g.Seconds}, 1))
	}
	return d
}

// kept is the share of an activity's events that begin a line of the log, where a line stands for all that overlap: the others
// of their group do not go on, nor do those of another one. thick is how many seconds of events there are in a second.
func kept(f *from, rate, length, size, clip, thick float64) float64 {
	g, mean := f.group(size), f.mean*length
	return apart(g, clip+mean) * math.Exp(-thick*rate*union(g, clip, mean))
}

// group is how its events come together that are noticed, where so many happen together.
func (f *from) group(size float64) activity.Group {
	g := activity.Group{Size: 1 + (size-1)*f.notices, Seconds: f.Group.Seconds}
	if g.Seconds == 0 {
		g.Seconds = doubt.UnknownSeconds
	}
	return g
}

// thick is how many seconds of events of an activity, and of what else there is, the plan has in a second, as a mean over events.
func (s *seen) thick(k int) float64 {
	sum, all := 0.0, 0.0
	for h := range s.hours {
		if s.hours[h] == 0 {
			continue
		}
		busy := 0.0
		for j := range s.from {
			busy += s.expected(j, h) / s.hours[h] / 3600 * (s.clip + s.from[j].mean)
		}
		sum += s.expected(k, h) * busy
		all += s.expected(k, h)
	}
	if all == 0 {
		return 0
	}
	return sum / all
}

// looked lays all logs over the plan, those of channels that are there and have a camera.
func looked(est *estimate.Result, logs []Log, zone *time.Location) (out []*seen) {
	for k := range logs {
		i, ok := est.Site().Channels[logs[k].Channel]
		if !ok || est.Plan().Channels[i].NoCamera {
			continue
		}
		out = append(out, look(est.Site(), &logs[k], i, zone))
	}
	return out
}
