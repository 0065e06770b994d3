package uplink

import (
	"math"
	"slices"

	"wakefield.example/core/parallel"
	"wakefield.example/core/week"
)

// How much is played. Weeks are added until the ninth decile of all clips is known to sureEnough, or there are mostEvents.
const (
	firstEvents = 40_000
	mostEvents  = 200_000
	fewestWeeks = 3
	mostWeeks   = 500
	sureEnough  = 0.03 // standard error, as a share of the figure
	blocks      = 8    // of weeks, whose figures are compared
	fewClips    = 2000 // of a channel; one that has fewer is asked about by probes
	mostProbes  = 100  // times as many as there are events

	// mostWork is what is played at most, in events and what they do. Where more than that happens in the fewest weeks one event
	// stands for several: it brings as much more as a week is known to bring.
	mostWork = 1_500_000
)

// Played is when copies are safe.
type Played struct {
	Channels []Safety
	// Waits is how long 99 of 100 clips wait at most before they begin to be sent, seconds.
	Waits float64
	// Backlog is for each hour of the week what waits at most in nine of ten weeks.
	Backlog [168]Kbit
	Weeks   int // that were played
}

// Safety is how many seconds after the end of an event its footage is safe.
type Safety struct {
	Idle                float64 // where nothing else waits
	Mean, Ninety, Worst float64 // Worst in 99 of 100; 0 where the line never catches up
	Amount              Kbit    // of the footage of one event, mean
	Clips               int     // that were played, probes among them; 0 where nothing is copied

	sorted []float64
}

// Later is the share of events whose footage is safe later than so many seconds after their end.
func (s *Safety) Later(seconds float64) float64 {
	if len(s.sorted) == 0 {
		return 0
	}
	k, _ := slices.BinarySearch(s.sorted, math.Nextafter(seconds, math.Inf(1)))
	return 1 - float64(k)/float64(len(s.sorted))
}

// Play sends what a demand copies over its line. The same demand gives the same. Of a line that never catches up it says what is so
// without waiting.
func Play(s *Demand) *Played {
	perWeek := s.work()
	s.part = min(1, mostWork/(fewestWeeks*max(1, perWeek)))
	weeks := int(max(fewestWeeks, min(mostWeeks, firstEvents/max(1, perWeek))))
	for {
		out, sure := s.play(weeks)
		if sure || s.Grows || weeks == mostWeeks || float64(weeks)*perWeek*2 > mostEvents {
			return out
		}
		weeks = min(2*weeks, mostWeeks)
	}
}

// work is what a week is expected to take: events, each once for every channel that it is copied on and for every duty that its
// footage may span, and stills.
func (s *Demand) work() (n float64) {
	for i := range s.Sources {
		n += s.Sources[i].Intensity.Total()
	}
	for i := range s.Channels {
		c := &s.Channels[i]
		for _, h := range c.Heard {
			from := &s.Sources[h.Source]
			lasts := max(c.Pre+c.Post, c.AlarmPre+c.AlarmPost) + from.Mean
			n += from.Intensity.Total() * (1 + float64(len(c.Copied))*lasts/week.Seconds)
		}
		if c.Stills != nil && c.Stills.Amount > 0 {
			n += c.Weekly / c.Stills.Amount
		}
	}
	return n
}

// fill makes clips bring as much as their channel is known to copy, where they stand for more events than were drawn.
func (s *Demand) fill(clips []Clip, weekly Kbit, weeks int) {
	if s.part == 1 {
		return
	}
	all := 0.0
	for k := range clips {
		all += clips[k].Amount
	}
	for k := range clips {
		clips[k].Amount *= weekly * float64(weeks) / max(all, 1e-9)
	}
}

func (s *Demand) play(weeks int) (out *Played, sure bool) {
	events := make([][]event, len(s.Sources))
	parallel.Do(len(events), func(k int) { events[k] = drawn(s.Sources[k].Process, s.Sources[k].Name, weeks, s.part) })
	lists := make([][]Clip, len(s.Channels))
	parallel.Do(len(lists), func(i int) {
		lists[i] = s.Channels[i].clips(i, s.part, func(k int) []event { return events[k] })
		s.fill(lists[i], s.Channels[i].Weekly, weeks)
	})
	lists = append(lists, s.probes(lists, weeks)...)
	clips := slices.Concat(lists...)
	Sort(clips)
	warm := float64(max(1, weeks/6)) * week.Seconds // it begins with nothing that waits
	end := float64(weeks) * week.Seconds
	out = &Played{Channels: make([]Safety, len(s.Channels)), Weeks: weeks}
	log := backlogs{line: s.Line, weeks: make([][168]Kbit, weeks)}
	var waits []float64
	byBlock := make([][]float64, blocks)
	carrier := Carrier(s.Line)
	if s.Grows {
		carrier = nowhere{}
	}
	Send(clips, carrier, func(k int, begins, safe float64) bool {
		c := &clips[k]
		if c.Probe == 0 && !s.Grows {
			log.add(c.Done, safe)
		}
		if c.Done < warm || c.Done >= end || c.Aside {
			return true
		}
		of := &out.Channels[c.Channel]
		of.Clips++
		of.Idle += c.Done - c.Over + c.Amount/s.Line.kbps
		of.Amount += c.Whole
		if s.Grows {
			return true
		}
		of.sorted = append(of.sorted, safe-c.Over)
		if c.Probe == 0 {
			waits = append(waits, begins-c.Done)
			b := int((c.Done - warm) / (end - warm) * blocks)
			byBlock[b] = append(byBlock[b], safe-c.Over)
		}
		return true
	})
	parallel.Do(len(out.Channels), func(i int) { out.Channels[i].settle() })
	out.Waits = quantile(waits, 0.99)
	log.pass(end)
	out.Backlog = log.ninety(int(warm / week.Seconds))
	return out, agree(byBlock)
}

