package rehearse

// Sums are what a rehearsal comes to, in the days asked for.
type Sums struct {
	Wanted    int     `json:"wanted" doc:"Wanted events"`
	Full      int     `json:"full"`
	Low       int     `json:"low"`
	Missed    int     `json:"missed"`
	Unwanted  int     `json:"unwanted" doc:"Triggers of what nobody wants"`
	Hours     float64 `json:"hours" doc:"Of footage, of all channels"`
	Gigabytes float64 `json:"gigabytes"`
	Messages  int     `json:"messages" doc:"That went out"`
	HeldBack  int     `json:"heldBack"`
}

// Sums adds up.
func (r *Rehearsal) Sums() (s Sums) {
	for k := range r.Events {
		e := &r.Events[k]
		if e.Start < 0 || e.Start >= r.Length {
			continue
		}
		if e.Source == Nuisance || e.Source == Patch {
			if e.Gate == Passed {
				s.Unwanted++
			}
			continue
		}
		switch e.Fate {
		case Full:
			s.Full++
		case Low:
			s.Low++
		case Missed:
			s.Missed++
		default:
			continue
		}
		s.Wanted++
	}
	for _, list := range r.Segments {
		for _, g := range list {
			s.Hours += float64(g.To-g.From) / float64(Hour)
			s.Gigabytes += g.Kbit / 8e6
		}
	}
	inside := func(list []int) (n int) {
		for _, k := range list {
			if at := r.Events[k].Trigger; at >= 0 && at < r.Length {
				n++
			}
		}
		return n
	}
	for _, t := range r.Told {
		s.Messages += inside(t.Went)
		s.HeldBack += inside(t.Held)
	}
	return s
}

// Turned is a wanted event with another fate in another rehearsal of the same days.
type Turned struct {
	Event  int // in the first
	Before Fate
	After  Fate
}

// Beside holds another rehearsal of the same number and days against this one, event by event: those that happen in both, by
// channel id and time. Events of channels that only one of them has are left out.
func (r *Rehearsal) Beside(other *Rehearsal) (out []Turned) {
	type key struct {
		channel  string
		start    Ms
		end      Ms
		repeated int
	}
	keyed := func(r *Rehearsal, f func(n int, k key)) {
		seen := make(map[key]int)
		for n := range r.Events {
			e := &r.Events[n]
			if e.Source != Wanted || e.Start < 0 || e.Start >= r.Length {
				continue
			}
			k := key{r.plan.Channels[e.Channel].ID, e.Start, e.End, 0}
			k.repeated = seen[k]
			seen[key{k.channel, k.start, k.end, 0}]++
			f(n, k)
		}
	}
	was := make(map[key]int)
	keyed(r, func(n int, k key) { was[k] = n })
	keyed(other, func(n int, k key) {
		if before, ok := was[k]; ok && r.Events[before].Fate != other.Events[n].Fate {
			out = append(out, Turned{before, r.Events[before].Fate, other.Events[n].Fate})
		}
	})
	return out
}

// Better tells whether a fate is better than another.
func (f Fate) Better(g Fate) bool {
	rank := map[Fate]int{Full: 2, Low: 1, Missed: 0}
	return rank[f] > rank[g]
}
