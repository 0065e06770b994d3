package effect

import (
	"wakefield.example/core/alert"
	"wakefield.example/core/parallel"
	"wakefield.example/core/resolve"
	"wakefield.example/core/storage"
	"wakefield.example/core/week"
)

// Stills are those that one channel takes.
type Stills struct {
	taken alert.Hours
	bytes float64 // of one
	timed bool    // whether they are taken whatever happens
	most  float64 // an hour
}

func (s *Stills) Hour(h int) storage.Bytes { return storage.Bytes(s.taken[h] * s.bytes) }

// Day is what they come to in a mean day; nil are none.
func (s *Stills) Day() storage.Bytes {
	if s == nil {
		return 0
	}
	return storage.Bytes(s.PerDay() * s.bytes)
}

// PerDay is how many are taken.
func (s *Stills) PerDay() float64 { return s.taken.PerDay() }

// Times are the bytes of an hour if a number of times as much happens.
func (s *Stills) Times(h int, factor float64) storage.Bytes {
	if s.timed {
		return s.Hour(h)
	}
	return storage.Bytes(min(s.taken[h]*factor, max(s.most, s.taken[h])) * s.bytes)
}

// stillsOf are the stills of channel i; nil where it takes none.
func stillsOf(r *resolve.Site, i int) *Stills {
	c := &r.Plan.Channels[i]
	if c.Stills == nil || c.NoCamera {
		return nil
	}
	out := &Stills{bytes: c.Stills.Bytes(), timed: c.Stills.Mode == "timed", most: 3600 / c.Stills.EverySeconds}
	hours := c.Stills.Hours.Holding()
	if out.timed {
		for run, on := range hours.Runs() {
			for m := run.From; on && m < run.To; m++ {
				out.taken[m/week.Hour] += 60 / c.Stills.EverySeconds
			}
		}
		return out
	}
	var list []alert.Lasting
	for _, t := range r.Heard(r.Causes.Stills[i]) {
		list = append(list, alert.Lasting{Stream: t.Stream(hours), Mean: t.Mean})
	}
	out.taken = alert.Stills(list, c.Stills.EverySeconds)
	return out
}

// findStills finds the stills of every channel.
func (e *Effects) findStills(earlier *Effects) {
	channels := e.site.Plan.Channels
	e.Stills = make([]*Stills, len(channels))
	var anew []int
	for i := range channels {
		if j, ok := e.before(earlier, channels[i].ID); ok && earlier.site.Plan.Channels[j].Stills == channels[i].Stills {
			e.Stills[i] = earlier.Stills[j]
		} else if channels[i].Stills != nil {
			anew = append(anew, i)
		}
	}
	parallel.Do(len(anew), func(k int) { e.Stills[anew[k]] = stillsOf(e.site, anew[k]) })
}
