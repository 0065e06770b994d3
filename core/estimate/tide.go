package estimate

import (
	"reflect"
	"slices"

	"wakefield.example/core/footage"
	"wakefield.example/core/video"
	"wakefield.example/core/week"
)

// Tide is what channels write together, in equal bins over the week: those with the
// ids given, all where none are.
func (s *Result) Tide(ids ...string) footage.Week {
	out := make(footage.Week, week.Length/footage.Grain)
	for i := range out {
		from := week.Minute(i) * footage.Grain
		out[i].Span = week.Span{From: from, To: from + footage.Grain}
	}
	for i, w := range s.played {
		if len(ids) > 0 && !slices.Contains(ids, s.Channels[i].ID) {
			continue
		}
		for _, b := range w.Week {
			part := video.Kbps(b.Span.Minutes()) / video.Kbps(footage.Grain)
			t := &out[b.Span.From/footage.Grain]
			t.Base += part * b.Base
			t.Motion += part * b.Motion
			t.Alarm += part * b.Alarm
		}
	}
	return out
}

// Difference tells what of a channel changed between two estimates.
type Difference struct{ Figures, Week bool }

// Changed compares every channel with its figures in an earlier estimate of the
// site, which may be nil.
func (s *Result) Changed(earlier *Result) []Difference {
	out := make([]Difference, len(s.Channels))
	before := earlier.byID()
	for i := range s.Channels {
		j, ok := before[s.Channels[i].ID]
		if !ok {
			out[i] = Difference{true, true}
			continue
		}
		out[i] = Difference{
			Figures: !reflect.DeepEqual(s.Channels[i], earlier.Channels[j]),
			// A week that was not played anew is the very same one. One that looks the
			// same to the disk may have other duties.
			Week: s.played[i] != earlier.played[j] || !slices.Equal(s.inputs[i].Duties, earlier.inputs[j].Duties),
		}
	}
	return out
}
