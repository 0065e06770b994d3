package estimate

import (
	"wakefield/core/alert"
	"wakefield/core/parallel"
	"wakefield/core/plan"
	"wakefield/core/resolve"
	"wakefield/core/storage"
	"wakefield/core/week"
)

// stills are those that one channel takes.
type stills struct {
	taken alert.Hours
	bytes float64 // of one
	timed bool    // whether they are taken whatever happens
	most  float64 // an hour
}

func (s *stills) hour(h int) storage.Bytes { return storage.Bytes(s.taken[h] * s.bytes) }

func (s *stills) day() storage.Bytes { return storage.Bytes(s.taken.PerDay() * s.bytes) }

// times are the bytes of an hour if a number of times as much happens.
func (s *stills) times(h int, factor float64) storage.Bytes {
	if s.timed {
		return s.hour(h)
	}
	return storage.Bytes(min(s.taken[h]*factor, max(s.most, s.taken[h])) * s.bytes)
}

// stillsOf are the stills of channel i; nil where it takes none.
func stillsOf(r *resolve.Site, i int) *stills {
	c := &r.Plan.Channels[i]
	if c.Stills == nil || c.NoCamera {
		return nil
	}
	out := &stills{bytes: c.Stills.Bytes(), timed: c.Stills.Mode == "timed", most: 3600 / c.Stills.EverySeconds}
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

// still finds the stills of every channel, and counts them among what it writes.
func (s *Result) still(p *plan.Plan, earlier *Result) {
	s.stills = make([]*stills, len(p.Channels))
	before := earlier.byID()
	var anew []int
	for i := range p.Channels {
		if j, ok := before[p.Channels[i].ID]; ok && s.site.HearsAsBefore(earlier.site) && earlier.plan.Channels[j].Stills == p.Channels[i].Stills {
			s.stills[i] = earlier.stills[j]
		} else if p.Channels[i].Stills != nil {
			anew = append(anew, i)
		}
	}
	parallel.Do(len(anew), func(k int) { s.stills[anew[k]] = stillsOf(s.site, anew[k]) })
	for i, st := range s.stills {
		if st != nil {
			perDay := st.taken.PerDay()
			s.Channels[i].StillsPerDay = &perDay
			s.Channels[i].GigabytesPerDay += float64(st.day()) / 1e9
		}
	}
}

// stillBytes is what channel i writes a day in stills.
func (s *Result) stillBytes(i int) storage.Bytes {
	if s.stills[i] == nil {
		return 0
	}
	return s.stills[i].day()
}
