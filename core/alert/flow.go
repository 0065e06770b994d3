package alert

import (
	"math"

	"wakefield.example/core/activity"
	"wakefield.example/core/week"
)

// flow is a stream whose triggers between two moments are found quickly.
type flow struct {
	Stream
	before []float64 // triggers from the week's begin to where each piece starts
	week   float64   // triggers of a week
}

// apartAtMost is how many streams are kept apart whose groups are alike in all but the chance of a trigger.
const apartAtMost = 8

// flows puts streams together that cannot be told from one: single triggers, and groups alike. Of many, those are alike whose
// chances differ by less than a hundredth; the mean takes their place.
func flows(streams []Stream) []flow {
	type kind struct {
		group  activity.Group
		chance float64
	}
	round := func(chance float64) float64 { return chance }
	if len(streams) > apartAtMost {
		round = func(chance float64) float64 { return math.Ceil(chance * 100) }
	}
	of := make(map[kind][]*Stream)
	var kinds []kind
	for i := range streams {
		s, k := &streams[i], kind{}
		if s.Rate.Total() == 0 {
			continue
		}
		if s.grouped() {
			k = kind{s.Group, round(s.Chance)}
		}
		if of[k] == nil {
			kinds = append(kinds, k)
		}
		of[k] = append(of[k], s)
	}
	var out []flow
	for _, k := range kinds {
		list := of[k]
		rates := make([]activity.Intensity, len(list))
		chance, all := 0.0, 0.0
		for i, s := range list {
			rates[i] = s.Rate
			n := s.Rate.Total()
			chance += n * s.Chance
			all += n
		}
		out = append(out, newFlow(Stream{activity.Sum(rates), k.group, chance / all}))
	}
	return out
}

func newFlow(s Stream) flow {
	f := flow{Stream: s, before: make([]float64, s.Rate.Len())}
	for i := range s.Rate.Len() {
		f.before[i] = f.week
		start, rate := s.Rate.Piece(i)
		f.week += rate * (s.Rate.End(i) - start)
	}
	return f
}

// Merge puts streams together that cannot be told from one, for whoever asks several things of them.
func Merge(streams []Stream) []Stream { return streamsOf(flows(streams)) }

// streamsOf are the streams of flows.
func streamsOf(list []flow) []Stream {
	out := make([]Stream, len(list))
	for i := range list {
		out[i] = list[i].Stream
	}
	return out
}

// since is how many triggers there are from the week's begin to t, which may lie outside the week.
func (f *flow) since(t float64) float64 {
	weeks := math.Floor(t / week.Seconds)
	t -= weeks * week.Seconds
	i := f.Rate.Index(t)
	start, rate := f.Rate.Piece(i)
	return weeks*f.week + f.before[i] + rate*(t-start)
}

// Counter counts the triggers of some streams together.
type Counter struct{ all flow }

// NewCounter is one of streams.
func NewCounter(streams []Stream) *Counter {
	rates := make([]activity.Intensity, 0, len(streams))
	for i := range streams {
		rates = append(rates, streams[i].Rate)
	}
	if len(rates) == 0 {
		rates = append(rates, activity.New(week.Constant(0.0), 1).Intensity)
	}
	return &Counter{newFlow(Stream{Rate: activity.Sum(rates)})}
}

// PerDay is how many there are a day, in some hours of the week.
func (c *Counter) PerDay(hours week.Steps[bool]) (n float64) {
	for run, on := range hours.Runs() {
		if on {
			n += c.all.since(60*float64(run.To)) - c.all.since(60*float64(run.From))
		}
	}
	return n / 7
}