// probes are clips of more events of the sources whose channels have few clips: they tell how those fare, beside the other clips
// of the same event. A channel counts as many of them as it needs.
func (s *Demand) probes(clips [][]Clip, weeks int) [][]Clip {
	of := make([]float64, len(s.Sources)) // how many times as many of each source
	needs := make([]float64, len(s.Channels))
	for i := range s.Channels {
		if n := len(clips[i]); n < fewClips && s.Channels[i].Stills == nil {
			needs[i] = min(mostProbes, fewClips/max(1, float64(n)))
			for _, h := range s.Channels[i].Heard {
				// No more of them than are played of all: many may happen that hardly ever are noticed.
				of[h.Source] = max(of[h.Source], min(needs[i], mostEvents/max(1, float64(weeks)*s.Sources[h.Source].Intensity.Total())))
			}
		}
	}
	events := make([][]event, len(of))
	for k, often := range of {
		if often > 0 {
			events[k] = drawn(s.Sources[k].Process, s.Sources[k].Name+" more", weeks, often)
		}
	}
	out := make([][]Clip, len(s.Channels))
	parallel.Do(len(out), func(i int) {
		out[i] = s.Channels[i].ask(i, func(k int) []event { return events[k] }, func(source, event int) int { return 1 + event*len(of) + source })
		for k := range out[i] {
			c := &out[i][k]
			source := (c.Probe - 1) % len(of)
			_, part := math.Modf(float64(c.Event) * math.Phi)
			c.Aside = needs[i] == 0 || part*of[source] >= needs[i]
		}
	})
	return out
}

// settle makes figures of what was seen.
func (s *Safety) settle() {
	if s.Clips == 0 {
		return
	}
	s.Idle, s.Amount = s.Idle/float64(s.Clips), s.Amount/float64(s.Clips)
	if len(s.sorted) == 0 {
		return
	}
	slices.Sort(s.sorted)
	for _, v := range s.sorted {
		s.Mean += v / float64(len(s.sorted))
	}
	s.Ninety, s.Worst = atShare(s.sorted, 0.9), atShare(s.sorted, 0.99)
}

func quantile(values []float64, share float64) float64 {
	if len(values) == 0 {
		return 0
	}
	slices.Sort(values)
	return atShare(values, share)
}

func atShare(sorted []float64, share float64) float64 {
	return sorted[min(len(sorted)-1, int(share*float64(len(sorted))))]
}

// agree tells whether the ninth deciles of blocks of weeks differ so little that their mean is sure enough.
func agree(byBlock [][]float64) bool {
	var mean, square float64
	for _, b := range byBlock {
		v := quantile(b, 0.9)
		mean += v / blocks
		square += v * v / blocks
	}
	spread := math.Sqrt(max(0, square-mean*mean) / (blocks - 1))
	return spread <= sureEnough*mean
}

// backlogs is what waits in each hour of each week.
type backlogs struct {
	line  *Line
	weeks [][168]Kbit
	last  float64 // when the last clip came
	free  float64 // when all up to it will have left
}

// add notes that there is a clip, and when it will have left; those before it must have been added.
func (b *backlogs) add(done, safe float64) {
	b.pass(done)
	b.note(done, safe)
	b.last, b.free = done, safe
}

// pass notes what waits as hours begin, up to a moment.
func (b *backlogs) pass(until float64) {
	for h := int(b.last/3600) + 1; float64(h)*3600 < min(until, b.free) && h < 168*len(b.weeks); h++ {
		b.note(float64(h)*3600, b.free)
	}
}

func (b *backlogs) note(at, free float64) {
	h := int(at / 3600)
	if w := h / 168; w < len(b.weeks) {
		now := &b.weeks[w][h%168]
		*now = max(*now, b.line.Between(at, free))
	}
}

// ninety is what waits at most in nine of ten weeks, from a week on.
func (b *backlogs) ninety(first int) (out [168]Kbit) {
	list := make([]float64, 0, len(b.weeks))
	for h := range out {
		list = list[:0]
		for w := first; w < len(b.weeks); w++ {
			list = append(list, b.weeks[w][h])
		}
		out[h] = quantile(list, 0.9)
	}
	return out
}

// nowhere is a line of which nothing is asked.
type nowhere struct{}

func (nowhere) After(at float64, _ Kbit) float64 { return at }
